#include "base/figure.h"

#include <cmath>

#include "base/number.h"
#include "base/units.h"

namespace rigging {

std::string figure_text(const Figure& f) {
  const Shown s = shown(f.unit);
  const int places = s.unit == f.unit && s.factor == 1 && f.unit != "m/s" && std::abs(f.value) >= 10 ? 1 : s.places;
  const auto number = [&](double value) { return number_text(value * s.factor, places); };
  std::string text = number(f.value);
  if (f.least && f.most) text += " (" + number(*f.least) + "–" + number(*f.most) + ")";
  return s.unit.empty() ? text : text + " " + std::string(s.unit);
}

}  // namespace rigging
