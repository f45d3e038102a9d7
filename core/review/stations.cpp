#include "review/stations.h"

#include "airframe/edits.h"
#include "direction/direction_checks.h"
#include "fit/edits.h"
#include "sticks/edits.h"
#include "sticks/stick_checks.h"
#include "surfaces/edits.h"
#include "surfaces/surface_checks.h"
#include "wiring/edits.h"
#include "wiring/lead_checks.h"

namespace rigging {
namespace {

std::vector<Rule> joined(std::vector<Rule> all, const std::vector<Rule>& more) {
  all.insert(all.end(), more.begin(), more.end());
  return all;
}

bool has_parts(const Rig& rig, const Review&) { return !rig.parts.empty(); }
bool sticks_read(const Rig&, const Review& r) { return r.sticks.all_read; }
bool never(const Rig&, const Review&) { return false; }

std::vector<StationEntry> built() {
  using S = Station;
  return {{S::airframe,
           "What am I building, and with which controller?",
           airframe_rules(),
           {},
           airframe_edits(),
           nullptr,
           ""},
          {S::fit, "Where does everything go, which way up?", fit_rules(), {}, fit_edits(), has_parts, ""},
          {S::power, "Will the five-volt rail hold?", power_rules(), {}, {}, has_parts, ""},
          {S::wiring,
           "What plugs in where?",
           joined(lead_rules(), output_rules()),
           {lead_checks()},
           wiring_edits(),
           has_parts,
           ""},
          {S::sticks, "Does the controller hear what I mean?", sticks_rules(), hearing_checks(), sticks_edits(),
           sticks_read, ""},
          {S::surfaces, "Does everything move the right way, by the right amount?", surfaces_rules(), throw_checks(),
           surfaces_edits(), nullptr, ""},
          {S::senses,
           "Does it know which way is up and north?",
           senses_rules(),
           {},
           {},
           never,
           "Not built yet. Here board rotation, accelerometer and compass will be calibrated."},
          {S::feel,
           "How hard may it correct?",
           {},
           {},
           {},
           never,
           "Not built yet. Here gains will be set against the flight model, with margins over speed."},
          {S::home,
           "What happens when the link goes?",
           {},
           {},
           {},
           never,
           "Not built yet. Here the way home after a lost link will be planned and simulated."},
          {S::proof, "Is it ready?", proof_rules(), {stick_checks(), correction_checks()}, {}, never, ""},
          {S::logbook,
           "What did the flight tell me?",
           {},
           {},
           {},
           never,
           "Not built yet. Here flights will be written down and turned into the next change."}};
}

}  // namespace

std::vector<StationEntry>& stations() {
  static std::vector<StationEntry> all = built();
  return all;
}

const StationEntry& entry_of(Station station) {
  for (const StationEntry& e : stations())
    if (e.station == station) return e;
  return stations().front();
}

std::vector<EditEntry> all_edits() {
  std::vector<EditEntry> all = general_edits();
  for (const StationEntry& e : stations()) all.insert(all.end(), e.edits.begin(), e.edits.end());
  return all;
}

std::vector<const CheckFamily*> check_families() {
  // Directions come first: they are what is done on the bench with a card in hand.
  std::vector<const CheckFamily*> all;
  for (const bool by_station : {false, true})
    for (const StationEntry& e : stations())
      for (const CheckFamily& f : e.checks)
        if (f.by_station == by_station) all.push_back(&f);
  return all;
}

}  // namespace rigging
