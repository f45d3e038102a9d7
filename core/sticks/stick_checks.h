#pragma once

#include "checks/checks.h"

/// Bench checks that rest on what the controller hears: sticks that land, a loss of signal that is noticed.
namespace rigging {

inline const CheckId sticks_calibrated{"sticks.calibrated", ""}, loss_noticed{"sticks.loss_noticed", ""};

std::vector<CheckFamily> hearing_checks();

}  // namespace rigging
