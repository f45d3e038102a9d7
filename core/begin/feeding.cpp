#include "begin/feeding.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "fit/edits.h"
#include "fit/usual_places.h"
#include "power/plugs.h"
#include "review/review.h"
#include "wiring/plan.h"

namespace rigging {
namespace {

/// Plans, and gets what is missing to feed all: what the plan asks for, else a module that measures and feeds. Only
/// what makes something less dark is got.
void feed(Rig& rig, const Catalogue& catalogue) {
  const auto dark = [](const Plan& plan) {
    return std::count_if(plan.obstacles.begin(), plan.obstacles.end(),
                         [](const Obstacle& o) { return o.code == "POWER-14"; });
  };
  Plan plan = plan_wiring(rig, catalogue);
  for (int round = 0; round < 4 && dark(plan) > 0; ++round) {
    std::vector<const PartKind*> tries;
    for (const Obstacle& o : plan.obstacles)
      if (const PartKind* k = catalogue.part(o.get)) tries.push_back(k);
    for (const PartKind& k : catalogue.parts)
      if (k.group == PartGroup::power_module && !k.feeds.empty()) tries.push_back(&k);
    std::optional<Plan> better;
    for (const PartKind* k : tries) {
      Rig with = plan.rig;
      add_one(with, *k);
      Plan then = plan_wiring(with, catalogue);
      if (dark(then) >= dark(plan)) continue;
      better = std::move(then);
      break;
    }
    if (!better) break;
    plan = std::move(*better);
  }
  rig = plan.rig;
}

/// What finds no pad for its plus, or gets too little where it hangs while servos stall, gets one regulator of its own,
/// straight from the battery. Only where fewer snags stay; false where nothing is changed.
bool feed_apart(Rig& rig, const Catalogue& catalogue) {
  const auto to_fix = [](const Review& r) {
    return std::count_if(r.snags.begin(), r.snags.end(),
                         [](const Snag& s) { return s.severity != Severity::worth_knowing; });
  };
  const Review before = review(rig, catalogue);
  std::set<std::string> wanting;
  for (const Obstacle& o : before.reports.plan().obstacles)
    if (o.code == "WIRING-12") wanting.insert(o.subject);
  for (const Snag& s : before.snags)
    if (s.code == "POWER-13") wanting.insert(s.subject);
  std::vector<LeadEnd> takers;
  double asked_a = 0, least_v = 0, most_v = 60;
  for (const std::string& id : wanting) {
    const PartKind* k = kind_of(rig, catalogue, id);
    if (!k || k->loads.empty()) continue;
    for (const Terminal& t : k->terminals)
      if (t.kind == TerminalKind::power_in) {
        takers.push_back({id, t.id, {}});
        asked_a += k->loads.front().most_a;
        least_v = std::max(least_v, k->loads.front().least_v);
        most_v = std::min(most_v, k->loads.front().most_v);
      }
  }
  const PartKind* fits = least_regulator(catalogue, least_v, most_v, asked_a);
  if (takers.empty() || !fits || !fits->terminal("out")) return false;
  Rig with = rig;
  const std::string regulator = add_one(with, *fits);
  const bool video = std::all_of(takers.begin(), takers.end(), [&](const LeadEnd& end) {
    const PartGroup group = kind_of(rig, catalogue, end.part)->group;
    return group == PartGroup::camera || group == PartGroup::video_transmitter;
  });
  if (video) with.parts.back().label = "video regulator";
  for (const LeadEnd& end : takers) {
    std::erase_if(with.leads, [&](const Lead& l) { return far_end(l, end.part, end.socket) != nullptr; });
    Lead l;
    l.id = end.part + "_power";
    for (int n = 2; with.lead(l.id); ++n) l.id = end.part + "_power" + std::to_string(n);
    l.from = end;
    l.to = {regulator, "out", {}};
    l.kind = usual_lead(*kind_of(with, catalogue, end.part)->terminal(end.socket), *fits->terminal("out"));
    with.leads.push_back(l);
  }
  with = plan_wiring(with, catalogue).rig;
  if (auto placed = place_parts(with, catalogue, false)) with = std::move(placed->rig);
  if (to_fix(review(with, catalogue)) >= to_fix(before)) return false;
  rig = std::move(with);
  return true;
}

/// The next stronger regulator of the same voltage; null when there is none.
const PartKind* stronger(const Catalogue& catalogue, const PartKind& regulator) {
  const PartKind* next = nullptr;
  for (const PartKind& k : catalogue.parts)
    if (k.group == PartGroup::regulator && !k.feeds.empty() && k.feeds.front().kind == FeedKind::switching &&
        std::abs(k.feeds.front().volts - regulator.feeds.front().volts) < 0.6 &&
        k.feeds.front().amps > regulator.feeds.front().amps &&
        (!next || k.feeds.front().amps < next->feeds.front().amps))
      next = &k;
  return next;
}

/// What nobody has chosen yet is chosen so that it bears what is asked of it: wires, and the regulators that were got
/// for the plan.
void strengthen(Rig& rig, const Catalogue& catalogue, const std::vector<std::string>& ours) {
  for (int round = 0; round < 12; ++round) {
    const Review r = review(rig, catalogue);
    bool changed = false;
    for (const Snag& s : r.snags) {
      if (Lead* l = rig.lead(s.subject); l && (s.code == "WIRING-26" || s.code == "WIRING-27") && lead_awg(*l) > 10) {
        l->gauge_awg = lead_awg(*l) - 2;
        changed = true;
      }
      const auto regulator = std::find(ours.begin(), ours.end(), s.subject);
      if (s.code.starts_with("POWER-0") && regulator != ours.end())
        if (Part* p = rig.part(s.subject))
          if (const PartKind* next = stronger(catalogue, *catalogue.part(p->kind)); next && !changed) {
            p->kind = next->id;
            changed = true;
          }
    }
    if (!changed) return;
  }
}

/// A speed controller comes with bare wires: it gets the plug of what feeds it.
void plug_controllers(Rig& rig, const Catalogue& catalogue) {
  for (const PlugJoint& j : plug_joints(rig, catalogue, analyze_power(rig, catalogue)))
    if (const PartKind* taker = kind_of(rig, catalogue, j.taker);
        !j.fits() && !j.phases && taker && taker->group == PartGroup::speed_controller)
      rig.part(j.taker)->plug = j.giving->id;
}

}  // namespace

std::string add_one(Rig& rig, const PartKind& kind, std::optional<Surface> surface) {
  Part part;
  part.kind = kind.id;
  const bool of_surface = surface && kind.group == PartGroup::servo;
  part.id = free_part_id(rig, std::string(name_of(kind.group)) + (of_surface ? "_" + surface->name() : ""));
  if (surface) part.surface = SurfaceName(*surface);
  rig.parts.push_back(part);
  return part.id;
}

void feed_all(Rig& rig, const Catalogue& catalogue) {
  std::set<std::string> told;
  for (const Part& p : rig.parts) told.insert(p.id);
  const auto ours = [&] {
    std::vector<std::string> all;
    for (const Part& p : rig.parts)
      if (!told.count(p.id)) all.push_back(p.id);
    return all;
  };
  feed(rig, catalogue);
  plug_controllers(rig, catalogue);
  strengthen(rig, catalogue, ours());
  if (auto placed = place_parts(rig, catalogue, false)) rig = std::move(placed->rig);
  // How much is lost on the way is known once all have their places.
  if (feed_apart(rig, catalogue)) strengthen(rig, catalogue, ours());
}

}  // namespace rigging
