#pragma once

#include "flight/dynamics.h"
#include "reports/reports.h"

namespace rigging {

/// Thrust and free speed of the rig's motors: static thrust as at station power, the propeller's free speed as 1.15
/// times pitch by turns (from memory); without a motor none.
Engine engine_of(const Reports& reports, const Aeroplane& aeroplane);

}  // namespace rigging
