#include "power/plugs.h"

#include <algorithm>
#include <cmath>

namespace rigging {
namespace {

/// The kind of plug at a part's battery or motor lead, as the builder says or as the catalogue has it; null without
/// one.
const PartKind* plug_of(const Rig& rig, const Catalogue& catalogue, const LeadEnd& end) {
  const Terminal* t = terminal_of(rig, catalogue, end);
  if (!t) return nullptr;
  const Part* p = rig.part(end.part);
  const std::string own = !p ? std::string() : on_motor_lead(t->kind) ? p->motor_plug : p->plug;
  const PartKind* k = catalogue.part(own.empty() ? t->plug : own);
  return k && k->plug ? k : nullptr;
}

}  // namespace

std::vector<PlugJoint> plug_joints(const Rig& rig, const Catalogue& catalogue, const PowerReport& power) {
  std::vector<PlugJoint> all;
  const Solution& full = power.load_cases[static_cast<std::size_t>(LoadCase::all_moving)];
  for (const Lead& l : rig.leads) {
    const Terminal *a = terminal_of(rig, catalogue, l.from), *b = terminal_of(rig, catalogue, l.to);
    if (!a || !b) continue;
    const auto gives = [](const Terminal& from, const Terminal& to) {
      return (from.kind == TerminalKind::battery_out && to.kind == TerminalKind::battery_in) ||
             (from.kind == TerminalKind::motor_out && to.kind == TerminalKind::motor_in);
    };
    const bool from_gives = gives(*a, *b);
    if (!from_gives && !gives(*b, *a)) continue;
    const LeadEnd &giver = from_gives ? l.from : l.to, &taker = from_gives ? l.to : l.from;
    PlugJoint joint;
    joint.giver = giver.part;
    joint.taker = taker.part;
    joint.phases = a->kind == TerminalKind::motor_out || b->kind == TerminalKind::motor_out;
    joint.giving = plug_of(rig, catalogue, giver);
    joint.taking = plug_of(rig, catalogue, taker);
    for (std::size_t w = 0; w < power.network.wires.size() && w < full.wire_a.size(); ++w)
      if (power.network.wires[w].lead == l.id) joint.amps = std::max(joint.amps, std::abs(full.wire_a[w]));
    // The motors' share runs through whatever stands before their speed controllers.
    const PartKind* taker_kind = kind_of(rig, catalogue, joint.taker);
    const bool before =
        joint.taker == "controller" ||
        (taker_kind && (taker_kind->group == PartGroup::power_module || taker_kind->group == PartGroup::other));
    if (power.drive)
      for (const Motor& m : power.drive->motors)
        if (joint.phases ? m.motor == joint.taker : before || m.controller == joint.taker) joint.amps += m.amps;
    for (const PartKind* k : {joint.giving, joint.taking})
      if (k) joint.bears_a = joint.bears_a == 0 ? k->plug->amps : std::min(joint.bears_a, k->plug->amps);
    all.push_back(std::move(joint));
  }
  return all;
}

}  // namespace rigging
