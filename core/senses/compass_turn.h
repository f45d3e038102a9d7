#pragma once

#include <optional>
#include <string>
#include <vector>

#include "base/point.h"
#include "base/turn.h"

/// Which way a compass with an arrow of its own sits, found from the same turning that calibrates it.
namespace rigging {

struct CompassTurn {
  std::optional<Turn> turn;      ///< model = turn · compass; absent when several do about as well
  std::vector<Turn> candidates;  ///< the best first
  double dip_deg = 0;            ///< of the best: field below the horizon, downward positive
  double spread_deg = 0;         ///< of that angle over all readings: what hands, haste and iron leave
  std::string why;
};

/// `fields`: corrected readings in the compass's axes; `forces`: what holds the model up at the same moment, in model
/// axes, (0, 0, −9.8) level. However the model is turned, the field keeps its angle to the plumb line, in one of the 24
/// turns only. Turning about one axis alone leaves several: then it says so. Forces that are far from 1 g (haste) are
/// left out.
CompassTurn compass_turn(const std::vector<Point>& fields, const std::vector<Point>& forces);

}  // namespace rigging
