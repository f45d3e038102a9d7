#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "base/axis.h"
#include "base/words.h"

namespace rigging {

enum class SurfaceKind { aileron, elevon, flaperon, taileron, vtail, inverted_v, elevator, rudder, canard, motor };
template <>
struct Names<SurfaceKind> {
  using K = SurfaceKind;
  static constexpr std::array<std::pair<K, std::string_view>, 10> list{{{K::aileron, "aileron"},
                                                                        {K::elevon, "elevon"},
                                                                        {K::flaperon, "flaperon"},
                                                                        {K::taileron, "taileron"},
                                                                        {K::vtail, "vtail"},
                                                                        {K::inverted_v, "inverted_v"},
                                                                        {K::elevator, "elevator"},
                                                                        {K::rudder, "rudder"},
                                                                        {K::canard, "canard"},
                                                                        {K::motor, "motor"}}};
};
enum class Side { single, left, right };

/// One thing that moves on a command: a hinged surface or a motor. Its word is e.g. "elevon_left" or "rudder".
struct Surface {
  SurfaceKind kind = SurfaceKind::elevator;
  Side side = Side::single;

  auto operator<=>(const Surface&) const = default;

  std::string name() const;
  /// "left elevon", "right half of the inverted V-tail", "rudder".
  std::string label() const;
};

/// Paired kinds need a side; elevator, rudder and canard may have one; motors need one, except in `surface_or_motor`.
std::optional<Surface> surface_from_name(std::string_view word);

/// Every word that `surface_from_word` accepts.
const std::vector<Surface>& all_surfaces();

/// The direction in which the surface must go for a positive command on the axis (right, nose up, right):
/// +1 trailing edge up (rudders: right, motors: faster), −1 the other way, 0 when the surface can't serve the axis.
/// Rudders also answer roll, as on models without ailerons.
int required_direction(Surface surface, Axis axis);

/// The word for what is seen when a surface goes in the direction of `required_direction`'s sign; 0 is "still".
std::string_view motion_word(Surface surface, int direction);

/// Inverse of `motion_word`; no value when the word does not belong to this surface.
std::optional<int> motion_from_name(Surface surface, std::string_view word);

/// "trailing edge up", "trailing edge right", "faster", "still".
std::string motion_label(Surface surface, int direction);

}  // namespace rigging
