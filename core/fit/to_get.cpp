#include "fit/to_get.h"

#include <algorithm>
#include <map>
#include <set>

#include "base/units.h"
#include "power/plugs.h"

namespace rigging {
namespace {

constexpr double own_lead_m = 0.25;  // common practice

bool brings_a_lead(const PartKind* k) {
  return k && (k->group == PartGroup::servo || k->group == PartGroup::speed_controller ||
               k->group == PartGroup::regulator || k->group == PartGroup::camera_switch);
}

class List {
 public:
  List(const Rig& rig, const Catalogue& catalogue) : rig_(rig), catalogue_(catalogue) {}

  void add(const std::string& what, const std::string& why) {
    for (ToGet& t : all_)
      if (t.what == what && t.why == why) {
        ++t.count;
        return;
      }
    all_.push_back({what, 1, why});
  }

  void lead(const Lead& l, double need_m) {
    const auto brings = [&](const LeadEnd& end) { return brings_a_lead(kind_of(rig_, catalogue_, end.part)); };
    const bool own = l.kind == LeadKind::servo && (brings(l.from) || brings(l.to));
    if (own && need_m <= own_lead_m) return;  // it reaches
    const double rest_m = own ? need_m - own_lead_m : need_m;
    const PartKind* best = shortest(l.kind, rest_m);
    const std::string length = length_text(best ? best->lead->length_m : rest_m);
    std::string name = own ? "Servo extension, " + length + ": pins at one end, sleeves at the other"
                       : l.kind == LeadKind::servo ? "Plug-to-plug servo lead, " + length + ": sleeves at both ends"
                       : best                      ? best->name
                              : capital(label_of(name_of(l.kind))) + " lead, " + length + " or longer, made up";
    add(name + (l.plus_removed ? ", red wire out" : ""),
        part_name(rig_, catalogue_, l.from.part) + " to " + part_name(rig_, catalogue_, l.to.part));
  }

  /// One lead with a plug for each of these: a Y-lead, a branched battery lead.
  void shared(const std::string& what, const std::vector<std::string>& each, const std::string& at) {
    std::string all;
    for (std::size_t i = 0; i < each.size(); ++i) all += (i == 0 ? "" : i + 1 < each.size() ? ", " : " and ") + each[i];
    add(what, at + " to " + all);
  }

  std::vector<ToGet> take() { return std::move(all_); }

 private:
  /// The shortest of the catalogue that is long enough; null without one.
  const PartKind* shortest(LeadKind kind, double need_m) const {
    const PartKind* best = nullptr;
    for (const PartKind& k : catalogue_.parts)
      if (k.lead && k.lead->kind == kind && k.lead->length_m >= need_m - 0.002 &&
          (!best || k.lead->length_m < best->lead->length_m))
        best = &k;
    return best;
  }

