#include "home/triggers.h"

#include <algorithm>

#include "base/find.h"
#include "base/number.h"
#include "base/units.h"

namespace rigging {

const TriggerChoice* trigger_choice(const Home& home, HomeTrigger trigger) {
  return find_in(home.triggers, [&](const TriggerChoice& t) { return t.on == trigger; });
}

std::vector<TriggerAction> trigger_choices(HomeTrigger trigger, const ControllerClass& c, const HomeReport& r) {
  using T = HomeTrigger;
  using A = TriggerAction;
  if (std::find(c.home.triggers.begin(), c.home.triggers.end(), trigger) == c.home.triggers.end()) return {};
  switch (trigger) {
    case T::low_battery:
      return r.knows_place ? std::vector<A>{A::come_home, A::warn, A::land, A::glide}
                           : std::vector<A>{A::warn, A::glide};
    case T::fence: return r.knows_place ? std::vector<A>{A::come_home, A::warn, A::circle} : std::vector<A>{};
    // Without a place, or with one that it turns away from, nothing that steers by place can work.
    case T::no_fix: return r.knows_place ? std::vector<A>{A::warn, A::glide} : std::vector<A>{};
    case T::bad_compass: return r.knows_place ? std::vector<A>{A::warn, A::glide} : std::vector<A>{};
    case T::bad_airspeed: return r.knows_place ? std::vector<A>{A::warn, A::come_home} : std::vector<A>{A::warn};
    case T::long_loss: return r.knows_place ? std::vector<A>{A::land, A::glide} : std::vector<A>{};
  }
  return {};
}

std::optional<double> longest_way_s(const Rig& rig, const ControllerClass& c, const HomeReport& r) {
  if (!rig.home.area_m || !r.worst_bearing_deg || !r.missing.empty()) return std::nullopt;
  HomeCase worst = r.worse;
  worst.place = {*rig.home.area_m, *r.worst_bearing_deg, 0};
  const WayHome w = way_home(worst);
  if (!w.track) return std::nullopt;
  const double climbs = rig.home.climb_first ? w.climb_s : 0;
  return w.way_s + climbs + c.home.notices_after_s + rig.home.loss_hold_s;
}

std::string trigger_spoken(const Rig& rig, HomeTrigger trigger, std::optional<double> at) {
  switch (trigger) {
    case HomeTrigger::low_battery:
      return rig.home.turn_home_v ? "The battery sinks below " + number_text(*rig.home.turn_home_v, 1) + " V under load"
                                  : "The battery sinks below the voltage at which it turns home";
    case HomeTrigger::fence: return at ? "It is further than " + field_text(*at) + " from home" : "It leaves the field";
    case HomeTrigger::no_fix: return "It loses its position";
    case HomeTrigger::bad_compass: return "Its compass disagrees with where it flies";
    case HomeTrigger::bad_airspeed: return "Its airspeed sensor fails";
    case HomeTrigger::long_loss:
      return at ? "The link stays away for " + number_text(*at, 0) + " s" : "The link stays away";
  }
  return {};
}

std::string action_spoken(TriggerAction action) {
  switch (action) {
    case TriggerAction::warn: return "warns, no more";
    case TriggerAction::glide: return "motor off, glides level";
    case TriggerAction::circle: return "circles where it is";
    case TriggerAction::come_home: return "comes home";
    case TriggerAction::land: return "lands by itself";
  }
  return {};
}

std::vector<TriggerFinding> judge_triggers(const Rig& rig, const ControllerClass& c, const HomeReport& r) {
  std::vector<TriggerFinding> all;
  const auto find = [&all](const TriggerChoice& t, std::string words, std::string remedy, bool gives_up = false) {
    all.push_back({t.on, std::move(words), std::move(remedy), gives_up});
  };
  for (const TriggerChoice& t : rig.home.triggers) {
    const std::vector<TriggerAction> can = trigger_choices(t.on, c, r);
    const std::string when = trigger_spoken(rig, t.on, t.at);
    if (can.empty()) {
      find(t, when + ": nothing that is fitted notices it.", "Take it out of the plan.");
      continue;
    }
    if (std::find(can.begin(), can.end(), t.does) == can.end()) {
      find(t, when + ": it can't do that then, it " + action_spoken(t.does) + " by what has just failed.",
           "Choose what works without: it " + action_spoken(can.front()) + ".", true);
      continue;
    }
    switch (t.on) {
      case HomeTrigger::low_battery:
        if (!rig.home.turn_home_v)
          find(t, "It is to act on a low battery, and no voltage is set for that.",
               "Set the voltage at which it turns home.");
        break;
      case HomeTrigger::fence:
        if (!t.at)
          find(t, "How far the fence is from home is not told.", "Set it beyond the area in which it is flown.");
        else if (rig.home.area_m && *t.at < *rig.home.area_m)
          find(
              t,
              "The fence at " + field_text(*t.at) + " is nearer than the area of " + field_text(*rig.home.area_m) + ".",
              "It would turn home in the middle of a flight: set it beyond the area, or fly less far.");
        break;
      case HomeTrigger::long_loss:
        if (const auto way = longest_way_s(rig, c, r); !t.at)
          find(t, "How long the link may stay away is not told.",
               way ? "The way home takes up to " + number_text(*way, 0) + " s: set more than that." : "Set it.");
        else if (way && *t.at < *way)
          find(t,
               "After " + number_text(*t.at, 0) +
                   " s it comes down, and the way home from the edge of the area takes up "
                   "to " +
                   number_text(*way, 0) + " s: it would come down on the way.",
               "Set more than " + number_text(*way, 0) + " s.", true);
        break;
      default: break;
    }
  }
  return all;
}

}  // namespace rigging
