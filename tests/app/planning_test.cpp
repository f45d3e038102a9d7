#include <gtest/gtest.h>

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QTableWidget>
#include <QTextBrowser>
#include <QTimer>

#include <cmath>
#include <set>

#include "bench_builder.h"
#include "look/look.h"
#include "look/units.h"
#include "rig/rig_file.h"
#include "sheets/wiring_sheets.h"
#include "shell/sheet_dialog.h"
#include "stations/fit/fit_page.h"
#include "stations/fit/part_dialog.h"
#include "stations/power/power_page.h"
#include "stations/wiring/wiring_page.h"

// Fit, power and wiring, driven through the window.
namespace rigging::app {
namespace {

class Planning : public testing::Test {
 protected:
  void SetUp() override { b.window.document().start_new(*load_rig(RIGGING_SOURCE_DIR "/data/demo/hedgerow.rig.json")); }
  const Rig& rig() { return b.window.document().rig(); }
  void drag(QWidget* view, QPointF from, QPointF to) {
    QTest::mousePress(view, Qt::LeftButton, {}, from.toPoint());
    QTest::mouseMove(view, ((from + to) / 2).toPoint());
    // A move with the button held, as a hand makes it.
    QMouseEvent move(QEvent::MouseMove, to, view->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, {});
    QApplication::sendEvent(view, &move);
    QTest::mouseRelease(view, Qt::LeftButton, {}, to.toPoint());
    QApplication::processEvents();
  }
  QString text(const char* label) { return b.find<QLabel>(QLatin1String(label))->text(); }

