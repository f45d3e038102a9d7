#pragma once

#include "base/figure.h"
#include "power/network.h"

namespace rigging {

/// One motor with what feeds it and what it turns.
struct Motor {
  std::string motor, controller, propeller, battery;  ///< part ids; empty when missing
  double lead_ohm = 0;                                ///< battery leads on the way, plus and minus
  double lead_m = 0;                                  ///< their length
  double amps = 0, rev_s = 0, thrust_n = 0, watts = 0;
  bool operator==(const Motor&) const = default;
};

/// The drive train, propeller turning while the model is held.
struct Drive {
  std::vector<Motor> motors;
  Figure static_current;  ///< of all motors, half-full battery
  Figure full_current;    ///< of all motors, fresh battery: what ratings are held against
  Figure thrust;
  std::optional<Figure> thrust_to_weight;
  Figure cruise_current;
  bool measured = false;
  bool operator==(const Drive&) const = default;
};

/// Static thrust and power coefficients of a model propeller from pitch over diameter p, two blades: CT = 0.07 +
/// 0.06·p, CP = 0.018 + 0.045·p. A straight line through typical static test values, from memory: ±20 %. More blades
/// count with (blades / 2)^0.75 and ^0.85, slow-fly blades with 1.25 and 1.35 (from memory).
double thrust_coefficient(const PropellerFigures& propeller);
double power_coefficient(const PropellerFigures& propeller);

/// Current and speed at which motor and propeller agree. `volts` open at the battery, `ohm` of battery, leads and speed
/// controller. Density 1.225 kg/m³ (ISO 2533).
Motor static_point(const MotorFigures& motor, const PropellerFigures& propeller, double volts, double ohm);

/// What one motor draws from a battery of `volts` to make `thrust_n` at an airspeed; nothing when it can't. With the
/// advance ratio J: CT = CT0·(1 − J/J0), CP = CP0·(1 − 0.85·(J/J0)²), J0 = 1.15·p (from memory: 0.45 to 0.6 of the
/// shaft power reach the air at best); the speed controller passes 95 %.
std::optional<double> amps_in_flight(const MotorFigures& motor, const PropellerFigures& propeller, double volts,
                                     double thrust_n, double m_s);

/// Empty when the rig has no motor. Cruise current is what the drag of the airframe at cruise asks (airframe/drag.h),
/// where mass, motor and propeller are known.
std::optional<Drive> analyze_drive(const Rig& rig, const Catalogue& catalogue, const Network& network,
                                   int more_cells = 0);

}  // namespace rigging
