#pragma once

#include <vector>

namespace rigging {

/// Starts of things that want to stand somewhere on a line and must not overlap: together as near to where they want to
/// be as that allows (least squares), in the order given, inside of `low` to `high` as far as they fit. Any unit.
std::vector<double> settled(const std::vector<double>& wanted, const std::vector<double>& sizes, double gap, double low,
                            double high);

}  // namespace rigging
