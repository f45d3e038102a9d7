#pragma once

#include <algorithm>
#include <cmath>

namespace rigging {

/// A servo with what it moves: of second order, no faster than it can, deaf to the smallest changes, with play behind
/// it. Angles of the surface, any one unit throughout.
class ServoModel {
 public:
  double natural_rad_s = 45, damping = 0.7;
  double most_rate = 8;  ///< a second
  double dead_band = 0;  ///< whole width: it goes where it is told once the difference is larger than half of it
  double play = 0;       ///< whole width, between servo and surface

  /// Goes on by `dt` toward what it was told.
  void step(double told, double dt) {
    if (std::abs(told - heard_) > dead_band / 2) heard_ = told;
    const double push = natural_rad_s * natural_rad_s * (heard_ - at_) - 2 * damping * natural_rad_s * speed_;
    speed_ = std::clamp(speed_ + dt * push, -most_rate, most_rate);
    at_ += dt * speed_;
    surface_ = std::clamp(surface_, at_ - play / 2, at_ + play / 2);
  }
  double servo() const { return at_; }
  double surface() const { return surface_; }

 private:
  double heard_ = 0, at_ = 0, speed_ = 0, surface_ = 0;
};

}  // namespace rigging
