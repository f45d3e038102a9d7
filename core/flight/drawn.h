#pragma once

#include <cstdint>

#include "flight/aeroplane.h"

namespace rigging {

/// One of the aircraft that this one may turn out to be: lift slope, stiffness, damping, dihedral, surfaces and inertia
/// out of their own bands, the middle more likely than the ends. The same seed draws the same.
Aeroplane drawn_from(Aeroplane aeroplane, std::uint32_t seed);

}  // namespace rigging
