#include "airframe/airframe.h"

#include <cmath>
#include <numbers>

#include "airframe/kinds.h"
#include "base/number.h"

namespace rigging {
namespace {

constexpr double density_kg_m3 = 1.225;   // ISO 2533, sea level
constexpr double gravity_m_s2 = 9.80665;  // 3rd CGPM, 1901

/// Lift slope of a finite wing per radian: Helmbold's formula.
double lift_slope(double aspect_ratio) {
  const double pi = std::numbers::pi;
  return 2 * pi * aspect_ratio / (2 + std::sqrt(aspect_ratio * aspect_ratio + 4));
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

  // Neutral point: wing at a quarter of its mean chord, tail or foreplane by its volume, with half of the downwash seen
  // by a tail.
  const double y_mac = a.span_m / 6 * (1 + 2 * taper) / (1 + taper);
  const double wing_ac = a.wing_at_m + std::tan(a.sweep_deg * std::numbers::pi / 180) * y_mac + mac / 4;
  const bool none = a.kind == AirframeKind::flying_wing || a.kind == AirframeKind::flying_wing_rudders;
  const bool front = a.kind == AirframeKind::canard || a.kind == AirframeKind::canard_delta;
  double np = wing_ac;
  std::string formula = "wing only: quarter of the mean chord";
  if (!none) {
    const double tail_area = a.tail_span_m * a.tail_chord_m * (front ? 0.65 : 0.875);
    const double tail_ac = front ? 0.1 * a.length_m + a.tail_chord_m * 0.3 : a.length_m - a.tail_chord_m * 0.75;
    const double tail_slope = lift_slope(a.tail_span_m * a.tail_span_m / tail_area), wing_slope = lift_slope(ratio);
    const double downwash = front ? 0 : 2 * wing_slope / (std::numbers::pi * ratio);
    const double weight = tail_slope / wing_slope * tail_area / area * (1 - downwash);
    np = (wing_ac + weight * tail_ac) / (1 + weight);
    formula =
        "(wing at " + n(wing_ac) + " m + " + n(weight) + " × tail at " + n(tail_ac) + " m) / (1 + " + n(weight) + ")";
  }
  r.neutral_point = {"Neutral point behind the nose",
                     np,
                     "m",
                     np - 0.05 * mac,
                     np + 0.05 * mac,
                     formula,
                     "lift slopes by Helmbold; body left out, so a band of ±5 % of the mean chord"};

  if (a.mass_kg) {
    const double loading = *a.mass_kg / area;
    r.wing_loading =
        Figure{"Wing loading", loading, "kg/m²", {}, {}, n(*a.mass_kg) + " kg / " + n(area) + " m²", "definition"};
    const auto stall = [&](double lift) {
      return std::sqrt(2 * *a.mass_kg * gravity_m_s2 / (density_kg_m3 * area * lift));
    };
    r.stall_speed = Figure{"Stall speed",
                           stall(1.1),
                           "m/s",
                           stall(1.3),
                           stall(0.9),
                           "√(2·m·g / (ρ·S·1.1))",
                           "level flight; highest lift coefficient 0.9 to 1.3, common practice"};
    r.cruise_speed = Figure{"Cruise speed",
                            1.6 * stall(1.1),
                            "m/s",
                            1.4 * stall(1.1),
                            1.9 * stall(1.1),
                            "1.6 × stall speed",
                            "common practice, 1.4 to 1.9"};
  }
  return r;
}

}  // namespace rigging
