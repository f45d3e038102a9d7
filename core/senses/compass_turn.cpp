#include "senses/compass_turn.h"

#include <algorithm>
#include <cmath>

#include "base/alignment.h"
#include "base/angle.h"
#include "base/number.h"
#include "base/statistics.h"
#include "earth/gravity.h"

namespace rigging {
namespace {

constexpr double haste = 0.15;  ///< share by which a force may differ from 1 g
constexpr std::size_t least_pairs = 60;
constexpr double clear = 0.6;        ///< the best spread against the next
constexpr double too_wide_deg = 12;  ///< nothing fits

}  // namespace

CompassTurn compass_turn(const std::vector<Point>& fields, const std::vector<Point>& forces) {
  CompassTurn found;
  std::vector<std::pair<Point, Point>> pairs;
  for (std::size_t i = 0; i < std::min(fields.size(), forces.size()); ++i)
    if (std::abs(forces[i].norm() / standard_gravity - 1) < haste && fields[i].norm() > 1)
      pairs.emplace_back(fields[i].normalized(), -forces[i].normalized());
  if (pairs.size() < least_pairs) {
    found.why = "Too few readings that were turned calmly enough.";
    return found;
  }
  struct Try {
    Turn turn;
    double spread_deg, dip_deg;
  };
  std::vector<Try> tries;
  std::vector<double> dips(pairs.size()), off(pairs.size());
  for (const Turn& turn : all_turns()) {
    const Eigen::Matrix3d m = alignment_matrix(turn);
    for (std::size_t i = 0; i < pairs.size(); ++i)
      dips[i] = std::asin(std::clamp((m * pairs[i].first).dot(pairs[i].second), -1.0, 1.0)) / rad;
    const double dip = median_within(dips);
    for (std::size_t i = 0; i < pairs.size(); ++i) off[i] = std::abs(dips[i] - dip);
    tries.push_back({turn, 1.4826 * median_within(off), dip});
  }
  std::stable_sort(tries.begin(), tries.end(), [](const Try& a, const Try& b) { return a.spread_deg < b.spread_deg; });
  found.spread_deg = tries[0].spread_deg;
  found.dip_deg = tries[0].dip_deg;
  if (found.spread_deg > too_wide_deg) {
    found.why = "In no turn does the field keep its angle to the plumb line: turned too hastily, or not calibrated.";
    return found;
  }
  for (const Try& t : tries)
    if (t.spread_deg * clear <= tries[0].spread_deg) found.candidates.push_back(t.turn);
  const std::string angle = number_text(std::abs(found.dip_deg), 0) + "° " + (found.dip_deg < 0 ? "above" : "below") +
                            " the horizon, within " + number_text(found.spread_deg, 1) + "°";
  if (found.candidates.size() == 1) {
    found.turn = found.candidates[0];
    found.why = "The field keeps " + angle + ", in this turn only.";
  } else {
    found.why =
        std::to_string(found.candidates.size()) + " turns fit about as well: turn the model about other axes, too.";
  }
  return found;
}

}  // namespace rigging
