#include "wiring/wiring.h"

#include <algorithm>
#include <set>

#include "base/find.h"
#include "base/number.h"

namespace rigging {
namespace {

std::string socket_label(const Rig& rig, const Catalogue& catalogue, const LeadEnd& end) {
  const Terminal* t = terminal_of(rig, catalogue, end);
  return t ? t->label : end.socket;
}

}  // namespace

const LeadEnd* far_end(const Lead& l, const std::string& part, const std::string& socket) {
  const auto is = [&](const LeadEnd& e) { return e.part == part && (socket.empty() || e.socket == socket); };
  return is(l.from) ? &l.to : is(l.to) ? &l.from : nullptr;
}

std::vector<const Part*> servos_on(const Rig& rig, const Catalogue& catalogue, const std::string& socket) {
  std::vector<const Part*> all;
  if (socket.empty()) return all;
  for (const Lead& l : rig.leads)
    if (const LeadEnd* far = far_end(l, "controller", socket))
      if (const PartKind* k = kind_of(rig, catalogue, far->part); k && k->group == PartGroup::servo)
        all.push_back(rig.part(far->part));
  return all;
}

const Output* output_for(const Rig& rig, const Catalogue& catalogue, const Part& part) {
  const auto group = [&](const Part& p) {
    const PartKind* k = catalogue.part(p.kind);
    return k ? k->group : PartGroup::other;
  };
  if (group(part) == PartGroup::servo) {
    if (part.surface) return rig.output_of(*part.surface);
    // A servo of no surface: a tow release on the motor's output.
    if (rig.airframe.kind != AirframeKind::towed_glider) return nullptr;
    return find_in(rig.outputs, [](const Output& o) { return o.surfaces.empty() && o.passthrough_channel == 0; });
  }
  if (group(part) == PartGroup::camera_switch) {
    std::size_t before = 0;
    for (const Part& p : rig.parts) {
      if (p.id == part.id) break;
      before += group(p) == PartGroup::camera_switch;
    }
    for (const Output& o : rig.outputs)
      if (o.passthrough_channel > 0 && before-- == 0) return &o;
    return nullptr;
  }
  if (group(part) != PartGroup::speed_controller) return nullptr;
  std::vector<const Output*> motors;
  for (const Output& o : rig.outputs)
    if (drives_motor(o)) motors.push_back(&o);
  std::size_t next = 0;
  for (const Part& p : rig.parts) {
    if (group(p) != PartGroup::speed_controller) continue;
    const Output* mine = nullptr;
    for (const Output* m : motors)
      if (p.surface && !m->surfaces.empty() &&
          static_cast<const Surface&>(m->surfaces.front()) == static_cast<const Surface&>(*p.surface))
        mine = m;
    if (!mine && next < motors.size()) mine = motors[next++];
    if (p.id == part.id) return mine;
  }
  return nullptr;
}

std::string socket_by_leads(const Rig& rig, const Catalogue& catalogue, const Output& output) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  std::string socket;
  for (const Lead& l : rig.leads) {
    const LeadEnd* far = far_end(l, "controller");
    const Part* part = far ? rig.part(far->part) : nullptr;
    const std::string& here = far == &l.to ? l.from.socket : l.to.socket;
    if (!part || !c || !c->socket(here) || output_for(rig, catalogue, *part) != &output) continue;
    if (!socket.empty() && socket != here) return {};
    socket = here;
  }
  return socket;
}

void outputs_follow(Rig& rig, const Catalogue& catalogue) {
  std::vector<std::string> wanted;
  for (const Output& o : rig.outputs) {
    const std::string by_leads = socket_by_leads(rig, catalogue, o);
    wanted.push_back(by_leads.empty() ? o.socket : by_leads);
  }
  // Whoever would come to sit where another sits or goes stays; that may be in the way of a third.
  for (bool settled = false; !settled;) {
    settled = true;
    for (std::size_t i = 0; i < wanted.size(); ++i)
      if (wanted[i] != rig.outputs[i].socket && std::count(wanted.begin(), wanted.end(), wanted[i]) > 1) {
        wanted[i] = rig.outputs[i].socket;
        settled = false;
      }
  }
  for (std::size_t i = 0; i < wanted.size(); ++i) rig.outputs[i].socket = wanted[i];
}

