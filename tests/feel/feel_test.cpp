#include "feel/feel.h"

#include <gtest/gtest.h>

#include "airframe/kinds.h"
#include "base/angle.h"
#include "bench_rig.h"
#include "review/review.h"
#include "surfaces/linkage.h"

namespace rigging {
namespace {

FeelReport feel_of(const Rig& rig) { return analyze_feel({rig, shipped()}); }

TEST(Feel, TheFasterTheEarlierItShakes) {
  for (const char* name : {"hedgerow", "bramble", "delta"}) {
    const FeelReport r = feel_of(demo(name));
    ASSERT_EQ(r.missing, "");
    const AxisFeel& roll = r.of(Axis::roll);
    ASSERT_TRUE(roll.known()) << roll.why_not;
    ASSERT_EQ(roll.rate.size(), 50u);
    for (std::size_t i = 1; i < roll.rate.size(); ++i) {
      const MarginPoint &a = roll.rate[i - 1], &b = roll.rate[i];
      EXPECT_LT(b.shakes_s, a.shakes_s);
      EXPECT_LE(b.calm_s, a.calm_s * 1.001);
      EXPECT_LE(b.shakes_least_s, b.shakes_s);
      EXPECT_GE(b.shakes_most_s, b.shakes_s);
      EXPECT_LT(b.calm_s, 0.6 * b.shakes_s) << "half of it at most, less the band";
    }
  }
}

TEST(Feel, ASmallerThrowIsASmallerGainAndLeavesTheCurveAlone) {
  Rig rig = fresh_at_1200_g("fixed_mini");
  for (const Side side : {Side::left, Side::right})
    rig = with_linkage(rig, linkage_of(rig, {SurfaceKind::aileron, side}));
  const FeelReport before = feel_of(rig);
  for (Output& o : rig.outputs) o.low_us = 1250, o.high_us = 1750;
  const FeelReport after = feel_of(rig);
  const AxisFeel &a = before.of(Axis::roll), &b = after.of(Axis::roll);
  ASSERT_TRUE(a.known() && b.known());
  EXPECT_GT(a.gain_s, 0) << "the linkage gives it one";
  EXPECT_NEAR(b.gain_s / a.gain_s, 0.5, 0.03);
  EXPECT_NEAR(b.rate[20].shakes_s / a.rate[20].shakes_s, 1, 0.05);
}

TEST(Feel, FasterPulsesAndALighterFilterLeaveMoreRoom) {
  Rig rig = fresh_at_1200_g("full_controller");
  const double before = feel_of(rig).of(Axis::roll).rate[20].shakes_s;
  for (Output& o : rig.outputs) o.rate_hz = 200;
  const MarginPoint pulses = feel_of(rig).of(Axis::roll).rate[20];
  EXPECT_GT(pulses.shakes_s, 1.1 * before);
  Catalogue other = shipped();
  for (ControllerClass& c : other.controllers)
    if (c.id == "full_controller") c.feel.filter_hz = 10;
  const Review r = review(rig, other);
  const MarginPoint filtered = analyze_feel({rig, other}).of(Axis::roll).rate[20];
  EXPECT_LT(filtered.shakes_s, 0.9 * pulses.shakes_s);
  EXPECT_LT(filtered.hz, 0.85 * pulses.hz) << "what lags shakes slower";
}

TEST(Feel, WhatFlightsToldNarrowsTheBand) {
  Rig rig = fresh_at_1200_g("full_controller");
  const MarginPoint before = feel_of(rig).of(Axis::roll).rate[25];
  LearnedGain l;
  l.axis = Axis::roll;
  l.factor = 1.3, l.least = 1.2, l.most = 1.4;
  rig.feel.learned.push_back(l);
  const MarginPoint after = feel_of(rig).of(Axis::roll).rate[25];
  EXPECT_NEAR(after.shakes_s, before.shakes_s / 1.3, 0.02 * before.shakes_s);
  EXPECT_LT((after.shakes_most_s - after.shakes_least_s) / after.shakes_s,
            (before.shakes_most_s - before.shakes_least_s) / before.shakes_s);
}

TEST(Feel, TodaysSettingIsFollowedToTheSpeedAtWhichItShakes) {
  Rig rig = fresh_at_1200_g("pc_mini");
  const AxisFeel nothing_set = feel_of(rig).of(Axis::roll);
  EXPECT_FALSE(nothing_set.place);
  EXPECT_FALSE(nothing_set.shakes_from_m_s);
  rig.feel.made_gain(Axis::roll).rate = 1;
  const AxisFeel all = feel_of(rig).of(Axis::roll);
  ASSERT_TRUE(all.shakes_from_m_s && all.may_shake_from_m_s);
  EXPECT_LT(*all.may_shake_from_m_s, *all.shakes_from_m_s + 1e-9);
  const MarginPoint there = margin_at(all.stricter(), *all.shakes_from_m_s);
  EXPECT_NEAR(there.shakes_s / all.gain_s, 1, 0.02);
  rig.feel.made_gain(Axis::roll).rate = 0.02;
  EXPECT_FALSE(feel_of(rig).of(Axis::roll).shakes_from_m_s);
}

TEST(Feel, AirspeedScalingKeepsADiveCalm) {
  Rig plain = fresh_at_1200_g("full_controller"), scaled = fresh_at_1200_g("large_controller");
  for (Rig* rig : {&plain, &scaled}) rig->feel.made_gain(Axis::roll).rate = 0.6;
  const AxisFeel a = feel_of(plain).of(Axis::roll), b = feel_of(scaled).of(Axis::roll);
  ASSERT_TRUE(a.known() && b.known());
  const double dive_a = a.rate.back().shakes_s / a.path.full_gain_s,
               dive_b = b.rate.back().shakes_s / b.path.full_gain_s;
  EXPECT_NEAR(dive_a / dive_b, 1, 0.3);
  if (a.shakes_from_m_s) EXPECT_TRUE(!b.shakes_from_m_s || *b.shakes_from_m_s > *a.shakes_from_m_s);
}

TEST(Feel, WhatCantBeSaidSaysWhy) {
  Rig rig = fresh_at_1200_g("full_controller");
  rig.airframe.mass_kg.reset();
  EXPECT_NE(feel_of(rig).missing.find("flying mass"), std::string::npos);
  rig = fresh_at_1200_g("no_such_class");
  EXPECT_NE(feel_of(rig).missing.find("controller"), std::string::npos);
  const FeelReport rudder_only = feel_of(demo("heath"));
  for (const Axis axis : {Axis::roll, Axis::yaw})
    EXPECT_TRUE(rudder_only.of(axis).known() && rudder_only.of(axis).rate.size() == 50u)
        << rudder_only.of(axis).why_not;
  Rig flat = demo("heath");  // nothing that a rudder could roll it by
  flat.airframe.dihedral_deg = 0;
  const AxisFeel roll = feel_of(flat).of(Axis::roll);
  EXPECT_TRUE(!roll.known() || roll.full_rate_deg_s < 0.5 * rudder_only.of(Axis::roll).full_rate_deg_s) << roll.why_not;
  const FeelReport twin = feel_of(fresh_at_1200_g("full_controller", AirframeKind::twin_differential));
  EXPECT_NE(twin.of(Axis::yaw).why_not.find("motors"), std::string::npos);
}

}  // namespace
}  // namespace rigging
