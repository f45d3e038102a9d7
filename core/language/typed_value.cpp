#include "language/typed_value.h"

#include "base/number.h"
#include "base/units.h"
#include "language/typed.h"

namespace rigging {

Result<double> typed_value(const Member& m, std::string_view text) {
  const Shown s = shown(unit_of_name(m.name));
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
  const Shown s = shown(unit_of_name(m.name));
  const bool degrees = s.unit == "°";
  return number_text(value * s.factor, degrees ? 1 : s.places) + (degrees ? "" : " ") + std::string(s.unit);
}

}  // namespace rigging
