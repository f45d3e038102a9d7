#include "begin/class_choice.h"

#include <gtest/gtest.h>

#include <random>

#include "airframe/edits.h"
#include "airframe/kinds.h"
#include "airframe/planform.h"
#include "base/fields.h"
#include "begin/begin.h"
#include "bench_rig.h"
#include "home/modes.h"
#include "review/review.h"
#include "wiring/plan.h"
#include "wiring/routing.h"

namespace rigging {
namespace {

bool has_snag(const Rig& rig, std::string_view code) {
  const Review r = review(rig, shipped());
  return std::any_of(r.snags.begin(), r.snags.end(), [&](const Snag& s) { return s.code == code; });
}

Rig begun(AirframeKind kind, const std::string& controller, Motors motors = Motors::one,
          PropellerSide side = PropellerSide::usual, bool joined = false) {
  NewAircraft b;
  b.name = "T", b.kind = kind, b.controller = controller, b.motors = motors, b.propeller = side;
  b.ailerons_joined = joined, b.span_m = 1.2;
  b.drive = drive_in_words(shipped(), "2212 1000 kV, 9 x 6, 3S 2200, 30 A").kinds;
  b.servo = "servo_9g_analogue";
  b.receiver = usual_receiver(shipped(), controller);
  const auto edit = begin_rig(shipped(), b);
  EXPECT_TRUE(edit) << controller << ": " << (edit ? "" : edit.error().text());
  return edit ? edit->rig : Rig{};
}

std::string receiver_of(const Rig& rig) {
  for (const Part& p : rig.parts)
    if (const PartKind* k = shipped().part(p.kind); k && k->group == PartGroup::receiver) return k->id;
  return {};
}

const Lead* at_socket(const Rig& rig, const std::string& socket) {
  for (const Lead& l : rig.leads)
    for (const LeadEnd* end : {&l.from, &l.to})
      if (end->part == "controller" && end->socket == socket) return &l;
  return nullptr;
}

// Every kind on every class, with motor and propeller drawn: it is begun, saved and read again as it was, what moves
// has one output, and what the drawing shows of the propeller is what was said.
TEST(ClassChoice, EveryKindOnEveryClassIsBegun) {
  std::mt19937 random(34);
  for (const auto& [kind, name] : Names<AirframeKind>::list)
    for (const ControllerClass& c : shipped().controllers) {
      const auto motors = static_cast<Motors>(random() % 3);
      const auto side = static_cast<PropellerSide>(random() % 3);
      const Rig rig = begun(kind, c.id, motors, side, random() % 2 == 0);
      const std::string what = std::string(name) + " on " + c.id;
      for (const Surface s : surfaces_of(rig.airframe)) {
        const auto serves = std::count_if(rig.outputs.begin(), rig.outputs.end(), [&](const Output& o) {
          return std::find(o.surfaces.begin(), o.surfaces.end(), SurfaceName(s)) != o.surfaces.end();
        });
        EXPECT_EQ(serves, 1) << what << " " << s.name();
      }
      const std::string text = rig_text(rig);
      const auto again = rig_from_text(text, what);
      ASSERT_TRUE(again) << what << ": " << again.error().text();
      EXPECT_EQ(*again, rig) << what;
      if (kind == AirframeKind::towed_glider) continue;
      double hub_x = 0;
      for (const Panel& p : aircraft_panels(rig.airframe))
        if (p.part == Panel::Part::propeller) hub_x = p.hinge_a.x();
      const double middle = -rig.airframe.wing_at_m - 0.5 * rig.airframe.root_chord_m;
      if (side != PropellerSide::usual) EXPECT_EQ(hub_x < middle, side == PropellerSide::pusher) << what;
    }
}

// A class that never hears the throttle gets a receiver with outputs, a lead for each of its two switches, one switch
// that gives off, rate, rate and levelling, and nothing that would arm.
TEST(ClassChoice, AScreenBoardIsBegunWithBothSwitchLeads) {
  const Rig rig = begun(AirframeKind::two_ailerons, "screen_keys");
  EXPECT_EQ(receiver_of(rig), "receiver_pulse");
  for (const char* socket : {"in_ail", "in_ele", "in_rud", "in_thr", "in_aux1"})
    EXPECT_TRUE(at_socket(rig, socket)) << socket;
  EXPECT_FALSE(has_snag(rig, "WIRING-39"));
  const ModeDeck deck = mode_deck(rig, shipped());
  std::vector<std::string> modes;
  for (const ModeCase& c : deck.cases) {
    modes.push_back(c.mode);
    EXPECT_LE(c.moves_to_manual, 1) << c.mode;
  }
  EXPECT_EQ(modes, (std::vector<std::string>{"manual", "rate", "level"}))
      << "one switch: levelling without rate never comes";
  EXPECT_EQ(shipped().controller("screen_keys")->sticks.arms_by, ArmsBy::nothing);
  // Without its lead it never levels.
  Rig bare = rig;
  std::erase_if(bare.leads, [&](const Lead& l) { return l.id == at_socket(rig, "in_aux1")->id; });
  const Review r = review(bare, shipped());
  const auto snag = std::find_if(r.snags.begin(), r.snags.end(), [](const Snag& s) { return s.code == "WIRING-39"; });
  ASSERT_NE(snag, r.snags.end());
  EXPECT_NE(snag->what.find("levelling"), std::string::npos);
  ASSERT_TRUE(snag->fix);
  EXPECT_TRUE(at_socket(fixed_by(*snag->fix, bare), "in_aux1"));
}

TEST(ClassChoice, AGestureBoardMixesOnlyWithAProfile) {
  Rig rig = begun(AirframeKind::flying_wing, "gesture_board");
  EXPECT_TRUE(has_snag(rig, "SURFACES-21"));
  rig = proven(rig, {prepare_family, "profile"});
  EXPECT_FALSE(has_snag(rig, "SURFACES-21"));
  // Another airframe wants other mixes.
  const auto other = change_kind(rig, shipped(), AirframeKind::v_tail);
  ASSERT_TRUE(other);
  EXPECT_TRUE(has_snag(other->rig, "SURFACES-21"));
  const Rig plain = begun(AirframeKind::two_ailerons, "gesture_board");
  EXPECT_FALSE(has_snag(plain, "SURFACES-21"));
  for (const CheckStatus& c : check_statuses(plain, shipped())) {
    EXPECT_NE(c.id.subject, "profile");
    EXPECT_NE(c.id.family, level_stored.family) << "nothing is stored";
  }
}

// Its second receiver port may feed the rail from a regulator: the plan puts it there, and no rule complains of that.
TEST(ClassChoice, AGestureBoardIsFedThroughItsSecondReceiverPort) {
  NewAircraft b;
  b.name = "G", b.controller = "gesture_board", b.span_m = 1.2;
  b.drive = drive_in_words(shipped(), "2212 1000 kV, 9 x 6, 3S 2200, 30 A").kinds;
  b.servo = "servo_9g_analogue", b.receiver = usual_receiver(shipped(), "gesture_board");
  b.others = parts_in_words(shipped(), "5 V 3 A regulator");
  const auto edit = begin_rig(shipped(), b);
  ASSERT_TRUE(edit);
  ASSERT_TRUE(at_socket(edit->rig, "small_2"));
  EXPECT_FALSE(has_snag(edit->rig, "WIRING-24"));
  // No unit between receiver and servos has a switch for its mode.
  EXPECT_FALSE(begun(AirframeKind::two_ailerons, "inline_dial").channel(ChannelFunction::mode));
}

TEST(ClassChoice, AileronsAndElevatorAloneWithOneMotorOrTwo) {
  const Rig one = begun(AirframeKind::aileron_elevator, "full_controller", Motors::one, PropellerSide::usual, true);
  ASSERT_EQ(one.outputs.size(), 3u) << "ailerons joined, elevator, motor";
  EXPECT_EQ(one.outputs[0].surfaces.size(), 2u);
  const Rig two = begun(AirframeKind::aileron_elevator, "full_controller", Motors::two_steering);
  double left = 0, right = 0;
  for (const Output& o : two.outputs)
    if (!o.surfaces.empty() && o.surfaces[0].kind == SurfaceKind::motor)
      (o.surfaces[0].side == Side::left ? left : right) = o.mix.yaw;
  EXPECT_GT(left, 0) << "right yaw speeds the left motor up";
  EXPECT_LT(right, 0);
}

TEST(ClassChoice, AYLeadWithAnyTail) {
  for (const AirframeKind kind : {AirframeKind::v_tail, AirframeKind::inverted_v_tail, AirframeKind::canard,
                                  AirframeKind::tailerons, AirframeKind::motor_glider}) {
    const Rig apart = fresh_rig("Y", kind, "full_controller");
    const auto joined = join_ailerons(apart, shipped(), true);
    ASSERT_TRUE(joined);
    EXPECT_EQ(joined->rig.outputs.size() + 1, apart.outputs.size());
    const auto back = join_ailerons(joined->rig, shipped(), false);
    ASSERT_TRUE(back);
    EXPECT_EQ(back->rig.outputs.size(), apart.outputs.size());
  }
  EXPECT_FALSE(join_ailerons(fresh_rig("W", AirframeKind::flying_wing, "full_controller"), shipped(), true));
}

// Worked out by hand from the rig: plain surfaces keep the channel of their command, each tail half one that no channel
// of the rig has, and the old elevator channel is free.
TEST(Routing, MixedHalvesGetChannelsOfTheirOwnAndFreeTheElevators) {
  const Rig rig = begun(AirframeKind::v_tail, "radio_stabilizer");
  const Routing r = routing_of(rig, shipped());
  std::vector<int> channels;
  for (const RouteLine& l : r.lines) channels.push_back(l.channel);
  EXPECT_EQ(channels, (std::vector<int>{1, 1, 6, 7, 3}));
  EXPECT_EQ(r.freed, 2);
  EXPECT_TRUE(r.clashes.empty());
  const Routing canards = routing_of(begun(AirframeKind::tailerons_canards, "radio_stabilizer"), shipped());
  EXPECT_EQ(canards.freed, 0) << "the canards have it";
  ASSERT_TRUE(canards.roll_percent);
  EXPECT_NEAR(*canards.roll_percent, 25, 1e-9);
  EXPECT_TRUE(routing_of(begun(AirframeKind::v_tail, "full_controller"), shipped()).lines.empty());
  Rig clash = rig;
  clash.outputs[1].socket = clash.outputs[0].socket;
  EXPECT_EQ(routing_of(clash, shipped()).clashes.size(), 1u);
  Rig few = rig;
  few.radio.transmitter.channels = 6;
  EXPECT_EQ(routing_of(few, shipped()).clashes.size(), 1u) << "the seventh channel is not there";
  EXPECT_TRUE(has_snag(few, "WIRING-40"));
}

// The percentage is of the aileron throw (common practice): 50 % is half as far as the ailerons for the same stick.
TEST(Routing, TheTailsShareIsOfTheAilerons) {
  Rig rig = fresh_rig("T", AirframeKind::tailerons, "radio_stabilizer");
  const auto set = [&](double roll) {
    for (Output& o : rig.outputs)
      if (!o.surfaces.empty() && o.surfaces[0].kind == SurfaceKind::taileron)
        o.mix.roll = std::copysign(roll, o.mix.roll);
  };
  set(0.5);
  EXPECT_FALSE(has_snag(rig, "SURFACES-17")) << "of pitch it would be two thirds";
  set(0.7);
  EXPECT_TRUE(has_snag(rig, "SURFACES-17"));
}

TEST(ClassChoice, ClassesStandSideBySideForThisAircraft) {
  const Rig rig = demo("hedgerow");
  const auto all = class_choices(rig, shipped());
  ASSERT_EQ(all.size(), shipped().controllers.size());
  const auto of = [&](const char* id) {
    return *std::find_if(all.begin(), all.end(), [&](const ClassChoice& c) { return c.id == id; });
  };
  EXPECT_TRUE(of("full_controller").now);
  EXPECT_TRUE(of("full_controller").drives);
  EXPECT_FALSE(of("fixed_wing").drives) << "it mixes two elevons";
  EXPECT_FALSE(of("gesture_board").drives) << "not as it comes";
  const auto says = [](const std::vector<std::string>& lines, const char* what) {
    return std::any_of(lines.begin(), lines.end(),
                       [&](const std::string& l) { return l.find(what) != std::string::npos; });
  };
  EXPECT_TRUE(says(of("pc_mini").lost, "come home"));
  EXPECT_FALSE(says(of("small_controller").lost, "come home"));
  EXPECT_NE(of("small_controller").senses.find("without vibration isolation"), std::string::npos);
  EXPECT_TRUE(says(of("screen_keys").work, "rogramming adapter"));
}

TEST(Leaflet, AnExampleIsSaidAsOneUntilItIsLookedUp) {
  ControllerClass c = *shipped().controller("fixed_mini");
  const std::string example = c.with_leaflet("roll {leaflet:roll_presses}, pitch {leaflet:pitch_presses}");
  EXPECT_NE(example.find("an example"), std::string::npos);
  for (LeafletValue& v : c.leaflet) v.looked_up = true;
  EXPECT_EQ(c.with_leaflet("roll {leaflet:roll_presses}"), "roll " + c.leaflet.front().value);
  // Another unit listens on another channel: written into My board it is said everywhere.
  c.sticks.unlock_channel = 8;
  EXPECT_NE(c.with_leaflet(c.sticks.arming).find("Channel 8 unlocks"), std::string::npos);
  c.sticks.unlock_channel = 0;
  EXPECT_NE(c.with_leaflet(c.sticks.arming).find("Channel of your choice unlocks"), std::string::npos);
  // No text of a class is left with a place that nothing fills.
  for (const ControllerClass& each : shipped().controllers) {
    const std::string all = each.with_leaflet(write_fields(each).dump());
    EXPECT_EQ(all.find("{leaflet:"), std::string::npos) << each.id;
    EXPECT_EQ(each.with_leaflet(each.sticks.arming).find("_channel}"), std::string::npos) << each.id;
  }
}

}  // namespace
}  // namespace rigging
