#include "fit/fit.h"

#include <gtest/gtest.h>

#include <cmath>

#include "bench_rig.h"

namespace rigging {
namespace {

FitReport fit(const Rig& rig) {
  return analyze_fit(rig, shipped(), analyze_airframe(rig), analyze_power(rig, shipped()));
}

TEST(Fit, TheDemosBalanceWhereTheFirstFlightWantsIt) {
  for (const char* name : {"hedgerow", "heath", "delta"}) {
    const Balance b = fit(demo(name)).balance;
    EXPECT_TRUE(b.complete) << name;
    EXPECT_GE(b.balance_point.value, b.band_front_m) << name;
    EXPECT_LE(b.balance_point.value, b.band_back_m) << name;
    EXPECT_NEAR(b.balance_point.value, b.first_flight.value, 0.002) << name;
  }
}

TEST(Fit, TheAdviceIsRightWhenItIsFollowed) {
  for (const char* name : {"hedgerow", "heath", "delta"})
    for (const double shift : {-0.04, -0.015, 0.02, 0.05}) {
      Rig rig = demo(name);
      rig.fit.frame_at_m += shift;
      const Balance b = fit(rig).balance;
      if (!b.to_wanted.battery_to_m && !b.to_wanted.weight_kg) continue;
      if (b.to_wanted.battery_to_m) rig.place("battery")->x_m = -*b.to_wanted.battery_to_m;
      if (b.to_wanted.weight_kg) {
        // A weight as a part of its own mass.
        Part& p = add_part(rig, "weight", "buzzer");
        p.mass_kg = *b.to_wanted.weight_kg;
        put(rig, "weight", b.to_wanted.weight_at_m);
      }
      const Balance after = fit(rig).balance;
      EXPECT_NEAR(after.balance_point.value, after.wanted.value, 1e-6)
          << name << " " << shift << ": " << b.to_wanted.words;
    }
}

TEST(Fit, WhatHasNoPlaceOrMassIsSaid) {
  Rig rig = demo("hedgerow");
  std::erase_if(rig.places, [](const Place& p) { return p.part == "camera"; });
  const Balance b = fit(rig).balance;
  EXPECT_FALSE(b.complete);
  rig = demo("hedgerow");
  rig.fit.frame_mass_kg.reset();
  EXPECT_FALSE(fit(rig).balance.complete);
  EXPECT_FALSE(fit(Rig{}).balance.complete);
}

TEST(Fit, CompassNearAnEasyCurrentIsTurned) {
  Rig rig = demo("hedgerow");
  const FitReport good = fit(rig);
  ASSERT_EQ(good.compasses.size(), 1u);
  EXPECT_LT(good.compasses[0].error.value, wanted_compass_error_deg);
  // Earth's field at the given place and date, World Magnetic Model 2025 (checked on its own in the reference tests).
  EXPECT_NEAR(good.compasses[0].horizontal.value, 19.27, 0.05);
  put(rig, "gps", 0.31, 0.03, -0.02);
  const FitReport bad = fit(rig);
  EXPECT_GT(bad.compasses[0].error.value, 5);
  EXPECT_EQ(bad.compasses[0].paths.front().path.lead, "esc_battery");
  // Moved to the distance that is named, that lead alone is worth less than two degrees.
  const double keep = bad.compasses[0].paths.front().least_distance_m;
  put(rig, "gps", 0.31, keep + 0.03, 0);
  const FitReport moved = fit(rig);
  for (const CompassPath& p : moved.compasses[0].paths)
    if (p.path.lead == "esc_battery") EXPECT_LT(p.error_deg, 2.01);
  // Wires that run apart are far worse than a pair.
  Rig apart = demo("hedgerow");
  apart.lead("esc_battery")->apart = true;
  EXPECT_GT(fit(apart).compasses[0].error.value, 1.5 * good.compasses[0].error.value);
  // The cloud is highest at the lead.
  EXPECT_GT(error_at(good, {-0.31, 0.01, 0}, 19.27), error_at(good, {-0.31, 0.3, 0}, 19.27));
}

TEST(Fit, OverlapsAndWallsAreFound) {
  Rig rig = demo("hedgerow");
  EXPECT_TRUE(fit(rig).clashes.empty()) << fit(rig).clashes.front().words;
  put(rig, "receiver", 0.41, 0.0, 0.0);
  EXPECT_FALSE(fit(rig).clashes.empty());
  rig = demo("hedgerow");
  put(rig, "battery", 0.05);
  bool out = false;
  const FitReport clashing = fit(rig);
  for (const Clash& s : clashing.clashes) out = out || (s.part == "battery" && s.other.empty());
  EXPECT_TRUE(out);
  // The board turned sideways needs its length across the bay.
  rig = demo("hedgerow");
  rig.fit.bay->width_m = 0.05;
  rig.place("controller")->turn = *turn_from_name("arrow_right_top_up");
  bool wall = false;
  const FitReport turned = fit(rig);
  for (const Clash& s : turned.clashes) wall = wall || s.part == "controller";
  EXPECT_TRUE(wall);
}

TEST(Fit, TheBoardsPositionIsComparedWithWhatItIsTold) {
  Rig rig = demo("hedgerow");
  EXPECT_TRUE(fit(rig).board.told);
  rig.place("controller")->turn = *turn_from_name("arrow_right_top_up");
  EXPECT_FALSE(fit(rig).board.told);
  EXPECT_TRUE(fit(rig).board.can_be_told);
  rig.sensing.board = rig.place("controller")->turn;
  EXPECT_TRUE(fit(rig).board.told);
  rig.controller.kind = "fixed_mini";
  EXPECT_FALSE(fit(rig).board.can_be_told);
  rig.place("controller")->yaw_deg = 4;
  EXPECT_TRUE(fit(rig).board.small_matters);
}

TEST(Fit, LeadsToGetAreLongEnough) {
  const Rig rig = demo("hedgerow");
  const FitReport r = fit(rig);
  bool scales = false, servo = false;
  for (const ToGet& t : r.to_get) {
    scales = scales || t.what.find("Scales") != std::string::npos;
    servo = servo || (t.why.find("flaperon") != std::string::npos && t.what.find("mm") != std::string::npos);
    EXPECT_GE(t.count, 1);
  }
  EXPECT_TRUE(scales && servo);
}

TEST(Fit, SidewaysWeightNamesTheWing) {
  Rig rig = demo("heath");
  put(rig, "battery", 0.10, 0.05);
  const FitReport r = fit(rig);
  EXPECT_GT(r.balance.lateral.value, 0.002);
  EXPECT_NE(r.balance.lateral_advice.find("left wing tip"), std::string::npos) << r.balance.lateral_advice;
}

}  // namespace
}  // namespace rigging
