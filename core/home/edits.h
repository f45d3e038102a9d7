#pragma once

#include "edit/edit.h"

namespace rigging {

/// The plan for a lost link as a whole. Errors: a number that is outside of its range.
Result<Edit> set_home(const Rig& rig, Home home, const std::string& label);
/// Something high near the field; one of the same name is replaced. Errors: no name, a number outside of its range.
Result<Edit> put_obstacle(const Rig& rig, const FieldObstacle& obstacle);
/// Errors: none of that name.
Result<Edit> take_obstacle_away(const Rig& rig, const std::string& name);

/// What it does on a trigger, beside the lost link; nothing takes it out of the plan. Errors: a number that is outside
/// of its range.
Result<Edit> set_trigger(const Rig& rig, HomeTrigger on, std::optional<TriggerAction> does, std::optional<double> at);

/// The switches of a first flight: manual, level and (where it knows its place) circle on the mode switch, return on a
/// switch of its own, with boundaries half way between the positions. Errors: a class whose modes are not chosen by
/// ranges, no channel left for return, a mode switch with fewer than three positions.
Result<Edit> lay_out_first_flight(const Rig& rig, const Catalogue& catalogue);

/// For later flights: the manual position climbs by itself after the throw. There is no manual then: only for an
/// aircraft whose corrections were flown. Errors: a class without a launch mode, no position that gives manual.
Result<Edit> lay_out_launch(const Rig& rig, const Catalogue& catalogue);

/// `on-loss`, `obstacle`, `no-obstacle`, `trigger`, `no-trigger`, `first-flight-modes`, `launch-modes`.
std::vector<EditEntry> home_edits();

}  // namespace rigging