LeadKind usual_lead(const Terminal& a, const Terminal& b) {
  const auto either = [&](TerminalKind k) { return a.kind == k || b.kind == k; };
  if (either(TerminalKind::motor_in) || either(TerminalKind::motor_out)) return LeadKind::phase;
  if (either(TerminalKind::battery_in) || either(TerminalKind::battery_out)) return LeadKind::power;
  if (either(TerminalKind::video_in) || either(TerminalKind::video_out)) return LeadKind::video;
  if (either(TerminalKind::two_wire)) return LeadKind::two_wire;
  if (a.kind == TerminalKind::serial || b.kind == TerminalKind::serial) return LeadKind::four_way;
  if (either(TerminalKind::sense_input)) return LeadKind::four_way;
  if (either(TerminalKind::power) || either(TerminalKind::switched)) return LeadKind::soldered;
  return LeadKind::servo;
}

WiringReport analyze_wiring(const Rig& rig, const Catalogue& catalogue) {
  WiringReport r;
  for (const Lead& l : rig.leads) {
    HarnessRow row{l.id,
                   part_name(rig, catalogue, l.from.part),
                   socket_label(rig, catalogue, l.from),
                   part_name(rig, catalogue, l.to.part),
                   socket_label(rig, catalogue, l.to),
                   l.kind,
                   lead_reach_m(rig, l),
                   lead_awg(l),
                   {}};
    const auto remark = [&](bool on, const char* words) {
      if (on) row.remarks += (row.remarks.empty() ? "" : ", ") + std::string(words);
    };
    remark(l.plus_removed, "red wire out");
    remark(l.plug_turned, "plug turned");
    remark(l.pair_turned, "pair turned");
    remark(l.apart, "wires run apart");
    remark(l.fixed, "kept by hand");
    r.harness.push_back(std::move(row));
  }
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c) return r;
  const auto used = [&](const std::string& terminal) {
    return std::any_of(rig.leads.begin(), rig.leads.end(),
                       [&](const Lead& l) { return far_end(l, "controller", terminal) != nullptr; });
  };
  std::map<int, TimerGroup> groups;
  for (const Output& o : rig.outputs) {
    const Terminal* t = c->socket(o.socket);
    if (!t) continue;
    TimerGroup& g = groups[t->timer_group];
    g.group = t->timer_group;
    g.outputs.push_back(o.id);
    if (std::find(g.rates_hz.begin(), g.rates_hz.end(), o.rate_hz) == g.rates_hz.end()) g.rates_hz.push_back(o.rate_hz);
    (drives_motor(o) ? g.motor : g.servo) = true;
  }
  for (auto& [number, group] : groups) r.groups.push_back(std::move(group));
  for (const Terminal& t : c->pads) {
    if (t.kind == TerminalKind::power) ++r.power_pads;
    if (t.kind == TerminalKind::ground) ++r.ground_pads;
  }
  std::set<std::string> grounded;  // a part needs one ground, however many of its wires end on pads
  for (const Lead& l : rig.leads)
    if (const LeadEnd* far = far_end(l, "controller")) {
      const LeadEnd& near = far == &l.to ? l.from : l.to;
      const auto pad =
          std::find_if(c->pads.begin(), c->pads.end(), [&](const Terminal& t) { return t.id == near.socket; });
      if (pad == c->pads.end()) continue;
      if (pad->kind == TerminalKind::power) ++r.power_pads_needed;
      if (pad->kind != TerminalKind::switched) grounded.insert(far->part);
    }
  r.ground_pads_needed = static_cast<int>(grounded.size());
  for (const Terminal& t : c->ports)
    if ((t.serves_as(TerminalKind::serial) || t.serves_as(TerminalKind::serial_inverting)) && !t.emulated &&
        !used(t.id))
      r.free_ports.push_back(t.id);
  for (const Terminal& t : c->outputs)
    if (!used(t.id) &&
        std::none_of(rig.outputs.begin(), rig.outputs.end(), [&](const Output& o) { return o.socket == t.id; }))
      r.free_outputs.push_back(t.id);
  return r;
}

}  // namespace rigging
