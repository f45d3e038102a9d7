#pragma once

#include "checks/checks.h"

/// Bench checks of what the board senses: how it sits, its accelerometer, its compass.
namespace rigging {

inline const CheckId rotation_known{"senses.rotation", ""}, accelerometer_calibrated{"senses.accelerometer", ""},
    compass_calibrated{"senses.compass", ""};

std::vector<CheckFamily> sense_checks();

/// The part that is the compass, "controller" where the board has one of its own; empty without any.
std::string compass_part(const Rig& rig, const Catalogue& catalogue);

}  // namespace rigging
