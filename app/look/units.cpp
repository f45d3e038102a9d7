#include "look/units.h"

#include <cmath>

#include "base/number.h"

namespace rigging::app {

QString Units::figure(const Figure& f) const {
  double factor = 1;
  int places = 2;
  std::string unit = f.unit;
  if (f.unit == "m") {
    factor = metric() ? 1000 : 1 / 0.0254;
    unit = metric() ? "mm" : "in";
    places = metric() ? 0 : 1;
  } else if (f.unit == "m²") {
    factor = metric() ? 100 : 1 / 0.09290304;
    unit = metric() ? "dm²" : "ft²";
    places = 1;
  } else if (f.unit == "m/s") {
    factor = metric() ? 1 : 1 / 0.3048;
    unit = metric() ? "m/s" : "ft/s";
    places = 1;
  } else if (f.unit == "kg/m²") {
    factor = metric() ? 10 : 1 / 4.882427636383051;
    unit = metric() ? "g/dm²" : "lb/ft²";
    places = metric() ? 0 : 2;
  } else if (std::abs(f.value) >= 10) {
    places = 1;
  }
  std::string text = number_text(f.value * factor, places);
  if (f.least && f.most)
    text += " (" + number_text(*f.least * factor, places) + "–" + number_text(*f.most * factor, places) + ")";
  if (!unit.empty()) text += " " + unit;
  return QString::fromStdString(text);
}

}  // namespace rigging::app
