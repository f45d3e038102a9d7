#pragma once

#include "edit/edit.h"
#include "feel/advice.h"

namespace rigging {

/// How hard one axis is corrected, as the board is to be set; `place` from 0 to 1. Errors: a class on which nothing can
/// be set, a place outside.
Result<Edit> set_gain(const Rig& rig, const Catalogue& catalogue, Axis axis, double place);
/// The same in the words of the class: "9:30", "35 %", "gentle".
Result<Edit> set_gain_in_words(const Rig& rig, const Catalogue& catalogue, Axis axis, const std::string& words);
/// All axes as advised for the first flight. Error: nothing to set.
Result<Edit> set_first_gains(const Rig& rig, const Catalogue& catalogue, const FeelAdvice& advice);
Edit start_at(const Rig& rig, StartAt start);

/// Where another program's log keeps what Rigging looks for. Errors: no time or no rate among them.
Result<Edit> with_log_columns(const Rig& rig, std::vector<LogColumn> columns);

std::vector<EditEntry> feel_edits();

}  // namespace rigging
