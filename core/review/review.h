#pragma once

#include <functional>

#include "checks/checks.h"
#include "edit/edit.h"
#include "reports/reports.h"

/// Runs every station's analysis and gathers snags and readiness.
namespace rigging {

/// What mends a snag without a choice: an edit, made of the rig as it stands when the button is pressed.
struct Fix {
  std::string label;  ///< what the button says: "Move output 3 to a free socket"
  std::function<Result<Edit>(const Rig&, const Catalogue&)> edit;
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
Station station_of(const Review& review, const Snag& snag);

struct Readiness {
  bool ready = false;
  std::string words;
};

struct Review {
  Reports reports;
  std::vector<CheckStatus> checks = {};  ///< of every station, directions first
  std::vector<LooseEnd> due = {};        ///< loose ends that follow from what was done; those of the rig stand there
  std::vector<Snag> snags = {};          ///< worst first
  Readiness readiness = {};
  std::vector<StationState> stations = {};  ///< by the number of the station
};

/// The first tier: what follows from an edit at once. Under a millisecond for the demo rig; see bench/.
Review review(const Rig& rig, const Catalogue& catalogue);
/// The same of a rig after an edit: what the edit does not reach is taken over from the review before it.
Review review_after(const Rig& rig, const Review& before);

/// What of `one` is not in `other`, by code and subject; without what is only still to be done on the bench.
std::vector<Snag> only_in(const std::vector<Snag>& one, const std::vector<Snag>& other);

/// `rigging-cli check --json`.
Json review_to_json(const Rig& rig, const Review& review);

}  // namespace rigging
