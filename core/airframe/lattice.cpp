#include "airframe/lattice.h"

#include <Eigen/Geometry>
#include <Eigen/LU>
#include <algorithm>
#include <cmath>
#include <numbers>

namespace rigging {
namespace {

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

bool upright(const HalfSurface& h) { return std::abs(h.tip.y() - h.root.y()) < 0.1 * std::abs(h.tip.z() - h.root.z()); }

/// In the plane of symmetry: its own image.
bool in_the_middle(const Lattice::Panel& p) { return std::abs(p.left.y()) + std::abs(p.right.y()) < 1e-9; }

double longest_half(const std::vector<LatticeSurface>& surfaces) {
  double longest = 0;
  for (const LatticeSurface& s : surfaces) longest = std::max({longest, s.half.tip.y(), s.half.root.y()});
  return longest;
}

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

struct Lattice::Solved {
  Eigen::PartialPivLU<Eigen::MatrixXd> influence;
};

Lattice::~Lattice() = default;
Lattice::Lattice(Lattice&&) noexcept = default;

Lattice::Lattice(const std::vector<LatticeSurface>& surfaces, int across) : surfaces_(surfaces.size()) {
  const std::vector<double> y = stations(surfaces, across);
  const double longest = longest_half(surfaces);
  for (std::size_t k = 0; k < surfaces.size(); ++k) {
    const HalfSurface& h = surfaces[k].half;
    const Point along = h.tip - h.root;
    // Square to the surface: upward, of an upright one that rises to the left.
    const Point normal = Point(0, along.z(), -along.y()).normalized();
    std::vector<double> shares;  // of the way from root to tip, in the order of the stations
    if (upright(h)) {
      const int cuts = std::max(3, static_cast<int>(std::lround(across * along.norm() / longest)));
      for (int i = 0; i <= cuts; ++i) shares.push_back(static_cast<double>(i) / cuts);
    } else {
      const double from = h.root.y(), to = h.tip.y(), edge = 1e-4 * longest;
      for (const double at : y)
        if (at > std::min(from, to) - edge && at < std::max(from, to) + edge)
          shares.push_back((at - from) / (to - from));
    }
    const auto chord = [&](double share) { return h.root_chord_m + (h.tip_chord_m - h.root_chord_m) * share; };
    const auto edge = [&](double share, double chord_share) -> Point {
      return h.root + share * along - Point(chord(share) * chord_share, 0, 0);
    };
    const double length = upright(h) ? std::abs(along.z()) : std::abs(along.y());
    const int rows = surfaces[k].chordwise;
    for (std::size_t i = 0; i + 1 < shares.size(); ++i) {
      const double a = shares[i], b = shares[i + 1], middle = (a + b) / 2;
      for (int row = 0; row < rows; ++row)
        panels_.push_back({edge(a, (row + 0.25) / rows), edge(b, (row + 0.25) / rows),
                           edge(middle, (row + 0.75) / rows), normal, std::abs(b - a) * length, chord(middle), k,
                           std::min(a, b), std::max(a, b)});
    }
  }
}

const Lattice::Solved& Lattice::solved(Left left) const {
  std::unique_ptr<Solved>& known = left == Left::the_same ? same_ : opposite_;
  if (known) return *known;
  const double sign = left == Left::the_same ? 1 : -1;
  const auto n = static_cast<Eigen::Index>(panels_.size());
  Eigen::MatrixXd influence(n, n);
  for (Eigen::Index i = 0; i < n; ++i) {
    const Panel& at = panels_[static_cast<std::size_t>(i)];
    for (Eigen::Index j = 0; j < n; ++j) {
      const Panel& from = panels_[static_cast<std::size_t>(j)];
      const Point speed = induced(at.control, from.left, from.right) +
                          sign * induced(at.control, mirrored(from.right), mirrored(from.left));
      influence(i, j) = speed.dot(at.normal);
    }
  }
  // What stands in the middle carries nothing when both sides do the same.
  if (left == Left::the_same)
    for (Eigen::Index i = 0; i < n; ++i)
      if (in_the_middle(panels_[static_cast<std::size_t>(i)])) {
        influence.row(i).setZero(), influence.col(i).setZero();
        influence(i, i) = 1;
      }
  known = std::make_unique<Solved>(Solved{influence.partialPivLu()});
  return *known;
}

std::vector<AirLoad> Lattice::loads(const std::vector<double>& through, Left left, const Point& about) const {
  const auto n = static_cast<Eigen::Index>(panels_.size());
  Eigen::VectorXd flow(n);
  for (Eigen::Index i = 0; i < n; ++i) {
    const auto k = static_cast<std::size_t>(i);
    flow(i) = left == Left::the_same && in_the_middle(panels_[k]) ? 0 : -through[k];
  }
  const Eigen::VectorXd strength = solved(left).influence.solve(flow);
  const double sign = left == Left::the_same ? 1 : -1;
  std::vector<AirLoad> loads(surfaces_);
  for (Eigen::Index i = 0; i < n; ++i) {
    const Panel& p = panels_[static_cast<std::size_t>(i)];
    // Kutta and Joukowski: strength · stream × vortex, the stream along −x.
    const auto add = [&](const Point& from, const Point& to, double circulation) {
      const Point vortex = to - from;
      const Point force = circulation * Point(-1, 0, 0).cross(vortex);
      loads[p.surface].force += force;
      loads[p.surface].moment += ((from + to) / 2 - about).cross(force);
    };
    add(p.left, p.right, strength(i));
    add(mirrored(p.right), mirrored(p.left), sign * strength(i));
  }
  return loads;
}

std::vector<LatticeLoad> rising_loads(const Lattice& lattice) {
  // Air that comes from below by one radian: its part through the surface.
  std::vector<double> through;
  for (const Lattice::Panel& p : lattice.panels()) through.push_back(Point(0, 0, -1).dot(p.normal));
  std::vector<LatticeLoad> all;
  // Twice: over dynamic pressure. Lift counts as seen from the side, where its lever is the way along the body.
  for (const AirLoad& load : lattice.loads(through, Lattice::Left::the_same, Point::Zero()))
    all.push_back({-2 * load.force.z(), 2 * load.moment.y()});
  return all;
}

}  // namespace rigging
