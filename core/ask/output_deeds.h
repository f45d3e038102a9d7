#pragma once

#include "ask/found.h"
#include "ask/sentence.h"

namespace rigging {

/// What is to be done to outputs, their leads and their surfaces: reversed, exchanged, plugged elsewhere, pulses,
/// throws, differential, gains.
void find_output_deeds(const AskedOf& of, const Sentence& sentence, Found& found);

}  // namespace rigging
