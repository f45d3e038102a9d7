#pragma once

#include <array>
#include <cstddef>
#include <vector>

namespace rigging {

using Flat = std::array<double, 2>;

/// The part of a polygon on which a·x + b·y ≤ c (Sutherland and Hodgman), without a closing corner; empty where there
/// is none. Of one that is not convex, parts may stay joined along the line.
inline std::vector<Flat> cut_by_line(const std::vector<Flat>& polygon, double a, double b, double c) {
  std::vector<Flat> kept;
  const auto beyond = [&](const Flat& p) { return a * p[0] + b * p[1] - c; };
  for (std::size_t i = 0; i < polygon.size(); ++i) {
    const Flat &from = polygon[i], &to = polygon[(i + 1) % polygon.size()];
    const double start = beyond(from), end = beyond(to);
    if (start <= 0) kept.push_back(from);
    if ((start < 0 && end > 0) || (start > 0 && end < 0)) {
      const double share = start / (start - end);
      kept.push_back({from[0] + share * (to[0] - from[0]), from[1] + share * (to[1] - from[1])});
    }
  }
  return kept;
}

/// Positive counterclockwise.
inline double flat_area(const std::vector<Flat>& polygon) {
  double twice = 0;
  for (std::size_t i = 0; i < polygon.size(); ++i) {
    const Flat &from = polygon[i], &to = polygon[(i + 1) % polygon.size()];
    twice += from[0] * to[1] - to[0] * from[1];
  }
  return twice / 2;
}

}  // namespace rigging
