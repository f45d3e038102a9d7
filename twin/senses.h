#pragma once

#include <random>

#include "catalogue/catalogue.h"
#include "rig/rig.h"
#include "signal/motion.h"

namespace rigging::twin {

/// The sensors of board and compass as they really are: reading = matrix · truth + offset + noise, in their own axes.
struct SensesTruth {
  Eigen::Matrix3d board = Eigen::Matrix3d::Identity(), compass = Eigen::Matrix3d::Identity();  ///< how they sit
  bool has_compass = false;
  Eigen::Matrix3d force = Eigen::Matrix3d::Identity(), iron = Eigen::Matrix3d::Identity();
  Point force_offset = {0, 0, 0}, rate_offset = {0, 0, 0}, field_offset = {0, 0, 0};
  double force_noise = 0.05, rate_noise = 0.08, field_noise = 0.35;  ///< m/s², °/s, µT (common practice)
};

/// Sensors without an error but noise, sitting as the rig says.
SensesTruth senses_of(const Rig& rig, const Catalogue& catalogue);
/// Zeros off, scales off, axes not quite square, iron near the compass. The same seed draws the same.
void make_poor(SensesTruth& truth, unsigned seed);

/// What they read over time, a hundred times a second.
class Senses {
 public:
  explicit Senses(SensesTruth truth) : truth_(std::move(truth)) {}

  /// `attitude`: columns are the model's axes in the world (north, east, down). Asleep nothing is read.
  void step(double dt_s, const Eigen::Matrix3d& attitude, bool awake);
  /// Since the last time; the oldest are dropped where nobody reads.
  std::vector<MotionSample> take_samples() { return std::exchange(samples_, {}); }

 private:
  Point noise(double sigma);
  SensesTruth truth_;
  Eigen::Matrix3d before_ = Eigen::Matrix3d::Identity();
  double now_s_ = 0, next_s_ = 0, since_s_ = 0;
  std::mt19937 random_{1};
  std::vector<MotionSample> samples_;
};

}  // namespace rigging::twin
