#pragma once

#include "ask/found.h"
#include "ask/sentence.h"

namespace rigging {

/// Answers that this rig gives: what is fitted, what it measures, where it is plugged, which way it moves, what is left
/// to do.
void find_answers(const AskedOf& of, const Sentence& sentence, Found& found);

/// What a term of the trade means, where the sentence asks for it.
void find_meanings(const AskedOf& of, const Sentence& sentence, Found& found);

}  // namespace rigging
