#pragma once

#include <cstdint>
#include <vector>

#include "base/axis.h"
#include "rig/remedy.h"

namespace rigging {

struct StickMove {
  double from_s = 0, to_s = 0;
  Axis axis = Axis::roll;
  double at = 0;  ///< −1 to 1
  bool operator==(const StickMove&) const = default;
};

/// A tug at a stick: to one side after a second, to the other, and let go.
inline std::vector<StickMove> tug_at(Axis axis) { return {{1, 1.3, axis, 0.5}, {1.3, 1.6, axis, -0.5}}; }

/// What hands do in one flight, and the weather.
struct FlightPlan {
  Mode mode = Mode::rate;
  double seconds = 30;
  double m_s = 0;  ///< held by the throttle as far as it reaches; 0: cruise
  double height_m = 80;
  double nose_down_deg = 0;  ///< a dive: held so far below level
  double wind_m_s = 0;       ///< its turbulence; the wind itself only carries the aircraft along
  std::uint32_t seed = 1;
  std::vector<StickMove> sticks;
  bool pilot = true;     ///< hands that hold height, and bank and heading where nothing levels, loosely
  bool thrown = false;   ///< from the hand at full throttle, wings 15° down
  double throw_m_s = 7;  ///< that an arm gives (common practice)
};

}  // namespace rigging
