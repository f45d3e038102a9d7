#pragma once

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "base/axis.h"
#include "base/job.h"
#include "base/result.h"
#include "rig/feel.h"

/// What a log of a flight tells of the stabilizer's work.
namespace rigging {

/// What Rigging calls a column: "roll_rate_deg_s", "pitch_stick", "throttle".
const std::vector<std::string>& log_meanings();

/// "roll rate", "time".
std::string meaning_label(const std::string& meaning);

/// How another program may keep it; (reading − offset) · factor is as Rigging has it. Rigging's own first.
struct LogUnit {
  std::string name;
  double offset = 0, factor = 1;
};
const std::vector<LogUnit>& log_units(const std::string& meaning);

/// The column whose name has the words for it, if any: a guess, to be looked at.
std::optional<std::string> likely_column(const std::string& meaning, const std::vector<std::string>& heading);

struct AxisLog {
  std::vector<double> rate_deg_s, stick, correction;  ///< empty when the log has none
};

/// Evenly timed.
struct FlightLog {
  double from_s = 0, step_s = 0;
  std::array<AxisLog, 3> axes;
  std::vector<double> airspeed_m_s, throttle;
  struct Stretch {
    std::size_t from = 0, to = 0;  ///< `to` is one past the last
  };
  std::vector<Stretch> stretches;  ///< without gaps
  std::size_t size = 0;

  const AxisLog& of(Axis axis) const { return axes[static_cast<std::size_t>(axis)]; }
  double at_s(std::size_t i) const { return from_s + step_s * static_cast<double>(i); }
};

/// Comma-separated numbers under the names of `log_meanings`, or under those that `columns` tells. Readings at uneven
/// times are laid on even ones by straight lines; over more than a quarter of a second there is a gap. More than a
/// thousand readings a second are drawn together by their means. Errors: no t_s
/// or no rate at all, cancelled by `progress`, a time that goes backward, fewer than 20 readings a second, less than
/// two seconds, a column told of that is not there.
Result<FlightLog> parse_flight_log(std::string_view text, const std::string& name,
                                   const std::vector<LogColumn>& columns = {}, Progress* progress = nullptr);

}  // namespace rigging
