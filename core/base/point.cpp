#include "base/point.h"

#include <Eigen/Geometry>

namespace rigging {

Point turned(const Point& p, const Point& origin, const Point& direction, double angle_rad) {
  return origin + Eigen::AngleAxisd(angle_rad, direction.normalized()) * (p - origin);
}

}  // namespace rigging
