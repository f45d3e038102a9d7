#pragma once

#include <string>
#include <vector>

#include "base/turn.h"
#include "rig/surface.h"

namespace rigging {

/// A surface in a file is its word.
struct SurfaceName : Surface {
  SurfaceName() = default;
  SurfaceName(Surface s) : Surface(s) {}
  std::string to_text() const { return name(); }
  bool from_text(const std::string& text) {
    const auto found = surface_from_name(text);
    if (found) static_cast<Surface&>(*this) = *found;
    return found.has_value();
  }
  static std::string expected() { return "a surface such as elevon_left, rudder or motor_right"; }
  static std::vector<std::string> choices() {
    std::vector<std::string> words;
    for (const Surface& s : all_surfaces()) words.push_back(s.name());
    return words;
  }
};

/// A turn in a file is its name.
struct TurnName : Turn {
  TurnName() = default;
  TurnName(Turn t) : Turn(t) {}
  std::string to_text() const { return name(); }
  bool from_text(const std::string& text) {
    const auto found = turn_from_name(text);
    if (found) static_cast<Turn&>(*this) = *found;
    return found.has_value();
  }
  static std::string expected() { return "none or arrow_A_top_B with nose, tail, right, left, up, down"; }
  static std::vector<std::string> choices() {
    std::vector<std::string> names{"arrow_nose_top_up"};  // the long name of "none"
    for (const Turn& t : all_turns()) names.push_back(t.name());
    return names;
  }
};

}  // namespace rigging
