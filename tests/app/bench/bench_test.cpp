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
#include "look/literals.h"
#include "rig/rig_file.h"

namespace rigging::app {
namespace {

TEST(Bench, TheModelIsHeldByKeys) {
  Builder b({u"gyro_reversed:yaw"_s});
  ASSERT_TRUE(b.open_demo_with_battery());
  auto* view = b.find(u"bench_panel"_s)->findChild<AircraftView*>();
  view->setFocus();
  for (int i = 0; i < 3; ++i) QTest::keyClick(view, Qt::Key_Right);
  QTest::keyClick(view, Qt::Key_Up);
  EXPECT_TRUE(b.wait([&] { return b.window.bench().sight().roll_deg > 29 && b.window.bench().sight().pitch_deg > 9; }));
  QTest::keyClick(view, Qt::Key_Home);
  EXPECT_TRUE(b.wait([&] { return std::abs(b.window.bench().sight().roll_deg) < 1; }));
}

TEST(Bench, TheTransmitterCanBeSwitchedOff) {
  Builder b({u"gyro_reversed:yaw"_s});
  ASSERT_TRUE(b.open_demo_with_battery());
  ASSERT_TRUE(b.wait([&] { return !b.window.bench().channels().empty(); }));
  ASSERT_TRUE(b.click(u"transmitter"_s));
  EXPECT_TRUE(b.wait(
      [&] { return b.window.bench().channels().empty() && b.find<QLabel>(u"heard"_s)->text().contains(u"dark"_s); }));
  ASSERT_TRUE(b.click(u"transmitter"_s));
  EXPECT_TRUE(b.wait([&] { return !b.window.bench().channels().empty(); }));
}

TEST(Bench, IsLookedAtSeldomWhileNothingMovesAndAtOnceWhenItDoes) {
  Builder b;
  b.window.start_demo();
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  b.let_pass(2000, [] { return false; });
  int looks = 0;
  QObject::connect(&b.window.bench(), &BenchLink::seen, &b.window, [&] { ++looks; });
  b.let_pass(3000, [] { return false; });
  EXPECT_GE(looks, 24);
  EXPECT_LE(looks, 36);
  looks = 0;
  b.window.bench().ask(hands::Hold{20, 0, 0});
  b.let_pass(900, [] { return false; });
  EXPECT_GE(looks, 24);
  EXPECT_NEAR(b.window.bench().sight().roll_deg, 20, 1);
}

TEST(Bench, WithoutSupplyNothingMovesAndItIsSaid) {
  Builder b;
  b.window.start_demo();
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  ASSERT_TRUE(b.click(u"do_it"_s));
  EXPECT_TRUE(b.find<QLabel>(u"foot_said"_s)->toolTip().contains(u"Propeller off"_s));
  EXPECT_TRUE(b.click(u"bench_start"_s));
  EXPECT_FALSE(b.window.bench().hands_connected());
}

TEST(Bench, DifferencesAreShownAndSettledPartByPart) {
  Builder b({u"gyro_reversed:yaw"_s});
  ASSERT_TRUE(b.open_demo_with_battery());
  ASSERT_TRUE(b.wait([&] { return b.window.bench().board().has_value(); }));
  Rig rig = b.window.document().rig();
  rig.outputs[0].reversed = true;
  rig.outputs[1].high_us = 1900;
  b.window.document().edit(rig, u"two parts"_s);
  ASSERT_TRUE(b.can_click(u"bench_compare"_s));
  b.in_sheet([](QWidget& sheet) {
    auto* dialog = &sheet;
    QTest::mouseClick(dialog->findChild<QAbstractButton*>(u"board_is_right_output slot_1"_s), Qt::LeftButton, {},
                      QPoint(8, 8));
    QTest::mouseClick(dialog->findChild<QAbstractButton*>(u"make_agree"_s), Qt::LeftButton);
  });
  b.click(u"bench_compare"_s);
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
  EXPECT_TRUE(b.find<QLabel>(u"foot_link"_s)->text().contains(u"No bench"_s));
}

/// A board of another class is somebody else's: it is said, and nothing is compared or written.
TEST(Bench, ABoardOfAnotherClassIsNeitherComparedNorWritten) {
  Builder b({u"gyro_reversed:yaw"_s});
  ASSERT_TRUE(b.open_demo_with_battery());
  ASSERT_TRUE(b.wait([&] { return b.window.bench().board().has_value(); }));
  auto* said = b.find<QLabel>(u"foot_said"_s);
  ASSERT_TRUE(said);
  const link::Image held = *b.window.bench().board();
  Rig rig = b.window.document().rig();
  rig.controller.kind = "pc_mini";
  b.window.document().edit(rig, u"another class"_s);
  Q_EMIT b.window.bench().board_read();
  EXPECT_TRUE(said->toolTip().contains(u"another class"_s)) << said->toolTip().toStdString();
  EXPECT_FALSE(said->toolTip().contains(u"agree"_s));
  EXPECT_TRUE(b.window.bench().is_another_class("pc_mini"));
  EXPECT_FALSE(b.window.bench().writing());
  EXPECT_EQ(*b.window.bench().board(), held);
}

}  // namespace
}  // namespace rigging::app
