#include "language/typed_value.h"

#include "base/number.h"
#include "base/units.h"
#include "language/measures.h"
#include "language/typed.h"

namespace rigging {

namespace {

/// What may be a hundred metres and more is said in metres, also where the bench counts in millimetres.
Shown shown_of(const Member& m) {
  constexpr double far_m = 100;
  const std::string_view unit = unit_of_name(m.name);
  if (unit != "m" || m.span.most < far_m) return shown(unit);
  return unit_system() == UnitSystem::metric ? Shown{1, "m", 1} : Shown{1 / unit_named("ft")->worth, "ft", 0};
}

}  // namespace

Result<double> typed_value(const Member& m, std::string_view text) {
  const Shown s = shown_of(m);
  const auto number = typed_number(text, s.unit);
  if (!number) return tl::make_unexpected(number.error());
  const auto fits = [&](double v) { return v >= m.span.least - 1e-9 && v <= m.span.most + 1e-9; };
  // Nobody types more than fifteen figures: 1.9 m is not 1.8999999999999997 for having been millimetres on the way.
  const double value = of_fifteen_figures(*number / s.factor);
  if (fits(value)) return value;
  if (text.find_first_not_of("0123456789., -") == std::string_view::npos && fits(*number)) return *number;
  return failure(m.label, value_text(m, value) + " is out of its range",
                 value_text(m, m.span.least) + " to " + value_text(m, m.span.most));
}

std::string value_text(const Member& m, double value) {
  const Shown s = shown_of(m);
  const bool degrees = s.unit == "°";
  return number_text(value * s.factor, degrees ? 1 : s.places) + (degrees ? "" : " ") + std::string(s.unit);
}

}  // namespace rigging
