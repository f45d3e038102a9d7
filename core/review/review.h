#pragma once

#include <functional>

#include "airframe/airframe.h"
#include "fit/fit.h"
#include "proof/checks.h"
#include "proof/lead_checks.h"
#include "proof/measured_checks.h"
#include "sticks/sticks.h"
#include "surfaces/air_loads.h"
#include "surfaces/surfaces.h"
#include "wiring/wiring.h"

/// Runs every station's analysis and gathers snags and readiness.
namespace rigging {

enum class Station { airframe, fit, power, wiring, sticks, surfaces, senses, feel, home, proof, logbook };
enum class Severity { grounds, fix_first, worth_knowing };

struct Fix {
  std::string label;  ///< what the button says: "Move output 3 to a free socket"
  std::function<Rig(const Rig&)> apply;
};

struct Snag {
  std::string code;  ///< stable: "SURFACES-03"
  Severity severity = Severity::worth_knowing;
  Station station = Station::airframe;
  std::string subject;  ///< id of the part it is about
  std::string what, why, remedy;
  std::string source;  ///< what the rule rests on
  std::optional<Fix> fix;
};

/// Where the work is done that a snag asks for: a reading's own station, else the station that says it.
Station place_of(const Snag& snag);

/// How a station stands, for the strip.
enum class StationState { unknown, snags, planned, proven, stale };

struct Readiness {
  bool ready = false;
  std::string words;
};

struct Review {
  AirframeReport airframe;
  PowerReport power;
  FitReport fit;
  WiringReport wiring;
  SticksReport sticks;
  SurfacesReport surfaces;
  std::vector<ServoLoad> loads;
  std::vector<CheckStatus> checks;
  std::vector<LeadStatus> leads;
  std::vector<MeasuredStatus> measured;
  std::vector<Snag> snags;  ///< worst first
  Readiness readiness;
  std::array<StationState, 11> stations{};
};

/// Under a millisecond for the demo rig; see bench/.
Review review(const Rig& rig, const Catalogue& catalogue);

/// `rigging-cli check --json`.
Json review_to_json(const Rig& rig, const Review& review);

/// The question that the station answers, as the builder would ask it.
std::string station_question(Station station);

inline constexpr std::array<Station, 11> all_stations{
    Station::airframe, Station::fit,  Station::power, Station::wiring, Station::sticks, Station::surfaces,
    Station::senses,   Station::feel, Station::home,  Station::proof,  Station::logbook};

}  // namespace rigging

namespace rigging {
template <>
struct Words<Severity> {
  static constexpr std::array<std::pair<Severity, std::string_view>, 3> list{
      {{Severity::grounds, "grounds"}, {Severity::fix_first, "fix_first"}, {Severity::worth_knowing, "worth_knowing"}}};
};
template <>
struct Words<Station> {
  using S = Station;
  static constexpr std::array<std::pair<S, std::string_view>, 11> list{{{S::airframe, "airframe"},
                                                                        {S::fit, "fit"},
                                                                        {S::power, "power"},
                                                                        {S::wiring, "wiring"},
                                                                        {S::sticks, "sticks"},
                                                                        {S::surfaces, "surfaces"},
                                                                        {S::senses, "senses"},
                                                                        {S::feel, "feel"},
                                                                        {S::home, "home"},
                                                                        {S::proof, "proof"},
                                                                        {S::logbook, "logbook"}}};
};
}  // namespace rigging
