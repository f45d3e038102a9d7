#include <gtest/gtest.h>

#include <sys/wait.h>
#include <unistd.h>
#include <QLabel>
#include <QTimer>
#include <cmath>
#include <csignal>
#include <fstream>

#include "bench_builder.h"
#include "direction/from_rig.h"
#include "drawing/aircraft_view.h"
#include "rig/rig_file.h"

namespace rigging::app {
namespace {

TEST(Bench, TheModelIsHeldByKeys) {
  Builder b({QStringLiteral("gyro_reversed:yaw")});
  ASSERT_TRUE(b.open_demo_with_battery());
  auto* view = b.find(QStringLiteral("bench_panel"))->findChild<AircraftView*>();
  view->setFocus();
  for (int i = 0; i < 3; ++i) QTest::keyClick(view, Qt::Key_Right);
  QTest::keyClick(view, Qt::Key_Up);
  EXPECT_TRUE(b.wait([&] { return b.window.bench().sight().roll_deg > 29 && b.window.bench().sight().pitch_deg > 9; }));
  QTest::keyClick(view, Qt::Key_Home);
  EXPECT_TRUE(b.wait([&] { return std::abs(b.window.bench().sight().roll_deg) < 1; }));
}

TEST(Bench, TheTransmitterCanBeSwitchedOff) {
  Builder b({QStringLiteral("gyro_reversed:yaw")});
  ASSERT_TRUE(b.open_demo_with_battery());
  ASSERT_TRUE(b.wait([&] { return !b.window.bench().channels().empty(); }));
  ASSERT_TRUE(b.click(QStringLiteral("transmitter")));
  EXPECT_TRUE(b.wait([&] {
    return b.window.bench().channels().empty() &&
           b.find<QLabel>(QStringLiteral("heard"))->text().contains(QStringLiteral("dark"));
  }));
  ASSERT_TRUE(b.click(QStringLiteral("transmitter")));
  EXPECT_TRUE(b.wait([&] { return !b.window.bench().channels().empty(); }));
}

TEST(Bench, WithoutSupplyNothingMovesAndItIsSaid) {
  Builder b;
  b.window.start_demo();
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  ASSERT_TRUE(b.click(QStringLiteral("do_it")));
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("foot_said"))->toolTip().contains(QStringLiteral("Propeller off")));
  EXPECT_TRUE(b.click(QStringLiteral("bench_start")));
  EXPECT_FALSE(b.window.bench().hands_connected());
}

TEST(Bench, DifferencesAreShownAndSettledPartByPart) {
  Builder b({QStringLiteral("gyro_reversed:yaw")});
  ASSERT_TRUE(b.open_demo_with_battery());
  ASSERT_TRUE(b.wait([&] { return b.window.bench().board().has_value(); }));
  Rig rig = b.window.document().rig();
  rig.outputs[0].reversed = true;
  rig.outputs[1].high_us = 1900;
  b.window.document().edit(rig, QStringLiteral("two parts"));
  ASSERT_TRUE(b.can_click(QStringLiteral("bench_compare")));
  b.in_sheet([](QWidget& sheet) {
    auto* dialog = &sheet;
    QTest::mouseClick(dialog->findChild<QAbstractButton*>(QStringLiteral("board_is_right_output s1")), Qt::LeftButton,
                      {}, QPoint(8, 8));
    QTest::mouseClick(dialog->findChild<QAbstractButton*>(QStringLiteral("make_agree")), Qt::LeftButton);
  });
  b.click(QStringLiteral("bench_compare"));
  ASSERT_TRUE(b.wait([&] {
    return !b.window.bench().writing() && link::configured(*b.window.bench().board()).outputs[1].high_us == 1900;
  }));
  EXPECT_FALSE(b.window.document().rig().outputs[0].reversed) << "the board was right";
  EXPECT_EQ(b.window.document().rig().outputs[1].high_us, 1900) << "the rig was right";
}

TEST(Bench, ATwinThatDiesIsNoticed) {
  Builder b;
  ASSERT_TRUE(b.open_demo_with_battery());
  bool lost = false;
  QObject::connect(&b.window.bench(), &BenchLink::state_changed, [&] { lost = !b.window.bench().hands_connected(); });
  b.window.bench().write(link::image_of(b.window.document().rig()));
  b.window.bench().stop();
  EXPECT_TRUE(lost);
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("foot_link"))->text().contains(QStringLiteral("No bench")));
}

/// A board of another class is somebody else's: it is said, and nothing is compared or written.
TEST(Bench, ABoardOfAnotherClassIsNeitherComparedNorWritten) {
  Builder b({QStringLiteral("gyro_reversed:yaw")});
  ASSERT_TRUE(b.open_demo_with_battery());
  ASSERT_TRUE(b.wait([&] { return b.window.bench().board().has_value(); }));
  auto* said = b.find<QLabel>(QStringLiteral("foot_said"));
  ASSERT_TRUE(said);
  const link::Image held = *b.window.bench().board();
  Rig rig = b.window.document().rig();
  rig.controller.kind = "pc_mini";
  b.window.document().edit(rig, QStringLiteral("another class"));
  Q_EMIT b.window.bench().board_read();
  EXPECT_TRUE(said->toolTip().contains(QStringLiteral("another class"))) << said->toolTip().toStdString();
  EXPECT_FALSE(said->toolTip().contains(QStringLiteral("agree")));
  EXPECT_TRUE(b.window.bench().is_another_class("pc_mini"));
  EXPECT_FALSE(b.window.bench().writing());
  EXPECT_EQ(*b.window.bench().board(), held);
}

}  // namespace
}  // namespace rigging::app
