#include "airframe/planform.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "airframe/kinds.h"
#include "base/angle.h"

namespace rigging {

double HalfSurface::span_m() const { return 2 * std::abs(tip.y() - root.y()); }
double HalfSurface::area_m2() const { return span_m() * (root_chord_m + tip_chord_m) / 2; }
double HalfSurface::panel_area_m2() const {
  return std::hypot(tip.y() - root.y(), tip.z() - root.z()) * (root_chord_m + tip_chord_m);
}
double HalfSurface::mean_chord_m() const {
  const double t = tip_chord_m / root_chord_m;
  return 2.0 / 3 * root_chord_m * (1 + t + t * t) / (1 + t);
}
double HalfSurface::quarter_chord_m() const {
  const double sum = root_chord_m + tip_chord_m;
  // Share of the half span at which the chord is the mean one; the wider end may be either.
  const double at = (root_chord_m + 2 * tip_chord_m) / (3 * sum);
  return -(root.x() + at * (tip.x() - root.x())) + mean_chord_m() / 4;
}

bool has_foreplane(AirframeKind k) {
  return k == AirframeKind::canard || k == AirframeKind::canard_delta || k == AirframeKind::tailerons_canards;
}
bool has_tail(AirframeKind k) {
  return k != AirframeKind::flying_wing && k != AirframeKind::flying_wing_rudders && k != AirframeKind::canard &&
         k != AirframeKind::canard_delta;
}
bool has_v(AirframeKind kind) {
  const auto surfaces = facts_of(kind).surfaces;
  return std::any_of(surfaces.begin(), surfaces.end(),
                     [](Surface s) { return s.kind == SurfaceKind::vtail || s.kind == SurfaceKind::inverted_v; });
}

bool propeller_pushes(const Airframe& a) {
  if (a.kind == AirframeKind::towed_glider) return false;
  if (a.propeller != PropellerSide::usual) return a.propeller == PropellerSide::pusher;
  return !has_two_motors(a) &&
         (a.kind == AirframeKind::flaperons_inverted_v_tail || has_foreplane(a.kind) || !has_tail(a.kind));
}
bool propeller_behind(const Airframe& a) { return !has_two_motors(a) && propeller_pushes(a); }

double helmbold_slope(double aspect_ratio) {
  return 2 * std::numbers::pi * aspect_ratio / (2 + std::sqrt(aspect_ratio * aspect_ratio + 4));
}

double BodySize::volume_m3() const { return std::numbers::pi * half_width_m * half_height_m * length_m * 0.55; }

BodySize body_of(const Airframe& a) {
  const bool booms = a.kind == AirframeKind::flaperons_inverted_v_tail;
  const bool behind_wing = booms || (!has_tail(a.kind) && !has_foreplane(a.kind));
  // A chord longer than a quarter of the span, as a delta has, makes no wider body.
  const double half = std::min(0.16 * std::min(a.root_chord_m, a.span_m / 4) + 0.03 * a.length_m, a.span_m * 0.15);
  return {half, 1.15 * half, behind_wing ? std::min(a.length_m, a.wing_at_m + a.root_chord_m * 1.02) : a.length_m};
}

Planform planform_of(const Airframe& a) {
  Planform p;
  const auto given = [&](const std::optional<double>& measured, double usual, const char* name) {
    if (measured) return *measured;
    p.guessed.emplace_back(name);
    return usual;
  };
  const double half = a.span_m / 2;
  p.wing = {{-a.wing_at_m, 0, 0},
            {-a.wing_at_m - std::tan(a.sweep_deg * rad) * half, half, -std::tan(a.dihedral_deg * rad) * half},
            a.root_chord_m,
            a.tip_chord_m};
  const bool pusher = a.kind == AirframeKind::flaperons_inverted_v_tail;
  if (has_tail(a.kind)) {
    const bool v = has_v(a.kind);
    const bool along = v && a.v_span == VSpan::along_panels;
    const double tail_half = a.tail_span_m / 2 * (along ? std::cos(a.v_angle_deg * rad) : 1);
    const double up = v ? std::tan(a.v_angle_deg * rad) * tail_half : 0;
    const double at = given(a.tail_at_m, std::max(0.0, a.length_m - a.tail_chord_m), "tail_at_m");
    // A V between two booms is usually of one chord; other tails taper to three quarters.
    const double tip = given(a.tail_tip_chord_m, (pusher ? 1 : 0.75) * a.tail_chord_m, "tail_tip_chord_m");
    const double back = pusher                                                                           ? 0
                        : v                                                                              ? 0.2
                        : a.kind == AirframeKind::tailerons || a.kind == AirframeKind::tailerons_canards ? 0.3
                                                                                                         : 0.1;
    // Between two booms the V stands on its feet and meets in the middle; an inverted V on a body hangs down.
    const bool inverted = a.kind == AirframeKind::inverted_v_tail;
    const double root_z = pusher ? -up : 0, tip_z = pusher ? 0 : inverted ? up : -up;
    p.tail = {{-at, 0, root_z}, {-at - back * a.tail_chord_m, tail_half, tip_z}, a.tail_chord_m, tip};
  }
  if (has_foreplane(a.kind)) {
    // Without a tail the tail's sizes are the foreplane's.
    const bool second = has_tail(a.kind);
    const double span = given(a.foreplane_span_m, (second ? 0.6 : 1) * a.tail_span_m, "foreplane_span_m");
    const double root = given(a.foreplane_chord_m, (second ? 0.8 : 1) * a.tail_chord_m, "foreplane_chord_m");
    const double tip = given(a.foreplane_tip_chord_m, 0.75 * root, "foreplane_tip_chord_m");
    const double at = given(a.foreplane_at_m, 0.1 * a.length_m, "foreplane_at_m");
    p.foreplane = {{-at, 0, 0}, {-at - 0.25 * root, span / 2, 0}, root, tip};
  }
  if (!p.tail && !p.foreplane) {
    p.fin = {p.wing.tip, p.wing.tip + Point(-0.5 * a.fin_chord_m, 0, -a.fin_height_m), a.tip_chord_m,
             0.7 * a.fin_chord_m};
  } else if (!has_v(a.kind)) {
    const Point foot(a.fin_chord_m - a.length_m, 0, -0.2 * body_of(a).half_height_m);
    p.fin = {foot, foot + Point(-0.25 * a.fin_chord_m, 0, -a.fin_height_m), a.fin_chord_m, 0.6 * a.fin_chord_m};
  }
  return p;
}

}  // namespace rigging
