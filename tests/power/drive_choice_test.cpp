#include "power/drive_choice.h"

#include <gtest/gtest.h>

#include "airframe/proportions.h"
#include "begin/begin.h"
#include "bench_rig.h"
#include "power/power.h"

namespace rigging {
namespace {

Airframe of(AirframeKind kind, double span_m, double kg) {
  Airframe a = usual_airframe(kind, span_m);
  a.mass_kg = kg;
  return a;
}

// From the second side: what is proposed by itself is asked of the report of the whole rig.
TEST(DriveChoice, TheReportOfTheRigSaysTheSame) {
  for (const auto& [kind, span, kg] : {std::tuple{AirframeKind::flying_wing, 1.2, 1.1},
                                       {AirframeKind::motor_glider, 1.5, 0.9},
                                       {AirframeKind::flying_wing, 0.7, 0.3},
                                       {AirframeKind::twin_differential, 1.6, 1.8},
                                       {AirframeKind::v_tail, 2.4, 3.6}}) {
    const Airframe a = of(kind, span, kg);
    const auto choices = suggest_drives(a, shipped());
    ASSERT_FALSE(choices.empty()) << span;
    for (const DriveChoice& c : choices) {
      EXPECT_TRUE(c.wrong.empty());
      EXPECT_GE(c.thrust_to_weight, 0.85 * usual_thrust_to_weight(kind));
      NewAircraft b;
      b.kind = kind, b.span_m = span, b.mass_kg = kg, b.drive = c.kinds;
      b.receiver = usual_receiver(shipped(), b.controller);
      const auto rig = begin_rig(shipped(), b);
      ASSERT_TRUE(rig);
      const PowerReport r = analyze_power(rig->rig, shipped());
      ASSERT_TRUE(r.drive);
      // Leads have their own resistance in the report.
      EXPECT_NEAR(r.drive->thrust.value, c.thrust_n, 0.12 * c.thrust_n) << c.words;
      EXPECT_NEAR(r.drive->full_current.value, c.full_a, 0.12 * c.full_a) << c.words;
      EXPECT_NEAR(r.drive->cruise_current.value, c.cruise_a, 0.05 * c.cruise_a + 0.1) << c.words;
      ASSERT_TRUE(r.drive->thrust_to_weight);
      EXPECT_NEAR(r.drive->thrust_to_weight->value, c.thrust_to_weight, 0.12 * c.thrust_to_weight);
    }
  }
}

TEST(DriveChoice, WhatIsChosenStays) {
  const Airframe a = of(AirframeKind::two_ailerons, 1.4, 1.2);
  DriveKinds mine;
  mine.battery = "battery_3s_2200";
  mine.propeller = "propeller_9x6";
  const auto choices = suggest_drives(a, shipped(), mine);
  ASSERT_FALSE(choices.empty());
  for (const DriveChoice& c : choices) {
    EXPECT_EQ(c.kinds.battery, mine.battery);
    EXPECT_EQ(c.kinds.propeller, mine.propeller);
  }
}

TEST(DriveChoice, WhatDoesNotGoTogetherIsSaid) {
  const Airframe a = of(AirframeKind::flying_wing, 0.7, 0.3);
  const auto says = [&](const DriveKinds& kinds, const char* words) {
    const DriveChoice c = judge_drive(a, shipped(), kinds);
    return std::any_of(c.wrong.begin(), c.wrong.end(),
                       [&](const std::string& w) { return w.find(words) != std::string::npos; });
  };
  EXPECT_TRUE(says({"motor_1806", "propeller_9x6", "battery_3s_1300", "esc_20_switching"}, "the motor bears"));
  EXPECT_TRUE(says({"motor_3520", "propeller_13x8", "battery_2s_450", "esc_60_switching"}, "the battery gives"));
  EXPECT_TRUE(says({"motor_2212", "propeller_9x6", "battery_3s_2200", "esc_10_linear"}, "the speed controller bears"));
  EXPECT_TRUE(says({"motor_3520", "propeller_11x7", "battery_6s_5000", "esc_20_linear"}, "cells"));
  EXPECT_TRUE(says({"motor_3520", "propeller_11x7", "battery_6s_5000", "esc_60_switching"}, "half of the flying mass"));
  EXPECT_TRUE(says({"", "propeller_9x6", "battery_3s_2200", ""}, "no motor"));
  Airframe unweighed = a;
  unweighed.mass_kg.reset();
  EXPECT_TRUE(suggest_drives(unweighed, shipped()).empty());
  EXPECT_FALSE(judge_drive(unweighed, shipped(), {"motor_2212", "propeller_9x6", "battery_3s_2200", ""}).wrong.empty());
  EXPECT_TRUE(suggest_drives(of(AirframeKind::towed_glider, 2, 1.5), shipped()).empty());
}

}  // namespace
}  // namespace rigging
