#pragma once

#include "ask/found.h"
#include "ask/sentence.h"

namespace rigging {

/// What is asked of one part or two: its figures, which servo works what, the heaviest, how far apart two sit.
void find_part_answers(const AskedOf& of, const Sentence& sentence, Found& found);

}  // namespace rigging
