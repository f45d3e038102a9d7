#pragma once

#include <numbers>

namespace rigging {

inline constexpr double pi = std::numbers::pi;
/// One degree in radians.
inline constexpr double rad = pi / 180;

}  // namespace rigging
