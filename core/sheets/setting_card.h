#pragma once

#include "catalogue/catalogue.h"
#include "rig/rig.h"

namespace rigging {

/// What hands set, to take to the bench: in the transmitter (direction, sub-trim, travel, switch positions) and on the
/// model (arm, rod, horn, output, throws), with empty boxes for what is then read. 210 × 297 mm, black on white; more
/// pages when there are many channels.
std::vector<std::string> setting_card_svg(const Rig& rig, const Catalogue& catalogue);

}  // namespace rigging
