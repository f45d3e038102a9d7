#pragma once

#include <optional>

#include "base/axis.h"
#include "base/described.h"
#include "base/extra.h"
#include "rig/names.h"

namespace rigging {

/// What a sensor's readings are corrected by: matrix · (reading − offset), the matrix symmetric. Offsets in the unit of
/// the readings (m/s², µT), in the sensor's own axes.
struct SensorCorrection {
  double offset_x = 0, offset_y = 0, offset_z = 0;
  double scale_x = 1, scale_y = 1, scale_z = 1;
  double cross_xy = 0, cross_xz = 0, cross_yz = 0;
  Extra extra;
  bool operator==(const SensorCorrection&) const = default;
};

template <>
const Members& Described<SensorCorrection>::members();

struct Sensing {
  TurnName board;  ///< as the controller was told that it sits
  bool roll_reversed = false, pitch_reversed = false, yaw_reversed = false;
  std::optional<double> level_nose_up_deg;
  std::optional<SensorCorrection> accelerometer, compass;
  Extra extra;
  bool operator==(const Sensing&) const = default;

  bool reversed(Axis axis) const {
    return axis == Axis::roll ? roll_reversed : axis == Axis::pitch ? pitch_reversed : yaw_reversed;
  }
  bool& reversed(Axis axis) {
    return axis == Axis::roll ? roll_reversed : axis == Axis::pitch ? pitch_reversed : yaw_reversed;
  }
};

template <>
const Members& Described<Sensing>::members();

}  // namespace rigging
