#include "feel/without_gain.h"

namespace rigging {

std::string axes_without_gain(const FeelReport& r) {
  std::string axes;
  if (!r.missing.empty()) return axes;
  for (const AxisFeel& a : r.axes)
    if (a.known() && !a.place && a.gain_s <= 0) axes += (axes.empty() ? "" : ", ") + std::string(name_of(a.axis));
  return axes;
}

}  // namespace rigging
