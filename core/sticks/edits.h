#pragma once

#include "edit/edit.h"

namespace rigging {

/// The controller takes the ends and centres that were read for its own; of the four sticks, as far as they read the
/// right way round.
Result<Edit> learn_ends(const Rig& rig);

std::vector<EditEntry> sticks_edits();

}  // namespace rigging
