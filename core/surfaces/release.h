#pragma once

#include "base/figure.h"
#include "checks/checks.h"
#include "rig/rig.h"

/// The tow release of a glider: closed throttle latched, full throttle released.
namespace rigging {

struct ReleaseReport {
  Figure travel;        ///< of the wire from closed to full throttle, towards the servo
  Figure force;         ///< that the servo can pull with at the pin's end of the travel; 0 when its torque is not known
  Figure needed;        ///< to draw the pin under the most pull of the line; 0 when that is not known
  bool clears = false;  ///< the pin leaves the loop
  bool strong = true;   ///< the servo can draw it under load, as far as both are known
};

/// `output`: the one that works the release. Wire travel = arm · (sin θ_full − sin θ_closed), θ counted from square to
/// the wire; the servo turns `servo_travel_deg` for 500 µs. Force = torque / (arm · cos θ), at the worst angle; pull on
/// the pin = friction · pull of the line.
ReleaseReport analyze_release(const Release& release, const Output& output, std::optional<double> torque_nm);

/// The output that works the release, on a towed glider; null else.
const Output* release_output(const Rig& rig);
/// Torque of the servo on it; nothing when it is not known.
std::optional<double> release_torque(const Rig& rig, const Catalogue& catalogue);

inline const CheckId tow_release{"tow_release", ""};
/// Loaded hold and release.
CheckFamily release_check();

}  // namespace rigging
