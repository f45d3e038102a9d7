#include "feel/loop_changes.h"

#include <gtest/gtest.h>

#include "airframe/kinds.h"
#include "bench_rig.h"

namespace rigging {
namespace {

TEST(LoopChanges, SaysWhatTheWholeRigWithThatChangeSays) {
  // From a second side: the rig itself with the change made, worked out anew.
  Rig rig = fresh_rig("A", AirframeKind::two_ailerons, "pc_mini");
  rig.airframe.mass_kg = 1.1;
  const FeelReport now = analyze_feel({rig, shipped()});
  ASSERT_TRUE(now.of(Axis::roll).known());
  const std::vector<LoopChange> all = loop_changes(rig, shipped(), now);
  const auto starting = [&](const char* begin) {
    for (const LoopChange& w : all)
      if (w.axis == Axis::roll && w.words.starts_with(begin)) return w;
    ADD_FAILURE() << begin;
    return LoopChange{};
  };
  Rig quick = rig;
  for (Output& o : quick.outputs) o.rate_hz = 100;
  EXPECT_NEAR(starting("Pulses at 100").calm_gain_s, analyze_feel({quick, shipped()}).of(Axis::roll).calm_gain_s,
              0.04 * now.of(Axis::roll).calm_gain_s);
  EXPECT_GT(starting("Servos half again").calm_gain_s, 1.03 * now.of(Axis::roll).calm_gain_s);
  EXPECT_NEAR(starting("A fifth less").calm_gain_s, now.of(Axis::roll).calm_gain_s, 1e-4)
      << "the loop stays what it is: the same gain takes a place further up";
  EXPECT_GE(starting("A filter").calm_gain_s, now.of(Axis::roll).calm_gain_s);
}

TEST(LoopChanges, SpeaksOfThrowWhereTheLinkageIsTheGainAndOfNothingWhereNothingIsKnown) {
  Rig rig = fresh_rig("A", AirframeKind::flying_wing, "fixed_mini");
  rig.airframe.mass_kg = 0.6;
  const auto all = loop_changes(rig, shipped(), analyze_feel({rig, shipped()}));
  ASSERT_FALSE(all.empty());
  EXPECT_TRUE(all.front().words.find("° of throw") != std::string::npos) << all.front().words;
  rig.airframe.mass_kg.reset();
  rig.fit.frame_mass_kg.reset();
  EXPECT_TRUE(loop_changes(rig, shipped(), analyze_feel({rig, shipped()})).empty());
}

}  // namespace
}  // namespace rigging
