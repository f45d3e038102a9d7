#pragma once

#include "ask/ask.h"
#include "ask/sentence.h"

/// What of the rig a sentence speaks of.
namespace rigging {

/// The part that the words name best; null for none. `how_well`: as `names`.
const Part* part_named(const AskedOf& of, const std::vector<std::string>& words, double* how_well = nullptr);
/// What the board calls a socket.
std::string socket_label(const AskedOf& of, const std::string& socket);
/// How well the words say a member of a section by what builders call it, where its label says something else; as
/// `names`.
double names_otherwise(const std::vector<std::string>& asked, const std::string& section, const std::string& member);
/// Parts of this group, in their order.
std::vector<const Part*> parts_of(const AskedOf& of, PartGroup group);

/// Surfaces that the words name: by their own names, or by what they do where this aircraft has none of the name (the
/// elevator of a flying wing is its elevons). A side that is said counts.
std::vector<Surface> surfaces_named(const AskedOf& of, const Sentence& sentence);

/// The axis that is spoken of, by its name, its stick, its surface or what it does.
std::optional<Axis> axis_named(const Sentence& sentence);

/// "output 3" and "out 3" by their numbers, in the order in which they are said.
std::vector<const Output*> outputs_numbered(const AskedOf& of, const Sentence& sentence);

}  // namespace rigging
