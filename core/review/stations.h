#pragma once

#include "edit/edit.h"
#include "procedure/procedure.h"
#include "review/rules.h"

namespace rigging {

/// What a station brings to the review. Everything that walks the stations (strip, menus, snags, checks, texts of
/// stations that are only planned) reads this table and knows no station by name.
struct StationEntry {
  Station station = Station::airframe;
  const char* question = "";  ///< as the builder would ask it
  std::vector<Rule> rules = {};
  std::vector<CheckFamily> checks = {};
  std::vector<EditEntry> edits = {};
  std::vector<ProcedureEntry> procedures = {};
  /// Something is known here already; null: from the start.
  bool (*started)(const Rig&, const Review&) = nullptr;
  const char* to_come = "";  ///< what will be there, of a station that is not built yet
};

/// All eleven, in the order of the work. Open until the program has started: a station's entry can be filled from its
/// own folder, and a test can add to it.
std::vector<StationEntry>& stations();
const StationEntry& entry_of(Station station);

/// Edits of all stations, and those that belong to none.
std::vector<EditEntry> all_edits();

}  // namespace rigging
