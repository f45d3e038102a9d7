#pragma once

#include <functional>

#include "direction/evidence.h"

namespace rigging::direction {

/// A smallest subset of the first `count` observations for which `possible` is false. `possible` must be monotone (a
/// subset of a possible set is possible) and false for the whole. Empty when not even the empty set is possible.
std::vector<int> smallest_conflict(int count, const std::function<bool(const ObservationSet&)>& possible);

}  // namespace rigging::direction