  Builder b;
};

TEST_F(Planning, APartIsDraggedNudgedAndTyped) {
  b.window.go(Station::fit);
  QApplication::processEvents();
  auto* view = b.find<PlacesView>(QStringLiteral("places_view"));
  const double before = rig().place("video")->y_m;
  const QPointF at = view->above_of("video");
  drag(view, at, at + QPointF(0, -30));
  EXPECT_EQ(view->selected(), "video");
  const double dragged = rig().place("video")->y_m;
  EXPECT_LT(dragged, before - 0.01) << "up on the screen is to the left";
  view->setFocus();
  QTest::keyClick(view, Qt::Key_Down);
  EXPECT_NEAR(rig().place("video")->y_m, dragged + 0.005, 1e-9);
  const double along = rig().place("video")->x_m;
  QTest::keyClick(view, Qt::Key_Right, Qt::ShiftModifier);
  EXPECT_NEAR(rig().place("video")->x_m, along - 0.001, 1e-9);
  b.find<QDoubleSpinBox>(QStringLiteral("behind_nose"))->setValue(390);
  EXPECT_NEAR(rig().place("video")->x_m, -0.390, 1e-9);
  const auto edits = b.window.document().history().last_edit();
  EXPECT_NE(edits.find("Video"), std::string::npos);
  for (int i = 0; i < 4; ++i) b.window.document().undo();
  EXPECT_NEAR(rig().place("video")->y_m, before, 1e-9);
}

TEST_F(Planning, BalanceIsSaidAndTheFixMovesTheBattery) {
  b.window.go(Station::fit);
  EXPECT_TRUE(text("balance_words").contains(QStringLiteral("holds")));
  b.find<QDoubleSpinBox>(QStringLiteral("frame_at"))->setValue(rig().fit.frame_at_m * 1000 + 45);
  EXPECT_TRUE(text("balance_words").contains(QStringLiteral("tail-heavy"))) << text("balance_words").toStdString();
  for (const Snag& s : b.window.document().review().snags)
    if (s.code == "FIT-04") {
      ASSERT_TRUE(s.fix);
      b.window.document().edit(s.fix->apply(rig()), QStringLiteral("fix"));
      break;
    }
  EXPECT_TRUE(text("balance_words").contains(QStringLiteral("holds")));
}

TEST_F(Planning, TicksAreKeptAndTheCompassIsWatched) {
  b.window.go(Station::fit);
  auto* tick = b.find<QCheckBox>(QStringLiteral("tick_barometer_covered"));
  ASSERT_TRUE(tick && tick->isChecked());
  tick->click();
  EXPECT_EQ(b.window.document().review().snags.front().code, "FIT-18");
  b.find<QCheckBox>(QStringLiteral("tick_barometer_covered"))->click();
  EXPECT_TRUE(text("compass_words").contains(QStringLiteral("holds")));
  b.find<FitPage>({})->go_to(QStringLiteral("gps"));
  b.find<QDoubleSpinBox>(QStringLiteral("right_of_middle"))->setValue(60);
  EXPECT_TRUE(text("compass_words").contains(QStringLiteral("too near")));
  auto* turn = b.find<QComboBox>(QStringLiteral("part_turn"));
  EXPECT_TRUE(turn->isVisible());
  EXPECT_EQ(turn->count(), 24);
}

TEST_F(Planning, PartsAreAddedDescribedAndRemoved) {
  b.window.go(Station::fit);
  const auto count = rig().parts.size();
  QTimer::singleShot(100, [&] {
    auto* dialog = QApplication::activeModalWidget();
    ASSERT_TRUE(dialog);
    QTest::keyClicks(dialog->findChild<QLineEdit*>(QStringLiteral("part_search")), QStringLiteral("airspeed"));
    EXPECT_EQ(dialog->findChild<QListWidget*>(QStringLiteral("part_kinds"))->count(), 1);
    QTest::mouseClick(dialog->findChild<QPushButton*>(QStringLiteral("add_chosen")), Qt::LeftButton);
  });
  ASSERT_TRUE(b.click(QStringLiteral("add_part")));
  ASSERT_EQ(rig().parts.size(), count + 1);
  EXPECT_EQ(rig().parts.back().kind, "airspeed_sensor");
  EXPECT_TRUE(rig().place("airspeed"));
  ASSERT_TRUE(b.click(QStringLiteral("remove_part")));
  EXPECT_EQ(rig().parts.size(), count);
  EXPECT_FALSE(rig().place("airspeed"));

  // One's own: refused while the rig has no file, kept beside it afterwards.
  QString complaint;
  const auto own = [&] {
    QTimer::singleShot(100, [&] {
      auto* dialog = QApplication::activeModalWidget();
      ASSERT_TRUE(dialog);
      QTest::keyClicks(dialog->findChild<QLineEdit*>(QStringLiteral("part_search")),
                       QStringLiteral("nine grams digital"));
      dialog->findChild<QLineEdit*>(QStringLiteral("own_id"))->setText(QStringLiteral("my_servo"));
      dialog->findChild<QDoubleSpinBox*>(QStringLiteral("own_most"))->setValue(1.4);
      QTest::mouseClick(dialog->findChild<QPushButton*>(QStringLiteral("keep_own")), Qt::LeftButton);
      complaint =
          dialog->isVisible() ? dialog->findChild<QLabel*>(QStringLiteral("part_complaint"))->text() : QString();
      if (dialog->isVisible()) qobject_cast<QDialog*>(dialog)->reject();
    });
    b.click(QStringLiteral("add_part"));
  };
  own();
  EXPECT_TRUE(complaint.contains(QStringLiteral("save the rig first"))) << complaint.toStdString();
  ASSERT_TRUE(b.window.document().save(b.folder.filePath(QStringLiteral("mine.rig.json"))));
  own();
  EXPECT_TRUE(complaint.isEmpty()) << complaint.toStdString();
  EXPECT_EQ(rig().parts.back().kind, "my_servo");
  EXPECT_EQ(b.window.document().catalogue().part("my_servo")->loads.front().most_a, 1.4);
  EXPECT_TRUE(QFile::exists(b.folder.filePath(QStringLiteral("mine.parts.json"))));
}

TEST_F(Planning, BayPlaceAnglesAndMeasuredValuesAreTyped) {
  const auto with = [&](const char* button, std::function<void(QWidget&)> type, const char* press = "take") {
    QTimer::singleShot(80, [type, press] {
      auto* dialog = QApplication::activeModalWidget();
      ASSERT_TRUE(dialog);
      type(*dialog);
      QTest::mouseClick(dialog->findChild<QPushButton*>(QLatin1String(press)), Qt::LeftButton);
    });
    ASSERT_TRUE(b.click(QLatin1String(button))) << button;
  };
  const auto set = [](QWidget& dialog, const char* box, double value) {
    dialog.findChild<QDoubleSpinBox*>(QLatin1String(box))->setValue(value);
  };
  b.window.go(Station::fit);
  const Rig before = rig();
  with("bay_and_place", [](QWidget&) {});
  EXPECT_EQ(rig(), before) << "accepted untouched: nothing changes, not even the last digit";
  with("bay_and_place", [&](QWidget& d) {
    set(d, "bay_width", 90);
    set(d, "latitude", -33.5);
    set(d, "longitude", -180.01);
    set(d, "static_margin", 12);
  });
  EXPECT_NEAR(rig().fit.bay->width_m, 0.09, 1e-12);
  EXPECT_EQ(rig().fit.latitude_deg, -33.5);
  EXPECT_FALSE(rig().fit.longitude_deg);
  EXPECT_NEAR(rig().fit.static_margin, 0.12, 1e-12);
  const Rig placed = rig();
  with("bay_and_place",
       [](QWidget& d) { d.findChild<QLineEdit*>(QStringLiteral("date"))->setText(QStringLiteral("next spring")); });
  EXPECT_EQ(rig(), placed);
  EXPECT_TRUE(text("balance_words").contains(QStringLiteral("no date")));
  b.find<FitPage>({})->go_to(QStringLiteral("controller"));
  with("small_angles", [&](QWidget& d) { set(d, "yaw", 4); });
  EXPECT_EQ(rig().place("controller")->yaw_deg, 4);
  bool askew = false;
  for (const Snag& s : b.window.document().review().snags) askew = askew || s.code == "FIT-13";
  EXPECT_TRUE(askew);
  b.window.go(Station::power);
  with("measured", [&](QWidget& d) {
    set(d, "static_a", 31.5);
    d.findChild<QCheckBox*>(QStringLiteral("faces_flight"))->setChecked(false);
  });
  EXPECT_EQ(rig().power.static_a, 31.5);
  EXPECT_FALSE(rig().power.propeller_faces_flight);
  EXPECT_EQ(b.window.document().review().snags.front().code, "POWER-22");
}

TEST_F(Planning, TheListToGetOpens) {
  b.window.go(Station::fit);
  QString list;
  QTimer::singleShot(100, [&] {
    auto* dialog = QApplication::activeModalWidget();
    ASSERT_TRUE(dialog);
    list = dialog->findChild<QTextBrowser*>(QStringLiteral("to_get_list"))->toPlainText();
    QTest::mouseClick(dialog->findChild<QPushButton*>(QStringLiteral("close")), Qt::LeftButton);
  });
  ASSERT_TRUE(b.click(QStringLiteral("to_get")));
  EXPECT_TRUE(list.contains(QStringLiteral("Open-cell foam")));
}

TEST_F(Planning, WhatIfsShowAndChangeNothing) {
  b.window.go(Station::power);
  const Rig before = rig();
  auto* page = b.window.findChild<PowerPage*>();
  EXPECT_TRUE(text("power_verdicts").contains(QStringLiteral("holds")));
  EXPECT_TRUE(text("power_explained").contains(QStringLiteral("On USB alone")));
  for (const char* button : {"supply_state_usb", "supply_state_both", "supply_state_battery", "effort_idle",
                             "effort_two_stalled", "one_more_cell", "pull_esc"})
    ASSERT_TRUE(b.click(QLatin1String(button))) << button;
  EXPECT_EQ(page->what_if().more_cells, 1);
  EXPECT_EQ(page->what_if().without, std::vector<std::string>{"esc"});
  EXPECT_TRUE(text("power_figures").contains(QStringLiteral("21 V"))) << text("power_figures").toStdString();
  ASSERT_TRUE(b.click(QStringLiteral("as_it_is")));
  EXPECT_EQ(page->what_if().more_cells, 0);
  // A click on a servo's river stalls it; another lets it go.
  auto* rivers = b.find<RiversView>(QStringLiteral("rivers_view"));
  rivers->repaint();
  rivers->grab();
  bool stalled = false;
  for (int y = 10; y < rivers->height() && !stalled; y += 8) {
    QTest::mouseClick(rivers, Qt::LeftButton, {}, QPoint(rivers->width() - 100, y));
    stalled = !page->what_if().stalled.empty();
  }
  EXPECT_TRUE(stalled);
  EXPECT_EQ(rig(), before);
  ASSERT_TRUE(b.click(QStringLiteral("power_working")));
  EXPECT_TRUE(b.find<QPushButton>(QStringLiteral("power_working"))->text().contains(QStringLiteral("Hide")));
}

TEST_F(Planning, AnOverloadedRailIsSaidWithAdvice) {
  Rig heavy = rig();
  for (Part& p : heavy.parts) {
    if (p.kind == "servo_12g_metal") p.kind = "servo_40g_analogue";
    if (p.id == "esc") p.kind = "esc_30_switching";
  }
  b.window.document().edit(heavy, QStringLiteral("heavy servos"));
  b.window.go(Station::power);
  EXPECT_TRUE(text("power_verdicts").contains(QStringLiteral("too much")));
  EXPECT_TRUE(text("power_advice").contains(QStringLiteral("second regulator")));
}

TEST_F(Planning, ALeadIsTracedAndItsEndMoved) {
  b.window.go(Station::wiring);
  QApplication::processEvents();
  auto* view = b.find<WiringView>(QStringLiteral("wiring_view"));
  drag(view, view->at_socket("serial_4"), view->at_socket("serial_3"));
  EXPECT_EQ(rig().lead("gps")->to.socket, "serial_3");
  EXPECT_EQ(view->traced(), "gps");
  EXPECT_TRUE(text("chosen_lead").contains(QStringLiteral("SER 3")));
  // On a port that can't serve it: a conflict, said and drawn.
  drag(view, view->at_socket("serial_2"), view->at_socket("serial_1"));
  EXPECT_EQ(rig().lead("receiver")->to.socket, "serial_1");
  bool said = false;
  for (const Snag& s : b.window.document().review().snags) said = said || s.code == "WIRING-04";
  EXPECT_TRUE(said);
  ASSERT_TRUE(b.click(QStringLiteral("plan_wiring")));
  EXPECT_EQ(rig().lead("receiver")->to.socket, "serial_2");
  EXPECT_TRUE(text("plan_words").contains(QStringLiteral("One thing"))) << text("plan_words").toStdString();
  // Dropped on nothing: nothing happens.
  drag(view, view->at_socket("serial_2"), QPointF(view->width() - 5, view->height() - 5));
  EXPECT_EQ(rig().lead("receiver")->to.socket, "serial_2");
  // A servo's plug takes its output along.
  drag(view, view->at_socket("s1"), view->at_socket("s5"));
  EXPECT_EQ(rig().lead("servo_flaperon_left")->to.socket, "s5");
  EXPECT_EQ(rig().output("out_1")->socket, "s5");
  QTest::keyClick(view, Qt::Key_Down);
  EXPECT_FALSE(view->traced().empty());
}

TEST_F(Planning, TheLoomIsSortedEditedAndChecked) {
  b.window.go(Station::wiring);
  auto* table = b.find<QTableWidget>(QStringLiteral("loom"));
  ASSERT_EQ(table->rowCount(), static_cast<int>(rig().leads.size()));
  table->sortByColumn(4, Qt::DescendingOrder);
  EXPECT_TRUE(table->item(0, 4)->text().startsWith(QStringLiteral("900")))
      << "sorted by number, not by digits: " << table->item(0, 4)->text().toStdString();
  const std::string lead = table->item(0, 0)->data(Qt::UserRole).toString().toStdString();
  table->item(0, 4)->setText(QStringLiteral("950"));
  EXPECT_NEAR(*rig().lead(lead)->length_m, 0.95, 1e-9);
  const Rig before = rig();
  table->item(1, 5)->setText(QStringLiteral("thick"));
  EXPECT_EQ(rig(), before);
  EXPECT_TRUE(text("plan_words").contains(QStringLiteral("thick")) &&
              text("plan_words").contains(QStringLiteral("0 to 40")));
  table->selectRow(2);
  ASSERT_TRUE(b.click(QStringLiteral("lead_fixed")));
  ASSERT_TRUE(b.click(QStringLiteral("lead_red_out")));
  int fixed = 0;
  for (const Lead& l : rig().leads) fixed += l.fixed && l.plus_removed;
  EXPECT_EQ(fixed, 1);
}

TEST_F(Planning, ThePlanStartsFromNothing) {
  Rig bare = rig();
  bare.leads.clear();
  b.window.document().edit(bare, QStringLiteral("all leads out"));
  b.window.go(Station::wiring);
  ASSERT_TRUE(b.click(QStringLiteral("plan_wiring")));
  EXPECT_EQ(rig().leads.size(), 17u);
  for (const Snag& s : b.window.document().review().snags) EXPECT_NE(s.severity, Severity::grounds) << s.code << s.what;
  EXPECT_TRUE(text("plan_words").contains(QStringLiteral("things placed")));
}

TEST_F(Planning, SheetsAreKeptAsPdfAndSvg) {
  SheetDialog dialog(
      QStringLiteral("Wiring"),
      {{QStringLiteral("Plug list"), QString::fromStdString(plug_list_svg(rig(), b.window.document().catalogue()))},
       {QStringLiteral("Drawing"), QString::fromStdString(wiring_drawing_svg(rig(), b.window.document().catalogue()))}},
      nullptr);
  const QString pdf = b.folder.filePath(QStringLiteral("w.pdf"));
  ASSERT_TRUE(dialog.write_pdf(pdf));
  QFile file(pdf);
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  const QByteArray bytes = file.readAll();
  EXPECT_TRUE(bytes.startsWith("%PDF"));
  EXPECT_EQ(bytes.count("/Type /Page\n") + bytes.count("/Type /Page "), 2);
  ASSERT_TRUE(dialog.write_svg(b.folder.filePath(QStringLiteral("w.svg"))));
  EXPECT_TRUE(QFile::exists(b.folder.filePath(QStringLiteral("w-2.svg"))));
  EXPECT_FALSE(dialog.write_pdf(QStringLiteral("/nowhere/at/all.pdf")));
}

TEST_F(Planning, LeadsAreLookedAtTriedAndProven) {
  b.window.go(Station::wiring);
  auto* page = b.window.findChild<WiringPage*>();
  page->go_to(QStringLiteral("gps"));
  EXPECT_TRUE(text("lead_check").contains(QStringLiteral("Not looked at yet")));
  EXPECT_TRUE(text("lead_check").contains(QStringLiteral("Propeller off")));
  EXPECT_FALSE(b.can_click(QStringLiteral("lead_inspect"))) << "no bench, nothing to look at";
  ASSERT_TRUE(b.click(QStringLiteral("lead_right")));
  EXPECT_TRUE(text("lead_check").contains(QStringLiteral("Proven")));
  // Moved afterwards: stale, said as a snag; looked at again: proven.
  Rig moved = rig();
  moved.lead("gps")->to.socket = "serial_3";
  b.window.document().edit(moved, QStringLiteral("moved"));
  EXPECT_TRUE(text("lead_check").contains(QStringLiteral("Gone stale")));
  bool said = false;
  for (const Snag& s : b.window.document().review().snags) said = said || s.code == "WIRING-32";
  EXPECT_TRUE(said);
  EXPECT_EQ(b.window.document().review().stations[static_cast<std::size_t>(Station::wiring)], StationState::snags);
  b.window.document().undo();
  EXPECT_TRUE(text("lead_check").contains(QStringLiteral("Proven")));
  // What does not touch the lead leaves the proof alone.
  Rig other = rig();
  other.airframe.span_m += 0.1;
  other.lead("gps")->length_m = 0.6;
  b.window.document().edit(other, QStringLiteral("span"));
  EXPECT_TRUE(text("lead_check").contains(QStringLiteral("Proven")));
}

TEST(PlanningBench, ATurnedPairAndAWrongSocketAreFoundAndPutRight) {
  Builder b;
  Settings s = b.settings({QStringLiteral("gyro_reversed:yaw")}, 0, 1);
  s.demo_lead_faults = {QStringLiteral("pair_turned:gps"), QStringLiteral("wrong_socket:module_sense,serial_3")};
  MainWindow window(*load_catalogue(RIGGING_SOURCE_DIR "/data/catalogue"), s);
  window.show();
  window.start_demo();
  ASSERT_TRUE(b.wait([&] { return window.bench().hands_connected(); }));
  window.go(Station::wiring);
  auto* page = window.findChild<WiringPage*>();
  const auto click = [&](const char* name) {
    auto* button = window.findChild<QPushButton*>(QLatin1String(name));
    ASSERT_TRUE(button && button->isVisible() && button->isEnabled()) << name;
    QTest::mouseClick(button, Qt::LeftButton);
  };
  const auto text = [&] { return window.findChild<QLabel*>(QStringLiteral("lead_check"))->text(); };
  page->go_to(QStringLiteral("gps"));
  ASSERT_TRUE(b.wait([&] { return window.findChild<QPushButton*>(QStringLiteral("wiring_battery"))->isVisible(); }));
  click("wiring_battery");
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("hears nothing")); })) << text().toStdString();
  page->go_to(QStringLiteral("module_sense"));
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("reads 0 V")); })) << text().toStdString();
  EXPECT_FALSE(window.findChild<QPushButton*>(QStringLiteral("lead_inspect"))->isEnabled())
      << "not while the battery is in";
  click("wiring_battery");
  ASSERT_TRUE(b.wait([&] { return window.findChild<QPushButton*>(QStringLiteral("lead_inspect"))->isEnabled(); }));
  click("lead_inspect");
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("it sits in SER 3")); })) << text().toStdString();
  click("lead_mend");
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("as planned")); })) << text().toStdString();
  page->go_to(QStringLiteral("gps"));
  click("lead_inspect");
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("data pair is turned")); }));
  click("lead_mend");
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("as planned")); }));
  click("wiring_battery");
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("hears data")); }));
  click("lead_right");
  EXPECT_EQ(window.document().rig().proofs.back().check.text(), "lead.gps");
  EXPECT_TRUE(window.document().rig().proofs.back().simulated);
  page->go_to(QStringLiteral("module_sense"));
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("reads 14.8 V")); })) << text().toStdString();
  window.bench().stop();
}

