#pragma once

#include <array>
#include <string>
#include <vector>

#include "feel/learn.h"
#include "flight/flight.h"

namespace rigging {

/// What one sees of a simulated flight.
struct Seen {
  std::vector<Episode> episodes;       ///< empty of one shorter than two seconds
  std::array<double, 3> rms_deg_s{};   ///< of the rates
  std::array<double, 3> correction{};  ///< largest, −1 to 1, without its sign
  double worst_bank_deg = 0, climb_m = 0;
  /// Mean, once it had settled for three seconds; where one was asked for and not flown within 4 %, `words` say why.
  double airspeed_m_s = 0;
  /// "Roll shook at 6.8 Hz from 4.1 s on: too much gain. It banked up to 35° and lost 4 m."
  std::string words;
};

/// With the model's word where there is one: as `episodes_in` of learn.h.
Seen seen_in(const Flight& flight, const ControllerClass* controller, const FeelReport* report);

/// The flight as a log would have it.
FlightLog log_of(const Flight& flight);

}  // namespace rigging
