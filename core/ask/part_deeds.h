#pragma once

#include "ask/found.h"
#include "ask/sentence.h"

namespace rigging {

/// Parts that are to be moved, put somewhere, added, copied or taken out.
void find_part_deeds(const AskedOf& of, const Sentence& sentence, Found& found);

}  // namespace rigging
