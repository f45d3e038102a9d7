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

struct AirframeReport {
  std::vector<Panel> panels;
  std::vector<AxisAnswer> answers;
  Figure wing_area, mean_chord, aspect_ratio, neutral_point;
  std::optional<Figure> wing_loading, stall_speed, cruise_speed;
  std::vector<Figure> figures() const;
  bool operator==(const AirframeReport&) const = default;
};

/// Areas, speeds and neutral point from the planform. Speeds are at sea level (1.225 kg/m³, ISO 2533).
AirframeReport analyze_airframe(const Rig& rig);

/// All pieces of the aircraft, in body axes with the nose at x = 0, drawn from its dimensions.
std::vector<Panel> aircraft_panels(const Airframe& airframe);

/// A panel with its surface deflected; `trailing_edge_up_deg` counts as in `Panel`.
std::vector<Point> deflected(const Panel& panel, double trailing_edge_up_deg);

}  // namespace rigging
