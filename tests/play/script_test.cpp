#include "play/script.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <random>

#include "airframe/kinds.h"
#include "base/number.h"
#include "bench_rig.h"
#include "direction/hand_card.h"
#include "proof/proof_procedure.h"
#include "sticks/sticks_procedure.h"
#include "surfaces/surface_checks.h"
#include "surfaces/throws_procedure.h"

// Every procedure is played from lines here: no clock, no screen, no bench. What they order is looked at.
namespace rigging {
namespace {

ProcedureEntry entry(const std::string& id) {
  for (const ProcedureEntry& p : all_procedures())
    if (p.id == id) return p;
  ADD_FAILURE() << "no procedure " << id;
  return {};
}

class Play {
 public:
  Play(Rig rig, const std::string& procedure)
      : player_(std::move(rig), shipped(), entry(procedure), "2026-11-26T08:00:00Z") {}

  /// What the line ordered; an error fails the test.
  std::vector<std::string> say(const std::string& line) {
    const auto heard = player_.play(line, "here");
    EXPECT_TRUE(heard) << line << ": " << (heard ? "" : heard.error().text());
    return heard ? heard->done : std::vector<std::string>{};
  }
  std::string refused(const std::string& line) {
    const auto heard = player_.play(line, "here");
    EXPECT_FALSE(heard) << line;
    return heard ? "" : heard.error().text();
  }
  const Card& card() const { return player_.card(); }
  const Rig& rig() const { return player_.rig(); }
  bool offers(const char* action) const {
    const Action* a = card().action(action);
    return a && a->enabled;
  }

 private:
  ProcedurePlayer player_;
};

Rig unproven(Rig rig) {
  rig.proofs.clear();
  return rig;
}

TEST(ProofProcedure, ALookThatShowsWhatItShouldIsRecordedAndTheNextIsAsked) {
  Play p(unproven(demo("hedgerow")), "proof");
  EXPECT_EQ(p.card().subject, "senses.gyro") << "what is seen on USB comes first";
  p.say("choose stick.roll");
  ASSERT_EQ(p.card().subject, "stick.roll");
  ASSERT_EQ(p.card().looks.size(), p.card().picture.arrows.size());
  std::string look = "look";
  for (const LookRow& r : p.card().looks)
    look += " " + r.id + "=" +
            std::string(motion_word(*surface_from_name(r.id), p.card().picture.arrows.at(*surface_from_name(r.id))));
  EXPECT_EQ(p.say(look), std::vector<std::string>{"Recorded: stick.roll"});
  EXPECT_EQ(p.card().subject, "stick.pitch");
  EXPECT_TRUE(find_check(check_statuses(p.rig(), shipped()), std::string("stick.roll"))->stands());
  EXPECT_EQ(p.say("press as_shown"), std::vector<std::string>{"Recorded: stick.pitch"});
}

/// Answers what is asked as an aircraft with these faults would, until something else than a look is asked for. Every
/// observation that was asked for is kept.
struct Sitting {
  Rig rig;
  std::vector<CheckStatus> checks;
  const ControllerClass* controller;
  direction::Case looks;
  ProofProcedure procedure;
  std::vector<direction::Observation> asked;

