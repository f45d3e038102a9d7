#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "base/json.h"
#include "places.h"
#include "power/drive.h"

// The drive train against what does not come from it: working points by SciPy from stated formulas, and the propeller's
// coefficients by blade-element momentum theory.
namespace rigging {
namespace {

// Source: tests/reference/data/drive_train.py (SciPy 1.10, brentq on the motor's and the propeller's equations).
TEST(DriveTrain, WorkingPointsAgreeWithSciPy) {
  const Json rows = *read_json_file(in_source("/tests/reference/data/drive_train.json"));
  ASSERT_EQ(rows.size(), 4u);
  for (const Json& r : rows) {
    const MotorFigures m{r["rpm_per_v"], r["ohm"], r["no_load_a"], 100, {}};
    PropellerFigures p;
    p.diameter_m = r["diameter_m"];
    p.pitch_m = r["pitch_m"];
    const Motor still = static_point(m, p, r["volts"], r["lead_ohm"]);
    EXPECT_NEAR(still.rev_s / r["rev_s"].get<double>(), 1, 1e-6);
    EXPECT_NEAR(still.amps / r["amps"].get<double>(), 1, 1e-5);
    EXPECT_NEAR(still.thrust_n / r["thrust_n"].get<double>(), 1, 1e-5);
    const auto flying = amps_in_flight(m, p, r["volts"], r["pull_n"], r["v_m_s"]);
    ASSERT_TRUE(flying);
    EXPECT_NEAR(*flying / r["flight_a"].get<double>(), 1, 1e-6);
  }
}

/// A blade of a model propeller as such blades are: chord by radius, flat underside (no lift at `zero_deg` below the
/// chord line), of constant geometric pitch.
struct Blade {
  double pitch_by_diameter = 0.6;
  double zero_deg = 3, least_drag = 0.018, wide = 1;
};

struct Coefficients {
  double thrust = 0, power = 0;
};

// Blade-element momentum theory with Prandtl's loss at the tip (Glauert 1935; Leishman, Principles of Helicopter
// Aerodynamics, 3.3), two blades, radius 1, one turn a second. Section figures for a Reynolds number of some 80 000 are
// from memory: slope 5.6, most lift 1.15, drag 0.018 + 0.02·(cl − 0.3)².
Coefficients of_blade(const Blade& blade, double advance) {
  constexpr double pi = std::numbers::pi, turn = 2 * pi, hub = 0.15;
  constexpr int rings = 60;
  const double speed = 2 * advance;
  double thrust = 0, torque = 0;
  for (int k = 0; k < rings; ++k) {
    const double dr = (1 - hub) / rings, x = hub + dr * (k + 0.5);
    const double at[] = {0.15, 0.3, 0.5, 0.7, 0.9, 1.0}, wide[] = {0.13, 0.17, 0.175, 0.15, 0.10, 0.05};
    const auto i = static_cast<std::size_t>(std::upper_bound(at, at + 5, x) - at);
    const double chord = blade.wide * (wide[i - 1] + (wide[i] - wide[i - 1]) * (x - at[i - 1]) / (at[i] - at[i - 1]));
    const double beta = std::atan(2 * blade.pitch_by_diameter / (turn * x));
    double pull = 0, drag = 0;
    const auto surplus = [&](double induced) {
      const double w2 = std::pow(speed + induced, 2) + std::pow(turn * x, 2);
      const double phi = std::atan2(speed + induced, turn * x);
      const double cl = std::clamp(5.6 * (beta - phi + blade.zero_deg * pi / 180), -0.6, 1.15);
      const double cd = blade.least_drag + 0.02 * std::pow(cl - 0.3, 2) + (cl >= 1.15 ? 0.05 : 0);
      pull = 0.5 * w2 * chord * 2 * (cl * std::cos(phi) - cd * std::sin(phi)) * dr;
      drag = 0.5 * w2 * chord * 2 * (cl * std::sin(phi) + cd * std::cos(phi)) * x * dr;
      const double tip = 2 / pi * std::acos(std::exp(-(1 - x) / (x * std::max(std::sin(phi), 1e-3))));
      return pull - 4 * pi * x * tip * (speed + induced) * induced * dr;
    };
    double low = speed == 0 ? 0 : -0.9 * speed, high = turn * x;
    for (int n = 0; n < 80; ++n) {
      const double middle = (low + high) / 2;
      (surplus(middle) > 0 ? low : high) = middle;
    }
    surplus((low + high) / 2);
    thrust += pull, torque += drag;
  }
  return {thrust / 16, turn * torque / 32};
}

TEST(Propeller, StaticCoefficientsAgreeWithBladeElementMomentumTheory) {
  for (const double p : {0.5, 0.6, 0.7, 0.8, 0.9}) {
    PropellerFigures figures;
    figures.diameter_m = 0.25;
    figures.pitch_m = 0.25 * p;
    const double ct = thrust_coefficient(figures), cp = power_coefficient(figures);
    const Coefficients usual = of_blade({p}, 0), slender = of_blade({p, 2, 0.022, 0.85}, 0),
                       broad = of_blade({p, 4, 0.015, 1.15}, 0);
    EXPECT_NEAR(ct / usual.thrust, 1, 0.2) << p;
    EXPECT_GT(ct, slender.thrust) << p;
    EXPECT_LT(ct, broad.thrust) << p;
    // The stated ±20 % meets what slender and broad blades take.
    EXPECT_LT(0.8 * cp, broad.power) << p;
    EXPECT_GT(1.2 * cp, slender.power) << p;
  }
}

// Thrust is gone where the blade screws itself along a little faster than its pitch.
TEST(Propeller, ThrustIsGoneALittleBeyondThePitch) {
  for (const double p : {0.5, 0.6, 0.7, 0.8, 0.9}) {
    double low = 0.01, high = 2;
    for (int i = 0; i < 40; ++i) {
      const double middle = (low + high) / 2;
      (of_blade({p}, middle).thrust > 0 ? low : high) = middle;
    }
    EXPECT_NEAR(low / p, 1.15, 0.08) << p << ": 1.15 times the pitch";
  }
}

}  // namespace
}  // namespace rigging
