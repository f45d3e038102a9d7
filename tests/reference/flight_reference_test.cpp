#include <gtest/gtest.h>

#include <cmath>
#include <filesystem>
#include <numbers>

#include "base/angle.h"
#include "base/json.h"
#include "bench_rig.h"
#include "flight/axis_plant.h"
#include "flight/dynamics.h"
#include "flight/loop.h"
#include "places.h"
#include "review/review.h"

namespace rigging {
namespace {

// Ziegler and Nichols, Optimum Settings for Automatic Controllers, 1942: the ultimate gain of 1/(s+1)³ is 8, its period
// 2π/√3 (exact, by Routh's criterion).
TEST(FlightReference, TheUltimateGainOfThreeEqualLags) {
  Loop l;
  l.plant = RatePlant::roll(-1, 1);
  l.servo(1 / (2 * pi), 1);  // (s + 1)²
  l.rate_gain = 1;
  const LoopMargins m = margins_of(l);
  ASSERT_TRUE(m.onset);
  EXPECT_NEAR(m.onset->rate_gain, 8, 1e-9);
  EXPECT_NEAR(1 / m.onset->hz, 2 * pi / std::sqrt(3.0), 1e-9);
  EXPECT_NEAR(*m.gain_margin_db, 20 * std::log10(8.0), 1e-9);
}

// Åström and Hägglund, PID Controllers, 2nd ed., ch. 2: a first-order lag with pure delay oscillates where
// atan(ω/a) + ωT = π, with the gain √(ω² + a²) / b; an integrator where ωT = π/2, with ω / b.
TEST(FlightReference, TheUltimateGainWithPureDelay) {
  for (const double a : {0.5, 4.0, 12.0})
    for (const double delay : {0.01, 0.03, 0.2}) {
      double low = 1e-6, high = pi / delay;
      for (int i = 0; i < 200; ++i) {
        const double w = (low + high) / 2;
        (std::atan(w / a) + w * delay < pi ? low : high) = w;
      }
      Loop l;
      l.plant = RatePlant::roll(-a, 30);
      l.delay_s = delay;
      l.rate_gain = 0.01;
      const LoopMargins m = margins_of(l);
      ASSERT_TRUE(m.onset);
      EXPECT_NEAR(m.onset->hz * 2 * pi / low, 1, 1e-6);
      EXPECT_NEAR(m.onset->rate_gain / (std::hypot(low, a) / 30), 1, 1e-6);
    }
  Loop l;
  l.plant = RatePlant::roll(0, 30);
  l.delay_s = 0.05;
  l.rate_gain = 0.1;
  const LoopMargins m = margins_of(l);
  ASSERT_TRUE(m.onset && m.phase_margin_deg);
  EXPECT_NEAR(m.onset->rate_gain, pi / 2 / 0.05 / 30, 1e-9);
  // Crossover where 0.1 · 30 / ω is 1; phase margin 90° less the delay.
  EXPECT_NEAR(*m.crossover_hz, 3 / (2 * pi), 1e-9);
  EXPECT_NEAR(*m.phase_margin_deg, 90 - 3 * 0.05 / rad, 1e-9);
}

// SciPy 1.10: stored answers with the script that made them (data/loop_margins.py).
TEST(FlightReference, MarginsAgreeWithSciPy) {
  const auto stored = read_json_file(in_source("/tests/reference/data/loop_margins.json"));
  ASSERT_TRUE(stored);
  ASSERT_EQ(stored->size(), 40u);
  for (const Json& one : *stored) {
    const auto l = loop_from_json(one["case"], "case");
    ASSERT_TRUE(l) << l.error().text();
    const LoopMargins m = margins_of(*l);
    const Json& a = one["answer"];
    EXPECT_EQ(m.stable, a["stable"].get<bool>()) << one.dump();
    ASSERT_TRUE(m.onset) << one.dump();
    EXPECT_NEAR(m.onset->rate_gain / a["shakes_at_rate_gain"].get<double>(), 1, 1e-6) << one.dump();
    EXPECT_NEAR(m.onset->hz / a["shakes_at_hz"].get<double>(), 1, 1e-6) << one.dump();
    EXPECT_NEAR(*m.gain_margin_db, a["gain_margin_db"].get<double>(), 1e-4);
    ASSERT_EQ(m.crossover_hz.has_value(), !a["crossover_hz"].is_null()) << one.dump();
    if (!m.crossover_hz) continue;
    EXPECT_NEAR(*m.crossover_hz / a["crossover_hz"].get<double>(), 1, 1e-6) << one.dump();
    EXPECT_NEAR(*m.phase_margin_deg, a["phase_margin_deg"].get<double>(), 1e-3) << one.dump();
  }
}

constexpr double foot = 0.3048, slug_ft2 = 14.59390294 * foot * foot;

/// The sizes of Nelson's general aviation example (from memory): 184 ft², 33.4 ft, 5.7 ft, 2750 lb.
Aeroplane general_aviation() {
  Aeroplane a;
  a.mass_kg = 2750 * 0.45359237;
  a.wing_area_m2 = 184 * foot * foot;
  a.span_m = 33.4 * foot;
  a.mean_chord_m = 5.7 * foot;
  return a;
}

// Nelson, Flight Stability and Automatic Control, general aviation example, and its results Lp ≈ −8.40 1/s, Lδa ≈ 28.9
// 1/s² (the numbers from memory; that they fit together is checked by recomputing them here in feet and slugs).
TEST(FlightReference, DimensionalRollDerivativesOfTheGeneralAviationExample) {
  const double q_psf = 0.5 * 0.002377 * 176 * 176;
  const double roll_by_hand = -0.410 * q_psf * 184 * 33.4 * 33.4 / (2 * 176 * 1048);
  const double aileron_by_hand = 0.134 * q_psf * 184 * 33.4 / 1048;
  EXPECT_NEAR(roll_by_hand, -8.40, 0.1);
  EXPECT_NEAR(aileron_by_hand, 28.9, 0.3);
  Aeroplane a = general_aviation();
  a.inertia.roll = {1048 * slug_ft2, 1048 * slug_ft2, 1048 * slug_ft2};
  a.stability.roll_p = {-0.410, -0.410, -0.410};
  AxisControl ailerons;
  ailerons.throw_rad = 1;
  ailerons.effect = 0.134;
  const RatePlant p = plant_of(a, ailerons, Axis::roll, 176 * foot);
  // Sea level density differs in the fifth figure: 0.002377 slug/ft³ is 1.2251 kg/m³.
  EXPECT_NEAR(-p.a0, roll_by_hand, 0.01);
  EXPECT_NEAR(p.b0, aileron_by_hand, 0.03);
}

// The same source's short period (from memory): CLα 4.44, Cmα −0.683, Cmα̇ −4.36, Cmq −9.96, Iy 3000 slug ft²; it gives
// a period of 1.74 s and a damping of 0.69 (ωn 3.6 rad/s), by its two-degree approximation, which is recomputed here.
TEST(FlightReference, ShortPeriodOfTheGeneralAviationExample) {
  Aeroplane a = general_aviation();
  a.inertia.pitch = {3000 * slug_ft2, 0, 0};
  a.stability.lift_alpha.value = 4.44;
  a.stability.pitch_alpha.value = -0.683;
  a.stability.pitch_alpha_dot.value = -4.36;
  a.stability.pitch_q.value = -9.96;
  AxisControl elevator;
  elevator.throw_rad = 1;
  elevator.effect = 0.923;
  const double u = 176, Q = 0.5 * 0.002377 * u * u, S = 184, c = 5.7, Iy = 3000, m = 2750 / 32.17;
  const double z = -4.44 * Q * S / m, M_a = -0.683 * Q * S * c / Iy, M_q = -9.96 * c / (2 * u) * Q * S * c / Iy,
               M_dot = -4.36 * c / (2 * u) * Q * S * c / Iy;
  const RatePlant p = plant_of(a, elevator, Axis::pitch, u * foot);
  EXPECT_NEAR(p.a0, z * M_q / u - M_a, 0.002 * p.a0);
  EXPECT_NEAR(p.a1, -(M_q + M_dot + z / u), 0.002 * p.a1);
  const double natural = std::sqrt(p.a0);
  EXPECT_NEAR(natural, 3.6, 0.1);
  EXPECT_NEAR(p.a1 / (2 * natural), 0.69, 0.03);
}

// The same source's Dutch roll (from memory): CYβ −0.564, Cnβ 0.071, Cnr −0.125, Cnδr −0.072, Iz 3530 slug ft²; its
// approximation without rolling, recomputed here, gives 2.2 rad/s and a damping of 0.23; all modes together −0.487 ±
// 2.335i.
TEST(FlightReference, DutchRollOfTheGeneralAviationExample) {
  Aeroplane a = general_aviation();
  a.inertia.yaw = {3530 * slug_ft2, 0, 0};
  a.stability.side_beta.value = -0.564;
  a.stability.yaw_beta.value = 0.071;
  a.stability.yaw_r.value = -0.125;
  AxisControl rudder;
  rudder.throw_rad = 1;
  rudder.effect = 0.072;
  const double u = 176, Q = 0.5 * 0.002377 * u * u, S = 184, b = 33.4, Iz = 3530, m = 2750 / 32.17;
  const double Y_b = -0.564 * Q * S / m, N_b = 0.071 * Q * S * b / Iz, N_r = -0.125 * b / (2 * u) * Q * S * b / Iz;
  const RatePlant p = plant_of(a, rudder, Axis::yaw, u * foot);
  EXPECT_NEAR(p.a0, (Y_b * N_r + u * N_b) / u, 0.002 * p.a0);
  EXPECT_NEAR(p.a1, -(Y_b + u * N_r) / u, 0.002 * p.a1);
  const double natural = std::sqrt(p.a0);
  EXPECT_NEAR(natural, std::hypot(0.487, 2.335), 0.1 * natural) << "the approximation against all modes together";
  EXPECT_NEAR(p.a1 / (2 * natural), 0.235, 0.01);
}

// Lifting line (Prandtl; e.g. Glauert, The Elements of Aerofoil and Airscrew Theory): rolling an elliptic wing is
// damped with −π·A / (4·(A + 4)), here of near-elliptic tapered wings without sweep and tail.
TEST(FlightReference, RollDampingOfAnEllipticWing) {
  for (const double ratio : {6.0, 9.0, 14.0}) {
    Rig rig = demo("bramble");
    Airframe& f = rig.airframe;
    f.span_m = 1.5;
    const double chord = f.span_m / ratio;
    f.root_chord_m = 1.4 * chord, f.tip_chord_m = 0.6 * chord;  // taper 0.43 carries nearly elliptically
    f.sweep_deg = std::atan((f.root_chord_m - f.tip_chord_m) / 4 / (f.span_m / 2)) / rad;
    f.dihedral_deg = 0, f.fin_height_m = 0.02;
    const Review r = review(rig, shipped());
    const auto a = aeroplane_of(rig, shipped(), r.reports.airframe(), r.reports.fit().balance);
    ASSERT_TRUE(a) << a.error().text();
    const double expected = -pi * ratio / (4 * (ratio + 4));
    // A lifting line knows no chord: short wings carry less than it says.
    EXPECT_NEAR(a->stability.roll_p.value / expected, 1, ratio < 8 ? 0.09 : 0.06) << ratio;
  }
}

// SciPy 1.10 solve_ivp (DOP853, relative tolerance 1e-11) on the equations as the books write them, with coefficients,
// product of inertia, wind and control of its own (data/flight_ivp.py, which shares no code with the program).
TEST(FlightReference, SixDegreesOfFreedomAgreeWithSciPy) {
  const auto stored = read_json_file(in_source("/tests/reference/data/flight_ivp.json"));
  ASSERT_TRUE(stored);
  const Json& p = (*stored)["parameters"];
  const auto number = [&p](const char* name) { return p.at(name).get<double>(); };
  Aeroplane a;
  a.mass_kg = number("mass");
  a.wing_area_m2 = number("area"), a.span_m = number("span"), a.mean_chord_m = number("chord");
  a.cruise_m_s = number("cruise");
  a.inertia.roll.value = number("ix"), a.inertia.pitch.value = number("iy"), a.inertia.yaw.value = number("iz");
  a.inertia.xz = number("ixz");
  Stability& s = a.stability;
  s.lift_alpha.value = number("cla"), s.pitch_alpha.value = number("cma"), s.lift_q.value = number("clq");
  s.pitch_q.value = number("cmq"), s.pitch_alpha_dot.value = number("cmadot"), s.side_beta.value = number("cyb");
  s.roll_beta.value = number("clb"), s.roll_beta_per_lift.value = number("clb_lift"), s.yaw_beta.value = number("cnb");
  s.side_p.value = number("cyp"), s.roll_p.value = number("clp"), s.yaw_p.value = number("cnp");
  s.yaw_p_per_lift.value = number("cnp_lift"), s.side_r.value = number("cyr"), s.roll_r.value = number("clr");
  s.roll_r_per_lift.value = number("clr_lift"), s.yaw_r.value = number("cnr");
  Drag drag;
  drag.parasite_m2 = number("parasite"), drag.induced_per_m2 = number("induced");
  const FlightModel model(a, drag, {number("static"), number("free")});
  const Json &control = (*stored)["control"], &wind = (*stored)["wind"];
  const Deflection d{control["lift"], control["side"], control["roll"], control["pitch"], control["yaw"]};
  Air air;
  air.north = wind[0], air.east = wind[1], air.down = wind[2];
  const auto from = [](const Json& y) {
    return Motion{y[0], y[1], y[2], y[3], y[4], y[5], y[6], y[7], y[8], y[9], y[10], y[11], y[12]};
  };
  Motion m = from((*stored)["start"]);
  double t = 0;
  for (std::size_t k = 0; k < (*stored)["times_s"].size(); ++k) {
    const double end = (*stored)["times_s"][k];
    for (; t < end - 5e-4; t += 1e-3) model.step(m, d, (*stored)["throttle"], air, 1e-3);
    const Motion e = from((*stored)["states"][k]);
    for (const auto& [mine, theirs] : {std::pair{m.north, e.north}, {m.east, e.east}, {m.down, e.down}})
      EXPECT_NEAR(mine, theirs, 2e-4) << end;
    for (const auto& [mine, theirs] : {std::pair{m.u, e.u}, {m.v, e.v}, {m.w, e.w}, {m.p, e.p}, {m.q, e.q}, {m.r, e.r}})
      EXPECT_NEAR(mine, theirs, 2e-4) << end;
    for (const auto& [mine, theirs] : {std::pair{m.q0, e.q0}, {m.q1, e.q1}, {m.q2, e.q2}, {m.q3, e.q3}})
      EXPECT_NEAR(mine, theirs, 2e-5) << end;
  }
}

}  // namespace
}  // namespace rigging
