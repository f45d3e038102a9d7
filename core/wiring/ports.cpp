#include "wiring/ports.h"

#include <algorithm>
#include <cmath>

#include "base/find.h"
#include "base/number.h"
#include "wiring/wiring.h"

namespace rigging {
namespace {

using T = TerminalKind;

/// A receiver and a port may differ by as much and still understand each other (8N1: half a bit in ten).
constexpr double baud_off = 0.03;

const Terminal* port_at(const ControllerClass& c, const std::string& id) {
  return find_in(c.ports, [&](const Terminal& t) { return t.id == id; });
}

PortDirection direction_of(PortJob job, std::optional<Signal> signal) {
  switch (job) {
    case PortJob::receiver: return signal == Signal::two_way_serial ? PortDirection::both : PortDirection::listens;
    case PortJob::telemetry:
    case PortJob::video_control: return PortDirection::speaks;
    default: return PortDirection::both;
  }
}

struct AtPort {
  const Terminal *port = nullptr, *end = nullptr;
  const Part* part = nullptr;
  const PartKind* kind = nullptr;
};

std::optional<AtPort> at_port(const Rig& rig, const Catalogue& catalogue, const Lead& l) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  const LeadEnd* far = far_end(l, "controller");
  if (!c || !far) return std::nullopt;
  AtPort a;
  a.port = port_at(*c, (far == &l.to ? l.from : l.to).socket);
  a.part = rig.part(far->part);
  a.kind = a.part ? catalogue.part(a.part->kind) : nullptr;
  a.end = a.kind ? a.kind->terminal(far->socket) : nullptr;
  if (!a.port || !a.end || !can_be_told(*a.port) || job_of(*a.kind, *a.end) == PortJob::none) return std::nullopt;
  return a;
}

Port wanted(const AtPort& a) {
  Port p;
  p.socket = a.port->id;
  p.job = job_of(*a.kind, *a.end);
  const auto signal = p.job == PortJob::receiver ? says(*a.part, *a.end) : std::nullopt;
  // A receiver's signal has a baud of its own.
  if (p.job != PortJob::receiver) p.baud = baud_of(*a.part, *a.kind);
  p.direction = direction_of(p.job, signal);
  return p;
}

bool same_baud(const std::optional<double>& a, const std::optional<double>& b) {
  return !a || !b || std::abs(*a - *b) <= baud_off * *b;
}

/// "satellite receiver, 115200 baud".
std::string port_words(const Port& p) {
  std::string words = label_of(name_of(p.job));
  if (p.job == PortJob::none) return "no job";
  if (p.baud) words += ", " + number_text(*p.baud, 0) + " baud";
  if (p.direction != PortDirection::both) words += std::string(", ") + std::string(name_of(p.direction)) + " only";
  return words;
}

}  // namespace

bool can_be_told(const Terminal& t) {
  return (t.serves_as(T::serial) || t.serves_as(T::serial_inverting) || t.serves_as(T::summed_input)) &&
         t.kind != T::pulse_input && t.kind != T::usb;
}

PortJob job_of(const PartKind& kind, const Terminal& end) {
  if (const auto own = from_name<PortJob>(end.serves)) return *own;
  if (kind.group == PartGroup::receiver) return PortJob::receiver;
  if (kind.group == PartGroup::satellite_receiver) return PortJob::satellite_receiver;
  return PortJob::none;
}

std::vector<Signal> signals_of(const Terminal& t) {
  std::vector<Signal> all;
  const auto add = [&](T kind) {
    switch (kind) {
      case T::inverted_serial: all.push_back(Signal::inverted_serial); break;
      case T::serial: all.push_back(Signal::two_way_serial); break;
      case T::summed_output: all.push_back(Signal::summed); break;
      case T::output: all.push_back(Signal::pulse); break;
      default: break;
    }
  };
  if (!t.serves.empty() && from_name<PortJob>(t.serves)) return all;  // a return wire says nothing of the sticks
  add(t.kind);
  for (const T kind : t.also) add(kind);
  return all;
}

