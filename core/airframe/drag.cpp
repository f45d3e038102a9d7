#include "airframe/drag.h"

#include <cmath>
#include <numbers>

#include "airframe/planform.h"
#include "base/number.h"
#include "earth/gravity.h"

namespace rigging {
namespace {

constexpr double density_kg_m3 = 1.225;       // ISO 2533, sea level
constexpr double viscosity_m2_s = 1.4607e-5;  // kinematic, ISO 2533, sea level
constexpr double gravity_m_s2 = standard_gravity;
constexpr double span_yield = 0.8;  // e of the induced drag, common practice
constexpr double thickness = 0.1;   // of wing and tail, share of the chord

double friction(double m_s, double length_m) {
  return 0.074 / std::pow(std::max(1e4, m_s * length_m / viscosity_m2_s), 0.2);
}

double plate(double area_m2, double chord_m, double m_s) {
  return 2 * area_m2 * friction(m_s, chord_m) * (1 + 2 * thickness + 60 * std::pow(thickness, 4));
}

double wing_area(const Airframe& a) { return a.span_m * (a.root_chord_m + a.tip_chord_m) / 2; }

std::string n(double v, int places = 3) { return number_text(v, places); }

}  // namespace

double Drag::at(double m_s, double mass_kg, double parasite) const {
  const double q = density_kg_m3 / 2 * m_s * m_s, weight = mass_kg * gravity_m_s2;
  return q * parasite + induced_per_m2 * weight * weight / q;
}

Drag drag_of(const Airframe& a, double m_s) {
  const Planform p = planform_of(a);
  double surfaces = 0;
  for (const HalfSurface* h : {&p.wing, p.tail ? &*p.tail : nullptr, p.foreplane ? &*p.foreplane : nullptr})
    if (h) surfaces += plate(h->panel_area_m2(), h->mean_chord_m(), m_s);
  if (!has_v(a.kind)) surfaces += plate(a.fin_height_m * a.fin_chord_m * 0.8, a.fin_chord_m, m_s);
  const BodySize body = body_of(a);
  const double fineness = std::max(2.0, body.length_m / (2 * body.half_width_m));
  const double wetted =
      2 * std::numbers::pi * std::hypot(body.half_width_m, body.half_height_m) / std::sqrt(2.0) * body.length_m * 0.75;
  const double hull = wetted * friction(m_s, body.length_m) * (1 + 60 / std::pow(fineness, 3) + fineness / 400);
  Drag d;
  const double clean = 1.1 * (surfaces + hull);
  d.parasite_m2 = 1.4 * clean;
  d.parasite_least_m2 = 1.1 * clean;
  d.parasite_most_m2 = 2.0 * clean;
  d.induced_per_m2 = 1 / (std::numbers::pi * span_yield * a.span_m * a.span_m);
  d.working = "drag area (" + n(1e4 * surfaces, 0) + " cm² of wing and tail + " + n(1e4 * hull, 0) +
              " cm² of body) × 1.1 × 1.4 = " + n(1e4 * d.parasite_m2, 0) + " cm²";
  return d;
}

HighestLift highest_lift(AirframeKind kind) {
  if (!has_tail(kind) && !has_foreplane(kind)) return {0.85, 0.75, 0.95};
  if (!has_tail(kind)) return {0.95, 0.8, 1.1};
  return {};
}

std::optional<Figure> stall_speed(const Airframe& a) {
  if (!a.mass_kg) return std::nullopt;
  const auto at = [&](double lift) {
    return std::sqrt(2 * *a.mass_kg * gravity_m_s2 / (density_kg_m3 * wing_area(a) * lift));
  };
  const HighestLift lift = highest_lift(a.kind);
  return Figure{"Stall speed",
                at(lift.value),
                "m/s",
                at(lift.most),
                at(lift.least),
                "√(2·m·g / (ρ·S·" + n(lift.value, 2) + "))",
                "level flight; highest lift coefficient of this kind " + n(lift.least, 2) + " to " + n(lift.most, 2) +
                    ", common practice"};
}

std::optional<Figure> cruise_speed(const Airframe& a) {
  if (a.cruise_m_s)
    return Figure{"Cruise speed",
                  *a.cruise_m_s,
                  "m/s",
                  0.9 * *a.cruise_m_s,
                  1.1 * *a.cruise_m_s,
                  "as flown",
                  "measured; within a tenth"};
  const auto stall = stall_speed(a);
  if (!stall) return std::nullopt;
  return Figure{"Cruise speed",      1.6 * stall->value,           "m/s", 1.4 * stall->value, 1.9 * stall->value,
                "1.6 × stall speed", "common practice, 1.4 to 1.9"};
}

}  // namespace rigging
