#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "base/units.h"
#include "home/modes.h"
#include "home/triggers.h"
#include "review/deferred.h"
#include "review/rules.h"

namespace rigging {
namespace rules::home {
namespace {

struct HomeInspection {
  const Rig& rig;
  const HomeReport& report;
  const ControllerClass* controller;
};

Fix sets(const std::string& label, void (*put)(Home&, double), double value) {
  return {label, [put, value](const Rig& rig) {
            Rig r = rig;
            put(r.home, value);
            return r;
          }};
}

void undecided(const HomeInspection& in, std::vector<Snag>& snags) {
  if (!in.report.can_act || in.rig.home.on_loss != LossAction::undecided) return;
  Findings found("HOME-01", Station::home, source::plan, snags);
  Snag& n = found.add(Severity::fix_first, "home", "What happens when the link goes is not decided",
                      "The controller then does what it came with, and nobody knows what that is.",
                      "Choose it at station home.");
  if (in.report.knows_place)
    n.fix = Fix{"Let it come home", [](const Rig& rig) {
                  Rig r = rig;
                  r.home.on_loss = LossAction::come_home;
                  return r;
                }};
}

void does_not_know_where(const HomeInspection& in, std::vector<Snag>& snags) {
  const LossAction planned = in.rig.home.on_loss;
  if (planned != LossAction::circle && planned != LossAction::come_home) return;
  if (in.report.knows_place) return;
  Findings found("HOME-02", Station::home, source::board, snags);
  Snag& n = found.add(Severity::fix_first, "home",
                      in.report.can_act ? "Planned to find home without a satellite receiver"
                                        : "Planned to find home with a class that can't",
                      in.report.can_act ? "It does not know where it is, and many boards refuse to arm then."
                                        : "It does nothing of its own when the link goes.",
                      in.report.can_act ? "Fit a satellite receiver, or let it glide down where it is."
                                        : "Store throttle closed and a mode that levels in the receiver.");
  if (in.report.can_act)
    n.fix = Fix{"Let it glide down", [](const Rig& rig) {
                  Rig r = rig;
                  r.home.on_loss = LossAction::glide;
                  return r;
                }};
}

void too_windy(const HomeInspection& in, std::vector<Snag>& snags) {
  if (!in.report.knows_place || in.rig.home.on_loss == LossAction::glide) return;
  if (!in.report.blown_away()) return;
  const double wind = in.rig.home.wind_m_s, cruise = in.report.performance.cruise_m_s.expected;
  Findings found("HOME-03", Station::home, source::triangle, snags);
  found.add(Severity::fix_first, "wind",
            "The planned wind of " + speed_text(wind) + " is as fast as it cruises (" + speed_text(cruise) + ")",
            "It can't come home against it, nor hold a place.", "Wait for less wind, or set a faster cruise.");
}

void too_low(const HomeInspection& in, std::vector<Snag>& snags) {
  const HomeReport& r = in.report;
  if (r.clears()) return;
  Findings found("HOME-04", Station::home, source::geometry, snags);
  const double height = std::ceil(r.least_height_m / 5) * 5;
  Snag& n = found.add(Severity::fix_first, "height",
                      "The return height of " + field_text(r.return_height_m) + " does not clear what stands near by",
                      field_text(r.least_height_m) + " clears all of it by " + field_text(clears_by_m) + ".",
                      "Set the return height to " + field_text(height) + ", if the rules of the place allow that.");
  n.fix = sets(
      "Set the return height to " + field_text(height), [](Home& h, double v) { h.height_m = v; }, height);
}

void threshold(const HomeInspection& in, std::vector<Snag>& snags) {
  const HomeReport& r = in.report;
  if (!r.area_holds()) return;
  const std::optional<double>& set = in.rig.home.warn_v;
  if (set && r.in_time(*set)) return;
  const double volts = std::ceil(r.turn_home_v->value * 10) / 10;
  const std::string at = number_text(volts, 1) + " V";
  Findings found("HOME-05", Station::home, source::triangle, snags);
  Snag& n = found.add(set ? Severity::fix_first : Severity::worth_knowing, "threshold",
                      set ? "At " + number_text(*set, 1) + " V it is too late to turn home from the edge of the area"
                          : "No voltage is set at which it turns home",
                      "Against the wind it takes " + number_text(r.turn_home_mah->value, 0) +
                          " mAh with the reserve, which is " + at + " under load.",
                      "Set " + at + ", or fly less far.");
  n.fix = sets(
      "Turn home at " + at, [](Home& h, double v) { h.warn_v = v; }, volts);
}

void beyond_reach(const HomeInspection& in, std::vector<Snag>& snags) {
  const HomeReport& r = in.report;
  if (!in.rig.home.area_m || r.blown_away()) return;
  if (r.surely_out_and_back_m >= *in.rig.home.area_m) return;
  Findings found("HOME-06", Station::home, source::triangle, snags);
  found.add(Severity::fix_first, "area",
            "Out to " + field_text(*in.rig.home.area_m) + " and back is more than a full battery surely gives",
            "With the reserve kept, against gusts and with an aged battery it is " +
                field_text(r.surely_out_and_back_m) + ".",
            "Fly less far, in less wind, or with more charge.");
}

void circle(const HomeInspection& in, std::vector<Snag>& snags) {
  const HomeReport& r = in.report;
  if (!in.rig.home.circle_radius_m || in.rig.home.on_loss != LossAction::come_home) return;
  if (r.circle_holds()) return;
  Findings found("HOME-07", Station::home, source::turn, snags);
  const double radius = std::ceil(r.least_circle_m / 5) * 5;
  Snag& n = found.add(Severity::worth_knowing, "circle",
                      "A circle of " + field_text(*in.rig.home.circle_radius_m) + " is too tight for this wind",
                      "Where it flies with the wind it would have to bank more than " +
                          number_text(r.performance.bank_deg, 0) + "°: it drifts out.",
                      "A radius of " + field_text(radius) + " can be held.");
  n.fix = sets(
      "Circle at " + field_text(radius), [](Home& h, double v) { h.circle_radius_m = v; }, radius);
}

void not_looked_up(const HomeInspection& in, std::vector<Snag>& snags) {
  if (in.rig.home.on_loss == LossAction::undecided || !in.rig.home.looked_up.empty()) return;
  Findings found("HOME-08", Station::home, source::common, snags);
  found.add(Severity::worth_knowing, "rules", "That the rules of the place were looked up is not written down",
            "Where and how high one may fly is the law of the place and the club's, and not Rigging's to say.",
            "Look them up, ask the club, and write down at station home what you found.");
}

void checks_off(const Inspection& in, Findings& found) {
  if (in.rig.home.arming_checks || !in.controller || !in.controller->home.checks_before_arming) return;
  Snag& n = found.add(Severity::grounds, "arming", "The checks before arming are switched off",
                      "It would arm with a sick sensor, without a position, with a mode that flies by itself.",
                      "Switch them on again, and write that to the board.");
  n.fix = Fix{"Switch the checks on", [](const Rig& rig) {
                Rig r = rig;
                r.home.arming_checks = true;
                return r;
              }};
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
void left_open(const HomeInspection& in, std::vector<Snag>& snags) {
  const Home& h = in.rig.home;
  if (h.on_loss != LossAction::come_home || !in.report.knows_place || in.report.blown_away()) return;
  if (h.height_m && h.circle_radius_m) return;
  const double height = std::ceil(in.report.return_height_m / 5) * 5,
               radius = std::ceil(in.report.circle_radius_m / 5) * 5;
  const std::string set = (h.height_m ? std::string() : "height " + field_text(height)) +
                          (h.height_m || h.circle_radius_m ? "" : ", ") +
                          (h.circle_radius_m ? std::string() : "circle " + field_text(radius));
  Findings found("HOME-14", Station::home, source::plan, snags);
  Snag& n = found.add(h.height_m || in.report.least_height_m <= 0 ? Severity::worth_knowing : Severity::fix_first,
                      "left open",
                      std::string("The ") +
                          (h.height_m          ? "circle at home is"
                           : h.circle_radius_m ? "height of the way home is"
                                               : "height of the way home and the circle are") +
                          " left open",
                      "What is worked out here is not written to the board: it takes what it came with.",
                      "Set what is needed: " + set + ", if the rules of the place allow it.");
  n.fix = Fix{"Set " + set, [height, radius](const Rig& rig) {
                Rig r = rig;
                if (!r.home.height_m) r.home.height_m = height;
                if (!r.home.circle_radius_m) r.home.circle_radius_m = radius;
                return r;
              }};
}

void triggers(const HomeInspection& in, std::vector<Snag>& snags) {
  if (!in.controller) return;
  for (const TriggerFinding& f : judge_triggers(in.rig, *in.controller, in.report)) {
    Findings found("HOME-11", Station::home, source::triangle, snags);
    std::string what = f.words;
    if (what.ends_with('.')) what.pop_back();
    Snag& n = found.add(f.gives_up ? Severity::fix_first : Severity::worth_knowing, std::string(word(f.on)), what,
                        "It acts by itself, and nobody can stop it while the link is gone.", f.remedy);
    const auto can = trigger_choices(f.on, *in.controller, in.report);
    const TriggerChoice* now = trigger_choice(in.rig.home, f.on);
    if (!can.empty() && now && std::find(can.begin(), can.end(), now->does) == can.end())
      n.fix = Fix{"Let it do what works: it " + action_spoken(can.front()),
                  [on = f.on, does = can.front()](const Rig& rig) {
                    Rig r = rig;
                    for (TriggerChoice& t : r.home.triggers)
                      if (t.on == on) t.does = does;
                    return r;
                  }};
  }
}

void throttle(const HomeInspection& in, std::vector<Snag>& snags) {
  const std::optional<double>& set = in.rig.home.cruise_throttle;
  if (!set) return;
  const double needed = in.report.performance.cruise_throttle;
  if (*set >= needed - (in.rig.power.cruise_throttle ? 0.03 : throttle_band)) return;
  Findings found("HOME-12", Station::home, source::triangle, snags);
  Snag& n = found.add(
      Severity::fix_first, "throttle", "With " + number_text(100 * *set, 0) + " % throttle it sinks on its way home",
      (in.rig.power.cruise_throttle ? "In level flight " : "By its drag it takes some ") +
          number_text(100 * needed, 0) + (in.rig.power.cruise_throttle ? " % were noted." : " % to hold its height."),
      "Fly it by hand, note the throttle that holds height (station power), and take that.");
  n.fix = Fix{"Take " + number_text(100 * needed, 0) + " %", [needed](const Rig& rig) {
                Rig r = rig;
                r.home.cruise_throttle = std::round(100 * needed) / 100;
                return r;
              }};
}

void tow_release_open(const HomeInspection& in, std::vector<Snag>& snags) {
  if (!in.rig.release || in.rig.home.opens_tow || !in.report.can_act) return;
  Findings found("HOME-13", Station::home, source::common, snags);
  found.add(Severity::worth_knowing, "tow release", "What the tow release does when the link goes is not decided",
            "On a line the one or the other may be what saves both.", "Decide it with whoever tows: station home.");
}

}  // namespace
}  // namespace rules::home

const std::vector<Rule>& home_rules() {
  using namespace rules::home;
  static const std::vector<Rule> rules{{"HOME-09", Station::home, checks_off, source::common},
                                       {"HOME-10", Station::home, switches, source::plan}};
  return rules;
}

std::vector<Snag> home_snags(const Rig& rig, const Catalogue& catalogue, const HomeReport& report) {
  std::vector<Snag> snags;
  if (!report.missing.empty()) return snags;
  const rules::home::HomeInspection in{rig, report, catalogue.controller(rig.controller.kind)};
  for (void (*rule)(const rules::home::HomeInspection&, std::vector<Snag>&) :
       {rules::home::undecided, rules::home::does_not_know_where, rules::home::too_windy, rules::home::too_low,
        rules::home::threshold, rules::home::beyond_reach, rules::home::circle, rules::home::left_open,
        rules::home::triggers, rules::home::throttle, rules::home::tow_release_open, rules::home::not_looked_up})
    rule(in, snags);
  return snags;
}

}  // namespace rigging
