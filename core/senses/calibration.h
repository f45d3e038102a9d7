#pragma once

#include <string>
#include <vector>

#include "senses/sphere_fit.h"
#include "senses/verdict.h"

/// Accelerometer and compass: offset and matrix from readings in many directions, and how far they can be trusted.
namespace rigging {

struct Calibration : Ellipsoid {
  double radius = 0;        ///< length of what is corrected: m/s² or µT
  double residual_rms = 0;  ///< of the lengths that were used
  std::size_t samples_used = 0, outliers = 0;
  double coverage = 0;  ///< 0 to 1: share of the six faces (accelerometer) or of the sphere (compass) that was seen
  Verdict verdict = Verdict::repeat;
  std::vector<std::string> why;    ///< sentences, what weighs most first
  Point offset_error = {0, 0, 0};  ///< one standard deviation
  double direction_error_deg = 0;  ///< of what is corrected, in the worst direction
  std::vector<StillPose> poses;    ///< of an accelerometer
  std::vector<bool> bad;           ///< of each pose (accelerometer) or reading (compass)

  /// All sentences in a row.
  std::string reasons() const {
    std::string all;
    for (const std::string& w : why) all += (all.empty() ? "" : " ") + w;
    return all;
  }
};

/// `gravity`: of the place, m/s². Cross terms are taken for 0 within 1.5 % beforehand; what the poses tell of them goes
/// by their covariance, and what they do not is said. Poses whose length does not fit the rest are left out and said,
/// and so is a zero that drifts meanwhile. Six unknowns need six directions: with fewer nothing is fitted, verdict
/// repeat.
Calibration calibrate_accelerometer(const Recording& recording, double gravity);
/// The same from poses that were found already.
Calibration calibrate_poses(std::vector<StillPose> poses, double gravity);

/// `field_ut`: total field of the place, or 0 when not known: then the readings keep their mean strength. An ellipsoid
/// is fitted (hard iron: offset, soft iron: matrix) to all readings that agree with half of the others; directions that
/// nobody turned it through stay at what is usual, and that is said.
Calibration calibrate_compass(const Recording& recording, double field_ut = 0);
/// How sure directions are that a fit of a compass gives, and through how much of the sphere it was turned.
struct CompassReach {
  double direction_error_deg = 0;  ///< of the worst direction, one standard deviation
  /// 0 to 1: share of the sphere's equal parts in which a reading lies, as far as the fit knows where they lie: what
  /// was hardly turned lies on a ball of its own noise, or of any size.
  double coverage = 0;
  bool known = false;  ///< where readings lie on the sphere is known well enough to show it
};
CompassReach reach_of(const SphereFit& fit, const Readings& readings);

/// The ellipsoid alone, of at most `most` of the readings: while the model is still being turned.
SphereFit fit_compass(const Readings& readings, std::size_t most);

}  // namespace rigging
