#include <gtest/gtest.h>

#include <sys/wait.h>
#include <unistd.h>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <cmath>
#include <csignal>
#include <fstream>

#include "airframe/handles.h"
#include "airframe/kinds.h"
#include "base/json.h"
#include "bench_builder.h"
#include "direction/from_rig.h"
#include "drawing/aircraft_view.h"
#include "look/literals.h"
#include "look/units.h"
#include "places.h"
#include "rig/rig_file.h"

namespace rigging::app {
namespace {

TEST(Airframe, AnotherClassKeepsPlugsWhereItCan) {
  Builder b;
  b.window.start_demo();
  b.window.go(Station::airframe);
  auto* classes = b.find<QComboBox>(u"controller_kind"_s);
  classes->setCurrentIndex(classes->findData(u"screen_keys"_s));
  Q_EMIT classes->activated(classes->currentIndex());
  EXPECT_EQ(b.window.document().rig().controller.kind, "screen_keys");
  for (const Output& o : b.window.document().rig().outputs)
    EXPECT_TRUE(b.window.document().controller()->socket(o.socket)) << o.id;
  auto* mass = b.find<QDoubleSpinBox>(u"mass"_s);
  mass->setValue(0);
  EXPECT_FALSE(b.window.document().rig().airframe.mass_kg);
}

/// Who scrolls through the sizes changes none of them.
TEST(Airframe, TheWheelChangesOnlyWhatHasTheKeyboard) {
  Builder b;
  b.window.go(Station::airframe);
  const Rig before = b.window.document().rig();
  const auto wheel = [&](QWidget* over) {
    const QPointF at = over->rect().center();
    QWheelEvent event(at, over->mapToGlobal(at), {}, {0, -120}, Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase, false);
    QApplication::sendEvent(over, &event);
  };
  auto* kind = b.find<QComboBox>(u"airframe_kind"_s);
  auto* span = b.find<QDoubleSpinBox>(u"dimension_span_m"_s);
  auto* mass = b.find<QDoubleSpinBox>(u"mass"_s);
  mass->setFocus();
  wheel(kind);
  wheel(span);
  EXPECT_EQ(b.window.document().rig(), before);
}

TEST(Airframe, TwoMotorsGoWithAnyKind) {
  Builder b;
  b.window.document().start_new(*load_rig(in_source("/data/demo/hedgerow.rig.json")));
  b.window.go(Station::airframe);
  auto* motors = b.find<QComboBox>(u"airframe_motors"_s);
  ASSERT_TRUE(motors && motors->isVisible());
  const auto choose = [&](Motors m) {
    motors->setCurrentIndex(motors->findData(static_cast<int>(m)));
    Q_EMIT motors->activated(motors->currentIndex());
  };
  choose(Motors::two_steering);
  const auto left = [&] { return b.window.document().rig().output_of(*surface_from_name("motor_left")); };
  ASSERT_TRUE(left());
  EXPECT_GT(left()->mix.yaw, 0) << "right yaw speeds the left motor up";
  choose(Motors::one);
  EXPECT_FALSE(left());
  b.edit([](Rig& r) { r.airframe.kind = AirframeKind::towed_glider; });
  EXPECT_FALSE(motors->isVisible()) << "it has none";
}

TEST(Airframe, DimensionsKindAndUndo) {
  Builder b;
  b.window.go(Station::airframe);
  auto* span = b.find<QDoubleSpinBox>(u"dimension_span_m"_s);
  span->setFocus();
  span->selectAll();
  for (const char key : std::string("2500")) QTest::keyClick(span, key);
  QTest::keyClick(span, Qt::Key_Return);
  EXPECT_DOUBLE_EQ(b.window.document().rig().airframe.span_m, 2.5);
  auto* kind = b.find<QComboBox>(u"airframe_kind"_s);
  kind->setFocus();
  kind->setCurrentIndex(kind->findData(static_cast<int>(AirframeKind::towed_glider)));
  Q_EMIT kind->activated(kind->currentIndex());
  EXPECT_EQ(b.window.document().rig().airframe.kind, AirframeKind::towed_glider);
  press(b, Qt::Key_Z, Qt::ControlModifier);
  press(b, Qt::Key_Z, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(b.window.document().rig().airframe.span_m, 1.4);
  EXPECT_FALSE(b.window.document().history().can_undo());
  press(b, Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_DOUBLE_EQ(b.window.document().rig().airframe.span_m, 2.5);
}

TEST(Airframe, ShowsWhatAnswersAndItsWorking) {
  Builder b;
  b.window.start_demo();
  b.window.go(Station::airframe);
  ASSERT_TRUE(b.click(u"answers_yaw"_s));
  const QString words = b.find<QLabel>(u"answer_words"_s)->text();
  EXPECT_TRUE(words.contains(u"eft inverted V-tail half trailing edge down"_s)) << words.toStdString();
  EXPECT_TRUE(words.contains(u"right inverted V-tail half trailing edge up"_s));
  const QString metric = b.find<QLabel>(u"airframe_figures"_s)->text();
  EXPECT_TRUE(metric.contains(u"41.4"_s));
  ASSERT_TRUE(b.click(u"show_working"_s));
  set_unit_system(UnitSystem::imperial);
  Q_EMIT b.window.document().changed();
  EXPECT_TRUE(b.find<QLabel>(u"airframe_figures"_s)->text().contains(u"ft²"_s));
  EXPECT_NEAR(b.find<QDoubleSpinBox>(u"dimension_span_m"_s)->value(), 70.87, 0.01);
  EXPECT_DOUBLE_EQ(b.window.document().rig().airframe.span_m, 1.8) << "a switch of units changes no rig";
  set_unit_system(UnitSystem::metric);
}

// The outline is a tool: a ring is dragged, the box follows, and the rig has it when the hand lets go.
TEST(Airframe, TheOutlineIsDragged) {
  Builder b;
  ASSERT_TRUE(b.open("heath", Station::airframe));
  b.window.resize(1280, 800);
  QApplication::processEvents();
  AircraftView* above = nullptr;
  for (AircraftView* view : b.window.findChildren<AircraftView*>())
    if (view->isVisible() && (!above || view->height() > above->height())) above = view;
  ASSERT_TRUE(above);
  above->grab();
  const Rig before = b.window.document().rig();
  const auto handles = outline_handles(before.airframe);
  const auto span =
      std::find_if(handles.begin(), handles.end(), [](const OutlineHandle& h) { return h.member == "span_m"; });
  ASSERT_NE(span, handles.end());
  const QPointF at = above->at_handle(static_cast<int>(span - handles.begin()));
  const double px_per_m = (at.x() - above->width() / 2.0) / span->at.y();
  ASSERT_GT(px_per_m, 50);
  QTest::mousePress(above, Qt::LeftButton, {}, at.toPoint());
  QMouseEvent move(QEvent::MouseMove, at + QPointF(20, 0), above->mapToGlobal(at + QPointF(20, 0)), Qt::NoButton,
                   Qt::LeftButton, {});
  QApplication::sendEvent(above, &move);
  auto* box = b.find<QDoubleSpinBox>(u"dimension_span_m"_s);
  const double expected = before.airframe.span_m + 2 * 20 / px_per_m;
  EXPECT_NEAR(box->value() / 1000, expected, 0.01) << "both tips go out";
  EXPECT_EQ(b.window.document().rig().airframe.span_m, before.airframe.span_m) << "not before it is let go";
  QTest::mouseRelease(above, Qt::LeftButton, {}, (at + QPointF(20, 0)).toPoint());
  EXPECT_NEAR(b.window.document().rig().airframe.span_m, expected, 0.01);
  b.window.document().undo();
  EXPECT_TRUE(b.window.document().rig() == before) << "one undo";
}

TEST(Airframe, PusherAndYLeadStandBesideTheMotors) {
  Builder b;
  b.window.document().start_new(fresh_rig("T", AirframeKind::v_tail, "full_controller"));
  b.window.go(Station::airframe);
  const auto choose = [&](const char* box, int value) {
    auto* combo = b.find<QComboBox>(QLatin1String(box));
    ASSERT_TRUE(combo);
    combo->setCurrentIndex(combo->findData(value));
    Q_EMIT combo->activated(combo->currentIndex());
  };
  const auto hub_x = [&] {
    for (const Panel& p : b.window.document().review().reports.airframe().panels)
      if (p.part == Panel::Part::propeller) return p.hinge_a.x();
    return 1.0;
  };
  const double pulls = hub_x();
  choose("airframe_propeller", static_cast<int>(PropellerSide::pusher));
  EXPECT_EQ(b.window.document().rig().airframe.propeller, PropellerSide::pusher);
  EXPECT_LT(hub_x(), pulls - 0.2) << "the drawing follows";
  const std::size_t apart = b.window.document().rig().outputs.size();
  ASSERT_TRUE(b.click(u"airframe_joined"_s));
  EXPECT_EQ(b.window.document().rig().outputs.size(), apart - 1);
  EXPECT_TRUE(b.find<QCheckBox>(u"airframe_joined"_s)->isChecked());
  b.window.document().undo();
  EXPECT_EQ(b.window.document().rig().outputs.size(), apart);
  EXPECT_FALSE(b.find<QCheckBox>(u"airframe_joined"_s)->isChecked());
  choose("airframe_kind", static_cast<int>(AirframeKind::flying_wing));
  EXPECT_FALSE(b.find(u"airframe_joined"_s)->isVisible()) << "elevons can't hang on one lead";
  choose("airframe_kind", static_cast<int>(AirframeKind::towed_glider));
  EXPECT_FALSE(b.find(u"airframe_propeller"_s)->isVisible());
}

TEST(Airframe, ClassesStandSideBySideAndOneIsTaken) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::airframe));
  int rows = 0;
  b.in_sheet([&](QWidget& sheet) {
    auto* table = sheet.findChild<QTableWidget*>(u"class_table"_s);
    ASSERT_TRUE(table);
    rows = table->rowCount();
    EXPECT_FALSE(sheet.findChild<QPushButton*>(u"class_take"_s)->isEnabled()) << "the class it is on";
    for (int row = 0; row < rows; ++row)
      if (table->item(row, 0)->text().startsWith(u"Full flight controller, small"_s)) table->selectRow(row);
    if (const QByteArray file = qgetenv("RIGGING_PICTURE"); !file.isEmpty()) sheet.grab().save(QString::fromUtf8(file));
    sheet.findChild<QPushButton*>(u"class_take"_s)->click();
  });
  b.find<QPushButton>(u"compare_classes"_s)->click();
  EXPECT_EQ(rows, static_cast<int>(b.window.document().catalogue().controllers.size()));
  EXPECT_EQ(b.window.document().rig().controller.kind, "small_controller");
}

// Ctrl+Z inside a box: while it is typed in it is the box's, once taken it is the window's.
TEST(Airframe, UndoWorksFromWithinABox) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::airframe));
  const double was = b.window.document().rig().airframe.span_m;
  b.type("dimension_span_m", "2000");
  QApplication::processEvents();
  ASSERT_NE(b.window.document().rig().airframe.span_m, was);
  auto* box = b.find<QDoubleSpinBox>(u"dimension_span_m"_s);
  ASSERT_TRUE(box->hasFocus());
  QTest::keyClick(box, Qt::Key_Z, Qt::ControlModifier);
  QApplication::processEvents();
  EXPECT_EQ(b.window.document().rig().airframe.span_m, was);
}

}  // namespace
}  // namespace rigging::app
