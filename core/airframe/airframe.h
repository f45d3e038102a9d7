#pragma once

#include "base/figure.h"
#include "base/point.h"
#include "rig/rig.h"

namespace rigging {

/// One flat piece of the aircraft. Hinged pieces turn about the line from `hinge_a` to `hinge_b`, both at the leading
/// edge, such that a positive angle (right-hand rule) lifts the trailing edge, or moves a rudder's to the right.
struct Panel {
  enum class Part { body, wing, tail, fin, boom, propeller };
  Part part = Part::body;
  std::optional<Surface> surface;
  std::vector<Point> corners;
  Point hinge_a, hinge_b;
  bool operator==(const Panel&) const = default;
};

struct AxisAnswer {
  Surface surface;
  Axis axis;
  int direction;  ///< as in `required_direction`
  bool operator==(const AxisAnswer&) const = default;
};

/// One lifting surface in numbers, so that a builder can hold them against the plan.
struct SurfaceSize {
  std::string name;   ///< "wing", "tail", "foreplane"
  double span_m = 0;  ///< as seen from above
  double root_chord_m = 0, tip_chord_m = 0, mean_chord_m = 0;
  double area_m2 = 0;     ///< as seen from above
  double at_m = 0;        ///< nose to the leading edge at the root
  double quarter_m = 0;   ///< nose to a quarter of the mean chord
  double lift_share = 0;  ///< of the lift that a change of the angle of attack makes
  bool guessed = false;   ///< some of it follows by usual proportions and was not measured
  bool operator==(const SurfaceSize&) const = default;
};

struct AirframeReport {
  std::vector<Panel> panels;
  std::vector<AxisAnswer> answers;
  std::vector<SurfaceSize> surfaces;
  Figure wing_area, mean_chord, aspect_ratio;
  /// Band: forward by the body and by a tail that works in slower air, aft by the lattice's own error.
  Figure neutral_point;
  double lift_slope_per_rad = 0;  ///< of the whole aircraft, on the wing's area
  std::optional<Figure> wing_loading, stall_speed, cruise_speed;
  std::vector<Figure> figures() const;
  bool operator==(const AirframeReport&) const = default;
};

/// Areas, speeds and neutral point (by a vortex lattice, lattice.h) from the planform. Speeds are at sea level (1.225
/// kg/m³, ISO 2533).
AirframeReport analyze_airframe(const Rig& rig);

/// All pieces of the aircraft, in body axes with the nose at x = 0, drawn from its dimensions.
std::vector<Panel> aircraft_panels(const Airframe& airframe);

/// Of a flat outline, m².
double area_of(const std::vector<Point>& corners);

/// A panel with its surface deflected; `trailing_edge_up_deg` counts as in `Panel`.
std::vector<Point> deflected(const Panel& panel, double trailing_edge_up_deg);

}  // namespace rigging
