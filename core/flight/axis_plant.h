#pragma once

#include <array>

#include "flight/aeroplane.h"
#include "flight/loop.h"

/// What one axis of the aeroplane does for its command, at one speed.
namespace rigging {

/// How full command on an axis moves its surfaces.
struct AxisControl {
  double throw_rad = 0;  ///< mean of the surfaces that serve it, both ways; 0: nothing serves it
  /// Moment coefficients of the axis itself per radian of that mean throw, positive when it works the right way; the
  /// share of the band that belongs to them.
  double effect = 0, least = 1, most = 1;
  double lift = 0;              ///< what pitching adds to the lift, per radian
  double turn = 0;              ///< what rolling turns the nose to the same side, coefficient per radian
  bool by_motors = false;       ///< a pair of motors steers as well, which is not counted
  bool roll_by_rudder = false;  ///< nothing but rudders serves roll: it rolls by the dihedral
  bool operator==(const AxisControl&) const = default;
};
std::array<AxisControl, 3> axis_controls(const Aeroplane& aeroplane, const SurfacesReport& surfaces);

/// Factors on what is uncertain, each 1 in the middle of its band.
struct Doubt {
  double damping = 1, stiffness = 1, effect = 1, inertia = 1;
};

/// The aeroplane with these factors on its damping, stiffness, surfaces and inertia, about all axes.
Aeroplane doubted(Aeroplane aeroplane, const Doubt& doubt);

/// Body rate for the mean throw of the axis, rad/s per rad, edges moved the way the command asks:
/// - roll: p' = Lp·p + Lδ·δ (Nelson, ch. 5, pure roll); by rudders alone sideslip, roll and yaw rate together without
///   the weight's part, whose characteristic cubic is split into a pair and a single root;
/// - pitch: short period (ch. 4), angle of attack and pitch rate at constant speed;
/// - yaw: Dutch roll (ch. 5), sideslip and yaw rate without rolling.
/// `m_s` above 0. Control power goes with the square of the speed, damping with the speed.
RatePlant plant_of(const Aeroplane& aeroplane, const AxisControl& control, Axis axis, double m_s,
                   const Doubt& doubt = {});

/// The bands of the derivatives that make the plant of this axis, as factors: least and most.
struct DoubtBand {
  Doubt least, most;
};
DoubtBand doubts_of(const Aeroplane& aeroplane, const AxisControl& control, Axis axis);

}  // namespace rigging
