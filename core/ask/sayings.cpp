#include "ask/sayings.h"

#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "base/units.h"
#include "begin/what_next.h"
#include "home/arming.h"
#include "power/drive_choice.h"
#include "power/network.h"
#include "senses/level.h"
#include "sticks/sticks.h"
#include "surfaces/air_loads.h"
#include "surfaces/surfaces.h"

namespace rigging {
namespace {

std::string said_figure(const std::optional<Figure>& f) { return f ? f->name + ": " + figure_text(*f) : std::string(); }

}  // namespace

std::string in_a_row(const std::vector<std::string>& all, const char* between) {
  std::string text;
  for (const std::string& s : all) text += (text.empty() ? "" : between) + s;
  return text;
}

std::string say_endurance(const AskedOf& of) {
  return of.review.reports.power().drive ? said_figure(of.review.reports.power().endurance) : std::string();
}
std::string say_balance(const AskedOf& of) {
  const Balance& b = of.review.reports.fit().balance;
  return b.complete ? said_figure(b.balance_point) + "; wanted: " + length_text(b.wanted.value) : std::string();
}
std::string say_advice(const AskedOf& of) {
  const Balance& b = of.review.reports.fit().balance;
  if (!b.complete) return {};
  const std::string side = b.side() == BalanceSide::holds ? "Within its band" : capital(std::string(name_of(b.side())));
  return side + ": it balances at " + figure_text(b.balance_point) + ", wanted " + length_text(b.wanted.value) + ". " +
         b.to_wanted.words;
}
std::string say_thrust(const AskedOf& of) {
  const auto& d = of.review.reports.power().drive;
  if (!d || d->thrust.value <= 0) return {};
  return said_figure(d->thrust) +
         (d->thrust_to_weight ? ", " + number_text(d->thrust_to_weight->value, 2) + " of the weight" : "");
}
std::string say_stall(const AskedOf& of) { return said_figure(of.review.reports.airframe().stall_speed); }
std::string say_cruise(const AskedOf& of) { return said_figure(of.review.reports.airframe().cruise_speed); }
std::string say_landing(const AskedOf& of) {
  const auto& stall = of.review.reports.airframe().stall_speed;
  constexpr double approach = 1.3;
  return stall ? "It comes in at about " + speed_text(approach * stall->value) + ", 1.3 times the stall speed of " +
                     speed_text(stall->value)
               : std::string();
}
std::string say_loading(const AskedOf& of) { return said_figure(of.review.reports.airframe().wing_loading); }
std::string say_ready(const AskedOf& of) { return of.review.readiness.words; }
std::string say_current(const AskedOf& of) {
  const auto& d = of.review.reports.power().drive;
  return d && d->full_current.value > 0 ? said_figure(d->full_current) : std::string();
}
std::string say_brown_out(const AskedOf& of) { return said_figure(of.review.reports.power().brown_out_margin); }
std::string say_snags(const AskedOf& of) {
  return of.review.snags.empty()
             ? std::string()
             : "First of " + std::to_string(of.review.snags.size()) + ": " + of.review.snags.front().what;
}

std::string say_weight(const AskedOf& of) {
  const Balance& b = of.review.reports.fit().balance;
  const Airframe& a = of.rig.airframe;
  const bool guessed = std::find(a.guessed.begin(), a.guessed.end(), "mass_kg") != a.guessed.end();
  std::string text = a.mass_kg
                         ? "Flying mass: " + mass_text(*a.mass_kg) + (guessed ? ", a guess until it is weighed" : "")
                         : std::string("The flying mass is not known yet");
  // What is listed is no aircraft without its bare airframe.
  return text + (b.complete ? "; parts and bare airframe add up to " : "; the parts alone add up to ") +
         mass_text(b.total.value) + (b.complete ? "" : ", the bare airframe is still to be weighed");
}
std::string say_left_to_do(const AskedOf& of) {
  std::vector<std::string> open;
  for (const CheckStatus& c : of.review.checks)
    if (!c.stands() && !(c.family && c.family->guides)) open.push_back(c.title);
  if (open.empty()) return of.review.readiness.words;
  const std::size_t n = open.size();
  if (n > 4) open.resize(4);
  return std::to_string(n) + (n == 1 ? " check is" : " checks are") + " left: " + in_a_row(open, ", ") +
         (n > 4 ? " and " + std::to_string(n - 4) + " more" : "");
}
std::string say_next_thing(const AskedOf& of) {
  const auto next = what_next(of.rig, of.catalogue, of.review);
  return next.empty() ? say_left_to_do(of) : "Next: " + next.front().what + ". " + next.front().why;
}
std::string say_on_loss(const AskedOf& of) {
  const Home& h = of.rig.home;
  if (of.deferred && of.deferred->home.missing.empty() && !of.deferred->home.can_act)
    return "This controller does nothing by itself when the link is gone: what the receiver puts out then counts. "
           "Motor "
           "off, surfaces at rest, is stored in it after binding";
  const std::string wait = "After " + number_text(h.loss_hold_s, 1) + " s without a frame ";
  switch (h.on_loss) {
    case LossAction::undecided: return "Nothing is decided for a lost link yet: decide it at home";
    case LossAction::glide: return wait + "the motor stops and it glides with level wings";
    case LossAction::circle: return wait + "it circles where it is";
    case LossAction::come_home:
      return wait + "it comes home" + (h.return_height_m ? " at " + field_text(*h.return_height_m) : std::string()) +
             (h.on_arrival == OnArrival::land ? " and lands" : " and circles there");
  }
  return {};
}
std::string say_return_height(const AskedOf& of) {
  return of.rig.home.return_height_m ? "It comes home at " + field_text(*of.rig.home.return_height_m)
                                     : "No height of the way home is set yet";
}
std::string say_turn_home(const AskedOf& of) {
  const Home& h = of.rig.home;
  std::string text = h.turn_home_v ? "Turns home at " + number_text(*h.turn_home_v, 1) + " V under load"
                                   : std::string("No voltage is set at which it turns home");
  if (of.deferred && of.deferred->home.turn_home_v)
    text += "; from the edge of the planned area it needs " + figure_text(*of.deferred->home.turn_home_v);
  return text;
}
std::string say_aspect(const AskedOf& of) { return said_figure(of.review.reports.airframe().aspect_ratio); }
std::string say_wind(const AskedOf& of) {
  const auto& cruise = of.review.reports.airframe().cruise_speed;
  if (!cruise) return {};
  return "It cruises at " + speed_text(cruise->value) +
         ": in wind as fast as that it neither comes home against it nor holds a place, and gusts count a third more. "
         "Planned for: " +
         speed_text(of.rig.home.wind_m_s) + ". A first flight wants a calm day";
}
std::string say_glide(const AskedOf& of) {
  if (!of.deferred || of.deferred->home.performance.glide_ratio <= 0) return {};
  const HomePerformance& p = of.deferred->home.performance;
  return "Motor off it glides about " + number_text(p.glide_ratio, 0) + " m for each metre of height, at " +
         speed_text(p.glide_m_s) + ", without wind";
}
std::string say_against_wind(const AskedOf& of) {
  if (!of.deferred || !of.deferred->home.missing.empty()) return {};
  const HomeReport& h = of.deferred->home;
  if (!h.can_act)
    return "This controller does not come home by itself. Flown by hand, in the planned wind of " +
           speed_text(of.rig.home.wind_m_s) + ", it surely goes out and back " + field_text(h.surely_out_and_back_m);
  if (h.blown_away())
    return "Not in the planned wind of " + speed_text(of.rig.home.wind_m_s) + ": it cruises at " +
           speed_text(h.performance.cruise_m_s.expected) + " and comes home from downwind alone";
  return "In the planned wind of " + speed_text(of.rig.home.wind_m_s) + " it surely goes out and back " +
         field_text(h.surely_out_and_back_m) + ", whatever side the wind comes from";
}
std::string say_suggestion(const AskedOf& of) {
  if (of.rig.airframe.kind == AirframeKind::towed_glider) return "A glider on tow has no propeller";
  if (!of.rig.airframe.mass_kg) return "The flying mass is needed first, to say what suits";
  DriveKinds chosen;
  std::string fitted;
  for (const Part& p : of.rig.parts)
    if (const PartKind* k = of.catalogue.part(p.kind)) {
      if (k->group == PartGroup::motor) chosen.motor = k->id;
      if (k->group == PartGroup::battery) chosen.battery = k->id;
      if (k->group == PartGroup::speed_controller) chosen.speed_controller = k->id;
    }
  DriveKinds now = chosen;
  for (const Part& p : of.rig.parts)
    if (const PartKind* k = of.catalogue.part(p.kind); k && k->group == PartGroup::propeller && now.propeller.empty())
      now.propeller = k->id, fitted = k->name;
  if (chosen.motor.empty()) return "There is no motor yet: station fit proposes a drive for this airframe";
  if (!fitted.empty() && !chosen.motor.empty() && !chosen.battery.empty()) {
    const DriveChoice judged = judge_drive(of.rig.airframe, of.catalogue, now);
    if (judged.wrong.empty()) return fitted + ", which is on it, suits: " + judged.words;
  }
  const auto best = suggest_drives(of.rig.airframe, of.catalogue, chosen, 1);
  if (best.empty()) return "No propeller that is known suits motor, battery and speed controller as they are";
  const PartKind* k = of.catalogue.part(best.front().kinds.propeller);
  return (k ? k->name : best.front().kinds.propeller) + ": " + best.front().words;
}
std::string say_arms(const AskedOf& of) {
  const auto needs = arming_needs(of.rig, of.catalogue);
  return needs.empty() ? std::string() : "Before it arms: " + in_a_row(needs, "; ");
}
std::string say_shaking(const AskedOf& of) {
  if (!of.deferred) return {};
  std::vector<std::string> all;
  for (const AxisFeel& a : of.deferred->feel.axes)
    if (a.may_shake_from_m_s)
      all.push_back(std::string(name_of(a.axis)) + " may begin at " + speed_text(*a.may_shake_from_m_s));
  return all.empty() ? std::string() : "With the gains as they are set: " + in_a_row(all, ", ");
}
std::string say_rail_volts(const AskedOf& of) {
  std::vector<std::string> all;
  const PowerReport& p = of.review.reports.power();
  const auto& rails = p.load_cases[static_cast<std::size_t>(LoadCase::idle)].rails;
  for (std::size_t i = 0; i < p.network.rails.size() && i < rails.size(); ++i)
    if (rails[i].live) all.push_back(p.network.rails[i].name + " " + number_text(rails[i].volts, 1) + " V");
  return all.empty() ? std::string() : "With the battery in: " + in_a_row(all, ", ");
}
std::string say_heat(const AskedOf& of) {
  std::vector<std::string> all;
  for (const SourceReport& s : of.review.reports.power().sources)
    if (s.heat_flown && s.junction_flown)
      all.push_back(s.name + ", as flown: " + figure_text(*s.heat_flown) + ", " + figure_text(*s.junction_flown));
    else if (s.supplies && !s.battery && s.kind == FeedKind::switching)
      all.push_back(s.name + " switches: it makes little heat");
  return in_a_row(all, "; ");
}

std::string say_servo_source(const AskedOf& of) {
  const PowerReport& p = of.review.reports.power();
  for (const SourceReport& s : p.sources)
    if (s.supplies && !s.battery && p.servo_source_a > 0 && s.rating_a == p.servo_source_a)
      return capital(s.name) + " feeds the servos: " + s.verdict +
             (p.advice         ? ". " + p.advice->words
              : s.overloaded() ? ". A second regulator, or smaller servos"
                               : ". No further regulator is needed for them");
  return {};
}
std::string say_on_usb(const AskedOf& of) { return say_on_usb_of(of, nullptr); }
std::string say_on_usb_of(const AskedOf& of, const Part* only) {
  std::vector<std::string> lit, dark;
  for (const ConsumerReport& c : of.review.reports.power().consumers)
    if (!only || c.part == only->id)
      (c.powered[static_cast<std::size_t>(SupplyState::usb)] ? lit : dark).push_back(c.name);
  if (lit.empty() && dark.empty()) return {};
  return (dark.empty() ? std::string()
                       : "On USB alone this gets nothing: " + in_a_row(dark, ", ") +
                             ". That is the board, no fault: with the battery in, propeller off, it is fed. ") +
         (lit.empty() ? "" : "USB feeds: " + in_a_row(lit, ", ") + ".");
}
std::string say_climb(const AskedOf& of) {
  if (!of.deferred || !of.deferred->home.missing.empty()) return {};
  const double climb = of.deferred->home.performance.climb_m_s.expected;
  return climb > 0 ? "At full throttle it climbs about " + number_text(climb, 1) + " m/s" : std::string();
}
std::string say_level(const AskedOf& of) {
  const LevelReport level =
      analyze_level(of.rig.airframe, of.review.reports.airframe(), of.review.reports.fit().balance.likely_m());
  const std::string text = level_text(level);
  return text.empty() ? std::string()
                      : "At cruise the wing carries it at " + text + " nose up: level is stored so. " + level.beside;
}
std::string say_other_way_up(const AskedOf& of) {
  const ControllerClass* c = of.review.reports.controller();
  if (!c) return {};
  if (c->senses.either_face) return "Either face may be up: only its arrow counts";
  if (c->senses.can_be_turned)
    return "It may sit upside down, on edge or turned by quarter turns, as long as it is told so: fit, then the turn "
           "check at senses proves it";
  return std::string("This class can't be told that it sits another way: top up, arrow to the nose") +
         (c->senses.half_turn_by_switches ? ", or to the tail with roll and pitch turned round by its switches" : "");
}
std::string say_stale(const AskedOf& of) {
  std::vector<std::string> all;
  for (const CheckStatus& c : of.review.checks)
    if (c.state == ProofState::stale) all.push_back(c.title + (c.changes.empty() ? "" : " (" + c.because() + ")"));
  const std::size_t n = all.size();
  constexpr std::size_t most_named = 3;
  if (n == 0) return "Nothing is stale: no proof that was taken rests on something that has changed since";
  if (n > most_named) all.resize(most_named);
  return std::to_string(n) + " stale: " + in_a_row(all, "; ") +
         (n > most_named ? " and " + std::to_string(n - most_named) + " more" : "");
}
std::string say_compass(const AskedOf& of) {
  const auto& all = of.review.reports.fit().compasses;
  if (all.empty()) return "There is no compass, or it has no place yet";
  const CompassReport& c = all.front();
  std::string text = "The leads turn the compass by " + degrees_text(c.error.value) + " at worst";
  if (!c.paths.empty())
    text += ", most of it " + c.paths.front().path.name + ", " + length_text(c.paths.front().distance_m) + " away (" +
            length_text(c.paths.front().least_distance_m) + " would do)";
  switch (c.verdict) {
    case CompassVerdict::holds: return text + ": holds";
    case CompassVerdict::so_far: return text + ": holds so far; the motor's current is not known";
    case CompassVerdict::too_near: return text + ": too near";
    case CompassVerdict::points_nowhere: return text + ": it would point nowhere";
  }
  return text;
}
std::string say_to_get(const AskedOf& of) {
  std::vector<std::string> all;
  for (const ToGet& g : of.review.reports.fit().to_get)
    all.push_back((g.count > 1 ? std::to_string(g.count) + " × " : "") + g.what);
  const std::size_t n = all.size();
  constexpr std::size_t most_named = 8;
  if (n > most_named) all.resize(most_named);
  return n == 0 ? std::string()
                : "To get: " + in_a_row(all, ", ") +
                      (n > most_named ? " and " + std::to_string(n - most_named) + " more" : "");
}
std::string say_set_up(const AskedOf& of) {
  const ControllerClass* c = of.review.reports.controller();
  if (!c) return {};
  for (const HandStep& s : c->steps) {
    std::string all = s.title;
    for (const std::string& line : s.steps) all += ". " + line;
    if (all.find("set-up") != std::string::npos) return c->with_leaflet(all);
  }
  return c->name + " has no set-up mode of its own: " +
         (c->feel.gains.empty() ? "its settings are written over the link or typed" : c->feel.gains);
}
std::string say_landing_itself(const AskedOf& of) {
  if (!of.deferred || !of.deferred->home.missing.empty()) return {};
  if (!of.deferred->home.can_act) return "No: this controller does not fly by itself";
  return of.rig.home.on_arrival == OnArrival::land
             ? "As it is planned it lands at home after it has come back; the propeller meets the ground first"
             : "It circles at home until the battery ends or somebody takes over; what it does there is chosen at home";
}
std::string say_first_gains(const AskedOf& of) {
  if (!of.deferred || of.deferred->feel_advice.first.empty()) return {};
  std::vector<std::string> all;
  for (const FirstGain& f : of.deferred->feel_advice.first) all.push_back(std::string(name_of(f.axis)) + " " + f.set);
  return "For the first flight: " + in_a_row(all, ", ") + "; then one axis at a time in small steps";
}
std::string say_holes(const AskedOf& of) {
  if (!of.deferred) return {};
  std::vector<std::string> all;
  for (const LinkageReport& l : of.deferred->linkages)
    if (!l.holes.empty())
      all.push_back(l.surface.label() + ": arm " + length_text(l.holes.front().arm_m) + ", horn " +
                    length_text(l.holes.front().horn_m) + " for " + degrees_text(l.want_deg) +
                    (l.holes.front().remark.empty() ? "" : " (" + l.holes.front().remark + ")"));
  return capital(in_a_row(all, "; "));
}
std::string say_takeoff(const AskedOf& of) {
  if (!of.deferred || !of.deferred->feel.missing.empty()) return {};
  const TakeoffAdvice advice = takeoff_advice(of.review, *of.deferred);
  if (advice.needed_m_s <= 0) return {};
  std::string text =
      "It needs " + speed_text(advice.needed_m_s) + " through the air and leaves with " + speed_text(advice.speed_m_s);
  if (advice.drop_m > 0) text += ", sinks up to " + field_text(advice.drop_m) + " until it flies";
  if (advice.run_m > 0) text += ", after a run of " + field_text(advice.run_m);
  text += advice.go ? ": it gets into the air" : ". Not yet";
  if (!advice.not_yet.empty()) text += ": " + advice.not_yet.front();
  return text + ". First flights start in manual or in rate at low gain, rates on middle";
}
std::string say_turning(const AskedOf& of) {
  if (!of.deferred || !of.deferred->feel.missing.empty()) return {};
  std::vector<std::string> all;
  for (const AxisFeel& a : of.deferred->feel.axes)
    if (a.known() && a.full_rate_deg_s > 0)
      all.push_back(std::string(name_of(a.axis)) + " " + number_text(a.full_rate_deg_s, 0) + "°/s");
  return all.empty() ? std::string()
                     : "Full stick at cruise, in manual: " + in_a_row(all, ", ") +
                           ". More throw (holes, mix) turns it faster, and makes the correction stronger with it";
}
std::string say_channels(const AskedOf& of) {
  const Radio& r = of.rig.radio;
  std::vector<std::string> all;
  for (const Channel& c : r.channels) all.push_back(std::to_string(c.number) + " " + function_label(c.function));
  return "This rig uses " + std::to_string(r.channels.size()) + " channels (" + in_a_row(all, ", ") +
         "); the transmitter has " + std::to_string(r.transmitter.channels);
}
std::string say_shakes_first(const AskedOf& of) {
  if (!of.deferred || !of.deferred->feel.missing.empty()) return {};
  if (std::none_of(of.deferred->feel.axes.begin(), of.deferred->feel.axes.end(),
                   [](const AxisFeel& a) { return a.gain_s > 0; }))
    return "No gain is written down yet; the first gains at station feel are calm up to the fastest dive";
  const AxisFeel* first = nullptr;
  for (const AxisFeel& a : of.deferred->feel.axes)
    if (a.may_shake_from_m_s && (!first || *a.may_shake_from_m_s < *first->may_shake_from_m_s)) first = &a;
  if (!first) return "As the gains are set no axis is expected to shake up to the fastest dive";
  return capital(std::string(name_of(first->axis))) + " first: it may begin at " +
         speed_text(*first->may_shake_from_m_s);
}
std::string say_clashes(const AskedOf& of) {
  const auto& all = of.review.reports.fit().clashes;
  if (all.empty()) return "Everything that has a place and a size fits: nothing overlaps, nothing sticks out";
  return all.front().words + (all.size() > 1 ? "; and " + std::to_string(all.size() - 1) + " more" : "");
}
std::string say_battery(const AskedOf& of) {
  if (!of.rig.airframe.mass_kg) return {};
  DriveKinds chosen;
  for (const Part& p : of.rig.parts)
    if (const PartKind* k = of.catalogue.part(p.kind)) {
      if (k->group == PartGroup::motor) chosen.motor = k->id;
      if (k->group == PartGroup::propeller) chosen.propeller = k->id;
      if (k->group == PartGroup::speed_controller) chosen.speed_controller = k->id;
    }
  if (chosen.motor.empty()) return {};
  const auto best = suggest_drives(of.rig.airframe, of.catalogue, chosen, 1);
  if (best.empty()) return "No battery that is known suits motor, propeller and speed controller as they are";
  const PartKind* k = of.catalogue.part(best.front().kinds.battery);
  return (k ? k->name : best.front().kinds.battery) + ": " + best.front().words +
         ". A heavier one has to find its balance, and its current has to be enough";
}
std::string say_climb_first(const AskedOf& of) {
  const Home& h = of.rig.home;
  if (of.deferred && of.deferred->home.missing.empty() && !of.deferred->home.can_act) return say_on_loss(of);
  return say_return_height(of) + (h.climb_first ? ", and climbs there first, in circles" : ", and climbs on the way");
}
std::string say_at_cruise(const AskedOf& of) {
  if (!of.deferred || !of.deferred->home.missing.empty()) return {};
  const HomePerformance& p = of.deferred->home.performance;
  return "At cruise, " + speed_text(p.cruise_m_s.expected) + ", it draws about " + number_text(p.cruise_a.expected, 1) +
         " A";
}
std::string say_distance(const AskedOf& of) {
  const auto& endurance = of.review.reports.power().endurance;
  const auto& cruise = of.review.reports.airframe().cruise_speed;
  if (!endurance || !cruise) return {};
  constexpr double seconds = 60, hundreds = 100;
  return "At cruise, without wind, about " +
         field_text(hundreds * std::round(endurance->value * seconds * cruise->value / hundreds)) +
         " in all until the reserve; out and home again is less than half of it. " + say_against_wind(of);
}
std::string say_servo_loads(const AskedOf& of) {
  std::vector<std::string> all;
  for (const ServoLoad& l : of.review.reports.loads())
    if (!l.verdict.empty()) all.push_back(l.surface.label() + ": " + l.verdict);
  return capital(in_a_row(all, "; "));
}
std::string say_unequal(const AskedOf& of) {
  std::vector<std::string> all;
  for (const Output& o : of.rig.outputs)
    for (const Surface s : o.surfaces)
      if (const SurfaceAnswer* a = of.review.reports.surfaces().answer(s); a && s.kind != SurfaceKind::motor)
        all.push_back(s.label() + " " + degrees_text(a->most_up_deg) + " and " + degrees_text(a->most_down_deg));
  return "Set the centres at the linkage, then the throws by the holes, then the ends: station surfaces, Throws, takes "
         "readings at the trailing edge and says what to turn" +
         (all.empty() ? std::string() : ". At its ends now: " + in_a_row(all, ", "));
}

namespace {

constexpr std::pair<std::string_view, std::string (*)(const AskedOf&)> sayings[] = {
    {"endurance", say_endurance},
    {"balance", say_balance},
    {"advice", say_advice},
    {"thrust", say_thrust},
    {"stall", say_stall},
    {"cruise", say_cruise},
    {"landing", say_landing},
    {"loading", say_loading},
    {"ready", say_ready},
    {"current", say_current},
    {"brown_out", say_brown_out},
    {"snags", say_snags},
    {"weight", say_weight},
    {"left_to_do", say_left_to_do},
    {"next_thing", say_next_thing},
    {"on_loss", say_on_loss},
    {"return_height", say_return_height},
    {"turn_home", say_turn_home},
    {"aspect", say_aspect},
    {"wind", say_wind},
    {"glide", say_glide},
    {"against_wind", say_against_wind},
    {"suggestion", say_suggestion},
    {"arms", say_arms},
    {"shaking", say_shaking},
    {"rail_volts", say_rail_volts},
    {"heat", say_heat},
    {"servo_source", say_servo_source},
    {"on_usb", say_on_usb},
    {"climb", say_climb},
    {"level", say_level},
    {"other_way_up", say_other_way_up},
    {"stale", say_stale},
    {"compass", say_compass},
    {"to_get", say_to_get},
    {"set_up", say_set_up},
    {"landing_itself", say_landing_itself},
    {"first_gains", say_first_gains},
    {"holes", say_holes},
    {"takeoff", say_takeoff},
    {"turning", say_turning},
    {"channels", say_channels},
    {"shakes_first", say_shakes_first},
    {"clashes", say_clashes},
    {"battery", say_battery},
    {"climb_first", say_climb_first},
    {"at_cruise", say_at_cruise},
    {"distance", say_distance},
    {"servo_loads", say_servo_loads},
    {"unequal", say_unequal},
};

}  // namespace

std::string (*saying_named(std::string_view name))(const AskedOf&) {
  for (const auto& [known, say] : sayings)
    if (known == name) return say;
  return nullptr;
}

std::vector<std::string> saying_names() {
  std::vector<std::string> all;
  for (const auto& [known, say] : sayings) all.emplace_back(known);
  return all;
}

}  // namespace rigging
