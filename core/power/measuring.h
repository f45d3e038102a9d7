#pragma once

#include "catalogue/catalogue.h"
#include "rig/rig.h"

/// What measures the battery: without it a threshold, an alarm or a return at a voltage is a wish.
namespace rigging {

/// The class has a socket for a measuring lead, takes the battery itself, or has a pad for its alarm.
bool can_measure_battery(const ControllerClass& controller);
/// A lead ends there.
bool battery_measured(const Rig& rig, const Catalogue& catalogue);

/// The pad of a board on which the battery's plus is soldered for its alarm alone; null without one.
const Terminal* alarm_pad(const ControllerClass& controller);

}  // namespace rigging
