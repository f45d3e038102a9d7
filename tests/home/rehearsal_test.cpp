#include "home/rehearsal.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "base/angle.h"
#include "earth/gravity.h"
#include "home/edits.h"
#include "home/home_rigs.h"

namespace rigging {
namespace {

Rig planned() {
  Rig rig = comes_home();
  rig.home.loss_hold_s = 0;
  return rig;
}

TEST(Rehearsal, AgreesWithTheClosedForm) {
  // Over random places and winds, steady air: the time within a twentieth and one full turn, the charge likewise.
  const Rig rig = planned();
  const HomeReport r = home_of(rig);
  const double v = r.performance.cruise_m_s.expected;
  const double turn_s = 2 * pi * v / (standard_gravity * std::tan(r.performance.bank_deg * rad));
  std::mt19937 random(5);
  const auto between = [&random](double a, double b) { return std::uniform_real_distribution(a, b)(random); };
  for (int i = 0; i < 60; ++i) {
    RehearsalCase c;
    c.place = {between(300, 2500), between(0, 360), between(20, 80)};
    c.heading_deg = between(0, 360);
    c.left_mah = 4000;
    c.wind = {between(0, 0.7 * v), between(0, 360)};
    c.seed = static_cast<std::uint32_t>(i);
    const auto one = rehearse(rig, shipped(), r, c);
    ASSERT_TRUE(one);
    ASSERT_EQ(one->end, RehearsalEnd::home) << i << ": " << one->words;
    HomeCase closed = r.expected;
    closed.place = c.place, closed.wind = c.wind;
    const WayHome w = way_home(closed);
    // It arrives at the circle, and has flown on for a second before it knew.
    const double apart_s = 0.05 * w.way_s + turn_s + (r.circle_radius_m + 30) / w.track->ground_m_s;
    EXPECT_NEAR(one->way_s, w.way_s, apart_s) << i;
    EXPECT_NEAR(one->used_mah, w.used_mah, apart_s * r.performance.climb_a.expected * mah_per_as) << i;
  }
}

TEST(Rehearsal, TheCircleThatIsPromisedIsHeld) {
  Rig rig = planned();
  rig.home.wind_m_s = 7;
  const HomeReport r = home_of(rig);
  RehearsalCase c;
  c.place = {600, 80, 60};
  c.left_mah = 3000;
  c.wind = {7, rig.home.wind_from_deg};
  const auto held = rehearse(rig, shipped(), r, c);
  ASSERT_TRUE(held);
  EXPECT_LT(held->circle_reaches_m, 1.35 * r.circle_radius_m);
  // Too tight a circle drifts out of it.
  rig.home.circle_radius_m = 15;
  const auto tight = rehearse(rig, shipped(), home_of(rig), c);
  ASSERT_TRUE(tight);
  EXPECT_GT(tight->circle_reaches_m, 2 * 15);
}

TEST(Rehearsal, WhatFailsIsNamed) {
  Rig rig = planned();
  const HomeReport r = home_of(rig);
  RehearsalCase c;
  c.place = {2500, 90, 30};
  c.left_mah = 60;
  EXPECT_EQ(rehearse(rig, shipped(), r, c)->end, RehearsalEnd::battery_empty);
  c.left_mah = 4000;
  c.wind = {20, 270};
  EXPECT_EQ(rehearse(rig, shipped(), r, c)->end, RehearsalEnd::blown_away);
  c.wind = {};
  c.place = {600, 90, 20};
  rig.home.return_height_m = 30;
  rig = put_obstacle(rig, {"mast", 90, 300, 60, {}})->rig;
  EXPECT_EQ(rehearse(rig, shipped(), home_of(rig), c)->end, RehearsalEnd::hit);
  rig.home.return_height_m = 90;
  rig.home.climb_first = true;
  const auto over = rehearse(rig, shipped(), home_of(rig), c);
  EXPECT_EQ(over->end, RehearsalEnd::home) << over->words;
  rig.home.on_loss = LossAction::glide;
  EXPECT_FALSE(rehearse(rig, shipped(), home_of(rig), c));
}

TEST(Rehearsal, WithTheThresholdNearlyAllComeHomeAndWithoutItNot) {
  Rig rig = planned();
  Progress progress;
  const auto table = rehearse_many(rig, shipped(), home_of(rig), 200, 3, progress);
  ASSERT_TRUE(table);
  EXPECT_EQ(table->flown, 200);
  EXPECT_EQ(table->home, 200) << (table->failed.empty() ? "" : table->failed.front().words);
  EXPECT_GT(table->kept_reserve, 190);
  const auto again = rehearse_many(rig, shipped(), home_of(rig), 200, 3, progress);
  EXPECT_EQ(again->kept_reserve, table->kept_reserve) << "the same seed draws the same";
  rig.home.wind_m_s = 15;
  const auto windy = rehearse_many(rig, shipped(), home_of(rig), 100, 3, progress);
  ASSERT_TRUE(windy);
  EXPECT_LT(windy->home, 100);
  ASSERT_FALSE(windy->failed.empty());
  for (std::size_t i = 1; i < windy->failed.size(); ++i) EXPECT_LE(windy->failed[i].count, windy->failed[i - 1].count);
  progress.cancel();
  EXPECT_EQ(rehearse_many(rig, shipped(), home_of(rig), 100, 3, progress)->flown, 0);
}

}  // namespace
}  // namespace rigging
