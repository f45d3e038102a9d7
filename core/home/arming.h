#pragma once

#include <string>
#include <vector>

#include "base/station.h"
#include "catalogue/catalogue.h"
#include "rig/rig.h"
#include "signal/board_state.h"

/// Why a board does not arm, and what arming needs at all. Common practice, without sources.
namespace rigging {

/// One reason with its remedy, and the station where it is mended.
struct ArmingReason {
  std::string words, remedy;
  Station station = Station::home;
  bool operator==(const ArmingReason&) const = default;
};
ArmingReason reason_of(const BoardState::Refusal& refusal, const Rig& rig);

/// What has to be so before the motor is unlocked, in the order in which hands do it; empty for a class that arms
/// nothing.
std::vector<std::string> arming_needs(const Rig& rig, const Catalogue& catalogue);

/// It is planned to fly to a place by itself: without one many boards refuse to arm.
bool needs_place(const Rig& rig);

}  // namespace rigging
