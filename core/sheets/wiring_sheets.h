#pragma once

#include "wiring/layout.h"

namespace rigging {

/// What is plugged where, pages of 210 × 297 mm, black on white, with a box to tick per lead and the cautions above.
std::vector<std::string> plug_list_svg(const Rig& rig, const Catalogue& catalogue);

/// The board, the parts and the leads between: 297 × 210 mm. Every lead carries its number of the plug list, so that it
/// reads without colour.
std::string wiring_drawing_svg(const Rig& rig, const Catalogue& catalogue);

}  // namespace rigging
