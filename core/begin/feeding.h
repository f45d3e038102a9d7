#pragma once

#include "catalogue/catalogue.h"

namespace rigging {

/// Adds one of the kind, with the surface that it works or the side that it is on. Returns its id.
std::string add_one(Rig& rig, const PartKind& kind, std::optional<Surface> surface = std::nullopt);

/// Plans the wiring, gives every part a place, and gets what is missing to feed all: regulators, plugs and wires that
/// bear what is asked of them. What the builder told is left as it is.
void feed_all(Rig& rig, const Catalogue& catalogue);

}  // namespace rigging
