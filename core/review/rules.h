#pragma once

#include "review/review.h"

namespace rigging {

/// What a rule looks at. `controller` is null when the rig names a class that the catalogue does not have.
struct Inspection {
  const Rig& rig;
  const Catalogue& catalogue;
  const ControllerClass* controller;
  const Review& reports;
};

/// One rule: a stable code and a function that adds the snags it finds.
struct Rule {
  std::string_view code;
  void (*inspect)(const Inspection&, std::string_view code, std::vector<Snag>&);
};

/// A snag with all that must be said of it.
Snag make_snag(Station station, std::string_view code, Severity severity, std::string subject, std::string what,
               std::string why, std::string remedy);

const std::vector<Rule>& airframe_rules();
const std::vector<Rule>& fit_rules();
const std::vector<Rule>& power_rules();
const std::vector<Rule>& wiring_rules();
const std::vector<Rule>& surfaces_rules();
const std::vector<Rule>& sticks_rules();
const std::vector<Rule>& senses_rules();
const std::vector<Rule>& proof_rules();

}  // namespace rigging
