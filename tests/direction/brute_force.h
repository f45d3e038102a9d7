#pragma once

#include <set>
#include <string>

#include "direction/reason.h"

/// An independent and slow reading of the rules in docs/direction.md: every set of faults, every servo sign,
/// rotation matrices instead of routings. Nothing of it is shared with the code under test but the case itself.
namespace brute {

using rigging::direction::Case;
using rigging::direction::Fault;

/// One fault set in a form in which sets that mean the same compare equal: exchanges by what they exchange.
using Key = std::set<std::string>;

Key key_of(const std::vector<Fault>& faults, const Case& c);

/// All explanations with the fewest faults, up to `most`.
std::set<Key> explain(const Case& c, int most);

/// What an aircraft with these faults shows; false when the faults leave no right aircraft behind.
bool show(const Case& c, const std::vector<Fault>& faults, rigging::direction::Observation& observation);

/// Every fault that the case permits.
std::vector<Fault> possible_faults(const Case& c);

}  // namespace brute
