#include "home/glide.h"

namespace rigging {

double glide_reach_m(double glide_m_s, double sink_m_s, double height_m, const SteadyWind& wind, double track_deg) {
  const auto track = track_on(track_deg, glide_m_s, wind);
  return track && sink_m_s > 0 ? height_m / sink_m_s * track->ground_m_s : 0;
}

}  // namespace rigging
