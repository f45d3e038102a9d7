#include "flight/aeroplane.h"

#include <cmath>

#include "airframe/drag.h"
#include "base/angle.h"
#include "base/number.h"
#include "earth/gravity.h"
#include "flight/air_derivatives.h"
#include "senses/level.h"
#include "surfaces/air_loads.h"

namespace rigging {

const ControlEffect* Aeroplane::control(Surface surface) const {
  for (const ControlEffect& c : controls)
    if (c.surface == surface) return &c;
  return nullptr;
}

Result<Aeroplane> aeroplane_of(const Rig& rig, const Catalogue& catalogue, const AirframeReport& airframe,
                               const Balance& balance) {
  const std::string place = "airframe";
  const double mass = rig.airframe.mass_kg.value_or(balance.complete ? balance.total.value : 0);
  if (mass <= 0)
    return failure(place, "the flying mass is not known",
                   "the flying mass at station airframe, or frame and parts weighed at station fit");
  Aeroplane a;
  a.mass_kg = mass;
  a.wing_area_m2 = airframe.wing_area.value;
  a.span_m = rig.airframe.span_m;
  a.mean_chord_m = airframe.mean_chord.value;
  if (a.wing_area_m2 <= 0 || a.mean_chord_m <= 0) return failure(place, "the wing has no area", "a span and chords");
  a.balance_assumed = !balance.complete;
  a.balance_m = balance.likely_m();
  const Point about(-a.balance_m, 0, 0);
  a.inertia = inertia_of(rig, catalogue, airframe, balance, mass, about);
  if (!(a.inertia.roll.value > 0 && a.inertia.pitch.value > 0 && a.inertia.yaw.value > 0))
    return failure(place, "the aircraft has no extent to turn", "its frame weighed at fit, or its parts placed");
  const auto stall = stall_speed(rig.airframe);
  if (const auto speeds = speeds_of(rig, airframe)) a.cruise_m_s = speeds->cruise, a.dive_m_s = speeds->dive;
  if (stall) a.stall_m_s = stall->value;
  if (!(a.cruise_m_s > 0) || !(a.stall_m_s > 0))
    return failure(place, "the flying mass is not known", "the flying mass at station airframe");

  a.highest_lift = highest_lift(rig.airframe.kind).value;
  a.cruise_lift = mass * standard_gravity / (air_density_kg_m3 / 2 * a.cruise_m_s * a.cruise_m_s * a.wing_area_m2);
  // As the level attitude of the board, whose floor is the drawing's length axis.
  a.trim_alpha = {0, -3 * rad, 3 * rad};
  if (const auto up = analyze_level(rig.airframe, airframe, a.balance_m).nose_up)
    a.trim_alpha = {up->value * rad, up->least.value_or(up->value) * rad, up->most.value_or(up->value) * rad};
  add_air_derivatives(rig, airframe, a);
  return a;
}

std::vector<Figure> Aeroplane::figures() const {
  std::vector<Figure> all;
  const auto add = [&all](const char* name, const Banded& e, const char* unit, const char* formula,
                          const char* source) {
    all.push_back({name, e.value, unit, std::min(e.least, e.most), std::max(e.least, e.most), formula, source});
  };
  const char* parts =
      "parts as boxes where they sit, the frame by the square of its chords, its spar and the skin of its body";
  add("Inertia about the roll axis", inertia.roll, "kg·m²", parts, "mechanics; band from memory");
  add("Inertia about the pitch axis", inertia.pitch, "kg·m²", parts, "mechanics; band from memory");
  add("Inertia about the yaw axis", inertia.yaw, "kg·m²", parts, "mechanics; band from memory");
  const char* lattice = "vortex lattice (Katz and Plotkin, Low-Speed Aerodynamics, ch. 12)";
  const char* fins = "vortex lattice, a body as end plate of its fin; body after Munk (NACA report 184)";
  const Stability& s = stability;
  add("Lift slope CLα", s.lift_alpha, "/rad", "lift of all surfaces over the wing's area", lattice);
  add("Pitch stiffness Cmα", s.pitch_alpha, "/rad", "−CLα · (neutral point − balance point) / mean chord",
      balance_assumed
          ? "definition; band of the neutral point and 5 % of the slope. The balance point is assumed: weighing "
            "the parts at station fit narrows it most"
          : "definition; band of the neutral point, most of it what the body takes, and 5 % of the slope");
  add("Pitch damping Cmq", s.pitch_q, "", "surfaces moved up and down by the pitching, per q·c/2V", lattice);
  add("Cmα̇", s.pitch_alpha_dot, "", "−2 · tail volume · lift slope · downwash slope · way to the tail / c",
      "Nelson, Flight Stability and Automatic Control, ch. 3");
  add("Side force CYβ", s.side_beta, "/rad", "surfaces with a dihedral, and fins", fins);
  add("Dihedral effect Clβ", s.roll_beta, "/rad", "surfaces with a dihedral, and fins; sweep adds with lift", fins);
  add("Weathercock Cnβ", s.yaw_beta, "/rad", "fins and V behind the balance point, less the body", fins);
  add("Roll damping Clp", s.roll_p, "", "wing and tail moved up and down by the rolling, per p·b/2V", fins);
  add("Yaw damping Cnr", s.yaw_r, "", "fins and V moved to the side by the turning, per r·b/2V", fins);
  for (const ControlEffect& c : controls) {
    const auto effect = [&](const char* on, double v) {
      if (std::abs(v) < 1e-4) return;
      const std::string name = capital(c.surface.label()) + ", " + on;
      all.push_back({name, v, "/rad", std::min(v * c.least, v * c.most), std::max(v * c.least, v * c.most),
                     "its strips at an added incidence of τ · 0.8, edge up (rudder: right) positive",
                     "vortex lattice; thin aerofoil theory (Glauert); 0.8 for real flow, common practice"});
    };
    effect("roll", c.roll);
    effect("pitch", c.pitch);
    effect("yaw", c.yaw);
  }
  return all;
}

}  // namespace rigging
