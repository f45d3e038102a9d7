#pragma once

#include <optional>
#include <string>
#include <vector>

#include "senses/recording.h"
#include "senses/verdict.h"

/// How much the board shakes, at which frequencies, and what a filter against it would cost.
namespace rigging {

struct Peak {
  double hz = 0;
  double amplitude = 0;  ///< of a sine at this frequency, m/s²
};

/// What a low-pass of second order (Butterworth) does.
struct FilterCost {
  double cut_hz = 0;
  double peak_left = 0;  ///< share of the strongest peak that is left
  double delay_s = 0;    ///< at frequencies that matter for flight, well below the cut: √2 / (2π·cut)
};

struct Vibration {
  double rate_hz = 0;
  double rms = 0;               ///< of all three axes together, what rests taken out, m/s²
  double clipped_share = 0;     ///< of readings that stand at the end of the range
  std::vector<double> hz;       ///< of the spectrum
  std::vector<double> density;  ///< power of all axes, (m/s²)²/Hz
  std::vector<Peak> peaks;      ///< the strongest first, at most five
  std::optional<double>
      folded_hz;  ///< where the shaft's turning would show, folded at half the rate; absent if it fits
  std::optional<FilterCost> filter;
  Verdict verdict = Verdict::repeat;
  std::string why;
};

struct VibrationOptions {
  double shaft_hz = 0;   ///< turns of the motor a second, 0 when not known
  double filter_hz = 0;  ///< a low-pass to be judged, 0 for none
};

/// Welch's method: Hann windows of a second, half over each other; the means taken out. Needs two seconds at an even
/// rate of 20 Hz or more. Good: below 3 m/s² rms; usable: below 8 (common practice); readings at the end of the range
/// are never good. On the bench without a propeller its imbalance is missing.
Vibration vibration_of(const Recording& recording, const VibrationOptions& options = {});

}  // namespace rigging
