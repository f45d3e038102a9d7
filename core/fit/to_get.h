#pragma once

#include "fit/fit.h"

namespace rigging {

/// Leads, adapters, fixings and tools to get before starting, each with its gender and what it is for. Servos, speed
/// controllers, regulators and camera switches bring a lead of their own (common practice: 0.25 m).
std::vector<ToGet> list_to_get(const Rig& rig, const Catalogue& catalogue, const PowerReport& power,
                               const std::vector<Clash>& clashes);

}  // namespace rigging
