#include <Eigen/Geometry>
#include <algorithm>

#include "catalogue/catalogue.h"
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

}  // namespace

Inertia inertia_of(const Rig& rig, const Catalogue& catalogue, const AirframeReport& airframe, const Balance& balance,
                   double mass_kg, const Point& about) {
  // The frame's shape with a mass of its own area. A body's skin is thinner than a wing is thick.
  constexpr double body_weight = 0.35, boom_weight = 0.35;
  Sum shape;
  for (const Panel& p : airframe.panels)
    if (p.part != Panel::Part::propeller)
      add_plate(p.corners,
                p.part == Panel::Part::body   ? body_weight
                : p.part == Panel::Part::boom ? boom_weight
                                              : 1,
                shape);
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
  return {band(yy + zz), band(xx + zz), band(xx + yy), central(all.xz, all.first.x(), all.first.z(), about.x(), z)};
}

}  // namespace rigging
