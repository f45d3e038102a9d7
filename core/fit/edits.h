#pragma once

#include "edit/edit.h"

namespace rigging {

/// The part is the last of the list, a third of the length behind the nose; a servo gets the first surface without one.
Result<Edit> add_part(const Rig& rig, const Catalogue& catalogue, const std::string& kind);
/// With its place and its leads.
Result<Edit> remove_part(const Rig& rig, const Catalogue& catalogue, const std::string& id);
/// One of the things that only the builder can see (`confirmations`).
Result<Edit> confirm(const Rig& rig, const Catalogue& catalogue, const std::string& word, bool seen);

std::vector<EditEntry> fit_edits();

}  // namespace rigging
