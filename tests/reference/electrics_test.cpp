#include <gtest/gtest.h>

#include <Eigen/Dense>

#include <cmath>
#include <numbers>

#include "airframe/drag.h"
#include "base/alignment.h"
#include "base/json.h"
#include "bench_rig.h"
#include "fit/fit.h"
#include "places.h"
#include "power/power.h"

// Checks of power and fit against sources outside the project. Each names its own.
namespace rigging {
namespace {

// Source: ASTM B258 / NBS Handbook 100, copper wire tables at 20 °C, Ω/km. The values were written from memory; the
// formula for the diameters (0.127 mm · 92^((36−n)/39)) and the IACS resistivity reproduce them independently of the
// table.
TEST(CopperTable, ResistancePerLength) {
  const std::pair<double, double> table[] = {{12, 5.211}, {16, 13.17}, {20, 33.31}, {22, 52.96},
                                             {24, 84.22}, {26, 133.9}, {28, 212.9}};
  for (const auto& [awg, ohm_km] : table) EXPECT_NEAR(1000 * copper_ohm_per_m(awg) / ohm_km, 1, 0.002) << awg << " AWG";
}

// Source: Biot–Savart law; a long straight conductor has B = μ0·I/(2πr). 1 A at 10 mm: 20 µT.
TEST(BiotSavart, LongConductor) {
  for (const double r : {0.005, 0.01, 0.05}) {
    const Point b = field_of_segment_ut({-100, 0, 0}, {100, 0, 0}, 1, {0, r, 0});
    EXPECT_NEAR(b.norm(), 4e-7 * std::numbers::pi * 1 / (2 * std::numbers::pi * r) * 1e6, 1e-3 / r * 0.01);
    // Right-hand rule: current along +x, at +y the field points along +z.
    EXPECT_GT(b.z(), 0);
    EXPECT_NEAR(b.x(), 0, 1e-12);
  }
  EXPECT_NEAR(field_of_segment_ut({-100, 0, 0}, {100, 0, 0}, 1, {0, 0.01, 0}).norm(), 20.0, 1e-4);
}

// Source: Biot–Savart law integrated numerically here, step by step, over a conductor of finite length.
TEST(BiotSavart, FiniteConductorAgreesWithTheIntegral) {
  const Point a{-0.03, 0.01, 0.02}, b{0.08, -0.02, 0.05}, p{0.01, 0.06, -0.02};
  Point sum = Point::Zero();
  constexpr int steps = 200000;
  for (int i = 0; i < steps; ++i) {
    const Point at = mix(a, b, (i + 0.5) / steps), to = p - at;
    sum += ((b - a) / steps).cross(to) * (0.1 * 3.0 / std::pow(to.norm(), 3));
  }
  const Point got = field_of_segment_ut(a, b, 3.0, p);
  EXPECT_NEAR(got.x(), sum.x(), 1e-6);
  EXPECT_NEAR(got.y(), sum.y(), 1e-6);
  EXPECT_NEAR(got.z(), sum.z(), 1e-6);
}

// Source: Biot–Savart law; a long pair with spacing d has B ≈ μ0·I·d/(2πr²) for r ≫ d.
TEST(BiotSavart, PairFallsWithTheSquare) {
  CurrentPath pair{"", "", {-50, 0, 0}, {50, 0, 0}, 20, 0.004, false};
  const auto ideal = [&](double r) { return 0.2 * 20 * 0.004 / (r * r); };
  EXPECT_NEAR(field_of_pair_ut(pair, {0, 0.10, 0}) / ideal(0.10), 1, 0.002);
  EXPECT_NEAR(field_of_pair_ut(pair, {0, 0.20, 0}) / ideal(0.20), 1, 0.001);
  // And the distance at which it is worth two degrees against 20 µT: √(0.2·20·0.004 / (20·sin 2°)) = 0.1514 m.
  EXPECT_NEAR(least_distance_m(20, 0.004, 20, 2), 0.1514, 1e-4);
  EXPECT_NEAR(heading_error_deg(field_of_pair_ut(pair, {0, least_distance_m(20, 0.004, 20, 2), 0}), 20), 2, 0.01);
}

TEST(BiotSavart, DegenerateLeadsGiveNothing) {
  EXPECT_EQ(field_of_segment_ut({0, 0, 0}, {0, 0, 0}, 5, {1, 0, 0}).norm(), 0);
  EXPECT_EQ(field_of_segment_ut({0, 0, 0}, {1, 0, 0}, 5, {2, 0, 0}).norm(), 0) << "in line with it";
  EXPECT_EQ(heading_error_deg(30, 20), points_nowhere_deg);
}

// Source: Ampère's law for a long straight wire, B = µ0·I / (2π·d): 20 A at 0.1 m give 40 µT; two degrees against 20 µT
// are reached at 0.2·20 / (20·sin 2°) = 5.731 m.
TEST(BiotSavart, WiresThatRunApartFallWithTheDistance) {
  CurrentPath single{"", "", {-50, 0, 0}, {50, 0, 0}, 20, 0.004, true};
  EXPECT_NEAR(field_of_pair_ut(single, {0, 0.1, 0}), 40, 0.01);
  EXPECT_NEAR(field_of_pair_ut(single, {0, 0.2, 0}), 20, 0.01);
  EXPECT_NEAR(least_distance_single_m(20, 20, 2), 5.731, 1e-3);
}

// Source: direct current, Kirchhoff. Hand calculation: a linear regulator of 28 K/W on a full three-cell battery (12.6
// V) feeds two analogue nine-gram servos that move (0.16 A each) and a receiver (0.10 A at most) plus the board (0.09
// A): 0.51 A. Heat = (12.6 − 5.0) V × 0.51 A = 3.876 W; junction = 25 °C + 3.876 W × 28 K/W = 133.5 °C, above its 125
// °C.
TEST(Regulator, HeatAndJunctionByHand) {
  Rig rig;
  rig.name = "hand calculation";
  rig.controller.kind = "screen_keys";
  add_part(rig, "battery", "battery_3s_2200");
  add_part(rig, "esc", "esc_20_linear");
  add_part(rig, "rx", "receiver_pulse");
  add_part(rig, "a", "servo_9g_analogue");
  add_part(rig, "b", "servo_9g_analogue");
  add_lead(rig, "l1", "esc", "battery", "battery", "main", LeadKind::power);
  add_lead(rig, "l2", "esc", "servo", "controller", "slot_1");
  add_lead(rig, "l3", "rx", "ch1", "controller", "in_ail");
  add_lead(rig, "l4", "a", "plug", "controller", "slot_2");
  add_lead(rig, "l5", "b", "plug", "controller", "slot_3");
  const PowerReport r = analyze_power(rig, shipped());
  const SourceReport& esc = *r.source("esc");
  EXPECT_NEAR(esc.amps[static_cast<std::size_t>(LoadCase::all_moving)], 0.51, 1e-9);
  ASSERT_TRUE(esc.heat && esc.junction);
  // Off the 12.6 V come the battery's own 15 mΩ and its lead (14 AWG, 0.1 m: 2·(8.29 mΩ/m·0.1 m + 1.2 mΩ) = 4.06 mΩ),
  // together 9.7 mV.
  const double watts = (12.6 - 0.51 * 0.01906 - 5) * 0.51;
  EXPECT_NEAR(esc.heat->value, watts, 1e-4);
  EXPECT_NEAR(esc.junction->value, 25 + watts * 28, 3e-3);
  // One of two servos stalled: 0.75 in place of 0.16.
  EXPECT_NEAR(esc.amps[static_cast<std::size_t>(LoadCase::one_stalled)], 0.51 + 0.59, 1e-9);
  EXPECT_NEAR(esc.amps[static_cast<std::size_t>(LoadCase::two_stalled)], 0.51 + 2 * 0.59, 1e-9);
  // Idle: 0.008·2 + 0.06 + 0.04.
  EXPECT_NEAR(esc.amps[static_cast<std::size_t>(LoadCase::idle)], 0.116, 1e-9);
}

// Source: Ohm's law and the copper table. Hand calculation: a servo on 0.60 m of 26 AWG (133.9 Ω/km), contacts of 10 mΩ
// at both ends of both wires: 2·(0.1339·0.6 + 0.02) = 0.2007 Ω; stalled at 1.2 A it gets 5 V − drops: the lead's own is
// 0.241 V.
TEST(LeadDrop, ByHand) {
  Lead l;
  l.length_m = 0.6;
  l.gauge_awg = 26;
  EXPECT_NEAR(lead_ohm(l), 0.2007, 5e-4);
  l.kind = LeadKind::power;
  l.length_m = 0.2;
  l.gauge_awg = 12;
  EXPECT_NEAR(lead_ohm(l), 2 * (0.005211 * 0.2 + 0.0012), 1e-5);
  Rig rig;
  rig.controller.kind = "fixed_mini";
  add_part(rig, "battery", "battery_2s_850");
  add_part(rig, "esc", "esc_20_switching");
  add_part(rig, "servo", "servo_12g_metal");
  add_lead(rig, "l1", "esc", "battery", "battery", "main", LeadKind::power);
  add_lead(rig, "l2", "esc", "servo", "controller", "slot_1").length_m = 0.1;
  add_lead(rig, "l3", "servo", "plug", "controller", "slot_2").length_m = 0.6;
  const PowerReport r = analyze_power(rig, shipped());
  const double supply_ohm = 2 * (0.1339 * 0.1 + 0.02), total = 1.2 + 0.08;
  EXPECT_NEAR(r.consumer("servo")->worst_v, 5 - supply_ohm * total - 0.2007 * 1.2, 1e-3);
  EXPECT_NEAR(r.controller_least->value, 5 - supply_ohm * total, 1e-3);
  EXPECT_NEAR(r.brown_out_margin->value, 5 - supply_ohm * total - 4.0, 1e-3);
}

// Source: tests/reference/data/networks.py (SciPy: nodal analysis of meshed networks, copper by ASTM B258 and the IACS
// resistivity, a linear regulator that takes in what it gives).
TEST(Networks, VoltagesAgreeWithNodalAnalysis) {
  const Json cases = (*read_json_file(in_source("/tests/reference/data/networks.json")))["cases"];
  ASSERT_EQ(cases.size(), 24u);
  for (const Json& c : cases) {
    Network net;
    net.rail_of = c["rail_of"].get<std::vector<int>>();
    net.rails.resize(2);
    for (std::size_t i = 0; i < net.rail_of.size(); ++i) {
      net.nodes.push_back({"part_" + std::to_string(i), "plus"});
      net.rails[static_cast<std::size_t>(net.rail_of[i])].nodes.push_back(static_cast<int>(i));
    }
    Source battery, regulator;
    battery.part = "battery";
    battery.node = 0;
    battery.ideal = true;
    battery.volts = c["emf_v"];
    battery.ohm = c["inside_ohm"];
    regulator.part = "regulator";
    regulator.kind = FeedKind::linear;
    regulator.rail_before = 0;
    regulator.node_before = c["inlet"];
    regulator.node = c["outlet"];
    regulator.volts = 5;
    net.rails[0].sources = {battery};
    net.rails[1].sources = {regulator};
    for (const Json& w : c["wires"])
      net.wires.push_back({"", w["a"], w["b"], 2 * copper_ohm_per_m(w["awg"]) * w["length_m"].get<double>()});
    for (const Json& d : c["draws"]) {
      Draw draw;
      draw.node = d["node"];
      draw.load.idle_a = d["amps"];
      net.draws.push_back(draw);
    }
    const Solution s = solve(net, SupplyState::battery, LoadCase::idle, 1, 0);
    const Json& expected = c["expected"];
    for (std::size_t i = 0; i < net.nodes.size(); ++i)
      EXPECT_NEAR(s.node_v[i], expected["volts"][i].get<double>(), 2e-5) << "node " << i;
    EXPECT_NEAR(s.rails[0].amps, expected["battery_a"].get<double>(), 1e-9);
    EXPECT_NEAR(s.rails[1].amps, expected["regulator_a"].get<double>(), 1e-9);
  }
}

// Source: moments about the nose, by hand: 0.8 kg at 0.40 m and 0.2 kg at 0.10 m balance at 0.34 m; to bring it to 0.37
// m the 0.2 kg go 0.03·1.0/0.2 = 0.15 m back; 0.32 m instead wants them 0.10 m forward, out of the nose: as far as they
// go, to 0.05 m (60 mm long, 20 mm from the nose), the point comes to 0.33 m, and a weight does the rest:
// 1.0·0.01/(0.32−0.03) = 0.0345 kg.
TEST(Moments, BalanceByHand) {
  Rig rig;
  rig.controller.kind = "abacus";  // weighs nothing
  rig.airframe.length_m = 1;
  add_part(rig, "battery", "mine");
  put(rig, "battery", 0.10);
  rig.fit.frame_mass_kg = 0.8;
  rig.fit.frame_at_m = 0.40;
  Catalogue c;
  PartKind battery;
  battery.id = "mine";
  battery.group = PartGroup::battery;
  battery.mass_kg = 0.2;
  battery.length_mm = 60;
  battery.battery = BatteryFigures{};
  c.parts.push_back(battery);
  AirframeReport airframe;
  airframe.mean_chord = {"", 0.2, "m", {}, {}, "", ""};
  const auto with_neutral_point = [&](double np) {
    airframe.neutral_point = {"", np, "m", {}, {}, "", ""};
    return analyze_fit(rig, c, airframe, analyze_power(rig, c)).balance;
  };
  const Balance back = with_neutral_point(0.39);  // wanted: 0.39 − 0.1·0.2 = 0.37
  EXPECT_NEAR(back.total.value, 1.0, 1e-12);
  EXPECT_NEAR(back.balance_point.value, 0.34, 1e-12);
  EXPECT_NEAR(back.wanted.value, 0.37, 1e-12);
  EXPECT_NEAR(back.static_margin.value, 25, 1e-9);
  ASSERT_TRUE(back.to_wanted.battery_to_m.has_value());
  EXPECT_NEAR(*back.to_wanted.battery_to_m, 0.25, 1e-12);
  EXPECT_NEAR(back.first_flight.value, 0.366, 1e-12);
  const Balance forward = with_neutral_point(0.34);  // wanted 0.32
  ASSERT_TRUE(forward.to_wanted.battery_to_m.has_value());
  EXPECT_NEAR(*forward.to_wanted.battery_to_m, 0.05, 1e-12);
  ASSERT_TRUE(forward.to_wanted.weight_kg.has_value());
  EXPECT_NEAR(*forward.to_wanted.weight_kg, 0.01 / (0.32 - 0.03), 1e-9);
  // With the weight in place the moments agree.
  const double w = *forward.to_wanted.weight_kg;
  EXPECT_NEAR((0.8 * 0.40 + 0.2 * 0.05 + w * 0.03) / (1 + w), 0.32, 1e-12);
}

// More or broader blades take more; too few volts give nothing.
TEST(DriveTrain, BladesAndVoltsCount) {
  const MotorFigures m{1000, 0.09, 0.6, 18, {}};
  PropellerFigures p;
  p.diameter_m = 0.2286;
  p.pitch_m = 0.127;
  EXPECT_FALSE(amps_in_flight(m, p, 5, 5, 12)) << "too few volts";
  const double two = static_point(m, p, 11.1, 0.02).amps;
  p.blades = 3;
  EXPECT_GT(static_point(m, p, 11.1, 0.02).amps, two);
  p.blades = 2;
  p.slow_fly = true;
  EXPECT_GT(static_point(m, p, 11.1, 0.02).amps, two);
}

// Source: skin friction of a turbulent flat plate by Schlichting, Boundary-Layer Theory (7th ed., 1979), eq. 21.16: Cf
// = 0.455 / (log10 Re)^2.58, which is not the law that the program takes (from memory: the two lie within 5 % of one
// another from Re 10⁵ to 10⁷). Form factor of a section of 10 %: Hoerner, Fluid-Dynamic Drag (1965), 6-6: 1 + 2·t/c +
// 60·(t/c)⁴ = 1.206. Induced drag: Prandtl's W² / (π·e·b²·q), e from 0.7 to 0.95 for plain wings (Hoerner, 7-6).
TEST(Drag, AWingLiesWherePublishedFrictionPutsIt) {
  for (const double chord : {0.12, 0.2, 0.35})
    for (const double speed : {8.0, 15.0, 30.0}) {
      Airframe a;
      a.kind = AirframeKind::flying_wing;
      a.span_m = 5 * chord;
      a.root_chord_m = a.tip_chord_m = chord;
      a.sweep_deg = a.dihedral_deg = 0;
      a.fin_height_m = a.fin_chord_m = 0.01;
      a.length_m = 1.5 * chord;
      a.wing_at_m = 0.25 * chord;
      const Drag d = drag_of(a, speed);
      const double re = speed * chord / 1.46e-5,
                   wing = 2 * a.span_m * chord * 1.206 * 0.455 / std::pow(std::log10(re), 2.58);
      // At its cleanest it is more than the bare wing, and less than twice that: the rest is a body shorter than wide.
      EXPECT_GT(d.parasite_least_m2, 0.95 * 1.1 * wing) << chord << " m at " << speed;
      EXPECT_LT(d.parasite_least_m2, 2 * 1.1 * wing) << chord << " m at " << speed;
      EXPECT_GT(d.parasite_m2, d.parasite_least_m2);
      EXPECT_GT(d.parasite_most_m2, d.parasite_m2);
      const double q = 1.225 / 2 * speed * speed, w = 0.5 * 9.80665,
                   ideal = w * w / (std::numbers::pi * a.span_m * a.span_m * q), induced = d.at(speed, 0.5, 0);
      EXPECT_GT(induced, ideal / 0.95);
      EXPECT_LT(induced, ideal / 0.7);
    }
}

/// A board axis in the model, from the words of a turn's name alone (x forward, y right, z down).
Eigen::Vector3d direction_of(const std::string& word) {
  return word == "nose"    ? Eigen::Vector3d(1, 0, 0)
         : word == "tail"  ? Eigen::Vector3d(-1, 0, 0)
         : word == "right" ? Eigen::Vector3d(0, 1, 0)
         : word == "left"  ? Eigen::Vector3d(0, -1, 0)
         : word == "down"  ? Eigen::Vector3d(0, 0, 1)
                           : Eigen::Vector3d(0, 0, -1);
}

// Source: ISO 1151-1, direction cosines of azimuth ψ, inclination θ and bank φ, written out, put on top of a board
// whose arrow and top point where the turn's name says.
TEST(Alignment, AgreesWithTheStandardsCosines) {
  constexpr double degree = std::numbers::pi / 180;
  int tried = 0;
  for (const Turn& t : all_turns()) {
    const std::string name = t.name() == "none" ? "arrow_nose_top_up" : t.name();
    const std::string arrow = name.substr(6, name.find("_top_") - 6), top = name.substr(name.find("_top_") + 5);
    Eigen::Matrix3d square;
    square.col(0) = direction_of(arrow);
    square.col(2) = -direction_of(top);
    square.col(1) = square.col(2).cross(square.col(0));
    for (const auto& [roll, pitch, yaw] : {std::array{0.0, 0.0, 0.0}, {3.0, -4.0, 7.0}, {-12.0, 5.0, 20.0}}) {
      const double cp = std::cos(yaw * degree), sp = std::sin(yaw * degree), ct = std::cos(pitch * degree),
                   st = std::sin(pitch * degree), cf = std::cos(roll * degree), sf = std::sin(roll * degree);
      Eigen::Matrix3d cosines;
      cosines << cp * ct, cp * st * sf - sp * cf, cp * st * cf + sp * sf,  //
          sp * ct, sp * st * sf + cp * cf, sp * st * cf - cp * sf,         //
          -st, ct * sf, ct * cf;
      const Eigen::Matrix3d expected = cosines * square;
      EXPECT_NEAR(expected.determinant(), 1, 1e-12) << name;
      const auto m = alignment_matrix(t, roll, pitch, yaw);
      for (int i = 0; i < 3; ++i)
        for (int k = 0; k < 3; ++k) EXPECT_NEAR(m(i, k), expected(i, k), 1e-12) << name << " " << i << " " << k;
      ++tried;
    }
  }
  EXPECT_EQ(tried, 72);
}

}  // namespace
}  // namespace rigging
