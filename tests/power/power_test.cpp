#include "power/power.h"

#include <gtest/gtest.h>

#include "bench_rig.h"
#include "review/review.h"

namespace rigging {
namespace {

const RailState& rail(const PowerReport& r, SupplyState s, const std::string& name) {
  for (std::size_t q = 0; q < r.network.rails.size(); ++q)
    if (r.network.rails[q].name == name) return r.states[static_cast<std::size_t>(s)][q];
  static const RailState none;
  ADD_FAILURE() << "no rail called " << name;
  return none;
}

TEST(Power, WhoFeedsWhatInEachSupplyState) {
  const PowerReport r = analyze_power(demo("hedgerow"), shipped());
  EXPECT_TRUE(rail(r, SupplyState::usb, "the board's own supply").live);
  EXPECT_FALSE(rail(r, SupplyState::usb, "servo rail").live);
  EXPECT_FALSE(rail(r, SupplyState::usb, "five-volt rail").live);
  for (const char* name : {"the board's own supply", "servo rail", "five-volt rail", "battery"})
    EXPECT_TRUE(rail(r, SupplyState::battery, name).live) << name;
  const ConsumerReport& rx = *r.consumer("receiver");
  EXPECT_FALSE(rx.powered[static_cast<std::size_t>(SupplyState::usb)]);
  EXPECT_TRUE(rx.powered[static_cast<std::size_t>(SupplyState::battery)]);
  ASSERT_FALSE(r.explanations.empty());
  EXPECT_NE(r.explanations.front().find("No fault"), std::string::npos);
  // Behind a diode the board lives from the higher of its inputs: 5.3 V of the module, less the drop of its lead and
  // the diode's 0.35 V.
  EXPECT_NEAR(rail(r, SupplyState::battery, "the board's own supply").volts, 5.3 - 0.35 - 0.11, 0.02);
}

TEST(Power, CurrentsAddUpOnEveryRail) {
  for (const char* name : {"hedgerow", "heath", "delta", "bramble"}) {
    const PowerReport r = analyze_power(demo(name), shipped());
    for (const LoadCase e :
         {LoadCase::idle, LoadCase::typical, LoadCase::all_moving, LoadCase::one_stalled, LoadCase::two_stalled}) {
      const Solution& s = r.load_cases[static_cast<std::size_t>(e)];
      for (std::size_t q = 0; q < r.network.rails.size(); ++q) {
        if (!s.rails[q].live || s.rails[q].source < 0 ||
            r.network.rails[q].sources[static_cast<std::size_t>(s.rails[q].source)].ideal)
          continue;
        double sum = 0;
        for (std::size_t i = 0; i < r.network.draws.size(); ++i)
          if (r.network.rail_of[static_cast<std::size_t>(r.network.draws[i].node)] == static_cast<int>(q))
            sum += s.draw_a[i];
        for (std::size_t other = 0; other < r.network.rails.size(); ++other) {
          const RailState& o = s.rails[other];
          if (o.source < 0) continue;
          const Source& source = r.network.rails[other].sources[static_cast<std::size_t>(o.source)];
          if (!source.ideal && source.rail_before == static_cast<int>(q))
            sum += source.kind == FeedKind::switching ? o.amps * o.volts / (0.88 * s.rails[q].volts) : o.amps;
        }
        EXPECT_NEAR(s.rails[q].amps, sum, 0.03 * std::max(0.1, sum)) << name << " " << r.network.rails[q].name;
      }
    }
  }
}

TEST(Power, EffortsGrowAndVoltagesFall) {
  const PowerReport r = analyze_power(demo("hedgerow"), shipped());
  const auto& amps = r.source("esc")->amps;
  for (std::size_t e = 1; e < 5; ++e) EXPECT_GT(amps[e], amps[e - 1]);
  const auto& lead = r.consumer("servo_flaperon_left");
  EXPECT_LT(lead->worst_v, lead->rest_v);
  EXPECT_GT(r.brown_out_margin->value, 0.3);
}

TEST(Power, WhatIfsChangeTheAnswerAndNotTheRig) {
  const Rig rig = demo("hedgerow");
  const Rig before = rig;
  const PowerReport plain = analyze_power(rig, shipped());
  WhatIf stalled;
  stalled.stalled = {"servo_inverted_v_left"};
  const PowerReport s = analyze_power(rig, shipped(), stalled);
  const Solution& one = s.load_cases[static_cast<std::size_t>(LoadCase::one_stalled)];
  for (std::size_t i = 0; i < s.network.draws.size(); ++i)
    if (s.network.draws[i].servo)
      EXPECT_NEAR(one.draw_a[i], s.network.draws[i].part == "servo_inverted_v_left" ? 1.2 : 0.3, 1e-12);
  WhatIf pulled;
  pulled.without = {"esc"};
  const PowerReport p = analyze_power(rig, shipped(), pulled);
  EXPECT_FALSE(rail(p, SupplyState::battery, "servo rail").live);
  EXPECT_TRUE(rail(p, SupplyState::battery, "five-volt rail").live);
  WhatIf cell;
  cell.more_cells = 1;
  const PowerReport c = analyze_power(rig, shipped(), cell);
  EXPECT_NEAR(c.battery_full->value, plain.battery_full->value + 4.2, 1e-9);
  EXPECT_GT(c.drive->static_current.value, plain.drive->static_current.value);
  EXPECT_EQ(rig, before);
}

TEST(Power, AdviceMovesTheFewestAndThenItFits) {
  Rig rig = demo("delta");
  for (Part& p : rig.parts)
    if (p.kind.starts_with("servo_")) p.kind = "servo_20g_metal";
  rig.parts[2].kind = "esc_20_linear";
  for (Part& p : rig.parts)
    if (p.id == "esc") p.kind = "esc_20_switching";
  const PowerReport r = analyze_power(rig, shipped());
  ASSERT_GT(r.source("esc")->amps[static_cast<std::size_t>(LoadCase::one_stalled)], 3.0);
  ASSERT_TRUE(r.advice.has_value());
  EXPECT_EQ(r.advice->overloaded, "esc");
  ASSERT_EQ(r.advice->move.size(), 1u) << r.advice->words;
  // Carried out: that one gone from the rail, it holds.
  WhatIf moved;
  moved.without = r.advice->move;
  EXPECT_LE(analyze_power(rig, shipped(), moved).source("esc")->amps[static_cast<std::size_t>(LoadCase::one_stalled)],
            3.0);
}

TEST(Power, TwoSourcesAreSeenAndTheHigherOneFeeds) {
  Rig rig = demo("hedgerow");
  add_part(rig, "bec", "regulator_6v_5a");
  add_lead(rig, "bec_in", "bec", "in", "module", "esc", LeadKind::power);
  add_lead(rig, "bec_out", "bec", "out", "controller", "slot_6");
  const PowerReport r = analyze_power(rig, shipped());
  EXPECT_TRUE(r.source("bec")->supplies);
  EXPECT_FALSE(r.source("esc")->supplies);
  EXPECT_NE(r.source("esc")->verdict.find("stronger"), std::string::npos);
}

TEST(Power, ARegulatorOutOfItsWindowGivesNothing) {
  Rig rig = demo("heath");
  for (Part& p : rig.parts)
    if (p.id == "battery") p.kind = "battery_6s_5000";
  const PowerReport r = analyze_power(rig, shipped());
  EXPECT_FALSE(rail(r, SupplyState::battery, "servo rail").live);
  EXPECT_GT(*r.source("esc")->highest_in_v, r.source("esc")->most_in_v);
}

TEST(Power, EmptyAndBrokenRigsAreSurvived) {
  EXPECT_TRUE(analyze_power(Rig{}, shipped()).sources.empty());
  Rig rig = demo("hedgerow");
  rig.controller.kind = "abacus";
  EXPECT_NO_FATAL_FAILURE(analyze_power(rig, shipped()));
  rig = demo("hedgerow");
  for (Part& p : rig.parts) p.kind = "nonsense";
  EXPECT_TRUE(analyze_power(rig, shipped()).sources.empty());
  // A ring of regulators that feed each other stays dark.
  Rig ring;
  ring.controller.kind = "fixed_mini";
  add_part(ring, "a", "regulator_5v_3a");
  add_part(ring, "b", "regulator_5v_3a");
  add_lead(ring, "ab", "a", "out", "b", "in");
  add_lead(ring, "ba", "b", "out", "a", "in");
  const PowerReport unpowered = analyze_power(ring, shipped());
  for (const RailState& s : unpowered.states[1]) EXPECT_FALSE(s.live);
}

TEST(Power, TwinsShareTheBattery) {
  Rig one = demo("heath"), two = one;
  add_part(two, "esc_2", "esc_20_switching");
  add_part(two, "motor_2", "motor_2205");
  add_part(two, "propeller_2", "propeller_5x4");
  add_lead(two, "esc_2_battery", "esc_2", "battery", "battery", "main", LeadKind::power).length_m = 0.2;
  add_lead(two, "esc_2_motor", "esc_2", "motor", "motor_2", "phases", LeadKind::phase);
  const auto a = analyze_power(one, shipped()).drive, b = analyze_power(two, shipped()).drive;
  ASSERT_EQ(b->motors.size(), 2u);
  // The battery sags for both: less than twice as much, more than one and a half times.
  EXPECT_LT(b->static_current.value, 2 * a->static_current.value);
  EXPECT_GT(b->static_current.value, 1.5 * a->static_current.value);
}

// By hand for one servo: idle 0.01 A, stall 1.2 A; asked 0.2017 of 0.28 N·m at the high end: 0.01 + 1.19 · 0.7205 =
// 0.867 A. Four of them add up.
TEST(Power, ServosHeldInTheAirAddUp) {
  const Rig rig = demo("hedgerow");
  const PowerReport r = analyze_power(rig, shipped());
  ASSERT_TRUE(r.servos_held);
  double least = 0, most = 0;
  for (const ServoLoad& l : analyze_loads(rig, shipped(), analyze_airframe(rig), analyze_surfaces(rig))) {
    least += l.fast.amps_low;
    most += l.fast.amps_high;
    EXPECT_LT(l.fast.amps_low, l.fast.amps_high);
  }
  EXPECT_NEAR(*r.servos_held->least, least, 1e-9);
  EXPECT_NEAR(*r.servos_held->most, most, 1e-9);
  EXPECT_EQ(r.servo_source_a, 5) << "the speed controller's regulator";
  Rig fast = rig;
  fast.airframe.fast_m_s = 90;
  const Review all = review(fast, shipped());
  EXPECT_NEAR(*all.reports.power().servos_held->most, 4 * 1.2, 1e-9)
      << "a stalled servo draws no more than its stall current";
}

// Without its propeller nothing is known of a drive: no figure is better than nought.
TEST(Power, AnUnfinishedDriveGivesNoFigures) {
  Rig rig = demo("hedgerow");
  const auto names = [](const Rig& r) {
    std::string all;
    for (const Figure& f : review(r, shipped()).reports.power().figures()) all += f.name + "; ";
    return all;
  };
  EXPECT_NE(names(rig).find("Endurance"), std::string::npos);
  EXPECT_NE(names(rig).find("Static thrust"), std::string::npos);
  std::erase_if(rig.parts, [](const Part& p) { return shipped().part(p.kind)->group == PartGroup::propeller; });
  EXPECT_EQ(names(rig).find("Endurance"), std::string::npos) << "a battery does not last for days in the air";
  EXPECT_EQ(names(rig).find("Static thrust"), std::string::npos);
  EXPECT_EQ(names(rig).find("Current at full throttle"), std::string::npos);
  // A glider without a motor has the endurance of its receiver and servos.
  std::erase_if(rig.parts, [](const Part& p) { return shipped().part(p.kind)->group == PartGroup::motor; });
  EXPECT_NE(names(rig).find("Endurance"), std::string::npos);
}

}  // namespace
}  // namespace rigging
