#include <gtest/gtest.h>

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QTextBrowser>
#include <QTimer>
#include <cmath>
#include <set>

#include "bench_builder.h"
#include "look/literals.h"
#include "places.h"
#include "rig/rig_file.h"
#include "sheets/wiring_sheets.h"
#include "stations/fit/fit_page.h"
#include "stations/members_editor.h"

namespace rigging::app {
namespace {

TEST_F(Planning, AMassThatCanNotBeIsSaidAndTheOldOneStays) {
  b.window.go(Station::fit);
  QStringList said;
  QObject::connect(b.window.findChild<FitPage*>(), &StationPage::said, [&](const QString& words) { said << words; });
  const Rig before = rig();
  b.type("frame_mass", "3");
  EXPECT_EQ(rig(), before);
  EXPECT_TRUE(said.join(QLatin1Char(' ')).contains(u"“3 g” does not fit: 5 to 150000 g"_s))
      << said.join(QLatin1Char('\n')).toStdString();
  b.type("frame_mass", "0");
  EXPECT_FALSE(rig().fit.frame_mass_kg) << "nothing is not known";
  b.type("frame_mass", "0.4 kg");
  EXPECT_EQ(rig().fit.frame_mass_kg, 0.4);
}

TEST_F(Planning, ASwingTestIsMeasuredThroughItsCard) {
  b.window.go(Station::fit);
  QApplication::processEvents();
  b.find<QPushButton>(u"swing_test"_s)->click();
  auto* card = b.window.findChild<QDialog*>(u"procedure_swing"_s);
  ASSERT_TRUE(card && card->isVisible());
  const auto enter = [&](double value, const QString& action) {
    card->findChild<QDoubleSpinBox*>(u"swing_value"_s)->setValue(value);
    card->findChild<QPushButton*>(action)->click();
  };
  enter(55, u"swing_apart"_s);
  enter(140, u"swing_length"_s);
  enter(21, u"swing_typed"_s);
  ASSERT_EQ(rig().fit.swings.size(), 1u);
  EXPECT_NEAR(rig().fit.swings[0].apart_m, 0.55, 1e-9);
  EXPECT_NEAR(rig().fit.swings[0].length_m, 1.4, 1e-9);
  EXPECT_NEAR(rig().fit.swings[0].period_s, 2.1, 1e-9);
  card->close();
}

TEST_F(Planning, APartIsDraggedNudgedAndTyped) {
  b.window.go(Station::fit);
  QApplication::processEvents();
  auto* view = b.find<PlacesView>(u"places_view"_s);
  const double before = rig().mounting("video")->y_m;
  const QPointF at = view->above_of("video");
  drag(view, at, at + QPointF(-30, 0));
  EXPECT_EQ(view->selected(), "video");
  const double dragged = rig().mounting("video")->y_m;
  EXPECT_LT(dragged, before - 0.01) << "the nose is up: left is left";
  view->setFocus();
  QTest::keyClick(view, Qt::Key_Right);
  EXPECT_NEAR(rig().mounting("video")->y_m, dragged + 0.005, 1e-9);
  const double along = rig().mounting("video")->x_m;
  QTest::keyClick(view, Qt::Key_Down, Qt::ShiftModifier);
  EXPECT_NEAR(rig().mounting("video")->x_m, along - 0.001, 1e-9);
  b.find<QDoubleSpinBox>(u"behind_nose"_s)->setValue(390);
  EXPECT_NEAR(rig().mounting("video")->x_m, -0.390, 1e-9);
  const auto edits = b.window.document().history().last_edit();
  EXPECT_NE(edits.find("Video"), std::string::npos);
  for (int i = 0; i < 4; ++i) b.window.document().undo();
  EXPECT_NEAR(rig().mounting("video")->y_m, before, 1e-9);
}

// What is said on the way is what holds after letting go: from the second side, the report of the rig that was changed.
TEST_F(Planning, ADraggedPartSaysWhatItDoesAndLinesUp) {
  b.window.go(Station::fit);
  QApplication::processEvents();
  auto* view = b.find<PlacesView>(u"places_view"_s);
  EXPECT_TRUE(view->what_it_does().isEmpty());
  const QPointF at = view->above_of("gps");
  const auto move = [&](QPointF to, Qt::KeyboardModifiers keys = {}) {
    QMouseEvent e(QEvent::MouseMove, to, view->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, keys);
    QApplication::sendEvent(view, &e);
  };
  QTest::mousePress(view, Qt::LeftButton, {}, at.toPoint());
  move(at + QPointF(0, 1));
  move(at + QPointF(-23, 31), Qt::AltModifier);
  const QString said = view->what_it_does().join(QLatin1Char('\n'));
  EXPECT_TRUE(said.contains(u"moved"_s) && said.contains(u"right of the middle"_s)) << said.toStdString();
  EXPECT_TRUE(rig() == *load_rig(in_source("/data/demo/hedgerow.rig.json")))
      << "nothing is changed before it is let go";
  QTest::mouseRelease(view, Qt::LeftButton, {}, (at + QPointF(-23, 31)).toPoint());
  EXPECT_TRUE(view->what_it_does().isEmpty());
  const FitReport& fit = b.window.document().review().reports.fit();
  EXPECT_TRUE(said.contains(u"balances at %1 mm"_s.arg(fit.balance.balance_point.value * 1000, 0, 'f', 0)))
      << said.toStdString() << " but " << fit.balance.balance_point.value;
  EXPECT_TRUE(said.contains(u"up to %1°"_s.arg(fit.compasses.front().error.value, 0, 'f', 1)))
      << said.toStdString() << " but " << fit.compasses.front().error.value;
  // Near the middle line it goes onto it.
  const QPointF now = view->above_of("gps"), middle = view->above_of("battery");
  drag(view, now, {middle.x() + 3, now.y()});
  EXPECT_EQ(rig().mounting("gps")->y_m, 0);
}

// A first rig's frame is not weighed: where it balances is not known, how far a part moves that is. 510 g moved back by
// some way, over 1920 g in all.
TEST_F(Planning, BeforeTheFrameIsWeighedADragSaysHowFarTheBalanceGoes) {
  b.edit([](Rig& r) { r.fit.frame_mass_kg.reset(); });
  b.window.go(Station::fit);
  QApplication::processEvents();
  auto* view = b.find<PlacesView>(u"places_view"_s);
  view->grab();
  const QPointF at = view->above_of("battery");
  QTest::mousePress(view, Qt::LeftButton, {}, at.toPoint());
  QMouseEvent e(QEvent::MouseMove, at + QPointF(0, 30), view->mapToGlobal(at + QPointF(0, 30)), Qt::NoButton,
                Qt::LeftButton, Qt::AltModifier);
  QApplication::sendEvent(view, &e);
  const QString said = view->what_it_does().join(QLatin1Char('\n'));
  const double before = rig().mounting("battery")->x_m;
  QTest::mouseRelease(view, Qt::LeftButton, {}, (at + QPointF(0, 30)).toPoint());
  const double aft = 0.510 * (before - rig().mounting("battery")->x_m) / *rig().airframe.mass_kg;
  EXPECT_GT(aft, 0.005);
  EXPECT_TRUE(said.contains(u"balance goes back by %1 mm"_s.arg(aft * 1000, 0, 'f', 0)))
      << said.toStdString() << " but " << aft;
  EXPECT_FALSE(said.contains(u"balances at"_s)) << said.toStdString();
}

TEST_F(Planning, BalanceIsSaidAndTheFixMovesTheBattery) {
  b.window.go(Station::fit);
  EXPECT_TRUE(text("balance_words").contains(u"holds"_s));
  b.find<QDoubleSpinBox>(u"frame_at"_s)->setValue(*rig().fit.frame_at_m * 1000 + 45);
  EXPECT_TRUE(text("balance_words").contains(u"tail-heavy"_s)) << text("balance_words").toStdString();
  for (const Snag& s : b.window.document().review().snags)
    if (s.code == "FIT-04") {
      ASSERT_TRUE(s.fix);
      b.window.document().apply(s.fix->edit(rig(), b.window.document().catalogue()));
      break;
    }
  EXPECT_TRUE(text("balance_words").contains(u"holds"_s));
}

TEST_F(Planning, TicksAreKeptAndTheCompassIsWatched) {
  b.window.go(Station::fit);
  auto* tick = b.find<QCheckBox>(u"tick_barometer_covered"_s);
  ASSERT_TRUE(tick && tick->isChecked());
  tick->click();
  EXPECT_EQ(b.window.document().review().snags.front().code, "FIT-18");
  b.find<QCheckBox>(u"tick_barometer_covered"_s)->click();
  EXPECT_TRUE(text("compass_words").contains(u"holds"_s));
  b.find<FitPage>({})->go_to(u"gps"_s);
  b.find<QDoubleSpinBox>(u"right_of_middle"_s)->setValue(60);
  EXPECT_TRUE(text("compass_words").contains(u"too near"_s));
  auto* turn = b.find<QComboBox>(u"part_turn"_s);
  EXPECT_TRUE(turn->isVisible());
  EXPECT_EQ(turn->count(), 24);
}

TEST_F(Planning, PartsAreAddedDescribedAndRemoved) {
  b.window.go(Station::fit);
  const auto count = rig().parts.size();
  b.in_sheet([&](QWidget& sheet) {
    auto* dialog = &sheet;
    QTest::keyClicks(dialog->findChild<QLineEdit*>(u"part_search"_s), u"airspeed"_s);
    EXPECT_EQ(dialog->findChild<QListWidget*>(u"part_kinds"_s)->count(), 1);
    // Figures find what the name says in words; what nobody knows is said, and nothing of another part is left.
    auto* search = dialog->findChild<QLineEdit*>(u"part_search"_s);
    search->setText(u"servo 9g"_s);
    EXPECT_GE(dialog->findChild<QListWidget*>(u"part_kinds"_s)->count(), 1);
    EXPECT_GT(dialog->findChild<QDoubleSpinBox*>(u"own_mass"_s)->value(), 0);
    search->setText(u"servo 77g"_s);
    EXPECT_EQ(dialog->findChild<QDoubleSpinBox*>(u"own_mass"_s)->value(), 0);
    EXPECT_FALSE(dialog->findChild<QPushButton*>(u"add_chosen"_s)->isEnabled());
    EXPECT_FALSE(dialog->findChild<QPushButton*>(u"keep_own"_s)->isEnabled());
    search->setText(u"airspeed"_s);
    QTest::mouseClick(dialog->findChild<QPushButton*>(u"add_chosen"_s), Qt::LeftButton);
  });
  ASSERT_TRUE(b.click(u"add_part"_s));
  ASSERT_EQ(rig().parts.size(), count + 1);
  EXPECT_EQ(rig().parts.back().kind, "airspeed_sensor");
  EXPECT_TRUE(rig().mounting("airspeed"));
  ASSERT_TRUE(b.click(u"remove_part"_s));
  EXPECT_EQ(rig().parts.size(), count);
  EXPECT_FALSE(rig().mounting("airspeed"));

  // One's own: refused while the rig has no file, kept beside it afterwards.
  QString complaint;
  const auto own = [&] {
    b.in_sheet([&](QWidget& sheet) {
      auto* dialog = &sheet;
      QTest::keyClicks(dialog->findChild<QLineEdit*>(u"part_search"_s), u"nine grams digital"_s);
      dialog->findChild<QLineEdit*>(u"own_id"_s)->setText(u"my_servo"_s);
      dialog->findChild<QDoubleSpinBox*>(u"own_most"_s)->setValue(1.4);
      QTest::mouseClick(dialog->findChild<QPushButton*>(u"keep_own"_s), Qt::LeftButton);
      complaint = dialog->isVisible() ? dialog->findChild<QLabel*>(u"part_complaint"_s)->text() : QString();
      if (dialog->isVisible()) qobject_cast<QDialog*>(dialog)->reject();
    });
    b.click(u"add_part"_s);
  };
  own();
  EXPECT_TRUE(complaint.contains(u"save the rig first"_s)) << complaint.toStdString();
  ASSERT_TRUE(b.window.document().save(b.folder.filePath(u"mine.rig.json"_s)));
  own();
  EXPECT_TRUE(complaint.isEmpty()) << complaint.toStdString();
  EXPECT_EQ(rig().parts.back().kind, "my_servo");
  EXPECT_EQ(b.window.document().catalogue().part("my_servo")->loads.front().most_a, 1.4);
  EXPECT_TRUE(QFile::exists(b.folder.filePath(u"mine.parts.json"_s)));

  // Everything about it: a torque, another load; what does not fit is said.
  b.in_sheet([&](QWidget& sheet) {
    sheet.findChild<QLineEdit*>(u"part_search"_s)->setText(u"nine grams digital"_s);
    auto* more = sheet.findChild<QAbstractButton*>(u"own_everything"_s);
    more->click();
    EXPECT_FALSE(sheet.findChild<QLabel*>(u"part_complaint"_s)->text().isEmpty()) << "no name yet";
    sheet.findChild<QLineEdit*>(u"own_id"_s)->setText(u"my_strong_servo"_s);
    const auto is_part_sheet = [] {
      const QWidget* now = QApplication::activeModalWidget();
      return now && now->isVisible() && now->objectName() == u"part_sheet"_s;
    };
    b.when(is_part_sheet, [] {
      QWidget& part = *QApplication::activeModalWidget();
      auto* members = part.findChild<MembersEditor*>();
      auto* take = part.findChild<QAbstractButton*>(u"part_sheet_take"_s);
      members->set(u"/loads/0/least_v"_s, 99);
      EXPECT_FALSE(take->isEnabled());
      EXPECT_TRUE(part.findChild<QLabel*>(u"part_sheet_complaint"_s)->text().contains(u"voltage window"_s));
      members->set(u"/loads/0/least_v"_s, 4);
      members->set(u"/servo/torque_nm"_s, 0.31);
      take->click();
    });
    more->click();
  });
  ASSERT_TRUE(b.click(u"add_part"_s));
  EXPECT_EQ(rig().parts.back().kind, "my_strong_servo");
  EXPECT_EQ(b.window.document().catalogue().part("my_strong_servo")->servo->torque_nm, 0.31);
}

TEST_F(Planning, BayPlaceAnglesAndMeasuredValuesAreTyped) {
  const auto with = [&](const char* button, std::function<void(QWidget&)> type, const char* press = "take") {
    b.in_sheet([type, press](QWidget& sheet) {
      auto* dialog = &sheet;
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
  with("bay_and_place", [](QWidget& d) { d.findChild<QLineEdit*>(u"date"_s)->setText(u"next spring"_s); });
  EXPECT_EQ(rig(), placed);
  EXPECT_TRUE(text("balance_words").contains(u"no date"_s));
  b.find<FitPage>({})->go_to(u"controller"_s);
  with("small_angles", [&](QWidget& d) { set(d, "yaw", 4); });
  EXPECT_EQ(rig().mounting("controller")->yaw_deg, 4);
  bool askew = false;
  for (const Snag& s : b.window.document().review().snags) askew = askew || s.code == "FIT-13";
  EXPECT_TRUE(askew);
  b.window.go(Station::power);
  with("measured", [&](QWidget& d) {
    set(d, "static_a", 31.5);
    d.findChild<QCheckBox*>(u"faces_flight"_s)->setChecked(false);
  });
  EXPECT_EQ(rig().power.static_a, 31.5);
  EXPECT_FALSE(rig().power.propeller_faces_flight);
  EXPECT_EQ(b.window.document().review().snags.front().code, "POWER-22");
}

TEST_F(Planning, TheListToGetOpens) {
  b.window.go(Station::fit);
  QString list;
  b.in_sheet([&](QWidget& sheet) {
    auto* dialog = &sheet;
    list = dialog->findChild<QTextBrowser*>(u"to_get_list"_s)->toPlainText();
    QTest::mouseClick(dialog->findChild<QPushButton*>(u"close"_s), Qt::LeftButton);
  });
  ASSERT_TRUE(b.click(u"to_get"_s));
  EXPECT_TRUE(list.contains(u"Open-cell foam"_s));
}

TEST_F(Planning, TheSideViewLiftsAndTheKeysGoOn) {
  b.window.go(Station::fit);
  QApplication::processEvents();
  auto* view = b.find<PlacesView>(u"places_view"_s);
  ASSERT_TRUE(b.click(u"closer"_s));
  QApplication::processEvents();
  view->grab();
  // Found in the side view by its own height there: the battery is the largest thing in the bay.
  const double z = rig().mounting("battery")->z_m, x = rig().mounting("battery")->x_m;
  const QPointF above = view->above_of("battery");
  double side_x = 0;
  for (double x_px = 10; x_px < above.x() - 100 && side_x == 0; x_px += 6) {
    QTest::mouseClick(view, Qt::LeftButton, {}, QPointF(x_px, above.y()).toPoint());
    if (view->selected() == "battery") side_x = x_px;
  }
  ASSERT_GT(side_x, 0);
  EXPECT_EQ(rig().mounting("battery")->z_m, z) << "a click moves nothing";
  drag(view, {side_x + 14, above.y()}, {side_x + 4, above.y()});
  EXPECT_GT(rig().mounting("battery")->z_m, z);
  EXPECT_NEAR(rig().mounting("battery")->x_m, x, 0.002);
  EXPECT_EQ(rig().mounting("battery")->y_m, 0);
  view->setFocus();
  const double lifted = rig().mounting("battery")->z_m;
  QTest::keyClick(view, Qt::Key_PageUp);
  EXPECT_NEAR(rig().mounting("battery")->z_m, lifted - 0.005, 1e-9);
  QTest::keyClick(view, Qt::Key_PageDown);
  QTest::keyClick(view, Qt::Key_PageDown, Qt::ShiftModifier);
  EXPECT_NEAR(rig().mounting("battery")->z_m, lifted + 0.001, 1e-9);
  // A press where nothing is picks nothing up.
  QTest::mouseClick(view, Qt::LeftButton, {}, QPoint(3, 60));
  EXPECT_EQ(view->selected(), "battery");
}

TEST_F(Planning, TheListTheFormAndThePictureAgree) {
  b.window.go(Station::fit);
  auto* list = b.find<QListWidget>(u"parts"_s);
  ASSERT_EQ(list->count(), static_cast<int>(rig().parts.size()) + 1);
  for (int i = 0; i < list->count(); ++i) {
    list->setCurrentRow(i);
    const std::string id = list->item(i)->data(Qt::UserRole).toString().toStdString();
    EXPECT_EQ(b.find<PlacesView>(u"places_view"_s)->selected(), id);
    const Mounting* p = rig().mounting(id);
    ASSERT_TRUE(p) << id;
    EXPECT_NEAR(b.find<QDoubleSpinBox>(u"behind_nose"_s)->value(), std::round(-p->x_m * 1000), 0.51) << id;
    const PartKind* k = kind_of(rig(), b.window.document().catalogue(), id);
    EXPECT_EQ(b.find<QComboBox>(u"part_surface"_s)->isVisible(),
              k && (k->group == PartGroup::servo || k->group == PartGroup::motor ||
                    k->group == PartGroup::speed_controller || k->group == PartGroup::propeller))
        << id;
  }
  // A servo is given another surface, and the snags follow.
  b.find<FitPage>({})->go_to(u"servo_flaperon_left"_s);
  auto* surface = b.find<QComboBox>(u"part_surface"_s);
  surface->setCurrentIndex(0);
  Q_EMIT surface->activated(0);
  EXPECT_FALSE(rig().part("servo_flaperon_left")->surface);
  std::set<std::string> codes;
  for (const Snag& s : b.window.document().review().snags) codes.insert(s.code);
  EXPECT_TRUE(codes.count("WIRING-19") && codes.count("WIRING-20"));
}

TEST_F(Planning, HowAPartIsHeldItsPlugAndASecondBay) {
  b.window.go(Station::fit);
  const auto choose = [&](const char* name, const char* data) {
    auto* box = b.find<QComboBox>(QLatin1String(name));
    ASSERT_TRUE(box && box->isVisible()) << name;
    box->setCurrentIndex(box->findData(QLatin1String(data)));
    Q_EMIT box->activated(box->currentIndex());
    QApplication::processEvents();
  };
  b.window.page(Station::fit).go_to(u"battery"_s);
  QApplication::processEvents();
  choose("part_held", "hook_and_loop");
  EXPECT_EQ(rig().mounting("battery")->fixing, Fixing::hook_and_loop);
  choose("part_plug", "plug_two_pin_90");
  EXPECT_EQ(rig().part("battery")->plug, "plug_two_pin_90");
  const auto shown = [&](const char* box) {
    return b.window.page(Station::fit).findChild<QComboBox*>(QLatin1String(box))->isVisibleTo(&b.window);
  };
  EXPECT_FALSE(shown("part_motor_plug"));
  EXPECT_FALSE(shown("part_baud"));
  b.window.page(Station::fit).go_to(u"motor"_s);
  QApplication::processEvents();
  EXPECT_FALSE(shown("part_plug"));
  EXPECT_TRUE(shown("part_motor_plug"));
  choose("part_motor_plug", "plug_round_20");
  EXPECT_EQ(rig().part("motor")->motor_plug, "plug_round_20");
  // What speaks serially may have been set to another baud by its maker.
  b.window.page(Station::fit).go_to(u"gps"_s);
  QApplication::processEvents();
  ASSERT_TRUE(shown("part_baud"));
  auto* baud = b.window.page(Station::fit).findChild<QComboBox*>(u"part_baud"_s);
  baud->setCurrentText(u"quick"_s);
  Q_EMIT baud->lineEdit()->editingFinished();
  EXPECT_FALSE(rig().part("gps")->baud);
  EXPECT_TRUE(baud->currentText().contains(u"as usual"_s));
  baud->setCurrentText(u"38400"_s);
  Q_EMIT baud->lineEdit()->editingFinished();
  EXPECT_EQ(rig().part("gps")->baud, 38400);
  b.window.page(Station::fit).go_to(u"battery"_s);
  EXPECT_TRUE(b.can_click(u"to_get"_s));
  b.in_sheet([&](QWidget& sheet) {
    sheet.findChild<QCheckBox*>(u"has_second"_s)->setChecked(true);
    sheet.findChild<QDoubleSpinBox*>(u"second_below"_s)->setValue(60);
    static_cast<QDialog*>(&sheet)->accept();
  });
  ASSERT_TRUE(b.click(u"bay_and_place"_s));
  ASSERT_TRUE(rig().fit.second_bay);
  EXPECT_NEAR(rig().fit.second_bay->below_m, 0.06, 1e-9);
}

// A part's weight is typed on it; told once it is no estimate any more.
TEST(Fit, APartIsWeighedOnThePart) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::fit));
  auto* list = b.find<QListWidget>(u"parts"_s);
  QListWidgetItem* battery = nullptr;
  for (int i = 0; i < list->count(); ++i)
    if (list->item(i)->data(Qt::UserRole).toString() == u"battery"_s) battery = list->item(i);
  ASSERT_TRUE(battery);
  list->setCurrentItem(battery);
  QApplication::processEvents();
  b.type("part_mass", "231");
  QApplication::processEvents();
  ASSERT_TRUE(b.window.document().rig().part("battery")->mass_kg);
  EXPECT_NEAR(*b.window.document().rig().part("battery")->mass_kg, 0.231, 1e-9);
  for (int i = 0; i < list->count(); ++i)
    if (list->item(i)->data(Qt::UserRole).toString() == u"battery"_s)
      EXPECT_FALSE(list->item(i)->text().contains(u"≈"_s)) << list->item(i)->text().toStdString();
}

}  // namespace
}  // namespace rigging::app
