#pragma once

#include "proof/checks.h"
#include "wiring/wiring.h"

/// One bench check per lead: is it where the plan says, the right way round, and does it do its job?
namespace rigging {

/// What shows that a lead does its job.
enum class LeadEvidence { surface_moves, port_talks, voltage_read, picture_shown, eyes };

struct LeadCard {
  std::string lead, title;
  std::string before_power;  ///< to look at with everything dark
  std::string todo, expected;
  LeadEvidence evidence = LeadEvidence::eyes;
  std::string socket;  ///< of the controller; empty when the lead does not touch it
  std::vector<std::string> cautions;
};

struct LeadStatus {
  std::string lead;
  Standing standing;
};

LeadCard lead_card(const Rig& rig, const Catalogue& catalogue, const Lead& lead);
std::vector<std::string> lead_dependencies(const Rig& rig, const Lead& lead);
std::vector<LeadStatus> lead_statuses(const Rig& rig);
/// The rig with the lead recorded as looked at and tried at `at` (ISO 8601, UTC).
Rig lead_proven(Rig rig, const std::string& lead, const std::string& at, bool simulated);

}  // namespace rigging
