#include "senses/gyro.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace rigging {
namespace {

/// Readings at 100 Hz: a zero, white noise, and what `extra` adds.
Recording still(double seconds, const Point& zero, double noise, unsigned seed = 1) {
  std::mt19937 random(seed);
  std::normal_distribution<double> normal(0, noise);
  Recording r;
  for (int i = 0; i < static_cast<int>(seconds * 100); ++i) {
    r.t_s.push_back(i * 0.01);
    r.readings.add(zero + Point(normal(random), normal(random), normal(random)));
  }
  return r;
}

TEST(Gyro, FindsTheZeroWithinItsOwnError) {
  const Point zero(0.12, -0.3, 0.05);
  for (unsigned seed = 1; seed <= 20; ++seed) {
    const GyroReport g = gyro_of(still(10, zero, 0.08, seed));
    ASSERT_EQ(g.verdict, Verdict::good);
    for (int axis = 0; axis < 3; ++axis) {
      EXPECT_NEAR(g.zero_deg_s[axis], zero[axis], 4.5 * g.zero_error_deg_s[axis]);
      EXPECT_NEAR(g.noise_deg_s[axis], 0.08, 0.01);
      // The standard error of a mean, and the wander that ten seconds can't exclude.
      EXPECT_GT(g.zero_error_deg_s[axis], 0.9 * 0.08 / std::sqrt(1000.0));
      EXPECT_LT(g.zero_error_deg_s[axis], 4 * 0.08 / std::sqrt(1000.0));
    }
    EXPECT_TRUE(g.moved.empty());
  }
}

// A zero that walks (IEEE Std 952: K·√t): the next minute's zero lies within the error that is said of this one.
TEST(Gyro, TheErrorOfItsZeroKnowsItsWander) {
  double squares = 0;
  int of = 0;
  for (unsigned seed = 1; seed <= 40; ++seed) {
    std::mt19937 random(seed + 70);
    std::normal_distribution<double> normal;
    const double walk = 0.003 * std::pow(3, seed % 3);  // °/s/√s
    Recording r;
    Point zero(0.1, -0.2, 0.05);
    for (int i = 0; i < 6000; ++i) {
      const auto three = [&](double sigma) -> Point {
        return Point(normal(random), normal(random), normal(random)) * sigma;
      };
      zero += three(walk * 0.1);
      r.t_s.push_back(i * 0.01);
      r.readings.add(zero + three(0.08));
    }
    const GyroReport g = gyro_of(r);
    for (int axis = 0; axis < 3; ++axis, ++of) {
      const double z = (g.zero_deg_s[axis] - zero[axis]) / g.zero_error_deg_s[axis];
      squares += z * z;
      EXPECT_LT(std::abs(z), 6) << seed;
    }
  }
  EXPECT_NEAR(std::sqrt(squares / of), 1, 0.45) << "neither bold nor useless";
}

TEST(Gyro, SaysWhenItWasMovedAndUsesTheStillPart) {
  Recording r = still(12, {0.1, 0, 0}, 0.08);
  for (std::size_t i = 300; i < 380; ++i) r.readings.y[i] += 20;
  const GyroReport g = gyro_of(r);
  ASSERT_EQ(g.moved.size(), 1u);
  EXPECT_NEAR(g.moved[0].from_s, 3.0, 0.3);
  EXPECT_NEAR(g.moved[0].to_s, 3.8, 0.3);
  EXPECT_NEAR(g.moved[0].most_deg_s, 20, 1);
  EXPECT_NEAR(g.zero_deg_s.y(), 0, 0.02);
  EXPECT_NE(g.why.find("It was moved at 3"), std::string::npos) << g.why;
}

TEST(Gyro, AZeroThatWasTakenInMotionIsSentBackToTheStart) {
  const GyroReport moved = gyro_of(still(10, {0, 4, 0}, 0.08), {true, {}});
  EXPECT_EQ(moved.verdict, Verdict::repeat);
  EXPECT_NE(moved.why.find("it was moved while it looked for its zero"), std::string::npos);
  EXPECT_EQ(gyro_of(still(10, {0, 1.0, 0}, 0.08), {true, {}}).verdict, Verdict::usable);
  EXPECT_EQ(gyro_of(still(10, {0, 0.2, 0}, 0.08), {true, {}}).verdict, Verdict::good);
  // Not zeroed, the same four degrees a second are what any bare sensor says.
  EXPECT_EQ(gyro_of(still(10, {0, 4, 0}, 0.08)).verdict, Verdict::good);
}

TEST(Gyro, NeverStillTooShortAndTooLoudAreRepeat) {
  std::mt19937 random(3);
  std::uniform_real_distribution<double> any(-90, 90);
  Recording shaken = still(10, {0, 0, 0}, 0.08);
  for (std::size_t k = 0; k < 40; ++k) {
    const double rate = any(random);
    for (std::size_t i = 0; i < 25; ++i) shaken.readings.x[k * 25 + i] += rate;
  }
  EXPECT_EQ(gyro_of(shaken).verdict, Verdict::repeat);
  EXPECT_EQ(gyro_of(still(1.5, {0, 0, 0}, 0.08)).verdict, Verdict::repeat);
  EXPECT_EQ(gyro_of(still(10, {0, 0, 0}, 2)).verdict, Verdict::repeat);
  EXPECT_EQ(gyro_of({}).verdict, Verdict::repeat);
  const GyroReport frozen = gyro_of(still(10, {0, 0, 0}, 0));
  EXPECT_EQ(frozen.verdict, Verdict::repeat);
  EXPECT_NE(frozen.why.find("frozen"), std::string::npos);
}

TEST(Gyro, DriftWithTemperatureIsFoundWhereItWarmsUp) {
  Recording r = still(60, {0.1, 0, 0}, 0.08);
  GyroOptions options;
  for (std::size_t i = 0; i < r.size(); ++i) {
    const double c = 20 + 15 * (1 - std::exp(-r.t_s[i] / 30));
    options.temperature_c.push_back(c);
    r.readings.z[i] += 0.02 * (c - 20);
  }
  const GyroReport g = gyro_of(r, options);
  ASSERT_TRUE(g.drift_deg_s_per_c);
  EXPECT_NEAR(g.drift_deg_s_per_c->z(), 0.02, 0.002);
  EXPECT_NEAR(g.drift_deg_s_per_c->x(), 0, 0.002);
  for (double& c : options.temperature_c) c = 21;
  EXPECT_FALSE(gyro_of(r, options).drift_deg_s_per_c);
}

}  // namespace
}  // namespace rigging
