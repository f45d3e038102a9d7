#pragma once

#include "bench.h"
#include "flight/flight.h"
#include "reports/reports.h"

namespace rigging::twin {

/// What the air makes of the model as it really is. Rigging never reads this either.
struct FlyingTruth {
  std::string cannot;  ///< why it can't fly: what is not known of it; empty when it can
  Aeroplane aeroplane;
  Drag drag;
  Engine engine;
  std::map<Surface, double> servo_rad_s;  ///< natural frequency of its servo
  std::optional<double> half_share;       ///< of the board's dial; what its class says when absent
  double play_deg = 0;                    ///< whole width, at every surface
  double rest_a = 0, full_a = 0;          ///< current with the motor standing, and with full throttle; 0: not counted
  double amps_power = 2.5;        ///< current of the motor over its full one goes with this power of the throttle
  double cruise_nose_up_deg = 0;  ///< of the floor that the board sits on, in level flight at cruise
};

/// Of a bench on which nothing is flown.
inline FlyingTruth never_flies() {
  FlyingTruth t;
  t.cannot = "this model stays on the bench";
  return t;
}

/// As Rigging works it out from the rig, so right only as far as that is.
FlyingTruth flying_of(const Reports& reports);
/// Moves all of it within its bands: damping, stiffness, surfaces, inertia, servos, the dial's law. The same seed draws
/// the same.
void make_different(FlyingTruth& truth, unsigned seed);

/// Flies the model as it is built, wired and set: what was written to the board steers it, through its own mixer, the
/// leads, servos and linkages as they are; attitude and rates are what its sensors and their calibration make of them.
/// Errors: no battery, no signal, something that can't fly, a mode that it does not have.
Result<Flight> fly(const Bench& bench, const FlyingTruth& truth, const FlightPlan& plan);

}  // namespace rigging::twin
