#pragma once

#include "rig/rig.h"

namespace rigging {

/// A point of the outline, a corner or the middle of an edge, that can be taken by the hand to change one measure of
/// the airframe.
struct OutlineHandle {
  std::string member;     ///< of the airframe: "span_m"
  Eigen::Vector3d at;     ///< body axes, m
  Eigen::Vector3d moves;  ///< how it moves for each unit of the measure; seen from above, z is 0

  /// The measure after it was dragged by so much (m, seen from above): what the drag has along `moves`.
  double dragged(double value, const Eigen::Vector2d& by_m) const;
};

/// One handle for each measure that moves the outline seen from above, each at a place of its own, right of the middle
/// or on it: from how the outline itself answers a small change, so that it holds for every kind.
std::vector<OutlineHandle> outline_handles(const Airframe& airframe);

}  // namespace rigging
