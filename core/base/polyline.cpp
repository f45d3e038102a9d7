#include "base/polyline.h"

#include <algorithm>
#include <cmath>

namespace rigging {

std::vector<Eigen::Vector2d> beside(const std::vector<Eigen::Vector2d>& corners, double offset) {
  std::vector<Eigen::Vector2d> line;
  const auto side = [&](std::size_t i) -> Eigen::Vector2d {
    const Eigen::Vector2d along = (corners[i + 1] - corners[i]).normalized();
    return Eigen::Vector2d(-along.y(), along.x()) * offset;
  };
  for (std::size_t i = 0; i < corners.size(); ++i) {
    // At a corner of a right angle the two sides add up to where the strands meet.
    const bool first = i == 0, last = i + 1 == corners.size();
    Eigen::Vector2d off = Eigen::Vector2d::Zero();
    if (!first) off += side(i - 1);
    if (!last) off += side(i);
    if (!first && !last &&
        std::abs((corners[i + 1] - corners[i]).normalized().dot((corners[i] - corners[i - 1]).normalized())) > 0.5)
      off = side(i);
    line.push_back(corners[i] + off);
  }
  return line;
}

std::vector<Bend> bends(const std::vector<Eigen::Vector2d>& corners, double round) {
  std::vector<Bend> all;
  for (std::size_t i = 1; i + 1 < corners.size(); ++i) {
    const Eigen::Vector2d back = corners[i - 1] - corners[i], on = corners[i + 1] - corners[i];
    const double r = std::max(0.0, std::min({round, back.norm() / 2, on.norm() / 2}));
    all.push_back({corners[i] + back.normalized() * r, corners[i], corners[i] + on.normalized() * r});
  }
  return all;
}

}  // namespace rigging
