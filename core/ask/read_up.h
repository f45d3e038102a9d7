#pragma once

#include "ask/found.h"
#include "ask/sentence.h"

namespace rigging {

/// What the manual says of it, where nothing else was understood: the sentence that has most of what was said, of the
/// paragraph that has it. Words count by how rare they are in the manual; a paragraph that lacks one that carries much
/// says nothing.
void find_in_manual(const AskedOf& of, const Sentence& sentence, Found& found);

}  // namespace rigging
