#include <algorithm>
#include <array>
#include <numbers>

#include "airframe/airframe.h"
#include "airframe/body.h"
#include "airframe/kinds.h"
#include "airframe/planform.h"
#include "base/angle.h"

namespace rigging {
namespace {

/// Builds lifting surfaces with a hinged part at the trailing edge.
class Builder {
 public:
  std::vector<Panel> panels;

  /// A trapezium from root to tip; between the shares `from` and `to` of its span the last `chord_share` of the chord
  /// is `surface`.
  void lifting(Panel::Part part, Point root_le, double root_chord, Point tip_le, double tip_chord,
               std::optional<Surface> surface, double from, double to, double chord_share) {
    const auto le = [&](double share) { return mix(root_le, tip_le, share); };
    const auto chord = [&](double share) { return root_chord + (tip_chord - root_chord) * share; };
    const auto te = [&](double share) -> Point { return le(share) - Point{chord(share), 0, 0}; };
    const auto hinge = [&](double share) -> Point { return le(share) - Point{chord(share) * (1 - chord_share), 0, 0}; };
    if (!surface) {
      panels.push_back({part, std::nullopt, {le(0), le(1), te(1), te(0)}, {}, {}});
      return;
    }
    std::vector<Point> fixed{le(0), le(1)};
    if (to < 1) fixed.insert(fixed.end(), {te(1), te(to)});
    fixed.insert(fixed.end(), {hinge(to), hinge(from)});
    if (from > 0) fixed.insert(fixed.end(), {te(from), te(0)});
    if (chord_share < 1) panels.push_back({part, std::nullopt, fixed, {}, {}});
    // The edge lies aft (−x). A positive turn about a line that runs from right to left lifts it, about one that runs
    // upward it moves to the right.
    Point a = hinge(from), b = hinge(to);
    const bool upright = surface->kind == SurfaceKind::rudder;
    const bool backwards = upright ? b.z() > a.z() : b.y() > a.y();
    if (chord_share >= 1) {
      // All-moving: turns about its quarter chord.
      a = le(from) - Point{chord(from) * 0.3, 0, 0};
      b = le(to) - Point{chord(to) * 0.3, 0, 0};
    }
    Panel moving{part, surface, {hinge(from), hinge(to), te(to), te(from)}, a, b};
    if (backwards) std::swap(moving.hinge_a, moving.hinge_b);
    panels.push_back(std::move(moving));
  }

  /// A body of eight-sided sections: {x, half width, half height, z of the middle}.
  void hull(Panel::Part part, const std::vector<std::array<double, 4>>& sections, double y_middle = 0) {
    const auto ring = [&](const std::array<double, 4>& s, int i) {
      const double angle = (i + 0.5) * std::numbers::pi / 4;
      return Point{s[0], y_middle + s[1] * std::cos(angle), s[3] + s[2] * std::sin(angle)};
    };
    for (std::size_t k = 0; k + 1 < sections.size(); ++k)
      for (int i = 0; i < 8; ++i)
        panels.push_back(
            {part,
             std::nullopt,
             {ring(sections[k], i), ring(sections[k], i + 1), ring(sections[k + 1], i + 1), ring(sections[k + 1], i)},
             {},
             {}});
  }

