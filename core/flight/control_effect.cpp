#include "flight/control_effect.h"

#include <cmath>

#include "base/angle.h"

namespace rigging {

std::vector<Effect> effects_of(const Aeroplane& a, const SurfacesReport& surfaces) {
  std::vector<Effect> all;
  const double q = air_density_kg_m3 / 2 * a.cruise_m_s * a.cruise_m_s;
  std::array<double, 3> sum{};
  for (const SurfaceAnswer& answer : surfaces.answers) {
    const ControlEffect* c = a.control(answer.surface);
    if (!c) continue;
    Effect e;
    e.surface = answer.surface, e.least = c->least, e.most = c->most;
    const std::array<double, 3> volume{c->roll * a.span_m, c->pitch * a.mean_chord_m, c->yaw * a.span_m};
    for (std::size_t i = 0; i < 3; ++i) {
      e.m3_per_deg[i] = volume[i] * a.wing_area_m2 * rad;
      e.at_cruise_nm[i] = q * e.m3_per_deg[i] * answer.positive_deg[i];
      sum[i] += std::abs(e.at_cruise_nm[i]);
    }
    all.push_back(e);
  }
  for (Effect& e : all)
    for (std::size_t i = 0; i < 3; ++i) e.share[i] = sum[i] > 0 ? std::abs(e.at_cruise_nm[i]) / sum[i] : 0;
  return all;
}

}  // namespace rigging
