#include "feel/advice.h"

#include <gtest/gtest.h>

#include <numbers>
#include <random>

#include "airframe/kinds.h"
#include "base/angle.h"
#include "bench_rig.h"
#include "feel/edits.h"
#include "feel/gust.h"
#include "link/image.h"

namespace rigging {
namespace {

FeelAdvice advice_of(const Rig& rig) { return advise_feel(rig, shipped(), analyze_feel({rig, shipped()})); }

TEST(FeelAdvice, NeverStartsAboveWhatIsCalmAndNeverStepsBeyondWhereItShakes) {
  for (const ControllerClass& c : shipped().controllers)
    for (const AirframeKind kind : {AirframeKind::two_ailerons, AirframeKind::flying_wing, AirframeKind::v_tail})
      for (const StartAt start : {StartAt::least, StartAt::half}) {
        Rig rig = fresh_at_1200_g(c.id.c_str(), kind);
        rig.feel.start = start;
        const FeelReport r = analyze_feel({rig, shipped()});
        ASSERT_EQ(r.missing, "") << c.id;
        const FeelAdvice a = advise_feel(rig, shipped(), r);
        const GainScale scale(c, {});
        EXPECT_EQ(a.first.empty(), !scale.settable()) << c.id;
        if (scale.by() != GainBy::strengths) EXPECT_EQ(a.throws.empty(), scale.settable()) << c.id;
        for (const FirstGain& f : a.first) {
          const AxisFeel& axis = r.of(f.axis);
          EXPECT_LE(axis.path.full_gain_s * scale.effect(f.place), 0.5001 * axis.calm_gain_s) << c.id << ' ' << f.set;
          if (c.feel.gain_by == GainBy::dial) EXPECT_LE(f.place, start == StartAt::half ? 0.5 : 0.0);
        }
        std::map<Axis, double> before;
        for (const FirstGain& f : a.first) before[f.axis] = f.place;
        for (const GainStep& s : a.steps) {
          const AxisFeel& axis = r.of(s.axis);
          EXPECT_GT(s.place, before[s.axis]) << c.id;
          before[s.axis] = s.place;
          EXPECT_LE(axis.path.full_gain_s * scale.effect(s.place), 1.001 * axis.shakes_gain_s) << c.id << ' ' << s.set;
          EXPECT_NE(s.back_off.find(scale.words(scale.rounded_down(scale.place_for(0.7 * scale.effect(s.place))))),
                    std::string::npos);
        }
      }
}

TEST(FeelAdvice, StepsGoOnFromWhereItStands) {
  Rig rig = fresh_at_1200_g("pc_mini");
  rig.feel.made_gain(Axis::roll).rate = 0.1;
  const FeelAdvice a = advice_of(rig);
  const auto first =
      std::find_if(a.steps.begin(), a.steps.end(), [](const GainStep& s) { return s.axis == Axis::roll; });
  ASSERT_NE(first, a.steps.end());
  EXPECT_NEAR(first->place, 0.133, 0.011) << "a third more";
}

TEST(FeelAdvice, HalfTheTravelAtFortyFiveDegreesIsAPlaceOfTheDial) {  // common practice
  const FeelAdvice a = advice_of(fresh_at_1200_g("inline_level"));
  const auto found = std::find_if(a.bench.begin(), a.bench.end(),
                                  [](const std::string& w) { return w.find("45° of bank") != std::string::npos; });
  ASSERT_NE(found, a.bench.end());
  // The whole dial answers 22° with the whole travel: a quarter of its effect does half of it at 45°.
  const GainScale scale(*shipped().controller("inline_level"), {});
  EXPECT_NE(found->find(scale.words(scale.rounded_down(scale.place_for(0.5 * 22 / 45)))), std::string::npos) << *found;
}

TEST(FeelAdvice, ALinkageKeepsWhatTheStickNeeds) {
  Rig rig = fresh_at_1200_g("fixed_wing");
  for (const Side side : {Side::left, Side::right})
    rig = with_linkage(rig, linkage_of(rig, {SurfaceKind::aileron, side}));
  rig.feel.want_roll_deg_s = 900;
  for (const FeelAdvice::Throw& t : advice_of(rig).throws)
    if (t.axis == Axis::roll) EXPECT_EQ(t.share, 1) << t.words;
  rig.feel.want_roll_deg_s = 20;
  const FeelReport r = analyze_feel({rig, shipped()});
  for (const FeelAdvice::Throw& t : advise_feel(rig, shipped(), r).throws)
    if (t.axis == Axis::roll)
      EXPECT_LE(r.of(Axis::roll).gain_s * t.share, 1.001 * std::max(r.of(Axis::roll).calm_gain_s, 0.0));
}

/// What full stick asks for and what the wing carries are two things, on every kind and class and at any mass.
TEST(FeelAdvice, MoreThrowIsNeverAskedForWhereTheWingStalls) {
  std::mt19937 random(32);
  int beyond = 0, shared = 0, told = 0;
  for (const auto& [kind, name] : Names<AirframeKind>::list)
    for (const ControllerClass& c : shipped().controllers) {
      Rig rig = fresh_at_1200_g(c.id.c_str(), kind);
      rig.airframe.mass_kg = std::uniform_real_distribution<double>(0.6, 3)(random);
      const FeelReport r = analyze_feel({rig, shipped()});
      if (!r.missing.empty()) continue;
      const FeelAdvice a = advise_feel(rig, shipped(), r);
      const std::string of = std::string(name) + " with " + c.id;
      const AxisFeel& pitch = r.of(Axis::pitch);
      if (pitch.known()) {
        // By hand: the load that lift at the stall can carry at this speed, less the weight, turns it.
        const double v = r.aeroplane.cruise_m_s, vs = r.aeroplane.stall_m_s;
        ASSERT_TRUE(pitch.stall_rate_deg_s) << of;
        EXPECT_NEAR(*pitch.stall_rate_deg_s, (v * v / (vs * vs) - 1) * 9.80665 / v * 180 / std::numbers::pi, 1e-6)
            << of;
        // By hand: the throw that makes 60°/s, or as much as the wing carries.
        const double wanted = std::min(60.0, *pitch.stall_rate_deg_s);
        for (const std::string& words : a.rates) {
          if (!words.starts_with("Pitch") || pitch.full_rate_deg_s <= 0) continue;
          const bool too_little = wanted > 1.05 * pitch.full_rate_deg_s;
          EXPECT_EQ(words.find("more throw is needed") != std::string::npos, too_little) << of << ": " << words;
          if (pitch.full_rate_deg_s > *pitch.stall_rate_deg_s) {
            EXPECT_NE(words.find("it stalls"), std::string::npos) << of << ": " << words;
            ++beyond;
          }
        }
      }
      // One surface has one throw.
      const auto share_of = [&](Axis axis) -> std::optional<double> {
        for (const FeelAdvice::Throw& t : a.throws)
          if (t.axis == axis) return t.share;
        return {};
      };
      for (const Output& o : rig.outputs)
        if (o.mix.roll != 0 && o.mix.pitch != 0)
          if (const auto one = share_of(Axis::roll), other = share_of(Axis::pitch); one && other) {
            EXPECT_EQ(*one, *other) << of;
            ++shared;
          }
      // The rule of half the travel is one of dials, and never an advice beyond what is calm.
      for (const std::string& words : a.bench)
        if (words.find("45° of bank") != std::string::npos) {
          EXPECT_EQ(c.feel.gain_by, GainBy::dial) << of;
          const GainScale scale(c, {});
          const double rule = scale.place_for(0.5 * c.feel.full_at_deg / 45);
          EXPECT_EQ(words.starts_with("Held"), rule <= r.of(Axis::roll).calm_place) << of << ": " << words;
          ++told;
        }
      for (const std::string& words : a.launch)
        EXPECT_EQ(words.find("overcorrects"), std::string::npos) << of << ": a correction of a few percent does not";
    }
  EXPECT_GT(beyond, 20);
  EXPECT_GT(shared, 3);
  EXPECT_GT(told, 3);
}

/// A switch of which the lower strength is too much: it stays off, and the throw is what makes it less.
TEST(FeelAdvice, ASwitchThatIsTooStrongIsLeftOffAndTheThrowMadeLess) {
  int too_strong = 0;
  for (const ControllerClass& c : shipped().controllers) {
    if (c.feel.gain_by != GainBy::strengths) continue;
    for (const auto& [kind, name] : Names<AirframeKind>::list) {
      const Rig rig = fresh_at_1200_g(c.id.c_str(), kind);
      const FeelReport r = analyze_feel({rig, shipped()});
      if (!r.missing.empty()) continue;
      const FeelAdvice a = advise_feel(rig, shipped(), r);
      const GainScale scale(c, {});
      double calm_by_gentle = 1e9;
      for (const Axis axis : all_axes)
        if (r.of(axis).known())
          calm_by_gentle =
              std::min(calm_by_gentle, r.of(axis).calm_gain_s / (r.of(axis).path.full_gain_s * scale.effect(0.5)));
      for (const FirstGain& f : a.first) EXPECT_EQ(f.set == "off", calm_by_gentle < 2) << name << ' ' << f.why;
      EXPECT_EQ(a.throws.empty(), calm_by_gentle * 0.5 >= 0.98) << name;
      too_strong += calm_by_gentle < 2;
    }
  }
  EXPECT_GT(too_strong, 0);
}

TEST(FeelEdits, GainsAreSetInTheWordsOfTheClass) {
  Rig rig = fresh_at_1200_g("inline_dial");
  const auto set = set_gain_in_words(rig, shipped(), Axis::pitch, "9:30");
  ASSERT_TRUE(set);
  EXPECT_NEAR(*set->rig.feel.gain(Axis::pitch)->rate, 0.25, 1e-9);
  EXPECT_EQ(set->label, "Pitch gain: half past 9");
  EXPECT_FALSE(set_gain_in_words(rig, shipped(), Axis::pitch, "6 o'clock"));
  EXPECT_FALSE(set_gain(rig, shipped(), Axis::pitch, 1.2));
  EXPECT_FALSE(set_gain(fresh_at_1200_g("fixed_mini"), shipped(), Axis::pitch, 0.5)) << "the linkage sets it";
  const auto first = set_first_gains(rig, shipped(), advice_of(rig));
  ASSERT_TRUE(first);
  EXPECT_EQ(first->rig.feel.gains.size(), 3u);
}

TEST(FeelSettings, AGainComesBackFromTheBoardAsItWasWritten) {
  Rig rig = fresh_at_1200_g("full_controller");
  for (double place = 0; place <= 1; place += 0.0137) {
    rig.feel.made_gain(Axis::roll).rate = place;
    rig.feel.made_gain(Axis::pitch).level = 1 - place;
    const link::Image image = link::image_of(rig);
    const Rig held = link::configured(image);
    EXPECT_NEAR(*held.feel.gain(Axis::roll)->rate, place, 6e-5);
    EXPECT_TRUE(link::differences(image, link::image_of(held)).empty()) << place;
  }
}

TEST(GustAnswer, ACorrectionMakesAGustSmallerAndTooMuchGoesOnSwinging) {
  const FeelReport r = analyze_feel({demo("hedgerow"), shipped()});
  const AxisFeel& roll = r.of(Axis::roll);
  const double v = r.aeroplane.cruise_m_s;
  const auto most = [](const GustAnswer& a) {
    double m = 0;
    for (const double x : a.angle_deg) m = std::max(m, std::abs(x));
    return m;
  };
  const GustAnswer alone = gust_answer(r, Axis::roll, 0, false, v);
  EXPECT_NEAR(most(alone), 25, 0.1);
  const GustAnswer calm = gust_answer(r, Axis::roll, margin_at(roll.rate, v).calm_s, false, v);
  EXPECT_LT(most(calm), 0.8 * most(alone));
  EXPECT_LE(calm.swings, 3);
  const GustAnswer wild = gust_answer(r, Axis::roll, 1.3 * margin_at(roll.rate, v).shakes_s, false, v);
  EXPECT_GT(wild.swings, 8) << "some seven swings a second";
  const GustAnswer level = gust_answer(r, Axis::roll, margin_at(roll.level, v).calm_s, true, v, 25, 6);
  EXPECT_LT(std::abs(level.angle_deg.back()), 5) << "levelled again";
}

// The direct stick share is part of the rates that the launch tells: half of it turns half as fast, whatever the gain,
// and manual has all of it.
TEST(Advice, TheLaunchTellsWhatTheDirectStickIsWorth) {
  Rig rig = demo("hedgerow");
  rig.feel.takeoff.way = TakeoffWay::hand;
  const auto set = set_direct_stick(rig, shipped(), Axis::roll, 0.5);
  ASSERT_TRUE(set);
  const FeelReport whole = analyze_feel({rig, shipped()}), half = analyze_feel({set->rig, shipped()});
  const AxisFeel &a = whole.of(Axis::roll), &b = half.of(Axis::roll);
  ASSERT_TRUE(a.known());
  EXPECT_EQ(a.stick_share, 1);
  EXPECT_EQ(b.stick_share, 0.5);
  const double v = 9;
  EXPECT_NEAR(b.stick_rate_deg_s(half.aeroplane, v, false), 0.5 * a.stick_rate_deg_s(whole.aeroplane, v, false), 1e-9);
  EXPECT_EQ(b.stick_rate_deg_s(half.aeroplane, v, true), a.stick_rate_deg_s(whole.aeroplane, v, true));
  EXPECT_NEAR(a.stick_rate_deg_s(whole.aeroplane, whole.aeroplane.cruise_m_s, true), a.full_rate_deg_s, 1e-6);
  const FeelAdvice advice = advise_feel(set->rig, shipped(), half);
  EXPECT_TRUE(std::any_of(advice.launch.begin(), advice.launch.end(),
                          [](const std::string& l) { return l.find("direct stick 50 %") != std::string::npos; }));
  EXPECT_FALSE(set_direct_stick(demo("heath"), shipped(), Axis::roll, 0.5)) << "its stick works as in manual";
  EXPECT_FALSE(set_direct_stick(rig, shipped(), Axis::roll, 1.2));
  // It is written over the link with the gains, and read back.
  EXPECT_EQ(rig_from_text(rig_text(set->rig), "A")->feel.gain(Axis::roll)->stick, 0.5);
}

}  // namespace
}  // namespace rigging
