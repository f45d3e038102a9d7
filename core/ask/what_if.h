#pragma once

#include "ask/found.h"
#include "ask/sentence.h"

namespace rigging {

/// "what happens if I move the battery 40 mm forward", "can I leave out the compass": the deed is tried on a copy, and
/// the answer says which snags come and which go with it.
void find_what_if(const AskedOf& of, const Sentence& sentence, Found& found);

}  // namespace rigging
