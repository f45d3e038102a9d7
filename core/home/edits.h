#pragma once

#include "edit/edit.h"

namespace rigging {

/// The plan for a lost link as a whole. Errors: a number that is outside of its range.
Result<Edit> set_home(const Rig& rig, Home home, const std::string& label);
/// Something high near the field; one of the same name is replaced. Errors: no name, a number outside of its range.
Result<Edit> put_obstacle(const Rig& rig, const FieldObstacle& obstacle);
/// Errors: none of that name.
Result<Edit> take_obstacle_away(const Rig& rig, const std::string& name);

/// The switches of a first flight: manual, level and (where it knows its place) circle on the mode switch, return on a
/// switch of its own, with boundaries half way between the positions. Errors: a class whose modes are not chosen by
/// ranges, no channel left for return, a mode switch with fewer than three positions.
Result<Edit> lay_out_first_flight(const Rig& rig, const Catalogue& catalogue);

/// `on-loss`, `obstacle`, `no-obstacle`, `first-flight-modes`.
std::vector<EditEntry> home_edits();

}  // namespace rigging
