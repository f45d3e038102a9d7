#pragma once

#include "fit/fit.h"

namespace rigging {

/// One report for every compass that has a place.
std::vector<CompassReport> compass_reports(const Rig& rig, const Catalogue& catalogue,
                                           const std::vector<CurrentPath>& currents);

}  // namespace rigging
