#include <gtest/gtest.h>

#include <cmath>
#include <map>

#include "airframe/kinds.h"
#include "base/json.h"
#include "bench_rig.h"
#include "fit/fit.h"
#include "places.h"
#include "review/review.h"
#include "wiring/plan.h"

// Three rigs typed in from nothing, planned, and their budget and balance worked out by hand. The sums are arithmetic
// on the catalogue's figures (common practice, noted there); the physics is Ohm's and Kirchhoff's, the moments are
// about the nose.
namespace rigging {
namespace {

double amps(const PowerReport& r, const char* part, LoadCase e) {
  return r.source(part)->amps[static_cast<std::size_t>(e)];
}

/// A small flying wing on the fixed-function board: two elevon servos, everything on one joined rail.
TEST(WorkedExample, FlyingWingOnTheFixedBoard) {
  Rig rig = fresh_rig("worked example", AirframeKind::flying_wing, "fixed_wing");
  add_part(rig, "battery", "battery_2s_850");                                              // 52 g
  add_part(rig, "esc", "esc_10_linear");                                                   // 9 g, 1 A linear, 38 K/W
  add_part(rig, "motor", "motor_1806");                                                    // 19 g
  add_part(rig, "propeller", "propeller_5x4");                                             // 5 g
  add_part(rig, "receiver", "receiver_serial_inverted");                                   // 6 g
  add_part(rig, "left", "servo_5g_analogue", Surface{SurfaceKind::elevon, Side::left});    // 5 g
  add_part(rig, "right", "servo_5g_analogue", Surface{SurfaceKind::elevon, Side::right});  // 5 g
  const Plan plan = plan_wiring(rig, shipped());
  ASSERT_TRUE(plan.obstacles.empty()) << plan.obstacles.front().what;
  rig = plan.rig;
  const PowerReport p = analyze_power(rig, shipped());
  // Idle: board 0.03 + receiver 0.06 + two servos 0.006 each = 0.102 A.
  EXPECT_NEAR(amps(p, "esc", LoadCase::idle), 0.102, 1e-9);
  // Usual: 0.05 + 0.08 + 2·(0.006 + 0.25·0.094) = 0.189 A.
  EXPECT_NEAR(amps(p, "esc", LoadCase::typical), 0.189, 1e-9);
  // All moving: 0.08 + 0.10 + 2·0.10 = 0.38 A; one stalled + 0.40; two + 0.80 = 1.18 A of 1 A.
  EXPECT_NEAR(amps(p, "esc", LoadCase::all_moving), 0.38, 1e-9);
  EXPECT_NEAR(amps(p, "esc", LoadCase::one_stalled), 0.78, 1e-9);
  EXPECT_NEAR(amps(p, "esc", LoadCase::two_stalled), 1.18, 1e-9);
  EXPECT_NE(p.source("esc")->verdict.find("with two does not"), std::string::npos) << p.source("esc")->verdict;
  // Full battery 8.4 V, off which 20 mΩ inside and the lead's 4.06 mΩ take 0.38 A · 24.06 mΩ = 9 mV: (8.391 − 5) V ·
  // 0.38 A = 1.2885 W, 38 K/W: +49 K.
  EXPECT_NEAR(p.source("esc")->heat->value, (8.4 - 0.38 * 0.02406 - 5) * 0.38, 1e-4);
  EXPECT_NEAR(p.source("esc")->junction->value, 25 + 1.2885 * 38, 0.02);
  // Masses: 5 + 52 + 9 + 19 + 5 + 6 + 5 + 5 = 106 g, with a 150 g airframe 256 g.
  rig.fit.frame_mass_kg = 0.150;
  rig.fit.frame_at_m = 0.20;
  const std::pair<const char*, double> places[] = {{"controller", 0.12}, {"battery", 0.06},   {"esc", 0.16},
                                                   {"motor", 0.25},      {"propeller", 0.27}, {"receiver", 0.14},
                                                   {"left", 0.20},       {"right", 0.20}};
  for (const auto& [part, at] : places) put(rig, part, at);
  rig.leads.clear();  // they weigh, too: checked with fit
  const Balance b = analyze_fit(rig, shipped(), analyze_airframe(rig), analyze_power(rig, shipped())).balance;
  EXPECT_NEAR(b.total.value, 0.256, 1e-9);
  // Moments in g·m: 150·0.20 + 5·0.12 + 52·0.06 + 9·0.16 + 19·0.25 + 5·0.27 + 6·0.14 + 10·0.20 = 44.10; / 256 g =
  // 0.17227 m.
  EXPECT_NEAR(b.balance_point.value, 44.10 / 256, 1e-6);
}

/// A conventional model on the screen-and-keys board, its own regulator at a spare socket, the speed controller's red
/// wire out.
TEST(WorkedExample, ConventionalWithItsOwnRegulator) {
  Rig rig = fresh_rig("worked example", AirframeKind::two_ailerons, "screen_keys");
  add_part(rig, "battery", "battery_3s_2200");
  add_part(rig, "esc", "esc_30_switching");
  add_part(rig, "bec", "regulator_5v_3a");
  add_part(rig, "motor", "motor_2212");
  add_part(rig, "receiver", "receiver_pulse");
  for (const Surface s : facts_of(AirframeKind::two_ailerons).surfaces)
    add_part(rig, "servo_" + s.name(), "servo_9g_analogue", s);
  const Plan plan = plan_wiring(rig, shipped());
  ASSERT_TRUE(plan.obstacles.empty()) << plan.obstacles.front().what;
  const PowerReport p = analyze_power(plan.rig, shipped());
  EXPECT_TRUE(p.source("bec")->supplies);
  // Four servos 0.16, receiver 0.10, board 0.09: 0.83 A; stalled 0.75 in place of 0.16.
  EXPECT_NEAR(amps(p, "bec", LoadCase::all_moving), 0.83, 1e-9);
  EXPECT_NEAR(amps(p, "bec", LoadCase::one_stalled), 0.83 + 0.59, 1e-9);
  EXPECT_NEAR(amps(p, "bec", LoadCase::two_stalled), 0.83 + 1.18, 1e-9);
  EXPECT_EQ(p.source("bec")->verdict, "2 A of 3 A with two servos stalled: holds");
  const Lead* esc = nullptr;
  for (const Lead& l : plan.rig.leads)
    if (far_end(l, "esc", "servo")) esc = &l;
  ASSERT_TRUE(esc);
  EXPECT_TRUE(esc->plus_removed) << "one source a rail";
  // Without the regulator nothing feeds the rail.
  WhatIf pulled;
  pulled.without = {"bec"};
  const PowerReport unpowered = analyze_power(plan.rig, shipped(), pulled);
  EXPECT_FALSE(unpowered.consumer("receiver")->powered[static_cast<std::size_t>(SupplyState::battery)]);
}

/// A twin with differential thrust: two speed controllers, one red wire.
TEST(WorkedExample, TwinWithOneRedWire) {
  Rig rig = fresh_rig("worked example", AirframeKind::twin_differential, "full_controller");
  add_part(rig, "battery", "battery_4s_2200");
  const Surface sides[] = {{SurfaceKind::motor, Side::left}, {SurfaceKind::motor, Side::right}};
  for (const Surface s : sides) {
    const std::string side = s.side == Side::left ? "left" : "right";
    add_part(rig, "esc_" + side, "esc_20_switching", s);
    add_part(rig, "motor_" + side, "motor_2212", s);
    add_part(rig, "propeller_" + side, s.side == Side::left ? "propeller_8x6_left" : "propeller_8x6", s);
  }
  add_part(rig, "receiver", "receiver_two_way");
  for (const Surface s : facts_of(AirframeKind::twin_differential).surfaces)
    if (s.kind != SurfaceKind::motor) add_part(rig, "servo_" + s.name(), "servo_9g_digital", s);
  const Plan plan = plan_wiring(rig, shipped());
  // A speed controller has one servo lead: the board's five-volt rail needs a source of its own, and that is said.
  ASSERT_EQ(plan.obstacles.size(), 1u);
  EXPECT_EQ(plan.obstacles[0].code, "POWER-14");
  EXPECT_EQ(plan.obstacles[0].subject, "receiver");
  int red = 0, escs = 0;
  for (const Lead& l : plan.rig.leads)
    for (const char* esc : {"esc_left", "esc_right"})
      if (far_end(l, esc, "servo")) {
        ++escs;
        red += !l.plus_removed;
      }
  EXPECT_EQ(escs, 2);
  EXPECT_EQ(red, 1);
  // Each motor on its own side's speed controller, each speed controller on its own side's output.
  for (const Surface s : sides) {
    const std::string side = s.side == Side::left ? "left" : "right";
    const Output* o = plan.rig.output_of(s);
    ASSERT_TRUE(o);
    bool motor = false, signal = false;
    for (const Lead& l : plan.rig.leads) {
      motor =
          motor || (far_end(l, "esc_" + side, "motor") && far_end(l, "esc_" + side, "motor")->part == "motor_" + side);
      signal =
          signal || (far_end(l, "esc_" + side, "servo") && far_end(l, "esc_" + side, "servo")->socket == o->socket);
    }
    EXPECT_TRUE(motor && signal) << side;
  }
  const PowerReport p = analyze_power(plan.rig, shipped());
  ASSERT_TRUE(p.drive);
  ASSERT_EQ(p.drive->motors.size(), 2u);
  EXPECT_NEAR(p.drive->motors[0].amps, p.drive->motors[1].amps, 1e-9);
  EXPECT_NEAR(p.drive->static_current.value, 2 * p.drive->motors[0].amps, 1e-9);
  // Battery sag: all of it through the internal resistance, 4 · 5 mΩ.
  const auto battery = p.source("battery");
  EXPECT_NEAR(p.sag->value, battery->amps[static_cast<std::size_t>(LoadCase::two_stalled)] * 0.020, 1e-9);
  // Endurance: 2.2 Ah · 0.8 over what flows at cruise, in minutes.
  EXPECT_NEAR(p.endurance->value, 60 * 2.2 * 0.8 / battery->amps[static_cast<std::size_t>(LoadCase::typical)], 1e-9);
  const Review r = review(plan.rig, shipped());
  for (const Snag& s : r.snags) EXPECT_NE(s.code, "POWER-28") << "one propeller is left-handed";
}

/// The demos, budget by hand from the catalogue's figures.
TEST(WorkedExample, BudgetsOfTheDemos) {
  // Hedgerow: four servos 0.30 moving, 1.2 stalled, on the speed controller; on the module receiver 0.10, satellites
  // 0.08, camera 0.14, video 0.72, buzzer 0.03 and, through a diode, the board 0.25.
  const PowerReport hedgerow = analyze_power(demo("hedgerow"), shipped());
  EXPECT_NEAR(amps(hedgerow, "esc", LoadCase::all_moving), 1.2, 1e-9);
  EXPECT_NEAR(amps(hedgerow, "esc", LoadCase::one_stalled), 2.1, 1e-9);
  EXPECT_NEAR(amps(hedgerow, "esc", LoadCase::two_stalled), 3.0, 1e-9);
  EXPECT_NEAR(amps(hedgerow, "module", LoadCase::all_moving), 1.32, 1e-9);
  // Heath: two servos 0.22 and 0.95, receiver 0.10, unit 0.06.
  const PowerReport heath = analyze_power(demo("heath"), shipped());
  EXPECT_NEAR(amps(heath, "esc", LoadCase::all_moving), 0.60, 1e-9);
  EXPECT_NEAR(amps(heath, "esc", LoadCase::one_stalled), 1.33, 1e-9);
  EXPECT_NEAR(amps(heath, "esc", LoadCase::two_stalled), 2.06, 1e-9);
  // Delta: two wing servos 0.28 and 1.1, two small ones 0.10 and 0.5, receiver 0.10, board 0.09 behind its diode.
  const PowerReport delta = analyze_power(demo("delta"), shipped());
  EXPECT_NEAR(amps(delta, "esc", LoadCase::all_moving), 0.95, 1e-9);
  EXPECT_NEAR(amps(delta, "esc", LoadCase::one_stalled), 1.77, 1e-9);
  EXPECT_NEAR(amps(delta, "esc", LoadCase::two_stalled), 2.59, 1e-9);
}

/// The demos, moments summed straight from the files.
TEST(WorkedExample, BalanceOfTheDemos) {
  std::map<std::string, double> catalogue_kg;
  for (const auto& entry : std::filesystem::directory_iterator(in_source("/data/catalogue"))) {
    const Json file = *read_json_file(entry.path());
    for (const char* list : {"parts", "controllers"})
      if (file.contains(list))
        for (const Json& p : file[list])
          if (p.contains("mass_kg")) catalogue_kg[p["id"]] = p["mass_kg"];
  }
  for (const char* name : {"hedgerow", "heath", "delta", "bramble"}) {
    const Json json =
        *read_json_file(std::filesystem::path(in_source("/data/demo")) / (std::string(name) + ".rig.json"));
    double mass = json["fit"]["frame_mass_kg"], moment = mass * json["fit"]["frame_at_m"].get<double>();
    for (const Json& place : json["places"]) {
      std::string kind = json["controller"]["kind"];
      for (const Json& part : json["parts"])
        if (part["id"] == place["part"]) kind = part["kind"];
      mass += catalogue_kg.at(kind);
      moment -= catalogue_kg.at(kind) * place["x_m"].get<double>();
    }
    Rig rig = demo(name);
    rig.leads.clear();
    const Balance b = analyze_fit(rig, shipped(), analyze_airframe(rig), analyze_power(rig, shipped())).balance;
    EXPECT_NEAR(b.total.value, mass, 1e-9) << name;
    EXPECT_NEAR(b.balance_point.value, moment / mass, 1e-9) << name;
  }
}

TEST(WorkedExample, WhichWayThePropellerTurnsIsSaid) {
  const auto said = [](const Rig& rig) {
    std::string all;
    const PowerReport r = analyze_power(rig, shipped());
    for (const std::string& e : r.explanations) all += e + "\n";
    return all;
  };
  const std::string pusher = said(demo("hedgerow"));
  EXPECT_NE(pusher.find("with the clock"), std::string::npos);
  EXPECT_NE(pusher.find("shaft points aft"), std::string::npos);
  Rig tractor = demo("heath");
  EXPECT_EQ(said(tractor).find("shaft points aft"), std::string::npos);
  for (Part& p : tractor.parts)
    if (p.id == "propeller") p.kind = "propeller_8x6_left";
  EXPECT_NE(said(tractor).find("against the clock"), std::string::npos);
}

}  // namespace
}  // namespace rigging
