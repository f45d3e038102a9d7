#pragma once

#include <cstdint>
#include <random>

#include "flight/dynamics.h"

namespace rigging {

/// Dryden turbulence of MIL-F-8785C, low altitude (below 300 m): intensities from the wind at 6 m above ground, scale
/// lengths from the height; along, to the side and vertical, and the turning of the air about the axes of a wing of
/// this span. The same seed gives the same air. Body axes; at one airspeed.
class Turbulence {
 public:
  /// `wind_m_s` at 6 m, 0 to 30; `height_m` 3 to 300 (taken to the nearer end); `airspeed_m_s` over 0.
  Turbulence(std::uint32_t seed, double wind_m_s, double height_m, double airspeed_m_s, double span_m);

  /// Goes on by `dt` seconds, up to a hundredth, and adds itself to the air.
  void step(double dt, Air& air);

  double deviation_along() const { return sigma_u_; }
  double deviation_vertical() const { return sigma_w_; }
  double length_along_m() const { return length_u_; }
  double length_vertical_m() const { return length_w_; }

 private:
  std::mt19937 random_;
  std::normal_distribution<double> normal_;
  double speed_, span_;
  double sigma_u_, sigma_w_, length_u_, length_w_, sigma_p_;
  double u_ = 0, v1_ = 0, v2_ = 0, w1_ = 0, w2_ = 0, p_ = 0, q_ = 0, r_ = 0;
};

}  // namespace rigging
