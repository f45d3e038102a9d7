#pragma once

#include "checks/checks.h"

/// Bench checks that rest on readings at the trailing edge: surfaces that are flush and throw alike. And the flaps,
/// which eyes alone check: they are on no axis, so that direction reasoning does not know them.
namespace rigging {

inline const CheckId surfaces_centred{"surfaces.centred", ""}, throws_equal{"surfaces.throws_equal", ""};

std::vector<CheckFamily> throw_checks();

inline const CheckId flaps_droop{"flaps", ""};
/// Needed where a channel works flaps and some surface answers it.
CheckFamily flap_check();
/// The way full flap moves a surface of this output, on an aircraft whose stick moves it right: +1 up, −1 down, 0 when
/// its weights leave that open or there is no flap in its mix.
int flap_motion(const Output& output, Surface surface);

/// How close a surface must stand: half a degree at neutral and ends (a degree is seen, half of one is not: common
/// practice).
inline constexpr double flush_deg = 0.5;
/// How much left and right may differ, degrees.
inline constexpr double alike_deg = 1.0;

/// What a surface was last read to do at its output's centre and ends (or as far as full sticks bring it); absent while
/// not read there. `up` and `down` are positive.
struct ReadThrows {
  double neutral_deg = 0, up_deg = 0, down_deg = 0;
};
std::optional<ReadThrows> read_throws(const Rig& rig, Surface surface);

/// Every surface of the rig that hangs on a hinge, in the order of its outputs.
std::vector<Surface> hinged(const Rig& rig);

}  // namespace rigging