std::optional<Signal> says(const Part& receiver, const Terminal& socket) {
  const std::vector<Signal> can = signals_of(socket);
  if (receiver.says && std::find(can.begin(), can.end(), *receiver.says) != can.end()) return receiver.says;
  return can.empty() ? std::nullopt : std::optional(can.front());
}

bool takes(const Terminal& port, Signal signal) {
  switch (signal) {
    case Signal::pulse: return port.serves_as(T::pulse_input);
    case Signal::summed: return port.serves_as(T::summed_input);
    case Signal::inverted_serial: return port.serves_as(T::serial_inverting);
    case Signal::two_way_serial: return port.serves_as(T::serial) || port.serves_as(T::serial_inverting);
  }
  return false;
}

bool hears_a_receiver(const ControllerClass& controller) {
  const auto terminals = controller.terminals();
  return std::any_of(terminals.begin(), terminals.end(), [](const Terminal* t) {
    if (t->serves == "regulator") return false;  // a servo plug that only brings a voltage
    return takes(*t, Signal::pulse) || takes(*t, Signal::summed) || takes(*t, Signal::two_way_serial);
  });
}

std::string signal_label(Signal s) {
  switch (s) {
    case Signal::pulse: return "pulses per channel";
    case Signal::summed: return "summed pulses";
    case Signal::inverted_serial: return "inverted serial";
    case Signal::two_way_serial: return "two-way serial";
  }
  return {};
}

std::optional<Signal> receiver_signal(const Rig& rig, const Catalogue& catalogue) {
  for (const Part& p : rig.parts) {
    const PartKind* kind = catalogue.part(p.kind);
    if (!kind || kind->group != PartGroup::receiver) continue;
    // The terminal that a lead uses decides, where a receiver has more than one kind.
    std::optional<Signal> first;
    for (const Terminal& t : kind->terminals) {
      const auto s = says(p, t);
      if (!s) continue;
      if (!first) first = s;
      for (const Lead& l : rig.leads)
        if (const LeadEnd* far = far_end(l, "controller"); far && far->part == p.id && far->socket == t.id) return s;
    }
    return first;
  }
  return std::nullopt;
}

bool worth_having(const Terminal& t) {
  return t.serves == name_of(PortJob::telemetry) || t.serves == name_of(PortJob::video_control);
}

std::string port_lacking(const ControllerClass& controller, const PartKind& kind) {
  if (kind.group == PartGroup::receiver) return {};  // which may be set to say something else
  const Terminal* data = nullptr;
  for (const Terminal& t : kind.terminals) {
    if (worth_having(t)) continue;
    const bool is_data = t.kind == TerminalKind::serial || t.kind == TerminalKind::two_wire;
    if (!is_data || std::any_of(controller.ports.begin(), controller.ports.end(),
                                [&](const Terminal& port) { return mates(t, port); }))
      return {};
    if (!data) data = &t;
  }
  return !data ? "" : data->kind == TerminalKind::two_wire ? "two-wire bus" : "serial port";
}

std::optional<double> baud_of(const Part& part, const PartKind& kind) {
  if (part.baud) return part.baud;
  return kind.serial ? std::optional(kind.serial->baud) : std::nullopt;
}

std::vector<Port> ports_wanted(const Rig& rig, const Catalogue& catalogue) {
  std::vector<Port> all;
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c || !c->way("ports")) return all;
  for (const Terminal& t : c->ports)
    for (const Lead& l : rig.leads)
      if (const auto a = at_port(rig, catalogue, l); a && a->port == &t) {
        all.push_back(wanted(*a));
        break;
      }
  return all;
}

void ports_follow(Rig& rig, const Catalogue& catalogue) {
  std::vector<Port> ports = ports_wanted(rig, catalogue);
  // What this version does not know of a port stays with it.
  for (Port& p : ports)
    if (const Port* before = rig.port(p.socket)) p.unknown_members = before->unknown_members;
  rig.ports = std::move(ports);
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  rig.radio.receiver_signal = c && c->way("receiver_signal") ? receiver_signal(rig, catalogue) : std::nullopt;
}

