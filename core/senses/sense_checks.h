#pragma once

#include "checks/checks.h"

/// Bench checks of what the board senses: how it sits, whether it was still at power-up, its accelerometer, its
/// compass, its level, where it is. For a class that shows no readings, what its lamp says.
namespace rigging {

inline const CheckId rotation_known{"senses.rotation", ""}, accelerometer_calibrated{"senses.accelerometer", ""},
    compass_calibrated{"senses.compass", ""}, gyro_still{"senses.gyro", ""}, level_told{"senses.level", ""},
    fix_seen{"senses.fix", ""}, wakes_still{"senses.wakes", ""}, level_stored{"senses.level_stored", ""};

std::vector<CheckFamily> sense_checks();

}  // namespace rigging
