#pragma once

#include <bitset>
#include <string_view>
#include <vector>

#include "rig/rig.h"

namespace rigging {

/// Top-level members of the document, by their names in the file.
inline constexpr std::size_t section_count = 22;
using Sections = std::bitset<section_count>;

/// The names in the order of the bits.
const std::vector<std::string_view>& section_names();
/// The set of these names; every one must be known.
Sections sections(std::initializer_list<std::string_view> names);
/// Those in which the two differ. Members of the top level that this version does not know do not count.
Sections differing_sections(const Rig& a, const Rig& b);

}  // namespace rigging
