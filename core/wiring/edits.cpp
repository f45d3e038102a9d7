#include "wiring/edits.h"

#include <algorithm>
#include <cmath>

#include "airframe/kinds.h"
#include "base/fields.h"
#include "base/number.h"
#include "wiring/plan.h"
#include "wiring/ports.h"
#include "wiring/wiring.h"

namespace rigging {
namespace {

/// What rests on where the leads sit: outputs, and the ports where they are told.
void follow_leads(Rig& rig, const Catalogue& catalogue) {
  outputs_follow(rig, catalogue);
  if (!rig.ports.empty()) ports_follow(rig, catalogue);
}

}  // namespace

Result<Edit> plug(const Rig& rig, const Catalogue& catalogue, const std::string& lead, const std::string& socket) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  const Terminal* t = c ? c->terminal(socket) : nullptr;
  Edit edit{rig, "Lead " + lead + " to " + (t ? t->label : socket)};
  Lead* l = edit.rig.lead(lead);
  if (!l || !far_end(*l, "controller"))
    return failure(lead, "is no lead that ends at the controller", "the id of one that does");
  if (!t) return failure(socket, "is no socket of this controller", "one that `wiring` lists");
  LeadEnd& end = l->from.part == "controller" ? l->from : l->to;
  end.socket = socket;
  follow_leads(edit.rig, catalogue);
  return edit;
}

Result<Edit> lead_to_board(const Rig& rig, const Catalogue& catalogue, const std::string& lead, const std::string& part,
                           const std::string& socket) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  const Terminal* t = c ? c->terminal(socket) : nullptr;
  Edit edit{rig, "Lead " + lead + " to " + (t ? t->label : socket)};
  Lead* l = edit.rig.lead(lead);
  if (!l || !far_end(*l, part)) return failure(lead, "is no lead of " + part, "the id of one that ends there");
  if (!t) return failure(socket, "is no socket of this controller", "one that `wiring` lists");
  (l->from.part == part ? l->to : l->from) = {"controller", socket, {}};
  follow_leads(edit.rig, catalogue);
  return edit;
}

Result<Edit> connect(const Rig& rig, const Catalogue& catalogue, const std::string& part, const std::string& terminal,
                     const std::string& socket) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  const Terminal* to = c ? c->terminal(socket) : nullptr;
  const PartKind* kind = kind_of(rig, catalogue, part);
  const Terminal* from = kind ? kind->terminal(terminal) : nullptr;
  if (!from) return failure(part, "has no terminal " + terminal, "a part and one of its terminals");
  if (!to) return failure(socket, "is no socket of this controller", "one that `wiring` lists");
  Edit edit{rig, part_name(rig, catalogue, part) + " to " + to->label};
  Lead l;
  l.id = part + "_" + terminal;
  for (int n = 2; rig.lead(l.id); ++n) l.id = part + "_" + terminal + std::to_string(n);
  l.from = {part, terminal, {}};
  l.to = {"controller", socket, {}};
  l.kind = usual_lead(*from, *to);
  edit.rig.leads.push_back(l);
  follow_leads(edit.rig, catalogue);
  return edit;
}

Result<Edit> limit_rate(const Rig& rig, const Catalogue& catalogue, const std::string& output, double hz) {
  Edit edit{rig, "Pulses of " + output + " and its timer group: " + number_text(hz, 0) + " Hz at most"};
  const Output* mine = edit.rig.output(output);
  if (!mine) return failure(output, "is no output of this rig", "the id of an output");
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  const Terminal* at = c ? c->socket(mine->socket) : nullptr;
  for (Output& o : edit.rig.outputs) {
    const Terminal* t = c ? c->socket(o.socket) : nullptr;
    if (o.id == output || (t && at && t->timer_group == at->timer_group && !drives_motor(o)))
      o.rate_hz = std::min(o.rate_hz, hz);
    if (const auto ok = in_range(o, "output"); !ok) return tl::make_unexpected(ok.error());
  }
  return edit;
}

Edit take_plan(const Plan& plan) { return {plan.rig, "Wiring planned"}; }