TEST_F(Planning, SnagsTakeOneThere) {
  for (const auto& [station, subject] : {std::pair{Station::fit, "battery"},
                                         {Station::power, "servo_flaperon_left"},
                                         {Station::wiring, "gps"},
                                         {Station::wiring, "out_1"},
                                         {Station::fit, "frame"}}) {
    b.window.go(station);
    for (StationPage* page : b.window.findChildren<StationPage*>())
      if (page->isVisible()) page->go_to(QLatin1String(subject));
  }
  EXPECT_FALSE(b.find<WiringView>(QStringLiteral("wiring_view"))->traced().empty());
  EXPECT_EQ(b.window.findChild<PowerPage*>()->what_if().stalled, std::vector<std::string>{"servo_flaperon_left"});
}

TEST_F(Planning, TheSideViewLiftsAndTheKeysGoOn) {
  b.window.go(Station::fit);
  QApplication::processEvents();
  auto* view = b.find<PlacesView>(QStringLiteral("places_view"));
  ASSERT_TRUE(b.click(QStringLiteral("closer")));
  QApplication::processEvents();
  view->grab();
  // Found in the side view by its own height there: the battery is the largest thing in the bay.
  const double z = rig().place("battery")->z_m, x = rig().place("battery")->x_m;
  const QPointF above = view->above_of("battery");
  double side_y = 0;
  for (double y = 30; y < above.y() - 60 && side_y == 0; y += 6) {
    QTest::mouseClick(view, Qt::LeftButton, {}, QPointF(above.x(), y).toPoint());
    if (view->selected() == "battery") side_y = y;
  }
  ASSERT_GT(side_y, 0);
  EXPECT_EQ(rig().place("battery")->z_m, z) << "a click moves nothing";
  drag(view, {above.x(), side_y + 4}, {above.x(), side_y + 14});
  EXPECT_GT(rig().place("battery")->z_m, z);
  EXPECT_NEAR(rig().place("battery")->x_m, x, 0.002);
  EXPECT_EQ(rig().place("battery")->y_m, 0);
  view->setFocus();
  const double lifted = rig().place("battery")->z_m;
  QTest::keyClick(view, Qt::Key_PageUp);
  EXPECT_NEAR(rig().place("battery")->z_m, lifted - 0.005, 1e-9);
  QTest::keyClick(view, Qt::Key_PageDown);
  QTest::keyClick(view, Qt::Key_PageDown, Qt::ShiftModifier);
  EXPECT_NEAR(rig().place("battery")->z_m, lifted + 0.001, 1e-9);
  // A press where nothing is picks nothing up.
  QTest::mouseClick(view, Qt::LeftButton, {}, QPoint(3, 60));
  EXPECT_EQ(view->selected(), "battery");
}

