#include "base/figure.h"

#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "base/units.h"

namespace rigging {

std::string figure_text(const Figure& f) {
  const Shown s = shown(f.unit);
  int places = s.unit == f.unit && s.factor == 1 && f.unit != "m/s" && std::abs(f.value) >= 10 ? 1 : s.places;
  // What is small keeps two figures: the inertia of a light model is no nought.
  if (const double size = std::abs(f.value) * s.factor; size > 1e-5 && size < 0.1)
    places = std::max(places, 1 - static_cast<int>(std::floor(std::log10(size))));
  const auto number = [&](double value) { return number_text(value * s.factor, places); };
  std::string text = number(f.value);
  if (f.least && f.most) text += " (" + number(*f.least) + "–" + number(*f.most) + ")";
  return s.unit.empty() ? text : text + " " + std::string(s.unit);
}

}  // namespace rigging
