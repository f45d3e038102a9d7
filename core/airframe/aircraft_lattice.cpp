#include "airframe/aircraft_lattice.h"

#include <algorithm>

namespace rigging {
namespace {

constexpr int strips_across = 16;

std::shared_ptr<const AircraftLattice> made_of(const Planform& p) {
  using Part = AircraftLattice::Part;
  std::vector<Part> parts{Part::wing};
  std::vector<LatticeSurface> surfaces{{p.wing, 4}};
  const auto add = [&](const std::optional<HalfSurface>& half, Part part) {
    if (half) parts.push_back(part), surfaces.push_back({*half, 3});
  };
  add(p.tail, Part::tail);
  add(p.foreplane, Part::foreplane);
  add(p.fin, Part::fin);
  Lattice lattice(surfaces, strips_across);
  std::vector<LatticeLoad> rising = rising_loads(lattice);
  const double alone = p.tail ? rising_loads(Lattice({{*p.tail, 3}}, strips_across))[0].lift_m2 : 0;
  return std::make_shared<const AircraftLattice>(
      AircraftLattice{std::move(parts), std::move(surfaces), std::move(lattice), std::move(rising), alone});
}

}  // namespace

std::optional<std::size_t> AircraftLattice::index_of(Part part) const {
  const auto found = std::find(parts.begin(), parts.end(), part);
  if (found == parts.end()) return {};
  return static_cast<std::size_t>(found - parts.begin());
}

std::shared_ptr<const AircraftLattice> lattice_of(const Planform& p) {
  thread_local std::optional<Planform> known;
  thread_local std::shared_ptr<const AircraftLattice> lattice;
  if (!known || !(*known == p)) lattice = made_of(p), known = p;
  return lattice;
}

}  // namespace rigging
