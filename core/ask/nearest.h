#pragma once

#include "ask/found.h"
#include "ask/knowledge.h"
#include "ask/sentence.h"

namespace rigging {

/// An answer that was found by all words of a phrase and fits at least so well needs no supposition.
constexpr double sure_fit = 2.2;

/// Where nothing is said in the words that a topic expects: the topics that have most of what was said, by weight, in
/// their words or their answer. At most three, as a supposition, and with less where nothing else was found.
void find_nearest(const AskedOf& of, const Sentence& sentence, Found& found);

/// A word that nobody knows becomes the one that differs from it in one letter (left out, added, another, or two
/// exchanged), where just one known word does: "recieverr". Words of fewer than five letters stay.
std::string with_known_spelling(const AskedOf& of, std::string_view words);

}  // namespace rigging
