#pragma once

#include "rig/rig.h"

/// Mixing: from commands to pulses and to how far each surface moves.
namespace rigging {

/// Full deflection is ±1 on each stick; throttle runs from 0 (closed) to 1.
struct Command {
  double roll = 0, pitch = 0, yaw = 0, throttle = 0, flap = 0;
};

struct OutputState {
  std::string output;
  double asked = 0;     ///< sum of weights times commands; beyond ±1 (throttle outputs: outside 0…1) it saturates
  double pulse_us = 0;  ///< what the controller sends, reversal, centre and ends included
  bool saturated = false;
};

/// Pulse of one output for a command. Servo outputs: centre plus the asked share of the way to the end; outputs that answer throttle:
/// from low to high. Errors cannot occur: a rig's ends enclose its centre.
OutputState mixed(const Output& output, const Command& command);

/// How much of its travel one surface uses for full command on one axis, and where stick combinations saturate.
struct SurfaceAnswer {
  Surface surface;
  std::string output;
  std::array<double, 3> share{};        ///< per axis, positive as in `required_direction`
  std::array<double, 3> deflection_deg{};  ///< the same in degrees; only if a linkage is known
  bool in_degrees = false;
  /// Largest sum of absolute shares: over 1 some stick combinations saturate.
  double worst_sum = 0;
};

struct SurfacesReport {
  std::vector<SurfaceAnswer> answers;
  /// Share of all roll and pitch stick positions at which some output saturates, 0 to 1 (yaw at rest).
  double saturated_share = 0;
};

SurfacesReport analyze_surfaces(const Rig& rig);

/// Surface angle at the end of the pulse range by the linkage: servo angle turned over the arm ratio (small offsets left out), degrees.
double full_deflection_deg(const Linkage& linkage);

/// Deflection of every surface for a command, in degrees with the trailing edge up (rudder: right) positive, on an aircraft built
/// right: 25° of travel is assumed where no linkage is known. Motors give −1 to 1.
std::vector<std::pair<Surface, double>> intended_deflections(const Rig& rig, const Command& command);

}  // namespace rigging
