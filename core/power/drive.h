#pragma once

#include "base/figure.h"
#include "power/network.h"

namespace rigging {

/// One motor with what feeds it and what it turns.
struct Motor {
  std::string motor, controller, propeller, battery;  ///< part ids; empty when missing
  double amps = 0, rev_s = 0, thrust_n = 0, watts = 0;
  bool operator==(const Motor&) const = default;
};

/// The drive train, propeller turning while the model is held.
struct Drive {
  std::vector<Motor> motors;
  Figure static_current;  ///< of all motors
  Figure thrust;
  std::optional<Figure> thrust_to_weight;
  Figure cruise_current;
  bool measured = false;
  bool operator==(const Drive&) const = default;
};

/// Static thrust and power coefficients of a model propeller from pitch over diameter p: CT = 0.07 + 0.06·p, CP = 0.018
/// + 0.045·p. A straight line through typical static test values, from memory: ±20 %.
double thrust_coefficient(double pitch_ratio);
double power_coefficient(double pitch_ratio);

/// Current and speed at which motor and propeller agree. `volts` open at the battery, `ohm` of battery, leads and speed
/// controller. Density 1.225 kg/m³ (ISO 2533).
Motor static_point(const MotorFigures& motor, const PropellerFigures& propeller, double volts, double ohm);

/// Empty when the rig has no motor. `battery_v`: open voltage.
std::optional<Drive> analyze_drive(const Rig& rig, const Catalogue& catalogue, const Network& network,
                                   int more_cells = 0);

}  // namespace rigging
