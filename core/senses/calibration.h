#pragma once

#include <string>
#include <vector>

#include "base/result.h"
#include "base/words.h"
#include "senses/sphere_fit.h"

/// Accelerometer and compass: offset and matrix from readings in many directions, and how far they can be trusted.
namespace rigging {

enum class Verdict { good, usable, repeat };

template <>
struct Words<Verdict> {
  static constexpr std::array<std::pair<Verdict, std::string_view>, 3> list{
      {{Verdict::good, "good"}, {Verdict::usable, "usable"}, {Verdict::repeat, "repeat"}}};
};

/// Readings over time, the sensor's own axes.
struct Recording {
  std::vector<double> t_s;
  Readings readings;
  std::size_t size() const { return t_s.size(); }
};

/// Columns t_s and the three named, in any order among others. Errors: a missing column, no rows, a time that goes
/// backward, readings of another unit where `usual_length` tells (0: nothing tells).
Result<Recording> parse_recording(std::string_view text, const std::string& name,
                                  const std::array<std::string, 3>& columns, double usual_length = 0);

/// A stretch in which the sensor was held still.
struct StillPose {
  std::size_t from = 0, to = 0;  ///< readings; `to` is one past the last
  Point mean = {0, 0, 0};
  double spread = 0;  ///< of single readings, the unit of the readings
};

/// Stretches of at least half a second (or single readings, where they are a quarter of a second apart or more) whose
/// spread is near the least that occurs, and which do not creep. Nobody presses a key while holding the model.
std::vector<StillPose> still_poses(const Recording& recording);

struct Calibration {
  Point offset = {0, 0, 0};
  Eigen::Matrix3d matrix = Eigen::Matrix3d::Identity();
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

  Point corrected(const Point& reading) const { return matrix * (reading - offset); }
};

/// `gravity`: of the place, m/s². Below nine still directions that tell cross terms apart these stay at nought. Poses
/// whose length does not fit the rest are left out and said. Nothing is fitted to fewer than six directions: verdict
/// repeat.
Calibration calibrate_accelerometer(const Recording& recording, double gravity);
/// The same from poses that were found already.
Calibration calibrate_poses(std::vector<StillPose> poses, double gravity);

/// `field_ut`: total field of the place, or 0 when not known: then the readings keep their mean strength. An ellipsoid
/// is fitted (hard iron: offset, soft iron: matrix) to all readings that agree with half of the others; directions that
/// nobody turned it through stay at what is usual, and that is said.
Calibration calibrate_compass(const Recording& recording, double field_ut = 0);

}  // namespace rigging