TEST_F(Planning, TheListTheFormAndThePictureAgree) {
  b.window.go(Station::fit);
  auto* list = b.find<QListWidget>(QStringLiteral("parts"));
  ASSERT_EQ(list->count(), static_cast<int>(rig().parts.size()) + 1);
  for (int i = 0; i < list->count(); ++i) {
    list->setCurrentRow(i);
    const std::string id = list->item(i)->data(Qt::UserRole).toString().toStdString();
    EXPECT_EQ(b.find<PlacesView>(QStringLiteral("places_view"))->selected(), id);
    const Place* p = rig().place(id);
    ASSERT_TRUE(p) << id;
    EXPECT_NEAR(b.find<QDoubleSpinBox>(QStringLiteral("behind_nose"))->value(), std::round(-p->x_m * 1000), 0.51) << id;
    const PartKind* k = kind_of(rig(), b.window.document().catalogue(), id);
    EXPECT_EQ(b.find<QComboBox>(QStringLiteral("part_surface"))->isVisible(),
              k && (k->group == PartGroup::servo || k->group == PartGroup::motor ||
                    k->group == PartGroup::speed_controller || k->group == PartGroup::propeller))
        << id;
  }
  // A servo is given another surface, and the snags follow.
  b.find<FitPage>({})->go_to(QStringLiteral("servo_flaperon_left"));
  auto* surface = b.find<QComboBox>(QStringLiteral("part_surface"));
  surface->setCurrentIndex(0);
  Q_EMIT surface->activated(0);
  EXPECT_FALSE(rig().part("servo_flaperon_left")->surface);
  std::set<std::string> codes;
  for (const Snag& s : b.window.document().review().snags) codes.insert(s.code);
  EXPECT_TRUE(codes.count("WIRING-19") && codes.count("WIRING-20"));
}

