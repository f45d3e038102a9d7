#include <Eigen/Geometry>
#include <algorithm>
#include <cmath>

#include "airframe/planform.h"
#include "catalogue/catalogue.h"
#include "fit/swing.h"
#include "flight/aeroplane.h"

namespace rigging {
namespace {

/// Moments and product of a mass point about the origin.
struct Sum {
  double mass = 0;
  Point first = {0, 0, 0};
  double xx = 0, yy = 0, zz = 0, xz = 0;  ///< ∫ x² dm and so on

  void add(double kg, const Point& at) {
    mass += kg;
    first += kg * at;
    xx += kg * at.x() * at.x(), yy += kg * at.y() * at.y(), zz += kg * at.z() * at.z(), xz += kg * at.x() * at.z();
  }
};

/// A plate of this outline, in triangles; the middles of a triangle's sides carry a third of it each, which is exact
/// for second moments.
void add_plate(const std::vector<Point>& corners, double weight, Sum& sum) {
  for (std::size_t i = 1; i + 1 < corners.size(); ++i) {
    const Point &a = corners[0], &b = corners[i], &c = corners[i + 1];
    const double area = (b - a).cross(c - a).norm() / 2;
    for (const Point& at : {Point((a + b) / 2), Point((b + c) / 2), Point((a + c) / 2)}) sum.add(weight * area / 3, at);
  }
}

/// A half and its mirror image, as builds weigh: what is thick is heavy, so that an area weighs with its chord; of a
/// wing a fifth is its spar, along the inner part.
void add_surface(const HalfSurface& h, double mean_chord_m, bool wing, Sum& sum) {
  constexpr double spar_share = 0.2, spar_reach = 0.6;  // of the wing's mass, of its span; from memory of builds
  constexpr double middle = 0.42, apart = 0.29;         // of the chord: where a section's mass lies, ± its spread
  constexpr int strips = 24;
  const Point along = h.tip - h.root;
  const bool twice = std::abs(h.root.y()) + std::abs(h.tip.y()) > 1e-9;
  const auto chord = [&](double at) { return h.root_chord_m + (h.tip_chord_m - h.root_chord_m) * at; };
  const auto add = [&](double kg, double at, double share) {
    const Point p = h.root + at * along - Point(share * chord(at), 0, 0);
    sum.add(kg, p);
    if (twice) sum.add(kg, {p.x(), -p.y(), p.z()});
  };
  double whole = 0;
  for (int i = 0; i < strips; ++i) {
    const double at = (i + 0.5) / strips;
    const double kg = chord(at) * chord(at) / mean_chord_m * along.norm() / strips;
    whole += kg;
    const double skin = (wing ? 1 - spar_share : 1) * kg / 2;
    add(skin, at, middle - apart);
    add(skin, at, middle + apart);
  }
  if (wing)
    for (int i = 0; i < strips; ++i) add(spar_share * whole / strips, spar_reach * (i + 0.5) / strips, 0.3);
}

}  // namespace

Inertia Inertia::below(double alpha) const {
  const double c = std::cos(alpha), s = std::sin(alpha);
  const auto turned = [&](const Banded& along, const Banded& across) {
    const double value = c * c * along.value + s * s * across.value - 2 * s * c * xz;
    const double scale = along.value > 0 ? value / along.value : 1;
    return Banded{value, along.least * scale, along.most * scale};
  };
  Inertia other;
  other.roll = turned(roll, yaw), other.pitch = pitch;
  const double about_z = s * s * roll.value + c * c * yaw.value + 2 * s * c * xz;
  const double scale = yaw.value > 0 ? about_z / yaw.value : 1;
  other.yaw = {about_z, yaw.least * scale, yaw.most * scale};
  other.xz = s * c * (roll.value - yaw.value) + (c * c - s * s) * xz;
  return other;
}

Inertia inertia_of(const Rig& rig, const Catalogue& catalogue, const AirframeReport& airframe, const Balance& balance,
                   double mass_kg, const Point& about) {
  // The frame's shape: a body's skin with its formers and mount weighs by area, booms are tubes.
  constexpr double body_weight = 0.75, boom_weight = 0.35;  // of the wing's mean; from memory of builds
  Sum shape;
  const Planform planform = planform_of(rig.airframe);
  const double mean = planform.wing.mean_chord_m();
  add_surface(planform.wing, mean, true, shape);
  for (const auto* h : {&planform.tail, &planform.foreplane, &planform.fin})
    if (*h) add_surface(**h, mean, false, shape);
  for (const Panel& p : airframe.panels)
    if (p.part == Panel::Part::body || p.part == Panel::Part::boom)
      add_plate(p.corners, p.part == Panel::Part::body ? body_weight : boom_weight, shape);
  double frame_kg = mass_kg, placed_kg = 0;
  Sum all;
  std::optional<Point> frame_at;
  for (const MassItem& item : balance.items) {
    if (!item.placed) continue;
    if (item.airframe) {
      frame_at = item.at;
      continue;
    }
    frame_kg -= item.mass_kg;
    placed_kg += item.mass_kg;
    all.add(item.mass_kg, item.at);
    // Its own size, a solid box.
    Point size = Point::Zero();
    if (item.part == "controller") {
      if (const ControllerClass* c = catalogue.controller(rig.controller.kind))
        size = Point(c->length_mm, c->width_mm, c->height_mm) / 1000;
    } else if (const PartKind* k = kind_of(rig, catalogue, item.part); k && k->length_mm && k->width_mm) {
      size = Point(*k->length_mm, *k->width_mm, k->height_mm.value_or(*k->width_mm)) / 1000;
    }
    all.xx += item.mass_kg * size.x() * size.x() / 12;
    all.yy += item.mass_kg * size.y() * size.y() / 12;
    all.zz += item.mass_kg * size.z() * size.z() / 12;
  }
  if (shape.mass > 0 && frame_kg > 0) {
    const Point middle = shape.first / shape.mass, to = frame_at.value_or(about);
    const double scale = frame_kg / shape.mass;
    const auto moved = [&](double second, double a, double b, double to_a, double to_b) {
      return scale * (second - shape.mass * a * b) + frame_kg * to_a * to_b;
    };
    all.xx += moved(shape.xx, middle.x(), middle.x(), to.x(), to.x());
    all.yy += moved(shape.yy, middle.y(), middle.y(), to.y(), to.y());
    all.zz += moved(shape.zz, middle.z(), middle.z(), middle.z(), middle.z());
    all.xz += moved(shape.xz, middle.x(), middle.z(), to.x(), middle.z());
    all.mass += frame_kg;
    all.first += frame_kg * Point(to.x(), to.y(), middle.z());
  }
  // To the balance point.
  const double m = all.mass;
  const auto central = [&](double second, double first_a, double first_b, double a, double b) {
    return second - a * first_b - b * first_a + m * a * b;
  };
  const double z = m > 0 ? all.first.z() / m : 0;
  const double xx = central(all.xx, all.first.x(), all.first.x(), about.x(), about.x()),
               yy = central(all.yy, all.first.y(), all.first.y(), about.y(), about.y()),
               zz = central(all.zz, all.first.z(), all.first.z(), z, z);
  const double known = std::clamp(placed_kg / mass_kg, 0.0, 1.0);
  const double low = 0.75 + 0.10 * known, high = 1.3 - 0.15 * known;
  const auto band = [&](double v) { return Banded{v, low * v, high * v}; };
  Inertia of_drawing{band(yy + zz), band(xx + zz), band(xx + yy),
                     central(all.xz, all.first.x(), all.first.z(), about.x(), z)};
  // What was swung is known better.
  for (const Swing& swing : rig.fit.swings) {
    if (!counts(swing, mass_kg)) continue;
    const Figure f = swung_inertia(swing);
    Banded& about_axis = swing.axis == Axis::roll    ? of_drawing.roll
                         : swing.axis == Axis::pitch ? of_drawing.pitch
                                                     : of_drawing.yaw;
    about_axis = {f.value, f.least.value_or(f.value), f.most.value_or(f.value)};
  }
  return of_drawing;
}

}  // namespace rigging
