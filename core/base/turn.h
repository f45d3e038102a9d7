#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "base/axis.h"

namespace rigging {

/// An axis with a sign: 0..2 positive roll, pitch, yaw (or forward, right, down); 3..5 the negative ones.
struct SignedAxis {
  int axis = 0;
  int sign = 1;
  bool operator==(const SignedAxis&) const = default;
};

/// One of the 24 ways in which a board can sit square in the model.
/// `arrow` is where its arrow points, `top` where its upper face looks, both in model axes
/// (x forward, y right, z down; ISO 1151).
struct Turn {
  SignedAxis arrow{0, 1};
  SignedAxis top{2, -1};

  bool operator==(const Turn&) const = default;

  /// What the board senses on its own axis when the model turns about `model_axis` in the positive sense.
  /// Exactly one board axis answers.
  SignedAxis sensed(int model_axis) const;

  /// The turn of a board that sits like this inside a frame that sits like `frame`.
  Turn inside(const Turn& frame) const;

  /// The same arrow with the top up where the top is down; for boards that find out by themselves which face is up.
  Turn face_up() const { return top == SignedAxis{2, 1} ? Turn{arrow, {2, -1}} : *this; }

  /// "arrow_nose_top_up" and the like; the turn with nothing changed is "none".
  std::string name() const;
  /// "arrow to the right wing, top up".
  std::string label() const;
};

/// Accepts "none" and all names "arrow_A_top_B" with A and B square to each other.
std::optional<Turn> turn_from_name(std::string_view name);

/// All 24, the one with nothing changed first.
const std::vector<Turn>& all_turns();

}  // namespace rigging
