#include "senses/air.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace rigging {
namespace {

constexpr double air_rate_hz = 20;

std::vector<double> times(double seconds) {
  std::vector<double> t;
  for (int i = 0; i <= static_cast<int>(seconds * air_rate_hz); ++i) t.push_back(i / air_rate_hz);
  return t;
}

struct Noise {
  std::mt19937 random{7};
  double operator()(double sigma) { return std::normal_distribution<double>(0, sigma)(random); }
};

/// Covered for three seconds, then `push` Pa that decays with `tau_s`, for twelve seconds, then nothing.
std::vector<double> pushed(const std::vector<double>& t, double zero, double push, double tau_s, double held_s = 12) {
  Noise noise;
  std::vector<double> p;
  for (const double s : t) {
    const double on = s < 4 || s > 4 + held_s ? 0 : push * std::exp(-(s - 4) / tau_s);
    p.push_back(zero + on + noise(0.6));
  }
  return p;
}

// Source: ISO 2533 (standard atmosphere): 1000 m geopotential 89 874.6 Pa, 2000 m 79 495.2 Pa.
TEST(Air, PressureHeightIsThatOfTheStandardAtmosphere) {
  EXPECT_NEAR(pressure_height_m(101325), 0, 1e-9);
  EXPECT_NEAR(pressure_height_m(89874.6), 1000, 0.2);
  EXPECT_NEAR(pressure_height_m(79495.2), 2000, 0.3);
}

TEST(Air, BarometerNoiseAndDriftAreFound) {
  Noise noise;
  const auto t = times(60);
  std::vector<double> p;
  // Near the ground 12 Pa are a metre (ρ·g): 0.2 m of noise, 1 m a minute of drift.
  for (const double s : t) p.push_back(101325 + noise(0.2 * 12.01) - s / 60 * 12.01);
  const BarometerReport b = barometer_of(t, p);
  EXPECT_EQ(b.verdict, Verdict::good);
  EXPECT_NEAR(b.noise_m, 0.2, 0.02);
  EXPECT_NEAR(b.drift_m_per_min, 1.0, 0.1);
}

TEST(Air, BarometerInWindWarmingOrOnNonsenseIsSentBack) {
  Noise noise;
  const auto t = times(30);
  std::vector<double> warming, windy, nonsense;
  for (const double s : t) {
    warming.push_back(101325 + noise(2) - s / 60 * 12 * 12);
    windy.push_back(101325 + noise(40));
    nonsense.push_back(3);
  }
  EXPECT_NE(barometer_of(t, warming).why.find("warm up"), std::string::npos);
  EXPECT_NE(barometer_of(t, windy).why.find("Foam over it"), std::string::npos);
  for (const auto& p : {warming, windy, nonsense}) EXPECT_EQ(barometer_of(t, p).verdict, Verdict::repeat);
  EXPECT_EQ(barometer_of(times(4), warming).verdict, Verdict::repeat);
}

TEST(Air, AirspeedThatIsSoundIsGood) {
  const auto t = times(20);
  const AirspeedReport a = airspeed_of(t, pushed(t, 1.5, 400, 400), 14);
  EXPECT_EQ(a.verdict, Verdict::good) << a.why;
  EXPECT_NEAR(a.zero_pa, 1.5, 0.5);
  EXPECT_NEAR(a.zero_m_s, 1.5 / (1.225 * 14), 0.03);  // dV = dp / (ρ·V)
  ASSERT_TRUE(a.lost_in_10s);
  EXPECT_NEAR(*a.lost_in_10s, 1 - std::exp(-10.0 / 400), 0.01);
  EXPECT_NEAR(a.least_m_s, std::sqrt(2 * 3 * 0.6 / 1.225), 0.3);
}

/// Whatever it rustles: a hold counts from its edge, and what it lost is the leak's exponential.
TEST(Air, AHoldCountsFromItsEdgeAndNotFromItsNoisiestReading) {
  std::mt19937 random(3);
  const auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
  for (int k = 0; k < 60; ++k) {
    const double push = between(120, 600), tau = std::exp(between(std::log(25.0), std::log(2000.0))),
                 held = between(5.5, 13), noise = between(0.5, 0.02 * push), rise_s = between(0.1, 0.8);
    const auto t = times(6 + held + 3);
    std::vector<double> p;
    for (const double s : t) {
      const double on = s < 4 || s > 4 + held ? 0 : push * std::min(1.0, (s - 4) / rise_s) * std::exp(-(s - 4) / tau);
      p.push_back(1 + on + std::normal_distribution<double>(0, noise)(random));
    }
    const AirspeedReport a = airspeed_of(t, p);
    ASSERT_TRUE(a.lost_in_10s) << k << " held " << held << " s: " << a.why;
    EXPECT_NEAR(*a.lost_in_10s, 1 - std::exp(-10 / tau), 0.06) << k << ' ' << push << ' ' << noise << ' ' << held;
    EXPECT_NEAR(*a.pushed_pa / push, 1, 0.12);
  }
}

TEST(Air, LeaksOffsetsAndExchangedHosesAreNamed) {
  const auto t = times(20);
  const AirspeedReport leak = airspeed_of(t, pushed(t, 0, 400, 12));
  EXPECT_EQ(leak.verdict, Verdict::repeat);
  EXPECT_NE(leak.why.find("leaks"), std::string::npos) << leak.why;
  EXPECT_NEAR(leak.lost_in_10s.value_or(0), 1 - std::exp(-10.0 / 12), 0.03);
  const AirspeedReport crossed = airspeed_of(t, pushed(t, 0, -400, 400));
  EXPECT_TRUE(crossed.exchanged);
  EXPECT_NE(crossed.why.find("exchanged"), std::string::npos);
  const AirspeedReport off = airspeed_of(t, pushed(t, 30, 400, 400));
  EXPECT_EQ(off.verdict, Verdict::repeat);
  EXPECT_NE(off.why.find("Cover the tube"), std::string::npos);
}

TEST(Air, WhatWasNotTriedIsNotClaimed) {
  const auto t = times(20);
  const AirspeedReport only_zero = airspeed_of(t, pushed(t, 1, 0, 400));
  EXPECT_EQ(only_zero.verdict, Verdict::usable);
  EXPECT_FALSE(only_zero.pushed_pa);
  EXPECT_NE(only_zero.why.find("not known"), std::string::npos);
  const AirspeedReport puffed = airspeed_of(t, pushed(t, 1, 400, 400, 2));
  EXPECT_TRUE(puffed.pushed_pa);
  EXPECT_FALSE(puffed.lost_in_10s);
  EXPECT_EQ(puffed.verdict, Verdict::usable);
  EXPECT_EQ(airspeed_of({}, {}).verdict, Verdict::repeat);
  const std::vector<double> frozen(t.size(), 98000), absurd(t.size(), 1e300);
  EXPECT_NE(barometer_of(t, frozen).why.find("frozen"), std::string::npos);
  EXPECT_NE(airspeed_of(t, absurd).why.find("none of a tube"), std::string::npos);
}

}  // namespace
}  // namespace rigging
