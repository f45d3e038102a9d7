#pragma once

#include <map>

#include "edit/edit.h"
#include "surfaces/linkage.h"
#include "surfaces/surfaces.h"

namespace rigging {

/// Turns an output round, with every command on it.
Result<Edit> reverse(const Rig& rig, const std::string& output);
/// Turns a command round on every output, as a class does that reverses functions. Errors: no output mixes it, or one
/// mixes it with another command, so that no servo could be right.
Result<Edit> reverse_axis(const Rig& rig, Axis axis);
/// Changes the sign of one command's weight on an output.
Result<Edit> flip_weight(const Rig& rig, const std::string& output, Axis axis);

/// The weight of one command on an output; 1 is full travel on full command.
Result<Edit> set_weight(const Rig& rig, const std::string& output, const std::string& command, double weight);
/// As `set_weight`, for both halves of a pair (`with_share`, whose errors it has).
Result<Edit> set_share(const Rig& rig, const std::string& output, MixCommand command, double weight);
/// Weights such that the full command moves the surface so far (`with_throw`, whose errors it has).
Result<Edit> set_throw(const Rig& rig, Surface surface, MixCommand command, double degrees);
/// The down-going surface of a pair gets so much less of the roll command, 0 to 1.
Result<Edit> set_differential(const Rig& rig, double less_down);

/// The linkage as it was measured; what a gauge read of the one before is forgotten. Errors: a measure outside of the
/// range of its member, lengths that can't be joined.
Result<Edit> measure_linkage(const Rig& rig, Linkage linkage);
/// Which holes there are and how far the surface should go. Error: a measure outside of the range of its member.
Result<Edit> list_holes(const Rig& rig, const Linkage& linkage);
/// Other holes, the rod cut to fit (`with_holes`, whose errors it has).
Result<Edit> use_holes(const Rig& rig, Surface surface, double arm_m, double horn_m);

/// The linkage of a surface with what a gauge read of it.
Edit throws_read(const Rig& rig, Surface surface, std::vector<ThrowReading> readings);
/// After hands have set the servo arm and the rod as the centring says; the readings are forgotten.
Edit arm_and_rod_set(const Rig& rig, Surface surface, const Centring& done);
/// What full command moves the surface on the linkage as read, before a centring is set and after it: degrees, in the
/// order of `MixCommand`; 0 where the output does not mix the command.
struct CommandThrows {
  std::array<double, 4> now_deg{}, then_deg{};
  std::array<double, 4> kept_deg{};  ///< after it, with the weights raised as far as the travel goes
  bool falls() const;                ///< some command loses more than a twentieth of its throw
};
CommandThrows command_throws(const Rig& rig, Surface surface, const Centring& wanted);
/// As `centre_and_ends_set`, with the weights of this output raised so that every command keeps its throw as far as the
/// travel goes. The other half of a pair stays as it is: nobody has read it.
Edit centre_and_ends_set_keeping_throws(const Rig& rig, Surface surface, const Centring& wanted);
/// Direction, centre and ends of the surface's output as the centring says; the readings are forgotten. The surface
/// must have an output.
Edit centre_and_ends_set(const Rig& rig, Surface surface, const Centring& wanted);

/// What a flight trimmed by hand has shown: where each surface sat, degrees (0: flush), and the open share of the
/// throttle at cruise. Errors: no linkage of the surface; a value outside of its range.
struct TrimFlight {
  std::map<Surface, double> sat_deg;
  std::optional<double> cruise_throttle;
};
Result<Edit> trim_flown(const Rig& rig, const TrimFlight& flight);

/// How far the tail halves go for the same roll stick as the ailerons, percent of the ailerons' throw in degrees (25°
/// of travel where a linkage is not known). Nothing without both.
std::optional<double> tail_mix_percent(const Rig& rig);
/// Roll weights of both tail halves such that they go so far. Errors: no tail halves that roll beside ailerons; 0 to
/// 150.
Result<Edit> set_tail_mix(const Rig& rig, double percent);

/// The tow release as it was measured. Error: a measure outside of the range of its member.
Result<Edit> measure_release(const Rig& rig, const Release& release);
/// An output that drives nothing any more. Error: no such output.
Result<Edit> remove_output(const Rig& rig, const std::string& output);

std::vector<EditEntry> surfaces_edits();

}  // namespace rigging
