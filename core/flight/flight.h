#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <string>
#include <string_view>
#include <vector>

#include "base/job.h"
#include "base/result.h"
#include "flight/dynamics.h"
#include "hands/flight_plan.h"

/// A flight in simulation: air, hands and throttle around whatever board sits in the aeroplane. Never more than a
/// simulation: it says so wherever it is shown.
namespace rigging {

/// A line every hundredth of a second.
struct Flight {
  double step_s = 0.01;  ///< from one line to the next; a rehearsal of the way home keeps every tenth second
  std::vector<Motion> motion;
  std::vector<double> airspeed_m_s, throttle;
  std::array<std::vector<double>, 3> rate_deg_s, stick, correction;
  double used_mah = 0;  ///< where it is counted
  /// Airspeed that throttle and trim were to hold, and what level flight at it takes; 0 where none was: a dive, a
  /// throw, a flight from a log.
  double asked_m_s = 0;
  LevelFlight level;
  std::string end;  ///< why it ended early; empty when it did not
  double lowest_m = 0;

  std::size_t size() const { return motion.size(); }
  std::vector<double> heights() const;  ///< m
  /// The columns of `parse_flight_log` and the six of place and attitude.
  std::string csv() const;
};
/// What `csv` wrote. Errors: a column missing or a number that is none, with its row.
Result<Flight> flight_from_csv(std::string_view text, const std::string& name);

inline constexpr double flight_tick_s = 1e-3;
/// At least one.
inline int flight_ticks(double seconds) { return std::max(1, static_cast<int>(std::lround(seconds / flight_tick_s))); }

/// What answers sticks and motion with surfaces, every millisecond.
class FlightBoard {
 public:
  struct Told {
    const Motion& motion;
    double airspeed_m_s = 0;
    std::array<double, 3> stick{};  ///< −1 to 1
    double throttle = 0;            ///< 0 to 1
    bool transmitter = true;        ///< it is on
  };
  struct Response {
    Deflection surfaces;
    double throttle = 0;  ///< that the motor gets
    double amps = 0;      ///< that everything takes with it; 0 where that is not known
  };
  virtual ~FlightBoard() = default;
  virtual Response step(const Told& told) = 0;
  /// That it adds to the sticks, −1 to 1.
  virtual const std::array<double, 3>& correction() const = 0;
  /// Nothing more is to be seen: it is home and circles, or is down.
  virtual bool over() const { return false; }
  /// Nose that a full stick asks for in a levelling mode.
  virtual double nose_limit_rad() const = 0;
};

/// Hands hold bank, height and heading (in a dive or after a throw the nose) with the lag of a third of a second; in a
/// levelling mode they ask for the nose alone. It ends at the ground, or where
/// `progress` cancels it.
Flight run_flight(const FlightModel& model, FlightBoard& board, const FlightPlan& plan, Progress* progress = nullptr);

}  // namespace rigging
