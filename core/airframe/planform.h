#pragma once

#include <optional>
#include <string>
#include <vector>

#include "base/point.h"
#include "rig/airframe.h"

namespace rigging {

/// The right half of a lifting surface, a trapezium from the middle of the aircraft to its tip. Body axes, metres: x
/// forward with the nose at 0, y right, z down. What the body covers counts as if the surface went through.
struct HalfSurface {
  Point root, tip;  ///< of the leading edge
  double root_chord_m = 0, tip_chord_m = 0;

  double span_m() const;           ///< both halves, as seen from above
  double area_m2() const;          ///< both halves, as seen from above
  double panel_area_m2() const;    ///< both halves, along the panels; greater than `area_m2` on a V
  double mean_chord_m() const;     ///< mean aerodynamic chord, 2/3 · root · (1 + t + t²) / (1 + t)
  double quarter_chord_m() const;  ///< of the mean aerodynamic chord, behind the nose
  bool operator==(const HalfSurface&) const = default;
};

/// What carries lift. Sizes that the builder has not measured follow from the others by usual proportions; `guessed`
/// names them as the document calls them.
struct Planform {
  HalfSurface wing;
  std::optional<HalfSurface> tail, foreplane;
  /// From its foot up, of no width as seen from above: on the body, or one at either tip of a flying wing. A V has
  /// none.
  std::optional<HalfSurface> fin;
  bool fins_at_tips() const { return fin && fin->root.y() > 0; }
  std::vector<std::string> guessed;
  bool operator==(const Planform&) const = default;
};
Planform planform_of(const Airframe& airframe);

/// The body as it is drawn, metres: sections are ellipses.
struct BodySize {
  double half_width_m = 0, half_height_m = 0, length_m = 0;
  /// Full over somewhat more than half of the length.
  double volume_m3() const;
};
BodySize body_of(const Airframe& airframe);

/// What a kind has. A V counts as a tail.
bool has_tail(AirframeKind kind);
bool has_foreplane(AirframeKind kind);
bool has_v(AirframeKind kind);
/// Does it push, by what was said of it, else as its kind usually does?
bool propeller_pushes(const Airframe& airframe);
/// One propeller, behind the wing.
bool propeller_behind(const Airframe& airframe);

/// Lift slope of a straight wing per radian (Helmbold); 2π for an endless one.
double helmbold_slope(double aspect_ratio);

}  // namespace rigging
