#include "feel/flyer.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "airframe/kinds.h"
#include "airframe/proportions.h"
#include "base/angle.h"
#include "bench_rig.h"
#include "feel/advice.h"
#include "feel/edits.h"
#include "feel/learn.h"
#include "feel/oscillation.h"

namespace rigging {
namespace {

double deviation(const std::vector<double>& v, std::size_t from = 0) {
  double sum = 0, squares = 0;
  for (std::size_t i = from; i < v.size(); ++i) sum += v[i], squares += v[i] * v[i];
  const auto n = static_cast<double>(v.size() - from);
  return std::sqrt(squares / n - sum * sum / n / n);
}

Rig with_gains(const char* name, double share_of_calm) {
  Rig rig = demo(name);
  const FeelReport r = analyze_feel({rig, shipped()});
  const ControllerClass& c = *shipped().controller(rig.controller.kind);
  const GainScale scale(c, {});
  for (const AxisFeel& a : r.axes)
    if (a.known())
      rig.feel.made_gain(a.axis).rate =
          std::min(1.0, scale.place_for(share_of_calm * a.calm_gain_s / a.path.full_gain_s));
  return rig;
}

TEST(Fly, GustsAreMadeSmallerAndTheSameSeedIsTheSameFlight) {
  FlyOptions o;
  o.wind_m_s = 8;
  o.seconds = 12;  // a tailless one without correction is turned over by such gusts before long
  for (const char* name : {"hedgerow", "bramble"}) {
    const auto none = fly(demo(name), shipped(), o), some = fly(with_gains(name, 0.8), shipped(), o),
               again = fly(with_gains(name, 0.8), shipped(), o);
    ASSERT_TRUE(none && some && again) << name;
    EXPECT_EQ(none->end, "");
    EXPECT_LT(deviation(some->rate_deg_s[0]), 0.9 * deviation(none->rate_deg_s[0])) << name;
    EXPECT_EQ(some->csv(), again->csv());
    EXPECT_TRUE(parse_flight_log(some->csv(), "flight"));
  }
}

/// A stabilizer of which nobody has set the gains corrects nothing, and that is said; with gains, by hand or by the
/// linkage, there is nothing to say.
TEST(Fly, WithoutGainsItSaysThatNothingIsCorrected) {
  Progress progress;
  for (const ControllerClass& c : shipped().controllers) {
    Rig rig = fresh_at_1200_g(c.id.c_str());
    FlyOptions o;
    o.seconds = 4;
    const auto says = [&](const Rig& of) {
      const auto band = fly_band(of, shipped(), o, 0, progress);
      EXPECT_TRUE(band) << c.id;
      return band && band->seen.words.find("nothing is corrected") != std::string::npos;
    };
    o.mode = Mode::rate;
    if (!c.mode(Mode::rate)) continue;
    EXPECT_EQ(says(rig), c.feel.gain_by != GainBy::linkage) << c.id;
    for (const Axis axis : all_axes) rig.feel.made_gain(axis).rate = 0.1;
    EXPECT_FALSE(says(rig)) << c.id;
    rig.feel.gains.clear();
    o.mode = Mode::manual;
    if (c.mode(Mode::manual)) EXPECT_FALSE(says(rig)) << c.id << ": nobody expects it to";
  }
}

TEST(Fly, LevelComesBackFromABankAndDoesNotHoldHeightByItself) {
  Rig rig = with_gains("hedgerow", 0.7);
  FlyOptions o;
  o.mode = Mode::level;
  o.seconds = 12;
  o.sticks = {{1, 4, Axis::roll, 0.8}};
  const auto f = fly(rig, shipped(), o);
  ASSERT_TRUE(f) << f.error().text();
  EXPECT_NEAR(f->motion[390].bank() / rad, 36, 8) << "the stick asks for a bank";
  EXPECT_NEAR(f->motion.back().bank() / rad, 0, 4);
}

TEST(Fly, AReversedCorrectionDivergesAndItIsSaid) {
  Rig rig = with_gains("hedgerow", 1);
  FlyOptions o;
  o.mode = Mode::level;
  o.pilot = false;
  o.wind_m_s = 3;
  o.seconds = 30;
  o.truth.reversed[0] = true;
  const auto f = fly(rig, shipped(), o);
  ASSERT_TRUE(f);
  double most = 0;
  for (const Motion& m : f->motion) most = std::max(most, std::abs(m.bank()));
  EXPECT_GT(most / rad, 80);
}

/// The whole nonlinear flight against the linear onset, at random aircraft whose surfaces are as strong as it takes to
/// shake at 60 % of the most gain: calm a tenth below, shaking a tenth above. The pulses' own holding is no plain
/// delay.
void shakes_where_the_margins_say(const char* demo_rig, Axis axis, double rate_hz, Mode mode) {
  std::mt19937 random(11);
  const auto between = [&random](double a, double b) { return std::uniform_real_distribution(a, b)(random); };
  const auto i = static_cast<std::size_t>(index_of(axis));
  for (int k = 0; k < 6; ++k) {
    Rig rig = demo(demo_rig);  // with a motor: it has to hold its speed
    rig.controller.kind = "pc_mini";
    *rig.airframe.mass_kg *= between(0.8, 1.2);
    rig.airframe.span_m *= between(0.9, 1.2);
    for (Output& o : rig.outputs) o.rate_hz = rate_hz;
    const FeelReport r = analyze_feel({rig, shipped()});
    const AxisFeel& a = r.of(axis);
    ASSERT_TRUE(a.known()) << a.why_not;
    const double v = r.aeroplane.cruise_m_s;
    const auto onset_with = [&](double effect) {
      const Aeroplane strong = doubted(r.aeroplane, {.effect = effect});
      const auto onset = onset_of(
          loop_at(strong, axis_controls(strong, analyze_surfaces(rig))[i], axis, a.path, v, 1, mode == Mode::level));
      return onset ? onset->rate_gain : 0;
    };
    FlyOptions o;
    o.seconds = 8, o.mode = mode, o.pilot = false;
    o.sticks = {{0.5, 0.6, axis, 0.15}};
    o.truth.doubt.effect = onset_with(1) / (0.6 * a.path.full_gain_s);
    ASSERT_GT(o.truth.doubt.effect, 0) << k;
    const double onset = onset_with(o.truth.doubt.effect);
    EXPECT_NEAR(onset / a.path.full_gain_s, 0.6, 1e-6);
    const auto swings = [&](double share) {
      Rig one = rig;
      one.feel.made_gain(axis).rate = share * onset / a.path.full_gain_s;
      const auto f = fly(one, shipped(), o);
      EXPECT_TRUE(f);
      return deviation(f->rate_deg_s[i], 600);
    };
    const double below = swings(0.9);
    EXPECT_LT(below, 1) << demo_rig << ' ' << name_of(axis) << ' ' << k;
    EXPECT_GT(swings(1.1), 2.5 * below) << demo_rig << ' ' << name_of(axis) << ' ' << k;
    EXPECT_GT(swings(1.3), 2.5) << demo_rig << ' ' << name_of(axis) << ' ' << k;
  }
}

TEST(Fly, ShakesInSixDegreesWhereTheMarginsSay) {
  shakes_where_the_margins_say("hedgerow", Axis::roll, 200, Mode::rate);
  shakes_where_the_margins_say("hedgerow", Axis::roll, 50, Mode::level);
  shakes_where_the_margins_say("hedgerow", Axis::pitch, 50, Mode::rate);
  shakes_where_the_margins_say("hedgerow", Axis::yaw, 50, Mode::rate);
  shakes_where_the_margins_say("heath", Axis::roll, 50, Mode::rate);
}

TEST(Fly, MoreThrottleMakesTheCorrectionSmallerWhereTheClassDoesSo) {
  // Correction for the rate while it rolls, and the throttle then.
  const auto told = [](const char* kind, double m_s) {
    Rig rig = with_gains("hedgerow", 0.8);
    rig.controller.kind = kind;
    FlyOptions o;
    o.m_s = m_s, o.seconds = 4, o.pilot = false;
    o.sticks = {{3, 3.3, Axis::roll, 0.4}};
    const auto f = fly(rig, shipped(), o);
    EXPECT_TRUE(f);
    double correction = 0, rate = 0, throttle = 0;
    for (std::size_t i = 310; i < 330; ++i)
      correction += std::abs(f->correction[0][i]), rate += std::abs(f->rate_deg_s[0][i]),
          throttle += f->throttle[i] / 20;
    return std::pair(correction / rate, throttle);
  };
  const FeelReport r = analyze_feel({demo("hedgerow"), shipped()});
  const double cruise = r.aeroplane.cruise_m_s;
  const auto [slow, slow_throttle] = told("full_controller", cruise);
  const auto [fast, fast_throttle] = told("full_controller", 1.6 * cruise);
  ASSERT_GT(fast_throttle, slow_throttle + 0.15);
  const ControllerClass& c = *shipped().controller("full_controller");
  EXPECT_NEAR(
      fast / slow,
      follows_throttle(c, fast_throttle, r.cruise_throttle) / follows_throttle(c, slow_throttle, r.cruise_throttle),
      0.05);
  EXPECT_LT(fast / slow, 0.9);
  EXPECT_NEAR(told("pc_mini", 1.6 * cruise).first / told("pc_mini", cruise).first, 1, 0.05);
}

TEST(Fly, TheWholeTuningSettles) {
  // Advice → flight in turbulence → log → next advice, on an aircraft whose loop is stronger than worked out.
  Rig rig = demo("hedgerow");
  rig = set_first_gains(rig, shipped(), advise_feel(rig, shipped(), analyze_feel({rig, shipped()})))->rig;
  FlyOptions o;
  o.wind_m_s = 5;
  o.seconds = 25;
  o.truth.doubt.effect = 1.25;
  o.truth.servo = 0.85;
  bool shook = false;
  for (int flight = 0; flight < 12 && !shook; ++flight) {
    const FeelReport r = analyze_feel({rig, shipped()});
    o.m_s = r.fast_m_s, o.seed = static_cast<std::uint32_t>(flight + 1);
    const auto flown = fly(rig, shipped(), o);
    ASSERT_TRUE(flown);
    const auto log = parse_flight_log(flown->csv(), "flight");
    ASSERT_TRUE(log);
    const FlightLesson lesson = lesson_of(rig, shipped(), r, *log);
    for (const AxisLesson& l : lesson.axes)
      if (l.axis == Axis::roll && l.place) shook = true;
    if (const auto taken = take_lesson(rig, lesson, true)) rig = taken->rig;
    if (shook) break;
    const FeelAdvice next = advise_feel(rig, shipped(), analyze_feel({rig, shipped()}));
    const auto step =
        std::find_if(next.steps.begin(), next.steps.end(), [](const GainStep& s) { return s.axis == Axis::roll; });
    if (step == next.steps.end()) break;
    rig = set_gain(rig, shipped(), Axis::roll, step->place)->rig;
  }
  // Settled: at the fastest speed it no longer shakes, and corrects.
  const FeelReport r = analyze_feel({rig, shipped()});
  o.m_s = r.fast_m_s, o.seed = 99;
  const auto last = fly(rig, shipped(), o);
  ASSERT_TRUE(last);
  const auto log = parse_flight_log(last->csv(), "flight");
  for (const Episode& e : oscillations_in(*log))
    EXPECT_FALSE(e.axis == Axis::roll && e.kind == OscillationKind::gain) << e.why;
  EXPECT_GT(*rig.feel.gain(Axis::roll)->rate, 0.1);
}

/// Airspeed asked for is airspeed flown, on every kind, from a quarter above the stall to a quarter above cruise; where
/// it is not, the words say why.
TEST(Fly, TheAirspeedAskedForIsFlown) {
  for (const auto& [kind, word] : Names<AirframeKind>::list) {
    Rig rig = fresh_rig("A", kind, "full_controller");
    rig.airframe = usual_airframe(kind, 1.1);
    // Rows of parts are no matter here: a motor and a propeller of this size.
    rig.parts = demo("heath").parts, rig.leads = demo("heath").leads;
    rig.airframe.mass_kg = std::min(*rig.airframe.mass_kg, 1.3);
    for (const Axis axis : all_axes) rig.feel.made_gain(axis).rate = 0.15;
    const FeelReport r = analyze_feel({rig, shipped()});
    ASSERT_EQ(r.missing, "") << word;
    for (const double v : {1.25 * r.aeroplane.stall_m_s, r.aeroplane.cruise_m_s, 1.2 * r.aeroplane.cruise_m_s}) {
      FlyOptions o;
      o.m_s = v, o.seconds = 20, o.wind_m_s = 3;
      const auto f = fly(rig, shipped(), o);
      ASSERT_TRUE(f) << word;
      const Seen seen = seen_in(*f, nullptr, nullptr);
      const bool flown = std::abs(seen.airspeed_m_s / v - 1) < 0.04;
      EXPECT_EQ(flown, seen.words.find("were asked for") == std::string::npos) << word << ": " << seen.words;
      if (f->level.carried && f->level.pulled)
        EXPECT_NEAR(seen.airspeed_m_s / v, 1, 0.06) << word << ' ' << v << ": " << seen.words;
    }
  }
  // A speed that no motor gives is said.
  const Rig rig = demo("heath");
  FlyOptions o;
  o.m_s = 60, o.seconds = 15;
  const auto f = fly(rig, shipped(), o);
  ASSERT_TRUE(f);
  EXPECT_NE(seen_in(*f, nullptr, nullptr).words.find("full throttle gives no more"), std::string::npos)
      << seen_in(*f, nullptr, nullptr).words;
}

TEST(Fly, WhatCantBeFlownIsSaid) {
  Rig rig = demo("hedgerow");
  FlyOptions o;
  o.seconds = 1e5;
  EXPECT_FALSE(fly(rig, shipped(), o));
  o.seconds = 1;
  rig.airframe.mass_kg.reset();
  rig.fit.frame_mass_kg.reset();
  EXPECT_FALSE(fly(rig, shipped(), o));
  rig = demo("heath");
  o.mode = Mode::level;
  EXPECT_FALSE(fly(rig, shipped(), o)) << "its class only damps";
}

}  // namespace
}  // namespace rigging
