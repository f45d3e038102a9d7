#pragma once

#include <array>

#include "base/words.h"

namespace rigging {

/// Body axes of ISO 1151: roll right, nose up and nose right are positive.
enum class Axis { roll, pitch, yaw };

inline constexpr std::array<Axis, 3> all_axes{Axis::roll, Axis::pitch, Axis::yaw};

constexpr int index_of(Axis axis) { return static_cast<int>(axis); }

template <>
struct Names<Axis> {
  static constexpr std::array<std::pair<Axis, std::string_view>, 3> list{
      {{Axis::roll, "roll"}, {Axis::pitch, "pitch"}, {Axis::yaw, "yaw"}}};
};

/// "right" or "left" for roll and yaw, "up" or "down" (of the nose) for pitch; positive is right, up, right.
constexpr std::string_view sense_word(Axis axis, bool positive) {
  return axis == Axis::pitch ? (positive ? "up" : "down") : (positive ? "right" : "left");
}

}  // namespace rigging
