#pragma once

#include <string>
#include <vector>

#include "senses/recording.h"
#include "senses/verdict.h"

/// What the motor's current does to the compass.
namespace rigging {

struct Interference {
  Point per_a = {0, 0, 0};                                              ///< µT for each ampere, in the compass's axes
  Point per_a_error = {0, 0, 0};                                        ///< one standard deviation
  double most_a = 0;                                                    ///< of the readings
  double full_ut = 0;                                                   ///< at full current
  double heading_deg = 0, heading_least_deg = 0, heading_most_deg = 0;  ///< off at full current, worst heading
  bool estimate = false;       ///< the run drew less than half of the full current: the rest is extrapolated
  double distance_factor = 1;  ///< farther away by this for less than two degrees; for a pair of wires (1/r²)
  double left_deg = 0;         ///< what compensation would leave, by its own error
  Verdict verdict = Verdict::repeat;
  std::string why;
};

/// The model stands still while the motor runs at several throttles; `current_a` beside every reading. `full_a`: the
/// most that flies, 1 to 1000; `horizontal_ut`: of the earth there, 1 to 45. Good: below two degrees at full current;
/// usable: below ten, with compensation (common practice). Needs currents two amperes or a tenth of the full current
/// apart. On the bench, without a propeller, little current flows: that is an estimate.
Interference interference_of(const Recording& field_ut, const std::vector<double>& current_a, double full_a,
                             double horizontal_ut);

}  // namespace rigging
