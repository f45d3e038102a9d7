#pragma once

#include <array>
#include <vector>

#include "flight/aeroplane.h"

namespace rigging {

/// How strongly a surface turns the aircraft: moment over dynamic pressure per degree, m³/deg, about the balance point;
/// positive right, nose up, right for trailing edge up (rudder: right).
struct Effect {
  Surface surface;
  std::array<double, 3> m3_per_deg{};
  std::array<double, 3> at_cruise_nm{};  ///< with the full throw of its mix on that axis
  std::array<double, 3> share{};         ///< of what all surfaces together do on that axis
  double least = 1, most = 1;            ///< band of the moments, as factors
  bool operator==(const Effect&) const = default;
};

/// One for each surface that the aeroplane has and the mix moves.
std::vector<Effect> effects_of(const Aeroplane& aeroplane, const SurfacesReport& surfaces);

}  // namespace rigging
