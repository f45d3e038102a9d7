#include "feel/flight_log.h"

#include <algorithm>
#include <cctype>
#include <cmath>

#include "base/angle.h"
#include "base/clean_text.h"
#include "base/csv.h"
#include "base/number.h"
#include "base/statistics.h"

namespace rigging {
namespace {

constexpr double least_rate_hz = 20, least_s = 2;
constexpr double gap_s = 0.25;
constexpr double most_rate_hz = 1000;         ///< more readings a second are drawn together by their means
constexpr double most_readings = 4e6;         ///< of the even times: an hour at 1 kHz
constexpr std::size_t longest_heading = 300;  ///< bytes of a message
constexpr double sparse = 4;                  ///< of the even times there are no more than so many a row

std::vector<double>* path_of(FlightLog& log, const std::string& meaning) {
  if (meaning == "airspeed_m_s") return &log.airspeed_m_s;
  if (meaning == "throttle") return &log.throttle;
  for (const Axis axis : all_axes) {
    const std::string name(name_of(axis));
    AxisLog& of = log.axes[static_cast<std::size_t>(axis)];
    if (meaning == name + "_rate_deg_s") return &of.rate_deg_s;
    if (meaning == name + "_stick") return &of.stick;
    if (meaning == name + "_correction") return &of.correction;
  }
  return nullptr;
}

/// Where groups of `each` readings that follow one another without a gap begin, and the end behind the last one.
std::vector<std::size_t> groups_of(const std::vector<double>& times, std::size_t each) {
  std::vector<std::size_t> begins{0};
  for (std::size_t i = 1; i < times.size(); ++i)
    if (i - begins.back() >= each || times[i] - times[i - 1] > gap_s) begins.push_back(i);
  begins.push_back(times.size());
  return begins;
}

/// The mean of each group. What swings faster than half of what is left is weakened by it, so that little of it seems
/// to swing slowly.
template <class At>
std::vector<double> means_of(const std::vector<std::size_t>& groups, At&& at) {
  std::vector<double> means;
  means.reserve(groups.size());
  for (std::size_t g = 0; g + 1 < groups.size(); ++g) {
    double sum = 0;
    for (std::size_t i = groups[g]; i < groups[g + 1]; ++i) sum += at(i);
    means.push_back(sum / static_cast<double>(groups[g + 1] - groups[g]));
  }
  return means;
}

bool has(const std::string& text, const char* word) { return text.find(word) != std::string::npos; }

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
      for (const Axis axis : all_axes) names.push_back(std::string(name_of(axis)) + of);
    names.insert(names.end(), {"airspeed_m_s", "throttle"});
    return names;
  }();
  return all;
}

std::string meaning_label(const std::string& meaning) {
  if (meaning == "t_s") return "time";
  std::string text = meaning.substr(0, meaning.find(meaning.ends_with("_deg_s") ? "_deg_s" : "_m_s"));
  std::replace(text.begin(), text.end(), '_', ' ');
  return text;
}

const std::vector<LogUnit>& log_units(const std::string& meaning) {
  static const std::vector<LogUnit> time{{"seconds", 0, 1}, {"milliseconds", 0, 1e-3}, {"microseconds", 0, 1e-6}},
      rate{{"degrees a second", 0, 1}, {"radians a second", 0, 180 / pi}, {"tenths of a degree a second", 0, 0.1}},
      share{{"−1 to 1", 0, 1},
            {"percent", 0, 0.01},
            {"pulse, µs", 1500, 1.0 / 500},
            {"the same, the other way round", 0, -1},
            {"percent, the other way round", 0, -0.01},
            {"pulse, the other way round", 1500, -1.0 / 500}},
      speed{{"m/s", 0, 1}, {"km/h", 0, 1 / 3.6}, {"cm/s", 0, 0.01}, {"mph", 0, 0.44704}, {"knots", 0, 1852.0 / 3600}},
      open{{"0 to 1", 0, 1}, {"percent", 0, 0.01}, {"pulse, µs", 1000, 1e-3}};
  return meaning == "t_s"            ? time
         : has(meaning, "_rate_")    ? rate
         : meaning == "airspeed_m_s" ? speed
         : meaning == "throttle"     ? open
                                     : share;
}

