#pragma once

#include "edit/edit.h"

namespace rigging {

/// Turns an output round, with every command on it.
Result<Edit> reverse(const Rig& rig, const std::string& output);
/// Changes the sign of one command's weight on an output.
Result<Edit> flip_weight(const Rig& rig, const std::string& output, Axis axis);

std::vector<EditEntry> surfaces_edits();

}  // namespace rigging
