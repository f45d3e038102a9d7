#include "direction/levelling.h"

namespace rigging::direction {
namespace {

constexpr SeenBits any = 1 | 2 | still_bit;

constexpr SeenBits turned_round(SeenBits bits) {
  return static_cast<SeenBits>((bits & still_bit) | (bits & 1) << 1 | (bits & 2) >> 1);
}

/// Roll and pitch command for "down" as it is sensed; only the signs of its parts count.
std::array<SeenBits, 2> asked_for(const std::array<int, 3>& down) {
  const SeenBits roll = down[1] != 0 ? bit_of(-down[1]) : down[2] > 0 ? still_bit : any;
  return {roll, bit_of(down[0])};
}

std::array<SeenBits, 2> asked_for(const Turn& turn, unsigned reversed, const std::array<int, 3>& down) {
  std::array<int, 3> sensed{};
  for (int axis = 0; axis < 3; ++axis) {
    const SignedAxis s = turn.sensed(axis);
    sensed[at(s.axis)] += s.sign * down[at(axis)];
  }
  std::array<SeenBits, 2> asks = asked_for(sensed);
  for (std::size_t i = 0; i < 2; ++i)
    if (reversed >> i & 1) asks[i] = turned_round(asks[i]);
  return asks;
}

SeenBits motion_for(const std::array<SeenBits, 2>& asks, const std::array<int, 3>& pulse) {
  SeenBits sum = still_bit;
  for (std::size_t i = 0; i < 2; ++i) {
    const SeenBits part = pulse[i] == 0 ? still_bit : pulse[i] > 0 ? asks[i] : turned_round(asks[i]);
    if (part == still_bit) continue;
    sum = sum == still_bit || sum == part ? part : any;
  }
  return sum;
}

}  // namespace

SeenBits level_motions(const Turn& turn, unsigned reversed, Axis tilted, int sense, const std::array<int, 3>& pulse) {
  std::array<int, 3> down{0, 0, 1};
  if (tilted == Axis::roll) down[1] = sense;
  if (tilted == Axis::pitch) down[0] = -sense;
  const auto rest = asked_for(turn, reversed, {0, 0, 1}), now = asked_for(turn, reversed, down);
  const SeenBits before = motion_for(rest, pulse), after = motion_for(now, pulse);
  if (before == still_bit) return after;
  return before == after ? static_cast<SeenBits>(after | still_bit) : any;
}

}  // namespace rigging::direction
