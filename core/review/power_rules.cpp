#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "base/units.h"
#include "power/plugs.h"
#include "review/wiring_pieces.h"
#include "rig/path.h"
#include "wiring/wiring.h"

namespace rigging {
namespace rules::power {
namespace {

constexpr double thin_margin_v = 0.3, warm_w = 2.0, tight_clearance_m = 0.01, low_thrust = 0.3, sagging_cell_v = 3.2,
                 ridden_out = 1.3;  // common practice

std::string a(double amps) { return number_text(amps, 1) + " A"; }
std::string v(double volts) { return number_text(volts, 2) + " V"; }
double at(const SourceReport& s, LoadCase e) { return s.amps[static_cast<std::size_t>(e)]; }

/// Regulators and batteries that meet on a rail with no diode between.
void two_sources(const Inspection& in, Findings& found) {
  const Network& net = in.reports.power().network;
  for (const Rail& rail : net.rails) {
    std::vector<const Source*> hard;
    for (const Source& s : rail.sources)
      if (s.kind != FeedKind::diode) hard.push_back(&s);
    if (hard.size() < 2) continue;
    std::string names;
    for (const Source* s : hard) names += (names.empty() ? "" : " and ") + part_name(in.rig, in.catalogue, s->part);
    Snag& n =
        found.add(Severity::grounds, hard.back()->part, "Two sources on the " + rail.name + ": " + names,
                  "They work against each other: one feeds into the other's outlet, gets hot and can fail in flight.",
                  "Take the red wire out of one of the leads and isolate it, not just cut it bare.");
    for (std::size_t i = hard.size(); i-- > 0;) {
      if (hard[i]->ideal) continue;
      for (const Lead& l : in.rig.leads) {
        const LeadEnd* far = far_end(l, hard[i]->part);
        if (!far || l.plus_removed) continue;
        const LeadEnd& near = far == &l.to ? l.from : l.to;
        const Terminal* t = terminal_of(in.rig, in.catalogue, near);
        if (!t || net.node(near.part, t->net) != hard[i]->node) continue;
        n.fix = sets("Red wire out of the lead of " + part_name(in.rig, in.catalogue, hard[i]->part),
                     {{path_of({"leads", l.id, "plus_removed"}), true}});
        break;
      }
      if (n.fix) break;
    }
  }
}

void servo_rail_dark(const Inspection& in, Findings& found) {
  const PowerReport& p = in.reports.power();
  const int node = p.network.node("controller", "servo");
  const bool servos = std::any_of(in.rig.leads.begin(), in.rig.leads.end(), [&](const Lead& l) {
    const LeadEnd* far = far_end(l, "controller");
    const PartKind* k = far ? kind_of(in.rig, in.catalogue, far->part) : nullptr;
    return k && k->group == PartGroup::servo;
  });
  if (node < 0 || !servos ||
      p.states[static_cast<std::size_t>(SupplyState::battery)]
              [static_cast<std::size_t>(p.network.rail_of[static_cast<std::size_t>(node)])]
                  .live)
    return;
  found.add(Severity::grounds, "controller", "Nothing feeds the servo rail, even with the battery in",
            "No servo moves; on most boards the receiver is dark, too.",
            "Leave the red wire in one speed controller's lead, or give the rail a regulator at a spare socket.");
}

void overloaded(const Inspection& in, Findings& found) {
  for (const SourceReport& s : in.reports.power().sources)
    if (!s.battery && s.supplies && at(s, LoadCase::all_moving) <= s.rating_a &&
        at(s, LoadCase::one_stalled) > s.rating_a)
      found.add(Severity::fix_first, s.part, capital(s.name) + ": " + s.verdict,
                "A servo that binds pulls the rail down until the controller restarts in flight.",
                in.reports.power().advice && in.reports.power().advice->overloaded == s.part
                    ? in.reports.power().advice->words
                    : "Fit a stronger regulator.");
}

void far_overloaded(const Inspection& in, Findings& found) {
  for (const SourceReport& s : in.reports.power().sources)
    if (!s.battery && s.supplies && at(s, LoadCase::all_moving) > s.rating_a)
      found.add(Severity::grounds, s.part, capital(s.name) + ": " + s.verdict,
                "It cannot feed what hangs on it even while nothing binds.",
                in.reports.power().advice && in.reports.power().advice->overloaded == s.part
                    ? in.reports.power().advice->words
                    : "Fit a stronger regulator.");
}

void two_stalled(const Inspection& in, Findings& found) {
  for (const SourceReport& s : in.reports.power().sources)
    if (!s.battery && s.supplies && at(s, LoadCase::one_stalled) <= s.rating_a &&
        at(s, LoadCase::two_stalled) > s.rating_a)
      found.add(Severity::worth_knowing, s.part, capital(s.name) + ": " + s.verdict,
                "Two servos that bind at once are rare, but a wing that folds a linkage does it.",
                "A stronger regulator removes the doubt.");
}

void junction(const Inspection& in, Findings& found) {
  for (const SourceReport& s : in.reports.power().sources) {
    if (!s.junction || !s.junction_burst || !s.junction_flown) continue;
    for (const Rail& rail : in.reports.power().network.rails)
      for (const Source& source : rail.sources) {
        if (source.part != s.part || source.kind != FeedKind::linear) continue;
        const double limit = source.most_junction_c;
        const bool flown = s.junction_flown->value > limit, burst = s.junction_burst->value > limit;
        if (!flown && !burst && s.junction->value <= limit) continue;
        const Figure& reached = flown ? *s.junction_flown : burst ? *s.junction_burst : *s.junction;
        found.add(flown   ? Severity::grounds
                  : burst ? Severity::fix_first
                          : Severity::worth_knowing,
                  s.part,
                  capital(s.name) + " would reach " + number_text(reached.value, 0) + " °C inside" +
                      (flown   ? ""
                       : burst ? " after ten seconds with everything moving"
                               : " if everything moved without end") +
                      "; its limit is " + number_text(limit, 0) + " °C",
                  "A linear regulator turns the voltage difference into heat: " + reached.formula + ".",
                  "Use a switching regulator, or fewer cells.");
      }
  }
}

void starting_together(const Inspection& in, Findings& found) {
  for (const SourceReport& s : in.reports.power().sources)
    if (!s.battery && s.supplies && s.starting_a > ridden_out * s.rating_a &&
        at(s, LoadCase::two_stalled) <= s.rating_a)
      found.add(Severity::worth_knowing, s.part,
                capital(s.name) + ": servos that start together ask " + a(s.starting_a) + " of " + a(s.rating_a) +
                    " for some hundredths of a second",
                "A servo draws its stall current until it turns. Most regulators ride that out; a weak one dips.",
                "A regulator with room, or a capacitor made for low resistance across the rail (common practice).");
}

void warm(const Inspection& in, Findings& found) {
  for (const SourceReport& s : in.reports.power().sources)
    if (s.heat_flown && s.heat_flown->value > warm_w)
      found.add(Severity::worth_knowing, s.part,
                capital(s.name) + " turns " + number_text(s.heat_flown->value, 1) + " W into heat",
                "From three cells a linear regulator loses over half of the power.",
                "A switching regulator is preferred.");
}

void inlet_too_high(const Inspection& in, Findings& found) {
  for (const SourceReport& s : in.reports.power().sources)
    if (!s.battery && s.highest_in_v && *s.highest_in_v > s.most_in_v)
      found.add(Severity::grounds, s.part,
                capital(s.name) + " gets " + v(*s.highest_in_v) + " from a full battery; it bears " + v(s.most_in_v),
                "It can fail and put the battery on the five-volt rail.", "Use one for more cells.");
}

void inlet_too_low(const Inspection& in, Findings& found) {
  for (const SourceReport& s : in.reports.power().sources)
    if (!s.battery && s.lowest_in_v && *s.lowest_in_v < s.least_in_v)
      found.add(Severity::fix_first, s.part,
                capital(s.name) + " needs " + v(s.least_in_v) + "; an empty battery gives " + v(*s.lowest_in_v),
                "Near the end of the flight the rail goes down with the battery.",
                "Land earlier, use more cells, or a regulator that needs less.");
}

void brown_out(const Inspection& in, Findings& found) {
  const auto& margin = in.reports.power().brown_out_margin;
  if (margin && margin->value < 0)
    found.add(Severity::grounds, "controller",
              "With two servos stalled the controller gets " + v(in.reports.power().controller_least->value) +
                  " and restarts",
              "A restart in flight is a crash.", "Shorter or thicker leads, a stronger regulator.");
}

void thin_margin(const Inspection& in, Findings& found) {
  const auto& margin = in.reports.power().brown_out_margin;
  if (margin && margin->value >= 0 && margin->value < thin_margin_v)
    found.add(Severity::fix_first, "controller",
              "Only " + v(margin->value) + " are left before the controller restarts, with two servos stalled",
              "A worn contact takes up that much.", "Shorter or thicker leads, a stronger regulator.");
}

void too_much_voltage(const Inspection& in, Findings& found) {
  for (const ConsumerReport& c : in.reports.power().consumers)
    if (c.rest_v > c.most_v + 1e-6)
      found.add(Severity::grounds, c.part, capital(c.name) + " gets " + v(c.rest_v) + "; it bears " + v(c.most_v),
                "It is destroyed when the battery goes in.", "Feed it from a rail that suits it.");
}

void too_little_voltage(const Inspection& in, Findings& found) {
  for (const ConsumerReport& c : in.reports.power().consumers)
    if (c.part != "controller" && c.powered[1] && c.worst_v < c.least_v && c.rest_v <= c.most_v)
      found.add(Severity::fix_first, c.part,
                capital(c.name) + " gets " + v(c.worst_v) + " with two servos stalled; it needs " + v(c.least_v),
                "It stops or restarts when it is needed.", "A shorter or thicker lead, or a rail of its own.");
}

void dark(const Inspection& in, Findings& found) {
  const PowerReport& p = in.reports.power();
  const int servo = p.network.node("controller", "servo");
  if (!in.controller) return;  // through which nothing can be followed
  for (const ConsumerReport& c : p.consumers) {
    if (c.powered[1]) continue;
    // A dark servo rail says so itself.
    const PartKind* k = kind_of(in.rig, in.catalogue, c.part);
    if (servo >= 0 && c.rail == "servo rail" && k && k->group == PartGroup::servo) continue;
    if (c.part == "controller" && in.rig.parts.empty()) continue;
    const bool needed =
        c.part == "controller" || (k && (k->group == PartGroup::receiver || k->group == PartGroup::servo));
    // What hangs on nothing is another rule's.
    if (!needed && !rules::wiring::plugged(in, c.part)) continue;
    found.add(needed ? Severity::grounds : Severity::fix_first, c.part,
              capital(c.name) + " is dark with the battery in", "No source reaches it.",
              "Check its lead and the red wire on the way.");
  }
}

void idle_source(const Inspection& in, Findings& found) {
  for (const SourceReport& s : in.reports.power().sources) {
    const PartKind* k = kind_of(in.rig, in.catalogue, s.part);
    if (k && k->group == PartGroup::regulator && s.supplies && at(s, LoadCase::all_moving) <= 0)
      found.add(Severity::worth_knowing, s.part, capital(s.name) + " feeds nothing",
                "Nothing hangs on its outlet, or its inlet is not connected.", "Connect it, or leave it out.");
  }
}

void drive_over(const Inspection& in, Findings& found, PartGroup group, const char* what) {
  const auto& d = in.reports.power().drive;
  if (!d) return;
  const Figure& drawn = d->full_current;
  const auto motors = static_cast<double>(d->motors.size());
  for (const Part& p : in.rig.parts) {
    const PartKind* k = in.catalogue.part(p.kind);
    if (!k || k->group != group) continue;
    const double part_of = group == PartGroup::motor || group == PartGroup::speed_controller ? motors : 1;
    const double asked = drawn.value / part_of, least = drawn.least.value_or(drawn.value) / part_of,
                 most = drawn.most.value_or(drawn.value) / part_of;
    const double bears = k->motor ? k->motor->amps : k->battery ? k->battery->amps : k->drive ? k->drive->amps : 1e9;
    if (most <= bears) continue;
    const bool sure = least > bears, likely = asked > bears;
    found.add(sure     ? Severity::grounds
              : likely ? Severity::fix_first
                       : Severity::worth_knowing,
              p.id,
              capital(part_name(in.rig, in.catalogue, p.id)) + ": " + a(asked) + " of " + a(bears) +
                  " at full throttle" +
                  (d->measured ? "" : " with a fresh battery, by the estimate (" + a(least) + " to " + a(most) + ")"),
              what,
              "A smaller or flatter propeller, fewer cells, or a stronger one. Measure the current to be sure (model "
              "held fast, clear of the arc).");
  }
}

void battery_over(const Inspection& in, Findings& found) {
  drive_over(in, found, PartGroup::battery, "Lithium cells asked for more than they bear swell, and can burn.");
}
void controller_over(const Inspection& in, Findings& found) {
  drive_over(in, found, PartGroup::speed_controller,
             "A speed controller that overheats stops the motor, and with it its regulator.");
}
void motor_over(const Inspection& in, Findings& found) {
  drive_over(in, found, PartGroup::motor, "The windings overheat and the magnets weaken.");
}
void module_over(const Inspection& in, Findings& found) {
  drive_over(in, found, PartGroup::power_module, "Its shunt and solder joints overheat.");
}

void cells(const Inspection& in, Findings& found) {
  const PartKind* main = kind_of(in.rig, in.catalogue, in.reports.power().battery);
  if (!main || !main->battery) return;
  const BatteryFigures* battery = &*main->battery;
  for (const Part& p : in.rig.parts)
    if (const PartKind* k = in.catalogue.part(p.kind);
        k && k->drive && (battery->cells < k->drive->least_cells || battery->cells > k->drive->most_cells))
      found.add(
          Severity::grounds, p.id,
          capital(part_name(in.rig, in.catalogue, p.id)) + " is made for " + std::to_string(k->drive->least_cells) +
              " to " + std::to_string(k->drive->most_cells) + " cells; the battery has " +
              std::to_string(battery->cells),
          battery->cells > k->drive->most_cells ? "It is destroyed when the battery goes in." : "It does not start.",
          "Choose one that suits the battery.");
}

void weak(const Inspection& in, Findings& found) {
  const auto& d = in.reports.power().drive;
  const bool tow =
      in.rig.airframe.kind == AirframeKind::towed_glider || in.rig.airframe.kind == AirframeKind::motor_glider;
  if (d && d->thrust_to_weight && !tow && d->thrust.value > 0 && d->thrust_to_weight->value < low_thrust)
    found.add(Severity::worth_knowing, "drive",
              "Thrust is " + number_text(d->thrust_to_weight->value, 2) + " of the weight",
              "Below about 0.3 it needs a long run or a hard throw, and climbs poorly.",
              "A larger propeller or more cells, if motor and speed controller bear it.");
}

void facing(const Inspection& in, Findings& found) {
  const bool propeller = std::any_of(in.rig.parts.begin(), in.rig.parts.end(), [&](const Part& p) {
    const PartKind* k = in.catalogue.part(p.kind);
    return k && k->group == PartGroup::propeller;
  });
  if (propeller && !in.rig.power.propeller_faces_flight)
    found
        .add(Severity::grounds, "propeller", "The propeller is on back to front",
             "The lettered side faces the direction of flight, on a pusher, too: turned round it gives little thrust "
             "and "
             "draws much current.",
             "Take it off, turn it round; on a pusher let the motor turn the other way by exchanging two of its three "
             "leads.")
        .fix = sets("It is turned round now", {{"power/propeller_faces_flight", true}});
}

void clearance(const Inspection& in, Findings& found) {
  const auto& c = in.rig.power.clearance_m;
  if (c && *c < tight_clearance_m)
    found.add(*c <= 0 ? Severity::grounds : Severity::fix_first, "propeller",
              *c <= 0 ? "The propeller strikes the airframe"
                      : "The blade tips pass " + length_text(*c) + " from the airframe",
              "Blades bend forward and outward under load.", "A smaller propeller, or move the motor.");
}

void sagging(const Inspection& in, Findings& found) {
  const PowerReport& p = in.reports.power();
  if (!p.sag) return;
  if (const PartKind* k = kind_of(in.rig, in.catalogue, p.battery); k && k->battery)
    if (const double cell = k->battery->nominal_cell_v - p.sag->value / k->battery->cells;
        cell < sagging_cell_v && k->battery->empty_cell_v > 3.1)
      found.add(Severity::worth_knowing, p.battery, "At full throttle each cell falls to " + v(cell),
                "A low-voltage alarm or cut-off comes early, and the cells age.",
                "A larger battery, or one with less internal resistance.");
}

void usb_over(const Inspection& in, Findings& found) {
  const PowerReport& p = in.reports.power();
  for (std::size_t q = 0; q < p.network.rails.size(); ++q) {
    const RailState& s = p.states[static_cast<std::size_t>(SupplyState::usb)][q];
    if (s.source < 0 || p.network.rails[q].sources[static_cast<std::size_t>(s.source)].part != "computer" ||
        s.amps <= 0.5)
      continue;
    found.add(Severity::worth_knowing, "controller", "On USB alone " + number_text(s.amps, 2) + " A are drawn",
              "A port may give 0.5 A and then switches off.", "Put the battery in for the bench (propeller off).");
  }
}

void incomplete_drive(const Inspection& in, Findings& found) {
  if (!in.reports.power().drive) return;
  for (const Motor& m : in.reports.power().drive->motors)
    if (m.controller.empty() || m.propeller.empty() || m.battery.empty())
      found.add(Severity::worth_knowing, m.motor,
                capital(part_name(in.rig, in.catalogue, m.motor)) + " has no " +
                    (m.controller.empty()  ? "speed controller"
                     : m.propeller.empty() ? "propeller"
                                           : "battery") +
                    " in the plan",
                "Current and thrust can't be computed.", "Add it, and the leads between.");
}

void reserve(const Inspection& in, Findings& found) {
  const bool flies_home = in.controller && in.controller->family == Family::flight_controller;
  if (flies_home && !in.rig.parts.empty() && in.rig.power.reserve_share < 0.1)
    found
        .add(Severity::fix_first, "battery",
             "Only " + number_text(100 * in.rig.power.reserve_share, 0) + " % of the battery are kept in reserve",
             "The way home may be upwind.", "Keep 20 % or more.")
        .fix = sets("Keep 20 % in reserve", {{"power/reserve_share", 0.2}});
}

void same_hand(const Inspection& in, Findings& found) {
  int left = 0, all = 0;
  for (const Part& p : in.rig.parts)
    if (const PartKind* k = in.catalogue.part(p.kind); k && k->propeller) {
      ++all;
      left += k->propeller->left_handed;
    }
  if (all == 2 && left != 1)
    found.add(Severity::worth_knowing, "propeller", "Both propellers turn the same way",
              "Their torques add up and roll the model when throttle opens.",
              "One left-handed propeller, its motor turning the other way, cancels it.");
}

void plugs_differ(const Inspection& in, Findings& found) {
  for (const Part& p : in.rig.parts)
    for (const std::string& plug : {p.plug, p.motor_plug})
      if (const PartKind* k = in.catalogue.part(plug); !plug.empty() && (!k || !k->plug))
        found.add(Severity::fix_first, p.id,
                  capital(part_name(in.rig, in.catalogue, p.id)) + " brings a plug that is not known: \"" + plug + "\"",
                  "Whether it goes together with its partner, and what it bears, can't be said.",
                  "Choose its plug at station fit, or describe it in the parts file beside the rig.");
  for (const PlugJoint& j : plug_joints(in.rig, in.catalogue, in.reports.power())) {
    if (j.fits()) continue;
    const std::string giver = part_name(in.rig, in.catalogue, j.giver),
                      taker = part_name(in.rig, in.catalogue, j.taker);
    found.add(
        Severity::fix_first, j.taker,
        capital(giver) + " and " + taker + " bring different plugs: " + small(j.giving->name) + " and " +
            small(j.taking->name),
        "They do not go together, and wires that are only twisted come loose in the air.",
        j.phases
            ? "The same plugs on both: sleeves stay on the speed controller, each in its own heat-shrink, so that no "
              "two touch."
            : "An adapter with pins toward the " + giver + " and sleeves toward the " + taker +
                  ", or another plug soldered on: sleeves stay on what gives, so that nothing live lies open.");
  }
}

void plug_overloaded(const Inspection& in, Findings& found) {
  for (const PlugJoint& j : plug_joints(in.rig, in.catalogue, in.reports.power())) {
    if (j.bears_a <= 0 || j.amps <= j.bears_a) continue;
    found.add(Severity::fix_first, j.taker,
              (j.phases ? "The plugs at " : "The plug at ") + part_name(in.rig, in.catalogue, j.taker) +
                  (j.phases ? " bear " : " bears ") + number_text(j.bears_a, 0) +
                  (j.phases ? " A each and carry " : " A and carries ") + number_text(j.amps, 0) +
                  " A at full throttle",
              "It heats up until its solder flows, and its housing gives way.", "A larger plug on both sides.");
  }
}

void held_servos(const Inspection& in, Findings& found) {
  const PowerReport& r = in.reports.power();
  if (!r.servos_held || r.servo_source_a <= 0 || *r.servos_held->most <= r.servo_source_a) return;
  const bool sure = *r.servos_held->least > r.servo_source_a;
  found.add(sure ? Severity::fix_first : Severity::worth_knowing, "servos",
            "Held at full throw in fast flight the servos " + std::string(sure ? "draw " : "may draw ") +
                number_text(*r.servos_held->least, 1) + " to " + number_text(*r.servos_held->most, 1) + " A of " +
                number_text(r.servo_source_a, 1) + " A",
            "The air presses all of them at once in a hard pull-out.",
            "Less throw, an inner hole of the servo arm, or a stronger source for the servo rail.");
}

}  // namespace
}  // namespace rules::power

const std::vector<Rule>& power_rules() {
  using namespace rules::power;
  static const std::vector<Rule> rules{{"POWER-01", Station::power, two_sources, source::common},
                                       {"POWER-02", Station::power, servo_rail_dark, source::network},
                                       {"POWER-03", Station::power, overloaded, source::network},
                                       {"POWER-04", Station::power, far_overloaded, source::network},
                                       {"POWER-05", Station::power, two_stalled, source::network},
                                       {"POWER-06", Station::power, junction, source::junction},
                                       {"POWER-07", Station::power, warm, source::heat},
                                       {"POWER-08", Station::power, inlet_too_high, source::window},
                                       {"POWER-09", Station::power, inlet_too_low, source::window},
                                       {"POWER-10", Station::power, brown_out, source::network},
                                       {"POWER-11", Station::power, thin_margin, source::common},
                                       {"POWER-12", Station::power, too_much_voltage, source::window},
                                       {"POWER-13", Station::power, too_little_voltage, source::window},
                                       {"POWER-14", Station::power, dark, source::network},
                                       {"POWER-15", Station::power, idle_source, source::network},
                                       {"POWER-16", Station::power, battery_over, source::rating},
                                       {"POWER-17", Station::power, controller_over, source::rating},
                                       {"POWER-18", Station::power, motor_over, source::rating},
                                       {"POWER-19", Station::power, module_over, source::rating},
                                       {"POWER-20", Station::power, cells, source::rating},
                                       {"POWER-21", Station::power, weak, source::common},
                                       {"POWER-22", Station::power, facing, source::common},
                                       {"POWER-23", Station::power, clearance, source::common},
                                       {"POWER-24", Station::power, sagging, source::ohm},
                                       {"POWER-25", Station::power, usb_over, source::usb},
                                       {"POWER-26", Station::power, incomplete_drive, source::drive},
                                       {"POWER-27", Station::power, reserve, source::common},
                                       {"POWER-28", Station::power, same_hand, source::common},
                                       {"POWER-29", Station::power, held_servos, source::hinge},
                                       {"POWER-30", Station::power, starting_together, source::common},
                                       {"POWER-31", Station::power, plugs_differ, source::catalogue},
                                       {"POWER-32", Station::power, plug_overloaded, source::rating}};
  return rules;
}

}  // namespace rigging
