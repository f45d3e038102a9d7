#pragma once

#include "direction/search.h"

namespace rigging::direction {

/// An aircraft as it really is, wired and set: everything that decides what is seen.
struct World {
  Routing transmitter{};
  Routing sensing{};
  /// Axes that the controller works the other way round than the case's mix says (`Case::mix_is_plan`).
  unsigned turned_functions = 0;
  /// Where levelling misses "down" (levelling.h): the board's turn and the axes that answer the wrong way round.
  std::optional<std::pair<Turn, unsigned>> misses_down;
  /// Per surface: the socket its lead sits in (−1: the output is dead) and its servo sign.
  std::vector<std::int8_t> socket, sign;

  /// Motion of the surface: −1, 0, +1; what is likeliest where `can_tell` is false.
  int motion(const Case& c, std::size_t surface, const Observation& o) const;
  /// False where levelling misses "down": then hand and eye can see more than one thing.
  bool can_tell(const Observation& o) const { return !misses_down || o.act != Act::tilt || o.mode != Mode::level; }
  /// Motions that can be seen, as `bit_of`.
  SeenBits motions(const Case& c, std::size_t surface, const Observation& o) const;
  /// What the channel does: −1, 0, +1.
  int channel(std::size_t channel, const Observation& o) const;
};

World world_of(const Case& c, const Search& search, const Found& found);
/// No value when undoing the faults does not leave a right aircraft.
std::optional<World> world_of(const Case& c, const std::vector<Fault>& faults);

/// The faults of one found explanation, in the order in which they are undone.
std::vector<Fault> faults_of(const Case& c, const Search& search, const Found& found);

}  // namespace rigging::direction
