#pragma once

#include <vector>

#include "airframe/planform.h"

namespace rigging {

/// One lifting surface in a lattice, right half; its mirror image is always there.
struct LatticeSurface {
  HalfSurface half;
  int chordwise = 3;  ///< rows
};

/// Lift of one surface per radian of the whole aircraft's angle of attack, in the presence of the others.
struct LatticeLoad {
  double lift_m2 = 0;    ///< dL/dα over dynamic pressure
  double moment_m3 = 0;  ///< nose up about the nose, dM/dα over dynamic pressure; negative for lift behind it
};

/// Linear vortex lattice (horseshoe vortices at a quarter of each panel, flow condition at three quarters, wakes
/// straight aft; Katz and Plotkin, Low-Speed Aerodynamics, ch. 12), for flat surfaces at small angles without
/// compressibility. Wakes of one surface act on all others. All surfaces share their stations across the span, so that
/// no wake meets a control point. `across`: strips over the longest half span, 6 to 60.
/// Not modelled: body, propeller, thickness, stall. Cost grows with the third power of the panels: some 70 panels take
/// about half a millisecond.
std::vector<LatticeLoad> lattice_loads(const std::vector<LatticeSurface>& surfaces, int across);

}  // namespace rigging
