#include "feel/advice.h"

#include <gtest/gtest.h>

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
        EXPECT_EQ(a.throws.empty(), scale.settable()) << c.id;
        for (const FirstGain& f : a.first) {
          const AxisFeel& axis = r.of(f.axis);
          // A switch has no place between its strengths.
          const double most = c.feel.gain_by == GainBy::strengths ? 1.0001 : 0.5001;
          EXPECT_LE(axis.path.full_gain_s * scale.effect(f.place), most * axis.calm_gain_s) << c.id << ' ' << f.set;
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

}  // namespace
}  // namespace rigging
