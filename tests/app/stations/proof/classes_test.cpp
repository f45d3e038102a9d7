#include <gtest/gtest.h>

#include "airframe/kinds.h"
#include "bench_builder.h"
#include "direction/direction_checks.h"
#include "look/literals.h"
#include "wiring/plan.h"

namespace rigging::app {
namespace {

struct ClassAtWork {
  const char* kind;
  AirframeKind airframe;
  const char* fault;
  int checks;  ///< directions, and a rudder that leans
};

void PrintTo(const ClassAtWork& c, std::ostream* out) { *out << c.kind; }
class EveryClass : public testing::TestWithParam<ClassAtWork> {};

/// From wrongly moving to proven, in the window, as each class answers on its bench. (The middle full controller stands
/// in the tests of the whole line.)
TEST_P(EveryClass, IsBroughtFromWrongToProven) {
  const auto& [kind, airframe, fault, checks] = GetParam();
  Builder b({QString::fromLatin1(fault)});
  Rig rig = fresh_rig("mine", airframe, kind);
  rig.airframe.mass_kg = 1.2;            // gains are planned from it
  rig.home.on_loss = LossAction::glide;  // decided: else the card of the loss leads to station home
  if (const int lock = b.window.document().catalogue().controller(kind)->sticks.unlock_channel) {
    Channel c;
    c.number = lock;
    c.function = ChannelFunction::arm;
    rig.radio.channels.push_back(c);
  }
  rig = plan_wiring(rig, b.window.document().catalogue()).rig;
  const QString file = b.folder.filePath(u"mine.rig.json"_s);
  ASSERT_TRUE(save_rig(rig, file.toStdString()));
  ASSERT_TRUE(b.window.open_file(file));
  b.window.go(Station::proof);
  ASSERT_TRUE(b.click(u"bench_start"_s));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  ASSERT_TRUE(b.click(u"supply_battery"_s));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().sight().lamp.find("ready") != std::string::npos; }))
      << b.window.bench().sight().lamp;
  if (b.window.document().controller()->link)
    ASSERT_TRUE(b.wait([&] { return b.window.bench().controller_answers(); }));
  EXPECT_GE(b.work_through(), 1) << "something was wrong, and was put right";
  int proven = 0;
  for (const CheckStatus& s : b.window.document().review().checks)
    if (is_direction(s.id) || s.id == rudder_leans) {
      EXPECT_TRUE(s.state == ProofState::fresh || s.state == ProofState::provisional) << s.id.text();
      ++proven;
    }
  EXPECT_EQ(proven, checks);
}

INSTANTIATE_TEST_SUITE_P(
    Classes, EveryClass,
    testing::Values(ClassAtWork{"fixed_mini", AirframeKind::aileron_y_lead, "function_reversed:pitch", 6},
                    ClassAtWork{"fixed_wing", AirframeKind::flying_wing, "function_reversed:roll", 4},
                    ClassAtWork{"inline_dial", AirframeKind::two_ailerons, "gyro_reversed:pitch", 6},
                    ClassAtWork{"inline_level", AirframeKind::two_ailerons, "gyro_reversed:roll", 7},
                    ClassAtWork{"gesture_board", AirframeKind::two_ailerons, "function_reversed:yaw", 6},
                    ClassAtWork{"screen_keys", AirframeKind::v_tail, "output_reversed:out_3", 6},
                    ClassAtWork{"pc_mini", AirframeKind::flying_wing, "output_reversed:out_2", 4},
                    ClassAtWork{"radio_stabilizer", AirframeKind::two_ailerons, "gyro_reversed:yaw", 6},
                    ClassAtWork{"small_controller", AirframeKind::flying_wing, "leads_swapped:out_1,out_2", 4},
                    ClassAtWork{"large_controller", AirframeKind::v_tail, "gyro_reversed:roll", 6}),
    [](const auto& i) { return std::string(i.param.kind); });

}  // namespace
}  // namespace rigging::app
