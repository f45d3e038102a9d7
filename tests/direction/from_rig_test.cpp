#include "direction/from_rig.h"
#include "bench_rig.h"

#include <gtest/gtest.h>

#include <algorithm>

#include "airframe/kinds.h"
#include "bench_rig.h"
#include "direction/direction_checks.h"
#include "rig/differing.h"
#include "rig/rig_file.h"

namespace rigging::direction {
namespace {

Rig rig_of(AirframeKind kind, const char* controller) {
  Rig rig;
  rig.airframe.kind = kind;
  rig.controller.kind = controller;
  rig.outputs = default_outputs(kind);
  return rig;
}

// Common practice: what each class can do about a wrong direction, and what can be looked at with it.
TEST(FromRig, OffersWhatTheClassReallyCan) {
  struct Row {
    const char* controller;
    bool reverse_output, reverse_function, flip_mix, flip_gyro, drive, channels;
  };
  for (const Row& row : {Row{"fixed_mini", false, true, false, false, false, false},
                         Row{"fixed_wing", false, true, false, false, false, false},
                         Row{"inline_level", false, false, false, true, false, false},
                         Row{"small_controller", true, false, true, true, true, true},
                         Row{"large_controller", true, false, true, true, true, true},
                         Row{"inline_dial", false, false, false, true, false, false},
                         Row{"gesture_board", false, true, true, false, false, false},
                         Row{"screen_keys", true, false, true, false, false, true},
                         Row{"pc_mini", true, false, false, false, false, true},
                         Row{"radio_stabilizer", true, false, true, true, false, true},
                         Row{"full_controller", true, false, true, true, true, true}}) {
    const ControllerClass& c = *shipped().controller(row.controller);
    const Case looks = case_from_rig(rig_of(AirframeKind::flying_wing, row.controller), c);
    EXPECT_EQ(looks.can.has(Remedy::reverse_output), row.reverse_output) << row.controller;
    EXPECT_EQ(looks.can.has(Remedy::reverse_function), row.reverse_function) << row.controller;
    EXPECT_EQ(looks.can.has(Remedy::flip_mix), row.flip_mix) << row.controller;
    EXPECT_EQ(looks.can.has(Remedy::flip_gyro), row.flip_gyro) << row.controller;
    for (const Remedy always :
         {Remedy::swap_leads, Remedy::check_output, Remedy::move_linkage, Remedy::reverse_transmitter})
      EXPECT_TRUE(looks.can.has(always)) << row.controller;
    const auto asks = [&](auto&& what) { return std::any_of(looks.may_ask->begin(), looks.may_ask->end(), what); };
    EXPECT_EQ(asks([](const Question& q) { return q.observation.act == Act::drive; }), row.drive) << row.controller;
    EXPECT_EQ(asks([](const Question& q) { return q.channels; }), row.channels) << row.controller;
    EXPECT_TRUE(asks([](const Question& q) { return q.observation.act == Act::tilt; })) << row.controller;
    for (const Question& q : *looks.may_ask)
      if (q.observation.act == Act::tilt)
        EXPECT_NE(c.mode(q.observation.mode)->answer, AnswerKind::runs_away)
            << "a levelling that runs away is no look to ask for";
  }
}

TEST(FromRig, LeavesOutMotorsAndWeightsThatServeNothing) {
  Rig rig = rig_of(AirframeKind::two_ailerons, "full_controller");
  rig.outputs[0].mix.pitch = 0.3;  // an aileron can't pitch
  const Case c = case_from_rig(rig, *shipped().controller("full_controller"));
  EXPECT_EQ(c.outputs.size(), 4u) << "the motor drives no surface";
  EXPECT_EQ(c.outputs[0].mix[1], 0);
  EXPECT_EQ(c.outputs[0].label, "OUT 1 (left aileron)");
}

TEST(FromRig, EveryRemedyOnAFullControllerChangesWhatItSays) {
  Rig rig = demo("hedgerow");
  const ControllerClass& controller = *shipped().controller("full_controller");
  rig = directions_proven(rig);
  const Case c = case_from_rig(rig, controller);
  const auto remedied_by = [&](FaultKind kind, auto&& set) {
    Fault f;
    f.kind = kind;
    set(f);
    return remedied(rig, f, c, controller);
  };
  const auto plain = [](Fault& f) { f.output = 2; };
  EXPECT_EQ(differing_members(rig, remedied_by(FaultKind::output_reversed, plain)),
            (std::vector<std::string>{"/outputs/2/reversed"}));
  EXPECT_EQ(differing_members(
                rig, remedied_by(FaultKind::mix_sign_wrong, [](Fault& f) { f.output = 3, f.axis = Axis::yaw; })),
            (std::vector<std::string>{"/outputs/3/mix/yaw"}));
  EXPECT_TRUE(remedied_by(FaultKind::gyro_reversed, [](Fault& f) { f.axis = Axis::pitch; }).sensing.pitch_reversed);

  // Work by hand leaves no trace in the settings: the proofs it touches are taken back, the others stand.
  const auto left = [](const Rig& r) {
    std::vector<std::string> ids;
    for (const Proof& p : r.proofs)
      if (is_direction(p.check)) ids.push_back(p.check.text());
    return ids;
  };
  using Ids = std::vector<std::string>;
  EXPECT_EQ(left(remedied_by(FaultKind::leads_swapped, [](Fault& f) { f.output = 2, f.other_output = 3; })),
            (Ids{"correction.roll", "stick.roll"}));
  EXPECT_EQ(left(remedied_by(FaultKind::linkage_opposed, [](Fault& f) { f.output = 0; })),
            (Ids{"correction.pitch", "correction.yaw", "stick.pitch", "stick.yaw"}));
  EXPECT_EQ(left(remedied_by(FaultKind::output_dead, [](Fault& f) { f.output = 0; })),
            (Ids{"correction.pitch", "correction.yaw", "stick.pitch", "stick.yaw"}));
  const Rig transmitter = remedied_by(FaultKind::transmitter_reversed, [](Fault& f) { f.axis = Axis::pitch; });
  EXPECT_TRUE(transmitter.radio.channels[1].reversed);
  EXPECT_EQ(left(transmitter),
            (Ids{"correction.pitch", "correction.roll", "correction.yaw", "stick.roll", "stick.yaw"}));
  EXPECT_EQ(
      left(remedied_by(FaultKind::transmitter_swapped, [](Fault& f) { f.axis = Axis::roll, f.other_axis = Axis::yaw; }))
          .size(),
      4u);
}

TEST(FromRig, ABoardThatCantBeToldIsRemountedAndItsProofsTakenBack) {
  Rig rig = rig_of(AirframeKind::flying_wing, "inline_dial");
  const ControllerClass& controller = *shipped().controller("inline_dial");
  rig = directions_proven(rig);
  Fault f;
  f.kind = FaultKind::board_turned;
  f.turn = *turn_from_name("arrow_right_top_up");
  EXPECT_FALSE(is_setting(Remedy::turn_board, controller));
  const Rig after = remedied(rig, f, case_from_rig(rig, controller), controller);
  EXPECT_EQ(after.sensing.board, Turn{});
  for (const Proof& p : after.proofs) EXPECT_NE(p.check.family, correction_family);
  EXPECT_FALSE(after.proofs.empty());
}

}  // namespace
}  // namespace rigging::direction