Result<Edit> plan_all(const Rig& rig, const Catalogue& catalogue) { return take_plan(plan_wiring(rig, catalogue)); }

Result<Edit> plug_output(const Rig& rig, const Catalogue& catalogue, const std::string& output,
                         const std::string& socket) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  const Terminal* t = c ? c->socket(socket) : nullptr;
  Edit edit{rig, output + " to " + (t ? t->label : socket)};
  Output* o = edit.rig.output(output);
  if (!o) return failure(output, "is no output of this rig", "the id of an output");
  if (!t) return failure(socket, "is no output socket of this controller", "one that `wiring` lists");
  const std::string from = o->socket;
  const auto moved = [&](const std::string& at) { return at == from ? socket : at == socket ? from : at; };
  for (Output& other : edit.rig.outputs)
    if (&other != o && other.socket == socket) {
      if (from.empty())
        return failure(t->label, "is taken by " + other.id, "a free socket, for an output that has none to give");
      other.socket = from;
      const Terminal* free = c->socket(from);
      edit.label += ", " + other.id + " to " + (free ? free->label : "no socket");
    }
  o->socket = socket;
  // Without a socket before, nothing hung on it; a lead in the new one belongs to what sat there.
  if (!from.empty())
    for (Lead& l : edit.rig.leads)
      for (LeadEnd* end : {&l.from, &l.to})
        if (end->part == "controller" && c->socket(end->socket)) end->socket = moved(end->socket);
  return edit;
}

Result<Edit> throttle_lead(const Rig& rig, const Catalogue& catalogue, bool on_receiver) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c || c->surfaces.motor != MotorPath::either)
    return failure(
        "throttle lead",
        !c || c->motor_bypasses() ? "stays on the receiver with this class" : "goes through the board with this class",
        "a class that leaves the choice");
  Edit edit{rig, on_receiver ? "Throttle lead on the receiver" : "Throttle lead through the board"};
  bool any = false;
  for (Output& o : edit.rig.outputs) {
    if (!drives_motor(o)) continue;
    if (on_receiver && o.mix.yaw != 0)
      return failure(o.id, "steers with its motor, which only the board can mix", "motors without a yaw weight");
    any = true;
    o.fixed = on_receiver;
    if (on_receiver) o.socket.clear();
  }
  if (!any) return failure("throttle lead", "there is no motor", "an output that drives one");
  edit.rig = plan_wiring(edit.rig, catalogue).rig;
  return edit;
}

Result<Edit> pass_channel(const Rig& rig, const Catalogue& catalogue, int channel) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  Edit edit{rig, "Channel " + std::to_string(channel) + " passed through to an output"};
  if (!c || !c->way("passthrough_channel"))
    return failure("pass channel", "is nothing that this class can",
                   "a class with outputs that pass a channel through");
  const Span span = member_of(&Output::passthrough_channel).span;
  if (channel < 1 || channel > span.most)
    return failure("channel " + std::to_string(channel), "is no channel", "a number from 1 to 32");
  Output o;
  o.passthrough_channel = channel;
  for (int n = 1; o.id.empty() || rig.output(o.id); ++n) o.id = "pass_" + std::to_string(n);
  edit.rig.outputs.push_back(o);
  settle_in_sockets(edit.rig, *c);
  if (edit.rig.output(o.id)->socket.empty())
    return failure("pass channel", "finds no free socket", "an output that nothing uses");
  return edit;
}

