#include "feel/learn.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "airframe/kinds.h"
#include "base/angle.h"
#include "bench_rig.h"

namespace rigging {
namespace {

Rig set_rig(double place) {
  Rig rig = fresh_rig("A", AirframeKind::two_ailerons, "pc_mini");
  rig.airframe.mass_kg = 1.2;
  rig.feel.made_gain(Axis::roll).rate = place;
  return rig;
}

/// A log in which the roll rate shakes from 10 to 20 s at this speed; quiet noise else.
FlightLog shaken(double m_s, double height_deg_s, double fastest_m_s) {
  FlightLog log;
  log.step_s = 0.01;
  log.size = 3000;
  log.stretches = {{0, 3000}};
  std::mt19937 random(3);
  std::normal_distribution noise;
  AxisLog& roll = log.axes[0];
  for (std::size_t i = 0; i < log.size; ++i) {
    const double t = log.at_s(i);
    const bool on = height_deg_s > 0 && t > 10 && t < 20;
    roll.rate_deg_s.push_back((on ? height_deg_s * std::sin(2 * pi * 6 * t) : 0) + noise(random));
    roll.correction.push_back(std::clamp(-0.02 * roll.rate_deg_s.back(), -1.0, 1.0));
    roll.stick.push_back(0);
    log.airspeed_m_s.push_back(on ? m_s : t > 22 ? fastest_m_s : 0.8 * m_s);
  }
  return log;
}

TEST(FlightLesson, AShakingTellsTheLoopsGainAndTurnsItDown) {
  const Rig rig = set_rig(0.6);
  const FeelReport r = analyze_feel({rig, shipped()});
  const double v = 14, model = margin_at(r.of(Axis::roll).stricter(), v).shakes_s / r.of(Axis::roll).gain_s;
  const FlightLesson lesson = lesson_of(rig, shipped(), r, shaken(v, 90, v));
  ASSERT_EQ(lesson.axes.size(), 1u);
  const AxisLesson& l = lesson.axes[0];
  ASSERT_TRUE(l.before && l.after && l.place) << l.words;
  EXPECT_LT(std::log(l.after->most / l.after->least), 0.8 * std::log(l.before->most / l.before->least)) << "narrower";
  // Between what was believed and what was seen, and on the way to it.
  EXPECT_GT((l.after->factor - 1) * (model - 1), 0);
  EXPECT_LE(std::abs(std::log(l.after->factor)), std::abs(std::log(model)) + 0.02);
  EXPECT_NEAR(*l.place, 0.42, 0.011) << "back by 30 percent (common practice)";
  const auto taken = take_lesson(rig, lesson, true);
  ASSERT_TRUE(taken);
  EXPECT_NEAR(*taken->rig.feel.gain(Axis::roll)->rate, *l.place, 1e-9);
  ASSERT_TRUE(taken->rig.feel.learnt(Axis::roll));
  const auto only = take_lesson(rig, lesson, false);
  ASSERT_TRUE(only);
  EXPECT_EQ(*only->rig.feel.gain(Axis::roll)->rate, 0.6);
}

TEST(FlightLesson, FlightAfterFlightTheBeliefComesToWhatIsTrue) {
  // An aircraft whose loop is 1.6 times as strong as worked out, shaken again and again at its own onset.
  Rig rig = set_rig(0.5);
  const double truth = 1.6;
  for (int flight = 0; flight < 5; ++flight) {
    Rig plain = rig;
    plain.feel.learned.clear();
    const FeelReport model = analyze_feel({plain, shipped()});
    const AxisFeel& roll = model.of(Axis::roll);
    double onset = 0;
    for (const MarginPoint& p : roll.stricter())
      if (onset == 0 && p.shakes_s / truth <= roll.gain_s) onset = p.m_s;
    ASSERT_GT(onset, 0);
    const auto taken =
        take_lesson(rig, lesson_of(rig, shipped(), analyze_feel({rig, shipped()}), shaken(onset, 90, onset)), false);
    ASSERT_TRUE(taken);
    rig = taken->rig;
  }
  const LearnedGain* l = rig.feel.learnt(Axis::roll);
  ASSERT_TRUE(l);
  EXPECT_NEAR(l->factor, truth, 0.15);
  EXPECT_LT(l->most / l->least, 1.35);
  EXPECT_LT(l->least, truth);
  EXPECT_GT(l->most, truth);
}

TEST(FlightLesson, ACalmFlightSaysHowStrongItIsAtMost) {
  const Rig rig = set_rig(1);
  const FeelReport r = analyze_feel({rig, shipped()});
  const AxisFeel& roll = r.of(Axis::roll);
  ASSERT_TRUE(roll.shakes_from_m_s);
  const FlightLesson lesson = lesson_of(rig, shipped(), r, shaken(12, 0, *roll.shakes_from_m_s));
  ASSERT_TRUE(lesson.axes[0].after) << lesson.axes[0].words;
  EXPECT_LT(lesson.axes[0].after->most, lesson.axes[0].before->most);
  EXPECT_LT(lesson.axes[0].after->factor, 1);
  EXPECT_FALSE(lesson.axes[0].place);
  // Slowly flown it says nothing.
  const FlightLesson slow = lesson_of(rig, shipped(), r, shaken(7, 0, 7));
  EXPECT_FALSE(slow.axes[0].after) << slow.axes[0].words;
  EXPECT_FALSE(take_lesson(rig, slow, true));
}

/// The same shaking made small and steady, at a frequency.
FlightLog small(double hz, double m_s) {
  FlightLog log = shaken(m_s, 0, m_s);
  AxisLog& roll = log.axes[0];
  for (std::size_t i = 0; i < log.size; ++i) {
    const double t = log.at_s(i), on = t > 8 && t < 25 ? 1 : 0;
    roll.rate_deg_s[i] = 0.2 * roll.rate_deg_s[i] + on * 12 * std::sin(2 * pi * hz * t);
    roll.correction[i] = -0.01 * roll.rate_deg_s[i];
    log.airspeed_m_s[i] = m_s;
  }
  return log;
}

TEST(FlightLesson, ASmallSwingAtTheLoopsOwnRhythmIsTheGainWhereItMayShakeAndPlayWhereItCant) {
  // A servo at its fastest keeps a gain oscillation small, which by itself looks like play.
  const double v = 20;
  for (const double share : {1.2, 0.3}) {
    Rig rig = set_rig(0.5);
    const MarginPoint at = margin_at(analyze_feel({rig, shipped()}).of(Axis::roll).stricter(), v);
    rig.feel.made_gain(Axis::roll).rate =
        std::min(1.0, share * at.shakes_s / analyze_feel({rig, shipped()}).of(Axis::roll).path.full_gain_s);
    const FeelReport r = analyze_feel({rig, shipped()});
    const ControllerClass& c = *shipped().controller(rig.controller.kind);
    const auto found = episodes_in(small(at.hz, v), c, r);
    ASSERT_EQ(found.size(), 1u) << share;
    EXPECT_EQ(found[0].kind, share > 1 ? OscillationKind::gain : OscillationKind::slop) << share;
    const auto elsewhere = episodes_in(small(0.6 * at.hz, v), c, r);
    ASSERT_EQ(elsewhere.size(), 1u);
    EXPECT_EQ(elsewhere[0].kind, OscillationKind::slop) << "not its rhythm";
  }
}

TEST(FlightLesson, WhatTheBenchTaughtIsPutAsideByTheFirstRealFlight) {
  Rig rig = set_rig(0.6);
  const double v = 14;
  const auto simulated =
      take_lesson(rig, lesson_of(rig, shipped(), analyze_feel({rig, shipped()}), shaken(v, 90, v), true), false);
  ASSERT_TRUE(simulated);
  ASSERT_TRUE(simulated->rig.feel.learnt(Axis::roll)->simulated);
  const auto lesson = lesson_of(simulated->rig, shipped(), analyze_feel({simulated->rig, shipped()}), shaken(v, 90, v));
  const auto fresh = lesson_of(rig, shipped(), analyze_feel({rig, shipped()}), shaken(v, 90, v));
  ASSERT_TRUE(lesson.axes[0].after && fresh.axes[0].after);
  EXPECT_FALSE(lesson.axes[0].after->simulated);
  EXPECT_NEAR(lesson.axes[0].after->factor, fresh.axes[0].after->factor, 0.03 * fresh.axes[0].after->factor)
      << "as if nothing had been simulated";
}

TEST(FlightLesson, WhereThrottleMakesItSmallerTheLogsThrottleCounts) {
  Rig rig = demo("hedgerow");  // a class that gives less with more throttle
  rig.feel.made_gain(Axis::roll).rate = 0.6;
  const FeelReport r = analyze_feel({rig, shipped()});
  const ControllerClass& c = *shipped().controller(rig.controller.kind);
  EXPECT_EQ(follows_throttle(c, r.cruise_throttle, r.cruise_throttle), 1);
  EXPECT_EQ(follows_throttle(c, 0, r.cruise_throttle), 1);
  EXPECT_NEAR(follows_throttle(c, 1, r.cruise_throttle), 0.5, 1e-12);
  // Shaking with half of the correction tells of a loop that is twice as strong.
  const auto factor_with = [&](std::optional<double> throttle) {
    FlightLog log = shaken(r.fast_m_s, 90, r.fast_m_s);
    if (throttle) log.throttle.assign(log.size, *throttle);
    const FlightLesson lesson = lesson_of(rig, shipped(), r, log);
    return lesson.axes.at(0).after.value().factor;
  };
  const double closed = factor_with(0), open = factor_with(1);
  EXPECT_GT(open, 1.2 * closed);
  EXPECT_EQ(factor_with({}), open) << "nothing is told of the throttle: the less favourable is supposed";
}

/// The cure of a Dutch roll is one that the aircraft has: a correction on yaw where something answers in yaw, else
/// fins.
TEST(FlightLesson, TheCureOfADutchRollIsOneThatTheAircraftHas) {
  FlightLog log = shaken(14, 0, 14);
  AxisLog& yaw = log.axes[2];
  for (std::size_t i = 0; i < log.size; ++i) {
    const double t = log.at_s(i), swing = std::exp(-0.06 * std::max(0.0, t - 2));
    log.axes[0].rate_deg_s[i] += 35 * swing * std::sin(2 * pi * t);
    log.axes[0].correction[i] = std::clamp(-0.013 * log.axes[0].rate_deg_s[i], -1.0, 1.0);
    yaw.rate_deg_s.push_back(22 * swing * std::cos(2 * pi * t));
  }
  for (const auto& [kind, by_rudder] :
       {std::pair{AirframeKind::flying_wing, false}, {AirframeKind::two_ailerons, true}}) {
    Rig rig = fresh_rig("A", kind, "full_controller");
    rig.airframe.mass_kg = 1.2;
    const FeelReport r = analyze_feel({rig, shipped()});
    ASSERT_TRUE(r.missing.empty()) << r.missing;
    int told = 0;
    for (const Episode& e : episodes_in(log, *shipped().controller("full_controller"), r)) {
      if (e.kind != OscillationKind::dutch_roll) continue;
      ++told;
      EXPECT_EQ(e.why.find("more of it on yaw") != std::string::npos, by_rudder) << e.why;
      EXPECT_EQ(e.why.find("larger fins damp it") != std::string::npos, !by_rudder) << e.why;
    }
    EXPECT_GT(told, 0);
  }
}

}  // namespace
}  // namespace rigging
