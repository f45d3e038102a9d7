#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "catalogue/catalogue.h"

/// What builders call parts: "satellite with compass", "9 x 6", "5V 3A regulator", "two 9g servos". Words, numbers and
/// units in any order.
namespace rigging {

struct FoundKind {
  const PartKind* kind = nullptr;
  double fit = 0;       ///< higher fits better; above 0
  bool exact = true;    ///< every number that was said is its own
  std::string unknown;  ///< words that say nothing of any part
};

/// Kinds that the words may mean, the best first; of leads none, they follow from the wiring. No words: all, in their
/// order.
std::vector<FoundKind> find_kinds(const Catalogue& catalogue, std::string_view words);

/// One thing of a list of parts as it was said.
struct SaidPart {
  std::string said;
  int count = 1;
  const PartKind* kind = nullptr;  ///< null where nothing of the kind is known
  std::string remark;              ///< what differs from what was said; empty when all of it was understood
};

/// A list: commas, semicolons, "and", "plus" or lines between its things. A comma between two digits is a decimal one.
std::vector<SaidPart> parts_in_words(const Catalogue& catalogue, std::string_view list);

}  // namespace rigging
