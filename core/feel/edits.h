#pragma once

#include "edit/edit.h"
#include "feel/advice.h"

namespace rigging {

/// How hard one axis is corrected, as the board is to be set; `place` from 0 to 1. Errors: a class on which nothing can
/// be set, a place outside.
Result<Edit> set_gain(const Rig& rig, const Catalogue& catalogue, Axis axis, double place);
/// The same in the words of the class: "9:30", "35 %", "gentle".
Result<Edit> set_gain_in_words(const Rig& rig, const Catalogue& catalogue, Axis axis, const std::string& words);
/// How much of the throw the stick gives by itself in a stabilized mode (feed forward), 0 to 1. Errors: a class that
/// does not set it; a share outside.
Result<Edit> set_direct_stick(const Rig& rig, const Catalogue& catalogue, Axis axis, double share);
/// All axes as advised for the first flight. Error: nothing to set.
Result<Edit> set_first_gains(const Rig& rig, const Catalogue& catalogue, const FeelAdvice& advice);
/// What the simulated bench told of the loops is put aside.
Edit forget_simulated(const Rig& rig);
Edit start_at(const Rig& rig, StartAt start);
/// What is wished of the feel, and limits. A gain that says nothing is none. Error: a value outside of its range.
Result<Edit> wish_feel(const Rig& rig, Feel feel);
/// From where it takes off, and in what wind. Error: a value outside of its range.
Result<Edit> plan_takeoff(const Rig& rig, const Takeoff& takeoff);

/// Where another program's log keeps what Rigging looks for. Errors: no time or no rate among them.
Result<Edit> with_log_columns(const Rig& rig, std::vector<LogColumn> columns);

std::vector<EditEntry> feel_edits();

}  // namespace rigging
