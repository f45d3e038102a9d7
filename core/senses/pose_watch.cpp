#include "senses/pose_watch.h"

#include <cmath>

namespace rigging {
namespace {

/// A hand that holds still stays within these (common practice): readings of noise and tremor, m/s² and °/s.
constexpr double still_force = 0.7, still_rate = 9;
constexpr double smoothing = 0.1;  ///< of the running mean that tremor is taken out with
constexpr int off_in_row = 4;      ///< so many readings beyond end the stretch: a single spike does not
constexpr double gap_s = 0.3;

}  // namespace

void PoseWatch::begin(const MotionSample& s) {
  from_s_ = s.t_s;
  force_sum_ = rate_sum_ = {0, 0, 0};
  squares_ = 0;
  count_ = 0;
  off_ = 0;
  first_ = smooth_ = s.force_m_s2;
}

void PoseWatch::feed(const MotionSample& s) {
  if (!any_ || s.t_s < last_t_s_ || s.t_s - last_t_s_ > gap_s) {
    begin(s);
    any_ = true;
  }
  last_t_s_ = s.t_s;
  const bool off = (s.force_m_s2 - smooth_).norm() > 3 * still_force || s.rate_deg_s.norm() > still_rate;
  if (off) {
    if (++off_ < off_in_row) return;
    moving_ = true;
    return begin(s);
  }
  off_ = 0;
  smooth_ += smoothing * (s.force_m_s2 - smooth_);
  // Crept away, however slowly: it begins again from where it is now.
  if ((smooth_ - first_).norm() > still_force) {
    const Point now = smooth_;
    begin(s);
    first_ = smooth_ = now;
    return;
  }
  force_sum_ += s.force_m_s2;
  rate_sum_ += s.rate_deg_s;
  squares_ += s.force_m_s2.squaredNorm();
  ++count_;
  if (still_s() > pose_held_s / 2) moving_ = false;
}

double PoseWatch::still_s() const { return any_ && off_ == 0 ? last_t_s_ - from_s_ : 0; }

bool PoseWatch::still() const { return count_ >= 10 && still_s() >= pose_held_s; }

Point PoseWatch::force() const { return count_ ? Point(force_sum_ / static_cast<double>(count_)) : Point(0, 0, 0); }

Point PoseWatch::rate() const { return count_ ? Point(rate_sum_ / static_cast<double>(count_)) : Point(0, 0, 0); }

double PoseWatch::spread() const {
  if (count_ < 2) return 0;
  const double n = static_cast<double>(count_);
  return std::sqrt(std::max(0.0, squares_ / n - force().squaredNorm()) / 3);
}

}  // namespace rigging