Edit tell_ports(const Rig& rig, const Catalogue& catalogue) {
  Edit edit{rig, "Ports set as the leads say"};
  ports_follow(edit.rig, catalogue);
  return edit;
}

Result<Edit> set_port(const Rig& rig, const Catalogue& catalogue, const Port& port) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  const Terminal* t = c ? port_at(*c, port.socket) : nullptr;
  if (!t || !can_be_told(*t))
    return failure(port.socket, "is no serial port of this controller", "one that `wiring` lists");
  if (!c->way("ports")) return failure(t->label, "is not set with this class: it knows its job", "another class");
  if (port.baud && t->most_baud > 0 && *port.baud > t->most_baud)
    return failure(t->label, "can't make " + number_text(*port.baud, 0) + " baud",
                   "at most " + number_text(t->most_baud, 0));
  Edit edit{rig, t->label + ": " + port_words(port)};
  std::erase_if(edit.rig.ports, [&](const Port& p) { return p.socket == port.socket; });
  if (port.job != PortJob::none) edit.rig.ports.push_back(port);
  const auto order = [&](const Port& p) { return port_at(*c, p.socket); };
  std::stable_sort(edit.rig.ports.begin(), edit.rig.ports.end(),
                   [&](const Port& a, const Port& b) { return order(a) < order(b); });
  return edit;
}

Result<Edit> receiver_says(const Rig& rig, const Catalogue& catalogue, const std::string& part, Signal signal) {
  Edit edit{rig, capital(part_name(rig, catalogue, part)) + " puts out " + signal_label(signal)};
  Part* p = edit.rig.part(part);
  const PartKind* k = p ? catalogue.part(p->kind) : nullptr;
  if (!k || k->group != PartGroup::receiver) return failure(part, "is no receiver of this rig", "the id of one");
  for (const Terminal& t : k->terminals) {
    const auto can = signals_of(t);
    if (can.size() < 2 || std::find(can.begin(), can.end(), signal) == can.end()) continue;
    p->says = signal == can.front() ? std::nullopt : std::optional(signal);
    return edit;
  }
  return failure(part, "can't be set to " + signal_label(signal), "a signal that its outlet can be set to");
}

std::string deaf_because(const Rig& rig, const Catalogue& catalogue, const Lead& lead) {
  const auto a = at_port(rig, catalogue, lead);
  if (!a) return {};
  const ControllerClass& c = *catalogue.controller(rig.controller.kind);
  const Port should = wanted(*a);
  const std::string who = part_name(rig, catalogue, a->part->id);
  if (should.job == PortJob::receiver) {
    const auto signal = says(*a->part, *a->end);
    if (signal && !takes(*a->port, *signal))
      return "the " + who + " puts out " + signal_label(*signal) + ", and " + a->port->label + " can't take that";
    if (signal && c.way("receiver_signal") && rig.radio.receiver_signal && *rig.radio.receiver_signal != *signal)
      return "the " + who + " puts out " + signal_label(*signal) + ", and the board listens for " +
             signal_label(*rig.radio.receiver_signal);
  }
  if (!c.way("ports") || rig.ports.empty()) return {};
  const Port* is = rig.port(should.socket);
  if (!is || is->job != should.job)
    return a->port->label + " is told " + (is ? label_of(name_of(is->job)) : std::string("nothing")) + ", and the " +
           who + " hangs on it as " + label_of(name_of(should.job));
  if (!same_baud(is->baud, should.baud))
    return a->port->label + " is set to " + number_text(*is->baud, 0) + " baud, and the " + who + " speaks " +
           number_text(*should.baud, 0);
  if (is->direction != should.direction && is->direction != PortDirection::both)
    return a->port->label + " is told " + label_of(name_of(is->direction)) + " only";
  return {};
}

}  // namespace rigging
