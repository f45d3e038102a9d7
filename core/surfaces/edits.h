#pragma once

#include "edit/edit.h"
#include "surfaces/linkage.h"

namespace rigging {

/// Turns an output round, with every command on it.
Result<Edit> reverse(const Rig& rig, const std::string& output);
/// Changes the sign of one command's weight on an output.
Result<Edit> flip_weight(const Rig& rig, const std::string& output, Axis axis);

/// The linkage of a surface with what a gauge read of it.
Edit throws_read(const Rig& rig, Surface surface, std::vector<ThrowReading> readings);
/// After hands have set the servo arm and the rod as the centring says; the readings are forgotten.
Edit arm_and_rod_set(const Rig& rig, Surface surface, const Centring& done);
/// Direction, centre and ends of the surface's output as the centring says; the readings are forgotten. The surface
/// must have an output.
Edit centre_and_ends_set(const Rig& rig, Surface surface, const Centring& wanted);

std::vector<EditEntry> surfaces_edits();

}  // namespace rigging
