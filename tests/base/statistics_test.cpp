#include "base/statistics.h"

#include <gtest/gtest.h>

#include <cmath>

namespace rigging {
namespace {

TEST(Statistics, AreThoseOfPaper) {
  const std::vector<double> v{4, 1, 3, 2, 10};
  EXPECT_EQ(mean(v), 4);
  EXPECT_EQ(median(v), 3);
  EXPECT_EQ(median({1, 2, 3, 4}), 3) << "the upper one";
  // Steps −3, 2, −1, 8: √((9 + 4 + 1 + 64) / 8).
  EXPECT_NEAR(step_deviation(v), std::sqrt(78.0 / 8), 1e-12);
  EXPECT_NEAR(slope(std::vector<double>{0, 1, 2}, std::vector<double>{5, 7, 9}), 2, 1e-12);
}

TEST(Statistics, OfNothingAreNothing) {
  EXPECT_EQ(mean({}), 0);
  EXPECT_EQ(median({}), 0);
  EXPECT_EQ(step_deviation(std::vector<double>{3}), 0);
  EXPECT_EQ(slope(std::vector<double>{2, 2}, std::vector<double>{1, 5}), 0);
}

}  // namespace
}  // namespace rigging
