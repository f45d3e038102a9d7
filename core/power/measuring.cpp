#include "power/measuring.h"

#include <algorithm>

namespace rigging {
namespace {

bool measures(const Terminal& t) {
  return t.kind == TerminalKind::sense_input || t.kind == TerminalKind::battery_in ||
         (t.kind == TerminalKind::power_in && t.net == "battery");
}

}  // namespace

bool can_measure_battery(const ControllerClass& controller) {
  const auto all = controller.terminals();
  return std::any_of(all.begin(), all.end(), [](const Terminal* t) { return measures(*t); });
}

bool battery_measured(const Rig& rig, const Catalogue& catalogue) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  const auto at_board = [&](const LeadEnd& end) {
    const Terminal* t = end.part == "controller" && c ? c->terminal(end.socket) : nullptr;
    return t && measures(*t);
  };
  return std::any_of(rig.leads.begin(), rig.leads.end(),
                     [&](const Lead& l) { return at_board(l.from) || at_board(l.to); });
}

const Terminal* alarm_pad(const ControllerClass& controller) {
  const auto all = controller.terminals();
  const auto it = std::find_if(all.begin(), all.end(), [](const Terminal* t) {
    return t->kind == TerminalKind::power_in && t->net == "battery";
  });
  return it == all.end() ? nullptr : *it;
}

}  // namespace rigging
