#pragma once

#include "flight/aeroplane.h"

namespace rigging {

/// Fills in the aeroplane's stability derivatives and what its surfaces do, from the lattice of its shape
/// (airframe/aircraft_lattice.h) and the body after Munk. Sizes, cruise and balance point must stand in it already.
void add_air_derivatives(const Rig& rig, const AirframeReport& airframe, Aeroplane& aeroplane);

}  // namespace rigging
