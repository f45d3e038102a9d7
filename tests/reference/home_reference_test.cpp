#include <gtest/gtest.h>

#include <cmath>

#include "base/angle.h"
#include "home/way_home.h"

namespace rigging {
namespace {

// FAA-H-8083-25, Pilot's Handbook of Aeronautical Knowledge: radius V²/(g·tan φ), load factor 1/cos φ, 2.0 at 60°.
TEST(HomeReference, CoordinatedTurn) {
  EXPECT_NEAR(turn_radius_m(20, 30), 70.65, 0.01);
  // At a load factor of 2 the lift's horizontal part is √3 times the weight.
  EXPECT_NEAR(turn_radius_m(20, 60), 400 / 9.80665 / std::sqrt(3.0), 1e-9);
  EXPECT_NEAR(bank_for_deg(20, turn_radius_m(20, 30)), 30, 1e-9);
}

// Drift triangle by vectors: a 3-4-5 one. 5 m/s through the air, 3 m/s across: 4 m/s over the ground.
TEST(HomeReference, DriftTriangle) {
  const auto right = track_on(0, 5, {3, 90});
  ASSERT_TRUE(right);
  EXPECT_NEAR(right->ground_m_s, 4, 1e-12);
  EXPECT_NEAR(right->heading_deg, std::asin(0.6) / rad, 1e-12);
  EXPECT_NEAR(right->drift_deg, -std::asin(0.6) / rad, 1e-12) << "wind from the right carries it to the left";
  EXPECT_FALSE(track_on(0, 5, {5, 0}));
  EXPECT_FALSE(track_on(0, 5, {5, 90})) << "all of the airspeed goes into holding the line";
  EXPECT_NEAR(track_on(200, 5, {6, 20})->ground_m_s, 11, 1e-12);
}

}  // namespace
}  // namespace rigging
