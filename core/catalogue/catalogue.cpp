#include "catalogue/catalogue.h"

#include <algorithm>
#include <array>
#include <set>

#include "base/find.h"
#include "base/number.h"

namespace rigging {

std::vector<const Part*> parts_of(const Rig& rig, const Catalogue& catalogue, PartGroup group) {
  std::vector<const Part*> all;
  for (const Part& p : rig.parts)
    if (const PartKind* kind = catalogue.part(p.kind); kind && kind->group == group) all.push_back(&p);
  return all;
}

const SettingWay* ControllerClass::way(const std::string& what) const {
  return find_in(settings, [&](const SettingWay& w) { return w.what == what; });
}

const RemedySteps* ControllerClass::steps_for(Remedy remedy) const {
  return find_in(remedies, [&](const RemedySteps& c) { return c.remedy == remedy; });
}

const ModeAnswer* ControllerClass::mode(Mode wanted) const {
  return find_in(proof.modes, [&](const ModeAnswer& m) { return m.mode == wanted; });
}

const Lamp* ControllerClass::lamp(LampTells tells) const {
  return find_in(proof.lamps, [&](const Lamp& l) { return l.tells == tells; });
}

const Terminal* ControllerClass::socket(const std::string& socket_id) const {
  return find_in(outputs, [&](const Terminal& t) { return t.id == socket_id; });
}

const Terminal* ControllerClass::terminal(const std::string& terminal_id) const {
  for (const auto* list : {&outputs, &ports, &pads})
    for (const Terminal& t : *list)
      if (t.id == terminal_id) return &t;
  return nullptr;
}

std::vector<const Terminal*> ControllerClass::terminals() const {
  std::vector<const Terminal*> all;
  for (const auto* list : {&outputs, &ports, &pads})
    for (const Terminal& t : *list) all.push_back(&t);
  return all;
}

const Terminal* PartKind::terminal(const std::string& terminal_id) const {
  return find_in(terminals, [&](const Terminal& t) { return t.id == terminal_id; });
}

Abilities ControllerClass::abilities() const {
  Abilities can;
  // What hands can do on any model, and what any transmitter offers.
  for (const Remedy r : {Remedy::swap_leads, Remedy::check_output, Remedy::move_linkage, Remedy::reverse_transmitter,
                         Remedy::swap_transmitter, Remedy::turn_board})
    can.add(r);
  for (const RemedySteps& c : remedies) can.add(c.remedy);
  return can;
}

const ControllerClass* Catalogue::controller(const std::string& id) const {
  return find_in(controllers, [&](const ControllerClass& c) { return c.id == id; });
}

std::string ControllerClass::with_leaflet(std::string text) const {
  const auto channel = [](int number) { return number > 0 ? std::to_string(number) : std::string("of your choice"); };
  std::vector<std::pair<std::string, std::string>> figures{{"{mode_channel}", channel(sticks.mode_channel)},
                                                           {"{unlock_channel}", channel(sticks.unlock_channel)}};
  for (const LeafletValue& v : leaflet)
    figures.emplace_back("{leaflet:" + v.id + "}",
                         v.looked_up ? v.value : v.value + " (an example: your unit's leaflet says)");
  return replaced(std::move(text), figures);
}

const PartKind* least_regulator(const Catalogue& catalogue, double least_v, double most_v, double amps) {
  const PartKind* least = nullptr;
  for (const PartKind& k : catalogue.parts)
    if (k.group == PartGroup::regulator && !k.feeds.empty() && k.feeds.front().kind == FeedKind::switching)
      if (const Feed& f = k.feeds.front();
          f.volts >= least_v && f.volts <= most_v && f.amps >= amps && (!least || f.amps < least->feeds.front().amps))
        least = &k;
  return least;
}

bool ControllerClass::needs_profile(SurfaceKind kind) const {
  return surfaces.others_by_profile &&
         std::find(surfaces.drives.begin(), surfaces.drives.end(), kind) == surfaces.drives.end();
}

const PartKind* Catalogue::part(const std::string& id) const {
  return find_in(parts, [&](const PartKind& p) { return p.id == id; });
}

namespace {

/// Terminals, feeds and loads of a part or a board.
Result<void> electrics_fit(const std::vector<const Terminal*>& terminals, const std::vector<Feed>& feeds,
                           const std::vector<Load>& loads, const std::string& where) {
  std::set<std::string> ids, nets;
  for (const Terminal* t : terminals) {
    if (t->id.empty() || !ids.insert(t->id).second)
      return failure(where, "terminal \"" + t->id + "\" is there twice or has no name",
                     "terminals with names that differ");
    if (!t->net.empty()) nets.insert(t->net);
  }
  for (const Feed& f : feeds) {
    nets.insert(f.to);
    if (f.from == f.to) return failure(where, "a feed leads from \"" + f.from + "\" to itself", "two nets");
    if (!(f.least_in_v < f.most_in_v))
      return failure(where, "the input window of a feed is empty", "least_in_v < most_in_v");
    if ((f.kind == FeedKind::linear || f.kind == FeedKind::switching) && (f.volts <= 0 || f.amps <= 0))
      return failure(where, "a regulator without volts or amps", "both above zero");
  }
  for (const Feed& f : feeds)
    if (!nets.count(f.from))
      return failure(where, "a feed comes from net \"" + f.from + "\", on which nothing is",
                     "the net of a terminal or another feed");
  for (const Load& l : loads) {
    if (!nets.count(l.net))
      return failure(where, "a load sits on net \"" + l.net + "\", on which nothing is",
                     "the net of a terminal or a feed");
    if (!(l.idle_a <= l.typical_a && l.typical_a <= l.most_a))
      return failure(where, "a load's currents are out of order", "idle_a ≤ typical_a ≤ most_a");
    if (!(l.least_v < l.most_v)) return failure(where, "a load's voltage window is empty", "least_v < most_v");
  }
  return {};
}

}  // namespace

Result<void> consistent(const ControllerClass& c, const std::string& where) {
  if (c.id.empty()) return failure(where, "has no id", "a name of small letters, digits and _");
  if (c.outputs.empty() || c.proof.modes.empty())
    return failure(where, "has no outputs or no modes", "at least one of each");
  for (const Terminal& t : c.outputs)
    if (t.kind != TerminalKind::output || t.timer_group == 0)
      return failure(where, "output \"" + t.id + "\" is no output of a timer group", "kind output and a timer_group");
  // Many times what boards have.
  constexpr std::size_t most_listed = 64;
  for (const auto& [list, count] : {std::pair{"outputs", c.outputs.size()},
                                    {"ports", c.ports.size()},
                                    {"pads", c.pads.size()},
                                    {"feeds", c.feeds.size()},
                                    {"loads", c.loads.size()},
                                    {"settings", c.settings.size()},
                                    {"lamps", c.proof.lamps.size()}})
    if (count > most_listed)
      return failure(where + ": " + list, "has " + std::to_string(count) + " entries",
                     "at most " + std::to_string(most_listed));
  constexpr std::array<std::string_view, 5> edges{"", "nose", "tail", "left", "right"};
  for (const Terminal* t : c.terminals()) {
    if (std::find(edges.begin(), edges.end(), t->side) == edges.end())
      return failure(where + ": " + t->id, "\"" + t->side + "\" is no edge", "nose, tail, left, right, or nothing");
    if (t->x_mm > c.width_mm || t->y_mm > c.length_mm)
      return failure(where + ": " + t->id, "lies beside the board",
                     "x_mm up to " + number_text(c.width_mm, 1) + " and y_mm up to " + number_text(c.length_mm, 1));
  }
  if (!c.mode(c.proof.bench_mode))
    return failure(where, "is looked at in a mode that it does not have", "bench_mode among its modes");
  return electrics_fit(c.terminals(), c.feeds, c.loads, where);
}

Result<void> consistent(const PartKind& p, const std::string& where) {
  if (p.id.empty()) return failure(where, "has no id", "a name of small letters, digits and _");
  const auto needs = [&](PartGroup group, bool has, const char* what) -> Result<void> {
    if (p.group == group && !has)
      return failure(where, "a " + label_of(name_of(group)) + " without \"" + what + "\"", "its figures");
    return {};
  };
  if (auto r = needs(PartGroup::servo, p.servo.has_value(), "servo"); !r) return r;
  if (auto r = needs(PartGroup::battery, p.battery.has_value(), "battery"); !r) return r;
  if (auto r = needs(PartGroup::motor, p.motor.has_value(), "motor"); !r) return r;
  if (auto r = needs(PartGroup::propeller, p.propeller.has_value(), "propeller"); !r) return r;
  if (auto r = needs(PartGroup::speed_controller, p.drive.has_value(), "drive"); !r) return r;
  if (auto r = needs(PartGroup::lead, p.lead.has_value(), "lead"); !r) return r;
  if (p.drive && p.drive->least_cells > p.drive->most_cells)
    return failure(where, "least_cells is above most_cells", "least_cells ≤ most_cells");
  if (p.battery &&
      !(p.battery->empty_cell_v < p.battery->nominal_cell_v && p.battery->nominal_cell_v < p.battery->full_cell_v))
    return failure(where, "the cell voltages are out of order", "empty < nominal < full");
  std::vector<const Terminal*> terminals;
  for (const Terminal& t : p.terminals) terminals.push_back(&t);
  return electrics_fit(terminals, p.feeds, p.loads, where);
}

}  // namespace rigging
