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
  EXPECT_TRUE(said.join(QLatin1Char(' ')).contains(QStringLiteral("“3 g” does not fit: 5 to 150000 g")))
      << said.join(QLatin1Char('\n')).toStdString();
  b.type("frame_mass", "0");
  EXPECT_FALSE(rig().fit.frame_mass_kg) << "nothing is not known";
  b.type("frame_mass", "0.4 kg");
  EXPECT_EQ(rig().fit.frame_mass_kg, 0.4);
}

TEST_F(Planning, APartIsDraggedNudgedAndTyped) {
  b.window.go(Station::fit);
  QApplication::processEvents();
  auto* view = b.find<PlacesView>(QStringLiteral("places_view"));
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
  b.find<QDoubleSpinBox>(QStringLiteral("behind_nose"))->setValue(390);
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
  auto* view = b.find<PlacesView>(QStringLiteral("places_view"));
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
  EXPECT_TRUE(said.contains(QStringLiteral("moved")) && said.contains(QStringLiteral("right of the middle")))
      << said.toStdString();
  EXPECT_TRUE(rig() == *load_rig(in_source("/data/demo/hedgerow.rig.json")))
      << "nothing is changed before it is let go";
  QTest::mouseRelease(view, Qt::LeftButton, {}, (at + QPointF(-23, 31)).toPoint());
  EXPECT_TRUE(view->what_it_does().isEmpty());
  const FitReport& fit = b.window.document().review().reports.fit();
  EXPECT_TRUE(said.contains(QStringLiteral("balances at %1 mm").arg(fit.balance.balance_point.value * 1000, 0, 'f', 0)))
      << said.toStdString() << " but " << fit.balance.balance_point.value;
  EXPECT_TRUE(said.contains(QStringLiteral("up to %1°").arg(fit.compasses.front().error.value, 0, 'f', 1)))
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
  auto* view = b.find<PlacesView>(QStringLiteral("places_view"));
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
  EXPECT_TRUE(said.contains(QStringLiteral("balance goes back by %1 mm").arg(aft * 1000, 0, 'f', 0)))
      << said.toStdString() << " but " << aft;
  EXPECT_FALSE(said.contains(QStringLiteral("balances at"))) << said.toStdString();
}

