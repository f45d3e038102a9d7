#pragma once

#include "edit/edit.h"

namespace rigging {

/// An id that no part has yet: the stem, or the stem with a number.
std::string free_part_id(const Rig& rig, const std::string& stem);
/// The part is the last of the list, a third of the length behind the nose or as far behind that as there is room; a
/// servo gets the first surface without one.
Result<Edit> add_part(const Rig& rig, const Catalogue& catalogue, const std::string& kind);
/// Another of the same kind, label and weight, beside it; of a servo without its surface.
Result<Edit> duplicate_part(const Rig& rig, const Catalogue& catalogue, const std::string& id);
/// The same on the other side: the part that works the surface there moves to the mirrored place, else another of the
/// kind is added there. Errors: no such part, no place yet, one that sits in the middle.
Result<Edit> mirror_part(const Rig& rig, const Catalogue& catalogue, const std::string& id);
/// With its place and its leads.
Result<Edit> remove_part(const Rig& rig, const Catalogue& catalogue, const std::string& id);
/// Another kind in the place of this part: its place, its leads and what it works stay, what was weighed of it is
/// forgotten. Errors: no such part or kind, one of another group, one that lacks a terminal that a lead ends at.
Result<Edit> exchange_part(const Rig& rig, const Catalogue& catalogue, const std::string& id, const std::string& kind);
/// One of the things that only the builder can see (`confirmations`).
Result<Edit> confirm(const Rig& rig, const Catalogue& catalogue, const std::string& word, bool seen);

/// The part, or "controller", sits like this; `place.part` says which. Told after what differs from before. Errors: no
/// such part; a measure outside of the range of its member.
Result<Edit> put_part(const Rig& rig, const Catalogue& catalogue, const Mounting& place);
/// Which surface a servo works; nothing for none.
Result<Edit> work_surface(const Rig& rig, const Catalogue& catalogue, const std::string& part,
                          std::optional<Surface> surface);
/// The fit's own measures: bay, margins, where it flies. Errors: a date that is none, a bay without room.
Result<Edit> measure_fit(const Rig& rig, const Fit& fit);

std::vector<EditEntry> fit_edits();

}  // namespace rigging
