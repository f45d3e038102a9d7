#include "flight/air_derivatives.h"

#include <Eigen/Geometry>
#include <algorithm>
#include <cmath>
#include <functional>

#include "airframe/aircraft_lattice.h"
#include "base/angle.h"
#include "surfaces/air_loads.h"

namespace rigging {
namespace {

constexpr double lattice_error = 0.12;  ///< share, of what the lattice says of small wings (low Reynolds numbers take)
constexpr double aside_error = 0.15;    ///< the same in sideslip and turning, with a V in slower air
constexpr double slope_error = 0.05;    ///< of the lift slope, as far as the stiffness rests on it
constexpr double tail_air = 0.92;       ///< dynamic pressure at the tail, share (common practice)
constexpr double flap_flow = 0.8, flap_flow_least = 0.6,
                 flap_flow_most = 0.95;  ///< of thin aerofoil theory, gaps and thick boundary layers (common practice)
constexpr double whole_least = 0.85, whole_most = 1.05;  ///< of an all-moving surface
constexpr double fin_error = 0.25;                       ///< sidewash and slow air (common practice)
/// A body closes the foot of a fin like an end plate: its aspect ratio counts so much more (Nelson gives 1.55 with the
/// tail, which the lattice has in it; from memory).
constexpr double endplate = 1.4;
constexpr double munk = 0.9;  ///< of a body about as slender as ours
/// Drag of a wing's section, from memory for small Reynolds numbers, and what lift adds to the damping in yaw (Nelson,
/// from memory).
constexpr double section_drag = 0.014, damping_by_lift = 0.02, wing_yaw_most = 1.5;

using Piece = AircraftLattice::Part;
using Through = std::function<double(const Lattice::Panel&)>;
using Left = Lattice::Left;

Banded band(double v, double share) {
  const double d = std::abs(v) * share;
  return {v, v - d, v + d};
}
Banded operator+(const Banded& a, const Banded& b) { return {a.value + b.value, a.least + b.least, a.most + b.most}; }

AirLoad sum_of(const std::vector<AirLoad>& loads) {
  AirLoad all;
  for (const AirLoad& l : loads) all.force += l.force, all.moment += l.moment;
  return all;
}

/// The lattice about the balance point, with what motions and flaps do to it.
class Sums {
 public:
  Sums(const Airframe& airframe, const Point& about)
      : about_(about), planform_(planform_of(airframe)), shape_(lattice_of(planform_)) {
    if (!planform_.fin || planform_.fins_at_tips()) return;
    const HalfSurface& f = *planform_.fin;
    const double ratio = (f.tip - f.root).z() * (f.tip - f.root).z() / (f.panel_area_m2() / 2);
    on_body_ = helmbold_slope(endplate * ratio) / helmbold_slope(ratio);
  }

  /// Of each surface; slower air counts for what stands behind the wing.
  std::vector<AirLoad> each(Left left, const Through& through) const {
    std::vector<double> air;
    for (const Lattice::Panel& p : lattice().panels()) air.push_back(through(p));
    std::vector<AirLoad> loads = lattice().loads(air, left, about_);
    for (std::size_t i = 0; i < loads.size(); ++i) {
      const double share = shape_->parts[i] == Piece::tail ? tail_air
                           : is_fin(i) && on_body_ > 1     ? tail_air * on_body_
                                                           : 1;
      loads[i].force *= share;
      loads[i].moment *= share;
    }
    return loads;
  }
  AirLoad of(Left left, const Through& through) const { return sum_of(each(left, through)); }
  bool is_fin(std::size_t surface) const { return shape_->parts[surface] == Piece::fin; }
  Point from_balance(const Lattice::Panel& p) const { return p.control - about_; }
  const Planform& planform() const { return planform_; }
  const AircraftLattice& shape() const { return *shape_; }
  const Lattice& lattice() const { return shape_->lattice; }
  /// The body makes a fin that much stronger than it is by itself; 1 at the tips.
  double on_body() const { return on_body_; }

