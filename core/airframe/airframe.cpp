#include "airframe/airframe.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "airframe/aircraft_lattice.h"
#include "airframe/drag.h"
#include "base/number.h"

namespace rigging {
namespace {

void work_out_neutral_point(const Airframe& a, AirframeReport& r) {
  const Planform planform = planform_of(a);
  const auto lattice = lattice_of(planform);
  const std::vector<LatticeLoad>& loads = lattice->rising;
  using Part = AircraftLattice::Part;
  double lift = 0, moment = 0, slow_lift = 0, slow_moment = 0;
  constexpr double slow_air = 0.85;  // share of the dynamic pressure left behind wing and body; common practice
  for (std::size_t i = 0; i < loads.size(); ++i) {
    const double share = lattice->parts[i] == Part::tail ? slow_air : 1;
    lift += loads[i].lift_m2;
    moment += loads[i].moment_m3;
    slow_lift += share * loads[i].lift_m2;
    slow_moment += share * loads[i].moment_m3;
  }
  std::string shares;
  for (std::size_t i = 0; i < loads.size(); ++i) {
    if (lattice->parts[i] == Part::fin) continue;
    const std::string part = lattice->parts[i] == Part::wing   ? "wing"
                             : lattice->parts[i] == Part::tail ? "tail"
                                                               : "foreplane";
    const HalfSurface& h = lattice->surfaces[i].half;
    const auto guess = [&](const std::string& name) { return name.rfind(part + "_", 0) == 0; };
    r.surfaces.push_back({part, h.span_m(), h.root_chord_m, h.tip_chord_m, h.mean_chord_m(), h.area_m2(), -h.root.x(),
                          h.quarter_chord_m(), loads[i].lift_m2 / lift,
                          std::any_of(planform.guessed.begin(), planform.guessed.end(), guess)});
    shares += (shares.empty() ? "" : " + ") + part + " " + number_text(100 * loads[i].lift_m2 / lift, 0) + " % at " +
              number_text(-loads[i].moment_m3 / loads[i].lift_m2, 3) + " m";
  }
  const double np = -moment / lift, mac = planform.wing.mean_chord_m();
  // A slender body in a stream at an angle: 2·volume per radian, nearly (Munk).
  const double by_body = 2 * 0.9 * body_of(a).volume_m3();
  const double forward = -(slow_moment + by_body) / slow_lift;
  const auto of_chord = [&](double way_m) { return number_text(100 * way_m / mac, 0) + " % of it"; };
  r.lift_slope_per_rad = lift / planform.wing.area_m2();
  r.neutral_point = {
      "Neutral point behind the nose",
      np,
      "m",
      std::min(forward, np) - 0.015 * mac,
      np + 0.015 * mac,
      "lift of " + shares,
      "vortex lattice (Katz and Plotkin, Low-Speed Aerodynamics, ch. 12), without body. Band: 1.5 % of "
      "the mean chord, and forward by the body (" +
          of_chord(by_body / lift) + "; Munk, NACA report 184)" +
          (planform.tail ? " and a tail in 15 % slower air (" + of_chord(np + slow_moment / slow_lift) + ")"
                         : std::string())};
}

}  // namespace

std::vector<Figure> AirframeReport::figures() const {
  std::vector<Figure> all{wing_area, mean_chord, aspect_ratio};
  for (const auto& f : {wing_loading, stall_speed, cruise_speed})
    if (f) all.push_back(*f);
  all.push_back(neutral_point);
  return all;
}

AirframeReport analyze_airframe(const Rig& rig) {
  const Airframe& a = rig.airframe;
  AirframeReport r;
  r.panels = aircraft_panels(a);
  for (const Output& o : rig.outputs)
    for (const Surface s : o.surfaces)
      for (const Axis axis : all_axes)
        if (o.mix.of(axis) != 0 && required_direction(s, axis) != 0)
          r.answers.push_back({s, axis, required_direction(s, axis)});

  const auto n = [](double v, int places = 3) { return number_text(v, places); };
  const double area = a.span_m * (a.root_chord_m + a.tip_chord_m) / 2;
  const double taper = a.tip_chord_m / a.root_chord_m;
  const double mac = 2.0 / 3 * a.root_chord_m * (1 + taper + taper * taper) / (1 + taper);
  const double ratio = a.span_m * a.span_m / area;
  r.wing_area = {"Wing area", area, "m²",
                 {},          {},   n(a.span_m) + " m × (" + n(a.root_chord_m) + " m + " + n(a.tip_chord_m) + " m) / 2",
                 "trapezium"};
  r.mean_chord = {"Mean chord",
                  mac,
                  "m",
                  {},
                  {},
                  "2/3 · root · (1 + t + t²) / (1 + t), t = " + n(taper),
                  "mean aerodynamic chord of a trapezium"};
  r.aspect_ratio = {"Aspect ratio", ratio, "", {}, {}, "span² / area", "definition"};

  work_out_neutral_point(a, r);

  if (a.mass_kg) {
    const double loading = *a.mass_kg / area;
    r.wing_loading =
        Figure{"Wing loading", loading, "kg/m²", {}, {}, n(*a.mass_kg) + " kg / " + n(area) + " m²", "definition"};
    r.stall_speed = stall_speed(a);
    r.cruise_speed = cruise_speed(a);
  }
  return r;
}

}  // namespace rigging
