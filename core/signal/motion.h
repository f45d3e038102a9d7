#pragma once

#include <optional>
#include <string>
#include <vector>

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

/// What of a board changes slowly, some ten times a second.
struct SlowReading {
  double t_s = 0;                                          ///< on the board's clock
  double temperature_c = 0;                                ///< of the board
  std::optional<double> pressure_pa, pitot_pa, current_a;  ///< absent without such a sensor
};

/// What a board said of its sensors since the last time, oldest first.
struct BoardReadings {
  std::vector<MotionSample> samples;
  std::vector<SlowReading> slow = {};
  std::string satellite_bytes = {};  ///< of its satellite receiver, as they came
};

}  // namespace rigging
