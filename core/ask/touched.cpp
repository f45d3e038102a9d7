#include "ask/touched.h"

#include <algorithm>
#include <set>

#include "ask/things.h"
#include "checks/checks.h"
#include "power/network.h"
#include "rig/path.h"

namespace rigging {
namespace {

/// The places of the document that stand for what the words name.
std::set<std::string> places_named(const AskedOf& of, const Sentence& in, std::string& name) {
  std::set<std::string> places;
  const auto add_part = [&](const Part& p) {
    places.insert(path_of({"parts", p.id}));
    places.insert(path_of({"places", p.id}));
    for (const Lead& l : of.rig.leads)
      if (l.from.part == p.id || l.to.part == p.id) places.insert(path_of({"leads", l.id}));
  };
  const auto add_surface = [&](const Surface& s) {
    places.insert(path_of({"linkages", s.name()}));
    if (const Output* o = of.rig.output_of(s)) places.insert(path_of({"outputs", o->id}));
  };
  const auto what = without(
      in.words, {"changed", "replaced", "repaired", "glued",   "mended",   "exchanged", "rebuilt", "soldered", "moved",
                 "bent",    "loosened", "broke",    "fixed",   "refitted", "new",       "again",   "back",     "horn",
                 "rod",     "linkage",  "hinge",    "pushrod", "clevis",   "just",      "i"});
  const bool linkage = in.has({"horn", "rod", "linkage", "hinge", "pushrod", "clevis", "arm", "horns", "rods"});
  double fit = 0;
  const Part* p = linkage ? nullptr : part_named(of, what, &fit);
  if (said(what, "board") && fit < 1.5) {
    name = "the controller";
    return {path_of({"controller"}), path_of({"places", "controller"})};
  }
  if (p && fit >= 1) {
    name = part_name(of.rig, of.catalogue, p->id);
    add_part(*p);
    if (p->surface) add_surface(*p->surface);
    return places;
  }
  for (const Surface s : surfaces_named(of, in)) add_surface(s), name += (name.empty() ? "" : " and ") + s.label();
  if (!places.empty() || !linkage) return places;
  name = "the linkages";
  for (const Output& o : of.rig.outputs)
    for (const Surface s : o.surfaces)
      if (s.kind != SurfaceKind::motor) add_surface(s);
  return places;
}

bool within(const std::string& place, const std::set<std::string>& places) {
  return std::any_of(places.begin(), places.end(),
                     [&](const std::string& p) { return place == p || place.starts_with(p + "/"); });
}

}  // namespace

void find_touched(const AskedOf& of, const Sentence& in, Found& found) {
  if (in.asks() || !in.split.number.empty() ||
      !in.has({"changed", "replaced", "repaired", "glued", "mended", "exchanged", "rebuilt", "soldered", "resoldered",
               "reglued", "moved", "bent", "loosened", "broke", "fixed", "refitted"}))
    return;
  std::string name;
  const auto places = places_named(of, in, name);
  if (places.empty()) return;
  const CheckContext context(of.rig, of.catalogue);
  std::vector<std::string> titles;
  Rig rig = of.rig;
  for (const CheckStatus& c : of.review.checks) {
    if (!c.family || !c.family->depends_on) continue;
    const auto rests = c.family->depends_on(context, c.id.subject);
    if (std::none_of(rests.begin(), rests.end(), [&](const std::string& at) { return within(at, places); })) continue;
    titles.push_back(c.title);
    if (c.stands()) rig = without_proofs(std::move(rig), c.id.family, c.id.subject);
  }
  const std::size_t count = titles.size();
  if (count == 0)
    return found.answer(4.5, "No check rests on " + name + "; weigh and balance again where it weighs something else",
                        Station::fit, "balance");
  constexpr std::size_t most_named = 4;
  if (count > most_named) titles.resize(most_named);
  std::string list;
  for (const std::string& t : titles) list += (list.empty() ? "" : ", ") + t;
  if (count > most_named) list += " and " + std::to_string(count - most_named) + " more";
  if (rig == of.rig)
    return found.answer(4.5, "On " + name + " rest: " + list + ". None of them stands: they are still to be taken",
                        Station::proof);
  found.deed(4.5, Edit{std::move(rig), "To be looked at again after work on " + name + ": " + list}, Station::proof);
}

}  // namespace rigging
