#pragma once

#include "ask/found.h"
#include "ask/sentence.h"

namespace rigging {

/// What the sentence wants done, as edits that are said before they are made.
void find_deeds(const AskedOf& of, const Sentence& sentence, Found& found);

}  // namespace rigging