std::optional<std::string> likely_column(const std::string& meaning, const std::vector<std::string>& heading) {
  for (const std::string& column : heading) {
    if (column == meaning) return column;
    std::string low = column;
    std::transform(low.begin(), low.end(), low.begin(), [](unsigned char c) { return std::tolower(c); });
    if (meaning == "t_s" ? has(low, "time") || low == "t" : meaning == "airspeed_m_s" ? has(low, "airspeed") : false)
      return column;
    if (meaning == "throttle" && has(low, "throttle")) return column;
    for (const Axis axis : all_axes) {
      const std::string name(name_of(axis));
      if (!meaning.starts_with(name) || !has(low, name.c_str())) continue;
      if ((has(meaning, "_rate_") && (has(low, "rate") || has(low, "gyro"))) ||
          (meaning.ends_with("_stick") && (has(low, "stick") || has(low, "command"))) ||
          (meaning.ends_with("_correction") && has(low, "correction")))
        return column;
    }
  }
  return std::nullopt;
}

Result<FlightLog> parse_flight_log(std::string_view text, const std::string& name,
                                   const std::vector<LogColumn>& columns, Progress* progress) {
  std::vector<std::string> wanted = log_meanings();
  for (const LogColumn& c : columns) wanted.push_back(c.column);
  auto table = parse_number_table(text, name, {}, &wanted, [progress](double share) {
    if (progress) progress->at(share);
    return !progress || !progress->cancelled();
  });
  if (!table) return tl::make_unexpected(table.error());
  struct Sought {
    std::vector<double>* to;
    std::size_t column;
    double offset, factor;
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
        return failure(name, "column \"" + told->column + "\" is missing",
                       clean_text(joined(heading_of(text)), longest_heading));
      continue;
    }
    const double factor = told == columns.end() ? 1 : told->factor, offset = told == columns.end() ? 0 : told->offset;
    if (meaning == "t_s")
      t = at, t_factor = factor;
    else
      sources.push_back({path_of(log, meaning), static_cast<std::size_t>(at), offset, factor});
  }
  const bool any_rate = std::any_of(sources.begin(), sources.end(), [&log](const Sought& s) {
    return std::any_of(log.axes.begin(), log.axes.end(), [&s](const AxisLog& a) { return s.to == &a.rate_deg_s; });
  });
  if (t < 0 || !any_rate)
    return failure(name, t < 0 ? "there is no column t_s" : "there is no rate of any axis",
                   "t_s and one or more of roll_rate_deg_s, pitch_rate_deg_s, yaw_rate_deg_s");
  std::vector<double> times, steps;
  for (std::size_t i = 0; i < table->rows.size(); ++i) {
    times.push_back(table->rows[i][static_cast<std::size_t>(t)] * t_factor);
    if (i == 0) continue;
    const double step = times[i] - times[i - 1];
    if (step < 0) return failure(name + ", row " + std::to_string(i + 1), "time goes backward", "t_s that rises");
    if (step > 0) steps.push_back(step);
  }
  if (steps.empty() || times.back() - times.front() < least_s)
    return failure(name, "the log is too short", number_text(least_s, 0) + " s or more");
  double step = median_within(steps);
  if (1 / step < least_rate_hz * 0.999)
    return failure(name, "readings come " + number_text(1 / step, 1) + " times a second",
                   number_text(least_rate_hz, 0) + " or more: t_s counts seconds");
  const double each = std::clamp(std::ceil(1 / step / most_rate_hz - 1e-6), 1.0, 1e6);
  step *= each;
  const auto groups = groups_of(times, static_cast<std::size_t>(each));
  times = means_of(groups, [&](std::size_t i) { return times[i]; });
  std::vector<std::vector<double>> read;
  for (const Sought& s : sources)
    read.push_back(means_of(groups, [&](std::size_t i) { return table->rows[i][s.column]; }));
  table = NumberTable{};  // of a long log the larger part
  const std::size_t rows = times.size();
  const double whole_s = times.back() - times.front(), count = std::floor(whole_s / step * (1 + 1e-9)) + 1;
  if (rows < 2 || count > most_readings || count > sparse * static_cast<double>(rows) + 1000)
    return failure(
        name,
        "readings come " + number_text(1 / step, 0) + " times a second, and hold " +
            number_text(static_cast<double>(rows) * step, 1) + " s of the " + number_text(whole_s, 0) +
            " s from the first to the last",
        "one flight, without gaps longer than itself, of up to " + number_text(most_readings, 0) + " readings");

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
    for (std::size_t k = 0; k < sources.size(); ++k) {
      const Sought& s = sources[k];
      const double a = read[k][row], b = read[k][row + 1];
      (*s.to)[i] = s.factor * (a + share * (b - a) - s.offset);
    }
  }
  return log;
}

}  // namespace rigging
