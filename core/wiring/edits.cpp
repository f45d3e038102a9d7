#include "wiring/edits.h"

#include <algorithm>

#include "airframe/kinds.h"
#include "wiring/plan.h"
#include "wiring/wiring.h"

namespace rigging {

Result<Edit> plug(const Rig& rig, const Catalogue& catalogue, const std::string& lead, const std::string& socket) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  const Terminal* t = c ? c->terminal(socket) : nullptr;
  Edit edit{rig, "Lead " + lead + " to " + (t ? t->label : socket)};
  Lead* l = edit.rig.lead(lead);
  if (!l || !far_end(*l, "controller"))
    return failure(lead, "is no lead that ends at the controller", "the id of one that does");
  if (!t) return failure(socket, "is no socket of this controller", "one that `wiring` lists");
  LeadEnd& end = l->from.part == "controller" ? l->from : l->to;
  const Part* part = edit.rig.part(far_end(*l, "controller")->part);
  for (Output& o : edit.rig.outputs)
    if (t->kind == TerminalKind::output && o.socket == end.socket && part &&
        (drives_motor(o) ? !part->surface : part->surface && edit.rig.output_of(*part->surface) == &o) &&
        servos_on(edit.rig, catalogue, o.socket).size() < 2 &&
        std::none_of(edit.rig.outputs.begin(), edit.rig.outputs.end(),
                     [&](const Output& other) { return other.socket == socket; }))
      o.socket = socket;
  end.socket = socket;
  return edit;
}

Result<Edit> plan_all(const Rig& rig, const Catalogue& catalogue) {
  return Edit{plan_wiring(rig, catalogue).rig, "Wiring planned"};
}

std::vector<EditEntry> wiring_edits() {
  return {{"plug",
           "The board's end of a lead into another socket",
           {"LEAD", "SOCKET"},
           [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) {
             return plug(rig, c, given[0], given[1]);
           }},
          {"plan-wiring",
           "Every lead and output where the plan puts it",
           {},
           [](const Rig& rig, const Catalogue& c, const std::vector<std::string>&) { return plan_all(rig, c); }}};
}

}  // namespace rigging