  const Rig& rig_;
  const Catalogue& catalogue_;
  std::vector<ToGet> all_;
};

}  // namespace

std::vector<ToGet> list_to_get(const Rig& rig, const Catalogue& catalogue, const PowerReport& power,
                               const std::vector<Clash>& clashes) {
  List list(rig, catalogue);
  bool soldered = false, red_out = false;
  for (const Lead& l : rig.leads) {
    soldered = soldered || l.kind == LeadKind::soldered || l.kind == LeadKind::power;
    red_out = red_out || l.plus_removed;
    const Mounting *a = rig.mounting(l.from.part), *b = rig.mounting(l.to.part);
    if (!a || !b) continue;
    if (l.kind == LeadKind::y_lead) continue;  // both of its ends are one lead
    list.lead(l, lead_reach_m(rig, l));
  }
  std::map<std::string, std::vector<std::string>> y_leads, branches;
  for (const Lead& l : rig.leads)
    for (const auto& [here, there] : {std::pair{&l.from, &l.to}, {&l.to, &l.from}}) {
      const Terminal* t = terminal_of(rig, catalogue, *here);
      if (l.kind == LeadKind::y_lead && here->part == "controller")
        y_leads[here->socket].push_back(part_name(rig, catalogue, there->part));
      if (t && t->kind == TerminalKind::battery_out && here->part != "controller")
        branches[here->part + " " + here->socket].push_back(part_name(rig, catalogue, there->part));
    }
  for (const auto& [socket, servos] : y_leads) {
    const Terminal* t = terminal_of(rig, catalogue, {"controller", socket, {}});
    list.shared("Y-lead: sleeves toward the board, pins toward both servos", servos,
                "controller " + (t && !t->label.empty() ? t->label : socket));
  }
  for (const auto& [outlet, takers] : branches)
    if (takers.size() > 1)
      list.shared("Branched battery lead, a plug for each of " + std::to_string(takers.size()), takers,
                  part_name(rig, catalogue, outlet.substr(0, outlet.find(' '))));
  for (const PlugJoint& j : plug_joints(rig, catalogue, power)) {
    const std::string giver = part_name(rig, catalogue, j.giver), taker = part_name(rig, catalogue, j.taker);
    const std::string each = j.phases ? ", three" : "";
    if (!j.fits() && j.phases)
      list.add(j.taking->name + ", three sets, or three of “" + small(j.giving->name) + "”",
               "the plugs of " + giver + " and " + taker + " differ");
    else if (!j.fits())
      list.add("Adapter: pins of “" + small(j.giving->name) + "” toward the " + giver + ", sleeves of “" +
                   small(j.taking->name) + "” toward the " + taker,
               "their plugs differ; it bears what the smaller bears");
    else if (!j.giving != !j.taking) {
      // One side is soldered: it needs the other half of the plug.
      const PartKind& kind = j.giving ? *j.giving : *j.taking;
      list.add(kind.name + each + ", the half with " + (j.giving ? "pins" : "sleeves") + ", to solder on",
               giver + " to " + taker);
    }
  }
  std::set<std::string> angled;
  for (const Clash& c : clashes)
    if (c.what == Clash::What::plug_room && angled.insert(c.words).second) list.add("Angled plugs", small(c.words));
  const auto held = [&](Fixing f) {
    return std::any_of(rig.mountings.begin(), rig.mountings.end(), [&](const Mounting& p) { return p.fixing == f; });
  };
  const Mounting* board = rig.mounting("controller");
  const Fixing of_board = board ? board->fixing : Fixing::unknown;
  if (of_board == Fixing::unknown || held(Fixing::tape))
    list.add("Firm double-sided tape", of_board == Fixing::unknown || of_board == Fixing::tape
                                           ? "under the whole base of the board"
                                           : "under what is held by it");
  if (held(Fixing::hook_and_loop)) list.add("Hook-and-loop tape and a strap", "what has to come out, or to slide");
  if (held(Fixing::foam)) list.add("Foam tape", "against vibration");
  if (held(Fixing::plate)) list.add("Plywood plate, screws, thread lock", "what is screwed down");
  if (held(Fixing::holder)) list.add("Printed holder", "what has to come out and sit the same again");
  if (soldered) list.add("Soldering iron, solder, heat-shrink", "leads to solder");
  if (red_out) list.add("Fine pin tool and tape", "to take red wires out of their plugs and isolate them");
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (c && c->senses.has_barometer) list.add("Open-cell foam", "over the barometer");
  if (c && c->link)
    list.add("Cable that carries data, with an angled plug where the board's socket faces a wall",
             "settings over the link; else cut a slot for it");
  if (c)
    for (const std::string& tool : c->tools) list.add(tool, "the " + small(c->name));
  list.add("Small screwdriver and two pairs of pliers", "servo arms and clevises");
  list.add("Multimeter", "polarity and voltage before the first plug goes in");
  list.add("Scales and a rule", "balance");
  return list.take();
}

}  // namespace rigging
