#pragma once

#include "edit/edit.h"

namespace rigging {

/// A loose end that was put back as it should be. Error: none of that name.
Result<Edit> close_loose_end(const Rig& rig, const std::string& id);

std::vector<EditEntry> proof_edits();

}  // namespace rigging
