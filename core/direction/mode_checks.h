#pragma once

#include "checks/checks.h"

/// What the modes and the gain do, apart from the directions.
namespace rigging {

inline constexpr const char mode_family[] = "mode";
inline const CheckId gain_ends{"gain_ends", ""};

/// Every mode that will be flown does what it is meant to: none, momentary, held.
CheckFamily mode_checks();
/// Where a control sets the gain: both of its ends.
CheckFamily gain_check();

}  // namespace rigging
