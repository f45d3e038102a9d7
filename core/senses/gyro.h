#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "senses/recording.h"
#include "senses/verdict.h"

/// What a gyro says while it is held still: where its zero is, how it rustles and wanders, and whether it was moved.
namespace rigging {

/// Overlapping Allan deviation, °/s, of averages over `tau_s` seconds (IEEE Std 952, annex C).
struct AllanPoint {
  double tau_s = 0;
  double deviation_deg_s = 0;
};
/// Of one axis at an even rate; a few averaging times an octave, up to a quarter of the length.
std::vector<AllanPoint> allan_deviation(std::span<const double> readings, double rate_hz);

/// A stretch in which it was turned.
struct Moved {
  double from_s = 0, to_s = 0;
  double most_deg_s = 0;  ///< away from where it rests
};

struct GyroOptions {
  /// The readings are those after the board took its zero: what is left of it tells of movement meanwhile.
  bool zeroed = false;
  std::vector<double> temperature_c;  ///< of each reading, or empty
};

struct GyroReport {
  double rate_hz = 0, still_s = 0;  ///< of the longest still stretch, which everything else is of
  Point zero_deg_s = {0, 0, 0};     ///< mean
  /// One standard deviation of that mean as the zero from now on: of the noise, and of the wander as far as the stretch
  /// is long enough to show it.
  Point zero_error_deg_s = {0, 0, 0};
  Point noise_deg_s = {0, 0, 0};           ///< of single readings
  Point density = {0, 0, 0};               ///< white noise, °/s/√Hz
  std::vector<AllanPoint> allan;           ///< of the worst axis
  std::optional<double> wander_deg_s;      ///< least Allan deviation of the worst axis; absent below a minute
  std::optional<Point> drift_deg_s_per_c;  ///< where the temperature changed by three degrees or more
  std::vector<Moved> moved;
  Verdict verdict = Verdict::repeat;
  std::string why;
};

/// Good: still for three seconds or more and, zeroed, within 0.5 °/s; usable: within 1.5 °/s (common practice: what an
/// attitude estimate takes up by itself). A zero beyond that means that it was moved while it looked for it.
GyroReport gyro_of(const Recording& rates_deg_s, const GyroOptions& options = {});

}  // namespace rigging
