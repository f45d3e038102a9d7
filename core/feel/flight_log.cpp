#include "feel/flight_log.h"

#include <algorithm>
#include <cmath>

#include "base/csv.h"
#include "base/number.h"
#include "base/statistics.h"

namespace rigging {
namespace {

constexpr double least_rate_hz = 20, least_s = 2;
constexpr double gap_s = 0.25;
constexpr double most_readings = 2e7;  ///< of the even times

std::vector<double>* place_of(FlightLog& log, const std::string& meaning) {
  if (meaning == "airspeed_m_s") return &log.airspeed_m_s;
  if (meaning == "throttle") return &log.throttle;
  for (const Axis axis : all_axes) {
    const std::string name(word(axis));
    AxisLog& of = log.axes[static_cast<std::size_t>(axis)];
    if (meaning == name + "_rate_deg_s") return &of.rate_deg_s;
    if (meaning == name + "_stick") return &of.stick;
    if (meaning == name + "_correction") return &of.correction;
  }
  return nullptr;
}

std::string joined(const std::vector<std::string>& words) {
  std::string all;
  for (const std::string& w : words) all += (all.empty() ? "" : ", ") + w;
  return all;
}

}  // namespace

const std::vector<std::string>& log_meanings() {
  static const std::vector<std::string> all = [] {
    std::vector<std::string> names{"t_s"};
    for (const char* of : {"_rate_deg_s", "_stick", "_correction"})
      for (const Axis axis : all_axes) names.push_back(std::string(word(axis)) + of);
    names.insert(names.end(), {"airspeed_m_s", "throttle"});
    return names;
  }();
  return all;
}

Result<FlightLog> parse_flight_log(std::string_view text, const std::string& name,
                                   const std::vector<LogColumn>& columns) {
  const auto table = parse_number_table(text, name);
  if (!table) return tl::make_unexpected(table.error());
  struct Sought {
    std::vector<double>* to;
    std::size_t column;
    double factor;
  };
  FlightLog log;
  std::vector<Sought> sources;
  int t = -1;
  double t_factor = 1;
  for (const std::string& meaning : log_meanings()) {
    const auto told =
        std::find_if(columns.begin(), columns.end(), [&](const LogColumn& c) { return c.meaning == meaning; });
    const int at = table->column(told == columns.end() ? meaning : told->column);
    if (at < 0) {
      if (told != columns.end())
        return failure(name, "column \"" + told->column + "\" is missing", joined(table->columns));
      continue;
    }
    const double factor = told == columns.end() ? 1 : told->factor;
    if (meaning == "t_s")
      t = at, t_factor = factor;
    else
      sources.push_back({place_of(log, meaning), static_cast<std::size_t>(at), factor});
  }
  const bool any_rate = std::any_of(sources.begin(), sources.end(), [&log](const Sought& s) {
    return std::any_of(log.axes.begin(), log.axes.end(), [&s](const AxisLog& a) { return s.to == &a.rate_deg_s; });
  });
  if (t < 0 || !any_rate)
    return failure(name, t < 0 ? "there is no column t_s" : "there is no rate of any axis",
                   "t_s and one or more of roll_rate_deg_s, pitch_rate_deg_s, yaw_rate_deg_s");
  const std::size_t rows = table->rows.size();
  std::vector<double> times(rows), steps;
  steps.reserve(rows);
  for (std::size_t i = 0; i < rows; ++i) {
    times[i] = table->rows[i][static_cast<std::size_t>(t)] * t_factor;
    if (i == 0) continue;
    const double step = times[i] - times[i - 1];
    if (step < 0) return failure(name + ", row " + std::to_string(i + 1), "time goes backward", "t_s that rises");
    if (step > 0) steps.push_back(step);
  }
  if (steps.empty() || times.back() - times.front() < least_s)
    return failure(name, "the log is too short", number_text(least_s, 0) + " s or more");
  const double step = median_within(steps);
  if (1 / step < least_rate_hz * 0.999)
    return failure(name, "readings come " + number_text(1 / step, 1) + " times a second",
                   number_text(least_rate_hz, 0) + " or more: t_s counts seconds");
  const double count = std::floor((times.back() - times.front()) / step * (1 + 1e-9)) + 1;
  if (count > most_readings) return failure(name, "gaps of hours", "one flight");

  log.from_s = times.front();
  log.step_s = step;
  log.size = static_cast<std::size_t>(count);
  for (const Sought& s : sources) s.to->resize(log.size);
  std::size_t row = 0;
  bool in_gap = true;
  for (std::size_t i = 0; i < log.size; ++i) {
    const double now = log.at_s(i);
    while (row + 2 < rows && times[row + 1] <= now) ++row;
    const double wide = times[row + 1] - times[row];
    const double share = wide > 0 ? std::clamp((now - times[row]) / wide, 0.0, 1.0) : 0;
    const bool gap = wide > std::max(gap_s, 5 * step);
    if (!gap && in_gap) log.stretches.push_back({i, i});
    in_gap = gap;
    if (!gap) log.stretches.back().to = i + 1;
    const std::vector<double>&a = table->rows[row], &b = table->rows[row + 1];
    for (const Sought& s : sources) (*s.to)[i] = s.factor * (a[s.column] + share * (b[s.column] - a[s.column]));
  }
  return log;
}

}  // namespace rigging