TEST_F(Planning, UnitsAndThemesReachTheNewStations) {
  for (const Theme theme : {Theme::dark, Theme::field, Theme::paper}) {
    Look::instance().set_theme(theme);
    for (const Station s : {Station::fit, Station::power, Station::wiring}) {
      b.window.go(s);
      EXPECT_FALSE(b.window.grab().isNull());
    }
  }
  set_unit_system(UnitSystem::imperial);
  b.window.go(Station::fit);
  b.find<FitPage>({})->go_to(QStringLiteral("battery"));
  auto* behind = b.find<QDoubleSpinBox>(QStringLiteral("behind_nose"));
  EXPECT_NEAR(behind->value(), 0.17 / 0.0254, 0.01);
  behind->setValue(7);
  EXPECT_NEAR(rig().place("battery")->x_m, -7 * 0.0254, 1e-9);
  b.window.go(Station::wiring);
  auto* table = b.find<QTableWidget>(QStringLiteral("loom"));
  EXPECT_TRUE(table->item(0, 4)->text().endsWith(QStringLiteral("in"))) << table->item(0, 4)->text().toStdString();
  const std::string lead = table->item(0, 0)->data(Qt::UserRole).toString().toStdString();
  table->item(0, 4)->setText(QStringLiteral("10"));
  EXPECT_NEAR(*rig().lead(lead)->length_m, 0.254, 1e-9);
  set_unit_system(UnitSystem::metric);
}

