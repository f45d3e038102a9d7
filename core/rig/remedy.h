#pragma once

#include "base/words.h"

namespace rigging {

/// What can be done about a wrong direction.
enum class Remedy {
  reverse_output,
  swap_leads,
  flip_mix,
  reverse_transmitter,
  swap_transmitter,
  flip_gyro,
  turn_board,
  check_output,
  move_linkage,
  reverse_function  ///< of an axis, on every output that mixes it, servo and sensing together
};

/// A set of remedies.
class Abilities {
 public:
  constexpr Abilities() = default;
  /// All but `reverse_function`, which some classes have in place of single outputs.
  static constexpr Abilities all() { return Abilities(0x1ff); }
  constexpr bool has(Remedy r) const { return bits_ >> static_cast<int>(r) & 1; }
  constexpr void add(Remedy r) { bits_ |= 1u << static_cast<int>(r); }
  constexpr void remove(Remedy r) { bits_ &= ~(1u << static_cast<int>(r)); }
  bool operator==(const Abilities&) const = default;

 private:
  constexpr explicit Abilities(unsigned bits) : bits_(bits) {}
  unsigned bits_ = 0;
};

/// What a stabilizer does with the model's motion.
/// `level_height` levels and keeps the height, `heading_height` keeps the heading as well: by barometer.
enum class Mode { manual, rate, level, hold, level_height, heading_height };
constexpr bool keeps_height(Mode mode) { return mode == Mode::level_height || mode == Mode::heading_height; }
/// It brings the wings back to level.
constexpr bool levels_wings(Mode mode) { return mode == Mode::level || keeps_height(mode); }

template <>
struct Names<Remedy> {
  using R = Remedy;
  static constexpr std::array<std::pair<R, std::string_view>, 10> list{{{R::reverse_output, "reverse_output"},
                                                                        {R::swap_leads, "swap_leads"},
                                                                        {R::flip_mix, "flip_mix"},
                                                                        {R::reverse_transmitter, "reverse_transmitter"},
                                                                        {R::swap_transmitter, "swap_transmitter"},
                                                                        {R::flip_gyro, "flip_gyro"},
                                                                        {R::turn_board, "turn_board"},
                                                                        {R::check_output, "check_output"},
                                                                        {R::move_linkage, "move_linkage"},
                                                                        {R::reverse_function, "reverse_function"}}};
};

template <>
struct Names<Mode> {
  using M = Mode;
  static constexpr std::array<std::pair<M, std::string_view>, 6> list{{{M::manual, "manual"},
                                                                       {M::rate, "rate"},
                                                                       {M::level, "level"},
                                                                       {M::hold, "hold"},
                                                                       {M::level_height, "level_height"},
                                                                       {M::heading_height, "heading_height"}}};
};

}  // namespace rigging
