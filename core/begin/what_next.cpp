#include "begin/what_next.h"

#include <algorithm>

#include "airframe/proportions.h"
#include "base/words.h"

namespace rigging {

std::vector<NextThing> what_next(const Rig& rig, const Catalogue& catalogue, const Review& review) {
  std::vector<NextThing> next;
  const auto add = [&](NextThing thing) {
    if (next.size() < 3) next.push_back(std::move(thing));
  };
  for (const Snag& s : review.snags)
    if (s.severity == Severity::grounds && next.empty()) add({s.what, s.why, s.station, s.subject, "Take me there"});
  if (rig.parts.empty() || parts_of(rig, catalogue, PartGroup::battery).empty())
    add({"Say what is on board", "Balance, currents and wiring follow from the parts.", Station::fit, {}, "Add parts"});
  else if (rig.leads.empty())
    add({"Plan the wiring", "Which lead goes where, and what feeds what.", Station::wiring, {}, "To the wiring"});
  if (const auto guesses = guesses_of(rig.airframe); !guesses.empty()) {
    std::string names;
    for (std::size_t i = 0; i < std::min<std::size_t>(guesses.size(), 4); ++i) names += (i ? ", " : "") + guesses[i];
    if (guesses.size() > 4) names += " and " + std::to_string(guesses.size() - 4) + " more";
    add({"Measure what is still a guess: " + names, "Speeds, balance and gains follow from them.", Station::airframe,
         "airframe", "To the measures"});
  }
  if (!rig.parts.empty() && !(rig.fit.frame_mass_kg && rig.fit.frame_at_m))
    add({rig.fit.frame_mass_kg ? "Find where the bare airframe balances"
                               : "Weigh the bare airframe and find where it balances",
         "Then the battery's place comes out right.", Station::fit, "frame", "To the balance"});
  if (!rig.leads.empty())
    add({"Get what is missing, and plug and solder from the list",
         "Every lead has a number, in the drawing and on the list.",
         Station::wiring,
         {},
         "To the plug list"});
  add({"On USB alone: does the controller hear what you mean?",
       "Propeller off. No battery is needed for it.",
       Station::sticks,
       {},
       "To the sticks"});
  add({"Decide what happens when the link goes", "Before anything else flies it.", Station::home, {}, "To home"});
  return next;
}

}  // namespace rigging
