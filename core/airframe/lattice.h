#pragma once

#include <memory>
#include <vector>

#include "airframe/planform.h"

namespace rigging {

/// One lifting surface in a lattice, right half; its mirror image is always there. What stands in the middle of the
/// aircraft, as a fin does, is its own image.
struct LatticeSurface {
  HalfSurface half;
  int chordwise = 3;  ///< rows
};

/// Lift of one surface per radian of the whole aircraft's angle of attack, in the presence of the others.
struct LatticeLoad {
  double lift_m2 = 0;    ///< dL/dα over dynamic pressure
  double moment_m3 = 0;  ///< nose up about the nose, dM/dα over dynamic pressure; negative for lift behind it
};

/// What the air does to the surfaces, over density and the square of the airspeed: forces in m², moments about a point
/// in m³. Body axes.
struct AirLoad {
  Point force = {0, 0, 0}, moment = {0, 0, 0};
};

/// Linear vortex lattice (horseshoe vortices at a quarter of each panel, flow condition at three quarters, wakes
/// straight aft; Katz and Plotkin, Low-Speed Aerodynamics, ch. 12), for flat surfaces at small angles without
/// compressibility. Wakes of one surface act on all others. All surfaces share their stations across the span, so that
/// no wake meets a control point; upright ones have stations of their own.
/// Not modelled: body, propeller, thickness, stall. Cost grows with the third power of the panels: some 70 panels take
/// about half a millisecond each way.
class Lattice {
 public:
  struct Panel {
    Point left, right;  ///< ends of the bound vortex
    Point control, normal;
    double width_m = 0;  ///< across the flow, as seen from above; of an upright one from the side
    double chord_m = 0;  ///< of the whole surface there
    std::size_t surface = 0;
    double from = 0, to = 1;  ///< shares of the surface's length, from its root to its tip, between which it lies
  };
  /// `across`: strips over the longest half span, 6 to 60; an upright surface has three at least.
  Lattice(const std::vector<LatticeSurface>& surfaces, int across);
  ~Lattice();
  Lattice(Lattice&&) noexcept;

  const std::vector<Panel>& panels() const { return panels_; }
  /// How the left half sees the same motion.
  enum class Left { the_same, the_opposite };
  /// Loads of each surface, both halves, about `about`. `through`: what of the undisturbed air goes through each panel
  /// along its normal, over the airspeed; a steady climb of the air at an angle a on a flat wing is a.
  std::vector<AirLoad> loads(const std::vector<double>& through, Left left, const Point& about) const;

 private:
  struct Solved;
  std::vector<Panel> panels_;
  std::size_t surfaces_ = 0;
  mutable std::unique_ptr<Solved> same_, opposite_;
  const Solved& solved(Left left) const;
};

/// Of each surface, for the whole aircraft's angle of attack.
std::vector<LatticeLoad> rising_loads(const Lattice& lattice);

}  // namespace rigging
