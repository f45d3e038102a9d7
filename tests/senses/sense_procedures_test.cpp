#include "senses/sense_procedures.h"

#include <gtest/gtest.h>

#include "bench_rig.h"
#include "senses/board_in_hand.h"

namespace rigging {
namespace {

TEST(PoseWatch, AHandThatHoldsStillIsNoticedAndOneThatCreepsIsNot) {
  PoseWatch watch;
  Hands hands(41);
  double t = 0;
  const auto feed = [&](const Point& force, const Point& rate) {
    watch.feed(sample(t, force + hands.vector(0.06), rate + hands.vector(0.1)));
    t += 0.01;
  };
  for (int i = 0; i < 70; ++i) feed({0, 0, -9.8}, {0, 0, 0});
  EXPECT_FALSE(watch.still()) << "not long enough yet";
  for (int i = 0; i < 30; ++i) feed({0, 0, -9.8}, {0, 0, 0});
  EXPECT_TRUE(watch.still());
  EXPECT_NEAR(watch.force().z(), -9.8, 0.03);
  EXPECT_NEAR(watch.spread(), 0.06, 0.02);
  feed({30, 0, -9.8}, {0, 0, 0});
  feed({0, 0, -9.8}, {0, 0, 0});
  EXPECT_TRUE(watch.still()) << "one spike is no movement";
  for (int i = 0; i < 10; ++i) feed({0, 0, -9.8}, {0, 90, 0});
  EXPECT_FALSE(watch.still());
  EXPECT_TRUE(watch.moving());
  for (int i = 0; i < 600; ++i) {
    feed(about(Point::UnitY(), i * 0.08) * Point(0, 0, -9.8), {0, 8, 0});  // 8° a second, below what counts as a turn
    EXPECT_FALSE(watch.still() && watch.still_s() > 1.2) << i;
  }
  t += 5;
  feed({0, 0, -9.8}, {0, 0, 0});
  EXPECT_FALSE(watch.still()) << "what was before the gap is over";
}

TEST(SenseProcedures, PoseForIsTheAttitudeThatGivesTheForce) {
  Hands hands(42);
  for (int i = 0; i < 50; ++i) {
    const Point force = hands.direction();
    const auto pose = pose_for(force);
    const Eigen::Matrix3d attitude = about(Point::UnitY(), pose[1]) * about(Point::UnitX(), pose[0]);
    EXPECT_LT((attitude.transpose() * Point(0, 0, -1) - force).norm(), 1e-9);
  }
  EXPECT_NEAR(pose_for(Pose::nose_up)[1], 60, 1e-9);
  EXPECT_NEAR(pose_for(Pose::right_down)[0], 60, 1e-9);
  EXPECT_NEAR(std::abs(pose_for(Pose::upside_down)[0]), 180, 1e-9);
}

TEST(RotationProcedure, ThreePosesTellAndTheRemedyIsWhatThisClassOffers) {
  Held<RotationProcedure> h;
  h.sits = alignment_matrix(*turn_from_name("arrow_left_top_up"));
  h.press("rotation_begin");
  for (const Pose p : {Pose::level, Pose::nose_up, Pose::right_down}) {
    ASSERT_TRUE(h.procedure.card(h.scene()).picture.pose_deg);
    EXPECT_EQ(*h.procedure.card(h.scene()).picture.pose_deg, pose_for(p));
    h.hold(p);
  }
  EXPECT_FALSE(h.procedure.running());
  ASSERT_TRUE(h.procedure.found() && h.procedure.found()->certain());
  EXPECT_EQ(h.procedure.found()->turn->name(), "arrow_left_top_up");
  ASSERT_TRUE(h.procedure.card(h.scene()).action("rotation_set"));
  EXPECT_FALSE(h.procedure.card(h.scene()).action("record_rotation"));
  h.press("rotation_set");
  EXPECT_EQ(h.rig.sensing.board.name(), "arrow_left_top_up");
  EXPECT_TRUE(h.procedure.card(h.scene()).action("record_rotation"));
}

TEST(RotationProcedure, ABoardThatWasNotPlacedYetIsSentThereAndGivenNoPlace) {
  Held<RotationProcedure> h;
  std::erase_if(h.rig.mountings, [](const Mounting& p) { return p.part == "controller"; });
  h.press("rotation_begin");
  for (const Pose p : {Pose::level, Pose::nose_up, Pose::right_down}) h.hold(p);
  // It sits as it is told, and the plan does not have it.
  const Card card = h.procedure.card(h.scene());
  EXPECT_FALSE(card.action("rotation_set"));
  EXPECT_FALSE(card.action("record_rotation"));
  ASSERT_TRUE(card.action("rotation_place"));
  const Orders orders = h.tell(Pressed{"rotation_place", 0, {}, {}});
  ASSERT_EQ(orders.size(), 1u);
  EXPECT_EQ(std::get<GoTo>(orders[0]).station, Station::fit);
  EXPECT_FALSE(h.rig.mounting("controller")) << "nobody said where";
}

TEST(RotationProcedure, AMirroredHandIsToldThatPosesContradict) {
  Held<RotationProcedure> h;
  h.press("rotation_begin");
  h.hold(Pose::level);
  h.hold(Pose::nose_up);
  h.hold(Pose::left_down);  // asked for the right wing
  EXPECT_FALSE(h.procedure.found()->certain());
  EXPECT_FALSE(h.procedure.card(h.scene()).action("rotation_set"));
  EXPECT_NE(h.procedure.card(h.scene()).lines.front().words.find("held as it is called"), std::string::npos);
}

TEST(AccelerometerProcedure, PosesAreTakenByThemselvesUntilItIsGood) {
  Held<AccelerometerProcedure> h;
  h.press("accel_begin");
  int held = 0;
  while (h.procedure.running() && held < 30) {
    const auto pose = h.procedure.card(h.scene()).picture.pose_deg;
    ASSERT_TRUE(pose);
    const Eigen::Matrix3d attitude = about(Point::UnitY(), (*pose)[1]) * about(Point::UnitX(), (*pose)[0]);
    h.hold(attitude.transpose() * Point(0, 0, -1));
    ++held;
  }
  EXPECT_LE(held, 18) << "every pose that is asked for counts";
  EXPECT_EQ(h.procedure.found()->verdict, Verdict::good);
  ASSERT_TRUE(h.rig.sensing.accelerometer);
  EXPECT_NEAR(h.rig.sensing.accelerometer->scale_x, 1, 0.005);
  EXPECT_NEAR(h.rig.sensing.accelerometer->offset_z, 0, 0.03);
}

TEST(AccelerometerProcedure, WhatWasStoppedOrFailedIsNotSaidToBeKept) {
  Held<AccelerometerProcedure> h;
  h.rig.sensing.accelerometer.emplace().offset_x = 0.3;
  h.press("accel_begin");
  for (const auto& [pose, name] : Names<Pose>::list)
    h.hold(pose == Pose::level || pose == Pose::upside_down
               ? reading_in(pose, Turn{})
               : Point(reading_in(pose, Turn{}).cwiseProduct(Point(1, 1, 0.01))));
  ASSERT_EQ(h.procedure.found()->verdict, Verdict::usable) << h.procedure.found()->why.front();
  h.press("accel_stop");
  EXPECT_FALSE(h.procedure.found());
  EXPECT_EQ(h.procedure.card(h.scene()).todo.find("Kept"), std::string::npos);
  EXPECT_EQ(h.rig.sensing.accelerometer->offset_x, 0.3) << "as it was before";
}

TEST(CompassProcedure, ASittingThatFailedProvesNothingThatWasKeptBefore) {
  Held<CompassProcedure> h;
  h.rig.sensing.compass.emplace().offset_x = 5;
  EXPECT_TRUE(h.procedure.card(h.scene()).action("record_compass"));
  h.press("compass_begin");
  for (int i = 0; i < 900; ++i, h.t += 0.01)
    h.tell(
        MotionHeard{{with_field(sample(h.t, {0, 0, -9.8}, {0, 0, 60}),
                                Point(20 * std::cos(i * 0.05), -20 * std::sin(i * 0.05), 43) + h.hands.vector(0.3))}});
  h.press("compass_enough");
  ASSERT_EQ(h.procedure.found()->verdict, Verdict::repeat);
  EXPECT_FALSE(h.procedure.card(h.scene()).action("record_compass"));
  EXPECT_EQ(h.rig.sensing.compass->offset_x, 5);
}

TEST(AccelerometerProcedure, TheSamePoseTwiceCountsOnce) {
  Held<AccelerometerProcedure> h;
  h.press("accel_begin");
  h.hold(Pose::level);
  h.hold(Pose::level);
  EXPECT_EQ(h.procedure.poses().size(), 1u);
  h.hold(Pose::nose_up);
  EXPECT_EQ(h.procedure.poses().size(), 2u);
}

TEST(CompassProcedure, ItEndsByItselfWhenEnoughWasTurnedThrough) {
  Held<CompassProcedure> h;
  h.press("compass_begin");
  const Compass compass = Compass::random(h.hands);
  int n = 0;
  for (; h.procedure.running() && n < 4000; ++n, h.t += 0.01)
    h.tell(MotionHeard{{with_field(sample(h.t, {0, 0, -9.8}, {0, 0, 60}), compass.turned(1, h.hands).readings.at(0))}});
  EXPECT_LT(n, 1500);
  ASSERT_TRUE(h.rig.sensing.compass);
  EXPECT_NEAR(h.rig.sensing.compass->offset_x, compass.hard.x(), 0.5);
  // One plane only never ends by itself, and is judged when asked.
  Held<CompassProcedure> flat;
  flat.press("compass_begin");
  for (int i = 0; i < 3000; ++i, flat.t += 0.01) {
    const double turn = i * 0.02;
    flat.tell(MotionHeard{{with_field(sample(flat.t, {0, 0, -9.8}, {0, 0, 60}),
                                      Point(20 * std::cos(turn), -20 * std::sin(turn), 43) + flat.hands.vector(0.3))}});
  }
  EXPECT_TRUE(flat.procedure.running());
  flat.press("compass_enough");
  EXPECT_EQ(flat.procedure.found()->verdict, Verdict::repeat);
  EXPECT_FALSE(flat.rig.sensing.compass) << "nothing is kept that is not worth it";
}

}  // namespace
}  // namespace rigging
