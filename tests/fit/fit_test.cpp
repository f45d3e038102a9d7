#include "fit/fit.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "airframe/kinds.h"
#include "bench_rig.h"
#include "review/review.h"

namespace rigging {
namespace {

FitReport fit(const Rig& rig) {
  return analyze_fit(rig, shipped(), analyze_airframe(rig), analyze_power(rig, shipped()));
}

TEST(Fit, TheDemosBalanceWhereTheFirstFlightWantsIt) {
  for (const char* name : {"hedgerow", "heath", "delta", "bramble"}) {
    const Balance b = fit(demo(name)).balance;
    EXPECT_TRUE(b.complete) << name;
    EXPECT_GE(b.balance_point.value, b.band_front_m) << name;
    EXPECT_LE(b.balance_point.value, b.band_back_m) << name;
    EXPECT_NEAR(b.balance_point.value, b.first_flight.value, 0.002) << name;
  }
}

TEST(Fit, TheAdviceIsRightWhenItIsFollowed) {
  for (const char* name : {"hedgerow", "heath", "delta", "bramble"})
    for (const double shift : {-0.04, -0.015, 0.02, 0.05}) {
      Rig rig = demo(name);
      *rig.fit.frame_at_m += shift;
      const Balance b = fit(rig).balance;
      if (!b.to_wanted.battery_to_m && !b.to_wanted.weight_kg) continue;
      if (b.to_wanted.battery_to_m) rig.mounting("battery")->x_m = -*b.to_wanted.battery_to_m;
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

TEST(Fit, WithoutTheFrameNothingIsSaidOfTheBalance) {
  for (const bool mass : {true, false}) {
    Rig rig = demo("hedgerow");
    rig.mounting("battery")->y_m = 0.3;  // which would be told to be put right
    mass ? rig.fit.frame_mass_kg.reset() : rig.fit.frame_at_m.reset();
    const FitReport r = fit(rig);
    EXPECT_FALSE(r.balance.complete);
    for (const Figure& f : r.figures()) EXPECT_EQ(f.name.find("Balance point behind"), std::string::npos) << f.name;
    for (const BalanceAdvice& a : {r.balance.to_wanted, r.balance.to_first_flight}) {
      EXPECT_FALSE(a.battery_to_m || a.weight_kg);
      EXPECT_NE(a.words.find("Not known yet"), std::string::npos) << a.words;
    }
    EXPECT_TRUE(r.balance.lateral_advice.empty()) << r.balance.lateral_advice;
    EXPECT_EQ(r.balance.likely_m(), r.balance.wanted.value);
  }
}

// Common practice: on the fixed class only the arrow counts; an inline unit half round is cured by its switches, across
// only by exchanged leads; the gesture board is told on its computer.
TEST(Fit, LegalMountingsAreNotGrounded) {
  const auto codes_of = [](const char* kind, const char* turn, auto&& change) {
    Rig rig = fresh_rig("mine", AirframeKind::two_ailerons, kind);
    put(rig, "controller", 0.3);
    rig.mounting("controller")->turn = TurnName(*turn_from_name(turn));
    change(rig);
    std::set<std::string> codes;
    const Review r = review(rig, shipped());
    for (const Snag& s : r.snags)
      if (s.code == "FIT-11" || s.code == "FIT-12" || s.code == "SENSES-01") codes.insert(s.code);
    return codes;
  };
  using Codes = std::set<std::string>;
  const auto as_is = [](Rig&) {};
  const auto told = [](Rig& r) { r.sensing.board = r.mounting("controller")->turn; };
  EXPECT_EQ(codes_of("fixed_mini", "arrow_nose_top_down", as_is), Codes{});
  EXPECT_EQ(codes_of("fixed_mini", "arrow_nose_top_down", told), Codes{});
  EXPECT_EQ(codes_of("fixed_mini", "arrow_tail_top_up", as_is), Codes{"FIT-11"});
  EXPECT_EQ(codes_of("inline_dial", "arrow_right_top_up", as_is), Codes{"FIT-11"});
  EXPECT_EQ(codes_of("inline_dial", "arrow_tail_top_up", as_is), Codes{"FIT-12"});
  EXPECT_EQ(codes_of("gesture_board", "arrow_right_top_up", as_is), Codes{"FIT-12"});
  EXPECT_EQ(codes_of("gesture_board", "arrow_right_top_up", told), Codes{});
  EXPECT_EQ(codes_of("screen_keys", "arrow_right_top_up", as_is), Codes{"FIT-11"});
}

// Common practice: on tractors and twins the edge with battery and motor leads decides which way the board may sit; a
// small board gives up isolation, spare and warm sensors, which a large model misses.
TEST(Fit, WhatASmallSelfFedBoardAsksFor) {
  const auto codes_of = [](const char* kind, const char* turn, double battery_behind_m, double span_m) {
    Rig rig = fresh_rig("mine", AirframeKind::two_ailerons, kind);
    rig.airframe.span_m = span_m;
    add_part(rig, "battery", "battery_3s_1300");
    put(rig, "controller", 0.3);
    put(rig, "battery", battery_behind_m);
    rig.mounting("controller")->turn = TurnName(*turn_from_name(turn));
    rig.sensing.board = rig.mounting("controller")->turn;
    std::set<std::string> codes;
    const Review r = review(rig, shipped());
    for (const Snag& s : r.snags)
      if (s.code == "FIT-23" || s.code == "SENSES-03") codes.insert(s.code);
    return codes;
  };
  using Codes = std::set<std::string>;
  // Its edge looks to the tail while the arrow looks to the nose.
  EXPECT_EQ(codes_of("small_controller", "none", 0.1, 1.0), Codes{"FIT-23"}) << "the battery lies ahead of it";
  EXPECT_EQ(codes_of("small_controller", "arrow_tail_top_up", 0.1, 1.0), Codes{});
  EXPECT_EQ(codes_of("small_controller", "none", 0.5, 1.0), Codes{});
  EXPECT_EQ(codes_of("small_controller", "arrow_right_top_up", 0.1, 1.0), Codes{}) << "out to the side";
  EXPECT_EQ(codes_of("full_controller", "none", 0.1, 1.0), Codes{}) << "no battery at this board";
  EXPECT_EQ(codes_of("small_controller", "none", 0.5, 3.0), Codes{"SENSES-03"});
  EXPECT_EQ(codes_of("large_controller", "none", 0.5, 3.0), Codes{});
}

// By hand: 0.5 m of two wires of 12 AWG (3.31 mm²) are 8960 · 3.31e-6 · 0.5 · 2 = 29.7 g of copper, half as much again
// of insulation, and 0.4 g: 44.9 g in the middle between its ends.
TEST(Fit, LeadsWeigh) {
  Rig rig = demo("hedgerow");
  rig.leads = {};
  Lead& l = add_lead(rig, "long", "battery", "main", "esc", "battery", LeadKind::power);
  l.length_m = 0.5;
  l.gauge_awg = 12;
  const Balance b = fit(rig).balance;
  ASSERT_EQ(b.items.back().name, "leads");
  EXPECT_NEAR(b.items.back().mass_kg, 0.0449, 2e-4);
  EXPECT_NEAR(b.items.back().at.x(), (rig.mounting("battery")->x_m + rig.mounting("esc")->x_m) / 2, 1e-9);
  EXPECT_FALSE(b.items.back().weighed);
}

// By hand: a motor of 100 g is a dipole of 0.05 A·m²; at 0.2 m on its axis 2 · 1e-7 · 0.05 / 0.008 T = 1.25 µT.
TEST(Fit, MagnetsAndPhasesReachTheCompass) {
  Rig rig = demo("hedgerow");
  for (Part& p : rig.parts)
    if (p.id == "motor") p.mass_kg = 0.1;
  put(rig, "gps", -rig.mounting("motor")->x_m, 0.2, 0);
  const FitReport r = fit(rig);
  ASSERT_EQ(r.compasses.size(), 1u);
  const auto magnets = std::find_if(r.compasses[0].paths.begin(), r.compasses[0].paths.end(),
                                    [](const CompassPath& p) { return p.path.lead.empty(); });
  ASSERT_NE(magnets, r.compasses[0].paths.end());
  EXPECT_NEAR(magnets->field_ut, 1.25, 0.02);
  EXPECT_TRUE(std::any_of(r.compasses[0].paths.begin(), r.compasses[0].paths.end(),
                          [](const CompassPath& p) { return p.path.lead == "esc_motor"; }));
}

TEST(Fit, WhatHasNoPlaceOrMassIsSaid) {
  Rig rig = demo("hedgerow");
  std::erase_if(rig.mountings, [](const Mounting& p) { return p.part == "camera"; });
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
  rig.mounting("controller")->turn = *turn_from_name("arrow_right_top_up");
  bool wall = false;
  const FitReport turned = fit(rig);
  for (const Clash& s : turned.clashes) wall = wall || s.part == "controller";
  EXPECT_TRUE(wall);
}

TEST(Fit, TheBoardsPositionIsComparedWithWhatItIsTold) {
  Rig rig = demo("hedgerow");
  EXPECT_TRUE(fit(rig).board.told);
  rig.mounting("controller")->turn = *turn_from_name("arrow_right_top_up");
  EXPECT_FALSE(fit(rig).board.told);
  EXPECT_TRUE(fit(rig).board.can_be_told);
  rig.sensing.board = rig.mounting("controller")->turn;
  EXPECT_TRUE(fit(rig).board.told);
  rig.controller.kind = "fixed_mini";
  EXPECT_FALSE(fit(rig).board.can_be_told);
  rig.mounting("controller")->yaw_deg = 4;
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
