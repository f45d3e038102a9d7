#pragma once

#include <array>
#include <string>
#include <vector>

#include "base/point.h"
#include "base/result.h"
#include "signal/motion.h"

namespace rigging {

/// Readings by axis: what a long loop reads goes through the cache in order.
struct Readings {
  std::vector<double> x, y, z;
  std::size_t size() const { return x.size(); }
  Point at(std::size_t i) const { return {x[i], y[i], z[i]}; }
  void add(const Point& p) {
    x.push_back(p.x());
    y.push_back(p.y());
    z.push_back(p.z());
  }
};

/// At most `most` of them, evenly taken.
Readings thinned(const Readings& all, std::size_t most);

/// Readings over time, the sensor's own axes.
struct Recording {
  std::vector<double> t_s;
  Readings readings;
  std::size_t size() const { return t_s.size(); }
};

/// An error for times that span more than a week: another unit, or no times.
Result<void> lasts_as_long_as_it_may(const std::vector<double>& t_s, const std::string& name);

/// Columns t_s and the three named, in any order among others. Errors: a missing column, no rows, a time that goes
/// backward, readings of another unit where `usual_length` tells (0: nothing tells).
Result<Recording> parse_recording(std::string_view text, const std::string& name,
                                  const std::array<std::string, 3>& columns, double usual_length = 0);

/// A log of a board: columns t_s, ax, ay, az (m/s²), and mx, my, mz (µT) and current_a where there are any. Errors as
/// of `parse_recording`.
Result<BoardReadings> parse_board_log(std::string_view text, const std::string& name);

/// A stretch in which the sensor was held still.
struct StillPose {
  std::size_t from = 0, to = 0;  ///< readings; `to` is one past the last
  Point mean = {0, 0, 0};
  double spread = 0;  ///< of single readings, the unit of the readings
  double t_s = 0;     ///< its middle
  /// By how much its readings changed a second, and what their noise alone makes of that; 0 for a single reading.
  Point creeps = {0, 0, 0};
  double creeps_error = 0;
};

/// Stretches of at least half a second (or single readings, where they are a quarter of a second apart or more) whose
/// spread is near the least that occurs, and which do not creep. Nobody presses a key while holding the model.
std::vector<StillPose> still_poses(const Recording& recording);

}  // namespace rigging
