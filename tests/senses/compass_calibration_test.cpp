#include <gtest/gtest.h>

#include "senses/held.h"

namespace rigging {
namespace {

std::string said(const Calibration& c) {
  std::string all;
  for (const std::string& w : c.why) all += w + ' ';
  return all;
}

TEST(CompassCalibration, HardAndSoftIronAreFound) {
  Hands hands(21);
  for (int again = 0; again < 20; ++again) {
    const Compass compass = Compass::random(hands);
    const Calibration c = calibrate_compass(compass.turned(1500, hands));
    EXPECT_EQ(c.verdict, Verdict::good) << said(c);
    EXPECT_LT((c.offset - compass.hard).norm(), 0.12);
    EXPECT_LT((c.matrix - compass.cure()).cwiseAbs().maxCoeff(), 0.004);
    EXPECT_NEAR(c.matrix.determinant(), 1, 1e-9);
    EXPECT_NEAR(c.residual_rms, 0.4, 0.05);
    EXPECT_GT(c.coverage, 0.99);
  }
}

TEST(CompassCalibration, TheFieldOfThePlaceSetsTheLength) {
  Hands hands(22);
  Compass compass = Compass::random(hands);
  const Calibration c = calibrate_compass(compass.turned(2000, hands), 48);
  EXPECT_EQ(c.verdict, Verdict::good) << said(c);
  EXPECT_DOUBLE_EQ(c.radius, 48);
  EXPECT_LT((c.matrix - compass.soft.inverse()).cwiseAbs().maxCoeff(), 0.004);
  const Calibration other = calibrate_compass(compass.turned(2000, hands), 30);
  EXPECT_NE(said(other).find("of the field of this place"), std::string::npos);
  EXPECT_NE(other.verdict, Verdict::good);
}

TEST(CompassCalibration, OutliersAreLeftOutAndSaid) {
  Hands hands(23);
  const Compass compass = Compass::random(hands);
  for (const double share : {0.1, 0.35}) {
    Recording r = compass.turned(3000, hands);
    // A screwdriver comes near for a while.
    const auto from = static_cast<std::size_t>(3000 * 0.4), to = from + static_cast<std::size_t>(3000 * share);
    for (std::size_t i = from; i < to; ++i) r.readings.x[i] += 15 + hands.normal(8);
    const Calibration c = calibrate_compass(r);
    EXPECT_LT((c.offset - compass.hard).norm(), 0.5) << share;
    EXPECT_NE(said(c).find("left out"), std::string::npos);
    EXPECT_NE(said(c).find(" s to "), std::string::npos) << "when: " << said(c);
    EXPECT_GT(c.verdict, Verdict::good);
    if (share > 0.3) EXPECT_EQ(c.verdict, Verdict::repeat);
  }
}

TEST(CompassCalibration, WhatWasNotTurnedThroughIsSaid) {
  Hands hands(24);
  for (int again = 0; again < 6; ++again) {
    const Compass compass = Compass::random(hands);
    const Calibration flat =
        calibrate_compass(compass.turned(1500, hands, [](const Point& u) { return std::abs(u.z() - 0.4) < 0.02; }));
    EXPECT_EQ(flat.verdict, Verdict::repeat) << said(flat);
    const Calibration cap = calibrate_compass(compass.turned(1500, hands, [](const Point& u) { return u.z() > 0.7; }));
    EXPECT_EQ(cap.verdict, Verdict::repeat) << said(cap);
    EXPECT_LT(cap.coverage, 0.4);
    const Calibration half = calibrate_compass(compass.turned(1500, hands, [](const Point& u) { return u.z() > 0; }));
    EXPECT_NEAR(half.coverage, 0.5, 0.1);
    EXPECT_LT((half.offset - compass.hard).norm(), 2) << "half is worth something";
    if (half.verdict == Verdict::good) EXPECT_LT((half.offset - compass.hard).norm(), 0.8);
  }
}

TEST(CompassCalibration, WhatChangedMeanwhileIsSaid) {
  Hands hands(25);
  const Compass compass = Compass::random(hands);
  Recording r = compass.turned(3000, hands);
  for (std::size_t i = 1500; i < 3000; ++i) r.readings.y[i] += 5;
  const Calibration c = calibrate_compass(r);
  EXPECT_EQ(c.verdict, Verdict::repeat) << said(c);
  EXPECT_NE(said(c).find("second half"), std::string::npos);
}

// A fifth of wild readings, or a few seconds of iron near by: the rest of either half agrees with the other.
TEST(CompassCalibration, WildReadingsAreNoChangeOfTheOffset) {
  for (unsigned seed = 1; seed <= 20; ++seed) {
    Hands hands(seed + 300);
    const Compass compass = Compass::random(hands);
    Recording wild = compass.turned(3000, hands), iron = compass.turned(3000, hands);
    for (std::size_t i = 0; i < wild.size(); ++i)
      if (hands.between(0, 1) < 0.2) {
        const Point p = wild.readings.at(i) + hands.vector(40);
        wild.readings.x[i] = p.x(), wild.readings.y[i] = p.y(), wild.readings.z[i] = p.z();
      }
    const auto from = static_cast<std::size_t>(hands.between(0, 2600));
    for (std::size_t i = from; i < from + 300; ++i) iron.readings.x[i] += 25;
    for (const Recording* r : {&wild, &iron}) {
      const Calibration c = calibrate_compass(*r);
      EXPECT_EQ(said(c).find("second half"), std::string::npos) << seed << ' ' << said(c);
      EXPECT_NE(c.verdict, Verdict::repeat) << seed << ' ' << said(c);
      EXPECT_LT((c.offset - compass.hard).norm(), 1) << seed;
    }
  }
}

/// One turn is flown through from the first reading on: what is known of it only grows.
TEST(CompassCalibration, EarlyOnItIsNotEnoughAndNothingElse) {
  for (unsigned seed = 1; seed <= 20; ++seed) {
    Hands hands(seed + 500);
    const Compass compass = Compass::random(hands);
    for (const double arc : {4.0, 15.0, 40.0}) {
      Recording r;
      for (int i = 0; i < 250; ++i) {
        r.t_s.push_back(i * 0.01);
        const double turn = arc * rad * i / 250;
        const Point u = Point(0.5 * std::cos(turn), 0.5 * std::sin(turn), 0.8 + 0.05 * std::sin(0.1 * i)).normalized();
        r.readings.add(compass.soft * u * compass.field + compass.hard + hands.vector(compass.noise));
      }
      const Calibration c = calibrate_compass(r);
      EXPECT_EQ(c.verdict, Verdict::repeat);
      EXPECT_EQ(said(c).find("magnet"), std::string::npos) << said(c);
      EXPECT_EQ(said(c).find("squeezes"), std::string::npos) << said(c);
      EXPECT_LT(c.coverage, 0.3) << arc << ' ' << said(c);
      if (said(c).find("Not enough yet") == std::string::npos) continue;  // hardly moved at all
      EXPECT_EQ(c.coverage, reach_of(fit_compass(r.readings, r.size()), r.readings).coverage) << "one number";
    }
  }
}

TEST(CompassCalibration, HalvesThatSawDifferentDirectionsAreNoChange) {
  int alarms = 0, said_so = 0;
  for (unsigned seed = 1; seed <= 40; ++seed) {
    Hands hands(seed);
    const Compass compass = Compass::random(hands);
    const Recording upper = compass.turned(1500, hands, [](const Point&u) { return u.z() < 0.15; }),
                    lower = compass.turned(1500, hands, [](const Point&u) { return u.z() > -0.15; });
    for (const double jump : {0.0, 6.0}) {
      Recording all = upper;
      for (std::size_t i = 0; i < lower.size(); ++i) {
        all.t_s.push_back(upper.t_s.back() + 0.02 + lower.t_s[i]);
        all.readings.add(lower.readings.at(i) + Point(jump, 0, 0));
      }
      const bool alarm = said(calibrate_compass(all)).find("second half") != std::string::npos;
      (jump == 0 ? alarms : said_so) += alarm ? 1 : 0;
    }
  }
  EXPECT_EQ(alarms, 0);
  EXPECT_GE(said_so, 38) << "of 40 that did change";
}

TEST(CompassCalibration, SpoiltReadingsHaveAnHonestVerdict) {
  const auto verdict = [](const Recording& r, const char* says) {
    const Calibration c = calibrate_compass(r);
    EXPECT_EQ(c.verdict, Verdict::repeat) << said(c);
    EXPECT_NE(said(c).find(says), std::string::npos) << said(c);
  };
  verdict({}, "too few");
  Recording stuck, nought, still;
  Hands hands(26);
  for (int i = 0; i < 500; ++i) {
    for (Recording* r : {&stuck, &nought, &still}) r->t_s.push_back(i);
    stuck.readings.add({20, 5, 40});
    nought.readings.add({0, 0, 0});
    still.readings.add(Point(20, 5, 40) + hands.vector(0.3));
  }
  verdict(stuck, "never change");
  verdict(nought, "never change");
  verdict(still, "not turned");
}

}  // namespace
}  // namespace rigging
