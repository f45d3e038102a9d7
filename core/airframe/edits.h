#pragma once

#include "edit/edit.h"

namespace rigging {

Result<Edit> change_kind(const Rig& rig, const Catalogue& catalogue, AirframeKind kind);
/// Errors: a glider on tow has no motor; where thrust replaces the rudder two steer in any case.
Result<Edit> change_motors(const Rig& rig, const Catalogue& catalogue, Motors motors);
/// Error: a kind without a pair of ailerons.
Result<Edit> join_ailerons(const Rig& rig, const Catalogue& catalogue, bool joined);
/// Error: a glider on tow has no propeller.
Result<Edit> turn_propeller(const Rig& rig, PropellerSide side);
/// Outputs go to sockets that the new class has for them; where they can stay they stay. The firmware of the old board
/// is forgotten.
Result<Edit> change_class(const Rig& rig, const Catalogue& catalogue, const std::string& id);
/// One measure of the airframe by its name in the document, SI; it is no guess any more, and what is still one follows.
/// Nothing clears what may be absent. Errors: no such measure; out of its range.
Result<Edit> measure(const Rig& rig, const std::string& member, std::optional<double> value);
/// The wing's section, its angles and how it cruises. Error: a measure outside of the range of its member.
Result<Edit> measure_wing(const Rig& rig, const Airframe& airframe);
Result<Edit> mount_board(const Rig& rig, bool mounted);

std::vector<EditEntry> airframe_edits();

}  // namespace rigging
