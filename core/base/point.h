#pragma once

#include <cmath>

namespace rigging {

/// Body axes of ISO 1151: x forward, y right, z down; metres.
struct Point {
  double x = 0, y = 0, z = 0;
  friend Point operator+(Point a, Point b) { return {a.x + b.x, a.y + b.y, a.z + b.z}; }
  friend Point operator-(Point a, Point b) { return {a.x - b.x, a.y - b.y, a.z - b.z}; }
  friend Point operator*(Point a, double k) { return {a.x * k, a.y * k, a.z * k}; }
  bool operator==(const Point&) const = default;
};

inline double dot(Point a, Point b) { return a.x * b.x + a.y * b.y + a.z * b.z; }
inline Point cross(Point a, Point b) { return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x}; }
inline double length(Point a) { return std::sqrt(dot(a, a)); }
inline Point mix(Point a, Point b, double share) { return a + (b - a) * share; }

/// Turns `p` about the line through `origin` along `direction` (any length) by the right-hand rule (Rodrigues).
inline Point turned(Point p, Point origin, Point direction, double angle_rad) {
  const Point k = direction * (1 / length(direction)), v = p - origin;
  const double c = std::cos(angle_rad), s = std::sin(angle_rad);
  return origin + v * c + cross(k, v) * s + k * (dot(k, v) * (1 - c));
}

}  // namespace rigging
