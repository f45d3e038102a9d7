#pragma once

#include "base/figure.h"
#include "rig/airframe.h"

namespace rigging {

/// D = q·parasite + induced·W² / q, with q the dynamic pressure and W the lift, in SI units.
struct Drag {
  double parasite_m2 = 0, parasite_least_m2 = 0, parasite_most_m2 = 0;  ///< drag area without lift
  double induced_per_m2 = 0;                                            ///< 1 / (π·e·b²), e = 0.8
  std::string working;                                                  ///< with the parts of it

  /// Newton, for a speed in m/s (over 0) and a mass in kg; density of ISO 2533 at sea level.
  double at(double m_s, double mass_kg, double parasite) const;
};

/// Drag from geometry at about this speed: turbulent skin friction 0.074 / Re^0.2 (Prandtl) on the wetted area of wing,
/// tail, foreplane, fin and body with the form factors of Hoerner (Fluid-Dynamic Drag), a tenth for interference, and
/// 1.4 times all that for what stands out: gear, camera, antennas, horns, gaps. That last factor is from memory and
/// wide: 1.1 for a clean glider, 2 with everything in the air.
Drag drag_of(const Airframe& airframe, double m_s);

/// Lift coefficient of the whole aircraft before it stalls, with its band, by kind (common practice): reflexed wings
/// 0.75 to 0.95, canards, whose foreplane stalls first, 0.8 to 1.1, others 0.9 to 1.3.
struct HighestLift {
  double value = 1.1, least = 0.9, most = 1.3;
};
HighestLift highest_lift(AirframeKind kind);

/// Level flight as flown, or at 1.6 times the stall speed, m/s (common practice, 1.4 to 1.9); nothing without either.
std::optional<Figure> stall_speed(const Airframe& airframe);
std::optional<Figure> cruise_speed(const Airframe& airframe);

}  // namespace rigging
