#pragma once

#include <optional>

#include "base/point.h"

namespace rigging {

/// One reading of a board's own sensors, in the board's own axes as they are soldered: x along its arrow, z away from
/// its top. Nothing of how the board was told to sit is in it.
struct MotionSample {
  double t_s = 0;                 ///< on the board's clock
  Point force_m_s2 = {0, 0, 0};   ///< what holds it up: (0, 0, −9.8) at rest, top up
  Point rate_deg_s = {0, 0, 0};   ///< by the right-hand rule
  std::optional<Point> field_ut;  ///< of its compass, in the compass's axes; absent without one
};

}  // namespace rigging
