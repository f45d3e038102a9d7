#pragma once

#include <Eigen/Core>

namespace rigging {

/// Body axes of ISO 1151: x forward, y right, z down; metres. Zero until it is told (core/CMakeLists.txt sees to that).
using Point = Eigen::Vector3d;

inline Point mix(const Point& a, const Point& b, double share) { return a + (b - a) * share; }

/// Turns `p` about the line through `origin` along `direction` (any length but zero) by the right-hand rule.
Point turned(const Point& p, const Point& origin, const Point& direction, double angle_rad);

}  // namespace rigging
