#include "proof/hand_steps.h"
#include "direction/mode_checks.h"

#include <gtest/gtest.h>

#include "airframe/kinds.h"
#include "base/find.h"
#include "bench_rig.h"
#include "proof/proof_procedure.h"
#include "review/review.h"

namespace rigging {
namespace {

std::vector<std::string> subjects(const Rig& rig, const char* family) {
  std::vector<std::string> all;
  for (const CheckStatus& c : check_statuses(rig, shipped()))
    if (c.id.family == family) all.push_back(c.id.subject);
  return all;
}

using Ids = std::vector<std::string>;

TEST(HandSteps, EveryClassBeginsWithBinding) {
  for (const ControllerClass& c : shipped().controllers) {
    ASSERT_FALSE(c.steps.empty()) << c.id;
    EXPECT_EQ(c.steps.front().id, "bind") << c.id;
    std::set<std::string> ids;
    for (const HandStep& s : c.steps) {
      EXPECT_TRUE(ids.insert(s.id).second) << c.id << " " << s.id;
      EXPECT_FALSE(s.steps.empty()) << c.id << " " << s.id;
      EXPECT_FALSE(s.expected.empty()) << c.id << " " << s.id;
    }
  }
}

TEST(HandSteps, GuideAndHoldNothingUp) {
  const Rig rig = measured(directions_proven(demo("hedgerow")));
  const Review r = review(rig, shipped());
  EXPECT_EQ(subjects(rig, prepare_family), (Ids{"bind", "firmware", "defaults"}));
  for (const CheckStatus& c : r.checks)
    if (c.id.family == prepare_family) EXPECT_EQ(c.state, ProofState::none);
  EXPECT_TRUE(r.readiness.ready) << r.readiness.words;
  // Ticked off, it is known; a new firmware asks for the defaults again.
  Rig done = proven(rig, {prepare_family, "defaults"});
  EXPECT_EQ(status_of(done, {prepare_family, "defaults"}).state, ProofState::fresh);
  done.controller.firmware = "1.0";
  EXPECT_EQ(status_of(done, {prepare_family, "defaults"}).state, ProofState::stale);
}

TEST(HandSteps, DialsThatWereTurnedUpAreALooseEndUntilTheyAreBack) {
  Rig rig = fresh_rig("dials", AirframeKind::two_ailerons, "inline_dial");
  rig.controller.mounted = true;
  EXPECT_TRUE(due_loose_ends({rig, shipped()}).empty()) << "nothing was turned up yet";
  rig = proven(rig, {correction_family, "roll"}, "2026-11-02T10:00:00Z");
  const auto due = due_loose_ends({rig, shipped()});
  ASSERT_EQ(due.size(), 1u);
  EXPECT_NE(due[0].text.find("back to least"), std::string::npos);
  const auto snag = [&] {
    const Review r = review(rig, shipped());
    return find_in(r.snags, [](const Snag& s) { return s.code == "PROOF-04"; }) != nullptr;
  };
  EXPECT_TRUE(snag());
  rig = proven(rig, {put_back_family, "dials_back"}, "2026-11-02T11:00:00Z");
  EXPECT_TRUE(due_loose_ends({rig, shipped()}).empty());
  EXPECT_FALSE(snag());
  rig = proven(rig, {correction_family, "pitch"}, "2026-11-02T12:00:00Z");
  EXPECT_EQ(due_loose_ends({rig, shipped()}).size(), 1u) << "turned up again for another look";
}

TEST(HandSteps, ASetUpModeThatWasEnteredHasToBeLeft) {
  Rig rig = fresh_rig("gestures", AirframeKind::two_ailerons, "gesture_board");
  rig = proven(rig, {prepare_family, "bind"}, "2026-11-02T09:00:00Z");
  EXPECT_TRUE(due_loose_ends({rig, shipped()}).empty());
  // One visit: in, levelling on, the looks at directions, out again.
  rig = proven(rig, {prepare_family, "levelling_on"}, "2026-11-02T10:00:00Z");
  rig = proven(rig, {correction_family, "roll"}, "2026-11-02T10:03:00Z");
  ASSERT_EQ(due_loose_ends({rig, shipped()}).size(), 1u);
  EXPECT_NE(due_loose_ends({rig, shipped()})[0].text.find("set-up mode"), std::string::npos);
  rig = proven(rig, {put_back_family, "set_up_left"}, "2026-11-02T10:05:00Z");
  EXPECT_TRUE(due_loose_ends({rig, shipped()}).empty());
}

TEST(ModeChecks, AreOfThePositionsThatWillBeFlown) {
  Rig rig = demo("hedgerow");  // manual, level and rate on channel 5
  EXPECT_EQ(subjects(rig, mode_family), (Ids{"manual", "level", "rate"}));
  std::erase_if(rig.modes, [](const ModeChoice& m) { return m.mode == "rate"; });
  EXPECT_EQ(subjects(rig, mode_family), (Ids{"manual", "level"}));
  rig.modes.push_back({6, 1000, 2000, "circle", {}});
  EXPECT_EQ(subjects(rig, mode_family), (Ids{"manual", "level"})) << "what the stabilizer does not answer by itself";
  // A class says what each of its modes does on the bench.
  const CheckContext in(rig, shipped());
  EXPECT_NE(card_of(in, {mode_family, "level"}).expected.find("as long as"), std::string::npos);
  EXPECT_NE(card_of(in, {mode_family, "manual"}).expected.find("stay where they are"), std::string::npos);
  const Rig fixed = fresh_rig("f", AirframeKind::flying_wing, "fixed_wing");
  const CheckCard level = card_of({fixed, shipped()}, {mode_family, "level"});
  EXPECT_NE(level.expected.find("full deflection"), std::string::npos) << "its levelling runs on from a standstill";
  EXPECT_NE(level.cautions.front().find("unlocked"), std::string::npos);
}

TEST(ModeChecks, GoStaleWhenAnotherPositionGivesTheMode) {
  const Rig rig = proven(demo("hedgerow"), {mode_family, "level"});
  ASSERT_EQ(status_of(rig, {mode_family, "level"}).state, ProofState::fresh);
  Rig moved = rig;
  for (ModeChoice& m : moved.modes)
    if (m.mode == "rate") m.to_us = 2050;
  EXPECT_EQ(status_of(moved, {mode_family, "level"}).state, ProofState::fresh) << "another mode's business";
  for (ModeChoice& m : moved.modes)
    if (m.mode == "level") m.from_us = 1350;
  const CheckStatus level = status_of(moved, {mode_family, "level"});
  EXPECT_EQ(level.state, ProofState::stale);
  EXPECT_NE(level.because().find("1350"), std::string::npos) << level.because();
}

TEST(ModeChecks, BothEndsOfAGainControlAreLookedAt) {
  Rig rig = demo("hedgerow");
  EXPECT_TRUE(subjects(rig, gain_ends.family.c_str()).empty());
  Channel c;
  c.number = 8;
  c.function = ChannelFunction::gain;
  rig.radio.channels.push_back(c);
  EXPECT_EQ(subjects(rig, gain_ends.family.c_str()), (Ids{""}));
  rig.radio.channels.back().fixed_us = 1500;
  EXPECT_TRUE(subjects(rig, gain_ends.family.c_str()).empty()) << "a gain that is fixed has no ends";
}

TEST(LookModes, ACorrectionCanBeLookedAtInAnyModeThatAnswersIt) {
  const ControllerClass& full = *shipped().controller("full_controller");
  const auto roll = look_modes(full, Axis::roll), yaw = look_modes(full, Axis::yaw);
  EXPECT_EQ(roll.front(), full.proof.bench_mode);
  EXPECT_NE(std::find(roll.begin(), roll.end(), Mode::level), roll.end());
  EXPECT_EQ(std::find(yaw.begin(), yaw.end(), Mode::level), yaw.end()) << "levelling gives no answer to yaw";
  const auto fixed = look_modes(*shipped().controller("fixed_wing"), Axis::roll);
  EXPECT_EQ(std::find(fixed.begin(), fixed.end(), Mode::level), fixed.end()) << "one that runs away tells nothing";
  // Pressed on the card, the look is asked for in that mode.
  const Rig rig = demo("hedgerow");
  const auto checks = check_statuses(rig, shipped());
  ProofProcedure p;
  const Scene scene{rig, shipped(), &full, nullptr, checks, "", {}};
  (void)p.hear(SceneChanged{}, scene);
  (void)p.hear(Pressed{.action = "choose", .subject = "correction.roll"}, scene);
  const Mode best = p.asked().mode;
  const Mode other = roll[0] == best ? roll[1] : roll[0];
  const Card card = p.card(scene);
  const std::string action = "look_in:" + std::string(name_of(other));
  EXPECT_TRUE(find_in(card.actions, [&](const Action& a) { return a.id == action; }));
  (void)p.hear(Pressed{.action = action}, scene);
  EXPECT_EQ(p.asked().mode, other);
  (void)p.hear(Pressed{.action = "look_in:manual"}, scene);
  EXPECT_EQ(p.asked().mode, other) << "manual answers nothing";
  (void)p.hear(Pressed{.action = "choose", .subject = "correction.pitch"}, scene);
  EXPECT_EQ(p.asked().mode, best) << "another check begins with the best mode";
}

TEST(ProofCard, CountsWhatWasLeftForLater) {
  const Rig rig = demo("hedgerow");
  const Review r = review(rig, shipped());
  const Scene scene{rig, shipped(), shipped().controller(rig.controller.kind), &r.reports, r.checks, "not ready"};
  ProofProcedure p;
  p.hear(SceneChanged{}, scene);
  const auto lead = std::find_if(r.checks.begin(), r.checks.end(), [](const auto& c) { return c.id.family == "lead"; });
  ASSERT_NE(lead, r.checks.end());
  const auto leads =
      std::count_if(r.checks.begin(), r.checks.end(), [](const auto& c) { return c.id.family == "lead"; });
  p.hear(Pressed{"choose", 0, {}, lead->id.text()}, scene);
  ASSERT_TRUE(p.card(scene).action("later"));
  EXPECT_TRUE(p.card(scene).note.empty());
  p.hear(Pressed{"later"}, scene);
  EXPECT_NE(p.card(scene).note.find(std::to_string(leads) + " checks left for later"), std::string::npos)
      << p.card(scene).note;
}

/// What a link reads back nobody is asked for; without it eyes say it.
TEST(ProofCard, FirstGainsAreReadOverTheLink) {
  Rig rig = demo("hedgerow");
  for (const Axis axis : all_axes) rig.feel.made_gain(axis).rate = 0.2;
  const Review r = review(rig, shipped());
  const CheckStatus* gains = find_check(r.checks, "feel.first_gains");
  ASSERT_TRUE(gains && gains->holds);
  Scene scene{rig, shipped(), shipped().controller(rig.controller.kind), &r.reports, r.checks, "not ready"};
  ProofProcedure p;
  p.hear(SceneChanged{}, scene);
  p.hear(Pressed{"choose", 0, {}, gains->id.text()}, scene);
  EXPECT_TRUE(p.card(scene).action("not_so"));
  scene.bench.controller = scene.bench.read = true;
  EXPECT_FALSE(p.card(scene).action("not_so"));
  EXPECT_NE(p.card(scene).says.find("read over the link"), std::string::npos);
}

}  // namespace
}  // namespace rigging