TEST_F(Planning, TheAskBoxKnowsLeadsAndSheets) {
  int where = 0, print = 0, plan = 0;
  for (const Request& d : b.window.requests()) {
    where += fit_of(QStringLiteral("where satellite"), d) > 0;
    print += fit_of(QStringLiteral("print plug list"), d) > 0;
    plan += fit_of(QStringLiteral("plan wiring"), d) > 0;
    if (fit_of(QStringLiteral("where is satellite receiver plugged"), d) > 0 && where == 1) d.act();
  }
  EXPECT_GE(where, 1);
  EXPECT_GE(print, 1);
  EXPECT_GE(plan, 1);
  EXPECT_EQ(b.window.station(), Station::wiring);
  EXPECT_EQ(b.find<WiringView>(QStringLiteral("wiring_view"))->traced(), "gps");
}

TEST_F(Planning, EveryStationStandsAtTheSmallestSize) {
  for (const Station s : all_stations) {
    b.window.go(s);
    b.window.resize(1024, 700);
    QApplication::processEvents();
    EXPECT_LE(b.window.minimumSizeHint().width(), 1024) << word(s);
    EXPECT_LE(b.window.minimumSizeHint().height(), 700) << word(s);
  }
}

TEST_F(Planning, LongFixesStayInsideTheirPanel) {
  Rig heavy = rig();
  heavy.fit.frame_at_m += 0.045;
  heavy.lead("receiver")->plug_turned = true;
  heavy.outputs[0].rate_hz = 333;
  b.window.document().edit(heavy, QStringLiteral("three faults"));
  for (const int width : {1280, 1024}) {
    b.window.resize(width, 800);
    b.window.document().edit(heavy, QStringLiteral("again"));
    b.window.go(Station::fit);
    QApplication::processEvents();
    auto* panel = b.window.findChild<SnagPanel*>();
    int seen = 0;
    for (auto* button : panel->findChildren<QPushButton*>()) {
      if (!button->isVisible()) continue;
      ++seen;
      EXPECT_LE(button->mapTo(panel, QPoint(button->width(), 0)).x(), panel->width())
          << button->accessibleName().toStdString();
    }
    EXPECT_GT(seen, 3);
    auto* fix = b.find<QPushButton>(QStringLiteral("fix_FIT-04"));
    ASSERT_TRUE(fix);
    EXPECT_TRUE(fix->accessibleName().contains(QStringLiteral("behind the nose"))) << "whole for those who listen";
    EXPECT_FALSE(fix->accessibleName().contains(QLatin1Char('\n')));
  }
  ASSERT_TRUE(b.click(QStringLiteral("fix_FIT-04")));
  EXPECT_NE(rig().place("battery")->x_m, heavy.place("battery")->x_m);
}

