#pragma once

#include "ask/found.h"
#include "ask/sentence.h"

namespace rigging {

/// Which way surfaces move: for a stick, against what is done to the model, and whether they should at all.
void find_movements(const AskedOf& of, const Sentence& sentence, Found& found);

}  // namespace rigging
