#include <algorithm>
#include <cmath>
#include <map>

#include "airframe/edits.h"
#include "airframe/kinds.h"
#include "base/find.h"
#include "base/number.h"
#include "base/units.h"
#include "catalogue/sockets.h"
#include "review/wiring_pieces.h"
#include "rig/path.h"
#include "sticks/edits.h"
#include "wiring/edits.h"
#include "wiring/lead_checks.h"
#include "wiring/ports.h"

namespace rigging {
namespace rules::wiring {
namespace {

constexpr double steep_drop_v = 0.3, amps_per_mm2 = 18;  // common practice

bool kept_for_other(const Inspection& in, const Terminal& t, const std::string& part) {
  if (t.serves.empty()) return false;
  const PartGroup g = group_of(in, part);
  return t.serves != name_of(g) && from_name<PartGroup>(t.serves).has_value();
}

const Terminal* free_port_for(const Inspection& in, const Touch& t, bool hardware) {
  if (!t.end) return nullptr;
  const PartKind* k = kind_of(in.rig, in.catalogue, t.other->part);
  for (const Terminal& p : in.controller->ports)
    if (mates(*t.end, p) && !socket_used(in, p.id) && !kept_for_other(in, p, t.other->part) &&
        !(hardware && p.emulated) && !(p.most_baud > 0 && k && k->serial && k->serial->baud > p.most_baud))
      return &p;
  return nullptr;
}

/// May several leads meet here?
bool shared(TerminalKind k) {
  return k == TerminalKind::two_wire || k == TerminalKind::battery_out || k == TerminalKind::output ||
         k == TerminalKind::supply || k == TerminalKind::ground || k == TerminalKind::power;
}

void one_job(const Inspection& in, Findings& found) {
  std::map<std::pair<std::string, std::string>, std::vector<const Lead*>> ends;
  for (const Lead& l : in.rig.leads)
    for (const LeadEnd* e : {&l.from, &l.to}) ends[{e->part, e->socket}].push_back(&l);
  for (const auto& [end, leads] : ends) {
    if (leads.size() < 2) continue;
    const Terminal* t = terminal(in, {end.first, end.second, {}});
    if (!t || (shared(t->kind) && !(end.first == "controller" && t->kind == TerminalKind::power))) continue;
    Snag& n = found.add(
        Severity::fix_first, end.first,
        std::to_string(leads.size()) + " leads at " + part_name(in.rig, in.catalogue, end.first) + " " + t->label,
        "A port does one job, and a socket takes one plug.", "Move one of them to a port of its own.");
    for (const Touch& touch : touches(in))
      if (touch.lead == leads.back() && end.first == "controller")
        if (const Terminal* to = free_port_for(in, touch, false)) n.fix = move_end(touch, *to);
  }
}

/// What makes two ends not fit together; the special cases have codes of their own.
bool inverted_case(const Terminal& a, const Terminal& b) {
  return (a.kind == TerminalKind::inverted_serial && b.kind == TerminalKind::serial) ||
         (b.kind == TerminalKind::inverted_serial && a.kind == TerminalKind::serial);
}

bool data_case(const Terminal& a, const Terminal& b) {
  const auto data = [](const Terminal& t) {
    return t.kind == TerminalKind::serial || t.kind == TerminalKind::serial_inverting;
  };
  const auto one_way = [](const Terminal& t) {
    return t.kind == TerminalKind::pulse_input || t.kind == TerminalKind::summed_input ||
           t.kind == TerminalKind::summed_output || t.kind == TerminalKind::two_wire || t.kind == TerminalKind::output;
  };
  return (data(a) && one_way(b)) || (data(b) && one_way(a));
}

bool sense_case(const Terminal& a, const Terminal& b) {
  return a.kind == TerminalKind::sense_output || b.kind == TerminalKind::sense_output;
}

void does_not_mate(const Inspection& in, Findings& found) {
  for (const Lead& l : in.rig.leads) {
    const Terminal *a = terminal(in, l.from), *b = terminal(in, l.to);
    if (!a || !b || mates(*a, *b) || inverted_case(*a, *b) || data_case(*a, *b) || sense_case(*a, *b)) continue;
    found.add(Severity::grounds, l.id, capital(at(in, l.from)) + " does not belong at " + at(in, l.to),
              "A " + label_of(name_of(a->kind)) + " and a " + label_of(name_of(b->kind)) +
                  " have nothing to say to each other, and plus may land where it destroys.",
              "Let the plan find its place.");
  }
}

void no_such_socket(const Inspection& in, Findings& found) {
  for (const Lead& l : in.rig.leads)
    for (const LeadEnd* e : {&l.from, &l.to}) {
      if (terminal(in, *e)) continue;
      const bool known =
          e->part == "controller" ? in.controller != nullptr : kind_of(in.rig, in.catalogue, e->part) != nullptr;
      if (!known) continue;  // said elsewhere
      found.add(Severity::fix_first, l.id,
                "Lead " + l.id + " ends at \"" + e->socket + "\", which the " +
                    part_name(in.rig, in.catalogue, e->part) + " does not have",
                "It leads nowhere.", "Choose one of its sockets.");
    }
}

void needs_inverting(const Inspection& in, Findings& found) {
  for (const Touch& t : touches(in)) {
    if (!t.socket || !t.end || !inverted_case(*t.socket, *t.end) || mates(*t.socket, *t.end)) continue;
    Snag& n = found.add(Severity::fix_first, t.other->part,
                        name(in, t.other->part) + " sends inverted serial, and " + t.socket->label + " can't invert",
                        "The controller hears nothing.", "Use a port that inverts its input.");
    if (const Terminal* to = free_port_for(in, t, true)) n.fix = move_end(t, *to);
  }
}

void needs_two_way(const Inspection& in, Findings& found) {
  for (const Touch& t : touches(in)) {
    if (!t.socket || !t.end || !data_case(*t.socket, *t.end) || mates(*t.socket, *t.end)) continue;
    Snag& n =
        found.add(Severity::fix_first, t.other->part,
                  name(in, t.other->part) + " does not fit " + t.socket->label + ": a data pair needs a serial port",
                  "No data arrives.", "Use a free serial port.");
    if (const Terminal* to = free_port_for(in, t, false)) n.fix = move_end(t, *to);
  }
}

void compass_off_bus(const Inspection& in, Findings& found) {
  if (!in.controller || in.controller->family != Family::flight_controller) return;
  for (const Part& p : in.rig.parts) {
    const PartKind* k = in.catalogue.part(p.kind);
    if (!k) continue;
    for (const Terminal& t : k->terminals) {
      if (t.kind != TerminalKind::two_wire) continue;
      const bool connected = std::any_of(in.rig.leads.begin(), in.rig.leads.end(),
                                         [&](const Lead& l) { return far_end(l, p.id, t.id) != nullptr; });
      const auto bus = std::find_if(in.controller->ports.begin(), in.controller->ports.end(),
                                    [](const Terminal& q) { return q.kind == TerminalKind::two_wire; });
      if (connected || bus == in.controller->ports.end()) continue;
      found
          .add(Severity::fix_first, p.id, name(in, p.id) + ": the two-wire bus is not connected",
               "Clock and data are a pair of their own, apart from the serial pair: without them there is no " +
                   std::string(k->group == PartGroup::airspeed ? "airspeed" : "compass") + ".",
               "Connect it to " + bus->label + ".")
          .fix = Fix{"Connect it to " + bus->label,
                     [part = p.id, end = t.id, to = bus->id](const Rig& rig, const Catalogue& c) {
                       return connect(rig, c, part, end, to);
                     }};
    }
  }
}

void pair_turned(const Inspection& in, Findings& found) {
  for (const Lead& l : in.rig.leads)
    if (l.pair_turned)
      found
          .add(Severity::fix_first, l.id, "The data pair of lead " + l.id + " is turned: transmit meets transmit",
               "No data either way; nothing is harmed.", "Exchange the two data wires: transmit goes to receive.")
          .fix = sets("The pair is exchanged now", {{path_of({"leads", l.id, "pair_turned"}), false}});
}

void plug_turned(const Inspection& in, Findings& found) {
  for (const Lead& l : in.rig.leads)
    if (l.plug_turned)
      found
          .add(
              Severity::grounds, l.id, "The plug of lead " + l.id + " is the wrong way round",
              "Plus and minus exchanged destroy things; signal on the minus edge keeps it still." +
                  std::string(in.controller && !in.controller->minus_edge.empty()
                                  ? " Minus is at " + in.controller->minus_edge + "."
                                  : ""),
              "Before any power: turn the plug. Labels printed beside a row may be off by a pin, so look at the wires.")
          .fix = sets("The plug is turned now", {{path_of({"leads", l.id, "plug_turned"}), false}});
}

void pads(const Inspection& in, Findings& found) {
  const WiringReport& w = in.reports.wiring();
  if (!in.controller || in.controller->pads.empty()) return;
  // Each power pad takes one wire; more than one lead on it is said by the rule on one job a port.
  if (w.ground_pads_needed > w.ground_pads)
    found.add(Severity::fix_first, "controller",
              std::to_string(w.ground_pads_needed) + " leads need a ground pad, the board has " +
                  std::to_string(w.ground_pads),
              "Two wires on one pad tear it off.", "A distribution board, or one spliced lead for several.");
}

void sense_wrong(const Inspection& in, Findings& found) {
  for (const Part& p : in.rig.parts) {
    const PartKind* k = in.catalogue.part(p.kind);
    if (!k || !in.controller) continue;
    for (const Terminal& t : k->terminals) {
      if (t.kind != TerminalKind::sense_output) continue;
      const auto right = std::find_if(in.controller->ports.begin(), in.controller->ports.end(),
                                      [](const Terminal& q) { return q.kind == TerminalKind::sense_input; });
      if (right == in.controller->ports.end()) continue;
      const Lead* lead = nullptr;
      const LeadEnd* far = nullptr;
      for (const Lead& l : in.rig.leads)
        if (const LeadEnd* f = far_end(l, p.id, t.id)) {
          lead = &l;
          far = f;
        }
      if (far && far->part == "controller" && far->socket == right->id) continue;
      Snag& n =
          found.add(Severity::fix_first, p.id,
                    lead ? "The measuring lead sits in " + at(in, *far) + ", not in " + right->label
                         : "The measuring lead of the " + part_name(in.rig, in.catalogue, p.id) + " is not connected",
                    "In the wrong socket the voltage reads zero, and low-voltage alarms and the return on low voltage "
                    "never come.",
                    "Plug it into " + right->label + ".");
      if (lead && !socket_used(in, right->id))
        n.fix = Fix{"Move it to " + right->label,
                    [part = p.id, id = lead->id, to = right->id](const Rig& rig, const Catalogue& c) {
                      return lead_to_board(rig, c, id, part, to);
                    }};
    }
  }
}

void software_port(const Inspection& in, Findings& found) {
  for (const Touch& t : touches(in))
    if (t.socket && t.socket->emulated)
      if (const Terminal* to = free_port_for(in, t, true))
        found
            .add(Severity::worth_knowing, t.other->part,
                 name(in, t.other->part) + " hangs on " + t.socket->label + ", a port made by software, while " +
                     to->label + " is free",
                 "It costs processor time.", "Use the hardware port.")
            .fix = move_end(t, *to);
}

void too_slow_port(const Inspection& in, Findings& found) {
  for (const Touch& t : touches(in)) {
    const PartKind* k = kind_of(in.rig, in.catalogue, t.other->part);
    if (!t.socket || t.socket->most_baud <= 0 || !k || !k->serial || k->serial->baud <= t.socket->most_baud) continue;
    Snag& n = found.add(Severity::fix_first, t.other->part,
                        name(in, t.other->part) + " talks at " + number_text(k->serial->baud, 0) + " baud; " +
                            t.socket->label + " keeps up to " + number_text(t.socket->most_baud, 0),
                        "Characters get lost.", "Use a hardware port, or set both to a lower rate.");
    if (const Terminal* to = free_port_for(in, t, true)) n.fix = move_end(t, *to);
  }
}

void reserved(const Inspection& in, Findings& found) {
  for (const Touch& t : touches(in)) {
    if (!t.socket || !t.end || !kept_for_other(in, *t.socket, t.other->part) || !mates(*t.socket, *t.end)) continue;
    // A receiver port that carries the rail's plus may feed it, where nothing else hangs on it: the plan does so, too.
    if (group_of(in, t.other->part) == PartGroup::regulator && t.socket->net == "servo" &&
        t.socket->kind != TerminalKind::pulse_input && t.socket->serves_as(TerminalKind::pulse_input))
      continue;
    found.add(Severity::fix_first, t.other->part,
              capital(t.socket->label) + " is kept for the " + label_of(t.socket->serves) + ", and the " +
                  part_name(in.rig, in.catalogue, t.other->part) + " sits in it",
              "This class expects nothing else there.", "Use another socket.");
  }
}

void y_lead(const Inspection& in, Findings& found) {
  if (!in.controller || in.controller->family != Family::flight_controller) return;
  if (in.rig.airframe.ailerons_joined) return;  // it was meant
  for (const Output& o : in.rig.outputs)
    if (o.surfaces.size() == 2 && o.surfaces[0].kind == SurfaceKind::aileron &&
        !in.reports.wiring().free_outputs.empty() && servos_on(in.rig, in.catalogue, o.socket).size() == 2)
      found
          .add(Severity::worth_knowing, o.id,
               "Both ailerons hang on one output, and " +
                   in.controller->socket(in.reports.wiring().free_outputs.front())->label + " is free",
               "Two outputs allow differential and flaps, and cure a side that moves the wrong way.",
               "Give each aileron an output.")
          .fix = Fix{"An output for each aileron", [](const Rig& rig, const Catalogue& catalogue) -> Result<Edit> {
                       const auto apart = join_ailerons(rig, catalogue, false);
                       return apart ? plan_all(apart->rig, catalogue) : apart;
                     }};
}

void too_short(const Inspection& in, Findings& found) {
  for (const Lead& l : in.rig.leads) {
    const Mounting *a = in.rig.mounting(l.from.part), *b = in.rig.mounting(l.to.part);
    if (!a || !b || !l.length_m) continue;
    const double straight = (point_of(*a) - point_of(*b)).norm();
    if (*l.length_m >= straight) continue;
    const double need = std::ceil((straight * 1.3 + 0.04) * 100) / 100;
    found
        .add(Severity::fix_first, l.id,
             "Lead " + l.id + " is " + length_text(*l.length_m) + " long; the way is " + length_text(straight) +
                 " straight",
             "A lead under tension works loose.", "Take " + length_text(need) + ".")
        .fix = sets("Take " + length_text(need), {{path_of({"leads", l.id, "length_m"}), need}});
  }
}

void steep_drop(const Inspection& in, Findings& found) {
  const PowerReport& p = in.reports.power();
  const Solution& worst = p.load_cases[static_cast<std::size_t>(LoadCase::two_stalled)];
  for (std::size_t w = 0; w < p.network.wires.size(); ++w) {
    const Wire& wire = p.network.wires[w];
    const Lead* l = wire.lead.empty() ? nullptr : in.rig.lead(wire.lead);
    const double drop = std::abs(worst.wire_a[w]) * wire.ohm;
    if (!l || drop <= steep_drop_v) continue;
    found.add(
        Severity::fix_first, l->id,
        "Lead " + l->id + " loses " + number_text(drop, 2) + " V at " + number_text(std::abs(worst.wire_a[w]), 1) +
            " A",
        "The part at its end gets that much less.",
        "A shorter lead, or thicker wire (" + number_text(std::max(0.0, lead_awg(*l) - 3), 0) + " AWG halves it).");
  }
}

void thin_power_lead(const Inspection& in, Findings& found) {
  const auto& d = in.reports.power().drive;
  if (!d || d->static_current.value <= 0) return;
  for (const Lead& l : in.rig.leads) {
    if (l.kind != LeadKind::power && l.kind != LeadKind::phase) continue;
    const bool drive = group_of(in, l.from.part) == PartGroup::speed_controller ||
                       group_of(in, l.to.part) == PartGroup::speed_controller ||
                       group_of(in, l.from.part) == PartGroup::power_module ||
                       group_of(in, l.to.part) == PartGroup::power_module;
    if (!drive) continue;
    const bool one_motor = group_of(in, l.from.part) == PartGroup::speed_controller ||
                           group_of(in, l.to.part) == PartGroup::speed_controller;
    const double amps = d->static_current.value / (one_motor ? static_cast<double>(d->motors.size()) : 1);
    const double area_mm2 = 1.7241e-8 / copper_ohm_per_m(lead_awg(l)) * 1e6;
    if (amps <= amps_per_mm2 * area_mm2) continue;
    found.add(Severity::fix_first, l.id,
              "Lead " + l.id + " carries " + number_text(amps, 1) + " A on " + number_text(area_mm2, 2) + " mm² (" +
                  number_text(lead_awg(l), 0) + " AWG)",
              "More than 18 A/mm² heats the insulation and costs thrust.", "Thicker wire.");
  }
}

void long_battery_leads(const Inspection& in, Findings& found) {
  constexpr double longest_m = 0.25;  // common practice
  if (!in.reports.power().drive) return;
  for (const Motor& m : in.reports.power().drive->motors)
    if (m.lead_m > longest_m + 1e-9)
      found.add(
          Severity::worth_knowing, m.controller,
          "Battery and " + part_name(in.rig, in.catalogue, m.controller) + " are " + length_text(m.lead_m) +
              " of lead apart",
          "The controller switches the current many thousand times a second: the inductance of long battery leads "
          "answers with voltage spikes that wear out its capacitors.",
          "Lengthen the motor's three leads instead, or add a capacitor of low resistance at the controller.");
}

void no_phases(const Inspection& in, Findings& found) {
  for (const Part& p : in.rig.parts) {
    if (group_of(in, p.id) != PartGroup::speed_controller) continue;
    const auto touched = [&](const char* end) {
      return std::any_of(in.rig.leads.begin(), in.rig.leads.end(),
                         [&](const Lead& l) { return far_end(l, p.id, end) != nullptr; });
    };
    if (!touched("servo") && (touched("motor") || touched("battery")))
      found.add(Severity::fix_first, p.id, name(in, p.id) + " has no signal: its servo lead is not plugged in",
                "The motor can't be commanded.", "Plug it into the motor's output.");
  }
}

/// Several parts and not one lead: everything that wants a lead waits for the plan.
void nothing_wired(const Inspection& in, Findings& found) {
  if (!in.rig.leads.empty() || in.rig.parts.size() < 2 || !in.controller) return;
  found
      .add(Severity::grounds, "controller",
           "Nothing is wired yet: " + std::to_string(in.rig.parts.size()) + " parts have no leads",
           "What is fed, from where, and which lead goes into which socket can't be judged before.",
           "Plan the wiring first; every lead can be moved afterwards.")
      .fix = replan(in, "controller", "Plan the wiring");
}

void lone_power(const Inspection& in, Findings& found) {
  // Power leads plugged, but the picture or data lead forgotten, or the other way round. A camera that keeps its
  // pictures, with nobody to send them, needs none.
  const bool sends = !parts_of(in.rig, in.catalogue, PartGroup::video_transmitter).empty();
  for (const Part& p : in.rig.parts) {
    const PartKind* k = in.catalogue.part(p.kind);
    if (!k || (k->group != PartGroup::camera && k->group != PartGroup::video_transmitter)) continue;
    const auto touched = [&](const std::string& end) {
      return std::any_of(in.rig.leads.begin(), in.rig.leads.end(),
                         [&](const Lead& l) { return far_end(l, p.id, end) != nullptr; });
    };
    for (const Terminal& t : k->terminals)
      if (!worth_having(t) && (t.id == "power" || sends) && !touched(t.id) &&
          touched(t.id == "power" ? "video" : "power"))
        found.add(Severity::fix_first, p.id, name(in, p.id) + ": the " + t.label + " lead is missing",
                  t.id == "power" ? "Without plus it stays dark." : "No picture reaches or leaves it.", "Connect it.");
  }
}

void serial_unplugged(const Inspection& in, Findings& found) {
  if (!in.controller) return;
  for (const Part& p : in.rig.parts) {
    const PartKind* k = in.catalogue.part(p.kind);
    if (!k || (k->group != PartGroup::satellite_receiver && k->group != PartGroup::receiver)) continue;
    const bool touched_at_all = std::any_of(in.rig.leads.begin(), in.rig.leads.end(),
                                            [&](const Lead& l) { return far_end(l, p.id) != nullptr; });
    if (!touched_at_all) continue;  // said by the rule on parts plugged in nowhere
    for (const Terminal& t : k->terminals) {
      if ((t.kind != TerminalKind::serial && t.kind != TerminalKind::inverted_serial) || worth_having(t)) continue;
      const bool touched = std::any_of(in.rig.leads.begin(), in.rig.leads.end(),
                                       [&](const Lead& l) { return far_end(l, p.id, t.id) != nullptr; });
      const bool pulses = std::any_of(in.rig.leads.begin(), in.rig.leads.end(), [&](const Lead& l) {
        const LeadEnd* far = far_end(l, p.id);
        return far && far->part == "controller" && terminal(in, *far) &&
               terminal(in, *far)->kind == TerminalKind::pulse_input;
      });
      if (!touched && !pulses)
        found
            .add(Severity::fix_first, p.id, name(in, p.id) + ": the " + t.label + " is not connected",
                 "No data reaches the controller.",
                 obstacle_of(in, p.id) ? obstacle_of(in, p.id)->what : "Let the plan find a port.")
            .fix = replan(in, p.id, "Plan the wiring");
    }
  }
}

/// The ports as told, against what hangs on them.
void ports_told(const Inspection& in, Findings& found) {
  if (!in.controller || !in.controller->way("ports")) return;
  const std::vector<Port> wanted = ports_wanted(in.rig, in.catalogue);
  const Fix follow{"Set the ports as the leads say", tell_ports};
  const char* why = "A port that is told another job, or another baud, hears nothing.";
  const auto label = [&](const std::string& socket) {
    const Terminal* t = in.controller->terminal(socket);
    return t ? t->label : socket;
  };
  if (in.rig.ports.empty() && !wanted.empty()) {
    found
        .add(Severity::fix_first, wanted.front().socket,
             wanted.size() == 1 ? label(wanted.front().socket) + " is not told yet what hangs on it"
                                : std::to_string(wanted.size()) + " ports are not told yet what hangs on them",
             why, "Set job, baud and direction of each.")
        .fix = follow;
    return;
  }
  // A lead in a socket where it does not belong, and two in one, are said elsewhere; and what a receiver puts out is
  // the sticks' business.
  std::vector<std::string> off;
  std::string first;
  const std::vector<Touch> all = touches(in);
  for (const Touch& t : all) {
    if (!t.socket || !t.end || !mates(*t.socket, *t.end)) continue;
    const bool alone = std::count_if(all.begin(), all.end(), [&](const Touch& o) { return o.socket == t.socket; }) == 1;
    const Port* should = find_in(wanted, [&](const Port& p) { return p.socket == t.socket->id; });
    const Port* is = in.rig.port(t.socket->id);
    if (!alone || !should || (is && *is == *should)) continue;
    const std::string what = deaf_because(in.rig, in.catalogue, *t.lead);
    if (what.empty()) continue;
    off.push_back(what);
    if (first.empty()) first = t.socket->id;
  }
  if (!off.empty())
    found
        .add(
            Severity::fix_first, first,
            capital(off.front()) + (off.size() == 1 ? "" : ", and " + std::to_string(off.size() - 1) + " more like it"),
            why, "Set it as its lead says.")
        .fix = follow;
  for (const Port& p : in.rig.ports) {
    const bool hangs = std::any_of(wanted.begin(), wanted.end(), [&](const Port& w) { return w.socket == p.socket; });
    // A part of this job that is plugged in elsewhere, or nowhere, is said by itself.
    const bool aboard = std::any_of(in.rig.parts.begin(), in.rig.parts.end(), [&](const Part& part) {
      const PartKind* k = in.catalogue.part(part.kind);
      return k && std::any_of(k->terminals.begin(), k->terminals.end(),
                              [&](const Terminal& t) { return job_of(*k, t) == p.job; });
    });
    if (p.job == PortJob::none || hangs || aboard) continue;
    found
        .add(Severity::worth_knowing, p.socket,
             label(p.socket) + " is told " + label_of(name_of(p.job)) + ", and nothing of that kind is aboard",
             "Left over from another model it can block arming, and it keeps the port from another job.",
             "Free it, or add the part.")
        .fix = follow;
  }
}

void return_wire(const Inspection& in, Findings& found) {
  for (const Part& p : in.rig.parts) {
    const PartKind* k = in.catalogue.part(p.kind);
    if (!k || !in.controller) continue;
    for (const Terminal& t : k->terminals) {
      if (!worth_having(t) || std::any_of(in.rig.leads.begin(), in.rig.leads.end(),
                                          [&](const Lead& l) { return far_end(l, p.id, t.id) != nullptr; }))
        continue;
      const bool telemetry = t.serves == name_of(PortJob::telemetry);
      found.add(Severity::worth_knowing, p.id, name(in, p.id) + ": its " + t.label + " wire is not connected",
                telemetry ? "The transmitter then shows nothing of the battery and the way home."
                          : "Channel and power are then set on the video transmitter itself.",
                "Lay it to a port that is left, if there is one.");
    }
  }
}

void changed_since(const Inspection& in, Findings& found) {
  // One cause, one snag: another board touches every lead that ends on it.
  std::map<std::string, std::vector<std::string>> leads;
  for (const CheckStatus& c : in.checks)
    if (c.id.family == lead_family && c.state == ProofState::stale) leads[c.because()].push_back(c.id.subject);
  for (const auto& [because, ids] : leads)
    found.add(Severity::fix_first, ids.front(),
              ids.size() == 1 ? "Lead " + ids.front() + " was changed since it was looked at"
                              : std::to_string(ids.size()) + " leads were changed since they were looked at",
              "Changed: " + because + ".",
              ids.size() == 1 ? "Look at it and try it again." : "Look at each and try it again.");
}

/// A class with an input for each switch: without its lead the mode of that input never comes.
void switch_without_lead(const Inspection& in, Findings& found) {
  if (!in.controller) return;
  const ControllerClass& c = *in.controller;
  const auto at_board = [&](const Terminal& t) {
    return std::any_of(in.rig.leads.begin(), in.rig.leads.end(),
                       [&](const Lead& l) { return far_end(l, "controller", t.id) != nullptr; });
  };
  // A receiver whose channels come on one wire, or no wiring at all yet, has other sentences.
  if (std::none_of(c.ports.begin(), c.ports.end(), [&](const Terminal& t) {
        return t.kind == TerminalKind::pulse_input && from_name<Axis>(t.serves) && at_board(t);
      }))
    return;
  for (const Terminal& t : c.ports) {
    const int n = t.serves == "mode" ? 1 : t.serves == "mode_2" ? 2 : 0;
    if (n == 0 || t.kind != TerminalKind::pulse_input || at_board(t)) continue;
    const ModeChoice* choice = find_in(c.home.fixed_modes, [&](const ModeChoice& m) { return m.channel == n; });
    if (!choice) continue;
    const bool levels = choice->mode == name_of(Mode::level);
    // Without a channel for it the function may be meant to be fixed in the menu.
    const bool has_channel = mode_channels(in.rig, c).size() >= static_cast<std::size_t>(n);
    Snag& s = found.add(has_channel ? Severity::fix_first : Severity::worth_knowing, t.id,
                        "No lead comes to " + t.label + ", which switches " +
                            (levels ? std::string("levelling") : choice->mode + " correction") + " on",
                        levels ? "It never levels." : "It never corrects.",
                        "A lead from a receiver channel on a switch; or fix the function on, or off, in its menu where "
                        "channels are short.");
    s.fix = Fix{"Lay its lead", [](const Rig& rig, const Catalogue& catalogue) {
                  return plan_all(with_switch_channels(rig, catalogue), catalogue);
                }};
  }
}

}  // namespace
}  // namespace rules::wiring

const std::vector<Rule>& lead_rules() {
  using namespace rules::wiring;
  static const std::vector<Rule> rules{{"WIRING-01", Station::wiring, one_job, source::common},
                                       {"WIRING-02", Station::wiring, does_not_mate, source::terminals},
                                       {"WIRING-03", Station::wiring, no_such_socket, source::catalogue},
                                       {"WIRING-04", Station::wiring, needs_inverting, source::inverted},
                                       {"WIRING-05", Station::wiring, needs_two_way, source::terminals},
                                       {"WIRING-06", Station::wiring, compass_off_bus, source::common},
                                       {"WIRING-07", Station::wiring, pair_turned, source::common},
                                       {"WIRING-08", Station::wiring, plug_turned, source::common},
                                       {"WIRING-12", Station::wiring, pads, source::catalogue},
                                       {"WIRING-13", Station::wiring, sense_wrong, source::common},
                                       {"WIRING-14", Station::wiring, software_port, source::common},
                                       {"WIRING-15", Station::wiring, too_slow_port, source::baud},
                                       {"WIRING-23", Station::wiring, y_lead, source::common},
                                       {"WIRING-24", Station::wiring, reserved, source::board},
                                       {"WIRING-25", Station::wiring, too_short, source::geometry},
                                       {"WIRING-26", Station::wiring, steep_drop, source::ohm},
                                       {"WIRING-27", Station::wiring, thin_power_lead, source::common},
                                       {"WIRING-28", Station::wiring, no_phases, source::plan},
                                       {"WIRING-29", Station::wiring, lone_power, source::common},
                                       {"WIRING-30", Station::wiring, serial_unplugged, source::plan},
                                       {"WIRING-32", Station::wiring, changed_since, source::proof},
                                       {nothing_wired_code, Station::wiring, nothing_wired, source::plan},
                                       {"WIRING-33", Station::wiring, long_battery_leads, source::common},
                                       {"WIRING-35", Station::wiring, ports_told, source::plan},
                                       {"WIRING-36", Station::wiring, return_wire, source::common},
                                       {"WIRING-39", Station::wiring, switch_without_lead, source::board}};
  return rules;
}

}  // namespace rigging
