#pragma once

#include "edit/edit.h"

namespace rigging {

/// The plan for a lost link as a whole. Errors: a number that is outside of its range.
Result<Edit> set_home(const Rig& rig, Home home, const std::string& label);
/// Something high near the field; one of the same name is replaced. Errors: no name, a number outside of its range.
Result<Edit> put_obstacle(const Rig& rig, const FieldObstacle& obstacle);
/// Errors: none of that name.
Result<Edit> take_obstacle_away(const Rig& rig, const std::string& name);

/// `on-loss`, `obstacle`, `no-obstacle`.
std::vector<EditEntry> home_edits();

}  // namespace rigging
