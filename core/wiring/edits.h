#pragma once

#include "edit/edit.h"

namespace rigging {

/// Moves the board's end of a lead to another socket. A servo's output goes along with its plug when nothing else hangs
/// on its old socket and the new one is free.
Result<Edit> plug(const Rig& rig, const Catalogue& catalogue, const std::string& lead, const std::string& socket);
/// Every lead and output where the plan puts it.
Result<Edit> plan_all(const Rig& rig, const Catalogue& catalogue);

std::vector<EditEntry> wiring_edits();

}  // namespace rigging
