#include "review/review.h"
#include "base/file.h"
#include "base/json.h"

#include <gtest/gtest.h>

#include <set>

#include "airframe/kinds.h"
#include "bench_rig.h"
#include "direction/from_rig.h"
#include "proof/session.h"
#include "rig/rig_file.h"
#include "sheets/hand_card_sheet.h"

namespace rigging {
namespace {

/// A rig on which everything is proven and nothing is wrong.
Rig good_rig() { return directions_proven(measured(demo("hedgerow"))); }

std::multiset<std::string> codes_with_proofs(const Rig& rig) {
  std::multiset<std::string> all;
  for (const Snag& s : review(rig, shipped()).snags) all.insert(s.code);
  return all;
}

TEST(Review, AGoodRigIsReadyAndHasNoSnags) {
  const Review r = review(good_rig(), shipped());
  EXPECT_TRUE(r.readiness.ready) << r.readiness.words;
  EXPECT_TRUE(r.snags.empty()) << r.snags.front().what;
  EXPECT_EQ(r.stations[static_cast<std::size_t>(Station::proof)], StationState::proven);
  EXPECT_EQ(r.stations[static_cast<std::size_t>(Station::surfaces)], StationState::proven);
  EXPECT_EQ(r.stations[static_cast<std::size_t>(Station::sticks)], StationState::proven);
}

TEST(Review, WhatRestsOnReadingsIsNeededToBeReady) {
  Rig rig = good_rig();
  std::erase_if(rig.proofs, [](const Proof& p) { return p.check == surfaces_centred || p.check == loss_noticed; });
  Review r = review(rig, shipped());
  EXPECT_FALSE(r.readiness.ready);
  EXPECT_EQ(r.readiness.words, "Directions proven; not ready: 2 checks to do");
  std::set<Station> places;
  for (const Snag& s : r.snags)
    if (s.code == "PROOF-07") places.insert(station_of(r, s));
  EXPECT_EQ(places, (std::set<Station>{Station::sticks, Station::surfaces})) << "readings are made where they belong";
  EXPECT_EQ(r.stations[static_cast<std::size_t>(Station::surfaces)], StationState::planned);
  // An end that moves takes the throws with it, and the rest stands.
  rig = good_rig();
  rig.output("out_1")->high_us = 1980;
  r = review(rig, shipped());
  EXPECT_FALSE(r.readiness.ready);
  EXPECT_EQ(r.stations[static_cast<std::size_t>(Station::surfaces)], StationState::stale);
  EXPECT_EQ(r.stations[static_cast<std::size_t>(Station::sticks)], StationState::proven);
}

struct BreakOfTheGood {
  const char* name;
  std::function<void(Rig&)> damage;
  std::multiset<std::string> deserved;
};
void PrintTo(const BreakOfTheGood& b, std::ostream* out) { *out << b.name; }
class BreakIt : public testing::TestWithParam<BreakOfTheGood> {};

TEST_P(BreakIt, GetsExactlyTheSnagsItDeserves) {
  Rig rig = good_rig();
  GetParam().damage(rig);
  EXPECT_EQ(codes_with_proofs(rig), GetParam().deserved);
  for (const Snag& s : review(rig, shipped()).snags) {
    EXPECT_FALSE(s.what.empty() || s.why.empty() || s.remedy.empty()) << s.code;
    if (!s.fix) continue;
    // A fix must cure its own snag.
    const Rig fixed = fixed_by(*s.fix, rig);
    EXPECT_NE(fixed, rig) << s.code;
    EXPECT_LT(codes_with_proofs(fixed).count(s.code), codes_with_proofs(rig).count(s.code)) << s.code;
  }
}

using Set = std::multiset<std::string>;
INSTANTIATE_TEST_SUITE_P(
    Ways, BreakIt,
    testing::Values(
        BreakOfTheGood{"unknown class", [](Rig& r) { r.controller.kind = "abacus"; },
                       Set{"AIRFRAME-01", "PROOF-06", "PROOF-06", "WIRING-32"}},
        BreakOfTheGood{"mass unknown", [](Rig& r) { r.airframe.mass_kg.reset(); }, Set{"AIRFRAME-04", "PROOF-06"}},
        BreakOfTheGood{"wing behind the tail", [](Rig& r) { r.airframe.wing_at_m = 1.1; },
                       Set{"AIRFRAME-03", "FIT-05", "FIT-26", "FIT-26", "FIT-26", "FIT-26"}},
        BreakOfTheGood{"nothing drives a tail half", [](Rig& r) { r.outputs.erase(r.outputs.begin() + 3); },
                       Set{"SURFACES-01", "PROOF-02", "PROOF-02", "PROOF-02", "PROOF-02", "PROOF-06", "PROOF-06"}},
        BreakOfTheGood{"two in one socket", [](Rig& r) { r.outputs[4].socket = "slot_1"; },
                       Set{"SURFACES-03", "WIRING-11", "WIRING-31"}},
        BreakOfTheGood{"a socket that is not there", [](Rig& r) { r.outputs[4].socket = "slot_77"; },
                       Set{"SURFACES-04", "WIRING-31"}},
        BreakOfTheGood{"a surface that is not there",
                       [](Rig& r) {
                         Output o;
                         o.id = "extra";
                         o.socket = "slot_5";
                         o.surfaces = {Surface{SurfaceKind::canard, Side::single}};
                         r.outputs.push_back(o);
                       },
                       Set{"SURFACES-02", "PROOF-06", "PROOF-06"}},
        BreakOfTheGood{"a sign that can't be right", [](Rig& r) { r.outputs[3].mix.yaw *= -1; },
                       Set{"SURFACES-07", "PROOF-02", "PROOF-02"}},
        BreakOfTheGood{"unequal halves", [](Rig& r) { r.outputs[3].mix.pitch = 0.4; },
                       Set{"SURFACES-08", "PROOF-02", "PROOF-02"}},
        BreakOfTheGood{"too much travel asked", [](Rig& r) { r.outputs[2].mix.pitch = r.outputs[3].mix.pitch = 0.8; },
                       Set{"SURFACES-09", "SURFACES-09", "PROOF-02", "PROOF-02"}},
        BreakOfTheGood{"an axis that can't be served",
                       [](Rig& r) {
                         r.outputs[0].mix.yaw = 0.2;
                         r.outputs[1].mix.yaw = 0.2;
                       },
                       Set{"SURFACES-06", "SURFACES-06", "SURFACES-09", "SURFACES-09"}},
        BreakOfTheGood{"no roll at all", [](Rig& r) { r.outputs[0].mix.roll = r.outputs[1].mix.roll = 0; },
                       Set{"SURFACES-05"}},
        BreakOfTheGood{"channel reversed", [](Rig& r) { r.radio.channels[0].reversed = true; },
                       Set{"STICKS-01", "PROOF-02", "PROOF-06"}},
        BreakOfTheGood{"no channel for yaw", [](Rig& r) { r.radio.channels.erase(r.radio.channels.begin() + 3); },
                       Set{"STICKS-02", "PROOF-02", "PROOF-06"}},
        BreakOfTheGood{"board loose again", [](Rig& r) { r.controller.mounted = false; },
                       Set{"PROOF-02", "PROOF-02", "PROOF-02", "PROOF-02", "PROOF-02", "PROOF-02", "PROOF-03"}},
        BreakOfTheGood{"a loose end",
                       [](Rig& r) {
                         r.loose_ends.push_back({"arm", "arming check switched off to calibrate", "2026-11-01", {}});
                       },
                       Set{"PROOF-04"}},
        BreakOfTheGood{"a proof from the simulated bench", [](Rig& r) { r.proofs[0].simulated = true; },
                       Set{"PROOF-05"}},
        BreakOfTheGood{"a proof missing", [](Rig& r) { r.proofs.erase(r.proofs.begin()); }, Set{"PROOF-01"}},
        BreakOfTheGood{"readings missing",
                       [](Rig& r) {
                         std::erase_if(r.proofs, [](const Proof& p) {
                           return p.check == surfaces_centred || p.check == throws_equal ||
                                  p.check == sticks_calibrated;
                         });
                       },
                       Set{"PROOF-07", "PROOF-07"}},
        BreakOfTheGood{"a lead never followed",
                       [](Rig& r) {
                         std::erase_if(r.proofs, [](const Proof& p) { return p.check == CheckId{lead_family, "gps"}; });
                       },
                       Set{"PROOF-08"}}));

TEST(Review, FewSocketsAndFixedBoards) {
  Rig rig = good_rig();
  rig.controller.kind = "fixed_mini";
  rig.sensing.board = *turn_from_name("arrow_right_top_up");
  rig.sensing.roll_reversed = true;
  const auto found = codes_with_proofs(rig);
  for (const char* code : {"AIRFRAME-02", "SURFACES-04", "SENSES-01", "SENSES-02"})
    EXPECT_EQ(found.count(code), 1u) << code;
}

TEST(Proofs, SayEachChangeOnALineOfItsOwn) {
  Rig rig = good_rig();
  rig.outputs[2].mix.yaw = -0.45;
  rig.outputs[3].mix.yaw = 0.45;
  const Review r = review(rig, shipped());
  const CheckStatus* yaw = find_check(r.checks, "stick.yaw");
  ASSERT_TRUE(yaw);
  EXPECT_EQ(yaw->changes.size(), 2u) << yaw->because();
  bool told = false;
  for (const Snag& s : r.snags)
    if (s.subject == "stick.yaw") {
      told = true;
      EXPECT_EQ(std::count(s.why.begin(), s.why.end(), '\n'), 2) << s.why;
    }
  EXPECT_TRUE(told);
}

/// What a change brings is told by code and subject, and work that is only still to be done on the bench is none of it.
TEST(Proofs, WhatComesWithAChangeIsTold) {
  const Rig rig = good_rig();
  const Review before = review(rig, shipped());
  Rig clash = rig;
  clash.outputs[1].socket = clash.outputs[0].socket;
  const Review after = review_after(clash, before);
  const auto comes = only_in(after.snags, before.snags);
  EXPECT_TRUE(std::any_of(comes.begin(), comes.end(), [](const Snag& s) { return s.code == "SURFACES-03"; }));
  EXPECT_TRUE(std::none_of(comes.begin(), comes.end(), [](const Snag& s) { return s.station == Station::proof; }));
  EXPECT_TRUE(only_in(before.snags, before.snags).empty());
}

TEST(Proofs, GoStaleWhenAndOnlyWhenWhatTheyDependOnChanges) {
  const Rig rig = good_rig();
  const auto stale = [&](const std::function<void(Rig&)>& change) {
    Rig changed = rig;
    change(changed);
    std::set<std::string> ids;
    for (const CheckStatus& c : review(changed, shipped()).checks)
      if (c.state == ProofState::stale && is_direction(c.id)) {
        ids.insert(c.id.text());
        EXPECT_FALSE(c.because().empty());
      }
    return ids;
  };
  using Ids = std::set<std::string>;
  EXPECT_EQ(stale([](Rig& r) { r.outputs[2].mix.yaw = -0.45; }), (Ids{"stick.yaw", "correction.yaw"}));
  EXPECT_EQ(stale([](Rig& r) { r.outputs[0].reversed = true; }), (Ids{"stick.roll", "correction.roll"}));
  EXPECT_EQ(stale([](Rig& r) { r.outputs[2].socket = "slot_8"; }),
            (Ids{"stick.pitch", "stick.yaw", "correction.pitch", "correction.yaw"}));
  EXPECT_EQ(stale([](Rig& r) { r.sensing.pitch_reversed = true; }), (Ids{"correction.pitch"}));
  EXPECT_EQ(stale([](Rig& r) { r.sensing.board = *turn_from_name("arrow_tail_top_up"); }),
            (Ids{"correction.roll", "correction.pitch", "correction.yaw"}));
  EXPECT_EQ(stale([](Rig& r) { r.radio.channels[1].reversed = true; }), (Ids{"stick.pitch"}));
  EXPECT_EQ(stale([](Rig& r) { r.controller.firmware = "1.0.0"; }).size(), 6u);
  // None of these moves a direction.
  EXPECT_EQ(stale([](Rig& r) { r.airframe.span_m = 2; }), Ids{});
  EXPECT_EQ(stale([](Rig& r) { r.outputs[0].mix.flap = -0.1; }), Ids{});
  EXPECT_EQ(stale([](Rig& r) { r.outputs[4].mix.throttle = 0.9; }), Ids{});
  EXPECT_EQ(stale([](Rig& r) { std::swap(r.outputs[0], r.outputs[4]); }), Ids{});
  EXPECT_EQ(stale([](Rig& r) {
              r.name = "Other";
              r.log.push_back({"now", "x", {}});
            }),
            Ids{});
}

TEST(Proofs, ALooseBoardMakesThemProvisional) {
  Rig rig = good_rig();
  rig.proofs.clear();
  rig.controller.mounted = false;
  rig = directions_proven(rig, true);
  const auto directions = [](const Rig& r) {
    auto all = check_statuses(r, shipped());
    std::erase_if(all, [](const CheckStatus& s) { return !is_direction(s.id); });
    return all;
  };
  EXPECT_EQ(directions(rig).size(), 6u);
  for (const CheckStatus& s : directions(rig)) EXPECT_EQ(s.state, ProofState::provisional);
  EXPECT_FALSE(review(rig, shipped()).readiness.ready);
  rig.controller.mounted = true;
  for (const CheckStatus& s : directions(rig)) EXPECT_EQ(s.state, ProofState::stale);
}

// Common practice: what each class shows on the bench.
TEST(Cards, SayHowTheAnswerShows) {
  const auto card = [&](const char* controller, AirframeKind kind, const char* check) {
    Rig rig;
    rig.controller.kind = controller;
    rig.airframe.kind = kind;
    rig.outputs = default_outputs(kind);
    const auto all = check_statuses(rig, shipped());
    if (const CheckStatus* s = find_check(all, std::string(check))) return direction_card({rig, shipped()}, s->id);
    ADD_FAILURE() << check << " is not needed";
    return DirectionCard{};
  };
  EXPECT_EQ(card("full_controller", AirframeKind::two_ailerons, "correction.roll").answer, AnswerKind::held);
  EXPECT_EQ(card("full_controller", AirframeKind::two_ailerons, "correction.yaw").observation.mode, Mode::rate)
      << "levelling never answers yaw";
  EXPECT_EQ(card("fixed_wing", AirframeKind::flying_wing, "correction.roll").observation.mode, Mode::rate)
      << "its levelling runs away on the bench";
  EXPECT_NE(card("inline_level", AirframeKind::two_ailerons, "correction.roll").how.find("a check of its own"),
            std::string::npos);
  EXPECT_NE(card("fixed_mini", AirframeKind::two_ailerons, "correction.roll").how.find("Unlock the motor"),
            std::string::npos);
  EXPECT_NE(card("fixed_mini", AirframeKind::two_ailerons, "correction.roll").cautions.front().find("unlocked"),
            std::string::npos)
      << "the caution stands where the hand is about to move";
  const DirectionCard inverted = card("full_controller", AirframeKind::inverted_v_tail, "stick.yaw");
  for (const Expected& e : inverted.looks)
    EXPECT_EQ(e.motion, e.surface.side == Side::right ? 1 : -1) << "an inverted V moves the other way round";
  const DirectionCard upright = card("full_controller", AirframeKind::v_tail, "stick.yaw");
  for (const Expected& e : upright.looks) EXPECT_EQ(e.motion, e.surface.side == Side::right ? -1 : 1);
  const DirectionCard canard = card("full_controller", AirframeKind::canard, "correction.pitch");
  ASSERT_EQ(canard.looks.size(), 1u);
  EXPECT_EQ(canard.looks[0].motion, 1) << "nose held up: the foreplane's trailing edge goes up to bring it down";
}

TEST(Session, FindsCuresAndAsksAgain) {
  Rig rig = good_rig();
  rig.proofs.clear();
  const ControllerClass& c = *shipped().controller(rig.controller.kind);
  BenchSession session(rig, c);
  const DirectionCard card = direction_card({rig, shipped()}, {stick_family, "roll"});
  direction::Observation seen = card.observation;
  for (const Expected& e : card.looks) seen.saw.push_back({e.surface, -e.motion});
  EXPECT_FALSE(as_expected(card, seen));
  session.add(seen);
  EXPECT_TRUE(session.wrong());
  EXPECT_FALSE(session.diagnosed()) << "leads exchanged and channel reversed look alike so far";
  ASSERT_TRUE(session.answer().next);
  direction::Observation channels = card.observation;
  channels.channels = {-1, 0, 0};
  session.add(channels);
  ASSERT_TRUE(session.diagnosed());
  const RepairedRig done = repaired(rig, c, session.looks(), session.answer().explanations[0]);
  ASSERT_EQ(done.by_hand.size(), 1u);
  EXPECT_EQ(done.by_hand[0].kind, direction::FaultKind::transmitter_reversed);
}

TEST(Session, SettingsAreChangedWhereTheClassAllowsIt) {
  const Rig rig = good_rig();
  const ControllerClass& c = *shipped().controller(rig.controller.kind);
  const direction::Case looks = direction::case_from_rig(rig, c);
  direction::Fault reversed, board, gyro;
  reversed.output = 0;
  board.kind = direction::FaultKind::board_turned;
  board.turn = *turn_from_name("arrow_right_top_up");
  gyro.kind = direction::FaultKind::gyro_reversed;
  gyro.axis = Axis::yaw;
  const RepairedRig done = repaired(rig, c, looks, {{reversed, board, gyro}, 0});
  EXPECT_TRUE(done.by_hand.empty());
  EXPECT_TRUE(done.rig.outputs[0].reversed);
  EXPECT_EQ(done.rig.sensing.board.name(), "arrow_right_top_up");
  EXPECT_TRUE(done.rig.sensing.yaw_reversed);
  // A board that was told of one turn and really sits another way.
  Rig told = rig;
  told.sensing.board = *turn_from_name("arrow_right_top_up");
  EXPECT_EQ(repaired(told, c, looks, {{board}, 0}).rig.sensing.board.name(), "arrow_tail_top_up");
}

TEST(HandCards, NameTheRealPlaceOnEveryClass) {
  for (const ControllerClass& c : shipped().controllers) {
    Rig rig;
    rig.name = "Test <model> & \"friend\"";
    rig.controller.kind = c.id;
    rig.airframe.kind = AirframeKind::flying_wing;
    rig.outputs = default_outputs(AirframeKind::flying_wing);
    for (std::size_t i = 0; i < 2; ++i) rig.outputs[i].socket = c.outputs[i].id;
    const direction::Case looks = direction::case_from_rig(rig, c);
    for (const auto& [remedy, name] : Names<Remedy>::list) {
      if (!looks.can.has(remedy)) continue;
      direction::Fault f;
      f.kind = static_cast<direction::FaultKind>(remedy);  // each in the same place of its list
      f.output = 0;
      f.other_output = 1;
      f.other_axis = Axis::pitch;
      f.surface = {SurfaceKind::elevon, Side::left};
      f.turn = *turn_from_name("arrow_left_top_up");
      const HandCard card = hand_card(rig, c, f, looks);
      ASSERT_FALSE(card.steps.empty());
      for (const std::string& step : card.steps) EXPECT_EQ(step.find('{'), std::string::npos) << c.id << ": " << step;
      const std::string svg = hand_card_svg(card, rig, c, looks);
      EXPECT_NE(svg.find("&lt;model&gt; &amp; &quot;friend&quot;"), std::string::npos);
      EXPECT_NE(svg.find("Propeller off"), std::string::npos);
    }
  }
  // Common practice: on inline units the switch turns only the correction round, so an output can't be reversed there.
  EXPECT_FALSE(shipped().controller("inline_dial")->abilities().has(Remedy::reverse_output));
  EXPECT_TRUE(shipped().controller("inline_dial")->abilities().has(Remedy::flip_gyro));
}

TEST(Catalogue, OwnPartsStandBesideTheRig) {
  const auto folder = std::filesystem::temp_directory_path() / "rigging_own_parts";
  std::filesystem::create_directories(folder);
  EXPECT_EQ(own_parts_path(folder / "kite.rig.json"), folder / "kite.parts.json");
  const auto file = folder / "kite.parts.json";
  const auto with = [&](const std::string& text) {
    (void)write_file_atomically(file, text);
    Catalogue c = shipped();
    const auto ok = add_own_parts(c, file);
    return ok ? std::string(c.part("my_servo") ? "added" : "missing") : ok.error().text();
  };
  const std::string figures =
      R"(,"servo":{"digital":false,"seconds_per_60deg":0.1,"torque_nm":0.1,"dead_band_us":4,"most_rate_hz":50})";
  const auto servo = [&](const std::string& more) {
    return R"({"format":"parts","version":1,"parts":[{"id":"my_servo","name":"My servo","group":"servo","basis":"weighed","mass_kg":0.02)" +
           more + "}]}";
  };
  EXPECT_EQ(with(servo(figures)), "added");
  EXPECT_NE(with(servo("")).find("without \"servo\""), std::string::npos);
  EXPECT_NE(
      with(servo(figures + R"(,"loads":[{"net":"plus","idle_a":0,"typical_a":1,"most_a":2,"least_v":4,"most_v":6}])"))
          .find("on which nothing is"),
      std::string::npos);
  const std::string plug = R"(,"terminals":[{"id":"plug","label":"plug","kind":"pulse_input","net":"plus"}])";
  EXPECT_NE(with(servo(figures + plug +
                       R"(,"loads":[{"net":"plus","idle_a":3,"typical_a":1,"most_a":2,"least_v":4,"most_v":6}])"))
                .find("out of order"),
            std::string::npos);
  EXPECT_NE(with(servo(figures + plug + R"(,"feeds":[{"from":"plus","to":"plus","kind":"diode"}])")).find("to itself"),
            std::string::npos);
  EXPECT_NE(with(servo(figures + R"(,"terminals":[{"id":"a","label":"a","kind":"spoon"}])"))
                .find("/parts/0/terminals/0/kind"),
            std::string::npos);
  EXPECT_NE(
      with(
          R"({"format":"parts","version":1,"parts":[{"id":"my_servo","name":"My servo","group":"spoon","basis":"weighed"}]})")
          .find("/parts/0/group"),
      std::string::npos);
  EXPECT_NE(with(R"({"format":"parts","version":1,"parts":[{"id":"buzzer","name":"x","group":"buzzer","basis":"y"}]})")
                .find("already"),
            std::string::npos);
  EXPECT_NE(with("{").find("JSON"), std::string::npos);
  std::filesystem::remove_all(folder);
}

TEST(Catalogue, OwnPartsAreKeptBesideTheRigAndNothingElseIsLost) {
  const auto folder = std::filesystem::temp_directory_path() / "rigging_keep_parts";
  std::filesystem::remove_all(folder);
  std::filesystem::create_directories(folder);
  const auto file = folder / "kite.parts.json";
  ASSERT_TRUE(
      write_file_atomically(
          file,
          R"({"format":"parts","version":1,"note":"kept","parts":[{"id":"older","name":"Older","group":"other","basis":"weighed","colour":"green"}]})")
          .has_value());
  PartKind mine = *shipped().part("servo_9g_analogue");
  mine.id = "mine";
  mine.mass_kg = 0.011;
  ASSERT_TRUE(save_own_part(file, mine).has_value());
  mine.mass_kg = 0.012;
  ASSERT_TRUE(save_own_part(file, mine).has_value());
  Catalogue c = shipped();
  ASSERT_TRUE(add_own_parts(c, file).has_value());
  ASSERT_NE(c.part("mine"), nullptr);
  EXPECT_EQ(c.part("mine")->mass_kg, 0.012);
  EXPECT_EQ(c.part("mine")->loads, mine.loads);
  ASSERT_NE(c.part("older"), nullptr);
  EXPECT_EQ(c.part("older")->unknown_members.members()["colour"], "green");
  EXPECT_EQ((*read_json_file(file))["note"], "kept");
  mine.loads.front().idle_a = 9;
  EXPECT_FALSE(save_own_part(file, mine).has_value());
  EXPECT_TRUE(add_own_parts(c = shipped(), file).has_value()) << "a refused part must leave the file as it was";
  std::filesystem::remove_all(folder);
}

TEST(Catalogue, EveryTerminalLiesOnItsBoardAndSaysWhatItIs) {
  for (const ControllerClass& c : shipped().controllers) {
    EXPECT_FALSE(c.outputs.empty()) << c.id;
    EXPECT_FALSE(c.minus_edge.empty()) << c.id;
    EXPECT_FALSE(c.loads.empty()) << c.id << " draws current";
    std::set<std::pair<double, double>> places;
    for (const Terminal* t : c.terminals()) {
      EXPECT_GE(t->x_mm, 0) << c.id << " " << t->id;
      EXPECT_LE(t->x_mm, std::max(c.width_mm, c.length_mm)) << c.id << " " << t->id;
      EXPECT_LE(t->y_mm, c.length_mm) << c.id << " " << t->id;
      EXPECT_TRUE(places.insert({t->x_mm, t->y_mm}).second) << c.id << " " << t->id << " lies on another";
      EXPECT_FALSE(t->label.empty()) << c.id << " " << t->id;
      EXPECT_EQ(c.terminal(t->id), t);
    }
  }
  const ControllerClass& full = *shipped().controller("full_controller");
  const auto pads = [&](TerminalKind k) {
    return std::count_if(full.pads.begin(), full.pads.end(), [&](const Terminal& t) { return t.kind == k; });
  };
  EXPECT_EQ(pads(TerminalKind::power), 2);
  EXPECT_EQ(pads(TerminalKind::ground), 3);
}

TEST(Catalogue, ThereIsSomethingOfEveryGroupAndItsBasisIsNoted) {
  std::map<PartGroup, int> groups;
  for (const PartKind& p : shipped().parts) {
    ++groups[p.group];
    EXPECT_FALSE(p.basis.empty()) << p.id;
    EXPECT_TRUE(p.mass_kg.has_value()) << p.id;
  }
  for (const auto& [group, name] : Names<PartGroup>::list) EXPECT_GE(groups[group], 1) << name;
  EXPECT_GE(groups[PartGroup::servo], 6);
  EXPECT_GE(groups[PartGroup::battery], 6);
}

}  // namespace
}  // namespace rigging
