#include <algorithm>
#include <set>

#include "airframe/kinds.h"
#include "base/number.h"
#include "base/units.h"
#include "fit/edits.h"
#include "review/wiring_pieces.h"
#include "rig/path.h"
#include "wiring/edits.h"
#include "wiring/ports.h"
#include "wiring/routing.h"

namespace rigging {
namespace rules::wiring {
namespace {

void one_rate(const Inspection& in, Findings& found) {
  for (const TimerGroup& g : in.reports.wiring().groups) {
    if (g.rates_hz.size() < 2) continue;
    std::string rates;
    for (const double hz : g.rates_hz) rates += (rates.empty() ? "" : " and ") + number_text(hz, 0) + " Hz";
    Snag& n = found.add(
        Severity::fix_first, g.outputs.back(), "Outputs of timer group " + std::to_string(g.group) + " want " + rates,
        "Outputs that share a timer share a pulse rate: one forces the others.", "Give each rate a group of its own.");
    const std::vector<Obstacle>& obstacles = in.reports.plan().obstacles;
    if (std::none_of(obstacles.begin(), obstacles.end(), [&](const Obstacle& o) { return o.code == found.code(); }))
      n.fix = replan(in, g.outputs.back(), "Plan the sockets anew");
  }
}

void too_fast(const Inspection& in, Findings& found) {
  for (const Output& o : in.rig.outputs)
    for (const Part* p : servos_on(in.rig, in.catalogue, o.socket)) {
      const PartKind* k = in.catalogue.part(p->kind);
      if (!k->servo || o.rate_hz <= k->servo->most_rate_hz) continue;
      found
          .add(Severity::fix_first, p->id,
               name(in, p->id) + " gets " + number_text(o.rate_hz, 0) + " Hz; it bears " +
                   number_text(k->servo->most_rate_hz, 0) + " Hz",
               k->servo->digital ? "It gets hot and jitters." : "An analogue servo overheats on a fast pulse rate.",
               "Lower the rate of its timer group.")
          .fix = Fix{"Set its timer group to " + number_text(k->servo->most_rate_hz, 0) + " Hz",
                     [id = o.id, hz = k->servo->most_rate_hz](const Rig& rig, const Catalogue& c) {
                       return limit_rate(rig, c, id, hz);
                     }};
    }
}

void motor_among_servos(const Inspection& in, Findings& found) {
  if (!in.controller || in.controller->family != Family::flight_controller) return;
  std::set<int> groups;
  for (const Terminal& t : in.controller->outputs) groups.insert(t.timer_group);
  if (groups.size() < 2) return;
  for (const TimerGroup& g : in.reports.wiring().groups)
    if (g.motor && g.servo)
      found
          .add(Severity::worth_knowing, g.outputs.back(),
               "Motor and servos share timer group " + std::to_string(g.group),
               "A faster motor protocol would drive the servos with it.",
               "Give the motor a group of its own if there is one.")
          .fix = replan(in, g.outputs.back(), "Plan the sockets anew");
}

void throttle_bypass(const Inspection& in, Findings& found) {
  if (!in.controller || !in.controller->motor_bypasses()) return;
  for (const Touch& t : touches(in))
    if (group_of(in, t.other->part) == PartGroup::speed_controller)
      found.add(Severity::grounds, t.other->part, "The throttle lead goes through the " + in.controller->name,
                "The unit does not pass a throttle on: the motor stays still or runs by itself.",
                "Plug the speed controller into the receiver's throttle channel.");
}

void left_aileron_socket(const Inspection& in, Findings& found) {
  if (!in.controller) return;
  for (const Output& o : in.rig.outputs) {
    const Terminal* t = in.controller->socket(o.socket);
    const auto kept = t ? surface_from_name(t->serves) : std::nullopt;
    if (!kept || kept->kind != SurfaceKind::aileron || o.surfaces.empty()) continue;
    const bool both = o.surfaces.size() > 1;
    if (both && in.controller->surfaces.y_lead_in_either) continue;
    const bool wrong = both ? kept->side == Side::right
                            : o.surfaces.front().side != Side::single && o.surfaces.front().side != kept->side;
    if (!wrong) continue;
    const Terminal* right = nullptr;
    for (const Terminal& q : in.controller->outputs)
      if (const auto s = surface_from_name(q.serves); s && s->kind == SurfaceKind::aileron && s->side != kept->side)
        right = &q;
    found.add(Severity::fix_first, o.id,
              both ? "The Y-lead sits in the right aileron socket"
                   : capital(o.surfaces.front().label()) + " sits in the socket of the other side",
              both ? "This class works a single aileron lead from the left socket."
                   : "Its correction would be right, but differential and trims land on the wrong side.",
              "Use " + (right ? right->label : std::string("the other socket")) + ".");
  }
}

void socket_kept_for_another(const Inspection& in, Findings& found) {
  if (!in.controller) return;
  for (const Output& o : in.rig.outputs) {
    const Terminal* t = in.controller->socket(o.socket);
    if (!t || o.surfaces.empty() || socket_takes(*t, o)) continue;
    // A side that is exchanged is another rule's.
    if (const auto kept = surface_from_name(t->serves);
        kept && kept->kind == SurfaceKind::aileron && o.surfaces.front().kind == SurfaceKind::aileron)
      continue;
    found
        .add(Severity::fix_first, o.id,
             capital(o.surfaces.front().label()) + " sits in socket " + t->label + ", which this class keeps for the " +
                 label_of(t->serves),
             "Stick and correction of another axis would come out there.",
             "Move it to a socket of its own kind" +
                 std::string(in.controller->way("mix") ? ", or tell the board another order." : ".") +
                 " If the leaflet of your unit has another order, write it into My board.")
        .fix = replan(in, o.id, "Plan the sockets anew");
  }
}

void tow_release(const Inspection& in, Findings& found) {
  if (in.rig.airframe.kind != AirframeKind::towed_glider || in.rig.parts.empty()) return;
  const Output* tow = nullptr;
  for (const Output& o : in.rig.outputs)
    if (o.surfaces.empty() && o.passthrough_channel == 0) tow = &o;
  if (!tow) return;
  // Where the throttle bypasses the stabilizer, so does the release.
  const bool on_receiver =
      tow->socket.empty() && std::any_of(in.rig.leads.begin(), in.rig.leads.end(), [&](const Lead& l) {
        const auto is = [&](const LeadEnd& end, PartGroup group) { return group_of(in, end.part) == group; };
        return (is(l.from, PartGroup::servo) && is(l.to, PartGroup::receiver)) ||
               (is(l.to, PartGroup::servo) && is(l.from, PartGroup::receiver));
      });
  if (!on_receiver && servos_on(in.rig, in.catalogue, tow->socket).empty())
    found.add(Severity::fix_first, tow->id, "No servo hangs on the motor output for the tow release",
              "Closed throttle is latched, full throttle released: without it the tow can't be let go.",
              "Plug the release servo into the motor output's socket.");
}

void passes_through(const Inspection& in, Findings& found) {
  if (!in.controller) return;
  for (const Output& o : in.rig.outputs) {
    if (o.passthrough_channel == 0) continue;
    const std::string channel = "channel " + std::to_string(o.passthrough_channel);
    if (!o.surfaces.empty() || !(o.mix == Mix{})) {
      found
          .add(Severity::grounds, o.id,
               "Output " + o.id + " passes " + channel + " through, and is meant to mix commands as well",
               "Neither stick nor stabilizer would reach what hangs on it.", "It does one of the two.")
          .fix =
          sets("It mixes, and passes nothing through", {{path_of({"outputs", o.id, "passthrough_channel"}), 0.0}});
      continue;
    }
    if (!in.controller->way("passthrough_channel"))
      found.add(Severity::fix_first, o.id,
                "Output " + o.id + " should pass " + channel + " through, and this class can't", "It would stay still.",
                "Plug what hangs on it into the receiver.");
    else if (o.passthrough_channel > in.rig.radio.transmitter.channels)
      found.add(Severity::fix_first, o.id,
                "Output " + o.id + " passes " + channel + " through, and the transmitter has " +
                    std::to_string(in.rig.radio.transmitter.channels),
                "Nothing works it.", "Choose a channel that the transmitter has.");
    else if (const auto c = std::find_if(in.rig.radio.channels.begin(), in.rig.radio.channels.end(),
                                         [&](const Channel& x) { return x.number == o.passthrough_channel; });
             c != in.rig.radio.channels.end() && c->function != ChannelFunction::other)
      found.add(Severity::worth_knowing, o.id,
                "Output " + o.id + " passes " + channel + " through, which is also " + label_of(name_of(c->function)),
                "One control then works both.", "Choose a channel of its own, if that is not meant.");
  }
  for (const Part& p : in.rig.parts) {
    if (group_of(in, p.id) != PartGroup::camera_switch || output_for(in.rig, in.catalogue, p)) continue;
    found.add(Severity::fix_first, p.id, name(in, p.id) + " has no output that passes a channel through",
              "Nothing switches it.", "Let an output pass a free channel through, or plug it into the receiver.");
  }
}

void servo_without_surface(const Inspection& in, Findings& found) {
  const auto surfaces = surfaces_of(in.rig.airframe);
  for (const Part& p : in.rig.parts) {
    const PartKind* k = in.catalogue.part(p.kind);
    if (!k || k->group != PartGroup::servo || in.rig.airframe.kind == AirframeKind::towed_glider) continue;
    if (!p.surface ||
        std::find(surfaces.begin(), surfaces.end(), static_cast<const Surface&>(*p.surface)) == surfaces.end())
      found.add(
          Severity::fix_first, p.id,
          name(in, p.id) + (p.surface ? " works a surface that this airframe does not have" : " works no surface yet"),
          "The plan can't give it an output.", "Say which surface it works.");
  }
}

void surface_without_servo(const Inspection& in, Findings& found) {
  // Only once servos are in the list at all.
  const bool any = std::any_of(in.rig.parts.begin(), in.rig.parts.end(),
                               [&](const Part& p) { return group_of(in, p.id) == PartGroup::servo; });
  if (!any) return;
  for (const Surface s : surfaces_of(in.rig.airframe)) {
    if (s.kind == SurfaceKind::motor) continue;
    if (std::none_of(in.rig.parts.begin(), in.rig.parts.end(),
                     [&](const Part& p) { return p.surface && static_cast<const Surface&>(*p.surface) == s; }))
      found.add(Severity::fix_first, s.name(), "No servo works the " + s.label(), "It stays still.",
                "Add a servo for it.");
  }
}

void nothing_plugged(const Inspection& in, Findings& found) {
  if (in.rig.leads.empty() && in.rig.parts.empty()) return;
  for (const Part& p : in.rig.parts) {
    const PartKind* k = in.catalogue.part(p.kind);
    if (!k || k->terminals.empty() || k->group == PartGroup::lead) continue;
    if (plugged(in, p.id)) continue;
    if (const std::string needed = in.controller ? port_lacking(*in.controller, *k) : ""; !needed.empty())
      found
          .add(Severity::fix_first, p.id,
               "The " + in.controller->name + " has no " + needed + " for the " + name(in, p.id),
               "There is nowhere to plug it in, so it does nothing.", "Leave it out, or take a class that has one.")
          .fix =
          Fix{"Leave it out", [id = p.id](const Rig& rig, const Catalogue& c) { return remove_part(rig, c, id); }};
    else
      found
          .add(Severity::fix_first, p.id, name(in, p.id) + " is plugged in nowhere", "It does nothing.",
               obstacle_of(in, p.id) ? obstacle_of(in, p.id)->what : "Let the plan find its place.")
          .fix = replan(in, p.id, "Plan the wiring");
  }
}

void wrong_output(const Inspection& in, Findings& found) {
  for (const Touch& t : touches(in)) {
    const Part* p = in.rig.part(t.other->part);
    if (!p || !p->surface || !t.socket || t.socket->kind != TerminalKind::output) continue;
    // A motor on a surface's output is another rule's.
    const bool motor = group_of(in, p->id) == PartGroup::speed_controller;
    if (motor && std::none_of(in.rig.outputs.begin(), in.rig.outputs.end(),
                              [&](const Output& o) { return o.socket == t.socket->id && drives_motor(o); }))
      continue;
    const Output* wanted = output_for(in.rig, in.catalogue, *p);
    if (!wanted || wanted->socket == t.socket->id) continue;
    const Terminal* to = in.controller->socket(wanted->socket);
    if (!to) continue;
    found
        .add(Severity::grounds, p->id,
             name(in, p->id) + " is plugged into " + t.socket->label + "; its output " + wanted->id + " is on " +
                 to->label,
             motor ? "It would run on the other motor's commands: differential thrust would steer the wrong way."
                   : "It would move on another surface's commands.",
             "Move the plug, or the output.")
        .fix = move_end(t, *to);
  }
}

void motor_output(const Inspection& in, Findings& found) {
  for (const Touch& t : touches(in)) {
    if (group_of(in, t.other->part) != PartGroup::speed_controller || !t.socket ||
        t.socket->kind != TerminalKind::output || in.controller->motor_bypasses())
      continue;
    const bool right = std::any_of(in.rig.outputs.begin(), in.rig.outputs.end(),
                                   [&](const Output& o) { return o.socket == t.socket->id && drives_motor(o); });
    if (right) continue;
    Snag& n = found.add(Severity::grounds, t.other->part,
                        name(in, t.other->part) + " is plugged into " + t.socket->label + ", which is no motor output",
                        "The motor would run on a surface's commands: propeller off until this is right.",
                        "Move it to the motor's output.");
    for (const Output& o : in.rig.outputs)
      if (drives_motor(o))
        if (const Terminal* to = in.controller->socket(o.socket); to && !socket_used(in, to->id))
          n.fix = move_end(t, *to);
  }
}

/// A class whose sockets are told which channel they carry.
void routes(const Inspection& in, Findings& found) {
  const Routing r = routing_of(in.rig, in.catalogue);
  for (const std::string& clash : r.clashes) {
    std::string what = clash;
    if (what.ends_with('.')) what.pop_back();
    found.add(Severity::fix_first, "controller", what, "What hangs there would not answer, or answer another command.",
              "Route each socket anew; the table stands on the setting card and on the step at station proof.");
  }
}

}  // namespace
}  // namespace rules::wiring

const std::vector<Rule>& output_rules() {
  using namespace rules::wiring;
  static const std::vector<Rule> rules{{"WIRING-09", Station::wiring, one_rate, source::timer},
                                       {"WIRING-10", Station::wiring, too_fast, source::common},
                                       {"WIRING-11", Station::wiring, motor_among_servos, source::timer},
                                       {"WIRING-16", Station::wiring, throttle_bypass, source::board},
                                       {"WIRING-17", Station::wiring, left_aileron_socket, source::board},
                                       {"WIRING-18", Station::wiring, tow_release, source::common},
                                       {"WIRING-19", Station::wiring, servo_without_surface, source::plan},
                                       {"WIRING-20", Station::wiring, surface_without_servo, source::plan},
                                       {"WIRING-21", Station::wiring, nothing_plugged, source::plan},
                                       {"WIRING-22", Station::wiring, wrong_output, source::plan},
                                       {"WIRING-34", Station::wiring, socket_kept_for_another, source::board},
                                       {"WIRING-31", Station::wiring, motor_output, source::plan},
                                       {"WIRING-37", Station::wiring, passes_through, source::board},
                                       {"WIRING-40", Station::wiring, routes, source::board}};
  return rules;
}

}  // namespace rigging
