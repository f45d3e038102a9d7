#include "airframe/lattice.h"

#include <Eigen/Geometry>
#include <Eigen/LU>
#include <algorithm>
#include <cmath>
#include <numbers>

namespace rigging {
namespace {

struct Panel3 {
  Point left, right;  ///< ends of the bound vortex
  Point control, normal;
  double width_m = 0;  ///< across the flow, as seen from above
  std::size_t surface = 0;
};

/// Speed that a horseshoe of unit strength induces. It comes from infinity aft to `left`, runs to `right` and back aft
/// (Biot and Savart).
Point induced(const Point& at, const Point& left, const Point& right) {
  const Point a = at - left, b = at - right;
  const double la = a.norm(), lb = b.norm();
  Point speed = Point::Zero();
  const double bound = la * lb + a.dot(b);
  if (bound > 1e-12) speed += a.cross(b) * ((1 / la + 1 / lb) / bound);
  // The legs lie along −x.
  const Point aft(-1, 0, 0);
  const double ra = la - a.dot(aft), rb = lb - b.dot(aft);
  if (ra > 1e-12) speed -= aft.cross(a) / (la * ra);
  if (rb > 1e-12) speed += aft.cross(b) / (lb * rb);
  return speed / (4 * std::numbers::pi);
}

Point mirrored(const Point& p) { return {p.x(), -p.y(), p.z()}; }

/// Stations across the half span that all surfaces share, with every tip among them.
std::vector<double> stations(const std::vector<LatticeSurface>& surfaces, int across) {
  std::vector<double> ends{0};
  for (const LatticeSurface& s : surfaces) ends.push_back(std::max(s.half.tip.y(), s.half.root.y()));
  std::sort(ends.begin(), ends.end());
  const double longest = ends.back();
  std::vector<double> all{0};
  for (const double end : ends) {
    const double from = all.back(), width = end - from;
    if (width < 1e-4 * longest) continue;
    const int strips = std::max(1, static_cast<int>(std::lround(across * width / longest)));
    for (int i = 1; i <= strips; ++i) all.push_back(from + width * i / strips);
  }
  return all;
}

}  // namespace

std::vector<LatticeLoad> lattice_loads(const std::vector<LatticeSurface>& surfaces, int across) {
  const std::vector<double> y = stations(surfaces, across);
  std::vector<Panel3> panels;
  for (std::size_t k = 0; k < surfaces.size(); ++k) {
    const HalfSurface& h = surfaces[k].half;
    const double from = h.root.y(), to = h.tip.y();
    const Point along = h.tip - h.root;
    // Square to the surface, upward.
    const Point normal = Point(0, along.z(), -along.y()).normalized();
    for (std::size_t i = 0; i + 1 < y.size(); ++i) {
      const double middle = (y[i] + y[i + 1]) / 2;
      if (middle < std::min(from, to) || middle > std::max(from, to)) continue;
      const auto edge = [&](double at, double chord_share) -> Point {
        const double s = (at - from) / (to - from);
        const double chord = h.root_chord_m + (h.tip_chord_m - h.root_chord_m) * s;
        return h.root + s * along - Point(chord * chord_share, 0, 0);
      };
      const int rows = surfaces[k].chordwise;
      for (int row = 0; row < rows; ++row)
        panels.push_back({edge(y[i], (row + 0.25) / rows), edge(y[i + 1], (row + 0.25) / rows),
                          edge(middle, (row + 0.75) / rows), normal, y[i + 1] - y[i], k});
    }
  }
  const auto n = static_cast<Eigen::Index>(panels.size());
  Eigen::MatrixXd influence(n, n);
  Eigen::VectorXd flow(n);
  for (Eigen::Index i = 0; i < n; ++i) {
    const Panel3& at = panels[static_cast<std::size_t>(i)];
    for (Eigen::Index j = 0; j < n; ++j) {
      const Panel3& from = panels[static_cast<std::size_t>(j)];
      const Point speed =
          induced(at.control, from.left, from.right) + induced(at.control, mirrored(from.right), mirrored(from.left));
      influence(i, j) = speed.dot(at.normal);
    }
    // Air of unit speed that comes from below by one radian: its part through the surface.
    flow(i) = -Point(0, 0, -1).dot(at.normal);
  }
  const Eigen::VectorXd strength = influence.partialPivLu().solve(flow);
  std::vector<LatticeLoad> loads(surfaces.size());
  for (Eigen::Index i = 0; i < n; ++i) {
    const Panel3& p = panels[static_cast<std::size_t>(i)];
    // Kutta and Joukowski, both halves; lift counts as seen from the side.
    const double lift = 4 * strength(i) * p.width_m;
    loads[p.surface].lift_m2 += lift;
    loads[p.surface].moment_m3 += lift * (p.left.x() + p.right.x()) / 2;
  }
  return loads;
}

}  // namespace rigging
