#pragma once

#include "fit/room.h"
#include "rig/rig.h"

namespace rigging {

struct Panel;

/// How far a room stands clear of every piece of the aircraft, metres: as seen from above, or above and below all of
/// it; 0 where it touches one or no aircraft is drawn.
double clear_of_aircraft(const std::vector<Panel>& panels, const Airframe& airframe, const PartRoom& room);

/// Nearer than this is a bracket, a stick or an aerial's foot (common practice), metres.
constexpr double farthest_from_aircraft_m = 0.08;

}  // namespace rigging
