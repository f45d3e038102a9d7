#pragma once

#include <deque>

#include "signal/motion.h"

namespace rigging {

/// Tells from the live readings when the model is held still, and what was read then. Nobody presses a key meanwhile.
/// Each sample costs a few additions.
class PoseWatch {
 public:
  void feed(const MotionSample& sample);
  void reset() { *this = {}; }

  /// Still for long enough that a mean is worth something.
  bool still() const;
  double still_s() const;
  /// The model turns: what was read before the turn is over.
  bool moving() const { return moving_; }
  /// Mean of the still stretch, board axes.
  Point force() const;
  Point rate() const;
  /// Of single readings in the still stretch, m/s².
  double spread() const;
  std::size_t samples() const { return count_; }

 private:
  void begin(const MotionSample& sample);
  double last_t_s_ = 0, from_s_ = 0;
  bool any_ = false, moving_ = false;
  Point force_sum_ = {0, 0, 0}, rate_sum_ = {0, 0, 0}, first_ = {0, 0, 0}, smooth_ = {0, 0, 0};
  double squares_ = 0;
  std::size_t count_ = 0;
  int off_ = 0;
};

/// How long a pose is held until it counts, and how far from another it must be, degrees.
inline constexpr double pose_held_s = 0.8, pose_apart_deg = 20;

}  // namespace rigging
