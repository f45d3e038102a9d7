#include "senses/level.h"

#include <gtest/gtest.h>

#include <cmath>

#include "airframe/airframe.h"
#include "airframe/drag.h"
#include "base/angle.h"
#include "bench_rig.h"

namespace rigging {
namespace {

/// A plain trainer: 1.4 m, 0.2 m of chord, 1.2 kg.
Rig trainer() {
  Rig rig;
  rig.airframe.span_m = 1.4;
  rig.airframe.root_chord_m = rig.airframe.tip_chord_m = 0.2;
  rig.airframe.mass_kg = 1.2;
  rig.airframe.cruise_m_s = 13;
  rig.airframe.section = WingSection::symmetric;
  return rig;
}

LevelReport level_of(const Rig& rig, std::optional<double> balance_m = std::nullopt) {
  const AirframeReport r = analyze_airframe(rig);
  return analyze_level(rig.airframe, r, balance_m.value_or(r.surfaces[0].quarter_m));
}

// Source: Helmbold's formula for the lift slope of a straight wing (McCormick, Aerodynamics, Aeronautics and Flight
// Mechanics; formula from memory), and lift = weight. Balanced at a quarter of the chord a symmetric section needs
// nothing of the tail, so that the wing alone carries.
TEST(Level, AStraightSymmetricWingFliesAtTheAngleOfHelmbold) {
  const Rig rig = trainer();
  const double area = 1.4 * 0.2, ratio = 1.4 / 0.2, q = 1.225 / 2 * 13 * 13;
  const double lift = 1.2 * 9.80665 / (q * area);
  const double slope = 2 * pi * ratio / (2 + std::sqrt(ratio * ratio + 4));
  const LevelReport level = level_of(rig);
  ASSERT_TRUE(level.nose_up);
  EXPECT_NEAR(level.wing_lift->value, lift, 0.02 * lift);
  EXPECT_NEAR(level.nose_up->value, lift / slope / rad, 0.12 * lift / slope / rad);
  EXPECT_LT(*level.nose_up->least, level.nose_up->value);
  EXPECT_GT(*level.nose_up->most, level.nose_up->value);
}

TEST(Level, CamberIncidenceAndSpeedShiftItAsTheyShould) {
  Rig rig = trainer();
  const double plain = level_of(rig).nose_up->value;
  rig.airframe.incidence_deg = 2;
  EXPECT_NEAR(level_of(rig).nose_up->value, plain - 2, 0.05);  // the shaft's tilt goes with it
  rig.airframe.incidence_deg = 0;
  // Source: Glauert, thin aerofoil theory: a parabolic camber line of 3.5 % lifts nothing at −2·0.035 rad = −4.0°; its
  // moment, −π·0.035, has to be carried by the tail, which loads the wing a little more.
  rig.airframe.section = WingSection::flat_bottom;
  const LevelReport cambered = level_of(rig);
  EXPECT_NEAR(cambered.nose_up->value, plain - 4.01, 0.9);
  EXPECT_GT(cambered.wing_lift->value, level_of(trainer()).wing_lift->value);
  rig = trainer();
  rig.airframe.cruise_m_s = 26;  // twice as fast: a quarter of the angle
  EXPECT_NEAR(level_of(rig).nose_up->value, plain / 4, 0.1);
  // Balanced further back the tail carries some of the weight.
  EXPECT_LT(level_of(trainer(), level_of(trainer()).nose_up ? 0.3 + 0.05 + 0.04 : 0).wing_lift->value,
            level_of(trainer()).wing_lift->value);
}

TEST(Level, WhatIsNeededFirstIsSaid) {
  Rig rig = trainer();
  rig.airframe.mass_kg.reset();
  EXPECT_FALSE(level_of(rig).nose_up);
  EXPECT_NE(level_of(rig).first.find("mass"), std::string::npos);
  rig = trainer();
  rig.airframe.cruise_m_s = 4;
  EXPECT_FALSE(level_of(rig).nose_up);
  EXPECT_NE(level_of(rig).first.find("cannot carry"), std::string::npos);
}

TEST(Level, EveryDemoAndEveryKindHasAnAngleThatCanBeFlown) {
  for (const char* name : {"bramble", "delta", "heath", "hedgerow"}) {
    const LevelReport level = level_of(demo(name));
    ASSERT_TRUE(level.nose_up) << name << ": " << level.first;
    EXPECT_GT(level.nose_up->value, -5) << name;
    EXPECT_LT(level.nose_up->value, 15) << name;
  }
  for (const auto& [kind, word] : Names<AirframeKind>::list) {
    Rig rig = trainer();
    rig.airframe.kind = kind;
    const LevelReport level = level_of(rig);
    ASSERT_TRUE(level.nose_up) << word << ": " << level.first;
    EXPECT_LT(std::abs(level.nose_up->value), 20) << word;
  }
}

/// A point with mass, its nose held at an attitude and its throttle fixed: what self-level does with the sticks at
/// rest. Returns the climb, m/s, once it has settled. Nothing of level.cpp is in it.
double settled_climb(const Airframe& a, const AirframeReport& r, double attitude_off_rad, double power_w) {
  const double m = *a.mass_kg, area = r.wing_area.value, g = 9.80665;
  double v = *a.cruise_m_s, path = 0;
  const double level_alpha = 2 * m * g / (1.225 * v * v * area * r.lift_slope_per_rad);
  const Drag polar = drag_of(a, v);
  for (double t = 0; t < 120; t += 0.005) {
    const double alpha = level_alpha + attitude_off_rad - path;
    const double q = 1.225 / 2 * v * v, lift = q * area * r.lift_slope_per_rad * alpha;
    const double drag = q * polar.parasite_m2 + polar.induced_per_m2 * lift * lift / q;
    v += (power_w / v - drag - m * g * std::sin(path)) / m * 0.005;
    path += (lift - m * g * std::cos(path)) / (m * v) * 0.005;
  }
  return v * std::sin(path);
}

TEST(Level, AFlightWithTheNoseTooHighIsCorrectedByWhatItWasOff) {
  Rig rig = trainer();
  rig.airframe.cruise_m_s = 16;
  const AirframeReport r = analyze_airframe(rig);
  const Drag polar = drag_of(rig.airframe, 16);
  const double power = polar.at(16, 1.2, polar.parasite_m2) * 16;
  for (const double off_deg : {2.0, 1.0, -1.0, -2.0}) {
    const double climb = settled_climb(rig.airframe, r, off_deg * rad, power);
    EXPECT_EQ(climb > 0, off_deg > 0) << "the nose up makes it climb";
    const auto change = level_from_climb(rig.airframe, r, climb);
    ASSERT_TRUE(change);
    EXPECT_NEAR(change->deg, -off_deg, 0.3 * std::abs(off_deg)) << off_deg;
    EXPECT_LE(std::min(change->least, change->most), change->deg);
    EXPECT_GE(std::max(change->least, change->most), change->deg);
  }
  EXPECT_EQ(level_from_climb(rig.airframe, r, 0)->deg, 0);
  EXPECT_NE(level_from_climb(rig.airframe, r, 9)->why.find("throttle"), std::string::npos);
}

// Source: FAA-H-8083-25 (Pilot's Handbook): rate of turn ω = g·tan φ / V.
TEST(Level, ATurnIsABankAndTheRightOneIsTakenOff) {
  const Airframe a = trainer().airframe;
  const double turn = 9.80665 * std::tan(3 * rad) / 13 / rad;
  const auto right = level_from_turn(a, turn);
  ASSERT_TRUE(right);
  EXPECT_NEAR(right->deg, -3, 1e-6);
  EXPECT_NEAR(level_from_turn(a, -turn)->deg, 3, 1e-6);
  EXPECT_NE(right->why.find("right wing down"), std::string::npos);
  // Twelve degrees at 13 m/s are 9.2 a second, by hand; what turns faster is no matter of level.
  for (const double fast : {10.0, 20.0, 90.0, -90.0}) {
    const auto beyond = level_from_turn(a, fast);
    ASSERT_TRUE(beyond);
    EXPECT_EQ(beyond->deg, 0) << fast;
    EXPECT_NE(beyond->why.find("no board lies so far askew"), std::string::npos) << fast;
  }
  EXPECT_LT(level_from_turn(a, 9.0)->deg, 0);
}

}  // namespace
}  // namespace rigging
