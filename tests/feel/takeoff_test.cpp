#include "feel/takeoff.h"

#include <gtest/gtest.h>

#include "airframe/drag.h"
#include "airframe/kinds.h"
#include "airframe/planform.h"
#include "begin/begin.h"
#include "bench_rig.h"
#include "earth/gravity.h"
#include "feel/flyer.h"
#include "flight/engine.h"
#include "review/deferred.h"
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

/// By hand: a pusher without drag that is thrown at v coasts for the time that its throttle takes, and falls meanwhile
/// with what the wing does not carry, g·(1 − v²/vs²): ½ of it times the time squared at the least.
TEST(Takeoff, APushersThrottleComesAfterTheHand) {
  Rig rig = proven();
  rig.feel.takeoff.throw_m_s = 6;
  const FeelReport report = analyze_feel({rig, shipped()});
  const double stall = report.aeroplane.stall_m_s, v = 6;
  ASSERT_LT(v, stall);
  Drag none;
  none.parasite_m2 = 1e-9, none.induced_per_m2 = 1e-12;
  const Review r = review(rig, shipped());
  Balance b = r.reports.fit().balance;
  b.complete = true;
  b.balance_point = b.wanted;
  const TakeoffAdvice strong = advise_takeoff(rig, report, {1e6, 1e6}, none, b, r.checks, {});
  // However hard it pulls, it can't before 0.7 s, and then at once.
  const double falls = 0.5 * standard_gravity * (1 - v * v / (stall * stall)) * 0.7 * 0.7;
  EXPECT_NEAR(strong.drop_m, falls, 0.05);
  Rig tractor = rig;
  tractor.airframe.propeller = PropellerSide::tractor;
  tractor.airframe.kind = AirframeKind::two_ailerons;
  for (const Rig& of : {rig, tractor})
    if (!propeller_behind(of.airframe)) {
      EXPECT_LT(advise_takeoff(of, report, {1e6, 1e6}, none, b, r.checks, {}).drop_m, 0.02) << "pulls in the hand";
    }
  // It does not fly at once because it is nearly fast enough.
  rig.feel.takeoff.throw_m_s = 0.98 * stall;
  for (const std::string& line : advise_takeoff(rig, report, {50, 1e6}, none, b, r.checks, {}).lines)
    EXPECT_EQ(line.find("at once"), std::string::npos) << line;
  // What has no propeller is not held behind one.
  for (const std::string& words : advise_takeoff(rig, report, {0, 1e6}, none, b, r.checks, {}).cautions)
    EXPECT_EQ(words.find("propeller"), std::string::npos) << words;
}

/// One verdict: never a go while the rig is not ready, on rigs as they are begun and on one of which all was shown.
TEST(Takeoff, IsNoGoWhileTheRigIsNotReady) {
  for (const auto& [kind, name] : Names<AirframeKind>::list)
    for (const char* c : {"full_controller", "fixed_wing", "gesture_board", "inline_dial"}) {
      NewAircraft told;
      told.name = "A", told.kind = kind, told.controller = c, told.span_m = 1.2;
      const auto begun = begin_rig(shipped(), told);
      ASSERT_TRUE(begun) << name;
      EXPECT_EQ(begun->rig.feel.takeoff.way == TakeoffWay::tow, kind == AirframeKind::towed_glider) << name;
      const Review r = review(directions_proven(begun->rig), shipped());
      Progress progress;
      const auto deferred = deferred_review(r.reports, progress);
      const TakeoffAdvice a = takeoff_advice(r, *deferred);
      EXPECT_FALSE(a.go && !r.readiness.ready) << name << " with " << c;
      std::string all;
      for (const std::string& why : a.not_yet) all += why + "\n";
      EXPECT_NE(all.find("still to do"), std::string::npos) << name << " with " << c << ": " << all;
      if (c == std::string("inline_dial") && deferred->feel.of(Axis::roll).known()) {
        EXPECT_NE(all.find("No gain is set"), std::string::npos) << name << ": " << all;
      }
    }
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