  explicit Sitting(const Rig& r)
      : rig(r),
        checks(check_statuses(rig, shipped())),
        controller(shipped().controller(rig.controller.kind)),
        looks(direction::case_from_rig(rig, *controller)) {
    for (CheckStatus& c : checks)
      if (c.id == wakes_still || c.id == level_stored) c.state = ProofState::fresh;
    procedure.hear(SceneChanged{}, scene());
    go_on();
  }
  /// On to the next direction; what other stations record is left.
  void go_on() {
    const CheckStatus* now = find_check(checks, procedure.checking());
    if (procedure.asking() != ProofProcedure::Asking::check || (now && is_direction(now->id))) return;
    for (const CheckStatus& c : checks)
      if (is_direction(c.id) && !c.stands()) {
        procedure.hear(Pressed{"choose", 0, {}, c.id.text()}, scene());
        return;
      }
  }
  Scene scene() const { return {rig, shipped(), controller, nullptr, checks, "", {}}; }
  Card card() const { return procedure.card(scene()); }
  int output(const char* id) const {
    for (std::size_t i = 0; i < looks.outputs.size(); ++i)
      if (looks.outputs[i].id == id) return static_cast<int>(i);
    return -1;
  }
  void answer(const std::vector<direction::Fault>& faults) {
    using A = ProofProcedure::Asking;
    for (int i = 0; i < 20 && (procedure.asking() == A::check || procedure.asking() == A::question); ++i) {
      const Card now = card();
      const auto seen = direction::predict(looks, faults, procedure.asked());
      ASSERT_TRUE(seen);
      asked.push_back(procedure.asked());
      Looked look{"note", {}};
      for (const LookRow& r : now.looks) {
        if (const auto s = surface_from_name(r.id))
          for (const direction::Seen& x : seen->saw)
            if (x.surface == *s) look.seen[r.id] = x.motion;
        for (const Axis a : all_axes)
          if (r.id == "channel_" + std::string(name_of(a)))
            look.seen[r.id] = seen->channels[static_cast<std::size_t>(index_of(a))];
      }
      // What passes would be recorded, and the next check asked for; here only what goes wrong is of interest.
      for (const Order& order : procedure.hear(look, scene()))
        if (const auto* record = std::get_if<Record>(&order))
          for (CheckStatus& c : checks)
            if (c.id == record->check) c.state = ProofState::fresh;
      procedure.hear(SceneChanged{}, scene());
      go_on();
    }
  }
};

TEST(ProofProcedure, AReversedOutputIsFoundAskedAndSetRight) {
  Sitting s(unproven(demo("hedgerow")));
  direction::Fault fault;
  fault.output = s.output("out_2");
  s.answer({fault});
  ASSERT_EQ(s.procedure.asking(), ProofProcedure::Asking::verdict) << "after " << s.asked.size() << " looks";
  const Orders orders = s.procedure.hear(Pressed{"apply", 0, {}, {}}, s.scene());
  ASSERT_FALSE(orders.empty());
  const auto* change = std::get_if<ApplyEdit>(&orders.front());
  ASSERT_TRUE(change);
  EXPECT_NE(change->edit.rig.output("out_2")->reversed, s.rig.output("out_2")->reversed);
  EXPECT_EQ(change->edit.rig.output("out_1")->reversed, s.rig.output("out_1")->reversed);
}

direction::Fault exchanged(const Sitting& s, const char* a, const char* b) {
  direction::Fault f;
  f.kind = direction::FaultKind::leads_swapped;
  f.output = std::min(s.output(a), s.output(b));
  f.other_output = std::max(s.output(a), s.output(b));
  return f;
}

bool supposes_leads(const ProofProcedure& p) {
  for (const auto& e : p.session().answer().explanations)
    for (const auto& f : e.faults)
      if (f.kind == direction::FaultKind::leads_swapped) return true;
  return false;
}

/// Common practice: exchanged leads look like two reversed servos; one output driven alone tells them apart.
TEST(ProofProcedure, LeadsAreNotCalledExchangedBeforeOneIsDriven) {
  Sitting s(unproven(demo("hedgerow")));
  s.answer({exchanged(s, "out_1", "out_2")});
  ASSERT_EQ(s.procedure.asking(), ProofProcedure::Asking::verdict);
  EXPECT_TRUE(supposes_leads(s.procedure));
  EXPECT_TRUE(std::any_of(s.asked.begin(), s.asked.end(), [&](const direction::Observation& o) {
    return o.act == direction::Act::drive && (o.output == s.output("out_1") || o.output == s.output("out_2"));
  }));
  // The eyes know better: the leads are as planned, so something was misread.
  ASSERT_TRUE(s.card().action("as_planned"));
  s.procedure.hear(Pressed{"as_planned", 0, {}, {}}, s.scene());
  EXPECT_FALSE(supposes_leads(s.procedure));
  EXPECT_EQ(s.procedure.asking(), ProofProcedure::Asking::contradiction);
}

/// Where no output can be driven alone, the eyes follow the leads first.
TEST(ProofProcedure, WhereNothingCanBeDrivenTheEyesFollowTheLeads) {
  Rig rig;
  rig.airframe.kind = AirframeKind::flying_wing;
  rig.controller.kind = "pc_mini";
  rig.outputs = default_outputs(rig.airframe.kind);
  Sitting s(rig);
  s.answer({exchanged(s, "out_1", "out_2")});
  ASSERT_EQ(s.procedure.asking(), ProofProcedure::Asking::verdict);
  ASSERT_TRUE(supposes_leads(s.procedure));
  const Card card = s.card();
  EXPECT_NE(card.title, "Found it");
  ASSERT_TRUE(card.action("as_planned"));
  EXPECT_TRUE(card.action("as_planned")->main) << "look first, exchange then";
  EXPECT_FALSE(card.action("by_hand")->main);
  s.procedure.hear(Pressed{"as_planned", 0, {}, {}}, s.scene());
  EXPECT_FALSE(supposes_leads(s.procedure));
}

/// Common practice: how a board sits is seen at a glance. Told of a turn that is not there, it would level toward it.
TEST(ProofProcedure, ABoardIsLookedAtBeforeTheControllerIsToldThatItSitsTurned) {
  Sitting s(unproven(demo("hedgerow")));
  direction::Fault turned;
  turned.kind = direction::FaultKind::board_turned;
  turned.turn = *turn_from_name("arrow_nose_top_down");
  s.answer({turned});
  ASSERT_EQ(s.procedure.asking(), ProofProcedure::Asking::verdict);
  ASSERT_EQ(s.procedure.session().answer().explanations.front().faults, std::vector{turned});
  const Card card = s.card();
  EXPECT_NE(card.title, "Found it");
  ASSERT_TRUE(card.action("as_planned") && card.action("apply"));
  EXPECT_TRUE(card.action("as_planned")->main);
  EXPECT_FALSE(card.action("apply")->main);
  s.procedure.hear(Pressed{"as_planned", 0, {}, {}}, s.scene());
  for (const auto& e : s.procedure.session().answer().explanations)
    for (const auto& f : e.faults) EXPECT_NE(f.kind, direction::FaultKind::board_turned);
}

/// Common practice: drooping ailerons both go down. They are on no axis, so that eyes alone check them.
TEST(ProofProcedure, FlapsAreLookedAtAfterTheSticks) {
  Rig rig = unproven(demo("hedgerow"));
  Channel flap;
  flap.number = 6;
  flap.function = ChannelFunction::flap;
  rig.radio.channels.push_back(flap);
  Play p(rig, "proof");
  p.say("choose flaps");
  EXPECT_EQ(p.card().subject, "flaps");
  EXPECT_NE(p.card().picture.words.find("down"), std::string::npos);
  p.say("bench controller=yes differs=yes hands=yes battery=yes");
  EXPECT_FALSE(p.offers("record_card")) << "a look would prove what the board holds";
  p.say("bench differs=no");
  const auto first = p.say("press do_it");
  EXPECT_EQ(std::count_if(first.begin(), first.end(), [](const std::string& s) { return s.rfind("Hands", 0) == 0; }),
            1);
  const auto lever = p.say("time 10");
  EXPECT_NE(lever.front().find("6"), std::string::npos) << "the flap channel is moved";
  EXPECT_EQ(p.say("press record_card").front(), "Recorded: flaps");
  // Nothing to look at where no channel works them.
  EXPECT_FALSE(find_check(check_statuses(unproven(demo("hedgerow")), shipped()), flaps_droop));
  Rig flipped = p.rig();
  flipped.outputs[0].mix.flap *= -1;
  EXPECT_EQ(find_check(check_statuses(flipped, shipped()), flaps_droop)->state, ProofState::stale);
}

/// A lead that was followed and proven needs no second look.
TEST(ProofProcedure, AFreshProofOfTheLeadsCounts) {
  Sitting s(unproven(demo("hedgerow")));
  EXPECT_FALSE(s.procedure.session().anything_seen());
  Sitting known(all_proven(unproven(demo("hedgerow")), {lead_family}));
  const auto& before = known.procedure.session().looks().observations;
  ASSERT_EQ(before.size(), 1u);
  EXPECT_EQ(before[0].leads.size(), 4u) << "two flaperons and two tail halves";
  EXPECT_FALSE(known.procedure.session().anything_seen()) << "it is no look of this sitting";
  direction::Fault one, two;
  one.output = known.output("out_1");
  two.output = known.output("out_2");
  known.answer({one, two});
  ASSERT_EQ(known.procedure.asking(), ProofProcedure::Asking::verdict);
  EXPECT_FALSE(supposes_leads(known.procedure));
  EXPECT_EQ(known.procedure.session().answer().explanations.front().faults, (std::vector{one, two}));
}

/// A class whose stabilized modes sleep with the motor locked: the lock is open for the look alone.
TEST(ProofProcedure, TheMotorIsUnlockedForTheLookAndLockedAgain) {
  Rig rig = fresh_rig("mine", AirframeKind::two_ailerons, "fixed_mini");
  Play p(unproven(rig), "proof");
  p.say("bench hands=yes battery=yes");
  p.say("choose correction.roll");
  EXPECT_NE(p.card().caution.find("unlocked"), std::string::npos) << p.card().caution;
  std::string told;
  for (const std::string& s : p.say("press do_it")) told += s + "\n";
  for (int i = 1; i <= 10; ++i)
    for (const std::string& s : p.say("time " + std::to_string(i))) told += s + "\n";
  const auto opens = told.find("\"channel\":7,\"position\":1"), flicks = told.find("flick"),
             locks = told.find("\"channel\":7,\"position\":-1");
  EXPECT_LT(opens, flicks) << told;
  EXPECT_LT(flicks, locks) << told;
  EXPECT_NE(locks, std::string::npos) << told;
}

/// Common practice: the levelling dial unit's rudder goes toward a held bank, which is proven and not excused.
TEST(ProofProcedure, ARudderThatLeansIsACheckOfItsOwn) {
  Rig rig = fresh_rig("mine", AirframeKind::two_ailerons, "inline_level");
  Play p(unproven(rig), "proof");
  p.say("bench hands=yes battery=yes");
  p.say("choose coordination");
  EXPECT_NE(p.card().picture.words.find("Rudder trailing edge right"), std::string::npos) << p.card().picture.words;
  EXPECT_TRUE(p.offers("do_it"));
  EXPECT_EQ(p.say("press record_card").front(), "Recorded: coordination");
  Rig turned = p.rig();
  turned.sensing.yaw_reversed = true;
  EXPECT_EQ(find_check(check_statuses(turned, shipped()), rudder_leans)->state, ProofState::stale);
  EXPECT_FALSE(find_check(
      check_statuses(unproven(fresh_rig("mine", AirframeKind::two_ailerons, "inline_dial")), shipped()), rudder_leans))
      << "the rate-only variant does not lean";
}

/// Common practice: on a class that reverses functions a pair that is wrong in stick and correction is one function,
/// and the card says which stick or button, for all that answers it.
TEST(ProofProcedure, AFunctionIsReversedWhereNoOutputCanBe) {
  for (const char* kind : {"fixed_mini", "gesture_board"})
    for (const Axis axis : {Axis::roll, Axis::pitch}) {
      Rig rig;
      rig.airframe.kind = AirframeKind::two_ailerons;
      rig.controller.kind = kind;
      rig.outputs = default_outputs(rig.airframe.kind);
      Sitting s(rig);
      direction::Fault f;
      f.kind = direction::FaultKind::function_reversed;
      f.axis = axis;
      s.answer({f});
      ASSERT_EQ(s.procedure.asking(), ProofProcedure::Asking::verdict) << kind;
      const auto& plainest = s.procedure.session().answer().explanations.front().faults;
      ASSERT_EQ(plainest, std::vector{f}) << kind << " " << name_of(axis);
      const HandCard card = hand_card(rig, *s.controller, f, s.looks);
      EXPECT_FALSE(card.over_link);
      std::string steps;
      for (const std::string& step : card.steps) steps += step + "\n";
      EXPECT_NE(steps.find(name_of(axis)), std::string::npos) << steps;
      EXPECT_NE(steps.find(axis == Axis::pitch ? "elevator" : "left aileron, right aileron"), std::string::npos)
          << steps;
      EXPECT_EQ(steps.find('{'), std::string::npos) << steps;
      const Orders orders = s.procedure.hear(Pressed{"by_hand", 0, {}, {}}, s.scene());
      const auto* change = std::get_if<ApplyEdit>(&orders.front());
      ASSERT_TRUE(change);
      EXPECT_EQ(change->edit.rig.outputs, rig.outputs) << "the button brings the controller to the plan";
      const bool asks = std::any_of(orders.begin(), orders.end(), [&](const Order& o) {
        const auto* hands = std::get_if<AskHands>(&o);
        const auto* work = hands ? std::get_if<hands::Work>(&hands->request) : nullptr;
        return work && work->remedy == Remedy::reverse_function && work->axes == std::vector{axis};
      });
      EXPECT_TRUE(asks);
    }
}

TEST(ProofProcedure, SimulatedHandsWorkByTheTimeThatIsTold) {
  Play p(unproven(demo("hedgerow")), "proof");
  p.say("choose stick.roll");
  EXPECT_FALSE(p.card().action("do_it")) << "nobody else's hands";
  p.say("bench hands=yes");
  EXPECT_NE(p.say("press do_it").front().find("no supply"), std::string::npos);
  p.say("bench battery=yes");
  p.say("time 10");
  EXPECT_EQ(p.say("press do_it").size(), 1u) << "the mode first";
  EXPECT_TRUE(p.card().busy);
  EXPECT_FALSE(p.offers("do_it"));
  EXPECT_TRUE(p.say("time 10.1").empty());
  EXPECT_EQ(p.say("time 10.2"), std::vector<std::string>{R"(Hands: stick {"axis":"roll","position":1.0})"});
  EXPECT_TRUE(p.say("time 12.3").empty()) << "held";
  EXPECT_EQ(p.say("time 12.4"), std::vector<std::string>{R"(Hands: stick {"axis":"roll","position":0.0})"});
  EXPECT_EQ(p.say("time 20").size(), 1u) << "and back to manual";
  EXPECT_FALSE(p.card().busy);
}

TEST(ProofProcedure, ABoardThatHoldsSomethingElseIsWrittenFirst) {
  Play p(unproven(demo("hedgerow")), "proof");
  p.say("choose stick.roll");
  p.say("bench controller=yes differs=yes");
  EXPECT_FALSE(p.card().action("as_shown")) << "a look would prove the board's settings";
  EXPECT_TRUE(p.card().looks.empty());
  EXPECT_EQ(p.say("press write_rig").size(), 1u);
  p.say("bench differs=no");
  EXPECT_TRUE(p.offers("as_shown"));
}

TEST(ProofProcedure, ChecksOfOtherStationsAreLedTo) {
  Play p(unproven(demo("hedgerow")), "proof");
  p.say("choose sticks.calibrated");
  EXPECT_EQ(p.card().subject, "sticks.calibrated");
  EXPECT_EQ(p.say("press to_station"), std::vector<std::string>{"Go to station sticks"});
  p.say("choose no.such.check");
  EXPECT_EQ(p.card().subject, "sticks.calibrated") << "what is no check changes nothing";
}

// A class that shows no pulses, a gauge that is in the other house: the rest need not wait, and nothing is recorded.
TEST(ProofProcedure, WhatIsLeftForLaterIsLeftOpenAndTheNextIsAsked) {
  for (const char* of : {"heath", "hedgerow"}) {
    Play p(unproven(demo(of)), "proof");
    p.say("choose sticks.calibrated");
    EXPECT_TRUE(p.say("press later").empty()) << of;
    EXPECT_NE(p.card().subject, "sticks.calibrated");
    EXPECT_TRUE(p.card().subject == "stick.roll" || p.card().subject == "senses.wakes") << p.card().subject;
    EXPECT_TRUE(p.rig().proofs.empty());
  }
  Play p(unproven(demo("hedgerow")), "proof");
  p.say("choose lead.receiver");
  p.say("press later");
  EXPECT_EQ(p.card().subject, "sticks.calibrated") << "all of the leads together";
  p.say("choose stick.roll");
  EXPECT_FALSE(p.card().action("later")) << "what is done here is answered";
}

TEST(ThrowsProcedure, FiveReadingsBecomeTheReadingsOfTheSurface) {
  Rig rig = demo("hedgerow");
  const Surface left = *surface_from_name("flaperon_left");
  rig.linkage(left)->chord_m = 0.05;
  rig.linkage(left)->readings.clear();
  Play p(rig, "throws");
  p.say("choose flaperon_left");
  p.say("press throw_begin");
  EXPECT_EQ(p.card().picture.pulse_us, 1500) << "the centre first";
  p.say("press throw_take 0");
  EXPECT_EQ(p.card().picture.pulse_us, 1000);
  p.say("press throw_take 25 edge");
  p.say("press throw_take 14");
  p.say("press throw_take -14");
  EXPECT_EQ(p.card().picture.pulse_us, 2000);
  p.say("press throw_take -25 edge");
  const auto& readings = p.rig().linkage(left)->readings;
  ASSERT_EQ(readings.size(), 5u);
  // 25 mm on 50 mm: 2 · asin(25 / 100) = 28.955°.
  EXPECT_NEAR(readings[1].up_deg, 28.955, 1e-3);
  EXPECT_EQ(readings[2].up_deg, 14);
  EXPECT_TRUE(p.offers("throw_set") || p.offers("throw_hands"));
}

// Equal readings tell that nothing moved, and not how the surface moves: they are doubted until somebody says so.
TEST(ThrowsProcedure, EqualReadingsAreDoubted) {
  Rig rig = demo("hedgerow");
  const Surface left = *surface_from_name("flaperon_left");
  rig.linkage(left)->readings.clear();
  Play p(rig, "throws");
  p.say("choose flaperon_left");
  p.say("press throw_begin");
  for (int i = 0; i < 5; ++i) p.say("press throw_take 0");
  EXPECT_TRUE(p.rig().linkage(left)->readings.empty());
  EXPECT_NE(p.card().todo.find("are the same"), std::string::npos);
  EXPECT_FALSE(p.offers("throw_set"));
  ASSERT_TRUE(p.offers("throw_begin")) << "read it again";
  ASSERT_TRUE(p.offers("throw_sure"));
  p.say("press throw_sure");
  EXPECT_EQ(p.rig().linkage(left)->readings.size(), 5u);
}

// What setting it makes stale is said before it is set.
TEST(ThrowsProcedure, WhatBecomesStaleIsSaidBefore) {
  Play p(directions_proven(measured(demo("hedgerow"))), "throws");
  p.say("choose flaperon_left");
  p.say("press throw_begin");
  // Off by four degrees at its centre: the output's centre has to move.
  for (const char* deg : {"4", "24", "14", "-6", "-16"}) p.say(std::string("press throw_take ") + deg);
  if (p.offers("throw_hands")) p.say("press throw_hands");
  ASSERT_TRUE(p.offers("throw_set") || p.offers("throw_set_keep"));
  std::string words;
  for (const Line& l : p.card().lines) words += l.words + "\n";
  EXPECT_NE(words.find("makes stale"), std::string::npos) << words;
}

// All surfaces in one go: readings first, and what they ask for after the last, one surface after the other.
TEST(ThrowsProcedure, OneSittingReadsAllSurfaces) {
  Rig rig = demo("hedgerow");
  const char* const surfaces[] = {"flaperon_left", "flaperon_right", "inverted_v_left", "inverted_v_right"};
  for (const char* s : surfaces) {
    ASSERT_TRUE(rig.linkage(*surface_from_name(s))) << s;
    rig.linkage(*surface_from_name(s))->readings.clear();
  }
  Play p(rig, "throws");
  p.say("press throw_all");
  for (const char* s : surfaces) {
    EXPECT_EQ(p.card().subject, s);
    EXPECT_TRUE(p.card().busy);
    const double sense = p.rig().output_of(*surface_from_name(s))->reversed ? -1 : 1;
    for (const double level : {0.0, -1.0, -0.5, 0.5, 1.0})
      p.say("press throw_take " + number_text(2 + sense * 20 * level, 3));
    EXPECT_EQ(p.rig().linkage(*surface_from_name(s))->readings.size(), 5u) << s;
  }
  // Then what they ask for: 2 degrees off at neutral each.
  EXPECT_FALSE(p.card().busy);
  EXPECT_EQ(p.card().subject, surfaces[0]);
  EXPECT_TRUE(p.offers("throw_hands") || p.offers("throw_set"));
  for (std::size_t i = 1; i < std::size(surfaces); ++i) {
    ASSERT_TRUE(p.offers("throw_next")) << i;
    p.say("press throw_next");
    EXPECT_EQ(p.card().subject, surfaces[i]);
    EXPECT_TRUE(p.offers("throw_hands") || p.offers("throw_set")) << surfaces[i];
  }
  EXPECT_FALSE(p.offers("throw_next"));
  // The same answer as for a surface that is read by itself.
  Play alone(rig, "throws");
  alone.say("choose inverted_v_right");
  alone.say("press throw_begin");
  const double sense = rig.output_of(*surface_from_name("inverted_v_right"))->reversed ? -1 : 1;
  for (const double level : {0.0, -1.0, -0.5, 0.5, 1.0})
    alone.say("press throw_take " + number_text(2 + sense * 20 * level, 3));
  ASSERT_EQ(alone.card().lines.size(), p.card().lines.size());
  for (std::size_t i = 0; i < p.card().lines.size(); ++i)
    EXPECT_EQ(alone.card().lines[i].words, p.card().lines[i].words);
}

// What is proposed goes with the readings that it rests on.
TEST(ThrowsProcedure, AnUndoneReadingTakesItsAnswerAlong) {
  const Rig before = demo("hedgerow");
  const auto checks = check_statuses(before, shipped());
  const auto scene = [&](const Rig& rig) {
    return Scene{rig, shipped(), shipped().controller(rig.controller.kind), nullptr, checks, "", {}};
  };
  ThrowsProcedure p;
  p.hear(SceneChanged{}, scene(before));
  p.hear(Pressed{"throw_begin"}, scene(before));
  Rig after = before;
  for (const double deg : {3.0, -17.0, -7.0, 13.0, 23.0})
    for (const Order& order : p.hear(Pressed{"throw_take", deg, "deg"}, scene(before)))
      if (const auto* change = std::get_if<ApplyEdit>(&order)) after = change->edit.rig;
  ASSERT_FALSE(after == before);
  ASSERT_EQ(p.state(), ThrowsProcedure::State::answered);
  p.hear(SceneChanged{}, scene(after));
  EXPECT_EQ(p.state(), ThrowsProcedure::State::answered);
  Rig elsewhere = after;
  elsewhere.name = "another";
  p.hear(SceneChanged{}, scene(elsewhere));
  EXPECT_EQ(p.state(), ThrowsProcedure::State::answered) << "an edit of something else leaves it";
  p.hear(SceneChanged{}, scene(before));
  EXPECT_EQ(p.state(), ThrowsProcedure::State::idle);
  EXPECT_FALSE(p.answer());
}

TEST(ThrowsProcedure, EyesWaitUntilTheSurfaceStandsStill) {
  Play p(demo("hedgerow"), "throws");
  p.say("choose flaperon_left");
  p.say("bench controller=yes hands=yes battery=yes");
  p.say("time 1");
  const auto driven = p.say("press throw_begin");
  ASSERT_EQ(driven.size(), 1u);
  EXPECT_EQ(driven[0], "Drive " + p.rig().output_of(*surface_from_name("flaperon_left"))->socket + " to 0");
  for (const char* at : {"1.05", "1.1", "1.15", "1.2"}) {
    p.say("time " + std::string(at));
    p.say("stands flaperon_left=" + number_text(-10 * *number_of(at), 6));
    EXPECT_FALSE(p.offers("throw_eyes")) << "it moves still at " << at;
  }
  p.say("time 1.3");
  p.say("stands flaperon_left=-12.1");
  EXPECT_FALSE(p.offers("throw_eyes")) << "not for long enough";
  p.say("time 1.5");
  EXPECT_TRUE(p.offers("throw_eyes"));
  p.say("press throw_eyes");
  EXPECT_FALSE(p.offers("throw_eyes")) << "the next place first";
}

TEST(ThrowsProcedure, AnotherSurfaceEndsWhatIsUnderWay) {
  Play p(demo("hedgerow"), "throws");
  p.say("bench controller=yes battery=yes");
  p.say("choose flaperon_left");
  p.say("press throw_begin");
  EXPECT_EQ(p.say("choose flaperon_right"), std::vector<std::string>{"Release the outputs"});
  EXPECT_FALSE(p.card().busy);
  EXPECT_EQ(p.card().subject, "flaperon_right");
}

/// Frames as a hand makes them that does what the card says.
void follow_sticks(
    Play& p, const std::array<int, 4>& channel_of, const std::function<bool()>& enough = [] { return false; }) {
  const std::array<ChannelFunction, 4> four{ChannelFunction::roll, ChannelFunction::pitch, ChannelFunction::throttle,
                                            ChannelFunction::yaw};
  static double t = 100;  // clocks go on from sitting to sitting
  for (int i = 0; i < 4000 && p.card().busy && !enough(); ++i) {
    std::array<double, 8> us{};
    us.fill(1500);
    for (std::size_t k = 0; k < 4; ++k) {
      const bool meant = p.card().picture.stick == four[k];
      const double rest = k == 2 ? -1 : 0, side = p.card().picture.side;
      const double hand = meant ? (side == 0 ? rest : side) : rest;
      us[static_cast<std::size_t>(channel_of[k] - 1)] = 1500 + 480 * hand;
    }
    t += 0.02;
    p.say("time " + number_text(t, 6));
    std::string frame = "frame";
    for (const double x : us) frame += " " + number_text(x, 6);
    p.say(frame);
  }
}

TEST(SticksProcedure, ListensUntilEverySticksIsKnownAndSaysWhatToDial) {
  Rig rig = demo("hedgerow");
  for (Channel& c : rig.radio.channels) c.low_us = c.centre_us = c.high_us = std::nullopt;
  Play p(rig, "sticks");
  EXPECT_FALSE(p.offers("listen")) << "nothing is heard yet";
  p.say("bench hears=yes");
  EXPECT_EQ(p.say("press listen"), std::vector<std::string>{"Hands: read_transmitter {}"});
  EXPECT_TRUE(p.card().busy);
  follow_sticks(p, {2, 1, 3, 4});
  EXPECT_FALSE(p.card().busy);
  const Channel* roll = p.rig().channel(ChannelFunction::roll);
  ASSERT_TRUE(roll && roll->low_us);
  EXPECT_EQ(roll->number, 2) << "the channel that moved";
  EXPECT_NEAR(*roll->low_us, 1020, 0.5);
  ASSERT_TRUE(p.offers("dial_in"));
  int dialled = 0;
  for (const std::string& done : p.say("press dial_in")) dialled += done.starts_with("Hands: dial");
  EXPECT_EQ(dialled, 4);
}

// A sitting that is stopped keeps what is finished; the rest can be heard later, and one stick alone once more.
TEST(SticksProcedure, AFinishedStickStaysFinishedAndOneCanBeRepeated) {
  Rig rig = demo("hedgerow");
  for (Channel& c : rig.radio.channels) c.low_us = c.centre_us = c.high_us = std::nullopt;
  Play p(rig, "sticks");
  p.say("bench hears=yes");
  p.say("press listen");
  const auto lines = [&](const char* of) {
    return std::count_if(p.card().lines.begin(), p.card().lines.end(),
                         [&](const auto& l) { return l.words.find(of) != std::string::npos; });
  };
  follow_sticks(p, {1, 2, 3, 4}, [&] { return lines("✓") == 2; });
  EXPECT_EQ(lines("✓ Roll stick, channel 1: 1020, 1500, 1980 µs"), 1) << "what is done shows while it listens";
  p.say("press listen");
  EXPECT_FALSE(p.card().busy);
  EXPECT_TRUE(p.rig().channel(ChannelFunction::roll)->low_us && p.rig().channel(ChannelFunction::pitch)->low_us);
  EXPECT_FALSE(p.rig().channel(ChannelFunction::throttle)->low_us) << "was not heard yet";
  ASSERT_TRUE(p.card().action("listen"));
  EXPECT_EQ(p.card().action("listen")->label, "Listen again") << "roll and pitch ask for dialling in";

  const auto roll_before = p.rig().channel(ChannelFunction::roll)->low_us;
  p.say("press listen");
  follow_sticks(p, {1, 2, 3, 4}, [&] { return p.card().picture.stick.has_value(); });
  EXPECT_EQ(p.card().picture.stick, ChannelFunction::throttle) << "goes on with what is missing";
  follow_sticks(p, {1, 2, 3, 4});
  EXPECT_TRUE(p.rig().channel(ChannelFunction::yaw)->low_us);
  EXPECT_EQ(p.rig().channel(ChannelFunction::roll)->low_us, roll_before);

  // One alone, and another stick is not taken for it.
  p.say("press again_pitch");
  ASSERT_TRUE(p.card().busy);
  follow_sticks(p, {2, 1, 3, 4}, [&] { return p.card().remark.find("already") != std::string::npos; });
  EXPECT_NE(p.card().remark.find("roll stick"), std::string::npos) << p.card().remark;
  follow_sticks(p, {1, 2, 3, 4});
  EXPECT_FALSE(p.card().busy);
  EXPECT_EQ(p.rig().channel(ChannelFunction::roll)->low_us, roll_before);
  EXPECT_EQ(p.rig().channel(ChannelFunction::pitch)->number, 2);
}

// How near is near enough is the builder's to say.
TEST(SticksProcedure, TheToleranceIsASetting) {
  Rig rig = demo("hedgerow");
  for (Channel& c : rig.radio.channels)
    if (is_stick(c.function)) c.low_us = 1004, c.centre_us = 1500, c.high_us = 1996, c.inverted = false;
  EXPECT_EQ(rig.radio.transmitter.tolerance_us, 5);
  const auto all_land = [&] {
    const SticksReport report = analyze_sticks(rig, shipped());
    return std::all_of(report.channels.begin(), report.channels.end(), [](const ChannelLine& l) {
      return !is_stick(l.channel.function) || l.wrong_way || l.state == ChannelLine::State::lands;
    });
  };
  EXPECT_TRUE(all_land());
  rig.radio.transmitter.tolerance_us = 3;
  EXPECT_FALSE(all_land());
}

TEST(SticksProcedure, TheLossIsKnownByTheFlagOrByTheSilence) {
  Rig rig = demo("hedgerow");
  rig.radio.on_loss = OnLoss::unknown;
  Play flagged(rig, "sticks");
  flagged.say("bench hears=yes");
  flagged.say("press try_loss");
  flagged.say("frame 1500 1500 1000 1500");
  EXPECT_TRUE(flagged.card().busy);
  flagged.say("frame 1500 1500 1000 1500 failsafe");
  EXPECT_FALSE(flagged.card().busy);
  EXPECT_EQ(flagged.rig().radio.on_loss, OnLoss::flag);
  EXPECT_TRUE(find_check(check_statuses(flagged.rig(), shipped()), loss_noticed)->stands());

  Play silent(rig, "sticks");
  silent.say("bench hears=yes");
  silent.say("time 5");
  silent.say("press try_loss");
  silent.say("time 5.2");
  silent.say("frame 1500 1500 1000 1500");
  silent.say("time 5.45");
  EXPECT_TRUE(silent.card().busy) << "a quarter of a second is no silence";
  silent.say("time 5.6");
  EXPECT_EQ(silent.rig().radio.on_loss, OnLoss::no_pulses);

  Play hidden(rig, "sticks");
  hidden.say("bench hears=yes");
  hidden.say("press try_loss");
  hidden.say("press try_loss");
  EXPECT_EQ(hidden.rig().radio.on_loss, OnLoss::hold) << "off, and frames come";
  EXPECT_FALSE(find_check(check_statuses(hidden.rig(), shipped()), loss_noticed)->stands());
}

TEST(SticksProcedure, ASwitchIsFoundByWhereItRests) {
  Play p(demo("hedgerow"), "sticks");
  p.say("bench hears=yes");
  p.say("press find_switch");
  double t = 0;
  for (const char* us : {"1000", "1500", "2000"})
    for (int i = 0; i < 40; ++i) {
      p.say("time " + number_text(t += 0.02, 6));
      p.say(std::string("frame 1500 1500 1000 1500 1500 1500 1500 ") + us);
    }
  p.say("press find_switch");
  const Channel* c = nullptr;
  for (const Channel& x : p.rig().radio.channels)
    if (x.number == 8) c = &x;
  ASSERT_TRUE(c);
  EXPECT_EQ(c->positions_us, (std::vector<double>{1000, 1500, 2000}));
  EXPECT_EQ(c->control, Control::three_position);
}

TEST(Script, SaysWhereItIsWrongAndWhatWasExpected) {
  Play p(unproven(demo("hedgerow")), "proof");
  p.say("choose stick.roll");
  for (const auto& [line, expected] : {std::pair{"sing", "time, choose, press"},
                                       {"press fly", "as_shown"},
                                       {"press note", "look THING=WORD"},
                                       {"look", "look THING=WORD"},
                                       {"look rudder=up", "flaperon_left"},
                                       {"look flaperon_left=sideways", "up, down, still"},
                                       {"time later", "seconds"},
                                       {"frame 3000", "500 to 2500"},
                                       {"channels roll", "NAME=PULSE"},
                                       {"stands flaperon_left", "SURFACE=DEGREES"},
                                       {"bench hands=perhaps", "=yes or =no"}}) {
    const std::string error = p.refused(line);
    EXPECT_NE(error.find("here"), std::string::npos) << error;
    EXPECT_NE(error.find(expected), std::string::npos) << error;
  }
  p.say("time 3");
  p.refused("time 2");
  EXPECT_TRUE(p.say("   # nothing but a remark").empty());
  EXPECT_TRUE(p.say("").empty());
  Play throws(demo("hedgerow"), "throws");
  throws.say("press throw_begin");
  EXPECT_NE(throws.refused("press throw_take much").find("-200 to 200"), std::string::npos);
  EXPECT_NE(throws.refused("press throw_take 4 furlong").find("deg or edge"), std::string::npos);
}

TEST(Procedures, AreSafeOnARigThatHasNothing) {
  for (const ProcedureEntry& e : all_procedures()) {
    Rig unknown;
    unknown.controller.kind = "no_such_board";
    for (const Rig& rig : {Rig{}, unknown}) {
      ProcedurePlayer player(rig, shipped(), e, "2026-11-26T08:00:00Z");
      EXPECT_FALSE(card_text(player.card()).empty()) << e.id;
      for (int round = 0; round < 3; ++round)
        for (const Action& a : Card(player.card()).actions)
          if (a.enabled && !a.needs_look) EXPECT_TRUE(player.play("press " + a.id, "here")) << e.id << " " << a.id;
      for (const char* line : {"time 5", "frame 1500 1500", "channels roll=1900", "stands rudder=3", "choose rudder",
                               "bench hears=yes hands=yes battery=yes controller=yes differs=yes", "time 9"})
        EXPECT_TRUE(player.play(line, "here")) << e.id << ": " << line;
    }
  }
}

/// Hands that press whatever is offered, in any order, while anything at all is heard.
std::string any_line(const Card& card, std::mt19937& random, double& now_s) {
  const auto one_of = [&](std::size_t n) { return static_cast<std::size_t>(random() % n); };
  switch (one_of(8)) {
    case 0: return "time " + number_text(now_s += 0.01 * static_cast<double>(random() % 200), 6);
    case 1: {
      std::string frame = "frame";
      for (int i = 0; i < 8; ++i) frame += " " + std::to_string(900 + random() % 1200);
      return frame + (random() % 20 == 0 ? " failsafe" : random() % 20 == 0 ? " lost" : "");
    }
    case 2: return "stands flaperon_left=" + std::to_string(static_cast<int>(random() % 60) - 30);
    case 3: return "channels roll=" + std::to_string(1000 + random() % 1000);
    case 4: {
      const char* flags[] = {"controller", "differs", "writing", "hands", "usb", "battery", "hears"};
      return std::string("bench ") + flags[one_of(7)] + (random() % 2 ? "=yes" : "=no");
    }
    case 5: {
      const char* subjects[] = {"stick.roll",    "correction.pitch", "lead.gps",
                                "flaperon_left", "inverted_v_right", "no"};
      return std::string("choose ") + subjects[one_of(6)];
    }
    case 6: {
      if (card.looks.empty()) return "";
      std::string look = "look";
      for (const LookRow& r : card.looks)
        if (random() % 3 != 0) {
          const std::string& word = r.choices[one_of(r.choices.size())].second;
          look += " " + r.id + "=" + word;
        }
      return look == "look" || !std::any_of(card.actions.begin(), card.actions.end(),
                                            [](const Action& a) { return a.needs_look; })
                 ? ""
                 : look;
    }
    default: {
      const Action* a = card.actions.empty() ? nullptr : &card.actions[one_of(card.actions.size())];
      if (!a || !a->enabled || a->needs_look) return "";
      return "press " + a->id +
             (card.number ? " " + number_text(std::clamp(static_cast<double>(random() % 80) - 40, card.number->least,
                                                         card.number->most),
                                              0)
                          : "");
    }
  }
}

TEST(Procedures, AreSafeInAnyOrderOfEvents) {
  int cards = 0, recorded = 0;
  for (unsigned seed = 1; seed <= 12; ++seed)
    for (const ProcedureEntry& e : all_procedures())
      for (const char* rig : {"hedgerow", "delta", "heath"}) {
        std::mt19937 random(seed);
        ProcedurePlayer player(demo(rig), shipped(), e, "2026-11-26T08:00:00Z");
        double now_s = 0;
        for (int i = 0; i < 150; ++i) {
          const std::string line = any_line(player.card(), random, now_s);
          const auto heard = player.play(line, "here");
          ASSERT_TRUE(heard) << e.id << " on " << rig << ", seed " << seed << ": " << line << ": "
                             << heard.error().text();
          cards += heard->card_changed;
          for (const std::string& done : heard->done) recorded += done.starts_with("Recorded");
          EXPECT_FALSE(card_text(player.card()).empty());
        }
        EXPECT_TRUE(rig_from_json(Json::parse(rig_text(player.rig())), "after")) << "what is left is a rig";
      }
  EXPECT_GT(cards, 2000) << "it really went somewhere";
  EXPECT_GT(recorded, 20);
}

// The arming card is walked by a script as by a board.
TEST(Script, WhatTheBoardTellsOfItselfIsPlayed) {
  Rig rig = demo("hedgerow");
  rig.home.on_loss = LossAction::come_home;
  Play play(rig, "arming");
  play.say("bench controller=yes battery=yes");
  play.say("state mode=manual refuses=no_fix refuses=sensor_missing:airspeed");
  EXPECT_NE(play.card().todo.find("open sky"), std::string::npos);
  EXPECT_NE(play.card().lines.back().words.find("Airspeed"), std::string::npos);
  play.say("state mode=manual");
  ASSERT_TRUE(play.card().action("arming_record"));
  EXPECT_NE(play.refused("state mode=manual refuses=mood").find("refuses="), std::string::npos);
  EXPECT_NE(play.refused("state happy").find("mode=MODE"), std::string::npos);
}

}  // namespace
}  // namespace rigging