Result<Edit> red_wires(const Rig& rig, const Catalogue& catalogue, bool apart) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  Edit edit{rig, apart ? "Receiver and unit on supplies of their own" : "One supply for receiver and unit"};
  const auto group = [&](const std::string& part) {
    const PartKind* k = kind_of(rig, catalogue, part);
    return k ? k->group : PartGroup::other;
  };
  bool inputs = false, regulator = false, driver = false;
  for (Lead& l : edit.rig.leads) {
    const LeadEnd* far = far_end(l, "controller");
    const Terminal* at = far && c ? c->terminal((far == &l.to ? l.from : l.to).socket) : nullptr;
    if (at && group(far->part) == PartGroup::regulator) regulator = true;
    if (at && at->kind == TerminalKind::pulse_input && group(far->part) == PartGroup::receiver) {
      inputs = true;
      l.plus_removed = apart;
    }
    const bool from = group(l.from.part) == PartGroup::speed_controller && group(l.to.part) == PartGroup::receiver,
               to = group(l.to.part) == PartGroup::speed_controller && group(l.from.part) == PartGroup::receiver;
    const PartKind* k = from || to ? kind_of(rig, catalogue, from ? l.from.part : l.to.part) : nullptr;
    if (!k || k->feeds.empty()) continue;
    driver = true;
    l.plus_removed = !apart;
  }
  if (!inputs || !regulator || !driver)
    return failure("red wires",
                   "need a unit between receiver and servos with a regulator of its own, and a speed "
                   "controller with one on the receiver",
                   "leads to both");
  return edit;
}

std::vector<EditEntry> wiring_edits() {
  return {{"pass-channel",
           "An output that passes a channel through, unmixed",
           {"CHANNEL"},
           [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) -> Result<Edit> {
             const auto number = number_of(given[0]);
             if (!number || *number != std::floor(*number))
               return failure(given[0], "is no channel", "a number from 1 to 32");
             return pass_channel(rig, c, static_cast<int>(*number));
           }},
          {"throttle-lead",
           "The throttle lead on the receiver or through the board, where the class leaves the choice",
           {"receiver|board"},
           [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) -> Result<Edit> {
             if (given[0] != "receiver" && given[0] != "board")
               return failure(given[0], "is no way for a throttle lead", "receiver or board");
             return throttle_lead(rig, c, given[0] == "receiver");
           }},
          {"plug",
           "The board's end of a lead into another socket",
           {"LEAD", "SOCKET"},
           [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) {
             return plug(rig, c, given[0], given[1]);
           }},
          {"plug-output",
           "An output into another socket, with the leads that hang on it",
           {"OUTPUT", "SOCKET"},
           [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) {
             return plug_output(rig, c, given[0], given[1]);
           }},
          {"red-wires",
           "Receiver and inline unit on supplies of their own, or joined",
           {"apart|joined"},
           [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) -> Result<Edit> {
             if (given[0] != "apart" && given[0] != "joined")
               return failure(given[0], "is no way for red wires", "apart or joined");
             return red_wires(rig, c, given[0] == "apart");
           }},
          {"ports",
           "Every port, and the receiver's signal, set as the leads say",
           {},
           [](const Rig& rig, const Catalogue& c, const std::vector<std::string>&) -> Result<Edit> {
             return tell_ports(rig, c);
           }},
          {"port",
           "A port's job, baud (or -) and direction",
           {"SOCKET", "JOB", "BAUD", "both|listens|speaks"},
           [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) -> Result<Edit> {
             Port port;
             port.socket = given[0];
             const auto job = from_name<PortJob>(given[1]);
             if (!job) return failure(given[1], "is no job of a port", choice_of<PortJob>());
             port.job = *job;
             if (given[2] != "-") {
               port.baud = number_of(given[2]);
               const Span span = member_of(&Port::baud).span;
               if (!port.baud || *port.baud < span.least || *port.baud > span.most)
                 return failure(given[2], "is no baud", "a number from 1200 to 4000000, or -");
             }
             const auto direction = from_name<PortDirection>(given[3]);
             if (!direction) return failure(given[3], "is no direction", choice_of<PortDirection>());
             port.direction = *direction;
             return set_port(rig, c, port);
           }},
          {"receiver-says",
           "What a receiver puts out, as chosen in the transmitter",
           {"PART", "SIGNAL"},
           [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) -> Result<Edit> {
             const auto signal = from_name<Signal>(given[1]);
             if (!signal) return failure(given[1], "is no signal", choice_of<Signal>());
             return receiver_says(rig, c, given[0], *signal);
           }},
          {"plan-wiring",
           "Every lead and output where the plan puts it",
           {},
           [](const Rig& rig, const Catalogue& c, const std::vector<std::string>&) { return plan_all(rig, c); }}};
}

}  // namespace rigging
