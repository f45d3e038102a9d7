#pragma once

#include <string>
#include <vector>

#include "edit/edit.h"

namespace rigging {

/// Where parts of each kind usually sit (common practice): motor and propeller at their end, the speed controller
/// behind it, the board near the balance point with its arrow to the nose, the battery where the balance comes right,
/// the satellite receiver clear of currents, antennas apart, servos at their surfaces, all inside of what is drawn and
/// without overlapping. Only what has no place yet is placed; `again`: everything.
///
/// Where the bare airframe was not weighed it is guessed for the battery's place: what is left of the flying mass,
/// somewhat behind a quarter of the mean chord. Costs some milliseconds.
Result<Edit> place_parts(const Rig& rig, const Catalogue& catalogue, bool again);

/// Moves what overlaps as little as it takes, small things first out of the way of large ones; motors, propellers, the
/// board and the servos stay as long as it can be done without them. Error: nothing overlaps, or there is no room.
Result<Edit> spread_out(const Rig& rig, const Catalogue& catalogue);

}  // namespace rigging
