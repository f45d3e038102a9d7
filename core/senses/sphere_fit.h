#pragma once

#include "senses/ellipsoid.h"
#include "senses/recording.h"

/// The sphere that a sensor's readings should lie on, and the ellipsoid on which they lie: what accelerometer and
/// compass have in common.
namespace rigging {

/// An ellipsoid that was fitted: corrected readings have the length `radius` wherever the sensor points.
struct SphereFit : Ellipsoid {
  double radius = 1;
  double noise = 0;  ///< of the lengths, robust (from the median), in the unit of the readings
  double rms = 0;    ///< of the lengths of those that were used
  std::size_t used = 0;
  std::vector<bool> outlier;
  /// Of offset (3), matrix xx yy zz, xy xz yz; what was usual counts as one more reading of each.
  NineByNine covariance = NineByNine::Zero();

  /// The same with all corrected lengths so many times as long.
  SphereFit scaled(double times) const;
  /// How far the corrected direction may be off at the worst, one standard deviation, degrees, where the corrected
  /// reading points along `direction` (unit length).
  double direction_error_deg(const Point& direction) const;
};

struct SphereFitOptions {
  double radius = 0;  ///< known length; 0: the readings' own, with the volume of the ellipsoid kept
  Usual usual;
  double least_noise = 0;  ///< no reading is taken to be better than this
  double independent = 0;  ///< at most so many readings count for the covariance: neighbours err alike; 0 for all
};

/// Least squares of the lengths (Gauss–Newton on |matrix · (reading − offset)| − radius), with Tukey's weights round a
/// start that half of the readings may spoil (least median over spheres through four of them). Needs four readings that
/// are not alike; with fewer, or all in one place, the result is the usual one and `used` is 0. Linear in the readings.
SphereFit fit_sphere(const Readings& readings, const SphereFitOptions& options);

/// Share of equal parts of the sphere (12 gores by 4 bands of equal height) in which a direction lies.
inline constexpr int gores = 12, bands = 4;
/// 0 to gores · bands − 1, band by band from below (z positive, down) up; `direction` of any length but zero.
std::size_t gore_cell(const Point& direction);

}  // namespace rigging
