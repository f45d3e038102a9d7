#pragma once

#include <array>
#include <vector>

#include "airframe/drag.h"
#include "flight/aeroplane.h"

/// The aeroplane in the air: six degrees of freedom. Body axes x forward, y right, z down; places north, east, down.
namespace rigging {

/// Where it is and how it moves. Plain numbers: millions of steps are made.
struct Motion {
  double north = 0, east = 0, down = 0;   ///< m
  double u = 0, v = 0, w = 0;             ///< over the ground, in body axes, m/s
  double q0 = 1, q1 = 0, q2 = 0, q3 = 0;  ///< from body to earth, of length 1
  double p = 0, q = 0, r = 0;             ///< rad/s

  double bank() const;     ///< rad, right wing down positive, −π to π
  double nose_up() const;  ///< rad, −π/2 to π/2
  double heading() const;  ///< rad from north, clockwise
  double height() const { return -down; }
  double climb_m_s() const;  ///< over the ground, up positive
  static Motion straight(double m_s, double height_m, double bank_rad = 0, double nose_up_rad = 0,
                         double heading_rad = 0);
};

/// Speeds of the air that it flies in: steady over ground in earth axes, and a gust in body axes that counts from where
/// the air comes, with turning air (Dryden's rotary gusts).
struct Air {
  double north = 0, east = 0, down = 0;  ///< m/s, that the air moves
  double u = 0, v = 0, w = 0;            ///< the same in body axes
  double p = 0, q = 0, r = 0;            ///< rad/s
};

/// What the surfaces do together, as coefficients: the sum of every surface's effect and angle.
struct Deflection {
  double lift = 0, side = 0, roll = 0, pitch = 0, yaw = 0;

  /// One surface more, at an angle, rad, trailing edge up (rudder: right).
  void add(const ControlEffect& e, double angle) {
    lift += angle * e.lift, side += angle * e.side, roll += angle * e.roll, pitch += angle * e.pitch,
        yaw += angle * e.yaw;
  }
};

struct Engine {
  double static_n = 0;   ///< with full throttle, standing
  double free_m_s = 20;  ///< airspeed at which the propeller stops pulling, at full throttle

  /// Falls with the square of the airspeed over the free speed, rises with the square of the throttle (from memory).
  double thrust_n(double throttle, double airspeed) const;
};

/// Level flight at an airspeed.
struct LevelFlight {
  double alpha = 0;     ///< rad, above that of cruise
  double throttle = 0;  ///< 0 to 1
  double pitch = 0;     ///< moment coefficient by which it is trimmed for it
  bool carried = true;  ///< the wing carries it that slow
  bool pulled = true;   ///< the motor keeps it that fast
};

struct Incidence {
  double alpha = 0, beta = 0;  ///< rad
  double airspeed = 0;         ///< m/s
};

/// Forces and moments of an aeroplane, with all that does not change worked out once.
///
/// Lift is linear up to the stall and goes over smoothly to that of a plate (Beard and McLain, Small Unmanned Aircraft,
/// ch. 4): plausible, not more. Drag by the parabolic polar and a plate's. The balance of the wing's own moment is set
/// such that it flies level at cruise with surfaces neutral. Without propeller torque and wash.
class FlightModel {
 public:
  FlightModel(const Aeroplane& aeroplane, const Drag& drag, const Engine& engine);

  const Aeroplane& aeroplane() const { return aeroplane_; }
  double cruise_throttle() const { return cruise_throttle_; }
  /// `m_s` above 0. Where the wing does not carry it or the motor does not pull, as near as it comes.
  LevelFlight level_at(double m_s) const;

  Incidence incidence(const Motion& m, const Air& air) const;
  double lift_coefficient(double alpha) const;
  double drag_coefficient(double alpha) const;

  /// Changes per second of everything that moves: forward, then turning; places and attitude follow from them.
  Motion rates(const Motion& m, const Deflection& surfaces, double throttle, const Air& air) const;
  /// One step of the classical fourth order, `dt` up to a hundredth of a second; surfaces and air stand still in it.
  void step(Motion& m, const Deflection& surfaces, double throttle, const Air& air, double dt) const;
  /// Kinetic and potential energy, J.
  double energy(const Motion& m) const;

 private:
  struct Polar {
    double lift = 0, drag = 0;
  };
  Polar polar(double alpha, double sine, double cosine) const;

  Aeroplane aeroplane_;
  Engine engine_;
  double zero_lift_alpha_ = 0, zero_sin_ = 0, zero_cos_ = 1;  ///< of the way from no lift to cruise
  double lift_zero_ = 0, lift_alpha_ = 0, lift_q_ = 0;
  double drag_zero_ = 0, drag_lift_ = 0;
  double stall_alpha_ = 0.25, blunt_ = 40;
  double pitch_alpha_ = 0, pitch_q_ = 0;
  double cruise_throttle_ = 0;
  double inverse_mass_ = 0, ix_ = 0, iy_ = 0, iz_ = 0, ixz_ = 0, gamma_ = 0;
};

}  // namespace rigging
