#pragma once

#include <vector>

#include "feel/feel.h"

namespace rigging {

/// What a gust does to one axis, and what the stabilizer makes of it.
struct GustAnswer {
  double step_s = 0;
  std::vector<double> rate_deg_s, angle_deg, surface_deg;
  int swings = 0;  ///< turning points of the rate in the last second: a calm answer has one or none
};

/// A gust of a third of a second at speed `m_s`, followed for `seconds`, of such a strength that an aircraft that is
/// left alone is moved by `moved_deg`. Linear, with servo, filter and delay; the surface stops at its throw. `gain_s`
/// 0: hands off, nothing corrects.
GustAnswer gust_answer(const FeelReport& report, Axis axis, double gain_s, bool levels, double m_s,
                       double moved_deg = 25, double seconds = 2);

}  // namespace rigging
