#pragma once

#include <array>
#include <optional>

#include "base/described.h"
#include "base/json_fwd.h"

/// One axis of a stabilizer as a linear loop, with its delay as it is.
namespace rigging {

/// Body rate for surface angle, rad/s per rad: (b2·s² + b1·s + b0) / ((a2·s² + a1·s + a0)·(c1·s + c0)). `a1` is not 0;
/// `b2` only where `c1` is not 0.
struct RatePlant {
  double b1 = 0, b0 = 0;
  double a2 = 0, a1 = 1, a0 = 0;
  double b2 = 0, c1 = 0, c0 = 1;
  /// What a steady deflection makes in the end, 1/s.
  double steady() const { return b0 / (a0 * c0); }
  /// Coefficients from s⁰ to s³.
  std::array<double, 4> numerator() const { return {b0, b1, b2, 0}; }
  std::array<double, 4> denominator() const { return {a0 * c0, a1 * c0 + a0 * c1, a2 * c0 + a1 * c1, a2 * c1}; }
  /// rate' = lp·rate + ldelta·surface.
  static RatePlant roll(double lp_per_s, double ldelta_per_s2) { return {0, ldelta_per_s2, 0, 1, -lp_per_s}; }
  bool operator==(const RatePlant&) const = default;
};

/// surface = −rate_gain·(filtered rate + level_per_s·angle), through servo and delay; the angle is the integral of the
/// unfiltered rate.
struct Loop {
  RatePlant plant;
  double servo_c1_s = 0, servo_c2_s2 = 0;  ///< 1 / (c2·s² + c1·s + 1)
  double filter_s = 0;                     ///< time constant of the low-pass on the measured rate
  double delay_s = 0;                      ///< of everything, at least 0
  double rate_gain = 0;                    ///< s
  double level_per_s = 0;

  /// A servo by its natural frequency and damping, or by its lag.
  void servo(double natural_hz, double damping);
  void servo_lag(double lag_s) { servo_c1_s = lag_s, servo_c2_s2 = 0; }
  void lowpass(double hz);
  double stick_rad = 0;  ///< surface that full stick gives by itself (feed forward)
  bool operator==(const Loop&) const = default;
};

/// Response of the open loop at a rate gain of 1, the minus of the correction left out: instability begins where it is
/// −1 / rate_gain. `phase_rad` is continuous in the frequency.
struct Response {
  double size = 0, phase_rad = 0;
};
Response response_at(const Loop& loop, double rad_s);

/// Steady rate at full stick, rad/s: S·stick/(1 + k·S), S the plant's steady rate by angle. Absent where the loop
/// levels (the stick asks for an angle there), where the plant does not settle, or without a stick.
std::optional<double> full_stick_rate(const Loop& loop);

struct Onset {
  double rate_gain = 0;  ///< from which on it shakes
  double hz = 0;         ///< at which it shakes then; 0: it diverges without shaking
};

struct LoopMargins {
  bool stable = false;
  /// Upper end of the stable gains in which the loop lies, or of those nearest below it; nothing when no gain of this
  /// sign is stable, or when all greater ones are.
  std::optional<Onset> onset;
  std::optional<double> gain_margin_db;  ///< negative when it is shaking
  std::optional<double> phase_margin_deg, crossover_hz;
};

/// Exact: crossings of the negative real axis by the analytic phase, stability on either side of each by the argument
/// of the characteristic function along the imaginary axis (Mikhailov's criterion, which holds for systems of retarded
/// type). Of several gain crossovers, the one with the smallest phase margin. Some 0.2 ms.
LoopMargins margins_of(const Loop& loop);

/// The lowest crossing alone, which is where a loop begins to shake whose plant is stable and whose servo does not ring
/// (damping of 0.4 or more); some 2 µs. Nothing when its phase never gets there.
std::optional<Onset> onset_of(const Loop& loop);
/// The same for another phase, radians below 0: −3π/4 is where a loop of this rate gain has 45° of phase margin left.
std::optional<Onset> gain_at_phase(const Loop& loop, double phase_rad);

// The case of the command line
// -------------------------------------------------------------------------------------------------------

struct LoopCasePlant {
  double lp_per_s = 0, ldelta_per_s2 = 0;
  bool operator==(const LoopCasePlant&) const = default;
};
struct LoopCaseServo {
  std::optional<double> lag_s, natural_hz, damping;
  bool operator==(const LoopCaseServo&) const = default;
};
struct LoopCaseLaw {
  double rate_gain = 0, level_per_s = 0;
  std::optional<double> stick_rad;  ///< surface that full stick gives by itself (feed forward)
  bool operator==(const LoopCaseLaw&) const = default;
};
struct LoopCase {
  LoopCasePlant plant;
  std::optional<LoopCaseServo> servo;
  std::optional<double> lowpass_hz;
  double delay_s = 0;
  LoopCaseLaw law;
  bool operator==(const LoopCase&) const = default;
};
template <>
const Members& Described<LoopCase>::members();
template <>
const Members& Described<LoopCasePlant>::members();
template <>
const Members& Described<LoopCaseServo>::members();
template <>
const Members& Described<LoopCaseLaw>::members();

/// As written in docs/command-line.md. Errors: what is missing, unknown or out of range, and a servo that is told
/// twice.
Result<Loop> loop_from_json(const Json& json, const std::string& file);

}  // namespace rigging