TEST_F(Planning, UndoLeadsBackThroughAll) {
  const Rig before = rig();
  b.window.go(Station::wiring);
  b.find<WiringPage>({})->go_to(QStringLiteral("gps"));
  for (const char* button : {"lead_red_out", "lead_plug_turned", "lead_pair_turned", "lead_fixed", "lead_right"})
    ASSERT_TRUE(b.click(QLatin1String(button))) << button;
  const Lead& l = *rig().lead("gps");
  EXPECT_TRUE(l.plus_removed && l.plug_turned && l.pair_turned && l.fixed);
  EXPECT_EQ(rig().proofs.size(), 1u);
  bool turned = false;
  for (const Snag& s : b.window.document().review().snags) turned = turned || s.code == "WIRING-08";
  EXPECT_TRUE(turned);
  while (b.window.document().history().can_undo()) b.window.document().undo();
  EXPECT_EQ(rig(), before);
  while (b.window.document().history().can_redo()) b.window.document().redo();
  EXPECT_EQ(rig().proofs.size(), 1u);
}

TEST(PlanningPages, StandWithAnyDemoAndWithNothing) {
  Builder b;
  for (const char* name : {"hedgerow", "heath", "delta"}) {
    ASSERT_TRUE(
        b.window.open_file(QStringLiteral(RIGGING_SOURCE_DIR "/data/demo/%1.rig.json").arg(QLatin1String(name))));
    for (const Station s : {Station::fit, Station::power, Station::wiring}) {
      b.window.go(s);
      EXPECT_FALSE(b.window.grab().isNull());
    }
  }
  Rig empty;
  empty.name = "empty";
  empty.controller.kind = "abacus";
  b.window.document().start_new(empty);
  for (const Station s : {Station::fit, Station::power, Station::wiring}) {
    b.window.go(s);
    EXPECT_FALSE(b.window.grab().isNull());
  }
  b.click(QStringLiteral("plan_wiring"));
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("plan_words"))->text().contains(QStringLiteral("abacus")));
}

}  // namespace
}  // namespace rigging::app
