#include "flight/dynamics.h"

#include <gtest/gtest.h>

#include <Eigen/Eigenvalues>
#include <cmath>

#include "airframe/kinds.h"
#include "airframe/proportions.h"
#include "base/angle.h"
#include "bench_rig.h"
#include "earth/gravity.h"
#include "flight/axis_plant.h"
#include "flight/wind.h"
#include "review/review.h"

namespace rigging {
namespace {

FlightModel model_of(const char* name) {
  const Rig rig = demo(name);
  const Review r = review(rig, shipped());
  const auto a = aeroplane_of(rig, shipped(), r.reports.airframe(), r.reports.fit().balance);
  EXPECT_TRUE(a);
  return {*a, drag_of(rig.airframe, a->cruise_m_s), {0.6 * a->mass_kg * standard_gravity, 2.2 * a->cruise_m_s}};
}

TEST(FlightModel, FliesLevelAtCruiseWithSurfacesNeutral) {
  for (const char* name : {"hedgerow", "bramble", "heath"}) {
    const FlightModel f = model_of(name);
    ASSERT_GT(f.cruise_throttle(), 0.05);
    ASSERT_LT(f.cruise_throttle(), 1);
    Motion m = Motion::straight(f.aeroplane().cruise_m_s, 100);
    for (int i = 0; i < 10000; ++i) f.step(m, {}, f.cruise_throttle(), {}, 1e-3);
    EXPECT_NEAR(m.height(), 100, 0.5) << name;
    EXPECT_NEAR(f.incidence(m, {}).airspeed, f.aeroplane().cruise_m_s, 0.05);
    EXPECT_NEAR(m.nose_up(), 0, 0.2 * rad);
    EXPECT_EQ(m.bank(), 0) << "nothing pulls to a side";
    EXPECT_EQ(m.east, 0);
  }
}

TEST(FlightModel, WithoutAirEnergyAndTurningStay) {
  Aeroplane a = model_of("hedgerow").aeroplane();
  a.wing_area_m2 = 1e-12;  // no air forces worth the name
  const FlightModel f(a, {}, {0, 20});
  Motion m = Motion::straight(15, 100, 0.4, 0.3, 1);
  m.p = 3, m.q = -2, m.r = 1.5;
  const double before = f.energy(m);
  for (int i = 0; i < 2000; ++i) f.step(m, {}, 0, {}, 1e-3);
  EXPECT_NEAR(f.energy(m) / before, 1, 1e-7);
  EXPECT_NEAR(m.q0 * m.q0 + m.q1 * m.q1 + m.q2 * m.q2 + m.q3 * m.q3, 1, 1e-9);
  // Thrown without air it falls as a stone.
  const double climbed = -15 * std::sin(-0.3) * 2 - standard_gravity * 2;
  EXPECT_NEAR(m.height(), 100 + climbed, 1e-3);
}

TEST(FlightModel, RollsAndNodsAsTheLinearAxesSay) {
  const Rig rig = demo("hedgerow");
  const Review r = review(rig, shipped());
  const FlightModel f = model_of("hedgerow");
  const double v = f.aeroplane().cruise_m_s;
  const AxisControl roll = axis_controls(f.aeroplane(), r.reports.surfaces())[0];
  const RatePlant p = plant_of(f.aeroplane(), roll, Axis::roll, v);
  Motion m = Motion::straight(v, 100);
  const double deflected = 3 * rad;
  for (int i = 1; i <= 150; ++i) {
    f.step(m, {.roll = roll.effect * deflected}, f.cruise_throttle(), {}, 1e-3);
    const double t = i * 1e-3, expected = deflected * p.b0 / p.a0 * (1 - std::exp(-p.a0 * t));
    ASSERT_NEAR(m.p, expected, 0.03 * deflected * p.b0 / p.a0) << t;
  }
  const AxisControl pitch = axis_controls(f.aeroplane(), r.reports.surfaces())[1];
  const RatePlant s = plant_of(f.aeroplane(), pitch, Axis::pitch, v);
  m = Motion::straight(v, 100);
  double rate = 0, hidden = 0;
  const double step = 1e-3, elevator = 1 * rad;
  for (int i = 1; i <= 400; ++i) {
    f.step(m, {.lift = pitch.lift * elevator, .pitch = pitch.effect * elevator}, f.cruise_throttle(), {}, step);
    hidden += step * (s.b0 * elevator - s.a0 * rate);
    rate += step * (hidden - s.a1 * rate + s.b1 * elevator);
    ASSERT_NEAR(m.q, rate, 0.2 * s.b0 / s.a0 * elevator + 0.004) << i;
  }
}

TEST(FlightModel, RudderRollsByTheDihedralAsTheLinearAxisSays) {
  Rig rig = fresh_rig("A", AirframeKind::rudder_only, "pc_mini");
  rig.airframe.mass_kg = 0.9;
  const Review r = review(rig, shipped());
  const auto a = aeroplane_of(rig, shipped(), r.reports.airframe(), r.reports.fit().balance);
  ASSERT_TRUE(a);
  const AxisControl roll = axis_controls(*a, r.reports.surfaces())[0];
  ASSERT_TRUE(roll.roll_by_rudder);
  EXPECT_LT(roll.effect, 0) << "the rudder stands above the balance point: by itself it rolls the wrong way";
  const FlightModel f(*a, drag_of(rig.airframe, a->cruise_m_s), {5, 2.2 * a->cruise_m_s});
  for (const double hz : {0.7, 1.5, 3.0}) {
    Loop l;
    l.plant = plant_of(*a, roll, Axis::roll, a->cruise_m_s);
    const Response expected = response_at(l, 2 * pi * hz);
    Motion m = Motion::straight(a->cruise_m_s, 100);
    double in_phase = 0, after = 0, deflected = 1 * rad;
    const double period_s = 1 / hz, step = period_s / 1000;
    for (int i = 0; i < 6000; ++i) {
      const double at = 2 * pi * i / 1000;
      const double angle = deflected * std::sin(at);
      if (i >= 3000) in_phase += m.p * std::sin(at) / 1500, after += m.p * std::cos(at) / 1500;
      f.step(m, {.roll = roll.effect * angle, .yaw = roll.turn * angle}, f.cruise_throttle(), {}, step);
    }
    EXPECT_NEAR(std::hypot(in_phase, after) / deflected / expected.size, 1, 0.1) << hz;
    EXPECT_NEAR(std::remainder(std::atan2(after, in_phase) - expected.phase_rad, 2 * pi) / rad, 0, 6) << hz;
  }
}

/// Roots of sideslip, roll, yaw and bank about level cruise, by moving each a little.
Eigen::VectorXcd sideways_roots(const FlightModel& f) {
  const double v = f.aeroplane().cruise_m_s, little = 1e-4;
  const auto change = [&](int which, double by) -> Eigen::Vector4d {
    Motion m = Motion::straight(v, 100, which == 3 ? by : 0);
    if (which == 0) m.v = v * by;
    if (which == 1) m.p = by;
    if (which == 2) m.r = by;
    const Motion c = f.rates(m, {}, f.cruise_throttle(), {});
    return {c.v / v, c.p, c.r, m.p};
  };
  Eigen::Matrix4d matrix;
  for (int k = 0; k < 4; ++k) matrix.col(k) = (change(k, little) - change(k, -little)) / (2 * little);
  return matrix.eigenvalues();
}

// The linear equations of sideways motion in the axes of the drawing, with the whole inertia as it lies there and the
// nose up at cruise (Etkin, Dynamics of Flight, ch. 4), against the model, which works in the axes of the flight.
TEST(FlightModel, SidewaysMotionIsThatOfBodyAxes) {
  for (const auto& [kind, word] : Names<AirframeKind>::list)
    for (const double span : {0.6, 1.3, 2.6}) {
      Rig rig = fresh_rig("A", kind, "full_controller");
      rig.airframe = usual_airframe(kind, span);
      const Review r = review(rig, shipped());
      const auto a = aeroplane_of(rig, shipped(), r.reports.airframe(), r.reports.fit().balance);
      ASSERT_TRUE(a) << word;
      const FlightModel f(*a, drag_of(rig.airframe, a->cruise_m_s), {0.6 * a->mass_kg * standard_gravity, 40});
      const double v = a->cruise_m_s, q = 1.225 / 2 * v * v, S = a->wing_area_m2, b = a->span_m,
                   up = a->trim_alpha.value;
      const double lift = a->mass_kg * standard_gravity / (q * S);
      const Stability& s = a->stability;
      // Moments by (sideslip, roll rate, yaw rate) of the flight, and both turned to the drawing.
      Eigen::Matrix<double, 2, 3> flight;
      flight << s.roll_beta.value + lift * s.roll_beta_per_lift.value, s.roll_p.value,
          s.roll_r.value + lift * s.roll_r_per_lift.value, s.yaw_beta.value,
          s.yaw_p.value + lift * s.yaw_p_per_lift.value, s.yaw_r.value;
      Eigen::Matrix2d turn;  // from the drawing to the flight
      turn << std::cos(up), std::sin(up), -std::sin(up), std::cos(up);
      Eigen::Matrix3d motion = Eigen::Matrix3d::Identity();
      motion.bottomRightCorner<2, 2>() = turn;
      const Eigen::Matrix<double, 2, 3> drawn = turn.transpose() * flight * motion;
      Eigen::Matrix2d inertia;
      inertia << a->inertia.roll.value, -a->inertia.xz, -a->inertia.xz, a->inertia.yaw.value;
      const Eigen::RowVector3d aside = Eigen::RowVector3d(s.side_beta.value, s.side_p.value, s.side_r.value) * motion;
      const double rate = b / (2 * v);
      Eigen::Matrix4d m = Eigen::Matrix4d::Zero();
      for (int k = 0; k < 3; ++k) {
        m(0, k) = q * S / (a->mass_kg * v) * aside(k) * (k == 0 ? 1 : rate);
        m.block<2, 1>(1, k) = q * S * b * inertia.inverse() * drawn.col(k) * (k == 0 ? 1 : rate);
      }
      m(0, 1) += std::sin(up), m(0, 2) -= std::cos(up), m(0, 3) = standard_gravity / v;
      // Bank about the flight: the attitude about the drawing's axes, weighed together.
      m(3, 1) = std::cos(up), m(3, 2) = std::sin(up);
      const auto sorted = [](Eigen::VectorXcd roots) {
        std::sort(roots.begin(), roots.end(), [](auto x, auto y) {
          return std::abs(x.real() - y.real()) > 1e-6 ? x.real() < y.real() : x.imag() < y.imag();
        });
        return roots;
      };
      const Eigen::VectorXcd mine = sorted(sideways_roots(f)), theirs = sorted(m.eigenvalues());
      for (int k = 0; k < 4; ++k) {
        EXPECT_NEAR(mine[k].real(), theirs[k].real(), 0.01) << word << ' ' << span;
        EXPECT_NEAR(mine[k].imag(), theirs[k].imag(), 0.01) << word << ' ' << span;
        // What a builder begins with does not swing up by itself.
        if (std::abs(mine[k].imag()) > 0.5) EXPECT_LT(mine[k].real(), 0) << word << ' ' << span;
      }
    }
}

TEST(FlightModel, StallsPlausibly) {
  const FlightModel f = model_of("hedgerow");
  double most = 0, at = 0;
  for (double alpha = -0.4; alpha < 1.2; alpha += 0.005)
    if (f.lift_coefficient(alpha) > most) most = f.lift_coefficient(alpha), at = alpha;
  EXPECT_NEAR(most, 1.1, 0.15);
  EXPECT_LT(f.lift_coefficient(at + 0.15), 0.9 * most);
  EXPECT_GT(f.drag_coefficient(at + 0.3), 3 * f.drag_coefficient(0));
  for (double alpha = -pi; alpha < pi; alpha += 0.05) {
    EXPECT_TRUE(std::isfinite(f.lift_coefficient(alpha)) && std::isfinite(f.drag_coefficient(alpha)));
    EXPECT_GT(f.drag_coefficient(alpha), 0);
  }
  // Held back all the way it mushes or nods, and nothing runs off.
  Motion m = Motion::straight(f.aeroplane().cruise_m_s, 200);
  for (int i = 0; i < 15000; ++i) {
    f.step(m, {.pitch = 0.25}, 0.3, {}, 1e-3);
    ASSERT_TRUE(std::isfinite(m.u) && std::abs(m.q) < 30 && f.incidence(m, {}).airspeed < 60) << i;
  }
}

TEST(FlightModel, SteadyWindOnlyCarriesIt) {
  const FlightModel f = model_of("hedgerow");
  Air wind;
  wind.north = -4, wind.east = 3;
  Motion still = Motion::straight(f.aeroplane().cruise_m_s, 100), blown = still;
  // The same through the air: over the ground it begins with the wind's speed added.
  blown.u += wind.north, blown.v += wind.east;
  for (int i = 0; i < 5000; ++i) {
    f.step(still, {.roll = 0.002}, f.cruise_throttle(), {}, 1e-3);
    f.step(blown, {.roll = 0.002}, f.cruise_throttle(), wind, 1e-3);
  }
  EXPECT_NEAR(blown.north - still.north, -20, 1e-3);
  EXPECT_NEAR(blown.east - still.east, 15, 1e-3);
  EXPECT_NEAR(blown.bank(), still.bank(), 1e-6);
}

// MIL-F-8785C: low-altitude intensities and lengths, and the Dryden spectra σ²·(2L/πV)/(1 + (Lω/V)²) along and
// σ²·(L/πV)·(1 + 3(Lω/V)²)/(1 + (Lω/V)²)² vertically, one-sided in ω.
TEST(Turbulence, HasDrydensIntensitiesAndSpectra) {
  const double v = 14, h = 60, feet = h / 0.3048, bend = 0.177 + 0.000823 * feet;
  Turbulence t(3, 8, h, v, 1.5);
  EXPECT_NEAR(t.deviation_vertical(), 0.8, 1e-9);
  EXPECT_NEAR(t.deviation_along(), 0.8 / std::pow(bend, 0.4), 1e-9);
  EXPECT_NEAR(t.length_vertical_m(), h, 1e-9);
  EXPECT_NEAR(t.length_along_m(), feet / std::pow(bend, 1.2) * 0.3048, 1e-9);
  constexpr double dt = 0.01;
  constexpr int n = 1 << 20;
  std::vector<double> along, vertical;
  double su = 0, sw = 0;
  for (int i = 0; i < n; ++i) {
    Air air;
    t.step(dt, air);
    along.push_back(air.u), vertical.push_back(air.w);
    su += air.u * air.u, sw += air.w * air.w;
  }
  EXPECT_NEAR(std::sqrt(su / n) / t.deviation_along(), 1, 0.06);
  EXPECT_NEAR(std::sqrt(sw / n) / t.deviation_vertical(), 1, 0.06);
  // Power at a frequency, over many stretches (a plain periodogram, written out).
  const auto density = [&](const std::vector<double>& x, double rad_s) {
    constexpr int length = 8192;
    double sum = 0;
    int stretches = 0;
    for (int from = 0; from + length <= n; from += length, ++stretches) {
      double c = 0, s = 0, weight = 0;
      for (int i = 0; i < length; ++i) {
        const double hann = 0.5 - 0.5 * std::cos(2 * pi * i / length), angle = rad_s * i * dt;
        c += hann * x[static_cast<std::size_t>(from + i)] * std::cos(angle);
        s += hann * x[static_cast<std::size_t>(from + i)] * std::sin(angle);
        weight += hann * hann;
      }
      sum += (c * c + s * s) * dt / weight / pi;  // one-sided, for each rad/s
    }
    return sum / stretches;
  };
  for (const double w : {0.3, 1.0, 3.0, 10.0}) {
    const double lu = t.length_along_m() * w / v, lw = t.length_vertical_m() * w / v;
    const double u = t.deviation_along() * t.deviation_along() * 2 * t.length_along_m() / (pi * v) / (1 + lu * lu);
    const double z = t.deviation_vertical() * t.deviation_vertical() * t.length_vertical_m() / (pi * v) *
                     (1 + 3 * lw * lw) / ((1 + lw * lw) * (1 + lw * lw));
    EXPECT_NEAR(density(along, w) / u, 1, 0.35) << w;
    EXPECT_NEAR(density(vertical, w) / z, 1, 0.35) << w;
  }
}

}  // namespace
}  // namespace rigging
