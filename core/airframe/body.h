#pragma once

#include <vector>

#include "rig/airframe.h"

namespace rigging {

/// A section of the body as it is drawn: an ellipse about the middle line, metres.
struct BodySection {
  double x_m = 0;  ///< body axes: the nose at 0, less than 0 behind it
  double half_width_m = 0, half_height_m = 0;
  double below_m = 0;  ///< of its middle
};

/// From nose to tail; between two of them sizes go straight.
std::vector<BodySection> body_sections(const Airframe& airframe);

/// At one place along it; nothing in front of the nose and behind its end.
std::optional<BodySection> body_at(const Airframe& airframe, double x_m);

}  // namespace rigging
