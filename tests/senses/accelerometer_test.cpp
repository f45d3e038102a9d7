#include <gtest/gtest.h>

#include <algorithm>
#include <set>

#include "earth/gravity.h"
#include "senses/held.h"

namespace rigging {
namespace {

std::string joined(const Calibration& c) {
  std::string all;
  for (const std::string& w : c.why) all += w + ' ';
  return all;
}

TEST(AccelerometerCalibration, FacesAndEdgesTellAllNine) {
  Hands hands(11);
  for (int again = 0; again < 12; ++again) {
    const Accelerometer sensor = Accelerometer::random(hands);
    const Calibration c = calibrate_accelerometer(poses_of(sensor, faces_and_edges(), hands), standard_gravity);
    EXPECT_EQ(c.verdict, Verdict::good) << joined(c);
    EXPECT_EQ(c.poses.size(), 18u) << "found by themselves";
    EXPECT_DOUBLE_EQ(c.coverage, 1);
    EXPECT_LT((c.offset - sensor.offset).cwiseAbs().maxCoeff(), 0.03);
    EXPECT_LT((c.matrix - sensor.matrix).cwiseAbs().maxCoeff(), 0.004);
    EXPECT_EQ(c.outliers, 0u);
  }
}

TEST(AccelerometerCalibration, SixFacesLeaveCrossTermsAtNoughtAndSaySo) {
  Hands hands(12);
  for (int again = 0; again < 8; ++again) {
    const Accelerometer sensor = Accelerometer::random(hands);
    const Calibration c = calibrate_accelerometer(poses_of(sensor, six_faces(), hands), standard_gravity);
    EXPECT_NE(joined(c).find("cross-axis"), std::string::npos);
    EXPECT_NEAR(c.matrix(0, 1), 0, 1e-4);
    EXPECT_NE(c.verdict, Verdict::good);
    EXPECT_LT((c.offset - sensor.offset).cwiseAbs().maxCoeff(), 0.03);
    EXPECT_LT((c.matrix - sensor.matrix).diagonal().cwiseAbs().maxCoeff(), 0.003);
  }
}

// However many there are: what the poses determine is told, and with its error; the truth lies within it.
TEST(AccelerometerCalibration, WhatThePosesDetermineDecidesAndNotTheirNumber) {
  Hands hands(21);
  int told = 0, within = 0, of = 0;
  for (int again = 0; again < 60; ++again) {
    const Accelerometer sensor = Accelerometer::random(hands, 0.015);
    std::vector<Point> directions = six_faces();
    const int more = 3 + again % 3;
    while (directions.size() < static_cast<std::size_t>(6 + more)) directions.push_back(hands.direction());
    const Calibration c = calibrate_accelerometer(poses_of(sensor, directions, hands), standard_gravity);
    EXPECT_EQ(joined(c).find("contradict"), std::string::npos) << joined(c);
    EXPECT_EQ(joined(c).find("drifted"), std::string::npos) << joined(c);
    EXPECT_NE(c.verdict, Verdict::repeat) << joined(c);
    for (int k = 0; k < 3; ++k, ++of) within += std::abs(c.offset[k] - sensor.offset[k]) < 2.5 * c.offset_error[k];
    told += c.verdict == Verdict::good;
    if (c.verdict == Verdict::good) EXPECT_LT((c.matrix - sensor.matrix).cwiseAbs().maxCoeff(), 0.015) << joined(c);
  }
  EXPECT_GT(told, 5) << "nine to eleven can be enough";
  EXPECT_GE(within, of - 3);
}

TEST(AccelerometerCalibration, AZeroThatDriftsMeanwhileIsNotPassed) {
  Hands hands(22);
  int found = 0, of = 0;
  for (int again = 0; again < 40; ++again) {
    const Accelerometer sensor = Accelerometer::random(hands);
    std::vector<Point> directions = again % 2 ? six_faces() : faces_and_edges();
    std::shuffle(directions.begin() + 1, directions.end(), hands.random);
    Recording r = poses_of(sensor, directions, hands);
    const double total = again % 2 ? 0.6 : 0.2;
    const Point drift = hands.direction() * total / r.t_s.back();
    Recording drifts = r;
    drifts.readings = {};
    for (std::size_t i = 0; i < r.size(); ++i) drifts.readings.add(r.readings.at(i) + drift * r.t_s[i]);
    const Calibration c = calibrate_accelerometer(drifts, standard_gravity);
    EXPECT_NE(c.verdict, Verdict::good) << joined(c);
    found += joined(c).find("drifted") != std::string::npos, ++of;
    const Calibration steady = calibrate_accelerometer(r, standard_gravity);
    EXPECT_EQ(joined(steady).find("drifted"), std::string::npos) << joined(steady);
  }
  EXPECT_GT(found, of * 3 / 4);
}

TEST(AccelerometerCalibration, SpoiltPosesAreLeftOutNotFittedIn) {
  Hands hands(13);
  for (int again = 0; again < 8; ++again) {
    const Accelerometer sensor = Accelerometer::random(hands);
    const std::set<std::size_t> spoilt{static_cast<std::size_t>(again), 9};
    const Calibration c = calibrate_accelerometer(poses_of(sensor, faces_and_edges(), hands, spoilt), standard_gravity);
    for (std::size_t i = 0; i < c.bad.size(); ++i) EXPECT_EQ(c.bad[i], spoilt.count(i) > 0) << i << ' ' << joined(c);
    EXPECT_EQ(c.verdict, Verdict::usable);
    EXPECT_LT((c.offset - sensor.offset).cwiseAbs().maxCoeff(), 0.03);
  }
}

TEST(AccelerometerCalibration, WhatDoesNotDetermineItIsRepeated) {
  Hands hands(14);
  const Accelerometer sensor = Accelerometer::random(hands);
  const auto verdict = [&](const Recording& r, const char* says) {
    const Calibration c = calibrate_accelerometer(r, standard_gravity);
    EXPECT_EQ(c.verdict, Verdict::repeat) << joined(c);
    EXPECT_NE(joined(c).find(says), std::string::npos) << joined(c);
    return c;
  };
  std::vector<Point> five = six_faces();
  five.pop_back();
  const Calibration c = verdict(poses_of(sensor, five, hands), "Only 5");
  EXPECT_EQ(c.offset, Point(0, 0, 0)) << "nothing is corrected by what nothing tells";
  verdict({}, "No still pose");
  Recording waved;
  for (int i = 0; i < 3000; ++i) {
    waved.t_s.push_back(i / 100.0);
    waved.readings.add(hands.direction() * 9.8 + hands.vector(2));
  }
  verdict(waved, "No still pose");
  // All of it on one side: zero and scale of an axis can't be told apart.
  std::vector<Point> above;
  while (above.size() < 14)
    if (const Point p = hands.direction(); p.z() < -0.5) above.push_back(p);
  const Calibration half = calibrate_accelerometer(poses_of(sensor, above, hands), standard_gravity);
  EXPECT_EQ(half.verdict, Verdict::repeat) << joined(half);
}

// A slow log is all poses: a thousand of them, some spoilt, are judged as well as eighteen, and at once.
TEST(AccelerometerCalibration, AThousandPosesAreJudgedToo) {
  Hands hands(31);
  const Accelerometer sensor = Accelerometer::random(hands);
  Recording r;
  for (int i = 0; i < 3000; ++i) {
    r.t_s.push_back(i / 3.0);
    r.readings.add(sensor.read(hands.direction() * 9.80665 * (i % 10 == 3 ? 1.1 : 1), hands));
  }
  const Calibration c = calibrate_accelerometer(r, standard_gravity);
  ASSERT_EQ(c.poses.size(), 3000u);
  EXPECT_LT((c.offset - sensor.offset).cwiseAbs().maxCoeff(), 0.03) << joined(c);
  EXPECT_NEAR(static_cast<double>(std::count(c.bad.begin(), c.bad.end(), true)), 300, 30);
}

TEST(AccelerometerCalibration, ASlowTurnIsNoPoseAndASpikeSpoilsNone) {
  Recording r;
  Hands hands(15);
  const auto add = [&](const Point& p) {
    r.t_s.push_back(static_cast<double>(r.size()) / 50);
    r.readings.add(p + hands.vector(0.03));
  };
  for (int i = 0; i < 100; ++i) add({0, 0, -9.8});
  for (int i = 0; i < 400; ++i) add(about(Point::UnitY(), i * 0.2) * Point(0, 0, -9.8));  // 10° a second
  for (int i = 0; i < 100; ++i) add(i == 50 ? Point(80, 0, 0) : about(Point::UnitY(), 80) * Point(0, 0, -9.8));
  const auto poses = still_poses(r);
  ASSERT_EQ(poses.size(), 2u);
  EXPECT_NEAR(poses[0].mean.z(), -9.8, 0.02);
  EXPECT_LT((poses[1].mean - about(Point::UnitY(), 80) * Point(0, 0, -9.8)).norm(), 0.05);
}

TEST(AccelerometerCalibration, ReadingsInUnitsOfGAreSaidToBe) {
  const auto r = parse_recording("t_s,ax,ay,az\n0,0,0,-1\n1,0,1,0\n", "f", {"ax", "ay", "az"}, standard_gravity);
  ASSERT_FALSE(r);
  EXPECT_NE(r.error().text().find("not units of g"), std::string::npos) << r.error().text();
  EXPECT_FALSE(parse_recording("t_s,ax,ay,az\n1,0,0,-9\n0,0,9,0\n", "f", {"ax", "ay", "az"}, 9.8));
  EXPECT_FALSE(parse_recording("t_s,ax,ay\n1,0,0\n", "f", {"ax", "ay", "az"}, 9.8));
  EXPECT_FALSE(parse_recording("t_s,ax,ay,az\n", "f", {"ax", "ay", "az"}, 9.8));
}

}  // namespace
}  // namespace rigging
