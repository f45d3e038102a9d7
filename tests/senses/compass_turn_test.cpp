#include "senses/compass_turn.h"

#include <gtest/gtest.h>

#include "senses/held.h"

namespace rigging {
namespace {

struct Turned {
  std::vector<Point> fields, forces;
};

/// A compass that sits so on a model that is turned any way; `dip_deg` downward.
Turned turned(const Turn& sits, double dip_deg, Hands& hands, bool all_ways, double noise = 0.4) {
  const Point earth = 48 * Point(std::cos(dip_deg * rad), 0, std::sin(dip_deg * rad));
  Turned t;
  for (int i = 0; i < 500; ++i) {
    const Eigen::Matrix3d attitude =
        all_ways ? Eigen::Matrix3d(about(hands.direction(), hands.between(-180, 180)))
                 : Eigen::Matrix3d(about(Point::UnitZ(), i * 0.72) * about(hands.direction(), hands.normal(3)));
    t.fields.push_back(alignment_matrix(sits).transpose() * (attitude.transpose() * earth) + hands.vector(noise));
    t.forces.push_back(attitude.transpose() * Point(0, 0, -9.80665) + hands.vector(0.3));
  }
  return t;
}

TEST(CompassTurn, EveryTurnIsFoundNorthAndSouthOfTheEquator) {
  Hands hands(4);
  for (const double dip : {66.0, 15.0, -55.0})
    for (const Turn& sits : all_turns()) {
      const Turned t = turned(sits, dip, hands, true);
      const CompassTurn found = compass_turn(t.fields, t.forces);
      ASSERT_TRUE(found.turn) << sits.name() << " " << dip << ": " << found.why;
      EXPECT_EQ(found.turn->name(), sits.name());
      EXPECT_NEAR(found.dip_deg, dip, 1.5);
    }
}

TEST(CompassTurn, TurningOnTheTableAloneDoesNotTell) {
  Hands hands(9);
  const Turned t = turned(Turn{}, 66, hands, false);
  const CompassTurn found = compass_turn(t.fields, t.forces);
  EXPECT_FALSE(found.turn) << found.why;
  EXPECT_GT(found.candidates.size(), 1u);
}

TEST(CompassTurn, TooFewOrTooHastyIsSaid) {
  EXPECT_FALSE(compass_turn({}, {}).turn);
  Hands hands(2);
  Turned t = turned(Turn{}, 66, hands, true);
  for (Point& f : t.forces) f *= 1.6;
  EXPECT_FALSE(compass_turn(t.fields, t.forces).turn);
  // A compass full of iron: no turn keeps the angle.
  Turned iron = turned(Turn{}, 66, hands, true);
  for (Point& f : iron.fields) f += Point(90, 0, 0);
  EXPECT_FALSE(compass_turn(iron.fields, iron.forces).turn);
}

}  // namespace
}  // namespace rigging
