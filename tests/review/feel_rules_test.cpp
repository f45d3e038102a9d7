#include <gtest/gtest.h>

#include <set>

#include "airframe/kinds.h"
#include "airframe/planform.h"
#include "airframe/proportions.h"
#include "bench_rig.h"
#include "feel/advice.h"
#include "feel/edits.h"
#include "review/coded.h"
#include "review/deferred.h"

namespace rigging {
namespace {

std::vector<Snag> snags_of(const Rig& rig) { return deferred_snags(rig, Station::feel); }

TEST(FeelRules, AGainThatShakesIsSaidAndItsFixCalmsIt) {
  Rig rig = demo("hedgerow");
  rig = set_first_gains(rig, shipped(), advise_feel(rig, shipped(), analyze_feel({rig, shipped()})))->rig;
  EXPECT_EQ(coded(snags_of(rig), "FEEL-01"), nullptr) << "what is advised does not shake";
  EXPECT_EQ(coded(snags_of(rig), "FEEL-02"), nullptr);
  rig.feel.made_gain(Axis::roll).rate = 1;
  const std::vector<Snag> firm = snags_of(rig);
  const Snag* shakes = coded(firm, "FEEL-01");
  ASSERT_TRUE(shakes);
  EXPECT_EQ(shakes->subject, "roll");
  ASSERT_TRUE(shakes->fix);
  const std::vector<Snag> after = snags_of(fixed_by(*shakes->fix, rig));
  EXPECT_EQ(coded(after, "FEEL-01"), nullptr);
  EXPECT_EQ(coded(after, "FEEL-02"), nullptr) << "its own advice was followed";
}

// Where one switch serves all axes the fix sets them all, to what the least calm of them wants.
TEST(FeelRules, OneSwitchIsSetForAllAxes) {
  int tried = 0;
  for (const ControllerClass& c : shipped().controllers) {
    if (c.feel.gain_by != GainBy::strengths) continue;
    for (const AirframeKind kind : {AirframeKind::two_ailerons, AirframeKind::flying_wing, AirframeKind::v_tail}) {
      Rig rig = fresh_at_1200_g(c.id.c_str(), kind);
      for (const Axis axis : all_axes) rig.feel.made_gain(axis).rate = 1;
      rig.airframe.cruise_m_s = 30;
      const std::vector<Snag> snags = snags_of(rig);
      for (const Snag& s : snags) {
        if ((s.code != "FEEL-01" && s.code != "FEEL-02") || !s.fix) continue;
        ++tried;
        const Rig fixed = fixed_by(*s.fix, rig);
        for (const Axis axis : all_axes)
          EXPECT_EQ(fixed.feel.gain(axis)->rate, fixed.feel.gain(Axis::roll)->rate) << c.id << " " << s.what;
        const std::vector<Snag> after = snags_of(fixed);
        for (const char* code : {"FEEL-01", "FEEL-02"})
          if (const Snag* left = coded(after, code)) {
            EXPECT_FALSE(left->fix) << c.id << ": " << left->what << " after " << s.fix->label;
          }
      }
    }
  }
  EXPECT_GT(tried, 0);
}

TEST(FeelRules, WhatTheBenchTaughtIsForgottenAtAStroke) {
  Rig rig = demo("hedgerow");
  rig.feel.learned = {{Axis::roll, 1.2, 1.0, 1.4, true, {}}, {Axis::pitch, 0.9, 0.8, 1.0, false, {}}};
  const std::vector<Snag> snags = snags_of(rig);
  const Snag* simulated = coded(snags, "FEEL-03");
  ASSERT_TRUE(simulated && simulated->fix);
  const Rig forgotten = fixed_by(*simulated->fix, rig);
  ASSERT_EQ(forgotten.feel.learned.size(), 1u);
  EXPECT_EQ(forgotten.feel.learned.front().axis, Axis::pitch) << "what a real flight told stays";
  EXPECT_EQ(coded(snags_of(forgotten), "FEEL-03"), nullptr);
}

TEST(FeelRules, FinsThatAreTooSmallAreSaid) {
  // A centre that is not positive grounds, as a neutral point ahead of the balance does; a band across nothing is to be
  // looked at first.
  for (const auto& [kind, name] : Names<AirframeKind>::list) {
    Rig rig = fresh_rig("A", kind, "pc_mini");
    rig.airframe = usual_airframe(kind, 1.3);
    EXPECT_EQ(coded(snags_of(rig), "FEEL-04"), nullptr) << name << " as it is begun";
    if (has_v(kind)) continue;
    const Airframe usual = rig.airframe;
    std::set<Severity> met;
    for (double share = 0.9; share > 0.1; share -= 0.15) {
      rig.airframe.fin_height_m = share * usual.fin_height_m;
      rig.airframe.fin_chord_m = share * usual.fin_chord_m;
      Progress progress;
      const auto deferred = deferred_review({rig, shipped()}, progress);
      const Banded n = deferred->feel.aeroplane.stability.yaw_beta;
      const Snag* found = coded(deferred->snags, "FEEL-04");
      ASSERT_EQ(found != nullptr, n.value < 0.01 || n.least <= 0) << name << " " << share;
      if (!found) continue;
      EXPECT_EQ(found->severity, n.value <= 0   ? Severity::grounds
                                 : n.least <= 0 ? Severity::fix_first
                                                : Severity::worth_knowing)
          << name << " " << share;
      met.insert(found->severity);
    }
    EXPECT_TRUE(met.count(Severity::grounds) && met.count(Severity::fix_first)) << name;
  }
}

TEST(FeelRules, BothTiersComeTogetherWithWhatGroundsFirst) {
  std::vector<Snag> first(2), late(2);
  first[0].severity = Severity::grounds, first[1].severity = Severity::worth_knowing;
  late[0].severity = Severity::fix_first, late[1].severity = Severity::grounds;
  late[1].code = "late";
  const auto all = with_deferred(first, late);
  ASSERT_EQ(all.size(), 4u);
  EXPECT_EQ(all[1].code, "late");
  for (std::size_t i = 1; i < all.size(); ++i) EXPECT_LE(all[i - 1].severity, all[i].severity);
}

}  // namespace
}  // namespace rigging
