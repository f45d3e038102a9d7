#include "base/turn.h"

#include <array>

namespace rigging {
namespace {

constexpr std::array<std::pair<std::string_view, SignedAxis>, 6> directions{
    {{"nose", {0, 1}}, {"tail", {0, -1}}, {"right", {1, 1}}, {"left", {1, -1}}, {"up", {2, -1}}, {"down", {2, 1}}}};

std::string_view direction_name(SignedAxis d) {
  for (const auto& [name, value] : directions)
    if (value == d) return name;
  return {};
}

std::string_view spoken_direction(SignedAxis d) {
  constexpr std::array<std::string_view, 6> words{"to the nose", "to the right", "down",
                                                  "to the tail", "to the left",  "up"};
  return words[static_cast<std::size_t>(d.axis + (d.sign < 0 ? 3 : 0))];
}

}  // namespace

SignedAxis Turn::sensed(int model_axis) const {
  if (model_axis == arrow.axis) return {0, arrow.sign};
  if (model_axis == top.axis) return {2, -top.sign};
  // The board's y axis is z × x with z = −top and x = arrow, so that board axes stay right-handed.
  const bool cyclic = (top.axis + 1) % 3 == arrow.axis;
  const int cross = cyclic ? 1 : -1;
  return {1, -top.sign * arrow.sign * cross};
}

Turn Turn::inside(const Turn& frame) const {
  // Where this turn points along one of the frame's axes, that axis points somewhere in the model.
  const auto in_model = [&](SignedAxis d) {
    const SignedAxis x = frame.arrow, z{frame.top.axis, -frame.top.sign};
    if (d.axis == 0) return SignedAxis{x.axis, x.sign * d.sign};
    if (d.axis == 2) return SignedAxis{z.axis, z.sign * d.sign};
    const int axis = 3 - x.axis - z.axis;
    return SignedAxis{axis, frame.sensed(axis).sign * d.sign};
  };
  return {in_model(arrow), in_model(top)};
}

std::string Turn::name() const {
  if (*this == Turn{}) return "none";
  return "arrow_" + std::string(direction_name(arrow)) + "_top_" + std::string(direction_name(top));
}

std::string Turn::label() const {
  return "arrow " + std::string(spoken_direction(arrow)) + ", top " + std::string(spoken_direction(top));
}

std::optional<Turn> turn_from_name(std::string_view name) {
  if (name == "none") return Turn{};
  for (const auto& [arrow_word, arrow] : directions)
    for (const auto& [top_word, top] : directions)
      if (arrow.axis != top.axis && name == "arrow_" + std::string(arrow_word) + "_top_" + std::string(top_word))
        return Turn{arrow, top};
  return std::nullopt;
}

const std::vector<Turn>& all_turns() {
  static const std::vector<Turn> turns = [] {
    std::vector<Turn> all{Turn{}};
    for (const auto& [arrow_word, arrow] : directions)
      for (const auto& [top_word, top] : directions)
        if (arrow.axis != top.axis && Turn{arrow, top} != Turn{}) all.push_back({arrow, top});
    return all;
  }();
  return turns;
}

}  // namespace rigging
