#include <algorithm>

#include "base/number.h"

#include "power/measuring.h"
#include "wiring/planner.h"
#include "wiring/ports.h"

namespace rigging {
namespace {

constexpr double most_board_v = 5.6;  // that five-volt parts bear; common practice
constexpr double least_five_v = 4.5;  // that they need

/// What the class makes on one of its nets; five volts where it says nothing.
double net_volts(const ControllerClass& c, const std::string& net) {
  for (const Feed& f : c.feeds)
    if (f.to == net && (f.kind == FeedKind::linear || f.kind == FeedKind::switching)) return f.volts;
  return 5;
}

/// An output socket that no surface will ever need.
bool spare_row(const Terminal& t) { return t.serves.empty() || t.serves == name_of(PartGroup::regulator); }

}  // namespace

void Planner::battery_side() {
  auto batteries = parts_of(PartGroup::battery);
  const auto modules = parts_of(PartGroup::power_module);
  if (batteries.empty()) return;
  // The one that feeds the drive already, else the one that gives most.
  const auto drives = [&](const Part* p) {
    const LeadEnd* to = goes(p->id, "main");
    const PartKind* k = to ? kind_of(plan_.rig, catalogue_, to->part) : nullptr;
    return k && (k->group == PartGroup::speed_controller || k->group == PartGroup::power_module);
  };
  const auto amps = [&](const Part* p) { return catalogue_.part(p->kind)->battery->amps; };
  std::stable_sort(batteries.begin(), batteries.end(), [&](const Part* a, const Part* b) {
    return drives(a) != drives(b) ? drives(a) : amps(a) > amps(b);
  });
  std::string from = batteries.front()->id, outlet = "main";
  if (!modules.empty()) {
    const std::string module = modules.front()->id;
    connect(module, "battery", from, outlet, "it measures what the battery gives");
    const auto sense = std::find_if(controller_->ports.begin(), controller_->ports.end(),
                                    [](const Terminal& t) { return t.kind == TerminalKind::sense_input; });
    if (sense != controller_->ports.end())
      connect(module, "sense", "controller", sense->id,
              "the socket for measuring; in another one the voltage reads zero");
    else
      obstacle(module, "The " + controller_->name + " has no socket for a measuring lead", "WIRING-13");
    from = module;
    outlet = "esc";
  }
  // A board that takes the battery itself makes its own five volts of it, and gives it on to the speed controllers.
  std::vector<std::string> outlets;
  const auto of_board = [&](TerminalKind kind) {
    std::vector<std::string> ids;
    for (const Terminal* t : controller_->terminals())
      if (t->kind == kind) ids.push_back(t->id);
    return ids;
  };
  if (const auto inlets = of_board(TerminalKind::battery_in); !inlets.empty()) {
    connect(from, outlet, "controller", inlets.front(), "the board makes its own five volts of it");
    if (outlets = of_board(TerminalKind::battery_out); !outlets.empty()) from = "controller";
  }
  if (const Terminal* pad = alarm_pad(*controller_); pad && modules.empty())
    connect(batteries.front()->id, "main", "controller", pad->id,
            "soldered, plus alone: without it the board's alarm does not know the battery");
  // A distribution board splits it; without one several leads share the outlet.
  for (const Part& p : rig().parts)
    if (const Terminal* in = terminal(p.id, "in");
        in && in->kind == TerminalKind::battery_in && terminal(p.id, "out_1")) {
      connect(p.id, "in", from, outlet, "splits the battery's lead");
      from = p.id;
      const PartKind* k = catalogue_.part(p.kind);
      for (const Terminal& t : k->terminals)
        if (t.kind == TerminalKind::battery_out) outlets.push_back(t.id);
      break;
    }
  std::size_t next = 0;
  const auto take = [&] { return outlets.empty() ? outlet : outlets[std::min(next++, outlets.size() - 1)]; };
  for (const Part* p : parts_of(PartGroup::speed_controller)) {
    if (is_fixed(p->id, "battery"))
      keep(p->id, "battery");
    else
      connect(p->id, "battery", from, take(), "drive current");
  }
  // A second battery lives for the regulators: what steers stays alive when the motor's battery is flat.
  const std::string second = batteries.size() > 1 ? batteries[1]->id : std::string();
  for (const Part* p : parts_of(PartGroup::regulator)) {
    if (is_fixed(p->id, "in"))
      keep(p->id, "in");
    else if (!second.empty())
      connect(p->id, "in", second, "main", "a battery of its own");
    else
      connect(p->id, "in", from, take(), "its inlet");
  }
  battery_outlet_ = {from, outlets.empty() ? outlet : outlets.back()};
}

void Planner::two_wire() {
  const auto bus = std::find_if(controller_->ports.begin(), controller_->ports.end(),
                                [](const Terminal& t) { return t.kind == TerminalKind::two_wire; });
  for (const Part& p : std::vector<Part>(rig().parts)) {
    const PartKind* k = catalogue_.part(p.kind);
    if (!k) continue;
    for (const Terminal& t : k->terminals) {
      if (t.kind != TerminalKind::two_wire) continue;
      if (bus != controller_->ports.end())
        connect(p.id, t.id, "controller", bus->id, "clock and data, a bus that several parts share");
      else if (k->group == PartGroup::compass || k->group == PartGroup::airspeed)
        obstacle(p.id, capital(name(p.id)) + " needs a two-wire bus, and the " + controller_->name + " has none",
                 "WIRING-06");
    }
  }
}

void Planner::video_and_pads() {
  // A pad through which a regulator feeds the board is none to take from.
  const auto feeds_in = [&](const std::string& socket) {
    return std::any_of(rig().leads.begin(), rig().leads.end(), [&](const Lead& l) {
      const LeadEnd* far = far_end(l, "controller", socket);
      const PartKind* k = far ? kind_of(plan_.rig, catalogue_, far->part) : nullptr;
      return k && k->group == PartGroup::regulator;
    });
  };
  const auto pad = [&](TerminalKind kind) -> const Terminal* {
    for (const Terminal& t : controller_->pads)
      if (t.kind == kind && !busy("controller", t.id) && !feeds_in(t.id) &&
          (kind != TerminalKind::power || net_volts(*controller_, t.net) > least_five_v))
        return &t;
    return nullptr;
  };
  // Keep what is on a pad already where it is: settle those first.
  const auto group_parts = [&](PartGroup g) {
    std::vector<std::string> ids;
    for (const Part* p : parts_of(g)) ids.push_back(p->id);
    return ids;
  };
  const auto cameras = group_parts(PartGroup::camera), transmitters = group_parts(PartGroup::video_transmitter);
  const auto place = [&](const std::string& part, const std::string& end, TerminalKind kind, const std::string& why) {
    if (is_fixed(part, end)) {
      keep(part, end);
      return true;
    }
    if (const LeadEnd* now = goes(part, end, "controller"))
      if (const Terminal* t = terminal("controller", now->socket);
          t && t->kind == kind && !busy("controller", t->id) && !feeds_in(t->id)) {
        connect(part, end, "controller", std::string(t->id), why);
        return true;
      }
    if (const Terminal* t = pad(kind)) {
      connect(part, end, "controller", t->id, why);
      return true;
    }
    return false;
  };
  // A switch takes the pictures of two cameras and gives one.
  std::vector<std::pair<std::string, std::string>> inlets;
  for (const std::string& s : group_parts(PartGroup::camera_switch)) {
    for (const char* inlet : {"in_a", "in_b"}) inlets.emplace_back(s, inlet);
    if (!place(s, "out", TerminalKind::video_in, "the board writes its figures into the picture") &&
        !transmitters.empty())
      connect(s, "out", transmitters.front(), "video", "picture straight to the transmitter");
  }
  for (std::size_t i = 0; i < cameras.size(); ++i) {
    if (!terminal(cameras[i], "video")) continue;
    if (i < inlets.size()) {
      connect(cameras[i], "video", inlets[i].first, inlets[i].second,
              "one of the pictures that the switch chooses from");
      continue;
    }
    if (!place(cameras[i], "video", TerminalKind::video_in, "the board writes its figures into the picture") &&
        i < transmitters.size())
      connect(cameras[i], "video", transmitters[i], "video", "picture straight to the transmitter");
  }
  for (const std::string& v : transmitters)
    if (terminal(v, "video") && !busy(v, "video"))
      place(v, "video", TerminalKind::video_out, "picture with the board's figures");
  for (const std::string& b : group_parts(PartGroup::buzzer))
    if (!place(b, "pad", TerminalKind::switched, "the pad that switches a small load"))
      obstacle(b, "The " + controller_->name + " has no pad that switches a buzzer", "WIRING-12");

  // Power for whatever takes plus by its own lead.
  std::vector<std::pair<std::string, std::string>> takers;
  for (const Part& p : rig().parts) {
    const PartKind* k = catalogue_.part(p.kind);
    if (!k || k->group == PartGroup::other) continue;
    for (const Terminal& t : k->terminals)
      if (t.kind == TerminalKind::power_in) takers.emplace_back(p.id, t.id);
  }
  // Those that sit on a pad or regulator already go first, so that nothing pushes them off.
  std::stable_sort(takers.begin(), takers.end(), [&](const auto& a, const auto& b) {
    return (goes(a.first, a.second) != nullptr) > (goes(b.first, b.second) != nullptr);
  });
  for (const auto& [part, end] : takers) {
    const PartKind* k = kind_of(plan_.rig, catalogue_, part);
    if (is_fixed(part, end)) {
      keep(part, end);
      continue;
    }
    const Load* load = k->loads.empty() ? nullptr : &k->loads.front();
    if (const LeadEnd* now = goes(part, end); now && now->part != "controller" && terminal(now->part, now->socket)) {
      connect(part, end, std::string(now->part), std::string(now->socket), "it is fed from there already");
      continue;
    }
    // What wants 3.3 V would be destroyed on five.
    if (load && load->most_v < least_five_v) {
      const Terminal* low = nullptr;
      for (const Terminal& t : controller_->pads)
        if (t.kind == TerminalKind::power && !busy("controller", t.id) &&
            net_volts(*controller_, t.net) <= load->most_v)
          low = &t;
      if (low)
        connect(part, end, "controller", low->id, "the pad of the voltage that it bears");
      else
        obstacle(part,
                 capital(name(part)) + " bears " + number_text(load->most_v, 1) + " V, and no pad of the " +
                     controller_->name +
                     " gives so little: get the five-volt kind, or a small "
                     "regulator for it",
                 "POWER-13");
      continue;
    }
    if (load && load->least_v > 5.6) {
      if (battery_outlet_.first.empty())
        obstacle(part, capital(name(part)) + " needs battery voltage, and the rig has no battery", "POWER-13");
      else
        connect(part, end, battery_outlet_.first, battery_outlet_.second, "it needs battery voltage");
      continue;
    }
    if (place(part, end, TerminalKind::power, "a free power pad")) continue;
    if (!spare(part, end))
      obstacle(part,
               capital(name(part)) +
                   " finds no power pad: a distribution board, a spliced lead or a second regulator is needed",
               "WIRING-12");
  }
}

bool Planner::spare(const std::string& part, const std::string& end) {
  for (const Part& p : rig().parts)
    if (const PartKind* k = catalogue_.part(p.kind); k && k->group == PartGroup::other)
      for (const Terminal& t : k->terminals)
        if (t.kind == TerminalKind::power && !busy(p.id, t.id)) {
          connect(part, end, p.id, std::string(t.id), "the spliced lead has an outlet free");
          return true;
        }
  for (const Terminal& t : controller_->outputs)
    if (!busy("controller", t.id) && t.serves.empty() &&
        std::none_of(rig().outputs.begin(), rig().outputs.end(), [&](const Output& o) { return o.socket == t.id; })) {
      connect(part, end, "controller", t.id, "a spare output socket gives plus and minus");
      return true;
    }
  return false;
}

void Planner::regulators() {
  for (const Part& p : std::vector<Part>(rig().parts))
    if (const PartKind* k = catalogue_.part(p.kind); k && k->group == PartGroup::other && terminal(p.id, "in") &&
                                                     terminal(p.id, "in")->kind == TerminalKind::power_in &&
                                                     !busy(p.id, "in")) {
      for (const Terminal& t : controller_->pads)
        if (t.kind == TerminalKind::power && !busy("controller", t.id)) {
          connect(p.id, "in", "controller", t.id, "one pad feeds several");
          break;
        }
    }
  for (const Part* p : parts_of(PartGroup::regulator)) {
    const std::string id = p->id;
    if (is_fixed(id, "out")) {
      keep(id, "out");
      continue;
    }
    // One that feeds parts of its own by their leads needs no inlet on the board.
    if (std::any_of(plan_.rig.leads.begin(), plan_.rig.leads.end(), [&](const Lead& l) {
          const LeadEnd* far = far_end(l, id, "out");
          return far && far->part != "controller" && terminal(far->part, far->socket);
        }))
      continue;
    if (const LeadEnd* now = goes(id, "out");
        now && now->part == "controller" && terminal("controller", now->socket) && !busy("controller", now->socket)) {
      connect(id, "out", "controller", std::string(now->socket), "it is there already");
      continue;
    }
    const Terminal* inlet = nullptr;
    for (const Terminal& t : controller_->ports)
      if (t.serves == "regulator" && !busy("controller", t.id)) inlet = &t;
    for (const Terminal& t : controller_->outputs)
      if (!inlet && !busy("controller", t.id) && spare_row(t) &&
          std::none_of(rig().outputs.begin(), rig().outputs.end(), [&](const Output& o) { return o.socket == t.id; }))
        inlet = &t;
    // A receiver port that carries the rail's plus will do, where nothing else hangs on it.
    for (const Terminal& t : controller_->ports)
      if (!inlet && !busy("controller", t.id) && t.kind != TerminalKind::pulse_input && t.net == "servo" &&
          t.serves_as(TerminalKind::pulse_input))
        inlet = &t;
    if (inlet)
      connect(id, "out", "controller", inlet->id, "a spare socket as the inlet of the servo rail");
    else
      obstacle(id, "No socket is free as the inlet of " + name(id), "WIRING-01");
  }
}

bool Planner::pads_wanted(const std::string& net) const {
  const bool pads = std::any_of(controller_->pads.begin(), controller_->pads.end(),
                                [&](const Terminal& t) { return t.kind == TerminalKind::power && t.net == net; });
  return pads && std::any_of(plan_.rig.parts.begin(), plan_.rig.parts.end(), [&](const Part& p) {
           const PartKind* k = catalogue_.part(p.kind);
           return k && k->group != PartGroup::other && !k->loads.empty() && k->loads.front().least_v <= 5.6 &&
                  std::any_of(k->terminals.begin(), k->terminals.end(),
                              [&](const Terminal& t) { return t.kind == TerminalKind::power_in && !busy(p.id, t.id); });
         });
}

std::optional<Planner::UnpoweredRail> Planner::unpowered_rail(const Network& net, const Solution& powered,
                                                              const std::set<std::string>& tried) const {
  for (std::size_t q = 0; q < net.rails.size(); ++q) {
    if (powered.rails[q].live) continue;
    UnpoweredRail unpowered;
    unpowered.name = net.rails[q].name;
    for (const int node : net.rails[q].nodes)
      if (net.nodes[static_cast<std::size_t>(node)].part == "controller")
        unpowered.board_net = net.nodes[static_cast<std::size_t>(node)].net;
    if (unpowered.board_net.empty() || unpowered.board_net == "usb" || tried.count(unpowered.board_net)) continue;
    for (const Draw& d : net.draws)
      if (net.rail_of[static_cast<std::size_t>(d.node)] == static_cast<int>(q)) unpowered.asked_a += d.load.typical_a;
    if (unpowered.asked_a > 0 || pads_wanted(unpowered.board_net)) return unpowered;
  }
  return std::nullopt;
}

const Terminal* Planner::inlet_of(const std::string& board_net) const {
  for (const auto* list : {&controller_->pads, &controller_->outputs})
    for (const Terminal& t : *list)
      if (t.net == board_net && !busy("controller", t.id) &&
          (t.kind == TerminalKind::power || (t.kind == TerminalKind::output && spare_row(t))) &&
          std::none_of(plan_.rig.outputs.begin(), plan_.rig.outputs.end(),
                       [&](const Output& o) { return o.socket == t.id; }))
        return &t;
  return nullptr;
}

std::string Planner::regulator_with_room(const Network& net, const Solution& powered, double asked_a) const {
  std::string best;
  double most_room_a = asked_a;
  for (std::size_t q = 0; q < net.rails.size(); ++q)
    for (std::size_t k = 0; k < net.rails[q].sources.size(); ++k) {
      const Source& s = net.rails[q].sources[k];
      const PartKind* kind = kind_of(plan_.rig, catalogue_, s.part);
      if (!kind || kind->group != PartGroup::regulator || powered.rails[q].source != static_cast<int>(k)) continue;
      if (s.volts > most_board_v || s.amps - powered.rails[q].amps < most_room_a) continue;
      most_room_a = s.amps - powered.rails[q].amps;
      best = s.part;
    }
  if (!best.empty()) return best;
  // One that found no socket will do, too; one that has parts of its own keeps its lead.
  for (const Part* p : parts_of(PartGroup::regulator))
    if (const PartKind* k = catalogue_.part(p->kind); !k->feeds.empty() && k->feeds.front().volts <= most_board_v &&
                                                      k->feeds.front().amps >= asked_a && !goes(p->id, "out"))
      return p->id;
  return {};
}

void Planner::feed_dark_rails() {
  std::set<std::string> tried;
  while (true) {
    const Network net = network_of(rig(), catalogue_);
    const Solution powered = solve(net, SupplyState::battery, LoadCase::all_moving, 1, 0);
    const auto unpowered = unpowered_rail(net, powered, tried);
    if (!unpowered) return;
    tried.insert(unpowered->board_net);
    const Terminal* inlet = inlet_of(unpowered->board_net);
    const std::string giver = regulator_with_room(net, powered, unpowered->asked_a);
    if (!inlet || giver.empty()) continue;
    // What it feeds already keeps its lead: this one is added.
    for (const Lead& l : rig().leads)
      if (const LeadEnd* far = far_end(l, giver, "out"); far && terminal(far->part, far->socket)) settled_.insert(l.id);
    connect(giver, "out", "controller", inlet->id, "a second lead: nothing else feeds the " + unpowered->name);
  }
}

void Planner::say_what_stays_dark() {
  if (parts_of(PartGroup::battery).empty()) return;
  const Network net = network_of(rig(), catalogue_);
  const Solution powered = solve(net, SupplyState::battery, LoadCase::idle, 1, 0);
  for (std::size_t q = 0; q < net.rails.size(); ++q) {
    if (powered.rails[q].live) continue;
    std::set<std::string> names;
    std::string first;
    double asked = 0, least_v = 0, most_v = 60;
    for (const Draw& d : net.draws)
      if (net.rail_of[static_cast<std::size_t>(d.node)] == static_cast<int>(q)) {
        const PartKind* kind = kind_of(rig(), catalogue_, d.part);
        if (kind && !port_lacking(*controller_, *kind).empty()) continue;  // which a source would not help
        names.insert(name(d.part));
        if (first.empty()) first = d.part;
        asked += d.load.most_a;
        least_v = std::max(least_v, d.load.least_v);
        most_v = std::min(most_v, d.load.most_v);
      }
    if (names.empty()) continue;
    std::string who;
    for (const std::string& n : names) who += (who.empty() ? "" : ", ") + n;
    const PartKind* fits = least_regulator(catalogue_, least_v, std::min(most_v, most_board_v), asked);
    obstacle(first,
             capital(who) + (names.size() > 1 ? " stay" : " stays") + " dark: nothing feeds " +
                 (net.rails[q].nodes.size() > 1 ? "the " + net.rails[q].name : "it") + ". " +
                 (fits ? "Get a source for it (" + fits->name + "), grounds common"
                       : "It needs a source of its own, of " + number_text(least_v, 1) + " to " +
                             number_text(most_v, 1) + " V"),
             "POWER-14");
    if (fits) plan_.obstacles.back().get = fits->id;
  }
}

void Planner::red_wires() {
  const Network joined = network_of(rig(), catalogue_);
  for (const Rail& rail : joined.rails) {
    std::vector<const Source*> givers;
    for (const Source& s : rail.sources)
      if (s.kind == FeedKind::linear || s.kind == FeedKind::switching) givers.push_back(&s);
    if (givers.size() < 2) continue;
    const auto rank = [&](const Source* s) {
      const PartKind* k = kind_of(rig(), catalogue_, s->part);
      return k && k->group == PartGroup::regulator ? 0 : k && k->group == PartGroup::power_module ? 1 : 2;
    };
    std::stable_sort(givers.begin(), givers.end(), [&](const Source* a, const Source* b) { return rank(a) < rank(b); });
    for (std::size_t i = 1; i < givers.size(); ++i)
      for (Lead& l : rig().leads)
        if (const LeadEnd* far = far_end(l, givers[i]->part); far && !l.fixed && !l.plus_removed) {
          const LeadEnd& near = far == &l.to ? l.from : l.to;
          const Terminal* t = terminal(near.part, near.socket);
          if (!t || joined.node(near.part, t->net) != givers[i]->node) continue;
          l.plus_removed = true;
          plan_.choices.push_back({givers[i]->part, near.socket, "red wire out",
                                   name(givers[0]->part) + " feeds this rail: one source a rail", true});
        }
  }
}

}  // namespace rigging
