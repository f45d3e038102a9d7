#pragma once

#include <string>
#include <vector>

#include "airframe/airframe.h"
#include "base/figure.h"
#include "base/result.h"
#include "fit/fit.h"
#include "surfaces/surfaces.h"

/// The aeroplane in numbers: what the air does to it, from its own geometry. Estimates with bands.
namespace rigging {

struct Banded {
  double value = 0, least = 0, most = 0;
  bool operator==(const Banded&) const = default;
};

/// Changes of the coefficients of force and moment (Nelson, Flight Stability and Automatic Control, ch. 2, 3 and 5),
/// per radian; rates count as p·b/2V, q·c/2V, r·b/2V. Body axes about the balance point: side right, roll right, pitch
/// nose up, yaw nose right positive; lift up. The axes lie along the flight at cruise (Nelson's stability axes). Where
/// lift matters, the part per unit of lift coefficient stands by itself.
struct Stability {
  Banded lift_alpha, pitch_alpha, lift_q, pitch_q, pitch_alpha_dot;
  Banded side_beta, roll_beta, roll_beta_per_lift, yaw_beta;
  Banded side_p, roll_p, yaw_p, yaw_p_per_lift;
  Banded side_r, roll_r, roll_r_per_lift, yaw_r;
  bool operator==(const Stability&) const = default;
};

/// What one surface does, per radian of trailing edge up (rudder: right), on wing area, span and mean chord.
struct ControlEffect {
  Surface surface;
  double lift = 0, side = 0, roll = 0, pitch = 0, yaw = 0;
  double least = 1, most = 1;  ///< of these, as factors
  bool operator==(const ControlEffect&) const = default;
};

/// About the balance point in the axes of the drawing, kg·m²; `xz` is ∫ x·z dm.
struct Inertia {
  Banded roll, pitch, yaw;
  double xz = 0;

  /// The same about axes whose first lies below the drawing's by this angle, rad: along the flight of an aircraft that
  /// flies nose up by it.
  Inertia below(double alpha) const;
  bool operator==(const Inertia&) const = default;
};

struct Aeroplane {
  double mass_kg = 0;
  double wing_area_m2 = 0, span_m = 0, mean_chord_m = 0;
  double balance_m = 0;                        ///< behind the nose
  double highest_lift = 1.1, cruise_lift = 0;  ///< lift coefficients, before it stalls and in level flight at cruise
  /// Nose of the drawing's length axis above the flight at cruise, rad: the level attitude of senses/level.h.
  Banded trim_alpha;
  double stall_m_s = 0, cruise_m_s = 0, dive_m_s = 0;
  bool balance_assumed = false;  ///< not all of it is weighed and placed: the wanted balance point is taken
  Inertia inertia;
  Stability stability;
  std::vector<ControlEffect> controls;

  const ControlEffect* control(Surface surface) const;
  /// The numbers with their formulas and sources, for showing the working.
  std::vector<Figure> figures() const;
  bool operator==(const Aeroplane&) const = default;
};

/// From geometry: wing, tail, foreplane and fins by one vortex lattice (airframe/aircraft_lattice.h), symmetric for
/// angle of attack and pitching, antisymmetric for sideslip, rolling and turning, with flaps and rudders as added
/// incidence; the body after Munk, and as an end plate to its fin. Density of ISO 2533 at sea level. Not modelled:
/// propeller wash and torque, ground, flexing, separated flow: it holds from some tenths above the stall speed on.
/// Errors: no flying mass, no area, no chord: what is missing and at which station it is given.
Result<Aeroplane> aeroplane_of(const Rig& rig, const Catalogue& catalogue, const AirframeReport& airframe,
                               const Balance& balance);

/// Inertia of the parts as boxes where they sit, the frame spread over its drawing as builds weigh (lifting surfaces by
/// the square of their chord with a spar inside, the body by its skin), moved to the frame's own balance point. What is
/// left of the flying mass, parts without a place among it, counts as the frame. Band: 0.75 to 1.3 (from memory; placed
/// parts make it narrower, down to 0.85 to 1.15). An axis that was swung with this mass has what that told
/// (fit/swing.h).
Inertia inertia_of(const Rig& rig, const Catalogue& catalogue, const AirframeReport& airframe, const Balance& balance,
                   double mass_kg, const Point& about);

inline constexpr double air_density_kg_m3 = 1.225;  ///< ISO 2533, sea level

}  // namespace rigging
