#pragma once

#include "ask/found.h"
#include "ask/knowledge.h"
#include "ask/sentence.h"

namespace rigging {

/// Where nothing is said in the words that a topic expects: the topics that have most of what was said, by weight, in
/// their words or their answer. At most three, as a supposition, and with less where nothing else was found.
void find_nearest(const AskedOf& of, const Sentence& sentence, const Knowledge& knowledge, Found& found);

/// A word that nobody knows becomes the one that differs from it in one letter (left out, added, another, or two
/// exchanged), where just one known word does: "recieverr". Words of fewer than five letters stay.
std::string with_known_spelling(const AskedOf& of, std::string_view words);

}  // namespace rigging
