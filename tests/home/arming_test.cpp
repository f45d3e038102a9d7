#include "home/arming.h"

#include <gtest/gtest.h>

#include "home/home_checks.h"
#include "home/home_procedures.h"
#include "home/home_rigs.h"
#include "review/coded.h"
#include "senses/board_in_hand.h"

namespace rigging {
namespace {

bool any_has(const std::vector<std::string>& lines, const std::string& words) {
  return std::any_of(lines.begin(), lines.end(),
                     [&](const std::string& l) { return l.find(words) != std::string::npos; });
}

TEST(Arming, EveryRefusalHasItsRemedy) {
  const Rig rig = demo("hedgerow");
  for (const auto& [why, name] : Names<ArmingRefusal>::list) {
    const ArmingReason r = reason_of({why, "airspeed"}, rig);
    EXPECT_TRUE(r.words.ends_with('.') && r.remedy.ends_with('.')) << name;
  }
  EXPECT_NE(reason_of({ArmingRefusal::sensor_missing, "airspeed"}, rig).words.find("Airspeed"), std::string::npos);
}

TEST(Arming, WhatItNeedsFollowsPlanAndClass) {
  Rig rig = comes_home();
  EXPECT_TRUE(any_has(arming_needs(rig, shipped()), "position"));
  rig.home.on_loss = LossAction::glide;
  rig.modes.clear();
  EXPECT_FALSE(any_has(arming_needs(rig, shipped()), "position")) << "nothing is planned that needs one";
  rig.sensing.uses_airspeed = true;
  EXPECT_TRUE(any_has(arming_needs(rig, shipped()), "Mend first")) << "a setting of another model";
  rig.controller.kind = "large_controller";
  EXPECT_TRUE(any_has(arming_needs(rig, shipped()), "safety button"));
  rig.controller.kind = "fixed_mini";
  EXPECT_TRUE(any_has(arming_needs(rig, shipped()), "Channel 7"));
  rig.controller.kind = "inline_dial";
  EXPECT_TRUE(arming_needs(rig, shipped()).empty());
}

BoardState refusing(std::vector<BoardState::Refusal> refuses) {
  BoardState s;
  s.mode = "manual";
  s.can_arm = true;
  s.refuses = std::move(refuses);
  return s;
}

TEST(ArmingProcedure, OneReasonAtATimeAndThePositionIsProvenByItself) {
  Held<ArmingProcedure> h;
  h.rig.home.on_loss = LossAction::come_home;
  h.checks = check_statuses(h.rig, h.catalogue);
  ASSERT_TRUE(find_check(h.checks, arming_waits));
  EXPECT_TRUE(says(h.procedure.card(h.scene()), "is asked here"));
  h.tell(refusing({{ArmingRefusal::throttle_open, ""}, {ArmingRefusal::no_fix, ""}}));
  Card card = h.procedure.card(h.scene());
  EXPECT_TRUE(says(card, "The throttle is not closed."));
  EXPECT_TRUE(says(card, "one more"));
  EXPECT_FALSE(card.action("arming_record"));
  h.tell(refusing({{ArmingRefusal::no_fix, ""}}));
  EXPECT_TRUE(says(h.procedure.card(h.scene()), "open sky"));
  h.tell(refusing({}));
  card = h.procedure.card(h.scene());
  EXPECT_TRUE(says(card, "Nothing keeps it from arming."));
  ASSERT_TRUE(card.action("arming_record"));
  const Orders orders = h.tell(Pressed{"arming_record", 0, {}, {}});
  EXPECT_EQ(std::get<Record>(orders.at(0)).check, arming_waits);
  // A board that never refused has proven nothing.
  Held<ArmingProcedure> late;
  late.rig = h.rig, late.checks = h.checks;
  late.tell(refusing({}));
  EXPECT_FALSE(late.procedure.card(late.scene()).action("arming_record"));
}

TEST(ArmingProcedure, ChecksThatAreSwitchedOffGroundAndProveNothing) {
  Rig rig = comes_home();
  rig.home.checks_before_arming = false;
  const auto snags = review(rig, shipped()).snags;
  const Snag* off = coded(snags, "HOME-09");
  ASSERT_TRUE(off);
  EXPECT_EQ(off->severity, Severity::grounds);
  const Rig mended = fixed_by(*off->fix, rig);
  EXPECT_TRUE(mended.home.checks_before_arming);
  EXPECT_FALSE(with_proof(rig, shipped(), arming_waits, "2026-11-27T10:00:00Z", false));
  EXPECT_TRUE(with_proof(mended, shipped(), arming_waits, "2026-11-27T10:00:00Z", false));
}

TEST(LossProcedure, WhatItDoesIsHeldAgainstThePlan) {
  for (const bool right : {true, false}) {
    Held<LossProcedure> h;
    h.rig = comes_home();
    h.checks = check_statuses(h.rig, h.catalogue);
    h.tell(Time{1});
    h.press("loss_begin");
    BoardState s;
    s.mode = "level";
    h.tell(s);
    EXPECT_FALSE(h.procedure.card(h.scene()).action("loss_seen")->enabled);
    h.tell(Time{3});
    s.link_lost = true, s.on_loss = "waits";
    h.tell(s);
    EXPECT_TRUE(says(h.procedure.card(h.scene()), "waits"));
    h.tell(Time{4.5});
    s.on_loss = right ? "come_home" : "glide";
    h.tell(s);
    const Card card = h.procedure.card(h.scene());
    EXPECT_EQ(card.action("loss_seen")->enabled, right);
    EXPECT_EQ(says(card, "That is the plan. It began 1.5 s"), right);
    EXPECT_EQ(says(card, "Planned is: It comes home."), !right);
  }
}

TEST(LossProcedure, ALossThatNobodyTellsOfIsSaidAndAPlanThatIsNoneIsNotTried) {
  Held<LossProcedure> h;
  h.rig = comes_home();
  h.checks = check_statuses(h.rig, h.catalogue);
  h.press("loss_begin");
  h.tell(Time{20});
  EXPECT_TRUE(says(h.procedure.card(h.scene()), "hides the loss"));
  h.rig.home.on_loss = LossAction::undecided;
  h.checks = check_statuses(h.rig, h.catalogue);
  EXPECT_TRUE(says(h.procedure.card(h.scene()), "not decided"));
  h.rig.home.on_loss = LossAction::come_home;
  h.rig.radio.on_loss = OnLoss::hold;
  h.checks = check_statuses(h.rig, h.catalogue);
  EXPECT_TRUE(says(h.procedure.card(h.scene()), "hides the loss"));
}

ChannelFrame with_pulse(int channel, float us) {
  ChannelFrame f;
  f.channels = 8;
  f.pulse_us.fill(1000);
  f.pulse_us[static_cast<std::size_t>(channel - 1)] = us;
  return f;
}

TEST(PositionsProcedure, EveryPositionIsSeenAndAWrongOneIsNamed) {
  Held<PositionsProcedure> h;
  h.checks = check_statuses(h.rig, h.catalogue);
  ASSERT_TRUE(find_check(h.checks, positions_planned));
  h.tell(SceneChanged{});
  h.press("positions_begin");
  double t = 1;
  const auto stand = [&](float us, const char* mode) {
    h.tell(FramesHeard{{with_pulse(5, us)}});
    h.tell(Time{t += 0.1});
    BoardState s;
    s.mode = mode;
    for (int i = 0; i < 5; ++i) h.tell(Time{t += 0.3}), h.tell(s);
  };
  stand(1000, "manual");
  stand(1500, "level");
  // It moves on, and the board says so before the pulses of its receiver are heard here.
  BoardState early;
  early.mode = "rate";
  for (int i = 0; i < 2; ++i) h.tell(early);
  EXPECT_TRUE(says(h.procedure.card(h.scene()), "level: seen"));
  stand(2000, "level");
  Card card = h.procedure.card(h.scene());
  EXPECT_TRUE(says(card, "One is not as planned."));
  EXPECT_TRUE(says(card, "rate: gives level"));
  EXPECT_FALSE(card.action("positions_record"));
  stand(1000, "manual");
  stand(2000, "rate");
  card = h.procedure.card(h.scene());
  EXPECT_TRUE(says(card, "Every position gives its mode."));
  const Orders orders = h.tell(Pressed{"positions_record", 0, {}, {}});
  EXPECT_EQ(std::get<Record>(orders.at(0)).check, positions_planned);
}

TEST(PositionsProcedure, ASwitchThatMovesOnTooSoonCountsForNothing) {
  Held<PositionsProcedure> h;
  h.checks = check_statuses(h.rig, h.catalogue);
  h.tell(SceneChanged{});
  h.press("positions_begin");
  BoardState s;
  s.mode = "manual";
  h.tell(s);
  double t = 1;
  for (const float us : {1000.f, 1500.f, 2000.f}) {
    h.tell(FramesHeard{{with_pulse(5, us)}});
    h.tell(s);  // perhaps of before it moved
    for (int i = 0; i < 3; ++i) h.tell(Time{t += 0.1});
  }
  EXPECT_FALSE(says(h.procedure.card(h.scene()), ": seen"));
}

// What a proof rests on makes it stale, and nothing else does.
TEST(HomeChecks, ProofsGoStaleWithWhatTheyRestOn) {
  struct Case {
    CheckId id;
    void (*spoils)(Rig&);
    void (*keeps)(Rig&);
  };
  const Case cases[]{
      {loss_planned, [](Rig& r) { r.home.loss_hold_s = 4; }, [](Rig& r) { r.home.turn_home_v = 13; }},
      {loss_planned, [](Rig& r) { r.radio.on_loss = OnLoss::no_pulses; }, [](Rig& r) { r.home.area_m = 300; }},
      {positions_planned, [](Rig& r) { r.modes[0].to_us = 1350; }, [](Rig& r) { r.home.loss_hold_s = 4; }},
      {arming_waits, [](Rig& r) { r.controller.firmware = "9.9"; }, [](Rig& r) { r.modes.pop_back(); }},
      {low_battery_warns, [](Rig& r) { r.home.turn_home_v = 13; }, [](Rig& r) { r.home.loss_hold_s = 4; }},
      {range_tested,
       [](Rig& r) {
         for (Mounting& p : r.mountings)
           if (const Part* part = r.part(p.part))
             if (const PartKind* k = shipped().part(part->kind); k && k->group == PartGroup::receiver) p.y_m += 0.05;
       },
       [](Rig& r) { r.home.turn_home_v = 13; }}};
  for (const Case& c : cases) {
    Rig rig = comes_home();
    rig.home.turn_home_v = 15;
    const auto proven = with_proof(rig, shipped(), c.id, "2026-11-27T10:00:00Z", false);
    ASSERT_TRUE(proven) << c.id.text() << ": " << proven.error().text();
    const auto state = [&](void (*change)(Rig&)) {
      Rig changed = *proven;
      change(changed);
      const auto all = check_statuses(changed, shipped());
      const CheckStatus* s = find_check(all, c.id);
      return s ? s->state : ProofState::none;
    };
    EXPECT_EQ(state(c.spoils), ProofState::stale) << c.id.text();
    EXPECT_EQ(state(c.keeps), ProofState::fresh) << c.id.text();
  }
}

TEST(HomeChecks, EachClassIsAskedWhatItCan) {
  const auto needed = [](const Rig& rig, const CheckId& id) {
    return find_check(check_statuses(rig, shipped()), id) != nullptr;
  };
  Rig rig = comes_home();
  EXPECT_FALSE(needed(rig, button_guards));
  rig.controller.kind = "large_controller";
  EXPECT_TRUE(needed(rig, button_guards));
  rig.controller.kind = "inline_dial";
  for (const CheckId& id : {loss_planned, arming_waits, button_guards, low_battery_warns})
    EXPECT_FALSE(needed(rig, id));
  EXPECT_TRUE(needed(rig, range_tested)) << "a transmitter reaches only so far, whatever is behind it";
}

}  // namespace
}  // namespace rigging
