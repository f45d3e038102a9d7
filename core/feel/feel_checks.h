#pragma once

#include "checks/checks.h"

namespace rigging {

inline const CheckId first_gains_set{"feel.first_gains", ""}, barely_moves{"feel.barely_moves", ""},
    correction_amount{"feel.correction_amount", ""};

/// The gains on the board are those of the plan; at them a quick tilt barely moves the surfaces; and where one dial is
/// both, half of the travel at 45° of bank. Needed of classes on which a gain can be set.
std::vector<CheckFamily> feel_checks();

}  // namespace rigging
