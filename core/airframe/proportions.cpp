#include "airframe/proportions.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "airframe/kinds.h"
#include "airframe/planform.h"

namespace rigging {
namespace {

/// Lengths as shares of the span.
struct Proportions {
  double root, tip, length, wing_at, tail_span, tail_chord, fin_height, fin_chord;
  double sweep_deg, dihedral_deg, v_angle_deg;
  double kg_per_m3;  ///< flying mass by wing area to the power of 1.5
};

Proportions proportions_of(AirframeKind kind) {
  using A = AirframeKind;
  switch (kind) {
    case A::rudder_only: return {0.16, 0.13, 0.72, 0.21, 0.32, 0.095, 0.134, 0.112, 0, 6, 35, 6};
    case A::v_tail: return {0.15, 0.12, 0.68, 0.2, 0.3, 0.095, 0.12, 0.1, 0, 2, 39, 7};
    case A::inverted_v_tail: return {0.15, 0.12, 0.7, 0.21, 0.27, 0.088, 0.1, 0.08, 0, 2, 39, 7};
    case A::flaperons_inverted_v_tail: return {0.145, 0.115, 0.64, 0.19, 0.245, 0.083, 0.09, 0.078, 2, 2, 38, 7};
    case A::flying_wing: return {0.28, 0.16, 0.46, 0.06, 0.3, 0.1, 0.14, 0.14, 26, 1, 35, 7};
    case A::flying_wing_rudders: return {0.28, 0.16, 0.46, 0.06, 0.3, 0.1, 0.15, 0.14, 26, 1, 35, 7};
    case A::canard: return {0.17, 0.11, 0.72, 0.46, 0.34, 0.085, 0.25, 0.205, 12, 1, 35, 8};
    case A::canard_delta: return {0.6, 0.13, 1.15, 0.45, 0.4, 0.13, 0.27, 0.295, 42, 0, 35, 8};
    case A::tailerons: return {0.32, 0.14, 1.2, 0.42, 0.5, 0.17, 0.252, 0.226, 28, 0, 35, 10};
    case A::tailerons_canards: return {0.32, 0.14, 1.25, 0.46, 0.45, 0.16, 0.24, 0.216, 28, 0, 35, 10};
    case A::twin_differential: return {0.15, 0.12, 0.68, 0.2, 0.31, 0.09, 0.127, 0.116, 0, 2, 35, 8};
    case A::motor_glider: return {0.1, 0.065, 0.54, 0.15, 0.22, 0.058, 0.09, 0.075, 0, 4, 35, 5};
    case A::towed_glider: return {0.1, 0.065, 0.54, 0.15, 0.22, 0.058, 0.09, 0.075, 0, 4, 35, 4};
    case A::aileron_y_lead:
    case A::aileron_elevator:
    case A::two_ailerons:
    case A::flaperons: break;
  }
  return {0.157, 0.13, 0.71, 0.21, 0.32, 0.093, 0.134, 0.117, 0, 2, 35, 7};
}

/// What may be a guess, and what it follows from.
struct Guessable {
  const char* name;
  double Airframe::*value;
  double (*usual)(const Airframe&, const Proportions&);
};

const std::array<Guessable, 11>& guessable() {
  using A = Airframe;
  using P = Proportions;
  static const std::array<Guessable, 11> all{
      {{"root_chord_m", &A::root_chord_m, [](const A& a, const P& p) { return p.root * a.span_m; }},
       {"tip_chord_m", &A::tip_chord_m, [](const A& a, const P& p) { return p.tip / p.root * a.root_chord_m; }},
       {"sweep_deg", &A::sweep_deg, [](const A&, const P& p) { return p.sweep_deg; }},
       {"dihedral_deg", &A::dihedral_deg, [](const A&, const P& p) { return p.dihedral_deg; }},
       {"length_m", &A::length_m, [](const A& a, const P& p) { return p.length * a.span_m; }},
       {"wing_at_m", &A::wing_at_m, [](const A& a, const P& p) { return p.wing_at / p.length * a.length_m; }},
       {"tail_span_m", &A::tail_span_m, [](const A& a, const P& p) { return p.tail_span * a.span_m; }},
       {"tail_chord_m", &A::tail_chord_m, [](const A& a, const P& p) { return p.tail_chord * a.span_m; }},
       {"fin_height_m", &A::fin_height_m, [](const A& a, const P& p) { return p.fin_height * a.span_m; }},
       {"fin_chord_m", &A::fin_chord_m, [](const A& a, const P& p) { return p.fin_chord * a.span_m; }},
       {"v_angle_deg", &A::v_angle_deg, [](const A&, const P& p) { return p.v_angle_deg; }}}};
  return all;
}

constexpr const char* mass = "mass_kg";

bool is_guessed(const Airframe& a, const char* name) {
  return std::find(a.guessed.begin(), a.guessed.end(), name) != a.guessed.end();
}

/// Whole millimetres or tenths of a degree: a guess is not sharper.
double rounded(double value, const char* name) {
  const double steps = std::string_view(name).ends_with("_deg") ? 10 : 1000;
  return std::max(std::round(value * steps), std::string_view(name).ends_with("_deg") ? value * steps : 1.0) / steps;
}

}  // namespace

Airframe with_guesses_following(Airframe a) {
  const Proportions p = proportions_of(a.kind);
  for (const Guessable& g : guessable())
    if (is_guessed(a, g.name)) a.*g.value = rounded(g.usual(a, p), g.name);
  if (is_guessed(a, mass)) {
    const double kg = p.kg_per_m3 * std::pow(planform_of(a).wing.area_m2(), 1.5);
    a.mass_kg = std::clamp(kg < 1 ? std::round(kg * 100) / 100 : std::round(kg * 20) / 20, 0.02, 150.0);
  }
  return a;
}

Airframe usual_airframe(AirframeKind kind, double span_m) {
  Airframe a;
  a.kind = kind;
  a.span_m = span_m;
  for (const Guessable& g : guessable()) a.guessed.emplace_back(g.name);
  a.guessed.emplace_back(mass);
  return with_guesses_following(std::move(a));
}

std::vector<std::string> guesses_of(const Airframe& a) {
  std::vector<std::string> names;
  for (const std::string& name : a.guessed) {
    const bool tail = name.starts_with("tail_") && !has_tail(a.kind) && !has_foreplane(a.kind);
    const bool fin = name.starts_with("fin_") && has_v(a.kind);
    const bool v = name == "v_angle_deg" && !has_v(a.kind);
    const Member* m = Described<Airframe>::members().named(name);
    if (m && !tail && !fin && !v) names.emplace_back(*m->label ? m->label : m->name);
  }
  return names;
}

}  // namespace rigging
