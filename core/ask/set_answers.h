#pragma once

#include "ask/found.h"
#include "ask/sentence.h"

namespace rigging {

/// What supplies, channels, switches, mixes, gains and checks of this rig are.
void find_set_answers(const AskedOf& of, const Sentence& sentence, Found& found);

}  // namespace rigging
