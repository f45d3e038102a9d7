#pragma once

#include "airframe/airframe.h"
#include "base/figure.h"
#include "catalogue/catalogue.h"
#include "surfaces/surfaces.h"

/// What the air does to a deflected surface: how strongly it turns the aircraft, and how hard it pulls at the servo.
/// Estimates with bands.
namespace rigging {

/// Thin aerofoil theory (Glauert) for a plain flap that is the share `flap_chord` (0 to 1) of the chord.
/// Lift of the whole section per flap angle over lift per incidence: 1 − (θ − sin θ)/π, θ = arccos(2·share − 1).
double flap_effectiveness(double flap_chord);
/// Hinge moment coefficient per radian of flap angle, on the flap's own chord squared; negative: it resists. −π/2 for
/// an all-moving surface turned about its leading edge, by numerical integration of the loading, relative error under
/// 1e-4.
double hinge_moment_slope(double flap_chord);

/// The hinged part as it stands in the drawing of the aircraft, with its chord as measured where it was.
struct SurfaceShape {
  double area_m2 = 0;  ///< behind the hinge
  double chord_m = 0;  ///< mean, behind the hinge
  double share = 1;    ///< of the whole chord there
  bool all_moving = false;
};
std::optional<SurfaceShape> shape_of(const Rig& rig, Surface surface);
/// Hinge to trailing edge where throws are read, metres: the linkage's own, else from the drawing, else 50 mm.
double chord_of(const Rig& rig, Surface surface);
/// Of the servo that works a surface; null when it is not known.
const ServoFigures* servo_figures(const Rig& rig, const Catalogue& catalogue, Surface surface);
/// Of the servo that works a surface, µs; 5 when it is not known.
double dead_band_us(const Rig& rig, const Catalogue& catalogue, Surface surface);

/// Speeds at which servo loads are looked at, m/s.
struct Speeds {
  double cruise = 0, fast = 0, dive = 0;
  bool estimated = false;  ///< fast or dive were not given: 1.5 and 2.2 times cruise (common practice)
};
std::optional<Speeds> speeds_of(const Rig& rig, const AirframeReport& airframe);

/// What of its stall torque a servo can work at without growing hot and slow; common practice.
inline constexpr double working_share = 0.5;

struct ServoLoad {
  Surface surface;
  std::string servo;    ///< part; empty when no servo is known for it
  double full_deg = 0;  ///< larger of both throws
  struct At {
    double speed_m_s = 0;
    double hinge_low_nm = 0, hinge_high_nm = 0;    ///< at full throw
    double torque_low_nm = 0, torque_high_nm = 0;  ///< asked of the servo through the linkage
    double share_low = 0, share_high = 0;          ///< of what the servo has
    std::optional<double> blown_back_deg;          ///< deflection that it can hold at the high end; absent: all of it
    double amps_low = 0, amps_high = 0;            ///< that holding it draws
    bool operator==(const At&) const = default;
  };
  At cruise, fast, dive;
  double available_nm = 0;  ///< stall torque
  std::string verdict;
  bool operator==(const ServoLoad&) const = default;
};

/// One load per surface with a known speed; empty without a flying mass. The hinge moment of thin aerofoil theory is
/// taken between 0.5 and 1.2 times: gaps and thick boundary layers take from it, horns and incidence add (from memory,
/// a band and not a number).
std::vector<ServoLoad> analyze_loads(const Rig& rig, const Catalogue& catalogue, const AirframeReport& airframe,
                                     const SurfacesReport& surfaces);

}  // namespace rigging
