#include "senses/vibration.h"

#include <gtest/gtest.h>

#include "senses/held.h"

namespace rigging {
namespace {

Recording shaken(double rate_hz, double seconds, const std::function<Point(double)>& force) {
  Recording r;
  const auto n = static_cast<int>(rate_hz * seconds);
  for (int i = 0; i < n; ++i) {
    r.t_s.push_back(i / rate_hz);
    r.readings.add(force(i / rate_hz));
  }
  return r;
}

// Closed form: a sine of amplitude A has A²/2 of power, and stands at its frequency.
// Two seconds of readings a nanosecond apart, with one pause between: no grid is laid over what holds nothing.
TEST(Vibration, APauseIsAPauseAndNoSpectrumIsMadeOfNothing) {
  Recording few;
  for (int i = 0; i < 200; ++i) {
    few.t_s.push_back(i * 1e-9 + (i > 100 ? 3 : 0));
    few.readings.add({0, 0, -9.8 + 0.01 * (i % 7)});
  }
  const Vibration v = vibration_of(few, {});
  EXPECT_EQ(v.verdict, Verdict::repeat);
  EXPECT_NE(v.why.find("without a pause"), std::string::npos) << v.why;
  // A sine on either side of a pause: found as if it were not there, with its own height.
  Recording sine;
  for (int i = 0; i < 2400; ++i) {
    const double t = i * 0.005 + (i >= 1200 ? 7.3 : 0);
    sine.t_s.push_back(t);
    sine.readings.add({2 * std::sin(2 * 3.14159265358979 * 30 * t), 0, -9.8 + 0.01 * (i % 3)});
  }
  const Vibration w = vibration_of(sine, {});
  ASSERT_FALSE(w.peaks.empty()) << w.why;
  EXPECT_NEAR(w.peaks[0].hz, 30, 0.2);
  EXPECT_NEAR(w.peaks[0].amplitude, 2, 0.1);
  EXPECT_TRUE(std::isfinite(w.rms));
}

TEST(Vibration, ASineStandsWhereItIsWithWhatItHas) {
  Hands hands(51);
  for (const double hz : {23.0, 47.3, 110.0}) {
    const Vibration v = vibration_of(shaken(400, 6, [&](double t) -> Point {
      return Point(2.5 * std::sin(2 * pi * hz * t), 0, -9.8) + hands.vector(0.05);
    }));
    ASSERT_FALSE(v.peaks.empty());
    EXPECT_NEAR(v.peaks[0].hz, hz, 0.3);
    EXPECT_NEAR(v.peaks[0].amplitude, 2.5, 0.15);
    EXPECT_NEAR(v.rms, 2.5 / std::sqrt(2.0), 0.03);
    EXPECT_EQ(v.verdict, Verdict::good) << v.why;
  }
}

// Closed form: white noise of deviation σ has the density 2σ²/rate on every axis (Parseval).
TEST(Vibration, WhiteNoiseHasTheDensityOfItsDeviation) {
  Hands hands(52);
  const Vibration v =
      vibration_of(shaken(200, 60, [&](double) -> Point { return Point(0, 0, -9.8) + hands.vector(0.8); }));
  double mean = 0, area = 0;
  for (std::size_t k = 2; k + 2 < v.density.size(); ++k)
    mean += v.density[k] / static_cast<double>(v.density.size() - 4);
  for (const double d : v.density) area += d * (v.hz[1] - v.hz[0]);
  EXPECT_NEAR(mean, 3 * 2 * 0.8 * 0.8 / 200, 0.05 * 3 * 2 * 0.8 * 0.8 / 200);
  EXPECT_NEAR(area, v.rms * v.rms, 0.05 * area);
  EXPECT_NEAR(v.rms, 0.8 * std::sqrt(3.0), 0.03);
}

TEST(Vibration, WhatIsTooFastFoldsAndIsSaid) {
  const Vibration v =
      vibration_of(shaken(100, 5, [](double t) { return Point(0, std::sin(2 * pi * 130 * t), -9.8); }), {130, 0});
  ASSERT_TRUE(v.folded_hz);
  EXPECT_NEAR(*v.folded_hz, 30, 1e-9);
  EXPECT_NEAR(v.peaks.at(0).hz, 30, 0.3) << "it does show there";
  EXPECT_FALSE(vibration_of(shaken(400, 5, [](double) { return Point(0, 0, -9.8); }), {130, 0}).folded_hz);
}

TEST(Vibration, AFilterIsJudgedByWhatItLeavesAndWhatItCosts) {
  const Vibration v =
      vibration_of(shaken(400, 5, [](double t) { return Point(std::sin(2 * pi * 80 * t), 0, -9.8); }), {0, 40});
  ASSERT_TRUE(v.filter);
  EXPECT_NEAR(v.filter->peak_left, 1 / std::sqrt(17.0), 0.005) << "second order, an octave above: a quarter";
  EXPECT_NEAR(v.filter->delay_s, 5.63e-3, 1e-5);
}

TEST(Vibration, ShakingAndOverrunSensorsAreNoGood) {
  const auto square = [](double t) { return Point(std::clamp(60 * std::sin(2 * pi * 33 * t), -40.0, 40.0), 0, -9.8); };
  const Vibration v = vibration_of(shaken(400, 5, square));
  EXPECT_EQ(v.verdict, Verdict::repeat);
  EXPECT_GT(v.clipped_share, 0.1);
  EXPECT_NE(v.why.find("overrun"), std::string::npos);
  EXPECT_EQ(vibration_of({}).verdict, Verdict::repeat);
  EXPECT_NE(vibration_of(shaken(10, 5, square)).why.find("20 readings"), std::string::npos);
  Recording uneven = shaken(100, 5, square);
  for (std::size_t i = 0; i < uneven.size(); i += 3) uneven.t_s[i] += 0.004;
  EXPECT_NE(vibration_of(uneven).why.find("uneven"), std::string::npos);
}

}  // namespace
}  // namespace rigging
