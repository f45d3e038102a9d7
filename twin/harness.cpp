#include "harness.h"

#include <algorithm>
#include <random>

#include "base/json.h"
#include "wiring/ports.h"
#include "wiring/wiring.h"

namespace rigging::twin {
namespace {

constexpr std::pair<LeadFault::TypeInfo, const char*> kinds[] = {
    {LeadFault::TypeInfo::pair_turned, "pair_turned"}, {LeadFault::TypeInfo::plug_turned, "plug_turned"},
    {LeadFault::TypeInfo::red_missing, "red_missing"}, {LeadFault::TypeInfo::wrong_socket, "wrong_socket"},
    {LeadFault::TypeInfo::other_baud, "other_baud"},   {LeadFault::TypeInfo::other_signal, "other_signal"}};

bool has_pair(const Lead& l) {
  return l.kind == LeadKind::four_way || l.kind == LeadKind::two_plus_two || l.kind == LeadKind::six_way;
}
bool has_plug(const Lead& l) { return l.kind == LeadKind::servo || l.kind == LeadKind::y_lead; }
LeadEnd& board_end(Lead& l) { return l.from.part == "controller" ? l.from : l.to; }

}  // namespace

std::string lead_fault_text(const LeadFault& f) {
  for (const auto& [kind, name] : kinds)
    if (kind == f.kind) return std::string(name) + ":" + f.lead + (f.socket.empty() ? "" : "," + f.socket);
  return {};
}

Result<LeadFault> lead_fault_from_text(const std::string& text, const Rig& rig, const Catalogue& catalogue) {
  const auto refuse = [&](const std::string& what) {
    return failure("lead fault \"" + text + "\"", what,
                   "pair_turned, plug_turned, red_missing, other_baud or other_signal:LEAD, or "
                   "wrong_socket:LEAD,SOCKET");
  };
  const std::size_t colon = text.find(':');
  if (colon == std::string::npos) return refuse("has no place");
  LeadFault f;
  const auto kind = std::find_if(std::begin(kinds), std::end(kinds),
                                 [&](const auto& k) { return text.substr(0, colon) == k.second; });
  if (kind == std::end(kinds)) return refuse("is of an unknown kind");
  f.kind = kind->first;
  f.lead = text.substr(colon + 1);
  if (f.kind == LeadFault::TypeInfo::wrong_socket) {
    const std::size_t comma = f.lead.find(',');
    if (comma == std::string::npos) return refuse("names no socket");
    f.socket = f.lead.substr(comma + 1);
    f.lead.resize(comma);
  }
  const Lead* l = rig.lead(f.lead);
  if (!l) return refuse("is about a lead that the rig does not have");
  if (f.kind == LeadFault::TypeInfo::pair_turned && !has_pair(*l)) return refuse("is about a lead without a data pair");
  if (f.kind == LeadFault::TypeInfo::plug_turned && !has_plug(*l))
    return refuse("is about a lead whose plug can't be turned");
  const LeadEnd* end = far_end(*l, "controller");
  const PartKind* kind_there = end ? kind_of(rig, catalogue, end->part) : nullptr;
  const Terminal* socket_there = end ? terminal_of(rig, catalogue, *end) : nullptr;
  if (f.kind == LeadFault::TypeInfo::other_baud && (!kind_there || !kind_there->serial))
    return refuse("is about a lead without a part that speaks serial");
  if (f.kind == LeadFault::TypeInfo::other_signal && (!socket_there || signals_of(*socket_there).size() < 2))
    return refuse("is about a lead without a receiver whose output can be chosen");
  if (f.kind == LeadFault::TypeInfo::wrong_socket) {
    const ControllerClass* c = catalogue.controller(rig.controller.kind);
    if (!far_end(*l, "controller") || !c || !c->terminal(f.socket))
      return refuse("is about a socket that the controller does not have");
    const LeadEnd* far = far_end(*l, "controller");
    if (const PartKind* k = kind_of(rig, catalogue, far->part); k && k->group == PartGroup::servo)
      return refuse("is about a servo: exchange two leads with leads_swapped");
  }
  return f;
}

std::vector<LeadFault> drawn_lead_faults(const Rig& rig, const Catalogue& catalogue, int count, unsigned seed) {
  std::vector<LeadFault> all;
  for (const Lead& l : rig.leads) {
    if (!far_end(l, "controller")) continue;
    const PartKind* k = kind_of(rig, catalogue, far_end(l, "controller")->part);
    if (!k) continue;
    if (has_pair(l) && k->group != PartGroup::power_module) all.push_back({LeadFault::TypeInfo::pair_turned, l.id, {}});
    if (has_plug(l) && k->group == PartGroup::servo) all.push_back({LeadFault::TypeInfo::plug_turned, l.id, {}});
    if (has_plug(l) && (k->group == PartGroup::servo || k->group == PartGroup::receiver))
      all.push_back({LeadFault::TypeInfo::red_missing, l.id, {}});
    if (k->group == PartGroup::power_module)
      for (const Terminal& t : catalogue.controller(rig.controller.kind)->ports)
        if (t.kind == TerminalKind::serial && !t.emulated &&
            std::none_of(rig.leads.begin(), rig.leads.end(),
                         [&](const Lead& o) { return far_end(o, "controller", t.id); })) {
          all.push_back({LeadFault::TypeInfo::wrong_socket, l.id, t.id});
          break;
        }
  }
  std::mt19937 random(seed);
  std::vector<LeadFault> drawn;
  while (!all.empty() && static_cast<int>(drawn.size()) < count) {
    const auto at = static_cast<std::ptrdiff_t>(random() % all.size());
    drawn.push_back(all[static_cast<std::size_t>(at)]);
    std::erase_if(all, [&](const LeadFault& f) { return f.lead == drawn.back().lead; });
  }
  return drawn;
}

Harness::Harness(const Rig& planned, Catalogue catalogue, const std::vector<LeadFault>& faults)
    : laid_(!planned.leads.empty()), planned_(planned), wired_(planned), catalogue_(std::move(catalogue)) {
  for (const LeadFault& f : faults) {
    Lead* l = wired_.lead(f.lead);
    if (!l) continue;
    switch (f.kind) {
      case LeadFault::TypeInfo::pair_turned: l->pair_turned = !l->pair_turned; break;
      case LeadFault::TypeInfo::plug_turned: l->plug_turned = !l->plug_turned; break;
      case LeadFault::TypeInfo::red_missing: l->plus_removed = true; break;
      case LeadFault::TypeInfo::wrong_socket: board_end(*l).socket = f.socket; break;
      case LeadFault::TypeInfo::other_baud:
        if (Part* p = wired_.part(far_end(*l, "controller")->part)) {
          const PartKind* k = catalogue_.part(p->kind);
          p->baud = (k ? baud_of(*p, *k).value_or(115200) : 115200) == 9600 ? 57600 : 9600;
        }
        break;
      case LeadFault::TypeInfo::other_signal:
        if (Part* p = wired_.part(far_end(*l, "controller")->part))
          if (const Terminal* t = terminal_of(wired_, catalogue_, *far_end(*l, "controller")))
            for (const Signal s : signals_of(*t))
              if (s != says(*p, *t)) {
                p->says = s;
                break;
              }
        break;
    }
  }
  settle();
}

void Harness::told(std::vector<Port> ports, std::optional<Signal> signal) {
  wired_.ports = std::move(ports);
  wired_.radio.receiver_signal = signal;
}

void Harness::settle() {
  powered_.clear();
  servo_rail_ = false;
  if (!laid_ || (!supply_.usb && !supply_.battery)) return;
  const SupplyState state = supply_.usb && supply_.battery ? SupplyState::both
                            : supply_.battery              ? SupplyState::battery
                                                           : SupplyState::usb;
  const Network network = network_of(wired_, catalogue_, {destroyed_.begin(), destroyed_.end()});
  const Solution s = solve(network, state, LoadCase::idle, 1, 0);
  for (const Draw& d : network.draws)
    if (s.rails[static_cast<std::size_t>(network.rail_of[static_cast<std::size_t>(d.node)])].live)
      powered_.insert(d.part);
  if (const int node = network.node("controller", "servo"); node >= 0)
    servo_rail_ = s.rails[static_cast<std::size_t>(network.rail_of[static_cast<std::size_t>(node)])].live;
}

void Harness::power(Supply supply) {
  supply_ = supply;
  settle();
  if (!laid_) return;
  const auto before = destroyed_.size();
  for (const Lead& l : wired_.leads)
    if (l.plug_turned && far_end(l, "controller") && powered("controller")) {
      const std::string part = far_end(l, "controller")->part;
      // Plus on the minus pin: once its rail is live it is gone.
      if (powered_.count(part)) destroyed_.insert(part);
    }
  if (destroyed_.size() != before) settle();
}

bool Harness::powered(const std::string& part) const { return powered_.count(part) > 0 && !destroyed_.count(part); }
bool Harness::servo_rail_powered() const { return laid_ ? servo_rail_ : supply_.battery; }

bool Harness::talks(const Lead& l) const {
  const LeadEnd* far = far_end(l, "controller");
  if (!far || !powered(far->part) || !powered("controller") || l.pair_turned || l.plug_turned) return false;
  const LeadEnd& near = far == &l.to ? l.from : l.to;
  const Terminal *a = terminal_of(wired_, catalogue_, *far), *b = terminal_of(wired_, catalogue_, near);
  return a && b && mates(*a, *b) && deaf_because(wired_, catalogue_, l).empty();
}

bool Harness::receiver_heard() const {
  if (!laid_) return supply_.battery;
  bool any = false;
  for (const Lead& l : wired_.leads) {
    const LeadEnd* far = far_end(l, "controller");
    const PartKind* k = far ? kind_of(wired_, catalogue_, far->part) : nullptr;
    if (!k || k->group != PartGroup::receiver) continue;
    any = true;
    if (talks(l)) return true;
  }
  // A class with the receiver inside has no lead for it.
  return !any && powered("controller") && supply_.battery;
}

bool Harness::has(PartGroup group) const {
  for (const Part& p : wired_.parts)
    if (const PartKind* k = catalogue_.part(p.kind); k && k->group == group) return true;
  return false;
}

Harness::Line Harness::line_of(PartGroup group) const {
  if (!laid_) return supply_.usb || supply_.battery ? Line::clear : Line::silent;
  Line best = Line::silent;
  for (const Lead& l : wired_.leads) {
    const LeadEnd* far = far_end(l, "controller");
    const PartKind* k = far ? kind_of(wired_, catalogue_, far->part) : nullptr;
    if (!k || k->group != group) continue;
    if (talks(l)) return Line::clear;
    // All is well but for what the port was told of the signal.
    if (powered(far->part) && powered("controller") && !l.pair_turned && !l.plug_turned) best = Line::garbled;
  }
  return best;
}

bool Harness::servo_works(Surface surface) const {
  if (!laid_) return true;
  for (const Part& p : wired_.parts) {
    const PartKind* k = catalogue_.part(p.kind);
    if (!k || k->group != PartGroup::servo || !p.surface || static_cast<const Surface&>(*p.surface) != surface)
      continue;
    for (const Lead& l : wired_.leads)
      if (far_end(l, p.id)) return powered(p.id) && !l.plug_turned;
    return false;  // planned, but plugged in nowhere
  }
  return true;
}

double Harness::battery_v() const {
  if (!supply_.battery) return 0;
  for (const Lead& l : wired_.leads)
    if (const LeadEnd* far = far_end(l, "controller")) {
      const LeadEnd& near = far == &l.to ? l.from : l.to;
      const Terminal *a = terminal_of(wired_, catalogue_, *far), *b = terminal_of(wired_, catalogue_, near);
      if (!a || !b || a->kind != TerminalKind::sense_output || b->kind != TerminalKind::sense_input) continue;
      for (const Part& p : wired_.parts)
        if (const PartKind* k = catalogue_.part(p.kind); k && k->battery)
          return k->battery->cells * k->battery->full_cell_v;
    }
  return 0;
}

std::map<std::string, bool> Harness::ports() const {
  std::map<std::string, bool> all;
  for (const Lead& l : wired_.leads)
    if (const LeadEnd* far = far_end(l, "controller")) {
      const LeadEnd& near = far == &l.to ? l.from : l.to;
      const Terminal* t = terminal_of(wired_, catalogue_, near);
      const bool data = t && (t->kind == TerminalKind::serial || t->kind == TerminalKind::serial_inverting ||
                              t->kind == TerminalKind::two_wire || t->kind == TerminalKind::summed_input ||
                              t->kind == TerminalKind::pulse_input);
      if (data) all[near.socket] = all[near.socket] || talks(l);
    }
  return all;
}

Result<Json> Harness::inspect(const std::string& lead) const {
  const Lead* l = wired_.lead(lead);
  if (!l) return failure("inspect", "there is no lead \"" + lead + "\"", "a lead of the rig");
  if (supply_.usb || supply_.battery)
    return failure("inspect", "a supply is in", "battery and USB out before leads are handled");
  const auto end = [&](const LeadEnd& e) {
    const Terminal* t = terminal_of(wired_, catalogue_, e);
    return Json{{"part", e.part}, {"socket", e.socket}, {"label", t ? t->label : e.socket}};
  };
  return Json{{"ok", true},
              {"from", end(l->from)},
              {"to", end(l->to)},
              {"red_wire", !l->plus_removed},
              {"plug_turned", l->plug_turned},
              {"pair_turned", l->pair_turned}};
}

Result<void> Harness::mend(const std::string& lead) {
  Lead* l = wired_.lead(lead);
  const Lead* planned = planned_.lead(lead);
  if (!l || !planned) return failure("mend", "there is no lead \"" + lead + "\"", "a lead of the rig");
  if (supply_.usb || supply_.battery)
    return failure("mend", "a supply is in", "battery and USB out before leads are handled");
  *l = *planned;
  for (const LeadEnd* end : {&l->from, &l->to})
    if (Part* p = wired_.part(end->part)) *p = *planned_.part(end->part);
  return {};
}

}  // namespace rigging::twin
