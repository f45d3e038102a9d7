#include "edit/edit.h"
#include "base/units.h"

#include <gtest/gtest.h>

#include <set>

#include "airframe/edits.h"
#include "airframe/kinds.h"
#include "base/json.h"
#include "bench_rig.h"
#include "catalogue/sockets.h"
#include "fit/edits.h"
#include "power/edits.h"
#include "review/review.h"
#include "review/stations.h"
#include "rig/differing.h"
#include "rig/path.h"
#include "rig/rig_file.h"
#include "sticks/edits.h"
#include "surfaces/edits.h"

namespace rigging {
namespace {

Result<Edit> named(const Rig& rig, const std::string& name, const std::vector<std::string>& words) {
  for (const EditEntry& e : all_edits())
    if (e.name == name && e.arguments.size() == words.size()) return e.apply(rig, shipped(), words);
  ADD_FAILURE() << "no edit " << name << " with " << words.size() << " words";
  return failure(name, "is not there");
}

// A section that stands as usual is not in the file; its values can be set all the same.
TEST(Edits, EverySingleValueOfAFreshRigCanBeSet) {
  const Rig rig = fresh_rig("mine", AirframeKind::two_ailerons, "full_controller");
  for (const char* place :
       {"sensing/roll_reversed", "controller/auto_trim", "home/checks_before_arming", "radio/transmitter/mixes"}) {
    const auto was = std::get<bool>(value_at(rig, place));
    const auto e = set_value(rig, place, !was);
    ASSERT_TRUE(e) << place << ": " << e.error().text();
    EXPECT_EQ(std::get<bool>(value_at(e->rig, place)), !was) << place;
  }
}

/// A first rig: whatever class and kind are chosen, outputs sit where the class keeps sockets for them.
TEST(AirframeEdits, AFreshRigSitsWhereItsClassWantsIt) {
  for (const ControllerClass& c : shipped().controllers)
    for (const auto& [kind, name] : Names<AirframeKind>::list) {
      const auto begun =
          change_class(fresh_rig("mine", AirframeKind::two_ailerons, "full_controller"), shipped(), c.id);
      ASSERT_TRUE(begun);
      const auto made = change_kind(begun->rig, shipped(), kind);
      ASSERT_TRUE(made);
      std::set<std::string> sockets;
      for (const Output& o : made->rig.outputs) {
        if (o.socket.empty()) continue;
        const Terminal* t = c.socket(o.socket);
        ASSERT_TRUE(t) << c.id << " " << name;
        EXPECT_TRUE(socket_takes(*t, o)) << c.id << " " << name << ": " << o.id << " in " << t->label;
        EXPECT_TRUE(sockets.insert(o.socket).second) << "one each";
        EXPECT_FALSE(c.motor_bypasses() && drives_motor(o));
      }
      const Review r = review(made->rig, shipped());
      for (const Snag& s : r.snags) EXPECT_NE(s.code, "WIRING-34") << c.id << " " << name;
    }
  // What hangs on a lead stays with it.
  const Rig plugged = demo("hedgerow");
  const auto moved = change_class(plugged, shipped(), "gesture_board");
  ASSERT_TRUE(moved);
  EXPECT_EQ(moved->rig.output("out_1")->socket, plugged.output("out_1")->socket);
}

TEST(Edits, AnySingleValueIsSetByItsPlaceAndOnlyThat) {
  const Rig rig = demo("hedgerow");
  const auto changed = [&](const std::string& place, const std::string& words) {
    const auto e = set_value_in_words(rig, place, words);
    EXPECT_TRUE(e) << place << ": " << e.error().text();
    return e ? differing_members(rig, e->rig) : std::vector<std::string>{};
  };
  using Places = std::vector<std::string>;
  EXPECT_EQ(changed("airframe/span_m", "2.1"), Places{"/airframe/span_m"});
  EXPECT_EQ(changed("outputs/out_2/reversed", "yes"), Places{"/outputs/1/reversed"});
  EXPECT_EQ(changed("radio/channels/3/sub_trim_us", "12.5"), Places{"/radio/channels/2/sub_trim_us"});
  EXPECT_EQ(changed("linkages/flaperon_left/arm_m", "0.01"), Places{"/linkages/0/arm_m"});
  EXPECT_EQ(changed("airframe/mass_kg", "nothing"), Places{"/airframe/mass_kg"});
  EXPECT_EQ(changed("name", "12"), Places{"/name"}) << "a text that looks like a number";
  EXPECT_EQ(changed("sensing/board", "arrow_tail_top_up").front().substr(0, 8), "/sensing");
}

TEST(Edits, WhatCanNotBeIsRefusedWithThePlaceAndWhatWasExpected) {
  const Rig rig = demo("hedgerow");
  const std::pair<const char*, const char*> bad[] = {{"airframe/span_m", "wide"},
                                                     {"airframe/span_m", "180"},
                                                     {"airframe/spam_m", "1"},
                                                     {"outputs/out_9/reversed", "yes"},
                                                     {"outputs", "x"},
                                                     {"outputs/out_1", "x"},
                                                     {"outputs/out_1/low_us", "1700"},
                                                     {"radio/transmitter/channels", "7.5"},
                                                     {"airframe/kind", "balloon"},
                                                     {"outputs/out_1/id", "out_2"},
                                                     {"", "x"},
                                                     {"airframe/span_m/inside", "1"},
                                                     {"leads/gps/from/part", "nobody"}};
  for (const auto& [place, words] : bad) {
    const auto e = set_value_in_words(rig, place, words);
    ASSERT_FALSE(e) << place;
    EXPECT_FALSE(e.error().where.empty()) << place;
    EXPECT_FALSE(e.error().expected.empty()) << place;
  }
}

/// Every number of the document at both ends of its range goes in, and a little beyond does not, unless two values must
/// fit together.
TEST(Edits, RangesAreThoseOfTheDescription) {
  const Rig rig = demo("hedgerow");
  int tried = 0;
  for (const Member& m : Described<Airframe>::members().list) {
    if (m.span.most <= m.span.least) continue;
    const std::string place = std::string("airframe/") + m.name;
    for (const double end : {m.span.least, m.span.most}) EXPECT_TRUE(set_value(rig, place, end)) << place << " " << end;
    EXPECT_FALSE(set_value(rig, place, m.span.most + 0.01)) << place;
    EXPECT_FALSE(set_value(rig, place, m.span.least - 0.01)) << place;
    ++tried;
  }
  EXPECT_GE(tried, 15);
}

TEST(Edits, OfTheStations) {
  const Rig rig = demo("hedgerow");
  auto e = named(rig, "kind", {"v_tail"});
  ASSERT_TRUE(e);
  EXPECT_EQ(e->rig.airframe.kind, AirframeKind::v_tail);
  e = named(rig, "class", {"pc_mini"});
  ASSERT_TRUE(e);
  EXPECT_EQ(e->rig.controller.kind, "pc_mini");
  EXPECT_TRUE(e->rig.controller.firmware.empty()) << "it was the other board's";
  std::set<std::string> sockets;
  for (const Output& o : e->rig.outputs)
    if (!o.socket.empty()) EXPECT_TRUE(sockets.insert(o.socket).second) << o.socket;
  EXPECT_FALSE(named(rig, "class", {"abacus"}));
  e = named(rig, "add-part", {"buzzer"});
  ASSERT_TRUE(e);
  EXPECT_EQ(e->rig.parts.size(), rig.parts.size() + 1);
  EXPECT_TRUE(e->rig.mounting(e->rig.parts.back().id));
  e = named(rig, "remove-part", {"gps"});
  ASSERT_TRUE(e);
  EXPECT_FALSE(e->rig.part("gps"));
  for (const Lead& l : e->rig.leads) EXPECT_FALSE(far_end(l, "gps"));
  e = named(rig, "plug", {"servo_flaperon_left", "slot_5"});
  ASSERT_TRUE(e) << e.error().text();
  EXPECT_EQ(e->rig.output_of(*surface_from_name("flaperon_left"))->socket, "slot_5") << "its output goes along";
  EXPECT_FALSE(named(rig, "plug", {"servo_flaperon_left", "slot_99"}));
  EXPECT_FALSE(named(rig, "plug", {"esc_motor", "slot_5"})) << "it does not touch the board";
  e = named(rig, "flip", {"out_3", "yaw"});
  ASSERT_TRUE(e);
  EXPECT_EQ(e->rig.outputs[2].mix.yaw, -rig.outputs[2].mix.yaw);
  EXPECT_FALSE(named(rig, "flip", {"out_1", "yaw"})) << "it has no such weight";
  EXPECT_TRUE(named(rig, "reverse", {"out_1"})->rig.outputs[0].reversed);
  EXPECT_FALSE(named(rig, "learn-ends", {})) << "nothing was read";
  // What an edit makes can be saved and read.
  for (const EditEntry& entry : all_edits())
    if (entry.arguments.empty())
      if (const auto made = entry.apply(rig, shipped(), {})) {
        EXPECT_FALSE(made->label.empty()) << entry.name;
        EXPECT_TRUE(rig_from_json(Json::parse(rig_text(made->rig)), "x")) << entry.name;
      }
}

TEST(Places, GoByNameWhateverTheOrderAndWhateverTheNames) {
  Rig rig = demo("hedgerow");
  rig.outputs[0].id = "left/one~two";
  const std::string place = path_of({"outputs", "left/one~two", "reversed"});
  EXPECT_EQ(value_at(rig, place), Value(false));
  std::reverse(rig.outputs.begin(), rig.outputs.end());
  EXPECT_EQ(value_at(rig, place), Value(false));
  EXPECT_EQ(value_at(rig, "outputs/nobody/reversed"), Value{});
  EXPECT_EQ(value_at(rig, "airframe/mass_kg"), Value(1.92));
  rig.airframe.mass_kg.reset();
  EXPECT_EQ(value_at(rig, "airframe/mass_kg"), Value{});
  EXPECT_EQ(value_at(rig, "outputs"), Value{});
  EXPECT_EQ(value_at(rig, path_of({"outputs", "out_2", "surfaces"})), Value(std::string("flaperon_right")));
}

/// A word that is only for showing ages nothing, and an id that ends like an axis is no axis.
TEST(Proofs, RestOnDataAndNotOnWords) {
  Rig rig = directions_proven(demo("hedgerow"));
  rig.leads[0].id = "lead.roll";
  rig = proven(rig, {lead_family, "lead.roll"});
  ASSERT_EQ(status_of(rig, {lead_family, "lead.roll"}).state, ProofState::fresh);
  rig.outputs[0].reversed = !rig.outputs[0].reversed;
  EXPECT_EQ(status_of(rig, {stick_family, "roll"}).state, ProofState::stale);
  EXPECT_EQ(status_of(rig, {lead_family, "lead.roll"}).state, ProofState::fresh);
  set_unit_system(UnitSystem::imperial);
  EXPECT_EQ(status_of(rig, {stick_family, "pitch"}).state, ProofState::fresh);
  set_unit_system(UnitSystem::metric);
}

TEST(Edit, ReachesIntoWhatIsNotThereYet) {
  Rig rig = demo("hedgerow");
  rig.fit.bay.reset();
  const auto made = set_value_in_words(rig, "fit/bay/length_m", "0.24");
  ASSERT_TRUE(made) << made.error().text();
  ASSERT_TRUE(made->rig.fit.bay);
  EXPECT_EQ(made->rig.fit.bay->length_m, 0.24);
  EXPECT_NE(made->label.find("240 mm"), std::string::npos) << made->label;
  EXPECT_FALSE(set_value_in_words(rig, "fit/bay", "3")) << "a bay is no single value";
}

/// What sheets and boxes hand over is refused by core with the place and the range of the description.
TEST(Edit, MeasuresOutsideOfTheirRangeAreRefused) {
  const Rig rig = demo("hedgerow");
  const auto says = [](const Result<Edit>& made, const std::string& what) {
    ASSERT_FALSE(made) << what;
    EXPECT_NE(made.error().text().find(what), std::string::npos) << made.error().text();
  };
  Power power = rig.power;
  power.reserve_share = 0.3;
  ASSERT_TRUE(measure_power(rig, power));
  EXPECT_EQ(measure_power(rig, power)->rig.power, power);
  power.ambient_c = 600;
  says(measure_power(rig, power), "ambient_c");
  Transmitter t = rig.radio.transmitter;
  t.channels = 12;
  const auto described = describe_transmitter(rig, t, {{ChannelFunction::roll, 70}});
  ASSERT_TRUE(described);
  EXPECT_EQ(described->rig.radio.transmitter.channels, 12);
  EXPECT_EQ(described->rig.channel(ChannelFunction::roll)->rate_percent, 70);
  says(describe_transmitter(rig, t, {{ChannelFunction::roll, 700}}), "rate_percent");
  t.step_percent = 0;
  says(describe_transmitter(rig, t, {}), "step_percent");
  Linkage l = linkage_of(rig, rig.outputs.front().surfaces.front());
  const double rod = l.rod_m;
  l.readings = {{1500, 0, {}}};
  const auto measured = measure_linkage(rig, l);
  ASSERT_TRUE(measured) << measured.error().text();
  EXPECT_TRUE(measured->rig.linkage(l.surface)->readings.empty()) << "what was read of the one before is forgotten";
  l.rod_m = 0.0001;
  says(measure_linkage(rig, l), "rod_m");
  l.rod_m = rod;
  l.arm_m = 0.4;
  l.drop_m = 0.9;
  EXPECT_FALSE(measure_linkage(rig, l)) << "the rod can't join them";
  l = linkage_of(rig, l.surface);
  l.arm_holes_m = {0.008, 3};
  says(list_holes(rig, l), "arm_holes_m");
  says(use_holes(rig, l.surface, 5, 0.01), "arm_m");
  says(set_weight(rig, "out_1", "roll", 7), "roll");
  says(set_weight(rig, "out_9", "roll", 0.5), "out_9");
  says(set_differential(rig, 1.5), "0 to 1");
  says(set_throw(rig, l.surface, MixCommand::roll, 80), "roll");
  says(set_throw(rig, l.surface, MixCommand::roll, -1e300), "-1e+300°");
}

TEST(Edit, OfMixAndReadingsByTheirNames) {
  const Rig rig = demo("hedgerow");
  EXPECT_EQ(named(rig, "weight", {"out_1", "roll", "-0.4"})->rig.output("out_1")->mix.roll, -0.4);
  EXPECT_FALSE(named(rig, "weight", {"out_1", "roll", "much"}));
  const Surface s = rig.outputs.front().surfaces.front();
  const auto thrown = named(rig, "throw", {s.name(), "roll", "9"});
  ASSERT_TRUE(thrown) << thrown.error().text();
  EXPECT_NEAR(throw_for(thrown->rig, *thrown->rig.output_of(s), s, MixCommand::roll), 9, 0.05);
  EXPECT_FALSE(named(rig, "throw", {"spoiler", "roll", "9"}));
  EXPECT_FALSE(named(rig, "throw", {s.name(), "loop", "9"}));
  EXPECT_NEAR(differential_of(named(rig, "differential", {"0.3"})->rig), 0.3, 1e-9);
  const auto holes = named(rig, "holes", {s.name(), "0.012", "0.015"});
  ASSERT_TRUE(holes) << holes.error().text();
  EXPECT_EQ(holes->rig.linkage(s)->arm_m, 0.012);
  EXPECT_EQ(holes->rig.linkage(s)->horn_m, 0.015);
  const auto read = named(rig, "reading", {"pitch", "1990", "1508", "1010"});
  ASSERT_TRUE(read) << read.error().text();
  const Channel& c = *read->rig.channel(ChannelFunction::pitch);
  EXPECT_EQ(c.low_us, 1010);
  EXPECT_EQ(c.centre_us, 1508);
  EXPECT_EQ(c.high_us, 1990);
  EXPECT_TRUE(c.inverted) << "it fell where it should rise";
  EXPECT_FALSE(named(rig, "reading", {"pitch", "1500", "1501", "1502"})) << "it was not moved";
  EXPECT_FALSE(named(rig, "reading", {"flap", "1000", "1500", "2000"}));
}

TEST(Edit, APartIsPutTurnedAndGivenASurface) {
  const Rig rig = demo("hedgerow");
  const auto words = [&](const char* name, const std::vector<std::string>& given) {
    for (const EditEntry& e : all_edits())
      if (e.name == name) return e.apply(rig, shipped(), given);
    return Result<Edit>(failure(name, "is no edit", ""));
  };
  const std::string part = rig.parts.front().id;
  const auto moved = words("place", {part, "0.31", "-0.02", "0.01"});
  ASSERT_TRUE(moved) << moved.error().text();
  EXPECT_EQ(moved->rig.mounting(part)->x_m, -0.31) << "behind the nose counts backward";
  EXPECT_EQ(moved->rig.mounting(part)->y_m, -0.02);
  EXPECT_FALSE(words("place", {part, "40", "0", "0"})) << "twice the largest model that is known here";
  EXPECT_FALSE(words("place", {part, "here", "0", "0"}));
  EXPECT_FALSE(words("place", {"nobody", "0.3", "0", "0"}));
  const auto turned = words("turn", {"controller", "arrow_right_top_up"});
  ASSERT_TRUE(turned);
  EXPECT_EQ(turned->rig.mounting("controller")->turn.name(), "arrow_right_top_up");
  EXPECT_FALSE(words("turn", {"controller", "sideways"}));
  std::string servo;
  for (const Part& p : rig.parts)
    if (p.surface) servo = p.id;
  ASSERT_FALSE(servo.empty());
  EXPECT_FALSE(words("works", {servo, "nothing"})->rig.part(servo)->surface);
  EXPECT_FALSE(words("works", {servo, "spoiler"}));
  Mounting askew = *rig.mounting("controller");
  askew.roll_deg = 25;
  const auto refused = put_part(rig, shipped(), askew);
  ASSERT_FALSE(refused);
  EXPECT_NE(refused.error().text().find("-20 to 20"), std::string::npos) << refused.error().text();
}

TEST(Edit, AChannelGetsItsFunctionAndIsAddedWhenItIsNotThere) {
  const Rig rig = demo("hedgerow");
  const auto words = [&](const std::vector<std::string>& given) {
    for (const EditEntry& e : all_edits())
      if (e.name == "channel") return e.apply(rig, shipped(), given);
    return Result<Edit>(failure("channel", "is no edit", ""));
  };
  const auto made = words({"16", "flap"});
  ASSERT_TRUE(made) << made.error().text();
  EXPECT_EQ(made->rig.radio.channels.back().number, 16);
  EXPECT_EQ(made->rig.radio.channels.back().function, ChannelFunction::flap);
  EXPECT_FALSE(words({"0", "flap"}));
  EXPECT_FALSE(words({"3.5", "flap"}));
  EXPECT_FALSE(words({"3", "horn"}));
}

TEST(Edit, TheFitIsMeasuredWithADateThatIsOne) {
  const Rig rig = demo("hedgerow");
  Fit fit = rig.fit;
  fit.date = "2027-02-30";
  EXPECT_FALSE(measure_fit(rig, fit));
  fit.date = "2027-02-28";
  EXPECT_TRUE(measure_fit(rig, fit));
  fit.bay = Bay{};
  fit.bay->width_m = 0;
  EXPECT_FALSE(measure_fit(rig, fit));
}

/// Common practice: a function that is reversed on the board leaves the plan as it is; the plan's own sign can only be
/// turned where no output shares it with another command.
TEST(Edits, AFunctionIsTurnedOnlyWhereItStandsAlone) {
  const Rig wing = fresh_rig("wing", AirframeKind::flying_wing, "fixed_wing");
  for (const Axis axis : {Axis::roll, Axis::pitch}) {
    const auto refused = reverse_axis(wing, axis);
    ASSERT_FALSE(refused);
    EXPECT_NE(refused.error().what.find("mixed"), std::string::npos);
  }
  const Rig plain = fresh_rig("plain", AirframeKind::two_ailerons, "gesture_board");
  const auto turned = reverse_axis(plain, Axis::roll);
  ASSERT_TRUE(turned);
  for (std::size_t i = 0; i < plain.outputs.size(); ++i) {
    EXPECT_EQ(turned->rig.outputs[i].mix.roll, -plain.outputs[i].mix.roll);
    EXPECT_EQ(turned->rig.outputs[i].mix.pitch, plain.outputs[i].mix.pitch);
  }
  EXPECT_FALSE(reverse_axis(fresh_rig("v", AirframeKind::flying_wing, "fixed_wing"), Axis::yaw)) << "nothing yaws";
}

}  // namespace
}  // namespace rigging
