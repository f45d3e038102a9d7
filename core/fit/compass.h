#pragma once

#include "fit/fit.h"

namespace rigging {

/// The earth's field where it flies, at the date of the rig or in the middle of 2027; nothing when the place is not
/// given or the model does not cover it.
std::optional<MagneticField> earth_field(const Rig& rig, const Catalogue& catalogue);

/// One report for every compass that has a place.
std::vector<CompassReport> compass_reports(const Rig& rig, const Catalogue& catalogue,
                                           const std::vector<CurrentPath>& currents, bool current_known);

}  // namespace rigging
