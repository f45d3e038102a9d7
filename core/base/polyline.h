#pragma once

#include <Eigen/Core>
#include <vector>

namespace rigging {

/// A line beside another of corners at right angles, to its right when positive; any unit.
std::vector<Eigen::Vector2d> beside(const std::vector<Eigen::Vector2d>& corners, double offset);

/// A rounded corner of a line: straight to `enter`, round `corner` to `leave`.
struct Bend {
  Eigen::Vector2d enter, corner, leave;
};
/// The inner corners of a line, each rounded by `round`, or by half of its shorter side where that is less.
std::vector<Bend> bends(const std::vector<Eigen::Vector2d>& corners, double round);

}  // namespace rigging
