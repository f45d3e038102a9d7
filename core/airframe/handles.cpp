#include "airframe/handles.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <vector>

#include "airframe/airframe.h"

namespace rigging {
namespace {

using Get = double Airframe::*;

/// The corners of everything that does not turn, and the middles of its edges.
std::vector<Eigen::Vector3d> corners_of(const Airframe& airframe) {
  std::vector<Eigen::Vector3d> all;
  for (const Panel& panel : aircraft_panels(airframe))
    if (panel.part != Panel::Part::propeller)
      for (std::size_t i = 0; i < panel.corners.size(); ++i) {
        all.push_back(panel.corners[i]);
        all.push_back((panel.corners[i] + panel.corners[(i + 1) % panel.corners.size()]) / 2);
      }
  return all;
}

}  // namespace

double OutlineHandle::dragged(double value, const Eigen::Vector2d& by_m) const {
  const Eigen::Vector2d along = moves.head<2>();
  return value + by_m.dot(along) / std::max(1e-12, along.squaredNorm());
}

std::vector<OutlineHandle> outline_handles(const Airframe& airframe) {
  struct Measure {
    const char* name;
    Get of;
    double step;  ///< of the difference, in its own unit
    int axis;     ///< along which it is dragged: 0 forward, 1 to the side
  };
  // Those with few corners of their own choose first.
  constexpr std::array measures{Measure{"length_m", &Airframe::length_m, 1e-4, 0},
                                Measure{"wing_at_m", &Airframe::wing_at_m, 1e-4, 0},
                                Measure{"root_chord_m", &Airframe::root_chord_m, 1e-4, 0},
                                Measure{"tip_chord_m", &Airframe::tip_chord_m, 1e-4, 0},
                                Measure{"tail_chord_m", &Airframe::tail_chord_m, 1e-4, 0},
                                Measure{"tail_span_m", &Airframe::tail_span_m, 1e-4, 1},
                                Measure{"sweep_deg", &Airframe::sweep_deg, 1e-2, 0},
                                Measure{"span_m", &Airframe::span_m, 1e-4, 1}};
  // How every point of the outline answers a small change of each measure, and each measure's largest answer.
  const std::vector<Eigen::Vector3d> before = corners_of(airframe);
  std::vector<std::vector<Eigen::Vector3d>> moves;
  std::vector<double> most;
  for (const Measure& m : measures) {
    Airframe changed = airframe;
    changed.*m.of += m.step;
    std::vector<Eigen::Vector3d> by = corners_of(changed);
    if (by.size() != before.size()) by = before;
    double largest = 0;
    for (std::size_t i = 0; i < before.size(); ++i) {
      by[i] = (by[i] - before[i]) / m.step;
      by[i].z() = 0;
      largest = std::max(largest, by[i].norm());
    }
    moves.push_back(std::move(by));
    most.push_back(largest);
  }
  const double apart = std::min(0.02 * std::max(0.2, airframe.span_m), 0.4 * airframe.tip_chord_m);
  std::vector<OutlineHandle> handles;
  for (std::size_t m = 0; m < measures.size(); ++m) {
    if (most[m] < 1e-4) continue;
    std::optional<std::size_t> best;
    double worth = -1;
    for (std::size_t i = 0; i < before.size(); ++i) {
      const double own = moves[m][i].norm() / most[m];
      if (own < 0.6 || before[i].y() < -1e-6) continue;
      if (std::abs(moves[m][i][measures[m].axis]) < 0.8 * moves[m][i].norm()) continue;
      if (std::any_of(handles.begin(), handles.end(),
                      [&](const OutlineHandle& h) { return (h.at - before[i]).head<2>().norm() < apart; }))
        continue;
      double all = 0;
      for (std::size_t other = 0; other < measures.size(); ++other)
        if (most[other] >= 1e-4) all += moves[other][i].norm() / most[other];
      // Best where little else moves it, farther out rather than in the crowd at the middle, a corner (which stands
      // first of each pair) rather than the middle of an edge.
      const double here =
          own * own / all + 0.1 * before[i].y() / std::max(0.1, airframe.span_m) + (i % 2 == 0 ? 0.02 : 0);
      if (here > worth + 1e-9) {
        worth = here;
        best = i;
      }
    }
    if (best) handles.push_back({measures[m].name, before[*best], moves[m][*best]});
  }
  return handles;
}

}  // namespace rigging
