#include "flight/loop.h"

#include <gtest/gtest.h>

#include <cmath>
#include <deque>
#include <numbers>
#include <random>

#include "base/angle.h"
#include "base/json.h"

namespace rigging {
namespace {

Loop usual() {
  Loop l;
  l.plant = RatePlant::roll(-8.4, 28.9);
  l.servo(7, 0.7);
  l.lowpass(40);
  l.delay_s = 0.02;
  l.rate_gain = 0.3;
  return l;
}

TEST(Loop, TheQuickWayFindsWhatTheThoroughOneFinds) {
  std::mt19937 random(5);
  const auto between = [&random](double a, double b) { return std::uniform_real_distribution(a, b)(random); };
  for (int i = 0; i < 300; ++i) {
    Loop l = usual();
    l.plant = RatePlant::roll(-between(1, 25), std::pow(10, between(0.5, 3)));
    if (i % 3 == 0)
      l.plant = {between(5, 200), between(20, 800), 1, between(2, 15), between(5, 300)};       // a short period
    if (i % 9 == 0) l.plant.b2 = between(-8, 8), l.plant.c1 = 1, l.plant.c0 = between(2, 25);  // and a roll after it
    l.servo(between(3, 15), between(0.5, 1.2));
    l.delay_s = between(0.003, 0.05);
    l.rate_gain = 1e-4;
    if (i % 2 == 0 && l.plant.a2 == 0) l.level_per_s = between(0.2, 5);
    const LoopMargins m = margins_of(l);
    ASSERT_TRUE(m.stable && m.onset) << i;
    const auto quick = onset_of(l);
    ASSERT_TRUE(quick);
    EXPECT_NEAR(quick->rate_gain / m.onset->rate_gain, 1, 1e-6) << i;
    EXPECT_NEAR(quick->hz / m.onset->hz, 1, 1e-6) << i;
    // With this gain there are 45° left at the gain crossover.
    const auto firm = gain_at_phase(l, -135 * rad);
    ASSERT_TRUE(firm);
    l.rate_gain = firm->rate_gain;
    const LoopMargins with = margins_of(l);
    if (with.phase_margin_deg) EXPECT_LE(*with.phase_margin_deg, 45.001) << i;
  }
}

/// Swings of the loop in time: the classical fourth order by steps of 0.2 ms, with the delay as a queue; height of the
/// last second over that of the second one.
double growth(const Loop& l, double rate_gain) {
  struct State {
    double rate = 0.2, angle = 0, servo = 0, servo_rate = 0, filtered = 0.2;
  };
  const double h = 2e-4;
  std::deque<double> queue(static_cast<std::size_t>(std::lround(l.delay_s / h)), 0.0);
  State s;
  double early = 0, late = 0;
  const double end = 8;
  for (double t = 0; t < end; t += h) {
    const double command = -rate_gain * (s.filtered + l.level_per_s * s.angle);
    queue.push_back(command);
    const double input = queue.front();
    queue.pop_front();
    const auto slope = [&](const State& x) {
      State d;
      d.rate = -l.plant.a0 * x.rate + l.plant.b0 * x.servo;
      d.angle = x.rate;
      d.servo = x.servo_rate;
      d.servo_rate = (input - x.servo - l.servo_c1_s * x.servo_rate) / l.servo_c2_s2;
      d.filtered = (x.rate - x.filtered) / l.filter_s;
      return d;
    };
    const auto moved = [](const State& x, const State& d, double k) {
      return State{x.rate + k * d.rate, x.angle + k * d.angle, x.servo + k * d.servo, x.servo_rate + k * d.servo_rate,
                   x.filtered + k * d.filtered};
    };
    const State k1 = slope(s), k2 = slope(moved(s, k1, h / 2)), k3 = slope(moved(s, k2, h / 2)),
                k4 = slope(moved(s, k3, h));
    State sum = moved(s, k1, h / 6);
    sum = moved(sum, k2, h / 3);
    sum = moved(sum, k3, h / 3);
    s = moved(sum, k4, h / 6);
    if (t > 1 && t < 2) early = std::max(early, std::abs(s.rate));
    if (t > end - 1) late = std::max(late, std::abs(s.rate));
  }
  return late / early;
}

TEST(Loop, ShakesInTimeWhereTheMarginsSayWithinATenth) {
  std::mt19937 random(7);
  const auto between = [&random](double a, double b) { return std::uniform_real_distribution(a, b)(random); };
  for (int i = 0; i < 30; ++i) {
    Loop l = usual();
    l.plant = RatePlant::roll(-between(3, 20), between(30, 400));
    l.servo(between(4, 12), between(0.6, 1));
    l.lowpass(between(15, 60));
    l.delay_s = std::round(between(0.006, 0.03) * 1000) / 1000;
    if (i % 2) l.level_per_s = between(0.5, 4);
    const auto onset = onset_of(l);
    ASSERT_TRUE(onset);
    EXPECT_LT(growth(l, 0.9 * onset->rate_gain), 0.95) << i;
    EXPECT_GT(growth(l, 1.1 * onset->rate_gain), 1.05) << i;
  }
}

TEST(Loop, AReversedCorrectionRunsAwayWithoutShaking) {
  Loop l = usual();
  l.rate_gain = -0.4;  // 0.4 · 28.9 is more than the damping of 8.4
  const LoopMargins m = margins_of(l);
  EXPECT_FALSE(m.stable);
  ASSERT_TRUE(m.onset);
  EXPECT_EQ(m.onset->hz, 0);
  EXPECT_NEAR(m.onset->rate_gain, -8.4 / 28.9, 1e-9);
  EXPECT_LT(*m.gain_margin_db, 0);
  l.level_per_s = 2;
  EXPECT_FALSE(margins_of(l).onset) << "with a level part no reversed gain is stable";
}

TEST(Loop, AnAircraftThatFallsAwayIsHeldByEnoughGainOnly) {
  Loop l = usual();
  l.plant = RatePlant::roll(2, 30);
  l.rate_gain = 0.03;
  EXPECT_FALSE(margins_of(l).stable) << "2 / 30 is needed";
  l.rate_gain = 0.2;
  const LoopMargins m = margins_of(l);
  EXPECT_TRUE(m.stable);
  ASSERT_TRUE(m.onset);
  EXPECT_GT(m.onset->rate_gain, 0.2);
}

TEST(Loop, NothingShakesWithoutEnoughLag) {
  Loop l;
  l.plant = RatePlant::roll(-5, 30);
  l.servo_lag(0.05);
  l.rate_gain = 3;
  const LoopMargins m = margins_of(l);
  EXPECT_TRUE(m.stable);
  EXPECT_FALSE(m.onset);
  EXPECT_FALSE(m.gain_margin_db);
  EXPECT_TRUE(m.phase_margin_deg);
  l.rate_gain = 0.05;  // 0.05 · 30 / 5 is below 1 everywhere
  EXPECT_FALSE(margins_of(l).crossover_hz);
  l.rate_gain = 0;
  EXPECT_TRUE(margins_of(l).stable);
}

TEST(Loop, AServoThatRingsShakesAtItsOwnFrequency) {
  Loop l = usual();
  l.servo(9, 0.02);
  const LoopMargins m = margins_of(l);
  ASSERT_TRUE(m.onset);
  EXPECT_NEAR(m.onset->hz, 9, 1.5);
}

TEST(LoopCase, SlipsAreSaidWithTheirPlace) {
  const auto error = [](const char* text) {
    const auto l = parse_json(text, "c").and_then([](const Json& j) { return loop_from_json(j, "c"); });
    return l ? std::string() : l.error().text();
  };
  EXPECT_EQ(error(R"({"plant":{"lp_per_s":-8,"ldelta_per_s2":20},"law":{"rate_gain":0.2}})"), "");
  EXPECT_EQ(error(R"({"plant":{"lp_per_s":-8,"ldelta_per_s2":20},"law":{"rate_gain":0.2},"lowpas_hz":40})"),
            "c: /: unknown member \"lowpas_hz\"; expected plant, servo, lowpass_hz, delay_s, law");
  EXPECT_NE(error(R"({"plant":{"lp_per_s":-8,"ldelta_per_s2":20,"x":1},"law":{"rate_gain":0.2}})").find("/plant"),
            std::string::npos);
  EXPECT_NE(error(R"({"plant":{"ldelta_per_s2":20},"law":{"rate_gain":0.2}})").find("lp_per_s"), std::string::npos);
  EXPECT_NE(error(R"({"plant":{"lp_per_s":-8,"ldelta_per_s2":20},"law":{"rate_gain":0.2},
                     "servo":{"lag_s":0.05,"natural_hz":8,"damping":0.7}})")
                .find("two ways"),
            std::string::npos);
  EXPECT_NE(error(R"({"plant":{"lp_per_s":-8,"ldelta_per_s2":20},"law":{"rate_gain":0.2},"servo":{"natural_hz":8}})")
                .find("not told whole"),
            std::string::npos);
  EXPECT_NE(
      error(R"({"plant":{"lp_per_s":-8,"ldelta_per_s2":20},"law":{"rate_gain":0.2},"delay_s":-1})").find("delay_s"),
      std::string::npos);
  EXPECT_NE(error(R"([])"), "");
}

// Whatever is told within its ranges is answered at once, and what is absurd is refused where it stands.
TEST(Loop, NoCaseIsEndlessAndAbsurdOnesAreRefused) {
  std::mt19937 random(17);
  const auto one_of = [&](double low, double high, bool signs) {
    const double v = std::exp(std::uniform_real_distribution(std::log(low), std::log(high))(random));
    return signs && random() % 2 ? -v : v;
  };
  for (int k = 0; k < 150; ++k) {
    Json c{{"plant", {{"lp_per_s", one_of(1e-6, 1e3, true)}, {"ldelta_per_s2", one_of(1e-6, 1e5, true)}}},
           {"law", {{"rate_gain", one_of(1e-6, 1e3, true)}}}};
    if (k % 2) c["law"]["level_per_s"] = one_of(1e-6, 1e3, false);
    if (k % 3) c["delay_s"] = one_of(1e-6, 2, false);
    if (k % 5) c["lowpass_hz"] = one_of(0.05, 2e3, false);
    if (k % 4 == 0) c["servo"] = {{"lag_s", one_of(1e-4, 10, false)}};
    if (k % 4 == 1) c["servo"] = {{"natural_hz", one_of(0.05, 2e3, false)}, {"damping", one_of(0.01, 10, false)}};
    const auto l = loop_from_json(c, "case");
    ASSERT_TRUE(l) << l.error().text();
    const LoopMargins m = margins_of(*l);
    if (m.onset) EXPECT_TRUE(std::isfinite(m.onset->rate_gain) && std::isfinite(m.onset->hz)) << c.dump();
    if (m.phase_margin_deg) EXPECT_TRUE(std::isfinite(*m.phase_margin_deg)) << c.dump();
  }
  const auto refused = [](const char* text) {
    const auto l = loop_from_json(Json::parse(text), "case.json");
    EXPECT_FALSE(l) << text;
    return l ? std::string() : l.error().text();
  };
  EXPECT_NE(refused(R"({"plant":{"lp_per_s":-8,"ldelta_per_s2":1e-300},"law":{"rate_gain":1}})").find("ldelta_per_s2"),
            std::string::npos);
  EXPECT_NE(refused(R"({"plant":{"lp_per_s":-8,"ldelta_per_s2":1},"servo":{"lag_s":5e-324},"law":{"rate_gain":1}})")
                .find("lag_s"),
            std::string::npos);
  EXPECT_NE(refused(R"({"plant":{"lp_per_s":1e5,"ldelta_per_s2":1},"law":{"rate_gain":1}})").find("lp_per_s"),
            std::string::npos);
}

// The closed form against the equation of motion in small steps: p' = Lp·p + Ld·(stick − k·p).
TEST(Loop, FullStickTurnsAsTheEquationOfMotionDoes) {
  std::mt19937 random(34);
  const auto between = [&random](double a, double b) { return std::uniform_real_distribution(a, b)(random); };
  for (int i = 0; i < 50; ++i) {
    Loop l;
    const double lp = -between(1, 20), ld = between(5, 200);
    l.plant = RatePlant::roll(lp, ld);
    l.rate_gain = between(0, 0.3), l.stick_rad = between(-0.5, 0.5);
    double p = 0;
    for (int k = 0; k < 40000; ++k) p += 2e-4 * (lp * p + ld * (l.stick_rad - l.rate_gain * p));
    const auto steady = full_stick_rate(l);
    ASSERT_TRUE(steady);
    EXPECT_NEAR(*steady, p, 1e-3 * std::abs(p) + 1e-6) << i;
  }
  Loop levels = usual();
  levels.stick_rad = 0.3, levels.level_per_s = 2;
  EXPECT_FALSE(full_stick_rate(levels)) << "the stick asks for an angle there";
}

}  // namespace
}  // namespace rigging
