#pragma once

#include "airframe/airframe.h"
#include "catalogue/catalogue.h"
#include "rig/rig.h"
#include "surfaces/linkage.h"

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

/// Pulse at a level of an output, −1 (low end) over 0 (centre) to 1 (high end); neither mix nor reversal have a say.
double output_pulse_us(const Output& output, double level);

/// Pulse of one output for a command. Servo outputs: centre plus the asked share of the way to the end; outputs that
/// answer throttle: from low to high. Errors cannot occur: a rig's ends enclose its centre.
OutputState mixed(const Output& output, const Command& command);

/// The command after sharing: what is left of it when some servo output is asked for more than it can give.
/// `each_stops` leaves it as it is. The others shrink roll, pitch and yaw alike, or all but roll, or all but pitch,
/// until every servo output can follow.
Command shared(const std::vector<Output>& outputs, const Command& command, Saturation sharing);

/// How far full sticks together bring a servo output, as a level, 0 to 1.
double stick_reach(const Output& output);
/// The sticks that bring one servo output to a level (as of `output_pulse_us`) in manual, for classes that can't drive
/// an output alone: as few sticks as will do, the one with most say first. Errors: an output of a motor; sticks that
/// can't bring it there, with the pulse that full sticks give.
Result<Command> sticks_for(const Rig& rig, const Output& output, double level);
/// "Hold the roll stick full right and the pitch stick 40 % back"; "Let go of the sticks" for none.
std::string sticks_label(const Command& command);

/// What of an output this class lets the builder set; all of it without a class.
OutputSettings settable(const ControllerClass* controller);

/// What an output's pulses make of a surface, by its linkage as measured or else by a usual one.
struct Travel {
  double up_deg = 0, down_deg = 0;  ///< at the ends, both positive when the neutral lies between
  double up_m = 0, down_m = 0;      ///< the same at the trailing edge, as a ruler reads it
  double neutral_deg = 0;           ///< at the centre
  double differential = 1;          ///< up over down
  double deg_per_us = 0;            ///< at the centre
  bool measured = false;
  bool operator==(const Travel&) const = default;
};

/// How much of its travel one surface uses for full command on one axis, and where stick combinations saturate.
struct SurfaceAnswer {
  Surface surface;
  std::string output;
  std::array<double, 3> share{};  ///< per axis, positive as in `required_direction`
  /// Trailing edge up (rudder: right) positive, degrees, for full command to the positive and the negative side.
  std::array<double, 3> positive_deg{}, negative_deg{};
  double most_up_deg = 0, most_down_deg = 0;  ///< at the ends of its pulses, both positive
  bool in_degrees = false;                    ///< a linkage is known; else 25° of travel is assumed
  /// Largest sum of absolute weights, flap among them: over 1 some combinations of sticks and flap saturate.
  double worst_sum = 0;
  std::vector<LinkageProblem> problems;  ///< of its linkage, within the pulses that it is given
  std::string linkage_error;             ///< when the linkage can't be built at all
  std::optional<Travel> travel;          ///< nothing for motors, and when the linkage can't be built
  std::array<double, 4> throw_deg{};     ///< for each full `MixCommand` in its order, as `throw_for`
  bool operator==(const SurfaceAnswer&) const = default;
};

/// How much room a stick position leaves to the stabilizer.
struct ControlMargin {
  static constexpr int steps = 20;  ///< cells run from −1 to 1 in both directions
  /// Largest correction, as a share of full command on all axes together, that no output cuts: 0 where the sticks alone
  /// saturate.
  std::array<std::array<double, steps + 1>, steps + 1> left{};  ///< [pitch][roll]
  double at(int roll, int pitch) const { return left[static_cast<std::size_t>(pitch)][static_cast<std::size_t>(roll)]; }
  bool operator==(const ControlMargin&) const = default;
};
/// `held`: what is held beside the two sticks, yaw and flap; full yaw counts to the side that leaves less.
ControlMargin control_margin(const Rig& rig, const Command& held = {});
/// Share of all roll and pitch stick positions at which some output is asked for more than it can give, 0 to 1, with
/// yaw and flap of `held`.
double saturated_share(const Rig& rig, const Command& held = {});

struct SurfacesReport {
  std::vector<SurfaceAnswer> answers;
  double saturated_share = 0;    ///< with nothing held beside roll and pitch
  std::vector<std::string> mix;  ///< the mix in the builder's words, one sentence each

  const SurfaceAnswer* answer(Surface surface) const;
  bool operator==(const SurfacesReport&) const = default;
};

SurfacesReport analyze_surfaces(const Rig& rig);

/// Where a surface stands for what its output is asked, −1 to 1: degrees, trailing edge up (rudder: right) positive, on
/// an aircraft built right. Without a linkage, or where it can't be built, 25° of travel is assumed. Motors give −1
/// to 1.
double deflection_deg(const Rig& rig, const Output& output, Surface surface, double asked);

/// Deflection of every surface for a command, in degrees with the trailing edge up (rudder: right) positive, sharing
/// included.
std::vector<std::pair<Surface, double>> intended_deflections(const Rig& rig, const Command& command);

/// What a weight of the mix belongs to.
enum class MixCommand { roll, pitch, yaw, flap };
double Mix::*weight_of(MixCommand command);
/// Degrees that the surface moves for the full command, the mean of both ways (a flap goes one way); positive. 25° of
/// travel without a linkage.
double throw_for(const Rig& rig, const Output& output, Surface surface, MixCommand command);
/// The rig with weights that give this many degrees for the full command; the other half of a pair gets the same
/// weight. Signs stay, and a weight that was zero gets the right one. Errors: no servo output, a command that the
/// surface can't serve, less than 0 or more than its travel.
Result<Rig> with_throw(Rig rig, Surface surface, MixCommand command, double degrees);

/// The rig with this weight of the command on an output, 1 being full travel, and on the other half of its pair where
/// that gives as much of it: meant to differ, they are left so. Error: no such output.
Result<Rig> with_share(Rig rig, const std::string& output, MixCommand command, double weight);

/// The rig with the differential such that the down-going surface of the pair gets this share less of the roll command,
/// 0 to 1.
Rig with_differential(Rig rig, double less_down);
double differential_of(const Rig& rig);

}  // namespace rigging

namespace rigging {
template <>
struct Names<MixCommand> {
  static constexpr std::array<std::pair<MixCommand, std::string_view>, 4> list{
      {{MixCommand::roll, "roll"}, {MixCommand::pitch, "pitch"}, {MixCommand::yaw, "yaw"}, {MixCommand::flap, "flap"}}};
};
}  // namespace rigging
