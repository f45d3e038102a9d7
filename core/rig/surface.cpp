#include "rig/surface.h"

#include <array>

namespace rigging {
namespace {

/// May it stand alone, may there be a left and a right one?
struct KindFacts {
  SurfaceKind kind;
  bool single, paired;
};

constexpr std::array<KindFacts, 10> kinds{{{SurfaceKind::aileron, false, true},
                                           {SurfaceKind::elevon, false, true},
                                           {SurfaceKind::flaperon, false, true},
                                           {SurfaceKind::taileron, false, true},
                                           {SurfaceKind::vtail, false, true},
                                           {SurfaceKind::inverted_v, false, true},
                                           {SurfaceKind::elevator, true, true},
                                           {SurfaceKind::rudder, true, true},
                                           {SurfaceKind::canard, true, true},
                                           {SurfaceKind::motor, false, true}}};

}  // namespace

std::string Surface::name() const {
  std::string text(rigging::name_of(kind));
  if (side == Side::left) text += "_left";
  if (side == Side::right) text += "_right";
  return text;
}

std::string Surface::label() const {
  const std::string side_word = side == Side::left ? "left " : side == Side::right ? "right " : "";
  switch (kind) {
    case SurfaceKind::vtail: return side_word + "V-tail half";
    case SurfaceKind::inverted_v: return side_word + "inverted V-tail half";
    default: return side_word + std::string(rigging::name_of(kind));
  }
}

const std::vector<Surface>& all_surfaces() {
  static const std::vector<Surface> all = [] {
    std::vector<Surface> list;
    for (const KindFacts& k : kinds) {
      if (k.single) list.push_back({k.kind, Side::single});
      if (k.paired) {
        list.push_back({k.kind, Side::left});
        list.push_back({k.kind, Side::right});
      }
    }
    return list;
  }();
  return all;
}

std::optional<Surface> surface_from_name(std::string_view word) {
  for (const Surface& s : all_surfaces())
    if (s.name() == word) return s;
  return std::nullopt;
}

int required_direction(Surface s, Axis axis) {
  const int right_up = s.side == Side::right ? 1 : -1;
  switch (s.kind) {
    case SurfaceKind::aileron:
    case SurfaceKind::flaperon: return axis == Axis::roll ? right_up : 0;
    case SurfaceKind::elevon:
    case SurfaceKind::taileron: return axis == Axis::roll ? right_up : axis == Axis::pitch ? 1 : 0;
    // On right yaw every fin's trailing edge moves partly to the right: an upright V lowers its right half,
    // an inverted one raises it.
    case SurfaceKind::vtail: return axis == Axis::pitch ? 1 : axis == Axis::yaw ? -right_up : 0;
    case SurfaceKind::inverted_v: return axis == Axis::pitch ? 1 : axis == Axis::yaw ? right_up : 0;
    case SurfaceKind::elevator: return axis == Axis::pitch ? 1 : 0;
    case SurfaceKind::canard: return axis == Axis::pitch ? -1 : 0;
    case SurfaceKind::rudder: return axis == Axis::pitch ? 0 : 1;
    case SurfaceKind::motor: return axis == Axis::yaw ? -right_up : 0;
  }
  return 0;
}

std::string_view motion_word(Surface s, int direction) {
  if (direction == 0) return "still";
  if (s.kind == SurfaceKind::motor) return direction > 0 ? "faster" : "slower";
  if (s.kind == SurfaceKind::rudder) return direction > 0 ? "right" : "left";
  return direction > 0 ? "up" : "down";
}

std::optional<int> motion_from_name(Surface s, std::string_view text) {
  for (const int direction : {1, -1, 0})
    if (motion_word(s, direction) == text) return direction;
  return std::nullopt;
}

std::string motion_label(Surface s, int direction) {
  const std::string text(motion_word(s, direction));
  return direction == 0 || s.kind == SurfaceKind::motor ? text : "trailing edge " + text;
}

}  // namespace rigging
