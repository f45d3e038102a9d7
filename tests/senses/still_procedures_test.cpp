#include "senses/still_procedures.h"

#include <gtest/gtest.h>

#include "senses/board_in_hand.h"

namespace rigging {
namespace {

template <class P>
void rest(Held<P>& h, double seconds, const Point& rate) {
  for (int i = 0; i < seconds * 100; ++i, h.t += 0.01)
    h.tell(MotionHeard{{sample(h.t, Point(0, 0, -9.8) + h.hands.vector(0.05), rate + h.hands.vector(0.08))}});
  h.tell(Time{h.t});
}

TEST(GyroProcedure, AStillStartIsRecorded) {
  Held<GyroProcedure> h;
  h.press("gyro_begin");
  rest(h, 7, {0.1, 0, -0.1});
  EXPECT_FALSE(h.procedure.running());
  const Card card = h.procedure.card(h.scene());
  ASSERT_TRUE(card.action("record_gyro")) << card.says;
  const Orders orders = h.tell(Pressed{"record_gyro", 0, {}, {}});
  EXPECT_EQ(std::get<Record>(orders.at(0)).check, gyro_still);
}

TEST(GyroProcedure, ABoardThatWasMovedAtPowerUpIsSentBackAndProvesNothing) {
  Held<GyroProcedure> h;
  h.press("gyro_begin");
  rest(h, 7, {-5, 3, 0});
  const Card card = h.procedure.card(h.scene());
  EXPECT_FALSE(card.action("record_gyro"));
  EXPECT_TRUE(says(card, "moved while it looked for its zero"));
  EXPECT_TRUE(says(card, "plug in again"));
}

TEST(GyroProcedure, ABoardThatStartsAnewWhileItIsReadIsReadFromItsStart) {
  Held<GyroProcedure> h;
  h.press("gyro_begin");
  h.t = 40;
  rest(h, 3, {-5, 3, 0});
  h.t = 0;  // plugged in again: its time begins anew
  rest(h, 7, {0.1, 0, -0.1});
  EXPECT_FALSE(h.procedure.running());
  EXPECT_TRUE(h.procedure.card(h.scene()).action("record_gyro"));
}

TEST(GyroProcedure, AClassWithoutReadingsSaysWhatItsLampDoes) {
  for (const char* kind : {"inline_dial", "inline_level", "screen_keys", "fixed_wing"}) {
    Held<GyroProcedure> h;
    h.rig.controller.kind = kind;
    h.checks = check_statuses(h.rig, h.catalogue);
    const Card card = h.procedure.card(h.scene());
    EXPECT_TRUE(says(card, h.catalogue.controller(kind)->lamp(LampTells::settling)->meaning)) << kind;
    EXPECT_EQ(says(card, "flies level"), std::string(kind) == "inline_level") << "level too, only where it must be";
    ASSERT_TRUE(card.action("gyro_proof")) << kind;
    EXPECT_FALSE(card.action("record_gyro"));
  }
}

TEST(FoundProcedure, WhatTheBoardFindsIsHeldAgainstTheRigAndLeftOversAreSwitchedOff) {
  Held<FoundProcedure> h;
  EXPECT_TRUE(says(h.procedure.card(h.scene()), "being asked"));
  h.tell(SensorsFound{{{Sensor::gyro, SensorState::works},
                       {Sensor::accelerometer, SensorState::works},
                       {Sensor::barometer, SensorState::works},
                       {Sensor::compass, SensorState::works},
                       {Sensor::satellites, SensorState::works},
                       {Sensor::airspeed, SensorState::missing}}});
  const Card card = h.procedure.card(h.scene());
  EXPECT_TRUE(says(card, "One is not as planned"));
  ASSERT_TRUE(card.action("found_without_airspeed"));
  h.press("found_without_airspeed");
  EXPECT_EQ(h.rig.sensing.uses_airspeed, std::optional(false));
  // Written, the board does not look for it any more.
  h.tell(SensorsFound{{{Sensor::gyro, SensorState::works},
                       {Sensor::accelerometer, SensorState::works},
                       {Sensor::barometer, SensorState::works},
                       {Sensor::compass, SensorState::works},
                       {Sensor::satellites, SensorState::works}}});
  EXPECT_TRUE(says(h.procedure.card(h.scene()), "As planned"));
  h.press("found_keep");
  EXPECT_EQ(h.rig.sensing.reported.size(), 5u);
}

TEST(LevelProcedure, ItIsSetAsWorkedOutAndCorrectedFromAFlight) {
  Held<LevelProcedure> h;
  h.tell(SceneChanged{});
  ASSERT_TRUE(h.procedure.card(h.scene()).action("level_take"));
  h.press("level_take");
  ASSERT_TRUE(h.rig.sensing.level_nose_up_deg);
  const double set = *h.rig.sensing.level_nose_up_deg;
  EXPECT_GT(set, -3);
  EXPECT_LT(set, 8);
  EXPECT_TRUE(h.procedure.card(h.scene()).action("record_level"));

  h.press("level_climbed");
  ASSERT_TRUE(h.procedure.card(h.scene()).number);
  h.tell(Pressed{"level_correct", 0.4, "climbed", {}});
  EXPECT_LT(*h.rig.sensing.level_nose_up_deg, set) << "it climbed: the nose comes down";
  h.press("level_climbed");
  const double lower = *h.rig.sensing.level_nose_up_deg;
  h.tell(Pressed{"level_correct", 0.3, "sank", {}});
  EXPECT_GT(*h.rig.sensing.level_nose_up_deg, lower);
  h.press("level_turned");
  h.tell(Pressed{"level_correct", 4, "right", {}});
  EXPECT_LT(*h.rig.sensing.level_right_down_deg, 0) << "it turned right: the right wing comes up";
}

// What it answers is of the rig as it stands: fit and leads move the balance point, and with it the angle.
TEST(LevelProcedure, FollowsEveryChangeOfTheRig) {
  const std::function<void(Rig&)> changes[] = {
      [](Rig& r) { r.fit.frame_at_m = *r.fit.frame_at_m - 0.04; }, [](Rig& r) { r.fit.frame_mass_kg = 0.2; },
      [](Rig& r) {
        for (Lead& l : r.leads) l.length_m = 3.0;
      },
      [](Rig& r) { r.airframe.mass_kg = 2.5; }, [](Rig& r) { r.mountings.front().x_m -= 0.2; }};
  for (std::size_t i = 0; i < std::size(changes); ++i) {
    Held<LevelProcedure> asked_before, fresh;
    asked_before.tell(SceneChanged{});
    const Card was = asked_before.procedure.card(asked_before.scene());
    changes[i](asked_before.rig);
    changes[i](fresh.rig);
    asked_before.press("level_take");
    fresh.press("level_take");
    EXPECT_EQ(asked_before.rig.sensing.level_nose_up_deg, fresh.rig.sensing.level_nose_up_deg) << "change " << i;
    EXPECT_NE(asked_before.procedure.card(asked_before.scene()), was) << "change " << i;
  }
}

TEST(LevelProcedure, TakenAsItStandsWithTheBoardTurnedAndCalibrated) {
  Held<LevelProcedure> h;
  const Turn turn = *turn_from_name("arrow_left_top_up");
  h.rig.mounting("controller")->turn = TurnName(turn);
  h.sits = alignment_matrix(turn);
  h.press("level_stands");
  h.hold(force_on(Eigen::Matrix3d::Identity(), about(Point::UnitY(), 3.4)));  // nose up by 3.4°
  EXPECT_FALSE(h.procedure.running());
  ASSERT_TRUE(h.rig.sensing.level_nose_up_deg);
  EXPECT_NEAR(*h.rig.sensing.level_nose_up_deg, 3.4, 0.15);
  EXPECT_NEAR(*h.rig.sensing.level_right_down_deg, 0, 0.15);
  // What is no attitude to fly in is not taken.
  h.press("level_stands");
  h.hold(force_on(Eigen::Matrix3d::Identity(), about(Point::UnitX(), 70)));
  EXPECT_NEAR(*h.rig.sensing.level_nose_up_deg, 3.4, 0.15);
  EXPECT_TRUE(says(h.procedure.card(h.scene()), "no attitude to fly level in"));
}

TEST(LevelProcedure, AClassSetByHandSaysItsOwnWayAndAClassThatDoesNotLevelSaysSo) {
  Held<LevelProcedure> h;
  for (const char* kind : {"pc_mini", "gesture_board"}) {
    h.rig.controller.kind = kind;
    h.checks = check_statuses(h.rig, h.catalogue);
    h.press("level_take");
    const ControllerClass& c = *h.catalogue.controller(kind);
    EXPECT_TRUE(says(h.procedure.card(h.scene()), c.senses.level)) << kind;
    EXPECT_EQ(h.procedure.card(h.scene()).action("level_proof") != nullptr, c.senses.stores_level) << kind;
    EXPECT_EQ(says(h.procedure.card(h.scene()), "wedge"), c.senses.stores_level) << kind;
  }
  h.rig.controller.kind = "inline_dial";
  EXPECT_TRUE(says(h.procedure.card(h.scene()), "does not level"));
}

TEST(LevelProcedure, WithoutAMassItSaysWhatIsNeededFirst) {
  Held<LevelProcedure> h;
  h.rig.airframe.mass_kg.reset();
  const Card card = h.procedure.card(h.scene());
  EXPECT_TRUE(says(card, "mass"));
  EXPECT_FALSE(card.action("level_take"));
  EXPECT_TRUE(card.action("level_usual"));
}

}  // namespace
}  // namespace rigging
