#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

#include "airframe/kinds.h"
#include "base/find.h"
#include "bench_rig.h"
#include "link/image.h"
#include "review/review.h"
#include "surfaces/edits.h"
#include "surfaces/release.h"
#include "surfaces/trim.h"

namespace rigging {
namespace {

bool has_snag(const Rig& rig, const char* code) {
  const Review r = review(rig, shipped());
  return find_in(r.snags, [&](const Snag& s) { return s.code == code; }) != nullptr;
}

TEST(Trim, CentresMovedInFlightTakeTheirProofsAlong) {
  Rig rig = measured(directions_proven(demo("hedgerow")));
  rig.controller.auto_trim = true;
  ASSERT_EQ(status_of(rig, surfaces_centred).state, ProofState::fresh);
  Rig flown = rig;
  flown.outputs[0].centre_us = 1532;
  const auto found = link::differences(link::image_of(rig), link::image_of(flown));
  ASSERT_EQ(found.size(), 1u);
  EXPECT_TRUE(found[0].only_centre());
  const Rig taken = link::with_board_parts(rig, link::image_of(flown), {found[0].part});
  EXPECT_EQ(taken.outputs[0].centre_us, 1532);
  const CheckStatus centred = status_of(taken, surfaces_centred);
  EXPECT_EQ(centred.state, ProofState::fresh) << centred.because();
  EXPECT_TRUE(centred.holds) << centred.why_not;
  const Linkage* l = taken.linkage(rig.outputs[0].surfaces.front());
  ASSERT_TRUE(l && l->want_neutral_deg);
  // 0.2° at 1500 and 20° at an end 500 µs away: 32 µs are 1.27° on the straight line between.
  EXPECT_NEAR(std::abs(*l->want_neutral_deg - 0.2), 0.032 / 0.5 * 20, 0.15);
  // Without automatic trim, or by more than a trim, it is a change like any other.
  Rig plain = rig;
  plain.controller.auto_trim = false;
  EXPECT_EQ(status_of(link::with_board_parts(plain, link::image_of(flown), {found[0].part}), surfaces_centred).state,
            ProofState::stale);
  flown.outputs[0].centre_us = 1700;
  EXPECT_EQ(status_of(link::with_board_parts(rig, link::image_of(flown), {found[0].part}), surfaces_centred).state,
            ProofState::stale);
}

TEST(Trim, AClassSaysWhatItMovesWhenAndHowOften) {
  const std::string full = trim_words(*shipped().controller("full_controller"));
  EXPECT_NE(full.find("level mode"), std::string::npos);
  EXPECT_NE(full.find("10 s"), std::string::npos);
  EXPECT_NE(trim_words(*shipped().controller("gesture_board")).find("told to"), std::string::npos);
  EXPECT_TRUE(trim_words(*shipped().controller("inline_dial")).empty());
  Rig rig = demo("heath");
  rig.controller.auto_trim = true;
  EXPECT_TRUE(has_snag(rig, "SURFACES-23")) << "its class keeps no trim";
}

TEST(Trim, AHandFlownFlightGivesTheWantedCentres) {
  Rig rig = demo("hedgerow");
  const Surface s = rig.linkages.front().surface;
  const auto noted = trim_flown(rig, {{{s, 2.5}}, 0.55});
  ASSERT_TRUE(noted);
  EXPECT_EQ(noted->rig.linkage(s)->want_neutral_deg, 2.5);
  EXPECT_EQ(noted->rig.power.cruise_throttle, 0.55);
  // Centring brings the surface there: the pulse that it sets stands at 2.5°.
  const auto c = centre(*noted->rig.linkage(s), *rig.output_of(s));
  ASSERT_TRUE(c) << c.error().text();
  Linkage set = worked_over(*noted->rig.linkage(s), *c);
  const auto bar = FourBar::of(set);
  ASSERT_TRUE(bar);
  const auto pose = bar->pose(arm_at(set, c->centre_us, rising_lifts(*rig.output_of(s), s)));
  ASSERT_TRUE(pose);
  EXPECT_NEAR(pose->up_deg, 2.5, 0.05);
  // A class without a centre to set gets there by the clevis, to half a turn.
  OutputSettings by_hand;
  by_hand.centre = false;
  const auto mechanical = centre(*noted->rig.linkage(s), *rig.output_of(s), by_hand);
  ASSERT_TRUE(mechanical);
  EXPECT_NE(mechanical->clevis_turns, 0);
  EXPECT_FALSE(trim_flown(rig, {{{s, 45}}, {}})) << "no trim";
  EXPECT_FALSE(trim_flown(rig, {{{{SurfaceKind::canard, Side::single}, 1}}, {}}));
}

TEST(TailMix, IsAPercentageOfTheAileronsThrow) {
  Rig rig = fresh_rig("tail", AirframeKind::tailerons, "radio_stabilizer");
  const auto half = set_tail_mix(rig, 50);
  ASSERT_TRUE(half) << half.error().text();
  EXPECT_NEAR(*tail_mix_percent(half->rig), 50, 0.5);
  // By degrees, not by weights: a tail half on a longer horn needs more weight for the same percentage.
  rig = half->rig;
  const auto quarter = set_tail_mix(rig, 25);
  ASSERT_TRUE(quarter);
  EXPECT_NEAR(*tail_mix_percent(quarter->rig), 25, 0.5);
  const auto roll = [&](const Rig& r, Side side) { return r.output_of({SurfaceKind::taileron, side})->mix.roll; };
  EXPECT_NEAR(std::abs(roll(quarter->rig, Side::left)), std::abs(roll(rig, Side::left)) / 2, 0.02);
  EXPECT_GT(roll(rig, Side::left) * roll(quarter->rig, Side::left), 0) << "the sign stays";
  EXPECT_FALSE(set_tail_mix(rig, 160));
  EXPECT_FALSE(set_tail_mix(demo("hedgerow"), 50)) << "no tail halves that roll";
}

/// Arm 12 mm, ±45°: 12 · (sin 45° + sin 45°) = 16.97 mm (on paper).
TEST(Release, WireTravelAndForceByHand) {
  Release r;
  Output o;
  const ReleaseReport full = analyze_release(r, o, 0.15);
  EXPECT_NEAR(full.travel.value, 0.012 * 2 * std::numbers::sqrt2 / 2, 1e-9);
  EXPECT_NEAR(full.force.value, 0.15 / 0.012, 1e-9) << "12.5 N where the arm stands square";
  EXPECT_TRUE(full.clears);
  r.pin_m = 0.018;
  EXPECT_FALSE(analyze_release(r, o, 0.15).clears);
  // Half of the travel on one side of square: 12 · sin 45° = 8.49 mm.
  o.low_us = 1500;
  EXPECT_NEAR(analyze_release(r, o, {}).travel.value, 0.012 * std::numbers::sqrt2 / 2, 1e-9);
  r.pull_n = 30;
  r.friction = 0.3;
  EXPECT_NEAR(analyze_release(r, o, 0.15).needed.value, 9, 1e-9);
  EXPECT_FALSE(analyze_release(r, o, 0.15).strong) << "12.5 N is not twice 9 N";
}

TEST(Release, IsAsnagAndACheckOnATowedGliderAlone) {
  Rig rig = fresh_rig("glider", AirframeKind::towed_glider, "full_controller");
  const auto checks = [](const Rig& r) {
    const auto all = check_statuses(r, shipped());
    return find_check(all, tow_release) != nullptr;
  };
  EXPECT_TRUE(checks(rig));
  EXPECT_FALSE(checks(demo("hedgerow")));
  EXPECT_FALSE(has_snag(rig, "SURFACES-22"));
  rig.release.emplace();
  EXPECT_FALSE(has_snag(rig, "SURFACES-22"));
  rig.release->pin_m = 0.03;
  EXPECT_TRUE(has_snag(rig, "SURFACES-22"));
}

}  // namespace
}  // namespace rigging
