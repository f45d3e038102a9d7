#pragma once

#include <string>

#include "feel/feel.h"

namespace rigging {

/// "roll, pitch": axes whose gain nobody has set. A board does there what it came with; the simulation corrects
/// nothing. Empty where all are set or the linkage is the gain.
std::string axes_without_gain(const FeelReport& report);

}  // namespace rigging
