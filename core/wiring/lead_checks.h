#pragma once

#include "checks/checks.h"
#include "wiring/wiring.h"

/// One bench check per lead: is it where the plan says, the right way round, and does it do its job?
namespace rigging {

inline constexpr const char lead_family[] = "lead";

/// What shows that a lead does its job.
enum class LeadEvidence { surface_moves, port_talks, voltage_read, picture_shown, eyes };

struct LeadCard : CheckCard {
  std::string lead;
  LeadEvidence evidence = LeadEvidence::eyes;
  std::string socket;  ///< of the controller; empty when the lead does not touch it
};

LeadCard lead_card(const Rig& rig, const Catalogue& catalogue, const Lead& lead);

CheckFamily lead_checks();

}  // namespace rigging
