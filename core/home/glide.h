#pragma once

#include "home/way_home.h"

namespace rigging {

/// How far over the ground it glides along a track, motor off: the time that the height lasts, at the ground speed that
/// the drift triangle leaves. 0 where the track can't be held. Seen from above a circle of airspeed times that time,
/// carried along by the wind: the glide ring of soaring pilots.
double glide_reach_m(double glide_m_s, double sink_m_s, double height_m, const SteadyWind& wind, double track_deg);

}  // namespace rigging
