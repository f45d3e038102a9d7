#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "base/units.h"
#include "fit/edits.h"
#include "home/edits.h"
#include "home/modes.h"
#include "home/triggers.h"
#include "power/measuring.h"
#include "power/network.h"
#include "review/deferred.h"
#include "review/rules.h"
#include "senses/inventory.h"
#include "wiring/edits.h"

namespace rigging {
namespace rules::home {
namespace {

/// What the worker has found of it; rules of the second tier are asked only when it is there.
const HomeReport& home(const Inspection& in) { return in.deferred->home; }

/// Without the flying aircraft nothing can be said of its way home.
template <void (*rule)(const Inspection&, Findings&)>
void where_known(const Inspection& in, Findings& found) {
  if (home(in).missing.empty()) rule(in, found);
}

void undecided(const Inspection& in, Findings& found) {
  if (!home(in).can_act || in.rig.home.on_loss != LossAction::undecided) return;
  Snag& n = found.add(Severity::fix_first, "home", "What happens when the link goes is not decided",
                      std::string("The controller then does what it came with, and nobody knows what that is.") +
                          (std::any_of(in.rig.modes.begin(), in.rig.modes.end(),
                                       [](const ModeChoice& m) {
                                         const auto mode = from_name<Mode>(m.mode);
                                         return mode && keeps_height(*mode);
                                       })
                               ? " From a mode that keeps the height it may fly on, level, until the battery is empty."
                               : ""),
                      "Choose it at station home.");
  if (home(in).knows_place)
    n.fix = sets("Let it come home", {{"home/on_loss", std::string(name_of(LossAction::come_home))}});
}

void does_not_know_where(const Inspection& in, Findings& found) {
  const LossAction planned = in.rig.home.on_loss;
  if (planned != LossAction::circle && planned != LossAction::come_home) return;
  if (home(in).knows_place) return;
  Snag& n = found.add(Severity::fix_first, "home",
                      home(in).can_act ? "Planned to find home without a satellite receiver"
                                       : "Planned to find home with a class that can't",
                      home(in).can_act ? "It does not know where it is, and many boards refuse to arm then."
                                       : "It does nothing of its own when the link goes.",
                      home(in).can_act ? "Fit a satellite receiver, or let it glide down where it is."
                                       : "Store throttle closed and a mode that levels in the receiver.");
  if (home(in).can_act) n.fix = sets("Let it glide down", {{"home/on_loss", std::string(name_of(LossAction::glide))}});
}

void too_windy(const Inspection& in, Findings& found) {
  if (!home(in).knows_place || in.rig.home.on_loss == LossAction::glide) return;
  if (!home(in).blown_away()) return;
  const double wind = in.rig.home.wind_m_s, cruise = home(in).performance.cruise_m_s.expected;
  found.add(Severity::fix_first, "wind",
            "The planned wind of " + speed_text(wind) + " is as fast as it cruises (" + speed_text(cruise) + ")",
            "It can't come home against it, nor hold a place.", "Wait for less wind, or set a faster cruise.");
}

void too_low(const Inspection& in, Findings& found) {
  const HomeReport& r = home(in);
  if (r.clears()) return;
  const double height = std::ceil(r.least_height_m / 5) * 5;
  Snag& n = found.add(Severity::fix_first, "height",
                      "The return height of " + field_text(r.return_height_m) + " does not clear what stands near by",
                      field_text(r.least_height_m) + " clears all of it by " + field_text(clears_by_m) + ".",
                      "Set the return height to " + field_text(height) + ", if the rules of the place allow that.");
  n.fix = sets("Set the return height to " + field_text(height), {{"home/return_height_m", height}});
}

void threshold(const Inspection& in, Findings& found) {
  const HomeReport& r = home(in);
  if (!r.area_holds()) return;
  const std::optional<double>& set = in.rig.home.turn_home_v;
  if (set && r.in_time(*set)) return;
  const double volts = std::ceil(r.turn_home_v->value * 10) / 10;
  const std::string at = number_text(volts, 1) + " V";
  Snag& n = found.add(set ? Severity::fix_first : Severity::worth_knowing, "threshold",
                      set ? "At " + number_text(*set, 1) + " V it is too late to turn home from the edge of the area"
                          : "No voltage is set at which it turns home",
                      "Against the wind it takes " + number_text(r.turn_home_mah->value, 0) +
                          " mAh with the reserve, which is " + at + " under load.",
                      "Set " + at + ", or fly less far.");
  n.fix = sets("Turn home at " + at, {{"home/turn_home_v", volts}});
}

void beyond_reach(const Inspection& in, Findings& found) {
  const HomeReport& r = home(in);
  if (!in.rig.home.area_m || r.blown_away()) return;
  if (r.surely_out_and_back_m >= *in.rig.home.area_m) return;
  found.add(Severity::fix_first, "area",
            "Out to " + field_text(*in.rig.home.area_m) + " and back is more than a full battery surely gives",
            "With the reserve kept, against gusts and with an aged battery it is " +
                field_text(r.surely_out_and_back_m) + ".",
            "Fly less far, in less wind, or with more charge.");
}

void circle(const Inspection& in, Findings& found) {
  const HomeReport& r = home(in);
  if (!in.rig.home.circle_radius_m || in.rig.home.on_loss != LossAction::come_home) return;
  if (r.circle_holds()) return;
  const double radius = std::ceil(r.least_circle_m / 5) * 5;
  Snag& n = found.add(Severity::worth_knowing, "circle",
                      "A circle of " + field_text(*in.rig.home.circle_radius_m) + " is too tight for this wind",
                      "Where it flies with the wind it would have to bank more than " +
                          number_text(r.performance.bank_deg, 0) + "°: it drifts out.",
                      "A radius of " + field_text(radius) + " can be held.");
  n.fix = sets("Circle at " + field_text(radius), {{"home/circle_radius_m", radius}});
}

void not_looked_up(const Inspection& in, Findings& found) {
  if (in.rig.home.on_loss == LossAction::undecided || !in.rig.home.looked_up.empty()) return;
  found.add(Severity::worth_knowing, "rules", "That the rules of the place were looked up is not written down",
            "Where and how high one may fly is the law of the place and the club's, and not Rigging's to say.",
            "Look them up, ask the club, and write down at station home what you found.");
}

void checks_off(const Inspection& in, Findings& found) {
  if (in.rig.home.checks_before_arming || !in.controller || !in.controller->home.checks_before_arming) return;
  Snag& n = found.add(Severity::grounds, "arming", "The checks before arming are switched off",
                      "It would arm with a sick sensor, without a position, with a mode that flies by itself.",
                      "Switch them on again, and write that to the board.");
  n.fix = sets("Switch the checks on", {{"home/checks_before_arming", true}});
}

/// What station sticks does not tell of the switches.
void switches(const Inspection& in, Findings& found) {
  std::vector<std::string> words;
  int channel = 0;
  for (const ModeFinding& f : mode_deck(in.rig, in.catalogue).findings)
    if (f.trouble == ModeTrouble::unreachable || f.trouble == ModeTrouble::overlapping ||
        f.trouble == ModeTrouble::not_of_class) {
      words.push_back(f.words);
      if (channel == 0) channel = f.channel;
    }
  if (words.empty()) return;
  std::string what = words.front(), more;
  if (what.ends_with('.')) what.pop_back();
  for (std::size_t i = 1; i < words.size(); ++i) more += (more.empty() ? "" : " ") + words[i];
  found.add(Severity::fix_first, "channel " + std::to_string(channel), what,
            more.empty() ? "In flight a hand finds a switch, and not a plan." : more,
            in.controller && !in.controller->home.on_loss.empty()
                ? "Station home, Switches: lay out the first flight, or put the range where a position is."
                : "Put the range where a position of the switch is, or measure its positions at station sticks.");
}

/// What is left open is worked out here and told to nobody: the board does then what it came with.
void left_open(const Inspection& in, Findings& found) {
  const Home& h = in.rig.home;
  if (h.on_loss != LossAction::come_home || !home(in).knows_place || home(in).blown_away()) return;
  if (h.return_height_m && h.circle_radius_m) return;
  const double height = std::ceil(home(in).return_height_m / 5) * 5,
               radius = std::ceil(home(in).circle_radius_m / 5) * 5;
  const std::string set = (h.return_height_m ? std::string() : "height " + field_text(height)) +
                          (h.return_height_m || h.circle_radius_m ? "" : ", ") +
                          (h.circle_radius_m ? std::string() : "circle " + field_text(radius));
  Snag& n = found.add(h.return_height_m || home(in).least_height_m <= 0 ? Severity::worth_knowing : Severity::fix_first,
                      "left open",
                      std::string("The ") +
                          (h.return_height_m   ? "circle at home is"
                           : h.circle_radius_m ? "height of the way home is"
                                               : "height of the way home and the circle are") +
                          " left open",
                      "What is worked out here is not written to the board: it takes what it came with.",
                      "Set what is needed: " + set + ", if the rules of the place allow it.");
  std::vector<PlacedValue> open;
  if (!h.return_height_m) open.emplace_back("home/return_height_m", height);
  if (!h.circle_radius_m) open.emplace_back("home/circle_radius_m", radius);
  n.fix = sets("Set " + set, open);
}

void triggers(const Inspection& in, Findings& found) {
  if (!in.controller) return;
  for (const TriggerFinding& f : judge_triggers(in.rig, *in.controller, home(in))) {
    std::string what = f.words;
    if (what.ends_with('.')) what.pop_back();
    Snag& n = found.add(f.gives_up ? Severity::fix_first : Severity::worth_knowing, std::string(name_of(f.on)), what,
                        "It acts by itself, and nobody can stop it while the link is gone.", f.remedy);
    const auto can = trigger_choices(f.on, *in.controller, home(in));
    const TriggerChoice* now = trigger_choice(in.rig.home, f.on);
    if (!can.empty() && now && std::find(can.begin(), can.end(), now->does) == can.end())
      n.fix = Fix{"Let it do what works: it " + action_spoken(can.front()),
                  [on = f.on, does = can.front(), at = now->at](const Rig& rig, const Catalogue&) {
                    return set_trigger(rig, on, does, at);
                  }};
  }
}

void throttle(const Inspection& in, Findings& found) {
  const std::optional<double>& set = in.rig.home.cruise_throttle;
  if (!set) return;
  const double needed = home(in).performance.cruise_throttle;
  if (*set >= needed - (in.rig.power.cruise_throttle ? 0.03 : throttle_band)) return;
  Snag& n = found.add(
      Severity::fix_first, "throttle", "With " + number_text(100 * *set, 0) + " % throttle it sinks on its way home",
      (in.rig.power.cruise_throttle ? "In level flight " : "By its drag it takes some ") +
          number_text(100 * needed, 0) + (in.rig.power.cruise_throttle ? " % were noted." : " % to hold its height."),
      "Fly it by hand, note the throttle that holds height (station power), and take that.");
  n.fix =
      sets("Take " + number_text(100 * needed, 0) + " %", {{"home/cruise_throttle", std::round(100 * needed) / 100}});
}

void tow_release_open(const Inspection& in, Findings& found) {
  if (!in.rig.release || in.rig.home.opens_tow || !home(in).can_act) return;
  found.add(Severity::worth_knowing, "tow release", "What the tow release does when the link goes is not decided",
            "On a line the one or the other may be what saves both.", "Decide it with whoever tows: station home.");
}

/// A threshold that nobody can know to be reached.
void unmeasured(const Inspection& in, Findings& found) {
  const Home& h = in.rig.home;
  const bool acts = std::any_of(h.triggers.begin(), h.triggers.end(),
                                [](const TriggerChoice& t) { return t.on == HomeTrigger::low_battery; });
  if ((!h.turn_home_v && !acts) || !in.controller || battery_measured(in.rig, in.catalogue)) return;
  // In another socket than its own: WIRING-13 says that.
  const auto sense_lead = [&](const Lead& l) {
    const Terminal *a = terminal_of(in.rig, in.catalogue, l.from), *b = terminal_of(in.rig, in.catalogue, l.to);
    return (a && a->kind == TerminalKind::sense_output) || (b && b->kind == TerminalKind::sense_output);
  };
  if (std::any_of(in.rig.leads.begin(), in.rig.leads.end(), sense_lead)) return;
  const std::string what = h.turn_home_v ? "turning home at " + number_text(*h.turn_home_v, 1) + " V is a wish"
                                         : "acting on a low battery is a wish";
  if (!can_measure_battery(*in.controller)) {
    found.add(Severity::worth_knowing, "battery", "This class does not measure the battery: " + what,
              "Nothing on board tells the voltage, and nothing turns home by itself.",
              "A receiver that sends the voltage down, or a timer; land by it.");
    return;
  }
  const Terminal* pad = alarm_pad(*in.controller);
  Snag& n = found.add(Severity::fix_first, "battery", "Nothing measures the battery: " + what,
                      pad ? "No lead is soldered to “" + pad->label + "”."
                          : "No lead ends in the socket for measuring; in another one the voltage reads zero.",
                      pad ? "Solder the alarm lead from the battery's plug."
                          : "A measuring lead between battery and speed controller, in its own socket.");
  n.fix =
      Fix{pad ? "Plan the alarm lead" : "Add a measuring lead, and plan it",
          [](const Rig& rig, const Catalogue& catalogue) -> Result<Edit> {
            Rig with = rig;
            const auto measures = [&](const Part& p) {
              const PartKind* k = catalogue.part(p.kind);
              return k && k->group == PartGroup::power_module;
            };
            const ControllerClass* c = catalogue.controller(rig.controller.kind);
            const bool needs_part = c && !alarm_pad(*c) && std::none_of(rig.parts.begin(), rig.parts.end(), measures);
            std::string label = "The battery is measured";
            if (needs_part) {
              const auto kind = std::find_if(catalogue.parts.begin(), catalogue.parts.end(),
                                             [](const PartKind& k) { return k.group == PartGroup::power_module; });
              if (kind == catalogue.parts.end())
                return failure("measuring lead", "is no part that is known", "one of the catalogue");
              auto added = add_part(with, catalogue, "sense_lead");
              if (!added) added = add_part(with, catalogue, kind->id);
              if (!added) return added;
              with = std::move(added->rig);
            }
            auto planned = plan_all(with, catalogue);
            if (!planned) return planned;
            if (!battery_measured(planned->rig, catalogue))
              return failure("measuring lead", "finds no place in the wiring", "a battery and a free socket for it");
            planned->label = label;
            return planned;
          }};
}

/// A mode that keeps the height by a barometer, and none is there.
void no_height(const Inspection& in, Findings& found) {
  if (!in.controller || !sensor_part(in.rig, in.catalogue, Sensor::barometer).empty()) return;
  for (const ModeChoice& m : in.rig.modes)
    if (const auto mode = from_name<Mode>(m.mode); mode && keeps_height(*mode) && in.controller->mode(*mode)) {
      found.add(Severity::fix_first, "channel " + std::to_string(m.channel),
                "The mode " + label_of(m.mode) + " keeps the height, and nothing measures it",
                "Without a barometer it levels at best, and sinks or climbs as the throttle is.",
                "Choose level there, or a board with a barometer.");
      return;
    }
}

}  // namespace
}  // namespace rules::home

const std::vector<Rule>& home_rules() {
  using namespace rules::home;
  static const std::vector<Rule> rules{
      {"HOME-09", Station::home, checks_off, source::common},
      {"HOME-10", Station::home, switches, source::plan},
      {"HOME-15", Station::home, unmeasured, source::common},
      {"HOME-16", Station::home, no_height, source::board},
      {"HOME-01", Station::home, where_known<undecided>, source::plan, Tier::deferred},
      {"HOME-02", Station::home, where_known<does_not_know_where>, source::board, Tier::deferred},
      {"HOME-03", Station::home, where_known<too_windy>, source::triangle, Tier::deferred},
      {"HOME-04", Station::home, where_known<too_low>, source::geometry, Tier::deferred},
      {"HOME-05", Station::home, where_known<threshold>, source::triangle, Tier::deferred},
      {"HOME-06", Station::home, where_known<beyond_reach>, source::triangle, Tier::deferred},
      {"HOME-07", Station::home, where_known<circle>, source::turn, Tier::deferred},
      {"HOME-14", Station::home, where_known<left_open>, source::plan, Tier::deferred},
      {"HOME-11", Station::home, where_known<triggers>, source::triangle, Tier::deferred},
      {"HOME-12", Station::home, where_known<throttle>, source::triangle, Tier::deferred},
      {"HOME-13", Station::home, where_known<tow_release_open>, source::common, Tier::deferred},
      {"HOME-08", Station::home, where_known<not_looked_up>, source::common, Tier::deferred}};
  return rules;
}

}  // namespace rigging
