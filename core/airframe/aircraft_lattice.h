#pragma once

#include <memory>
#include <vector>

#include "airframe/lattice.h"

namespace rigging {

/// The lattice of all that an aircraft flies on: wing, tail, foreplane and fins.
struct AircraftLattice {
  enum class Part { wing, tail, foreplane, fin };
  std::vector<Part> parts;  ///< in the order of the surfaces
  std::vector<LatticeSurface> surfaces;
  Lattice lattice;
  std::vector<LatticeLoad> rising;  ///< for the whole aircraft's angle of attack, of each surface
  double tail_alone_m2 = 0;         ///< the same of the tail in undisturbed air; 0 without one

  /// Where a part stands among the surfaces, or nothing.
  std::optional<std::size_t> index_of(Part part) const;
};

/// Kept for the shape that was last asked for in this thread: it takes most of the time of what rests on it, and most
/// edits leave the shape as it is.
std::shared_ptr<const AircraftLattice> lattice_of(const Planform& planform);

}  // namespace rigging
