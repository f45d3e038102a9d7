#include <gtest/gtest.h>

#include <Eigen/Dense>
#include <cmath>
#include <random>
#include "base/angle.h"

#include "airframe/airframe.h"
#include "airframe/kinds.h"
#include "catalogue/catalogue.h"
#include "places.h"
#include "surfaces/air_loads.h"
#include "surfaces/linkage.h"

namespace rigging {
namespace {

/// Freudenstein's equation (F. Freudenstein, "An analytical approach to the design of four-link mechanisms", 1954):
/// K1 cos θ4 − K2 cos θ2 + K3 = cos(θ2 − θ4), angles from the ground link. Both roots for θ4 by the half-angle
/// substitution.
std::array<double, 2> freudenstein(double a, double b, double c, double d, double theta2) {
  const double k1 = d / a, k2 = d / c, k3 = (a * a - b * b + c * c + d * d) / (2 * a * c);
  const double p = k1 - std::cos(theta2), q = -std::sin(theta2), r = k3 - k2 * std::cos(theta2);
  const double root = std::sqrt(q * q - (r - p) * (r + p));
  return {2 * std::atan2(-q + root, r - p), 2 * std::atan2(-q - root, r - p)};
}

Linkage random_linkage(std::mt19937& random) {
  const auto within = [&](double lo, double hi) { return std::uniform_real_distribution<double>(lo, hi)(random); };
  Linkage l;
  l.arm_m = within(0.006, 0.02);
  l.horn_m = within(0.008, 0.025);
  l.rod_m = within(0.04, 0.25);
  l.arm_deg = within(-20, 20);
  l.horn_deg = within(-20, 20);
  l.drop_m = within(-0.01, 0.01);
  l.push_lifts = random() % 2 == 0;
  l.crossed = random() % 4 == 0;
  return l;
}

TEST(Reference, FourBarAgreesWithFreudenstein) {
  std::mt19937 random(11);
  int compared = 0;
  for (int round = 0; round < 2000; ++round) {
    const Linkage l = random_linkage(random);
    const auto bar = FourBar::of(l);
    if (!bar) continue;
    const double d = std::hypot(bar->base_m(), l.drop_m), slope = std::atan2(-l.drop_m, bar->base_m());
    for (double arm = -60; arm <= 60; arm += 7.5) {
      const auto pose = bar->pose(arm);
      if (!pose) continue;
      // From "square to the chord" to "from the ground link".
      const double theta2 = (l.crossed ? -(pi / 2 - arm * rad) : pi / 2 - arm * rad) - slope;
      const double horn = l.horn_deg * rad + (l.push_lifts ? 1 : -1) * pose->up_deg * rad;
      const double theta4 = pi / 2 - horn - slope;
      double off = 10;
      for (const double root : freudenstein(l.arm_m, l.rod_m, l.horn_m, d, theta2))
        off = std::min(off, std::abs(std::remainder(root - theta4, 2 * pi)));
      // Where both roots meet (a dead centre) a root is only half as precise as its equation.
      const double limit = pose->rod_to_horn_deg < 1 ? 1e-6 : 1e-9;
      EXPECT_LT(off, limit) << "arm " << arm;
      ++compared;
      // The inverse, as far as it lies on the branch of the neutral.
      const auto back = bar->arm_for(pose->up_deg);
      ASSERT_TRUE(back);
      if (pose->rod_to_arm_deg > 5 && std::abs(*back - arm) > 1e-7)
        EXPECT_NEAR(bar->pose(*back)->up_deg, pose->up_deg, 1e-9) << "another arm, the same surface";
      // The ratio is the slope.
      const auto ahead = bar->pose(arm + 1e-5), behind = bar->pose(arm - 1e-5);
      if (ahead && behind && pose->rod_to_horn_deg > 10)
        EXPECT_NEAR(pose->ratio, (ahead->up_deg - behind->up_deg) / 2e-5, 1e-4 * std::max(1.0, std::abs(pose->ratio)));
    }
  }
  EXPECT_GT(compared, 20000);
}

// A parallelogram turns both ends alike (Grashof's special case): every angle of the arm is the angle of the surface.
TEST(Reference, AParallelogramTurnsAlike) {
  Linkage l;
  l.arm_m = l.horn_m = 0.015;
  l.rod_m = 0.1;
  const auto bar = FourBar::of(l);
  ASSERT_TRUE(bar);
  for (double arm = -80; arm <= 80; arm += 5) {
    EXPECT_NEAR(bar->pose(arm)->up_deg, arm, 1e-9);
    EXPECT_NEAR(bar->pose(arm)->ratio, 1, 1e-9);
  }
}

// Glauert's thin aerofoil values: effectiveness 0.6090 at a quarter (references), −π/2 when the whole section is the
// flap.
TEST(Reference, FlapTheory) {
  EXPECT_NEAR(flap_effectiveness(0.25), 0.6090, 5e-5);
  EXPECT_NEAR(flap_effectiveness(1), 1, 1e-12);
  EXPECT_NEAR(hinge_moment_slope(1), -pi / 2, 2e-4);
}

// The same hinge moment from a lattice of 600 vortices on the chord line (Weissinger: vortex at a quarter, wind at
// three quarters of each piece), which shares no formula with the integral.
TEST(Reference, HingeMomentAgainstAVortexLattice) {
  constexpr int n = 600;
  for (const double share : {0.2, 0.25, 0.4}) {
    Eigen::MatrixXd wash(n, n);
    Eigen::VectorXd slope(n);
    const double h = 1.0 / n;
    for (int i = 0; i < n; ++i) {
      const double at = (i + 0.75) * h;
      slope[i] = at > 1 - share ? 1 : 0;
      for (int k = 0; k < n; ++k) wash(i, k) = 1 / (2 * pi * (at - (k + 0.25) * h));
    }
    const Eigen::VectorXd strength = wash.partialPivLu().solve(slope);
    double moment = 0;
    for (int k = 0; k < n; ++k) moment -= 2 * strength[k] * std::max(0.0, (k + 0.25) * h - (1 - share));
    EXPECT_NEAR(hinge_moment_slope(share), moment / (share * share), 0.01 * std::abs(moment / (share * share)))
        << share;
  }
}

// By hand: arm 10 mm, horn 20 mm, 30° of arm. With a long level rod sin 30° · 10 / 20 = sin of the horn's
// angle: 14.48°.
TEST(Reference, ThrowByHand) {
  Linkage l;
  l.arm_m = 0.010;
  l.horn_m = 0.020;
  l.rod_m = 5;  // so long that it stays level
  EXPECT_NEAR(FourBar::of(l)->pose(30)->up_deg, 14.4775, 0.05);
  // A ruler at 50 mm behind the hinge reads 2 · 50 · sin(14.4775° / 2) = 12.60 mm; and back.
  EXPECT_NEAR(throw_m(0.05, 14.4775) * 1000, 12.600, 1e-3);
  EXPECT_NEAR(throw_deg(0.05, 0.0126), 14.4775, 1e-2);
}

// By hand, for a plank of 1.2 m span and 0.25 m chord whose elevons are a fifth of the chord, at 30 m/s and sea level
// (ISO 2533: 1.225 kg/m³): q = 551.25 Pa, hinge to edge 50 mm. A rod so long that both ends move alike turns an arm of
// 10 mm by 45° into asin(10/20 · sin 45°) = 20.705° at a horn of 20 mm, and there dβ/dα = 10 cos 45° / (20 cos 20.705°)
// = 0.37796. The servo's torque is hinge moment times that; the moment is q·S·c·slope·angle, its slope the one that the
// lattice above is held against, taken 0.5 to 1.2 times (from memory, a band).
TEST(Reference, TorqueByHand) {
  const Catalogue catalogue = *load_catalogue(in_source("/data/catalogue"));
  Rig rig = fresh_rig("Plank", AirframeKind::flying_wing, "full_controller");
  rig.airframe.span_m = 1.2;
  rig.airframe.root_chord_m = rig.airframe.tip_chord_m = 0.25;
  rig.airframe.sweep_deg = 0;
  rig.airframe.surface_chord = 0.2;
  rig.airframe.mass_kg = 0.9;
  rig.airframe.fast_m_s = 30;
  const Surface elevon{SurfaceKind::elevon, Side::right};
  Part servo;
  servo.id = "servo";
  servo.kind = "servo_12g_metal";
  servo.surface = elevon;
  rig.parts.push_back(servo);
  Linkage l;
  l.surface = elevon;
  l.arm_m = 0.01;
  l.horn_m = 0.02;
  l.rod_m = 50;
  l.servo_travel_deg = 45;
  rig.linkages.push_back(l);
  for (Output& o : rig.outputs) o.mix.roll = o.mix.pitch = std::copysign(1.0, o.mix.roll);

  const auto shape = shape_of(rig, elevon);
  ASSERT_TRUE(shape);
  EXPECT_NEAR(shape->chord_m, 0.05, 1e-6);
  const auto loads = analyze_loads(rig, catalogue, analyze_airframe(rig), analyze_surfaces(rig));
  const auto load = std::find_if(loads.begin(), loads.end(), [&](const ServoLoad& x) { return x.surface == elevon; });
  ASSERT_NE(load, loads.end());
  EXPECT_EQ(load->fast.speed_m_s, 30);
  EXPECT_NEAR(load->full_deg, 20.705, 0.01);
  const double moment = 551.25 * shape->area_m2 * 0.05 * std::abs(hinge_moment_slope(0.2)) * 20.705 * 0.0174533;
  EXPECT_NEAR(load->fast.hinge_high_nm, 1.2 * moment, 0.002 * moment);
  EXPECT_NEAR(load->fast.hinge_low_nm, 0.5 * moment, 0.002 * moment);
  EXPECT_NEAR(load->fast.torque_high_nm, 1.2 * moment * 0.37796, 0.004 * moment);
  EXPECT_NEAR(load->fast.torque_low_nm, 0.5 * moment * 0.37796, 0.004 * moment);
  // Load grows with the square of the speed.
  EXPECT_NEAR(load->dive.torque_high_nm / load->fast.torque_high_nm, load->dive.speed_m_s * load->dive.speed_m_s / 900,
              1e-9);
}

}  // namespace
}  // namespace rigging
