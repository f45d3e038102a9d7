#pragma once

#include <optional>
#include <vector>

#include "base/described.h"
#include "base/unknown_members.h"
#include "rig/names.h"

namespace rigging {

/// One reading at the trailing edge.
struct ThrowReading {
  double pulse_us = 1500;
  double up_deg = 0;  ///< trailing edge up (rudder: right) positive
  UnknownMembers unknown_members;
  bool operator==(const ThrowReading&) const = default;
};

/// Linkage of one surface from servo arm to horn, in one plane. Servo ahead of the hinge; heights are counted toward
/// the side of the horn.
struct Linkage {
  SurfaceName surface;
  double arm_m = 0.012, rod_m = 0.1, horn_m = 0.014;
  double servo_travel_deg = 45;  ///< for 500 µs
  double arm_deg = 0;            ///< of the arm at 1500 µs from square to the chord, toward the hinge positive
  double horn_deg = 0;           ///< the same of the horn with the surface neutral, away from the servo positive
  double drop_m = 0;             ///< by how much the servo's axis lies further to the horn's side than the hinge
  std::optional<double>
      base_m;  ///< servo axis to hinge along the chord; absent: such that the surface is neutral at 1500 µs
  bool push_lifts =
      true;  ///< pushing the rod lifts the trailing edge (horn below), or moves a rudder's right (horn on the left)
  bool crossed = false;                           ///< the arm stands to the other side than the horn
  std::vector<double> arm_holes_m, horn_holes_m;  ///< what there is to choose from
  double clevis_pitch_m = 0.0004;
  double spline_tooth_deg = 14.4;                    ///< of the servo's output shaft: 25 teeth
  std::optional<double> chord_m;                     ///< hinge to trailing edge where the throw is measured
  std::optional<double> want_up_deg, want_down_deg;  ///< at full deflection
  /// Where it sat in straight and level flight: wanted at the centre; absent: flush.
  std::optional<double> want_neutral_deg;
  std::optional<double> play_m;  ///< at the trailing edge
  std::vector<ThrowReading> readings;
  UnknownMembers unknown_members;
  bool operator==(const Linkage&) const = default;
};

/// The tow release of a glider: a servo on the motor's output that pulls a pin out of a loop.
struct Release {
  double arm_m = 0.012;          ///< servo axis to the hole that the wire sits in
  double servo_travel_deg = 45;  ///< for 500 µs
  double arm_deg = 0;            ///< of the arm at 1500 µs from square to the wire, away from the pin positive
  double pin_m = 0.008;          ///< of the pin inside the loop while it is latched
  std::optional<double> pull_n;  ///< most that the line pulls in tow
  double friction = 0.3;         ///< of the pin in its guides
  UnknownMembers unknown_members;
  bool operator==(const Release&) const = default;
};

template <>
const Members& Described<Release>::members();
template <>
const Members& Described<ThrowReading>::members();
template <>
const Members& Described<Linkage>::members();

}  // namespace rigging
