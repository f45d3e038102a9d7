#pragma once

#include "ask/found.h"
#include "ask/sentence.h"

namespace rigging {

/// "use a 3S battery", "change the propeller to 9x6": another kind in the place of the one that is there, as an edit.
void find_exchange(const AskedOf& of, const Sentence& sentence, Found& found);
/// "can I use a 4S battery", "what happens with a 10x5 propeller": what motor, propeller, battery and speed controller
/// would say to it.
void find_other_drive(const AskedOf& of, const Sentence& sentence, Found& found);
/// "is the motor too big": the same of what is fitted.
void find_suits(const AskedOf& of, const Sentence& sentence, Found& found);

}  // namespace rigging
