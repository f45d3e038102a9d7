#include "senses/interference.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace rigging {
namespace {

struct MotorRun {
  Recording field;
  std::vector<double> amps;
};

/// A motor run up to `most_a` in steps, the field growing by `per_a`.
MotorRun run(const Point& per_a, double most_a, double noise = 0.35, unsigned seed = 1) {
  std::mt19937 random(seed);
  std::normal_distribution<double> normal(0, noise);
  MotorRun r;
  for (int i = 0; i < 1000; ++i) {
    const double amps = most_a * (i / 200) / 4.0;
    r.field.t_s.push_back(i * 0.02);
    r.field.readings.add(Point(20, -3, 43) + amps * per_a + Point(normal(random), normal(random), normal(random)));
    r.amps.push_back(amps);
  }
  return r;
}

TEST(Interference, FieldPerAmpereIsFoundWithinItsError) {
  const Point per_a(0.3, -0.1, 0.2);
  int out = 0;
  for (unsigned seed = 1; seed <= 30; ++seed) {
    const MotorRun r = run(per_a, 10, 0.35, seed);
    const Interference f = interference_of(r.field, r.amps, 25, 20);
    for (int axis = 0; axis < 3; ++axis) out += std::abs(f.per_a[axis] - per_a[axis]) > 2 * f.per_a_error[axis] ? 1 : 0;
    EXPECT_TRUE(f.estimate);
  }
  EXPECT_LE(out, 14);  // of 90, 5 % are expected beyond two deviations
}

TEST(Interference, VerdictsFollowTheHeadingError) {
  const auto judged = [](double ut_per_a) {
    const MotorRun r = run({ut_per_a, 0, 0}, 20);
    return interference_of(r.field, r.amps, 25, 20);
  };
  EXPECT_EQ(judged(0.0).verdict, Verdict::good);
  const Interference some = judged(0.08);  // 2 µT of 20: asin(0.1) = 5.7°
  EXPECT_EQ(some.verdict, Verdict::usable);
  EXPECT_NEAR(some.heading_deg, 5.74, 0.4);
  EXPECT_FALSE(some.estimate);
  const Interference much = judged(0.6);  // 15 µT of 20: 48.6°
  EXPECT_EQ(much.verdict, Verdict::repeat);
  EXPECT_NEAR(much.heading_deg, 48.6, 1.5);
  // A pair's field falls with the square: at this distance two degrees are left.
  EXPECT_NEAR(much.distance_factor, std::sqrt(15 / (20 * std::sin(2 * 3.14159265 / 180))), 0.1);
}

TEST(Interference, TooLittleCurrentOrAMovedModelIsSaid) {
  const MotorRun little = run({0.3, 0, 0}, 1);
  EXPECT_NE(interference_of(little.field, little.amps, 25, 20).why.find("current changed"), std::string::npos);
  MotorRun moved = run({0.3, 0, 0}, 20);
  std::mt19937 random(5);
  std::uniform_real_distribution<double> any(-20, 20);
  for (std::size_t i = 0; i < moved.field.size(); ++i) moved.field.readings.x[i] += i % 3 ? any(random) : 0;
  const Interference f = interference_of(moved.field, moved.amps, 25, 20);
  EXPECT_NE(f.verdict, Verdict::good);
  EXPECT_EQ(interference_of({}, {}, 25, 20).verdict, Verdict::repeat);
}

TEST(Interference, ASpikeOfIronIsLeftOut) {
  MotorRun r = run({0.08, 0, 0}, 20);
  for (std::size_t i = 500; i < 530; ++i) r.field.readings.x[i] += 30;
  EXPECT_NEAR(interference_of(r.field, r.amps, 25, 20).per_a.x(), 0.08, 0.01);
}

}  // namespace
}  // namespace rigging
