#include "review/wiring_pieces.h"

#include "airframe/kinds.h"
#include "base/find.h"
#include "wiring/edits.h"

namespace rigging::rules::wiring {

std::string name(const Inspection& in, const std::string& part) {
  return capital(part_name(in.rig, in.catalogue, part));
}

const Terminal* terminal(const Inspection& in, const LeadEnd& end) { return terminal_of(in.rig, in.catalogue, end); }

std::string at(const Inspection& in, const LeadEnd& end) {
  const Terminal* t = terminal(in, end);
  return part_name(in.rig, in.catalogue, end.part) + " " + (t ? t->label : "\"" + end.socket + "\"");
}

PartGroup group_of(const Inspection& in, const std::string& part) {
  const PartKind* k = kind_of(in.rig, in.catalogue, part);
  return k ? k->group : PartGroup::other;
}

std::vector<Touch> touches(const Inspection& in) {
  std::vector<Touch> all;
  if (!in.controller) return all;
  for (const Lead& l : in.rig.leads)
    if (const LeadEnd* far = far_end(l, "controller")) {
      const LeadEnd& near = far == &l.to ? l.from : l.to;
      all.push_back({&l, &near, far, terminal(in, near), terminal(in, *far)});
    }
  return all;
}

Fix move_end(const Touch& t, const Terminal& to) {
  return {"Move it to " + to.label, [lead = t.lead->id, socket = to.id](const Rig& rig, const Catalogue& c) {
            return plug(rig, c, lead, socket);
          }};
}

bool plugged(const Inspection& in, const std::string& part) {
  return std::any_of(in.rig.leads.begin(), in.rig.leads.end(),
                     [&](const Lead& l) { return far_end(l, part) != nullptr; });
}

bool socket_used(const Inspection& in, const std::string& socket) {
  return std::any_of(in.rig.leads.begin(), in.rig.leads.end(),
                     [&](const Lead& l) { return far_end(l, "controller", socket) != nullptr; });
}

const Obstacle* obstacle_of(const Inspection& in, const std::string& subject) {
  const auto& obstacles = in.reports.plan().obstacles;
  const auto of = [&](const std::string& id) {
    return find_in(obstacles, [&](const Obstacle& o) { return o.subject == id; });
  };
  // A servo whose output finds no socket has no supply either; the socket is what it lacks.
  const Part* part = in.rig.part(subject);
  const Output* output = part ? output_for(in.rig, in.catalogue, *part) : nullptr;
  const Obstacle* of_output = output ? of(output->id) : nullptr;
  return of_output ? of_output : of(subject);
}

std::optional<Fix> replan(const Inspection& in, const std::string& subject, const std::string& label) {
  if (in.reports.plan().changes == 0 || obstacle_of(in, subject)) return std::nullopt;
  return Fix{label, plan_all};
}

}  // namespace rigging::rules::wiring
