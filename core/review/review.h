#pragma once

#include <functional>

#include "airframe/airframe.h"
#include "checks/checks.h"
#include "fit/fit.h"
#include "sticks/sticks.h"
#include "surfaces/air_loads.h"
#include "surfaces/surfaces.h"
#include "wiring/wiring.h"

/// Runs every station's analysis and gathers snags and readiness.
namespace rigging {

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

struct Review;

/// Where the work is done that a snag asks for: a reading's own station, else the station that says it.
Station place_of(const Review& review, const Snag& snag);

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
  Room room;                            ///< that the sticks leave to the stabilizer
  Room room_with_yaw, room_with_flaps;  ///< with full yaw, or full flap, held
  std::vector<CheckStatus> checks;
  std::vector<LooseEnd> due;  ///< loose ends that follow from what was done; those of the rig stand there      ///< of
                              ///< every station, directions first
  std::vector<Snag> snags;    ///< worst first
  Readiness readiness;
  std::array<StationState, 11> stations{};
};

/// The first tier: what follows from an edit at once. Under a millisecond for the demo rig; see bench/.
Review review(const Rig& rig, const Catalogue& catalogue);
/// The same, but reports whose sections of the document are as they were are taken over from `before`, the review of
/// `was`. Catalogue and unit system must be the same as then.
Review review_after(const Rig& rig, const Catalogue& catalogue, const Rig& was, const Review& before);

/// `rigging-cli check --json`.
Json review_to_json(const Rig& rig, const Review& review);

}  // namespace rigging