TEST_F(Planning, BalanceIsSaidAndTheFixMovesTheBattery) {
  b.window.go(Station::fit);
  EXPECT_TRUE(text("balance_words").contains(QStringLiteral("holds")));
  b.find<QDoubleSpinBox>(QStringLiteral("frame_at"))->setValue(*rig().fit.frame_at_m * 1000 + 45);
  EXPECT_TRUE(text("balance_words").contains(QStringLiteral("tail-heavy"))) << text("balance_words").toStdString();
  for (const Snag& s : b.window.document().review().snags)
    if (s.code == "FIT-04") {
      ASSERT_TRUE(s.fix);
      b.window.document().apply(s.fix->edit(rig(), b.window.document().catalogue()));
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
  b.in_sheet([&](QWidget& sheet) {
    auto* dialog = &sheet;
    QTest::keyClicks(dialog->findChild<QLineEdit*>(QStringLiteral("part_search")), QStringLiteral("airspeed"));
    EXPECT_EQ(dialog->findChild<QListWidget*>(QStringLiteral("part_kinds"))->count(), 1);
    // Figures find what the name says in words; what nobody knows is said, and nothing of another part is left.
    auto* search = dialog->findChild<QLineEdit*>(QStringLiteral("part_search"));
    search->setText(QStringLiteral("servo 9g"));
    EXPECT_GE(dialog->findChild<QListWidget*>(QStringLiteral("part_kinds"))->count(), 1);
    EXPECT_GT(dialog->findChild<QDoubleSpinBox*>(QStringLiteral("own_mass"))->value(), 0);
    search->setText(QStringLiteral("servo 77g"));
    EXPECT_EQ(dialog->findChild<QDoubleSpinBox*>(QStringLiteral("own_mass"))->value(), 0);
    EXPECT_FALSE(dialog->findChild<QPushButton*>(QStringLiteral("add_chosen"))->isEnabled());
    EXPECT_FALSE(dialog->findChild<QPushButton*>(QStringLiteral("keep_own"))->isEnabled());
    search->setText(QStringLiteral("airspeed"));
    QTest::mouseClick(dialog->findChild<QPushButton*>(QStringLiteral("add_chosen")), Qt::LeftButton);
  });
  ASSERT_TRUE(b.click(QStringLiteral("add_part")));
  ASSERT_EQ(rig().parts.size(), count + 1);
  EXPECT_EQ(rig().parts.back().kind, "airspeed_sensor");
  EXPECT_TRUE(rig().mounting("airspeed"));
  ASSERT_TRUE(b.click(QStringLiteral("remove_part")));
  EXPECT_EQ(rig().parts.size(), count);
  EXPECT_FALSE(rig().mounting("airspeed"));

  // One's own: refused while the rig has no file, kept beside it afterwards.
  QString complaint;
  const auto own = [&] {
    b.in_sheet([&](QWidget& sheet) {
      auto* dialog = &sheet;
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

  // Everything about it: a torque, another load; what does not fit is said.
  b.in_sheet([&](QWidget& sheet) {
    sheet.findChild<QLineEdit*>(QStringLiteral("part_search"))->setText(QStringLiteral("nine grams digital"));
    auto* more = sheet.findChild<QAbstractButton*>(QStringLiteral("own_everything"));
    more->click();
    EXPECT_FALSE(sheet.findChild<QLabel*>(QStringLiteral("part_complaint"))->text().isEmpty()) << "no name yet";
    sheet.findChild<QLineEdit*>(QStringLiteral("own_id"))->setText(QStringLiteral("my_strong_servo"));
    const auto is_part_sheet = [] {
      const QWidget* now = QApplication::activeModalWidget();
      return now && now->isVisible() && now->objectName() == QStringLiteral("part_sheet");
    };
    b.when(is_part_sheet, [] {
      QWidget& part = *QApplication::activeModalWidget();
      auto* members = part.findChild<MembersEditor*>();
      auto* take = part.findChild<QAbstractButton*>(QStringLiteral("part_sheet_take"));
      members->set(QStringLiteral("/loads/0/least_v"), 99);
      EXPECT_FALSE(take->isEnabled());
      EXPECT_TRUE(part.findChild<QLabel*>(QStringLiteral("part_sheet_complaint"))
                      ->text()
                      .contains(QStringLiteral("voltage window")));
      members->set(QStringLiteral("/loads/0/least_v"), 4);
      members->set(QStringLiteral("/servo/torque_nm"), 0.31);
      take->click();
    });
    more->click();
  });
  ASSERT_TRUE(b.click(QStringLiteral("add_part")));
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
  with("bay_and_place",
       [](QWidget& d) { d.findChild<QLineEdit*>(QStringLiteral("date"))->setText(QStringLiteral("next spring")); });
  EXPECT_EQ(rig(), placed);
  EXPECT_TRUE(text("balance_words").contains(QStringLiteral("no date")));
  b.find<FitPage>({})->go_to(QStringLiteral("controller"));
  with("small_angles", [&](QWidget& d) { set(d, "yaw", 4); });
  EXPECT_EQ(rig().mounting("controller")->yaw_deg, 4);
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
  b.in_sheet([&](QWidget& sheet) {
    auto* dialog = &sheet;
    list = dialog->findChild<QTextBrowser*>(QStringLiteral("to_get_list"))->toPlainText();
    QTest::mouseClick(dialog->findChild<QPushButton*>(QStringLiteral("close")), Qt::LeftButton);
  });
  ASSERT_TRUE(b.click(QStringLiteral("to_get")));
  EXPECT_TRUE(list.contains(QStringLiteral("Open-cell foam")));
}

TEST_F(Planning, TheSideViewLiftsAndTheKeysGoOn) {
  b.window.go(Station::fit);
  QApplication::processEvents();
  auto* view = b.find<PlacesView>(QStringLiteral("places_view"));
  ASSERT_TRUE(b.click(QStringLiteral("closer")));
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
  auto* list = b.find<QListWidget>(QStringLiteral("parts"));
  ASSERT_EQ(list->count(), static_cast<int>(rig().parts.size()) + 1);
  for (int i = 0; i < list->count(); ++i) {
    list->setCurrentRow(i);
    const std::string id = list->item(i)->data(Qt::UserRole).toString().toStdString();
    EXPECT_EQ(b.find<PlacesView>(QStringLiteral("places_view"))->selected(), id);
    const Mounting* p = rig().mounting(id);
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

TEST_F(Planning, HowAPartIsHeldItsPlugAndASecondBay) {
  b.window.go(Station::fit);
  const auto choose = [&](const char* name, const char* data) {
    auto* box = b.find<QComboBox>(QLatin1String(name));
    ASSERT_TRUE(box && box->isVisible()) << name;
    box->setCurrentIndex(box->findData(QLatin1String(data)));
    Q_EMIT box->activated(box->currentIndex());
    QApplication::processEvents();
  };
  b.window.page(Station::fit).go_to(QStringLiteral("battery"));
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
  b.window.page(Station::fit).go_to(QStringLiteral("motor"));
  QApplication::processEvents();
  EXPECT_FALSE(shown("part_plug"));
  EXPECT_TRUE(shown("part_motor_plug"));
  choose("part_motor_plug", "plug_round_20");
  EXPECT_EQ(rig().part("motor")->motor_plug, "plug_round_20");
  // What speaks serially may have been set to another baud by its maker.
  b.window.page(Station::fit).go_to(QStringLiteral("gps"));
  QApplication::processEvents();
  ASSERT_TRUE(shown("part_baud"));
  auto* baud = b.window.page(Station::fit).findChild<QComboBox*>(QStringLiteral("part_baud"));
  baud->setCurrentText(QStringLiteral("quick"));
  Q_EMIT baud->lineEdit()->editingFinished();
  EXPECT_FALSE(rig().part("gps")->baud);
  EXPECT_TRUE(baud->currentText().contains(QStringLiteral("as usual")));
  baud->setCurrentText(QStringLiteral("38400"));
  Q_EMIT baud->lineEdit()->editingFinished();
  EXPECT_EQ(rig().part("gps")->baud, 38400);
  b.window.page(Station::fit).go_to(QStringLiteral("battery"));
  EXPECT_TRUE(b.can_click(QStringLiteral("to_get")));
  b.in_sheet([&](QWidget& sheet) {
    sheet.findChild<QCheckBox*>(QStringLiteral("has_second"))->setChecked(true);
    sheet.findChild<QDoubleSpinBox*>(QStringLiteral("second_below"))->setValue(60);
    static_cast<QDialog*>(&sheet)->accept();
  });
  ASSERT_TRUE(b.click(QStringLiteral("bay_and_place")));
  ASSERT_TRUE(rig().fit.second_bay);
  EXPECT_NEAR(rig().fit.second_bay->below_m, 0.06, 1e-9);
}

}  // namespace
}  // namespace rigging::app
