#pragma once

#include <array>
#include <string>
#include <vector>

#include "base/job.h"
#include "feel/feel.h"
#include "feel/flight_log.h"
#include "flight/dynamics.h"
#include "rig/remedy.h"

/// A flight of the rig in simulation, with the stabilizer's law, servos, pulses and delays of its class in the loop.
/// Never more than a simulation: it says so wherever it is shown.
namespace rigging {

/// What of the true aircraft is not as the model expects it.
struct Truth {
  Doubt doubt;
  double servo = 1;                ///< its natural frequency over what is expected
  double play_deg = 0;             ///< at every surface, whole width
  std::array<bool, 3> reversed{};  ///< corrections of these axes work the wrong way
};

struct StickMove {
  double from_s = 0, to_s = 0;
  Axis axis = Axis::roll;
  double at = 0;  ///< −1 to 1
};

struct FlyOptions {
  Mode mode = Mode::rate;
  double seconds = 30;
  double m_s = 0;  ///< held by the throttle as far as it reaches; 0: cruise
  double height_m = 80;
  double nose_down_deg = 0;  ///< a dive: held so far below level
  double wind_m_s = 0;       ///< its turbulence; the wind itself only carries the aircraft along
  std::uint32_t seed = 1;
  std::vector<StickMove> sticks;
  bool pilot = true;  ///< hands that hold bank, nose and heading loosely where nothing levels
  Truth truth;
  bool thrown = false;  ///< from the hand, at 7 m/s and full throttle, wings 15° down
};

/// Every hundredth of a second.
struct Flight {
  double step_s = 0.01;
  std::vector<Motion> motion;
  std::vector<double> airspeed_m_s, throttle;
  std::array<std::vector<double>, 3> rate_deg_s, stick, correction;
  std::array<double, 3> worst_surface_share{};  ///< of the travel, per axis
  std::string end;                              ///< why it ended early; empty when it did not
  double lowest_m = 0;

  std::size_t size() const { return motion.size(); }
  /// In the columns of `parse_flight_log`.
  std::string csv() const;
};

/// Errors: nothing known of the aeroplane, a mode that the class does not have, a time over ten minutes. Nothing when
/// it was cancelled.
Result<Flight> fly(const Rig& rig, const Catalogue& catalogue, const FlyOptions& options, Progress* progress = nullptr);

/// Thrust and free speed of the rig's motors: static thrust as at station power, the propeller's free speed as 1.15
/// times pitch by turns (from memory); without a motor none.
Engine engine_of(const Rig& rig, const Catalogue& catalogue, const Aeroplane& aeroplane);

}  // namespace rigging
