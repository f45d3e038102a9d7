#pragma once

#include <cstdint>
#include <optional>
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
  bool pilot = true;               ///< hands that hold height, and bank and heading where nothing levels, loosely
  bool thrown = false;             ///< from the hand at full throttle, wings 15° down
  double throw_m_s = 7;            ///< that an arm gives (common practice)
  double north_m = 0, east_m = 0;  ///< of home, where it begins
  double heading_deg = 0;          ///< flown then
  double steady_wind_m_s = 0, steady_from_deg = 270;  ///< ten metres up: carries it along
  double wind_exponent = 0;                           ///< it grows with (height / 10 m) to this power
  std::optional<double> link_lost_s;                  ///< the transmitter goes off then, and stays off
  double left_mah = 0;                                ///< in the battery at the beginning; 0: it is not counted

  bool rehearses() const { return link_lost_s.has_value(); }
};

/// Longest flight of a plan, s.
inline constexpr double longest_flight_s = 120, longest_rehearsal_s = 1200;

}  // namespace rigging
