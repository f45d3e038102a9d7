#include "feel/takeoff.h"

#include <gtest/gtest.h>

#include "airframe/drag.h"
#include "bench_rig.h"
#include "earth/gravity.h"
#include "feel/flyer.h"
#include "flight/engine.h"
#include "review/review.h"

namespace rigging {
namespace {

TakeoffAdvice launch_of(const Rig& rig, std::vector<std::string> grounded = {}) {
  const Review r = review(rig, shipped());
  const FeelReport report = analyze_feel({rig, shipped()});
  Balance balanced = r.reports.fit().balance;
  balanced.complete = true;
  balanced.balance_point = balanced.wanted;
  return advise_takeoff(rig, report, engine_of({rig, shipped()}, report.aeroplane),
                        drag_of(rig.airframe, report.aeroplane.cruise_m_s), balanced, r.checks, grounded);
}

Rig proven() { return directions_proven(demo("hedgerow")); }

TEST(Takeoff, IsNeverAGoWithDirectionsUnprovenOrStaleOrAnythingThatGrounds) {
  Rig rig = demo("hedgerow");
  rig.feel.takeoff.wind_m_s = 8;
  EXPECT_FALSE(launch_of(rig).go);
  rig = proven();
  rig.feel.takeoff.wind_m_s = 8;
  const TakeoffAdvice good = launch_of(rig);
  EXPECT_TRUE(good.go) << (good.not_yet.empty() ? "" : good.not_yet.front());
  EXPECT_FALSE(launch_of(rig, {"Nothing feeds the servo rail"}).go);
  rig.output("out_3")->mix.yaw += 0.1;
  const TakeoffAdvice stale = launch_of(rig);
  EXPECT_FALSE(stale.go);
  EXPECT_NE(stale.not_yet.front().find("gone stale"), std::string::npos) << stale.not_yet.front();
  // A balance that is not known, or lies behind its band.
  rig = proven();
  rig.feel.takeoff.wind_m_s = 8;
  const Review r = review(rig, shipped());
  const FeelReport report = analyze_feel({rig, shipped()});
  for (const bool known : {false, true}) {
    Balance b = r.reports.fit().balance;
    b.complete = known;
    b.balance_point.value = b.band_back_m + 0.02;
    EXPECT_FALSE(advise_takeoff(rig, report, engine_of({rig, shipped()}, report.aeroplane),
                                drag_of(rig.airframe, report.aeroplane.cruise_m_s), b, r.checks, {})
                     .go);
  }
}

TEST(Takeoff, WindHelpsTheHandAndAHeavyModelSinks) {
  Rig rig = proven();
  rig.feel.takeoff.throw_m_s = 6;
  double before = 1e9;
  for (const double wind : {0.0, 2.0, 4.0, 8.0}) {
    rig.feel.takeoff.wind_m_s = wind;
    const TakeoffAdvice a = launch_of(rig);
    EXPECT_LE(a.drop_m, before);
    before = a.drop_m;
    EXPECT_NEAR(a.speed_m_s, 6 + wind, 1e-12);
    EXPECT_NEAR(a.push_m_s2, 36 / 2.4, 1e-9);
  }
  EXPECT_EQ(before, 0) << "thrown faster than 1.1 times its stall speed it flies at once";
  rig.feel.takeoff.wind_m_s = 0;
  rig.airframe.mass_kg = 4;
  EXPECT_GT(launch_of(rig).drop_m, 1.2);
  EXPECT_FALSE(launch_of(rig).go);
}

TEST(Takeoff, TheRunIsThatOfASteadyPush) {
  // A push that stays, without drag and friction to speak of: v²/(2a), recomputed by hand.
  Rig rig = proven();
  rig.feel.takeoff.way = TakeoffWay::ground;
  rig.feel.takeoff.steering = Steering::wheel;
  const FeelReport report = analyze_feel({rig, shipped()});
  Drag none;
  none.parasite_m2 = 1e-9, none.induced_per_m2 = 1e-12;
  const Review r = review(rig, shipped());
  Balance b = r.reports.fit().balance;
  b.complete = true;
  b.balance_point = b.wanted;
  const double mass = report.aeroplane.mass_kg, push = 6;
  const TakeoffAdvice a = advise_takeoff(rig, report, {push * mass, 1e6}, none, b, r.checks, {});
  const double v = 1.2 * report.aeroplane.stall_m_s;
  EXPECT_NEAR(a.run_m, v * v / (2 * (push - 0.05 * standard_gravity)), 0.06 * a.run_m);
  rig.feel.takeoff.run_m = 1.5 * a.run_m;
  EXPECT_FALSE(advise_takeoff(rig, report, {push * mass, 1e6}, none, b, r.checks, {}).go);
  rig.feel.takeoff.run_m = 3 * a.run_m;
  rig.feel.takeoff.crosswind_m_s = 0.3 * report.aeroplane.stall_m_s;
  EXPECT_FALSE(advise_takeoff(rig, report, {push * mass, 1e6}, none, b, r.checks, {}).go);
  rig.feel.takeoff.crosswind_m_s = 0;
  EXPECT_TRUE(advise_takeoff(rig, report, {push * mass, 1e6}, none, b, r.checks, {}).go);
  EXPECT_FALSE(advise_takeoff(rig, report, {0, 1e6}, none, b, r.checks, {}).go) << "no motor, no run";
}

TEST(Takeoff, TheCautionOfTheArcStandsWhereTheHandMoves) {
  EXPECT_NE(launch_of(proven()).cautions.front().find("behind your hand"), std::string::npos) << "a pusher";
  const Rig tractor = directions_proven(demo("heath"));
  EXPECT_NE(launch_of(tractor).cautions.front().find("behind the propeller"), std::string::npos);
}

TEST(Takeoff, ATowMustBeFastEnoughAndNotTooFast) {
  Rig rig = proven();
  rig.feel.takeoff.way = TakeoffWay::tow;
  const double stall = analyze_feel({rig, shipped()}).aeroplane.stall_m_s;
  rig.feel.takeoff.tow_m_s = 1.1 * stall;
  EXPECT_FALSE(launch_of(rig).go);
  rig.feel.takeoff.tow_m_s = 1.5 * stall;
  EXPECT_TRUE(launch_of(rig).go);
  rig.feel.takeoff.tow_m_s = 5 * stall;
  EXPECT_FALSE(launch_of(rig).go);
}

}  // namespace
}  // namespace rigging
