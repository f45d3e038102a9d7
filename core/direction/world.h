#pragma once

#include "direction/search.h"

namespace rigging::direction {

/// An aircraft as it really is, wired and set: everything that decides what is seen.
struct World {
  Routing transmitter{};
  Routing sensing{};
  /// Per surface: the socket its lead sits in (−1: the output is dead) and its servo sign.
  std::vector<std::int8_t> socket, sign;

  /// Motion of the surface: −1, 0, +1.
  int motion(const Case& c, std::size_t surface, const Observation& o) const;
  /// What the channel does: −1, 0, +1.
  int channel(std::size_t channel, const Observation& o) const;
};

World world_of(const Case& c, const Search& search, const Found& found);
/// No value when undoing the faults does not leave a right aircraft.
std::optional<World> world_of(const Case& c, const std::vector<Fault>& faults);

/// The faults of one found explanation, in the order in which they are undone.
std::vector<Fault> faults_of(const Case& c, const Search& search, const Found& found);

}  // namespace rigging::direction
