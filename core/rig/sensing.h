#pragma once

#include <optional>

#include "base/axis.h"
#include "base/described.h"
#include "base/extra.h"
#include "rig/names.h"

namespace rigging {

struct Sensing {
  TurnName board;  ///< as the controller was told that it sits
  bool roll_reversed = false, pitch_reversed = false, yaw_reversed = false;
  std::optional<double> level_nose_up_deg;
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
