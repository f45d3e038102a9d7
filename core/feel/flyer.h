#pragma once

#include <array>

#include "feel/feel.h"
#include "feel/flown.h"
#include "flight/flight.h"

/// A flight of the rig as it is planned, with the stabilizer's law, servos, pulses and delays of its class in the loop.
namespace rigging {

/// What of the true aircraft is not as the model expects it.
struct Truth {
  Doubt doubt;
  double servo = 1;                ///< its natural frequency over what is expected
  double play_deg = 0;             ///< at every surface, whole width
  std::array<bool, 3> reversed{};  ///< corrections of these axes work the wrong way
};

struct FlyOptions : FlightPlan {
  Truth truth;
};

/// Errors: nothing known of the aeroplane, a mode that the class does not have, a time over ten minutes. Nothing when
/// it was cancelled.
Result<Flight> fly(const Rig& rig, const Catalogue& catalogue, const FlyOptions& options, Progress* progress = nullptr);

/// Least and most at every moment.
struct Envelope {
  std::vector<double> least, most;
};

/// The flight as expected, and what aircraft out of the bands do in the same air.
struct FlightBand {
  Flight expected;
  Seen seen;  ///< in it
  std::array<Envelope, 3> rate_deg_s, correction;
  Envelope height_m;
  int others = 0;  ///< how many were flown
  int shook = 0;   ///< how many of these shook on some axis from too much gain
  int ended = 0;   ///< how many reached the ground
};

/// `others` aircraft, drawn out of the bands, servos too; about 30 ms for each and half a
/// minute of flight. Errors as of `fly`. Its own truth, that of `options`, comes on top. Cut short when cancelled.
Result<FlightBand> fly_band(const Rig& rig, const Catalogue& catalogue, const FlyOptions& options, int others,
                            Progress& progress);

}  // namespace rigging
