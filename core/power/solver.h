#pragma once

#include "power/power.h"

namespace rigging {

/// What a part draws on its net, ampere, before anything stalls.
double drawn(const Load& load, bool servo, LoadCase effort);

}  // namespace rigging
