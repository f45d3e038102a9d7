#include "power/network.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>

namespace rigging {
namespace {

constexpr double usb_v = 5.0, usb_a = 0.5;                                 // USB 2.0, a configured device
constexpr double servo_contact_ohm = 0.010, battery_contact_ohm = 0.0006;  // common practice

struct Gathering {
  const Rig& rig;
  const Catalogue& catalogue;
  Network net;
  std::map<Node, int> index;

  int add(const std::string& part, const std::string& name) {
    const auto [it, fresh] = index.try_emplace(Node{part, name}, static_cast<int>(net.nodes.size()));
    if (fresh) net.nodes.push_back(it->first);
    return it->second;
  }
  void thing(const std::string& part, const std::vector<const Terminal*>& terminals, const std::vector<Feed>& feeds,
             const std::vector<Load>& loads, bool servo) {
    for (const Terminal* t : terminals)
      if (!t->net.empty()) add(part, t->net);
    for (const Feed& f : feeds) {
      add(part, f.from);
      add(part, f.to);
    }
    for (const Load& l : loads) net.draws.push_back({part, add(part, l.net), l, servo});
  }
};

std::string rail_name(const Network& net, const Rail& rail, const Rig& rig, const Catalogue& catalogue) {
  const auto is = [&](const char* part, const char* name) {
    return std::any_of(rail.nodes.begin(), rail.nodes.end(), [&](int n) {
      return net.nodes[static_cast<std::size_t>(n)] == Node{part, name};
    });
  };
  if (is("controller", "servo")) return "servo rail";
  if (is("controller", "five")) return "five-volt rail";
  if (is("controller", "rc")) return "receiver port";
  if (is("controller", "core")) return "the board's own supply";
  if (is("controller", "usb")) return "USB";
  for (const int n : rail.nodes) {
    const PartKind* k = kind_of(rig, catalogue, net.nodes[static_cast<std::size_t>(n)].part);
    if (k && k->group == PartGroup::battery) return "battery";
  }
  for (const int n : rail.nodes) {
    const Node& node = net.nodes[static_cast<std::size_t>(n)];
    const PartKind* k = kind_of(rig, catalogue, node.part);
    if (k && k->group == PartGroup::regulator && node.net == "out")
      return "rail of " + part_name(rig, catalogue, node.part);
  }
  return rail.nodes.empty()
             ? "rail"
             : "plus of " + part_name(rig, catalogue, net.nodes[static_cast<std::size_t>(rail.nodes.front())].part);
}

/// The drive current belongs to the rails on which speed controllers hang; where none hangs anywhere, to the first
/// battery's.
void share_the_drive(Network& net, const Rig& rig, const Catalogue& catalogue) {
  double all = 0;
  for (std::size_t n = 0; n < net.nodes.size(); ++n) {
    const PartKind* k = kind_of(rig, catalogue, net.nodes[n].part);
    if (!k || k->group != PartGroup::speed_controller) continue;
    const bool inlet = std::any_of(k->terminals.begin(), k->terminals.end(), [&](const Terminal& t) {
      return t.kind == TerminalKind::battery_in && t.net == net.nodes[n].net;
    });
    Rail& rail = net.rails[static_cast<std::size_t>(net.rail_of[n])];
    const bool fed = std::any_of(rail.sources.begin(), rail.sources.end(), [](const Source& s) { return s.ideal; });
    if (inlet && fed) ++rail.drive_share, ++all;
  }
  for (Rail& r : net.rails) {
    if (all > 0) {
      r.drive_share /= all;
    } else if (std::any_of(r.sources.begin(), r.sources.end(),
                           [](const Source& s) { return s.ideal && s.part != "computer"; })) {
      r.drive_share = 1;
      return;
    }
  }
}

}  // namespace

int Network::node(const std::string& part, const std::string& net) const {
  const auto it = std::find(nodes.begin(), nodes.end(), Node{part, net});
  return it == nodes.end() ? -1 : static_cast<int>(it - nodes.begin());
}

double copper_ohm_per_m(double awg) {
  const double diameter_m = 0.127e-3 * std::pow(92.0, (36 - awg) / 39);
  return 1.7241e-8 / (std::numbers::pi / 4 * diameter_m * diameter_m);
}

double lead_length_m(const Lead& lead) {
  if (lead.length_m) return *lead.length_m;
  switch (lead.kind) {
    case LeadKind::power:
    case LeadKind::phase: return 0.1;
    case LeadKind::servo:
    case LeadKind::y_lead: return 0.25;
    default: return 0.15;
  }
}

double lead_reach_m(const Rig& rig, const Lead& lead) {
  const double usual = lead_length_m(lead);
  const Mounting *a = rig.mounting(lead.from.part), *b = rig.mounting(lead.to.part);
  if (lead.length_m || !a || !b) return usual;
  return std::max(usual, std::hypot(a->x_m - b->x_m, a->y_m - b->y_m, a->z_m - b->z_m) * 1.3 + 0.04);
}

double lead_awg(const Lead& lead) {
  if (lead.gauge_awg) return *lead.gauge_awg;
  switch (lead.kind) {
    case LeadKind::power: return 14;
    case LeadKind::phase: return 16;
    case LeadKind::servo:
    case LeadKind::y_lead:
    case LeadKind::soldered: return 26;
    default: return 28;
  }
}

double lead_ohm(const Lead& lead) {
  const double contact = lead.kind == LeadKind::power || lead.kind == LeadKind::phase ? battery_contact_ohm
                         : lead.kind == LeadKind::soldered                            ? 0
                                                                                      : servo_contact_ohm;
  return 2 * (copper_ohm_per_m(lead_awg(lead)) * lead_length_m(lead) + 2 * contact);
}

const PartKind* kind_of(const Rig& rig, const Catalogue& catalogue, const std::string& part_id) {
  const Part* part = rig.part(part_id);
  return part ? catalogue.part(part->kind) : nullptr;
}

const Terminal* terminal_of(const Rig& rig, const Catalogue& catalogue, const LeadEnd& end) {
  if (end.part == "controller") {
    const ControllerClass* c = catalogue.controller(rig.controller.kind);
    return c ? c->terminal(end.socket) : nullptr;
  }
  const PartKind* kind = kind_of(rig, catalogue, end.part);
  return kind ? kind->terminal(end.socket) : nullptr;
}

std::string part_name(const Rig& rig, const Catalogue& catalogue, const std::string& part_id) {
  if (part_id == "controller") return "controller";
  if (part_id == "computer") return "USB";
  const Part* part = rig.part(part_id);
  if (!part) return part_id;
  if (!part->label.empty()) return part->label;
  const PartKind* kind = catalogue.part(part->kind);
  if (part->surface && part->surface->kind != SurfaceKind::motor) return part->surface->label() + " servo";
  // Motor, speed controller and propeller of one side each have their own name.
  if (part->surface && kind && part->surface->side != Side::single)
    return (part->surface->side == Side::left ? "left " : "right ") + label_of(name_of(kind->group));
  if (part->surface) return part->surface->label();
  if (!kind) return part_id;
  if (kind->group == PartGroup::servo && rig.airframe.kind == AirframeKind::towed_glider) return "release servo";
  const auto same =
      std::count_if(rig.parts.begin(), rig.parts.end(), [&](const Part& p) { return p.kind == part->kind; });
  return same > 1 ? label_of(part_id) : label_of(name_of(kind->group)) == "other" ? kind->name : label_of(part_id);
}

Network network_of(const Rig& rig, const Catalogue& catalogue, const std::vector<std::string>& without) {
  Gathering g{rig, catalogue, {}, {}};
  const auto out = [&](const std::string& part) {
    return std::find(without.begin(), without.end(), part) != without.end();
  };
  const ControllerClass* controller = catalogue.controller(rig.controller.kind);
  if (controller) g.thing("controller", controller->terminals(), controller->feeds, controller->loads, false);
  for (const Part& p : rig.parts) {
    const PartKind* k = catalogue.part(p.kind);
    if (!k || out(p.id)) continue;
    std::vector<const Terminal*> terminals;
    for (const Terminal& t : k->terminals) terminals.push_back(&t);
    g.thing(p.id, terminals, k->feeds, k->loads, k->group == PartGroup::servo);
  }
  Network& net = g.net;
  for (const Lead& l : rig.leads) {
    if (l.plus_removed || out(l.from.part) || out(l.to.part)) continue;
    const Terminal *a = terminal_of(rig, catalogue, l.from), *b = terminal_of(rig, catalogue, l.to);
    if (!a || !b || a->net.empty() || b->net.empty() || !carries_plus(a->kind) || !carries_plus(b->kind)) continue;
    net.wires.push_back({l.id, g.index.at({l.from.part, a->net}), g.index.at({l.to.part, b->net}), lead_ohm(l)});
  }

  // Rails: what wires and plain tracks join.
  std::vector<int> root(net.nodes.size());
  std::iota(root.begin(), root.end(), 0);
  const auto find = [&](int n) {
    while (root[static_cast<std::size_t>(n)] != n)
      n = root[static_cast<std::size_t>(n)] = root[static_cast<std::size_t>(root[static_cast<std::size_t>(n)])];
    return n;
  };
  for (const Wire& w : net.wires) root[static_cast<std::size_t>(find(w.a))] = find(w.b);
  struct Given {
    std::string part;
    const Feed* feed;
  };
  std::vector<Given> feeds;
  if (controller)
    for (const Feed& f : controller->feeds) feeds.push_back({"controller", &f});
  for (const Part& p : rig.parts)
    if (const PartKind* k = catalogue.part(p.kind); k && !out(p.id))
      for (const Feed& f : k->feeds) feeds.push_back({p.id, &f});
  for (const Given& f : feeds)
    if (f.feed->kind == FeedKind::joined) {
      const int a = g.index.at({f.part, f.feed->from}), b = g.index.at({f.part, f.feed->to});
      net.wires.push_back({"", a, b, 0.001});
      root[static_cast<std::size_t>(find(a))] = find(b);
    }
  std::map<int, int> rail_of_root;
  net.rail_of.resize(net.nodes.size());
  for (std::size_t n = 0; n < net.nodes.size(); ++n) {
    const auto [it, fresh] = rail_of_root.try_emplace(find(static_cast<int>(n)), static_cast<int>(net.rails.size()));
    if (fresh) net.rails.emplace_back();
    net.rail_of[n] = it->second;
    net.rails[static_cast<std::size_t>(it->second)].nodes.push_back(static_cast<int>(n));
  }
  const auto rail_at = [&](int node) -> Rail& {
    return net.rails[static_cast<std::size_t>(net.rail_of[static_cast<std::size_t>(node)])];
  };
  for (const Given& f : feeds) {
    if (f.feed->kind == FeedKind::joined) continue;
    Source s;
    s.part = f.part;
    s.node = g.index.at({f.part, f.feed->to});
    s.node_before = g.index.at({f.part, f.feed->from});
    s.rail_before = net.rail_of[static_cast<std::size_t>(s.node_before)];
    s.kind = f.feed->kind;
    s.volts = f.feed->volts;
    s.amps = f.feed->amps;
    s.least_in_v = f.feed->least_in_v;
    s.most_in_v = f.feed->most_in_v;
    s.k_per_w = f.feed->k_per_w;
    s.most_junction_c = f.feed->most_junction_c;
    rail_at(s.node).sources.push_back(s);
  }
  for (const Part& p : rig.parts) {
    const PartKind* k = catalogue.part(p.kind);
    if (!k || !k->battery || out(p.id)) continue;
    Source s;
    s.part = p.id;
    s.node = net.node(p.id, "plus");
    s.ideal = true;
    s.volts = k->battery->cells * k->battery->nominal_cell_v;
    s.amps = k->battery->amps;
    s.ohm = k->battery->cells * k->battery->cell_milliohm / 1000;
    if (s.node >= 0) rail_at(s.node).sources.push_back(s);
  }
  if (controller)
    for (const Terminal& t : controller->ports)
      if (t.kind == TerminalKind::usb && !t.net.empty()) {
        Source s;
        s.part = "computer";
        s.node = net.node("controller", t.net);
        s.ideal = true;
        s.volts = usb_v;
        s.amps = usb_a;
        rail_at(s.node).sources.push_back(s);
      }
  share_the_drive(net, rig, catalogue);
  for (Rail& r : net.rails) r.name = rail_name(net, r, rig, catalogue);
  return std::move(g.net);
}

}  // namespace rigging