 private:
  Point about_;
  Planform planform_;
  std::shared_ptr<const AircraftLattice> shape_;
  double on_body_ = 1;
};

/// Where a hinged surface lies on the lattice, right half.
struct Flap {
  std::size_t on = 0;
  double from = 0, to = 0;  ///< shares of its surface's length
  double share = 0.25;      ///< of the chord
};

std::optional<Flap> flap_of(const Rig& rig, const AirframeReport& airframe, const Sums& sums, Surface surface) {
  const auto shape = shape_of(rig, surface);
  if (!shape) return {};
  double low = 1e9, high = -1e9;
  std::optional<std::size_t> on;
  const bool rudder = surface.kind == SurfaceKind::rudder;
  for (const rigging::Panel& p : airframe.panels) {
    if (!p.surface || *p.surface != surface) continue;
    for (const Point& c : p.corners) {
      const double at = rudder ? -c.z() : std::abs(c.y());
      low = std::min(low, at), high = std::max(high, at);
    }
    on = sums.shape().index_of(p.part == rigging::Panel::Part::wing  ? Piece::wing
                               : p.part == rigging::Panel::Part::fin ? Piece::fin
                               : surface.kind == SurfaceKind::canard ? Piece::foreplane
                                                                     : Piece::tail);
  }
  if (!on || high <= low) return {};
  const HalfSurface& h = sums.shape().surfaces[*on].half;
  const auto along = [&](double at) {
    const double root = rudder ? -h.root.z() : h.root.y(), tip = rudder ? -h.tip.z() : h.tip.y();
    return (at - root) / (tip - root);
  };
  Flap f;
  f.on = *on;
  f.from = std::min(along(low), along(high)), f.to = std::max(along(low), along(high));
  f.share = shape->all_moving ? 1 : shape->share;
  return f;
}

/// Share of the panel's width that the flap covers.
double covered(const Lattice::Panel& p, const Flap& f) {
  return std::clamp((std::min(p.to, f.to) - std::max(p.from, f.from)) / (p.to - p.from), 0.0, 1.0);
}

ControlEffect effect_of_flap(const Sums& sums, const Aeroplane& a, Surface surface, const Flap& f) {
  const double area = a.wing_area_m2, span = a.span_m, chord = a.mean_chord_m;
  const double works = f.share >= 1 ? 1 : flap_effectiveness(f.share) * flap_flow;
  const bool rudder = surface.kind == SurfaceKind::rudder, middle = rudder && !sums.planform().fins_at_tips();
  // An edge up takes from the air that goes up through a wing; an edge to the right adds to what goes left through a
  // fin.
  const double way = rudder ? 1 : -1;
  const auto through = [&](const Lattice::Panel& p) { return p.surface == f.on ? way * works * covered(p, f) : 0; };
  ControlEffect e;
  e.surface = surface;
  e.least = f.share >= 1 ? whole_least : flap_flow_least / flap_flow;
  e.most = f.share >= 1 ? whole_most : flap_flow_most / flap_flow;
  // The right one alone is half of both alike and half of both against each other; the left one its mirror image.
  const double half = surface.side == Side::single ? 1 : 0.5;
  // Rudders that both go to the right are no mirror images.
  const double sign = rudder || surface.side == Side::right ? half : -half;
  if (!middle) {
    const AirLoad both = sums.of(Left::the_same, through);
    const double mirrored = rudder && surface.side == Side::left ? -half : half;
    e.lift = -2 * mirrored * both.force.z() / area;
    e.pitch = 2 * mirrored * both.moment.y() / (area * chord);
  }
  // The flap's own moment about the quarter chord, nose up for an edge that goes up (Glauert: ½ sin θ (1 − cos θ) per
  // radian and chord squared).
  if (f.share < 1 && !rudder) {
    const double theta = std::acos(2 * f.share - 1);
    const double own = 0.5 * std::sin(theta) * (1 - std::cos(theta)) * flap_flow;
    const int rows = sums.shape().surfaces[f.on].chordwise;
    double squares = 0;
    for (const Lattice::Panel& p : sums.lattice().panels())
      if (p.surface == f.on) squares += 2 * covered(p, f) * p.width_m * p.chord_m * p.chord_m / rows;
    e.pitch += half * own * squares / (area * chord);
  }
  if (surface.side != Side::single || middle) {
    const AirLoad opposite = sums.of(Left::the_opposite, through);
    e.roll = 2 * sign * opposite.moment.x() / (area * span);
    e.yaw = 2 * sign * opposite.moment.z() / (area * span);
    e.side = 2 * sign * opposite.force.y() / area;
  }
  return e;
}

void add_longitudinal(const Sums& sums, const AirframeReport& airframe, Aeroplane& a) {
  Stability& s = a.stability;
  const double S = a.wing_area_m2, c = a.mean_chord_m;
  // Angle of attack: the neutral point's own band counts.
  s.lift_alpha = band(airframe.lift_slope_per_rad, lattice_error);
  const Figure& np = airframe.neutral_point;
  const auto stiff = [&](double at) { return -airframe.lift_slope_per_rad * (at - a.balance_m) / c; };
  const auto with_slope = [](double v, double way) { return v * (1 + (v > 0 ? way : -way) * slope_error); };
  s.pitch_alpha = {stiff(np.value), with_slope(stiff(np.most.value_or(np.value)), -1),
                   with_slope(stiff(np.least.value_or(np.value)), 1)};

  // A rate counts as rate·c/2V: the rate itself is 2V/c of it.
  const AirLoad pitching =
      sums.of(Left::the_same, [&](const auto& p) { return sums.from_balance(p).x() * p.normal.z() * 2 / c; });
  s.lift_q = band(-2 * pitching.force.z() / S, lattice_error);
  s.pitch_q = band(2 * pitching.moment.y() / (S * c), lattice_error + 0.08);
  // The downwash arrives later by the way from wing to tail. What the wing takes from the tail's lift is how much of
  // the angle of attack its downwash eats.
  s.pitch_alpha_dot = {0, 0, 0};
  const AircraftLattice& shape = sums.shape();
  if (const auto tail = shape.index_of(Piece::tail); tail && shape.tail_alone_m2 > 0) {
    const double eaten = std::clamp(1 - shape.rising[*tail].lift_m2 / shape.tail_alone_m2, 0.0, 1.0);
    const HalfSurface &t = shape.surfaces[*tail].half, &w = sums.planform().wing;
    const double arm = t.quarter_chord_m() - a.balance_m, way = t.quarter_chord_m() - w.quarter_chord_m();
    s.pitch_alpha_dot = band(-2 * tail_air * shape.tail_alone_m2 / S * eaten * arm * way / (c * c), 0.3);
  }
}

/// Coefficients of side force, roll and yaw for one motion.
using Aside = std::array<double, 3>;

void add_lateral(const Sums& sums, const BodySize& body, Aeroplane& a) {
  Stability& s = a.stability;
  const double S = a.wing_area_m2, b = a.span_m;
  const auto coefficients = [&](const AirLoad& l) -> Aside {
    return {2 * l.force.y() / S, 2 * l.moment.x() / (S * b), 2 * l.moment.z() / (S * b)};
  };
  // Sideslip to the right is air from the right; rates count as rate·b/2V.
  const std::array<std::vector<AirLoad>, 3> loads{
      sums.each(Left::the_opposite, [&](const auto& p) { return -p.normal.y(); }),
      sums.each(Left::the_opposite,
                [&](const auto& p) {
                  const Point r = sums.from_balance(p);
                  return (r.z() * p.normal.y() - r.y() * p.normal.z()) * 2 / b;
                }),
      sums.each(Left::the_opposite, [&](const auto& p) { return -sums.from_balance(p).x() * p.normal.y() * 2 / b; })};
  std::array<Aside, 3> fins{}, turned{};
  for (std::size_t m = 0; m < 3; ++m)
    for (std::size_t i = 0; i < loads[m].size(); ++i)
      if (sums.is_fin(i)) fins[m] = coefficients(loads[m][i]);
  // The nose stands up at cruise, and what counts is the way of the flight: fins behind the balance point stand lower
  // by that. (A wing's lift goes with the air, whichever way its chord lies.)
  const double co = std::cos(a.trim_alpha.value), si = std::sin(a.trim_alpha.value);
  for (std::size_t k = 0; k < 3; ++k) {
    turned[0][k] = fins[0][k];
    turned[1][k] = co * fins[1][k] + si * fins[2][k];
    turned[2][k] = co * fins[2][k] - si * fins[1][k];
  }
  for (Aside& m : turned) m = {m[0], co * m[1] + si * m[2], co * m[2] - si * m[1]};

  const double error = sums.on_body() > 1 ? 1 - 0.95 / sums.on_body() : fin_error;
  const auto sum = [&](std::size_t motion, std::size_t on, double wing_error) {
    const double along = turned[motion][on], level = fins[motion][on];
    // A body may close the fin's foot, or not at all; the nose may stand up, or not.
    const Banded high = band(along, fin_error), low = band(level, fin_error), bare = band(along, error);
    Banded all{along, std::min({high.least, low.least, bare.least}), std::max({high.most, low.most, bare.most})};
    for (std::size_t i = 0; i < loads[motion].size(); ++i)
      if (!sums.is_fin(i)) all = all + band(coefficients(loads[motion][i])[on], wing_error);
    return all;
  };
  s.side_beta = sum(0, 0, aside_error), s.roll_beta = sum(0, 1, 0.2), s.yaw_beta = sum(0, 2, aside_error);
  s.side_p = sum(1, 0, aside_error), s.roll_p = sum(1, 1, lattice_error), s.yaw_p = sum(1, 2, 0.3);
  s.side_r = sum(2, 0, aside_error), s.roll_r = sum(2, 1, 0.3), s.yaw_r = sum(2, 2, aside_error);
  s.yaw_beta = s.yaw_beta + band(-2 * munk * body.volume_m3() / (S * b), 0.5);
  // The faster half of a turning wing is dragged more: strips of the section's drag, and what the lift adds.
  const HalfSurface& w = sums.planform().wing;
  const double half = w.span_m() / 2, squares = half * half * half * (w.root_chord_m / 12 + w.tip_chord_m / 4);
  const double dragged = -8 * section_drag * squares / (S * b * b) - damping_by_lift * a.cruise_lift * a.cruise_lift;
  s.yaw_r = s.yaw_r + Banded{dragged, dragged * wing_yaw_most, 0};

  // With lift: a swept wing into the wind carries more on that side (simple sweep theory, lift at 4/3π of the half
  // span); a turning one on the faster side, a rolling one leans its lift (Nelson, table 3.5, from memory).
  const double back = -(w.tip.x() - w.root.x()) + (w.tip_chord_m - w.root_chord_m) / 4;
  const double sweep = back / std::max(1e-6, std::abs(w.tip.y() - w.root.y()));
  s.roll_beta_per_lift = band(-4 / (3 * pi) * sweep, 0.4);
  s.roll_r_per_lift = band(0.25, 0.3);
  s.yaw_p_per_lift = band(-0.125, 0.4);
}

}  // namespace

void add_air_derivatives(const Rig& rig, const AirframeReport& airframe, Aeroplane& a) {
  const Sums sums(rig.airframe, Point(-a.balance_m, 0, 0));
  add_longitudinal(sums, airframe, a);
  add_lateral(sums, body_of(rig.airframe), a);
  for (const Output& o : rig.outputs)
    for (const Surface surface : o.surfaces) {
      if (surface.kind == SurfaceKind::motor || a.control(surface)) continue;
      if (const auto flap = flap_of(rig, airframe, sums, surface))
        a.controls.push_back(effect_of_flap(sums, a, surface, *flap));
    }
}

}  // namespace rigging
