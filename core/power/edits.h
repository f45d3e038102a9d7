#pragma once

#include "edit/edit.h"

namespace rigging {

/// What was measured of drive and propeller, and what is kept in reserve. Error: a value outside of the range of its
/// member.
Result<Edit> measure_power(const Rig& rig, const Power& power);

}  // namespace rigging