  void propeller(Point hub, double radius, std::optional<Surface> motor) {
    Panel disc{Panel::Part::propeller, motor, {}, hub, hub + Point{1, 0, 0}};
    for (int i = 0; i < 20; ++i) {
      const double angle = i * std::numbers::pi / 10;
      disc.corners.push_back(hub + Point{0, radius * std::cos(angle), radius * std::sin(angle)});
    }
    panels.push_back(std::move(disc));
  }
};

Point on_side(const Point& right, double side) { return {right.x(), side * right.y(), right.z()}; }

}  // namespace

std::vector<Panel> aircraft_panels(const Airframe& a) {
  using A = AirframeKind;
  Builder b;
  const double half = a.span_m / 2, width = body_of(a).half_width_m;
  const bool pusher = a.kind == A::flaperons_inverted_v_tail;
  const Planform planform = planform_of(a);
  const bool wing_only = !planform.tail && !planform.foreplane;
  const auto surfaces = surfaces_of(a);
  const auto has = [&](Surface s) { return std::find(surfaces.begin(), surfaces.end(), s) != surfaces.end(); };
  const auto pick = [&](SurfaceKind k, Side s) { return has({k, s}) ? std::optional<Surface>({k, s}) : std::nullopt; };

  // Body
  const double end = body_of(a).length_m, h = body_of(a).half_height_m;
  std::vector<std::array<double, 4>> sections;
  for (const BodySection& c : body_sections(a)) sections.push_back({c.x_m, c.half_width_m, c.half_height_m, c.below_m});
  b.hull(Panel::Part::body, sections);

  // Wing
  for (const Side side : {Side::left, Side::right}) {
    const double s = side == Side::right ? 1 : -1;
    std::optional<Surface> surface;
    for (const SurfaceKind k : {SurfaceKind::aileron, SurfaceKind::elevon, SurfaceKind::flaperon})
      if (const auto found = pick(k, side)) surface = found;
    const double from = surface && surface->kind == SurfaceKind::aileron    ? 0.5
                        : surface && surface->kind == SurfaceKind::flaperon ? 0.22
                                                                            : 0.18;
    const Point tip = on_side(planform.wing.tip, s);
    b.lifting(Panel::Part::wing, planform.wing.root, a.root_chord_m, tip, a.tip_chord_m, surface, from, 0.95,
              a.surface_chord);
    if (planform.fins_at_tips())
      b.lifting(Panel::Part::fin, tip, planform.fin->root_chord_m, on_side(planform.fin->tip, s),
                planform.fin->tip_chord_m, pick(SurfaceKind::rudder, side), 0.1, 0.9, a.surface_chord);
    if (has_two_motors(a)) {
      const bool pushes = propeller_pushes(a);
      const double ahead = 0.25 * a.root_chord_m;
      const Point hub{-a.wing_at_m + (pushes ? -a.root_chord_m - ahead : ahead), s * half * 0.35, 0};
      // From the hub along the chord, wherever the hub is.
      const double aft = pushes ? 1 : -1;
      const std::array<double, 4> at_hub{hub.x(), width * 0.3, width * 0.3, 0},
          middle{hub.x() + aft * 0.4 * a.root_chord_m, width * 0.45, width * 0.45, 0},
          end_of{hub.x() + aft * a.root_chord_m, width * 0.1, width * 0.1, 0};
      b.hull(Panel::Part::body,
             pushes ? std::vector<std::array<double, 4>>{end_of, middle, at_hub}
                    : std::vector<std::array<double, 4>>{at_hub, middle, end_of},
             hub.y());
      b.propeller(hub, 0.12 * a.span_m, Surface{SurfaceKind::motor, side});
    }
  }

  // Tail or foreplane
  for (const Side side : {Side::left, Side::right}) {
    const double s = side == Side::right ? 1 : -1;
    if (const auto& tail = planform.tail) {
      std::optional<Surface> surface = pick(SurfaceKind::elevator, Side::single);
      for (const SurfaceKind k : {SurfaceKind::vtail, SurfaceKind::inverted_v, SurfaceKind::taileron})
        if (const auto found = pick(k, side)) surface = found;
      const bool whole = surface && surface->kind == SurfaceKind::taileron;
      Point root = tail->root, tip = on_side(tail->tip, s);
      double root_chord = tail->root_chord_m, tip_chord = tail->tip_chord_m;
      if (surface && surface->kind == SurfaceKind::inverted_v && !pusher) root.z() = -0.2 * h;
      if (whole) root.y() = s * width * 0.2;
      if (pusher) {
        // Drawn from its foot on the boom up to where the halves meet.
        std::swap(root, tip);
        std::swap(root_chord, tip_chord);
        const double boom_start = -a.wing_at_m - 0.4 * a.root_chord_m, thick = width * 0.16;
        b.hull(Panel::Part::boom, {{boom_start, thick, thick, 0}, {-a.length_m, thick * 0.7, thick * 0.7, 0}},
               root.y());
      }
      b.lifting(Panel::Part::tail, root, root_chord, tip, tip_chord, surface, pusher ? 0.06 : 0.08,
                pusher ? 0.94 : 0.97, whole ? 1 : a.surface_chord);
    }
    if (const auto& fore = planform.foreplane) {
      Point root = fore->root;
      root.y() = s * width * 0.5;
      b.lifting(Panel::Part::tail, root, fore->root_chord_m, on_side(fore->tip, s), fore->tip_chord_m,
                pick(SurfaceKind::canard, Side::single), 0.05, 1, a.surface_chord);
    }
  }

  // Fin
  if (const auto& fin = planform.fin; fin && !planform.fins_at_tips())
    b.lifting(Panel::Part::fin, fin->root, fin->root_chord_m, fin->tip, fin->tip_chord_m,
              pick(SurfaceKind::rudder, Side::single), 0.05, 0.97, a.surface_chord);

  // Propeller
  const double disc = 0.09 * a.span_m + 0.03;
  if (has_two_motors(a)) return b.panels;
  if (propeller_behind(a) && planform.tail && !pusher) {
    // The tail is in the way: it turns on a pylon above the body, behind the wing.
    const double x = -a.wing_at_m - a.root_chord_m - 0.02, chord = 0.5 * a.root_chord_m, thick = 0.3 * width;
    const auto body = body_at(a, x);
    const double top = body ? body->half_height_m - body->below_m : h;
    const double above = top + disc + 0.01;
    b.hull(Panel::Part::body, {{x + chord, 0.2 * thick, above / 2, -above / 2},
                               {x + 0.7 * chord, 0.4 * thick, above / 2, -above / 2},
                               {x + 0.3 * chord, 0.2 * thick, above / 2, -above / 2}});
    b.hull(Panel::Part::body, {{x + chord, 0.3 * thick, 0.3 * thick, -above},
                               {x + 0.5 * chord, thick, thick, -above},
                               {x, 0.8 * thick, 0.8 * thick, -above}});
    b.propeller({x - 0.01, 0, -above}, disc, std::nullopt);
  } else if (propeller_behind(a))
    b.propeller({-(pusher || wing_only ? end : a.length_m) - 0.01, 0, 0}, disc, std::nullopt);
  else if (a.kind != A::towed_glider)
    b.propeller({0.005, 0, 0}, disc, std::nullopt);
  return b.panels;
}

double area_of(const std::vector<Point>& corners) {
  Point sum = Point::Zero();
  for (std::size_t i = 1; i + 1 < corners.size(); ++i)
    sum += (corners[i] - corners[0]).cross(corners[i + 1] - corners[0]);
  return sum.norm() / 2;
}

std::vector<Point> deflected(const Panel& panel, double up_deg) {
  std::vector<Point> corners = panel.corners;
  if (!panel.surface || panel.surface->kind == SurfaceKind::motor || up_deg == 0) return corners;
  for (Point& p : corners) p = turned(p, panel.hinge_a, panel.hinge_b - panel.hinge_a, up_deg * rad);
  return corners;
}

}  // namespace rigging
