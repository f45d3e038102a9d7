#include "senses/recording.h"

#include <algorithm>
#include <cmath>

#include "base/csv.h"
#include "base/number.h"
#include "base/statistics.h"

namespace rigging {
namespace {

constexpr double window_s = 0.25;
constexpr double least_still_s = 0.5;
constexpr double apart_s = 0.25;  ///< readings so far apart are poses by themselves
/// More than this is no noise but a hand, m/s² (common practice: small accelerometers read to 0.02 to 0.1).
constexpr double never_still = 0.5;
constexpr double creeping = 0.25;  ///< from the first to the last third of a pose, m/s²: 1.5°
constexpr double same_pose = 0.4;

double spread_of(const Readings& r, std::size_t from, std::size_t to, const Point& mean) {
  double squares = 0;
  for (std::size_t i = from; i < to; ++i) squares += (r.at(i) - mean).squaredNorm();
  return std::sqrt(squares / (3.0 * static_cast<double>(std::max<std::size_t>(to - from, 1))));
}

/// Median by axis: single spikes do not move it.
Point middle_of(const Readings& r, std::size_t from, std::size_t to) {
  Point middle = {0, 0, 0};
  int axis = 0;
  for (const std::vector<double>* v : {&r.x, &r.y, &r.z}) {
    const auto from_here = v->begin() + static_cast<std::ptrdiff_t>(from);
    middle[axis++] = median({from_here, from_here + static_cast<std::ptrdiff_t>(to - from)});
  }
  return middle;
}

/// Mean of what lies within three and a half spreads of the middle.
StillPose pose_of(const Readings& r, std::size_t from, std::size_t to) {
  const Point middle = middle_of(r, from, to);
  std::vector<double> away;
  for (std::size_t i = from; i < to; ++i) away.push_back((r.at(i) - middle).norm());
  const double usual = median(away), most = std::max(3.5 * usual, 1e-6);
  StillPose pose{from, to};
  std::size_t n = 0;
  for (std::size_t i = from; i < to; ++i)
    if (away[i - from] <= most) pose.mean += r.at(i), ++n;
  pose.mean /= static_cast<double>(std::max<std::size_t>(n, 1));
  pose.spread = usual / 1.538;  // median length of three normal deviates (Maxwell)
  return pose;
}

/// When it was, and how its readings went on: a line through them by least squares, without those far beside.
void add_times(const Recording& recording, StillPose& pose) {
  const Readings& r = recording.readings;
  std::vector<std::size_t> near;
  for (std::size_t i = pose.from; i < pose.to; ++i)
    if ((r.at(i) - pose.mean).norm() <= std::max(6 * pose.spread, 1e-6)) near.push_back(i);
  if (near.empty()) near.push_back(pose.from);
  for (const std::size_t i : near) pose.t_s += recording.t_s[i] / static_cast<double>(near.size());
  Point products = Point::Zero();
  double squares = 0;
  for (const std::size_t i : near) {
    const double t = recording.t_s[i] - pose.t_s;
    products += t * (r.at(i) - pose.mean), squares += t * t;
  }
  if (squares > 0) pose.creeps = products / squares, pose.creeps_error = pose.spread / std::sqrt(squares);
}

}  // namespace

Readings thinned(const Readings& all, std::size_t most) {
  if (all.size() <= most) return all;
  Readings few;
  for (std::size_t i = 0; i < most; ++i) few.add(all.at(i * all.size() / most));
  return few;
}

std::vector<StillPose> still_poses(const Recording& recording) {
  const Readings& r = recording.readings;
  const std::size_t n = r.size();
  std::vector<StillPose> poses;
  if (n < 2) return poses;
  std::vector<double> steps;
  for (std::size_t i = 1; i < n; ++i) steps.push_back(recording.t_s[i] - recording.t_s[i - 1]);
  std::nth_element(steps.begin(), steps.begin() + static_cast<std::ptrdiff_t>(steps.size() / 2), steps.end());
  const double step = steps[steps.size() / 2];
  if (step >= apart_s) {
    for (std::size_t i = 0; i < n; ++i) poses.push_back({i, i + 1, r.at(i), 0, recording.t_s[i]});
    return poses;
  }
  const auto width = std::max<std::size_t>(5, static_cast<std::size_t>(std::lround(window_s / std::max(step, 1e-6))));
  struct Window {
    std::size_t from, to;
    Point middle;
    double spread;
  };
  std::vector<Window> windows;
  for (std::size_t from = 0; from + width <= n; from += width) {
    const StillPose p = pose_of(r, from, from + width);
    const double plain = spread_of(r, from, from + width, p.mean);
    // A single spike widens the plain spread but not the robust one; a turn widens both.
    windows.push_back({from, from + width, p.mean, std::min(plain, 1.5 * p.spread)});
  }
  if (windows.empty()) return poses;
  std::vector<double> spreads;
  for (const Window& w : windows) spreads.push_back(w.spread);
  const std::size_t tenth = spreads.size() / 10;
  std::nth_element(spreads.begin(), spreads.begin() + static_cast<std::ptrdiff_t>(tenth), spreads.end());
  const double still = std::min(never_still, std::max(2.5 * spreads[tenth], 0.05));
  const auto least = static_cast<std::size_t>(std::lround(least_still_s / std::max(step, 1e-6)));
  for (std::size_t i = 0; i < windows.size();) {
    if (windows[i].spread > still) {
      ++i;
      continue;
    }
    std::size_t j = i + 1;
    while (j < windows.size() && windows[j].spread <= still && windows[j].from == windows[j - 1].to &&
           (windows[j].middle - windows[j - 1].middle).norm() < same_pose &&
           (windows[j].middle - windows[i].middle).norm() < 2 * same_pose)
      ++j;
    const std::size_t from = windows[i].from, to = windows[j - 1].to, third = (to - from) / 3;
    if (to - from >= std::max<std::size_t>(least, 2 * width) &&
        (middle_of(r, from, from + third) - middle_of(r, to - third, to)).norm() < std::max(creeping, 2 * still))
      poses.push_back(pose_of(r, from, to)), add_times(recording, poses.back());
    i = j;
  }
  return poses;
}

Result<void> lasts_as_long_as_it_may(const std::vector<double>& t_s, const std::string& name) {
  constexpr double week_s = 7 * 86400.0;
  if (t_s.empty() || (t_s.back() - t_s.front() <= week_s && std::abs(t_s.front()) < 1e12)) return {};
  return failure(name, "lasts from " + number_text(t_s.front(), 0) + " to " + number_text(t_s.back(), 0) + " s",
                 "seconds, over a week at most");
}

Result<Recording> parse_recording(std::string_view text, const std::string& name,
                                  const std::array<std::string, 3>& columns, double usual_length) {
  const auto table = parse_number_table(text, name);
  if (!table) return tl::make_unexpected(table.error());
  const int t = table->column("t_s");
  std::array<int, 3> at{};
  for (std::size_t i = 0; i < 3; ++i) at[i] = table->column(columns[i]);
  if (t < 0 || at[0] < 0 || at[1] < 0 || at[2] < 0)
    return failure(name, "columns are missing", "t_s, " + columns[0] + ", " + columns[1] + ", " + columns[2]);
  if (table->rows.empty()) return failure(name, "no rows", "readings");
  Recording all;
  for (std::size_t i = 0; i < table->rows.size(); ++i) {
    const NumberRows::Row row = table->rows[i];
    const auto cell = [&](int column) { return row[static_cast<std::size_t>(column)]; };
    if (!all.t_s.empty() && cell(t) < all.t_s.back())
      return failure(name + ", row " + std::to_string(i + 1), "time goes backward", "t_s that rises");
    const Point p{cell(at[0]), cell(at[1]), cell(at[2])};
    if (p.cwiseAbs().maxCoeff() > 1e6)
      return failure(name + ", row " + std::to_string(i + 1), "a reading of " + number_text(p.cwiseAbs().maxCoeff(), 0),
                     "at most a million");
    all.t_s.push_back(cell(t));
    all.readings.add(p);
  }
  if (const auto ok = lasts_as_long_as_it_may(all.t_s, name); !ok) return tl::make_unexpected(ok.error());
  if (usual_length > 0) {
    std::vector<double> lengths;
    for (std::size_t i = 0; i < all.size(); ++i) lengths.push_back(all.readings.at(i).norm());
    std::nth_element(lengths.begin(), lengths.begin() + static_cast<std::ptrdiff_t>(lengths.size() / 2), lengths.end());
    const double middle = lengths[lengths.size() / 2];
    if (middle > 0 && (middle < 0.3 * usual_length || middle > 3 * usual_length))
      return failure(
          name, "the readings are about " + number_text(middle, 2) + " long",
          "about " + number_text(usual_length, 1) +
              (middle > 0.09 * usual_length && middle < 0.12 * usual_length ? ": m/s², not units of g" : ""));
  }
  return all;
}

Result<BoardReadings> parse_board_log(std::string_view text, const std::string& name) {
  const auto forces = parse_recording(text, name, {"ax", "ay", "az"});
  if (!forces) return tl::make_unexpected(forces.error());
  const auto table = parse_number_table(text, name);
  const int current = table->column("current_a"), field = table->column("mx");
  const auto fields = field >= 0 ? parse_recording(text, name, {"mx", "my", "mz"}) : Result<Recording>(Recording{});
  if (!fields) return tl::make_unexpected(fields.error());
  BoardReadings all;
  for (std::size_t i = 0; i < forces->size(); ++i) {
    MotionSample s;
    s.t_s = forces->t_s[i];
    s.force_m_s2 = forces->readings.at(i);
    if (field >= 0) s.field_ut = fields->readings.at(i);
    all.samples.push_back(s);
    if (current < 0) continue;
    SlowReading slow;
    slow.t_s = s.t_s;
    slow.current_a = table->rows[i][static_cast<std::size_t>(current)];
    all.slow.push_back(slow);
  }
  return all;
}

}  // namespace rigging
