#include "airframe/body.h"

#include <algorithm>
#include <cmath>

#include "airframe/planform.h"

namespace rigging {

std::vector<BodySection> body_sections(const Airframe& a) {
  const BodySize size = body_of(a);
  const double w = size.half_width_m, h = size.half_height_m, end = size.length_m;
  const bool ends_at_wing =
      a.kind == AirframeKind::flaperons_inverted_v_tail || (!has_tail(a.kind) && !has_foreplane(a.kind));
  if (ends_at_wing)
    return {{0, w * 0.25, h * 0.25, 0},
            {-0.12 * end, w * 0.85, h * 0.85, 0},
            {-0.45 * end, w, h, 0},
            {-0.85 * end, w * 0.8, h * 0.75, 0},
            {-end, w * 0.35, h * 0.35, 0}};
  return {{0, w * 0.3, h * 0.3, 0},
          {-0.08 * end, w * 0.8, h * 0.8, 0},
          {-0.3 * end, w, h, 0},
          {-0.5 * end, w * 0.8, h * 0.8, 0},
          {-end, w * 0.18, h * 0.25, -0.1 * h}};
}

std::optional<BodySection> body_at(const Airframe& airframe, double x_m) {
  const auto all = body_sections(airframe);
  for (std::size_t i = 0; i + 1 < all.size(); ++i) {
    const BodySection &front = all[i], &back = all[i + 1];
    if (x_m > front.x_m || x_m < back.x_m) continue;
    const double t = (front.x_m - x_m) / (front.x_m - back.x_m);
    return BodySection{x_m, std::lerp(front.half_width_m, back.half_width_m, t),
                       std::lerp(front.half_height_m, back.half_height_m, t),
                       std::lerp(front.below_m, back.below_m, t)};
  }
  return std::nullopt;
}

}  // namespace rigging
