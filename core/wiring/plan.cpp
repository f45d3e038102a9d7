#include "wiring/planner.h"

#include <algorithm>
#include <cmath>

#include "catalogue/sockets.h"
#include "wiring/output_plan.h"
#include "wiring/ports.h"

namespace rigging {

using namespace plan_cost;

Plan Planner::take() {
  if (!controller_) {
    plan_.obstacles.push_back(
        {"controller", "No controller class \"" + before_.controller.kind + "\" is known", "AIRFRAME-01"});
    return std::move(plan_);
  }
  plan_outputs(plan_, *controller_);
  servos_and_motors();
  serial_ports(false);
  serial_ports(true);
  pulse_receivers();
  battery_side();
  two_wire();
  regulators();
  red_wires();
  feed_dark_rails();
  video_and_pads();
  red_wires();
  say_what_stays_dark();
  ports_follow(plan_.rig, catalogue_);
  std::stable_sort(plan_.rig.leads.begin(), plan_.rig.leads.end(),
                   [](const Lead& a, const Lead& b) { return a.id < b.id; });
  for (const Choice& c : plan_.choices) plan_.changes += c.changed;
  return std::move(plan_);
}

const LeadEnd* Planner::goes(const std::string& part, const std::string& socket, const std::string& other) const {
  for (const Lead& l : plan_.rig.leads)
    if (const LeadEnd* far = far_end(l, part, socket); far && (other.empty() || far->part == other)) return far;
  return nullptr;
}

bool Planner::is_fixed(const std::string& part, const std::string& socket) const {
  return std::any_of(plan_.rig.leads.begin(), plan_.rig.leads.end(),
                     [&](const Lead& l) { return l.fixed && far_end(l, part, socket); });
}

void Planner::connect(const std::string& part, const std::string& socket, const std::string& to,
                      const std::string& to_socket, const std::string& why) {
  Lead* lead = nullptr;
  for (Lead& l : rig().leads)
    if (const LeadEnd* far = far_end(l, part, socket); far && far->part == to && far->socket == to_socket) lead = &l;
  const bool stays = lead != nullptr;
  if (!lead)
    for (Lead& l : rig().leads)
      if (!settled_.count(l.id) && !l.fixed && far_end(l, part, socket)) lead = &l;
  if (!lead) {
    Lead fresh;
    fresh.id = part;
    for (int n = 2; rig().lead(fresh.id); ++n) fresh.id = part + "_" + (n == 2 ? socket : socket + std::to_string(n));
    rig().leads.push_back(fresh);
    lead = &rig().leads.back();
  }
  if (!stays) {
    lead->from = {part, socket, {}};
    lead->to = {to, to_socket, {}};
    const Terminal *a = terminal(part, socket), *b = terminal(to, to_socket);
    if (a && b) lead->kind = usual_lead(*a, *b);
    // One lead that feeds a whole rail is made of thicker wire than a servo's.
    const PartKind* k = kind_of(plan_.rig, catalogue_, part);
    if (k && !k->feeds.empty() && lead->kind == LeadKind::servo && !lead->gauge_awg) lead->gauge_awg = 22;
  }
  settled_.insert(lead->id);
  const Terminal* t = terminal(to, to_socket);
  plan_.choices.push_back({part, socket, name(to) + " " + (t ? t->label : to_socket), why, !stays});
}

void Planner::servos_and_motors() {
  for (const Part* p : parts_of(PartGroup::servo)) {
    if (is_fixed(p->id, "plug")) {
      keep(p->id, "plug");
      continue;
    }
    const Output* o = output_for(rig(), catalogue_, *p);
    if (!o) {
      obstacle(p->id, capital(name(p->id)) + " belongs to no surface of this airframe: say which surface it works",
               "WIRING-19");
      continue;
    }
    if (o->socket.empty()) {
      if (!p->surface && controller_->motor_bypasses()) leave_on_receiver(p->id, "plug");
      continue;
    }
    connect(p->id, "plug", "controller", o->socket, "output " + o->id + " drives it");
    if (o->surfaces.size() > 1)
      for (Lead& l : rig().leads)
        if (l.from.part == p->id && l.to.socket == o->socket) l.kind = LeadKind::y_lead;
  }
  for (const Part* p : parts_of(PartGroup::camera_switch)) {
    if (is_fixed(p->id, "control")) {
      keep(p->id, "control");
      continue;
    }
    const Output* o = output_for(rig(), catalogue_, *p);
    if (!o || o->socket.empty())
      obstacle(p->id, capital(name(p->id)) + " needs an output that passes a channel through", "WIRING-37");
    else
      connect(p->id, "control", "controller", o->socket, "output " + o->id + " passes its channel through");
  }
  for (const Part* p : parts_of(PartGroup::speed_controller)) {
    // Its motor: the one with the same side, else in order.
    if (!is_fixed(p->id, "motor")) {
      const Part* mine = nullptr;
      for (const Part* m : parts_of(PartGroup::motor))
        if (!busy(m->id, "phases") && (!mine || (m->surface && p->surface && *m->surface == *p->surface))) mine = m;
      if (mine) connect(p->id, "motor", mine->id, "phases", "its motor");
    } else {
      keep(p->id, "motor");
    }
    if (is_fixed(p->id, "servo")) {
      keep(p->id, "servo");
      continue;
    }
    const Output* o = output_for(rig(), catalogue_, *p);
    if (controller_->motor_bypasses() || (o && o->socket.empty())) {
      leave_on_receiver(p->id, "servo");
    } else if (o) {
      connect(p->id, "servo", "controller", o->socket, "the motor's output");
    } else {
      obstacle(p->id, capital(name(p->id)) + " has no output: the rig has no throttle output for it", "WIRING-28");
    }
  }
}

void Planner::leave_on_receiver(const std::string& part, const std::string& socket) {
  if (const auto [rx, ch] = receiver_channel(ChannelFunction::throttle); !rx.empty())
    connect(part, socket, rx, ch, "the throttle lead stays on the receiver");
  else
    obstacle(part, "The throttle has to stay on the receiver, and the receiver has no pulse output for it",
             "WIRING-16");
}

void Planner::keep(const std::string& part, const std::string& socket) {
  for (const Lead& l : rig().leads)
    if (const LeadEnd* far = far_end(l, part, socket); far && !settled_.count(l.id)) {
      settled_.insert(l.id);
      const Terminal* t = terminal(far->part, far->socket);
      plan_.choices.push_back(
          {part, socket, name(far->part) + " " + (t ? t->label : far->socket), "kept by hand", false});
    }
}

std::pair<std::string, std::string> Planner::receiver_channel(ChannelFunction f) const {
  for (const Channel& c : plan_.rig.radio.channels)
    if (c.function == f)
      if (auto output = receiver_output(c.number); !output.first.empty()) return output;
  return {};
}

std::pair<std::string, std::string> Planner::receiver_output(int channel) const {
  for (const Part* rx : parts_of(PartGroup::receiver))
    if (const Terminal* t = terminal(rx->id, "ch" + std::to_string(channel)); t && t->kind == TerminalKind::output)
      return {rx->id, t->id};
  return {};
}

void Planner::serial_ports(bool spareable) {
  struct Wanting {
    const Part* part;
    const Terminal* end;
  };
  std::vector<Wanting> wanting;
  for (const Part& p : rig().parts) {
    const PartKind* k = catalogue_.part(p.kind);
    if (!k) continue;
    for (const Terminal& t : k->terminals) {
      const bool data = t.kind == TerminalKind::serial || t.kind == TerminalKind::inverted_serial ||
                        t.kind == TerminalKind::summed_output;
      if (!data || worth_having(t) != spareable) continue;
      if (is_fixed(p.id, t.id))
        keep(p.id, t.id);
      else
        wanting.push_back({&p, &t});
    }
  }
  std::vector<const Terminal*> ports;
  for (const Terminal& t : controller_->ports)
    if (t.kind == TerminalKind::serial || t.kind == TerminalKind::serial_inverting ||
        t.serves_as(TerminalKind::summed_input))
      if (!busy("controller", t.id)) ports.push_back(&t);
  std::vector<std::vector<double>> cost;
  for (const Wanting& w : wanting) {
    const PartKind* k = catalogue_.part(w.part->kind);
    const LeadEnd* now = goes(w.part->id, w.end->id, "controller");
    std::vector<double> row;
    for (std::size_t i = 0; i < ports.size(); ++i) {
      const Terminal& t = *ports[i];
      double c = now && now->socket == t.id ? 0 : moved + order * static_cast<double>(i) + way_cost(*w.part, t);
      const bool kept_for_other = !t.serves.empty() && t.serves != name_of(k->group) &&
                                  !(k->group == PartGroup::receiver && w.end->kind == TerminalKind::summed_output);
      const bool too_slow = t.most_baud > 0 && k->serial && k->serial->baud > t.most_baud;
      // One whose output is chosen can be set to another; better a port that takes what it is set to.
      if (const auto signal = says(*w.part, *w.end); signal && mates(*w.end, t) && !takes(t, *signal)) c += 5 * moved;
      if (!mates(*w.end, t) || kept_for_other || too_slow) c = forbidden;
      if (t.emulated) c += emulated;
      if (t.kind == TerminalKind::serial_inverting && w.end->kind == TerminalKind::serial && t.serves.empty())
        c += inverter_wasted;
      row.push_back(c);
    }
    cost.push_back(std::move(row));
  }
  if (!cost.empty() && !ports.empty()) {
    const auto got = cheapest_assignment(cost);
    for (std::size_t i = 0; i < wanting.size(); ++i) {
      const Wanting& w = wanting[i];
      if (got[i] >= 0) {
        const Terminal& t = *ports[static_cast<std::size_t>(got[i])];
        const char* why = w.end->kind == TerminalKind::inverted_serial
                              ? "it can invert its input, as this receiver needs"
                          : worth_having(*w.end)                       ? "a port that is left, for one wire"
                          : w.end->kind == TerminalKind::summed_output ? "it takes all channels on one wire"
                          : t.emulated ? "the hardware ports are taken: this one costs processor time"
                                       : "a free hardware port for the data pair";
        connect(w.part->id, w.end->id, "controller", t.id, why);
        continue;
      }
      no_port(*w.part, *w.end, ports);
    }
    return;
  }
  for (const Wanting& w : wanting) no_port(*w.part, *w.end, ports);
}

double Planner::way_cost(const Part& part, const Terminal& socket) const {
  const Mounting *board = plan_.rig.mounting("controller"), *there = plan_.rig.mounting(part.id);
  if (!board || !there || board->turn != Turn{}) {
    // Where nothing has a place yet: on the side on which its other lead ends, if it has one.
    constexpr double other_side = 0.1;
    const PartKind* k = catalogue_.part(part.kind);
    const bool on_bus = k && std::any_of(k->terminals.begin(), k->terminals.end(),
                                         [](const Terminal& t) { return t.kind == TerminalKind::two_wire; });
    for (const Terminal& t : controller_->ports)
      if (on_bus && t.kind == TerminalKind::two_wire && t.side != socket.side) return other_side;
    return 0;
  }
  const double ahead = (socket.y_mm - controller_->length_mm / 2) / 1000,
               right = (socket.x_mm - controller_->width_mm / 2) / 1000;
  return std::hypot(there->x_m - board->x_m - ahead, there->y_m - board->y_m - right);
}

void Planner::no_port(const Part& part, const Terminal& end, const std::vector<const Terminal*>& ports) {
  if (worth_having(end)) {
    obstacle(part.id,
             capital(name(part.id)) + ": no port is left for its " + label_of(end.serves) + " wire. It works without",
             "WIRING-36");
    return;
  }
  const bool any_mate = std::any_of(ports.begin(), ports.end(), [&](const Terminal* t) { return mates(end, *t); });
  const std::string who = capital(name(part.id));
  const PartKind* kind = catalogue_.part(part.kind);
  const bool never = std::none_of(controller_->ports.begin(), controller_->ports.end(),
                                  [&](const Terminal& t) { return mates(end, t); });
  if (never && kind && kind->group == PartGroup::receiver) {
    // Another of its outlets may do.
    for (const Terminal& t : kind->terminals)
      if (std::any_of(controller_->ports.begin(), controller_->ports.end(),
                      [&](const Terminal& port) { return t.kind != end.kind && mates(t, port); }))
        return;
    obstacle(part.id,
             "No input of the " + controller_->name + " takes the " + label_of(name_of(end.kind)) + " signal of the " +
                 name(part.id) + ": it needs another receiver, or one that can be set to " + inputs_in_words(),
             end.kind == TerminalKind::inverted_serial ? "WIRING-04" : "WIRING-02");
    return;
  }
  if (!any_mate && end.kind == TerminalKind::inverted_serial)
    obstacle(part.id, who + " needs a port that inverts its input, and the " + controller_->name + " has none free",
             "WIRING-04");
  else if (!any_mate)
    obstacle(part.id,
             who + " needs a " + label_of(name_of(end.kind)) + " port, and the " + controller_->name + " has none free",
             end.kind == TerminalKind::serial ? "WIRING-05" : "WIRING-02");
  else
    obstacle(part.id, who + " finds no free port: more parts than ports, and a port does one job", "WIRING-01");
}

std::string Planner::inputs_in_words() const {
  std::string all;
  for (const std::string& i : controller_->inputs) all += (all.empty() ? "" : " or ") + i;
  return all;
}

void Planner::pulse_receivers() {
  const bool per_channel = std::any_of(controller_->ports.begin(), controller_->ports.end(), [](const Terminal& t) {
    return t.kind == TerminalKind::pulse_input && t.serves != "regulator";
  });
  if (!per_channel) {
    for (const Part* rx : parts_of(PartGroup::receiver))
      if (const PartKind* k = catalogue_.part(rx->kind);
          k && std::all_of(k->terminals.begin(), k->terminals.end(),
                           [](const Terminal& t) { return t.kind == TerminalKind::output; }))
        obstacle(rx->id,
                 "No input of the " + controller_->name + " takes the pulses per channel of the " + name(rx->id) +
                     ": it needs a receiver that gives " + inputs_in_words(),
                 "WIRING-02");
    return;
  }
  bool pulse_receiver = false;
  for (const Part* rx : parts_of(PartGroup::receiver))
    if (const PartKind* k = catalogue_.part(rx->kind)) {
      const bool summed = std::any_of(k->terminals.begin(), k->terminals.end(),
                                      [](const Terminal& t) { return t.kind != TerminalKind::output; });
      pulse_receiver = pulse_receiver || !summed;
    }
  if (!pulse_receiver) return;
  for (const Terminal& t : controller_->ports) {
    if (t.kind != TerminalKind::pulse_input) continue;
    // "mode_2": the second channel that carries a mode.
    const bool second = t.serves == "mode_2";
    const auto f = second ? std::optional(ChannelFunction::mode) : from_name<ChannelFunction>(t.serves);
    if (!f) continue;
    const auto axis = *f == ChannelFunction::roll    ? std::optional(Axis::roll)
                      : *f == ChannelFunction::pitch ? std::optional(Axis::pitch)
                      : *f == ChannelFunction::yaw   ? std::optional(Axis::yaw)
                                                     : std::nullopt;
    const bool wanted = !axis || std::any_of(rig().outputs.begin(), rig().outputs.end(),
                                             [&](const Output& o) { return o.mix.of(*axis) != 0; });
    const std::vector<int> modes = mode_channels(plan_.rig, *controller_);
    const auto [rx, ch] = *f != ChannelFunction::mode ? receiver_channel(*f)
                          : modes.size() > second     ? receiver_output(modes[second])
                                                      : std::pair<std::string, std::string>{};
    if (!wanted) continue;
    if (rx.empty()) {
      if (axis) obstacle("controller", "No receiver output carries " + t.serves + " to " + t.label, "WIRING-02");
      continue;
    }
    if (busy(rx, ch)) continue;
    connect(rx, ch, "controller", t.id,
            *f == ChannelFunction::mode ? "channel of a switch" : "channel for " + t.serves);
  }
}

Plan plan_wiring(const Rig& rig, const Catalogue& catalogue) { return Planner(rig, catalogue).take(); }

}  // namespace rigging
