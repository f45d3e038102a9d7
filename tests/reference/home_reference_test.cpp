#include <gtest/gtest.h>

#include <cmath>

#include "base/angle.h"
#include "home/glide.h"

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

// The glide ring in wind: a circle of radius V·t whose middle the wind has carried by W·t (MacCready's ring for the
// time that the height lasts). A point on it lies on the track by the law of cosines; solved here as a quadratic.
TEST(HomeReference, GlideRingIsACircleCarriedByTheWind) {
  const double v = 11, sink = 1.1, height = 90, t = height / sink;
  for (const double w : {0.0, 3.0, 9.0}) {
    const SteadyWind wind{w, 250};
    for (int track = 0; track < 360; track += 15) {
      // |d·u − W·t·e| = V·t, e downwind.
      const double c = std::cos((track - 70) * rad), b = w * t * c;
      const double d = b + std::sqrt(b * b - w * w * t * t + v * v * t * t);
      EXPECT_NEAR(glide_reach_m(v, sink, height, wind, track), d, 1e-6 * d) << w << ' ' << track;
    }
  }
  // In a wind above its speed only what lies within arcsin(V/W) of downwind can be reached.
  const SteadyWind storm{22, 250};
  const double half = std::asin(v / 22) / rad;
  EXPECT_GT(glide_reach_m(v, sink, height, storm, 70 + half - 1), 0);
  EXPECT_EQ(glide_reach_m(v, sink, height, storm, 70 + half + 1), 0);
}

}  // namespace
}  // namespace rigging
