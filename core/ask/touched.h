#pragma once

#include "ask/found.h"
#include "ask/sentence.h"

namespace rigging {

/// "I glued the horn on again", "my receiver was replaced": which checks rest on it. Those that stand are taken back,
/// as an edit; where none stands the answer says which they are.
void find_touched(const AskedOf& of, const Sentence& sentence, Found& found);

}  // namespace rigging
