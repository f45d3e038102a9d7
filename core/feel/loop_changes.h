#pragma once

#include <string>
#include <vector>

#include "feel/feel.h"

namespace rigging {

/// One change, alone, and what it does to where the axis stays calm at the fastest level flight.
struct LoopChange {
  Axis axis = Axis::roll;
  double calm_gain_s = 0;  ///< as the gain that this class would make of it; 0: nothing shakes
  std::string words;
};

/// A faster servo, quicker pulses, less throw, a wider filter, one step of the dial: of every axis that is known. Some
/// 2 ms.
std::vector<LoopChange> loop_changes(const Rig& rig, const Catalogue& catalogue, const FeelReport& report);

}  // namespace rigging
