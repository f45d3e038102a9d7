#include "ask/sayings.h"

#include <algorithm>

#include "base/number.h"
#include "base/units.h"
#include "begin/what_next.h"
#include "home/arming.h"
#include "power/drive_choice.h"
#include "power/network.h"

namespace rigging {
namespace {

std::string said_figure(const std::optional<Figure>& f) { return f ? f->name + ": " + figure_text(*f) : std::string(); }

std::string in_a_row(const std::vector<std::string>& all, const char* between) {
  std::string text;
  for (const std::string& s : all) text += (text.empty() ? "" : between) + s;
  return text;
}

}  // namespace

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

}  // namespace rigging
