#pragma once

#include <vector>

#include "feel/flight_log.h"

namespace rigging {

/// A narrow line of a spectrum that stands out through several windows; places are readings of the log.
struct RateLine {
  double hz = 0;
  std::size_t from = 0, to = 0;
  int windows = 0, strong = 0;  ///< in how many it stands out, and in how many far
  double density = 0;           ///< of what lies beside it, (deg/s)²/Hz
};

/// Lines of one rate that last: Hann windows of three seconds from 2 Hz on, of seven for the faint ones up to 12 Hz, of
/// six below 2.4 Hz. A line stands at least eight times above what lies beside it (less where its band is wide).
std::vector<RateLine> lasting_lines(const std::vector<double>& rate_deg_s, const FlightLog& log,
                                    const Progress* progress = nullptr);

}  // namespace rigging
