#include "way_back.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "base/angle.h"
#include "bench_rig.h"
#include "feel/advice.h"
#include "feel/edits.h"
#include "flying.h"
#include "home/flown_home.h"
#include "home/home_rigs.h"
#include "home/modes.h"

namespace rigging::twin {
namespace {

const ControllerClass& controller_of(const Rig& rig) { return *shipped().controller(rig.controller.kind); }

/// Comes home, with the gains that its tuning would end with: the middle of what is calm.
Rig tuned() {
  Rig rig = comes_home();
  const auto set = set_first_gains(rig, shipped(), advise_feel(rig, shipped(), analyze_feel({rig, shipped()})));
  if (set) rig = set->rig;
  for (AxisGain& g : rig.feel.gains) {
    if (g.rate) g.rate = std::max(0.35, *g.rate);
    g.level = 0.4;
  }
  rig.home.return_height_m = 60;
  return rig;
}

Bench in_the_open(const Rig& rig) {
  const Truth truth = *truth_of(rig, controller_of(rig), {});
  SensesTruth senses = senses_of({rig, shipped()});
  sit_as(senses, rig, truth.board);
  Bench bench(rig, controller_of(rig), truth, Harness(rig, shipped(), {}), senses);
  bench.plug({false, true});
  for (int i = 0; i < 3000; ++i) bench.step(0.01);
  return bench;
}

FlightPlan lost_at(double distance_m, double bearing_deg, double wind_m_s, double from_deg) {
  FlightPlan p;
  p.mode = Mode::level;
  p.seconds = 600;
  p.height_m = 60;
  p.north_m = distance_m * std::cos(bearing_deg * rad), p.east_m = distance_m * std::sin(bearing_deg * rad);
  p.heading_deg = bearing_deg;
  p.steady_wind_m_s = wind_m_s, p.steady_from_deg = from_deg;
  p.link_lost_s = 2;
  p.left_mah = 4000;
  return p;
}

// The board's own way back in six degrees of freedom against the closed form: within a seventh and one full turn.
TEST(WayBack, SixDegreesOfFreedomComeHomeAsReckoned) {
  const Rig rig = tuned();
  const HomeReport r = home_of(rig);
  ASSERT_TRUE(r.missing.empty()) << r.missing;
  Bench bench = in_the_open(rig);
  ASSERT_TRUE(bench.finds_place());
  const FlyingTruth air = flying_of({rig, shipped()});
  std::mt19937 random(15);
  const auto between = [&random](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
  const double turn_s = 2 * pi * turn_radius_m(r.performance.cruise_m_s.expected, r.performance.bank_deg) /
                        r.performance.cruise_m_s.expected;
  for (int k = 0; k < 12; ++k) {
    const FlightPlan plan = lost_at(between(250, 900), between(0, 360), between(0, 6), between(0, 360));
    const auto flight = fly(bench, air, plan);
    ASSERT_TRUE(flight) << flight.error().text();
    const FlownHome f = flown_home(*flight, plan, rig, controller_of(rig), r);
    ASSERT_TRUE(f.home) << f.words << " case " << k;
    ASSERT_TRUE(f.reckoned_s);
    EXPECT_NEAR(f.over_home_s, *f.reckoned_s, 0.15 * *f.reckoned_s + turn_s) << k;
    EXPECT_GT(f.lowest_m, 35) << k;
    EXPECT_LT(f.circle_reaches_m, 1.5 * r.circle_radius_m + 20) << k;
  }
}

TEST(WayBack, AWindThatIsTooMuchCarriesItAway) {
  const Rig rig = tuned();
  const HomeReport r = home_of(rig);
  Bench bench = in_the_open(rig);
  FlightPlan plan = lost_at(400, 90, r.performance.cruise_m_s.expected + 3, 270);
  plan.seconds = 120;
  const auto flight = fly(bench, flying_of({rig, shipped()}), plan);
  ASSERT_TRUE(flight) << flight.error().text();
  const FlownHome f = flown_home(*flight, plan, rig, controller_of(rig), r);
  EXPECT_FALSE(f.home);
  EXPECT_FALSE(f.reckoned_s);
  EXPECT_GT(flight->motion.back().east, 500);
}

// What was written to the board decides, and not what is planned.
TEST(WayBack, ABoardThatWasToldToGlideDoesNotComeHome) {
  const Rig rig = tuned();
  Bench bench = in_the_open(rig);
  Rig told = rig;
  told.home.on_loss = LossAction::glide;
  bench.configure(link::image_of(told));
  FlightPlan plan = lost_at(500, 10, 2, 90);
  plan.seconds = 200;
  const auto flight = fly(bench, flying_of({rig, shipped()}), plan);
  ASSERT_TRUE(flight);
  EXPECT_FALSE(flown_home(*flight, plan, rig, controller_of(rig), home_of(rig)).home);
  EXPECT_NE(flight->end.find("reached the ground"), std::string::npos);
}

TEST(WayBack, AnEmptyBatteryEndsIt) {
  const Rig rig = tuned();
  Bench bench = in_the_open(rig);
  FlightPlan plan = lost_at(900, 10, 5, 190);
  plan.left_mah = 40;
  plan.seconds = 300;
  const auto flight = fly(bench, flying_of({rig, shipped()}), plan);
  ASSERT_TRUE(flight);
  EXPECT_FALSE(flown_home(*flight, plan, rig, controller_of(rig), home_of(rig)).home);
  EXPECT_NEAR(flight->used_mah, 40, 0.1);
  EXPECT_NE(flight->end.find("reached the ground"), std::string::npos);
}

// On the bench.
TEST(TwinState, SwitchesChooseByTheRangesThatWereWritten) {
  const Rig rig = comes_home();
  Bench bench = in_the_open(rig);
  const auto stands = [&](double position) {
    bench.turn_control(5, position);
    for (int i = 0; i < 20; ++i) bench.step(0.01);
    return bench.state().mode;
  };
  EXPECT_EQ(stands(-1), "manual");
  EXPECT_EQ(stands(0), "level");
  EXPECT_EQ(stands(1), "rate");
  Rig other = rig;
  other.modes = {{5, 900, 1700, "manual", {}}, {5, 1700, 2100, "level", {}}};
  bench.configure(link::image_of(other));
  EXPECT_EQ(stands(0), "manual");
  EXPECT_EQ(stands(1), "level");
  // Hands that are asked for a mode move the switch to where it is planned.
  bench.mode(Mode::rate);
  for (int i = 0; i < 20; ++i) bench.step(0.01);
  EXPECT_EQ(bench.state().mode, "level") << "what was written decides";
}

TEST(TwinState, ALossIsNoticedWaitedForAndActedOn) {
  const Rig rig = comes_home();
  Bench bench = in_the_open(rig);
  EXPECT_FALSE(bench.state().link_lost);
  bench.transmitter(false);
  const auto after = [&](double s) {
    for (int i = 0; i < s * 100; ++i) bench.step(0.01);
    return bench.state();
  };
  EXPECT_FALSE(after(0.7).link_lost);
  EXPECT_EQ(after(0.6).on_loss, "waits");
  EXPECT_EQ(after(1.7).on_loss, "come_home");
  bench.transmitter(true);
  EXPECT_FALSE(after(0.3).link_lost);
  // A receiver that repeats its last values hides it.
  Rig hides = rig;
  hides.radio.on_loss = OnLoss::hold;
  Bench blind = in_the_open(hides);
  blind.transmitter(false);
  for (int i = 0; i < 1000; ++i) blind.step(0.01);
  EXPECT_FALSE(blind.state().link_lost);
}

TEST(TwinState, ItRefusesToArmWithReasonsThatGo) {
  Rig rig = comes_home();
  const auto refuses = [](const Bench& bench, ArmingRefusal why) {
    const auto all = bench.state().refuses;
    return std::any_of(all.begin(), all.end(), [why](const auto& r) { return r.why == why; });
  };
  const Truth truth = *truth_of(rig, controller_of(rig), {});
  SensesTruth senses = senses_of({rig, shipped()});
  sit_as(senses, rig, truth.board);
  Bench bench(rig, controller_of(rig), truth, Harness(rig, shipped(), {}), senses);
  EXPECT_TRUE(refuses(bench, ArmingRefusal::no_battery));
  bench.plug({false, true});
  for (int i = 0; i < 200; ++i) bench.step(0.01);
  EXPECT_FALSE(refuses(bench, ArmingRefusal::no_battery));
  EXPECT_TRUE(refuses(bench, ArmingRefusal::no_fix));
  bench.throttle(0.5);
  for (int i = 0; i < 20; ++i) bench.step(0.01);
  EXPECT_TRUE(refuses(bench, ArmingRefusal::throttle_open));
  bench.throttle(0);
  for (int i = 0; i < 3000; ++i) bench.step(0.01);
  EXPECT_TRUE(bench.state().refuses.empty()) << name_of(bench.state().refuses.front().why);
  rig.home.turn_home_v = 30;
  bench.configure(link::image_of(rig));
  EXPECT_TRUE(bench.state().battery_low);
  EXPECT_TRUE(refuses(bench, ArmingRefusal::battery_low));
  rig.home.checks_before_arming = false;
  bench.configure(link::image_of(rig));
  EXPECT_TRUE(bench.state().refuses.empty());
}

}  // namespace
}  // namespace rigging::twin
