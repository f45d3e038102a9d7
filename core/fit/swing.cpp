#include "fit/swing.h"

#include <cmath>

#include "base/angle.h"
#include "base/fields.h"
#include "base/number.h"
#include "earth/gravity.h"
#include "fit/fit.h"
#include "power/power.h"

namespace rigging {

Figure swung_inertia(const Swing& s) {
  constexpr double time_s = 0.03, apart_m = 0.002, length_m = 0.005, mass = 0.01, other = 0.02;  // of one period
  const double value =
      s.mass_kg * standard_gravity * s.apart_m * s.apart_m * s.period_s * s.period_s / (16 * pi * pi * s.length_m);
  const double share = std::sqrt(std::pow(2 * time_s / s.period_s, 2) + std::pow(2 * apart_m / s.apart_m, 2) +
                                 std::pow(length_m / s.length_m, 2) + mass * mass + other * other);
  return {"Inertia about the " + std::string(name_of(s.axis)) + " axis",
          value,
          "kg·m²",
          value * (1 - std::min(share, 0.9)),
          value * (1 + share),
          "m·g·d²·T² / (16·π²·L), " + number_text(s.mass_kg, 3) + " kg, " + number_text(s.apart_m, 3) + " m apart, " +
              number_text(s.period_s, 2) + " s, " + number_text(s.length_m, 2) + " m long",
          "swing test (bifilar pendulum)"};
}

bool counts(const Swing& s, double mass_kg) { return std::abs(s.mass_kg - mass_kg) <= 0.05 * mass_kg; }
bool counts(const Swing& s, const Rig& rig) { return !rig.airframe.mass_kg || counts(s, *rig.airframe.mass_kg); }

std::string hanging_words(Axis axis) {
  switch (axis) {
    case Axis::roll: return "Nose straight up, a string at the same place of either wing";
    case Axis::pitch:
      return "On its side, one wing straight down, strings at nose and tail as far from the balance point";
    case Axis::yaw:
      return "Level, as it flies, a string at the same place of either wing, in line with the balance point";
  }
  return {};
}

Result<Edit> take_swing(const Rig& rig, const Catalogue& catalogue, Axis axis, double apart_m, double length_m,
                        double period_s) {
  Swing s;
  s.axis = axis, s.apart_m = apart_m, s.length_m = length_m, s.period_s = period_s;
  s.mass_kg = rig.airframe.mass_kg.value_or(0);
  if (s.mass_kg <= 0) {
    const FitReport fit = analyze_fit(rig, catalogue, analyze_airframe(rig), analyze_power(rig, catalogue));
    if (fit.balance.complete) s.mass_kg = fit.balance.total.value;
  }
  if (s.mass_kg <= 0)
    return failure("swing", "the flying mass is not known",
                   "the flying mass at station airframe, or frame and parts weighed at station fit");
  if (const auto good = in_range(s, "swing"); !good) return tl::make_unexpected(good.error());
  // No mass sits farther from the axis than the aircraft reaches.
  const double half_span = rig.airframe.span_m / 2, length = rig.airframe.length_m;
  const double reach = axis == Axis::roll ? half_span : axis == Axis::pitch ? length : std::hypot(half_span, length);
  if (const double radius = std::sqrt(swung_inertia(s).value / s.mass_kg); radius > reach)
    return failure("swing",
                   "the mass would lie " + number_text(radius, 2) +
                       " m from the axis on the mean, and the aircraft reaches " + number_text(reach, 2) + " m",
                   "metres between the strings, their length in metres, seconds of one whole swing");
  Edit e{rig, "Swing test about the " + std::string(name_of(axis)) + " axis"};
  std::erase_if(e.rig.fit.swings, [axis](const Swing& other) { return other.axis == axis; });
  e.rig.fit.swings.push_back(s);
  return e;
}

}  // namespace rigging
