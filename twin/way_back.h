#pragma once

#include "catalogue/controller_class.h"
#include "flight/dynamics.h"

namespace rigging::twin {

/// The simulated board's own way back: what was set in it decides, whatever the plan says. Told where it is five times
/// a second, as a satellite receiver would.
class WayBack {
 public:
  enum class Doing { by_hand, waits, glides, circles, climbs, comes_home, circles_home, lands };
  struct Steering {
    double bank = 0, nose = 0;  ///< rad, over what it takes for level
    double throttle = 0;
  };

  WayBack(const Rig& set, const ControllerClass& controller, double cruise_m_s, double cruise_throttle,
          bool knows_place);

  /// A step of `dt` seconds; `lost_for_s`: since the last good frame. Where it is by hand the steering is not to be
  /// used.
  Steering step(const Motion& m, double airspeed_m_s, double lost_for_s, double dt);
  Doing doing() const { return doing_; }
  /// It has circled at home for a minute, or shut its motor down.
  bool over() const { return at_home_s_ > 60; }

 private:
  void choose(double lost_for_s);
  void look(const Motion& m, double dt);
  double toward(double course, double airspeed) const;
  double round(double north, double east, double radius_m) const;

  Home plan_;
  double notices_s_, bank_limit_, nose_limit_, cruise_m_s_, cruise_throttle_, return_m_, radius_m_;
  bool acts_, knows_place_;
  Doing doing_ = Doing::by_hand;
  double looked_s_ = 1, north_ = 0, east_ = 0, ground_north_ = 0, ground_east_ = 0;
  double held_m_ = 0, held_north_ = 0, held_east_ = 0, trimmed_ = 0, at_home_s_ = 0;
};

}  // namespace rigging::twin
