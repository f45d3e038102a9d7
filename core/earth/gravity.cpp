#include "earth/gravity.h"

#include <GeographicLib/NormalGravity.hpp>
#include <cmath>

namespace rigging {

double normal_gravity(double latitude_deg, double height_m) {
  double north = 0, up = 0;
  GeographicLib::NormalGravity::WGS84().Gravity(latitude_deg, height_m, north, up);
  return std::hypot(north, up);
}

}  // namespace rigging
