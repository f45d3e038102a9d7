#pragma once

#include <array>
#include <string>
#include <vector>

#include "feel/gain_scale.h"
#include "feel/margins.h"
#include "reports/reports.h"

/// How hard may it correct? The aeroplane, the loops of its axes, and where they begin to shake.
namespace rigging {

/// One axis with what corrects it.
struct AxisFeel {
  Axis axis = Axis::roll;
  std::string why_not;  ///< why nothing can be said of it; empty when it can
  AxisControl control;
  SignalPath path;
  std::vector<MarginPoint> rate;   ///< against turning alone
  std::vector<MarginPoint> level;  ///< while it levels as well; empty where it does not
  std::optional<double> place;     ///< as it is set, 0 to 1
  double gain_s = 0;               ///< what that makes, or what the linkage gives; 0 where nothing is set
  /// Speed from which the setting shakes: expected, and where one in twenty would already; absent: not up to the dive.
  std::optional<double> shakes_from_m_s, may_shake_from_m_s;
  /// Largest gain that is calm at the fastest speed in level flight, and its place (over 1: even at most).
  double calm_gain_s = 0, calm_place = 0;
  /// Gain at which it is expected to begin to shake there, and at which frequency.
  double shakes_gain_s = 0, shakes_hz = 0;
  /// Rate that full command asks for at cruise speed, degrees a second, by its throw alone: where the surfaces' push
  /// and the damping agree (Nelson, ch. 4 and 5). 0: nothing holds against it, or nothing is known.
  double full_rate_deg_s = 0;
  /// Share of the throw that the stick gives by itself while the board corrects (feed forward), 0 to 1.
  double stick_share = 1;
  /// Rate that full stick reaches in rate mode at a speed, degrees a second: where stick, correction and damping
  /// agree, q = S·s·throw/(1 + k·S) with S the steady rate by angle of the surface. In manual k is 0 and s is 1.
  double stick_rate_deg_s(const Aeroplane& aeroplane, double m_s, bool manual) const;
  /// Of pitch: the rate at which the wing carries all it can at that speed, (n − 1)·g/V with n = (V/stall)². Beyond it
  /// more throw turns no faster: it stalls.
  std::optional<double> stall_rate_deg_s;

  bool known() const { return why_not.empty(); }
  /// The curve of the mode that is harder to keep calm.
  const std::vector<MarginPoint>& stricter() const { return level.empty() ? rate : level; }
};

struct FeelReport {
  std::string missing;  ///< what has to be known first, at station airframe; the rest is empty then
  Aeroplane aeroplane;
  double fast_m_s = 0;         ///< fastest level flight
  double cruise_throttle = 0;  ///< 0 to 1
  std::array<AxisFeel, 3> axes;

  const AxisFeel& of(Axis axis) const { return axes[static_cast<std::size_t>(index_of(axis))]; }
};

/// Some 20 to 30 ms: made on a worker.
FeelReport analyze_feel(const Reports& reports);

/// The curve at a speed, straight lines between its points.
MarginPoint margin_at(const std::vector<MarginPoint>& curve, double m_s);

/// What the class makes of a gain at a speed: 1, or less the faster it flies, where airspeed makes it smaller.
double follows_speed(const ControllerClass& controller, double m_s, double cruise_m_s);
/// The same for the throttle, 0 to 1: 1 up to that of cruise, then straight down to a half, where throttle makes it
/// smaller. With the throttle closed a dive has all of it, which is what the margins count on.
double follows_throttle(const ControllerClass& controller, double throttle, double cruise_throttle);

}  // namespace rigging
