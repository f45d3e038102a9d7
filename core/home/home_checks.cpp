#include "home/home_checks.h"

#include <algorithm>

#include "base/number.h"
#include "home/arming.h"
#include "home/modes.h"
#include "rig/path.h"
#include "sticks/sticks.h"

namespace rigging {
namespace {

using Places = std::vector<std::string>;

Places once(bool needed) { return needed ? Places{""} : Places{}; }

bool acts(const CheckContext& in) { return in.controller && !in.controller->home.on_loss.empty(); }

void add_kinds(const CheckContext& in, PartGroup group, Places& places) {
  for (const Part* p : parts_of(in.rig, in.catalogue, group)) places.push_back(path_of({"parts", p->id, "kind"}));
}

Places class_places() { return {"controller/kind", "controller/firmware"}; }

void add_modes(const CheckContext& in, Places& places) {
  for (const ModeChoice& m : in.rig.modes)
    for (const char* member : {"channel", "from_us", "to_us"}) places.push_back(path_of({"modes", m.mode, member}));
}

// With the transmitter off
Places loss_places(const CheckContext& in, const std::string&) {
  Places all = class_places();
  for (const char* place : {"home/on_loss", "home/loss_hold_s", "radio/on_loss"}) all.emplace_back(place);
  add_kinds(in, PartGroup::receiver, all);
  return all;
}

std::string loss_stands_in_the_way(const CheckContext& in, const std::string&) {
  if (in.rig.home.on_loss == LossAction::undecided) return "what it does when the link goes is not decided";
  if (in.rig.radio.on_loss == OnLoss::hold) return "the receiver repeats its last values and hides the loss";
  return {};
}

CheckCard loss_card(const CheckContext& in, const std::string&) {
  CheckCard card;
  card.title = "Transmitter off: it does what is planned";
  const double after = in.controller ? in.controller->home.notices_after_s + in.rig.home.loss_hold_s : 0;
  card.todo = "Propeller off, battery in, a mode that levels. Transmitter off; after " + number_text(after, 1) +
              " s tilt the model, right wing down, then nose up. Transmitter on again.";
  card.expected = bench_words(in.rig.home.on_loss);
  card.how = "With the transmitter on again it is yours, in the mode of the switch: look at that too.";
  card.cautions = {"Propeller off. Hold the model where nothing can catch the surfaces or the shaft."};
  return card;
}

// Every switch in every position
bool switches_choose(const CheckContext& in) {
  return in.controller && in.controller->home.fixed_modes.empty() && !in.rig.modes.empty();
}

Places position_places(const CheckContext& in, const std::string&) {
  Places all = class_places();
  add_modes(in, all);
  for (const Channel& c : in.rig.radio.channels)
    if (std::any_of(in.rig.modes.begin(), in.rig.modes.end(),
                    [&](const ModeChoice& m) { return m.channel == c.number; }))
      for (const char* member : {"function", "reversed"})
        all.push_back(path_of({"radio", "channels", std::to_string(c.number), member}));
  return all;
}

std::string positions_stand_in_the_way(const CheckContext& in, const std::string&) {
  const ModeDeck deck = mode_deck(in.rig, in.catalogue);
  for (const ModeFinding& f : deck.findings) {
    if (f.trouble == ModeTrouble::no_manual || f.trouble == ModeTrouble::far_from_manual) continue;  // a choice
    std::string words = f.words;
    while (!words.empty() && words.back() == '.') words.pop_back();
    return small(words);
  }
  return {};
}

CheckCard positions_card(const CheckContext& in, const std::string&) {
  CheckCard card;
  card.title = "Every position gives its mode";
  std::string wanted;
  for (const SwitchLine& s : mode_deck(in.rig, in.catalogue).switches)
    for (const SwitchPosition& p : s.positions)
      if (!p.mode.empty())
        wanted += (wanted.empty() ? "" : ", ") + ("channel " + std::to_string(s.channel)) + " at " +
                  number_text(p.pulse_us, 0) + " µs " + p.mode;
  card.todo = "Move every switch that chooses a mode through all of its positions, the others at rest, return last.";
  card.expected = "What the controller says: " + wanted + ".";
  card.how = "Back from return and from circle by one movement, without looking: that is the way out in the air.";
  card.cautions = {"Propeller off: some modes open the throttle by themselves."};
  return card;
}

// Arming
bool waits_for_place(const CheckContext& in) {
  return in.controller && in.controller->home.checks_before_arming && needs_place(in.rig);
}

Places arming_places(const CheckContext& in, const std::string&) {
  Places all = class_places();
  for (const char* place : {"home/on_loss", "home/checks_before_arming"}) all.emplace_back(place);
  add_kinds(in, PartGroup::satellite_receiver, all);
  return all;
}

std::string arming_stands_in_the_way(const CheckContext& in, const std::string&) {
  return in.rig.home.checks_before_arming ? "" : "the checks before arming are switched off";
}

CheckCard arming_card(const CheckContext&, const std::string&) {
  return {"It waits for its position before it arms",
          "",
          "Battery in where no sky is seen, or just after power-up: try to arm. Then under open sky, once it has its "
          "position: arm, and disarm.",
          "Refused first, for want of a position; then it arms.",
          "Home is where it was armed: indoors, or with a poor fix, it would be somewhere else.",
          {"Propeller off: from here on the motor can start."}};
}

bool has_button(const CheckContext& in) { return in.controller && in.controller->sticks.safety_button; }

Places button_places(const CheckContext&, const std::string&) { return class_places(); }

CheckCard button_card(const CheckContext&, const std::string&) {
  return {"The safety button guards the motor",
          "",
          "Everything ready to arm, the button not pressed: try to arm. Then press it and arm; disarm.",
          "Refused without the button; armed with it.",
          "It is within reach with the propeller on, from behind or from the side.",
          {"Propeller off: from here on the motor can start."}};
}

// Battery
bool warns(const CheckContext& in) {
  return in.controller && in.rig.home.turn_home_v &&
         std::find(in.controller->home.triggers.begin(), in.controller->home.triggers.end(),
                   HomeTrigger::low_battery) != in.controller->home.triggers.end();
}

Places battery_places(const CheckContext& in, const std::string&) {
  Places all = class_places();
  all.emplace_back("home/turn_home_v");
  add_kinds(in, PartGroup::battery, all);
  return all;
}

CheckCard battery_card(const CheckContext& in, const std::string&) {
  CheckCard card;
  const std::string at = in.rig.home.turn_home_v ? number_text(*in.rig.home.turn_home_v, 1) + " V" : "its voltage";
  card.title = "The low battery is reported";
  card.todo =
      "Compare the voltage that the controller reports with a meter at the battery's plug. Then put a used "
      "battery in, below " +
      at + " with the motor running, or feed it from a bench supply turned down to there.";
  card.expected = "Both agree within 0.1 V; below " + at + " it warns, in the goggles or by its tone.";
  card.how = "Without its own lead to the battery a controller reads zero and never warns.";
  card.cautions = {"Propeller off. A lithium battery is not emptied for this: stop at its lowest voltage under load."};
  return card;
}

// At a distance
bool has_radio(const CheckContext& in) { return !parts_of(in.rig, in.catalogue, PartGroup::receiver).empty(); }

Places range_places(const CheckContext& in, const std::string&) {
  Places all;
  for (const PartGroup group : {PartGroup::receiver, PartGroup::video_transmitter, PartGroup::satellite_receiver})
    for (const Part* p : parts_of(in.rig, in.catalogue, group)) {
      all.push_back(path_of({"parts", p->id, "kind"}));
      for (const char* member : {"x_m", "y_m", "z_m"}) all.push_back(path_of({"places", p->id, member}));
    }
  return all;
}

CheckCard range_card(const CheckContext& in, const std::string&) {
  CheckCard card;
  card.title = "Range with reduced power";
  const bool video = !parts_of(in.rig, in.catalogue, PartGroup::video_transmitter).empty();
  card.todo = std::string("Transmitter set to its reduced power, model a metre above the ground, everything on") +
              (video ? ", video too" : "") +
              ". Walk away as far as the transmitter's papers say. Turn the model all ways round, then the "
              "transmitter.";
  card.expected = "The surfaces follow the sticks without a gap, in every attitude.";
  card.how =
      "Where one attitude fails, an antenna's end points at you: set two at right angles to each other, away "
      "from carbon, leads, the video transmitter and the satellite receiver. Full power again afterwards.";
  card.cautions = {"Somebody holds the model: propeller off, or behind it with the motor locked."};
  return card;
}

CheckFamily of(const CheckId& id, const char* name, Places (*subjects)(const CheckContext&),
               Places (*depends_on)(const CheckContext&, const std::string&),
               CheckCard (*card)(const CheckContext&, const std::string&),
               std::string (*why_not)(const CheckContext&, const std::string&) = nullptr) {
  return {.id = id.family,
          .station = Station::proof,
          .counts_for = Station::home,
          .until_mounted = false,
          .grouped = true,
          .name = name,
          .one = "look",
          .many = "looks",
          .subjects = subjects,
          .depends_on = depends_on,
          .card = card,
          .why_not = why_not};
}

}  // namespace

std::string bench_words(LossAction action) {
  const std::string levels = "The motor stops, the controller reports the loss, and the surfaces work against the tilt";
  switch (action) {
    case LossAction::glide: return levels + ": it levels.";
    case LossAction::circle: return levels + ", with the wings toward a bank: it circles.";
    case LossAction::come_home:
      return levels + ", or toward a bank where it knows a home to turn to. On the ground the motor stays off.";
    case LossAction::undecided: break;
  }
  return "The motor stops, and the controller reports the loss.";
}

std::vector<CheckFamily> home_checks() {
  CheckFamily arming = of(
      arming_waits, "Position before arming", [](const CheckContext& in) { return once(waits_for_place(in)); },
      arming_places, arming_card, arming_stands_in_the_way);
  CheckFamily range = of(
      range_tested, "Range", [](const CheckContext& in) { return once(has_radio(in)); }, range_places, range_card);
  arming.outside = range.outside = true;
  return {
      of(
          positions_planned, "Positions and modes", [](const CheckContext& in) { return once(switches_choose(in)); },
          position_places, positions_card, positions_stand_in_the_way),
      of(
          loss_planned, "Transmitter off", [](const CheckContext& in) { return once(acts(in)); }, loss_places,
          loss_card, loss_stands_in_the_way),
      arming,
      of(
          button_guards, "Safety button", [](const CheckContext& in) { return once(has_button(in)); }, button_places,
          button_card),
      of(
          low_battery_warns, "Low battery", [](const CheckContext& in) { return once(warns(in)); }, battery_places,
          battery_card),
      range};
}

}  // namespace rigging
