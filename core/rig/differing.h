#pragma once

#include "rig/rig.h"

namespace rigging {

/// Places where two rigs differ, as JSON pointers of the first difference per member, in canonical order.
std::vector<std::string> differing_members(const Rig& a, const Rig& b);

/// One thing that two rigs say differently, in words; "not there" where one of them has no such entry.
struct Differing {
  std::string place;  ///< "output out_1, centre"
  std::string a, b;   ///< "1510 µs"
};
/// Entries of lists are matched by name, so that their order is no difference.
std::vector<Differing> differing_words(const Rig& a, const Rig& b);

}  // namespace rigging
