#include "senses/satellites.h"

#include <GeographicLib/LocalCartesian.hpp>
#include <algorithm>
#include <cmath>

#include "base/number.h"

namespace rigging {
namespace {

constexpr std::size_t longest_sentence = 120;                ///< the standard has 82; some receivers say more
constexpr std::size_t tells_scatter = 20, long_enough = 60;  ///< positions
constexpr double lowest_m = -1000, highest_m = 10000;
constexpr double range_error_m = 2.5;  ///< of one satellite, one standard deviation (common practice)

std::vector<std::string_view> fields_of(std::string_view s) {
  std::vector<std::string_view> all;
  for (std::size_t at = 0;;) {
    const std::size_t comma = std::min(s.find(',', at), s.size());
    all.push_back(s.substr(at, comma - at));
    if (comma == s.size()) return all;
    at = comma + 1;
  }
}

int hex(char c) {
  return c >= '0' && c <= '9'   ? c - '0'
         : c >= 'A' && c <= 'F' ? c - 'A' + 10
         : c >= 'a' && c <= 'f' ? c - 'a' + 10
                                : -1;
}

/// "4807.038" and "N" as degrees; nothing when either is not as it should be.
std::optional<double> degrees(std::string_view value, std::string_view side, char plus, char minus, double most) {
  const auto number = number_of(value);
  if (!number || *number < 0 || side.size() != 1 || (side[0] != plus && side[0] != minus)) return std::nullopt;
  const double whole = std::floor(*number / 100), minutes = *number - whole * 100;
  const double deg = whole + minutes / 60;
  if (minutes >= 60 || deg > most) return std::nullopt;
  return side[0] == plus ? deg : -deg;
}

/// "123519.00" as seconds since midnight.
std::optional<double> time_of(std::string_view value) {
  const auto number = number_of(value);
  if (!number || *number < 0 || *number >= 240000) return std::nullopt;
  const double hours = std::floor(*number / 10000), minutes = std::floor((*number - hours * 10000) / 100);
  return hours * 3600 + minutes * 60 + (*number - hours * 10000 - minutes * 100);
}

}  // namespace

std::vector<SatelliteFix> SatelliteReader::feed(std::string_view bytes) {
  std::vector<SatelliteFix> fixes;
  tally_.bytes += bytes.size();
  for (const char c : bytes) {
    const auto code = static_cast<unsigned char>(c);
    if (c == '$') {
      // A sentence that another begins in was cut.
      if (!line_.empty()) line_[0] == '$' ? ++tally_.damaged : tally_.foreign += line_.size();
      line_ = c;
    } else if (c == '\r' || c == '\n') {
      if (!line_.empty() && line_[0] == '$') {
        if (auto fix = take(line_)) fixes.push_back(*fix);
      } else {
        tally_.foreign += line_.size();
      }
      line_.clear();
    } else {
      if (code < 32 || code > 126) ++tally_.unprintable;
      line_ += c;
      if (line_.size() > longest_sentence) {
        line_[0] == '$' ? ++tally_.damaged : tally_.foreign += line_.size();
        line_.clear();
      }
    }
  }
  return fixes;
}

std::optional<SatelliteFix> SatelliteReader::take(std::string_view s) {
  const std::size_t star = s.rfind('*');
  int sum = 0;
  for (std::size_t i = 1; i < std::min(star, s.size()); ++i) sum ^= static_cast<unsigned char>(s[i]);
  if (star == std::string_view::npos || star + 3 != s.size() || hex(s[star + 1]) < 0 || hex(s[star + 2]) < 0 ||
      hex(s[star + 1]) * 16 + hex(s[star + 2]) != sum) {
    ++tally_.damaged;
    return std::nullopt;
  }
  ++tally_.sentences;
  const auto f = fields_of(s.substr(1, star - 1));
  if (f[0].size() != 5) return std::nullopt;
  const std::string_view kind = f[0].substr(2);
  if (kind == "GSA" && f.size() > 2) {
    dimensions_ = f[2] == "3" ? 3 : f[2] == "2" ? 2 : 0;
    return std::nullopt;
  }
  if (kind != "GGA" || f.size() < 10) return std::nullopt;
  SatelliteFix fix;
  if (auto t = time_of(f[1])) {
    if (*t + day_s_ < last_t_s_ - 43200) day_s_ += 86400;
    fix.t_s = last_t_s_ = *t + day_s_;
  }
  const auto latitude = degrees(f[2], f[3], 'N', 'S', 90), longitude = degrees(f[4], f[5], 'E', 'W', 180);
  const auto quality = number_of(f[6]), satellites = number_of(f[7]), hdop = number_of(f[8]), height = number_of(f[9]);
  // 6 is dead reckoning, 7 and 8 are typed or simulated: no fix. Nor is what stands higher than any model flies.
  fix.valid = latitude && longitude && quality && *quality >= 1 && *quality <= 5 &&
              (!height || (*height >= lowest_m && *height <= highest_m));
  fix.latitude_deg = latitude.value_or(0);
  fix.longitude_deg = longitude.value_or(0);
  fix.satellites = satellites ? static_cast<int>(std::clamp(*satellites, 0.0, 99.0)) : 0;
  fix.hdop = hdop && *hdop > 0 && *hdop < 99 ? *hdop : 0;
  fix.height_m = fix.valid ? height.value_or(0) : 0;
  fix.dimensions = dimensions_;
  return fix;
}

std::string line_words(const SatelliteTally& t) {
  if (t.bytes == 0) return "Nothing arrives: supply, or transmit and receive exchanged, or the wrong port.";
  if (t.sentences > 0 && t.damaged * 5 <= t.sentences) return "Sentences arrive.";
  if (t.sentences > 0)
    return std::to_string(t.damaged) + " sentences of " + std::to_string(t.damaged + t.sentences) +
           " are damaged: a loose plug, a long lead, or a baud that is nearly right.";
  if (t.unprintable * 10 > t.bytes)
    return "Bytes arrive, and no sentence is among them: another baud, or the receiver speaks a language of its own.";
  return "Text arrives that is no sentence of a satellite receiver: another device?";
}

Standing standing(const std::vector<SatelliteFix>& fixes) {
  Standing s;
  std::optional<double> begun;
  std::vector<const SatelliteFix*> valid;
  for (const SatelliteFix& f : fixes) {
    if (f.t_s && !begun) begun = f.t_s;
    if (!f.valid) continue;
    if (valid.empty() && begun && f.t_s) s.first_fix_s = *f.t_s - *begun;
    valid.push_back(&f);
  }
  s.fixes = valid.size();
  if (valid.empty()) {
    s.why =
        fixes.empty() ? "No position was said." : "No fix yet: a clear sky, and minutes of patience the first time.";
    return s;
  }
  s.satellites = valid.back()->satellites;
  s.hdop = valid.back()->hdop;
  // Round the first one the earth is flat enough; the mean place is made there, so that no meridian divides it.
  const GeographicLib::LocalCartesian local(valid.front()->latitude_deg, valid.front()->longitude_deg, 0);
  std::vector<double> east, north;
  double east_sum = 0, north_sum = 0, height_sum = 0, up = 0;
  for (const SatelliteFix* f : valid) {
    local.Forward(f->latitude_deg, f->longitude_deg, 0, east.emplace_back(), north.emplace_back(), up);
    east_sum += east.back();
    north_sum += north.back();
    height_sum += f->height_m;
  }
  const double n = static_cast<double>(valid.size());
  std::vector<double> away;
  double height_squares = 0;
  for (std::size_t i = 0; i < valid.size(); ++i) {
    away.push_back(std::hypot(east[i] - east_sum / n, north[i] - north_sum / n));
    height_squares += std::pow(valid[i]->height_m - height_sum / n, 2);
  }
  std::sort(away.begin(), away.end());
  const auto within = [&](double share) {
    return away[std::min(away.size() - 1, static_cast<std::size_t>(std::ceil(share * n)) - 1)];
  };
  s.r50_m = within(0.5);
  s.r95_m = within(0.95);
  s.height_m = height_sum / n;
  s.height_spread_m = std::sqrt(height_squares / n);
  double ignored = 0;
  local.Reverse(east_sum / n, north_sum / n, 0, s.latitude_deg, s.longitude_deg, ignored);
  // Rayleigh: 95 % of a round scatter lie within 2.45 standard deviations of one axis.
  s.home_m = std::hypot(s.r95_m, 2.45 / std::sqrt(2.0) * range_error_m * (s.hdop > 0 ? s.hdop : 2));
  const bool good = s.satellites >= 8 && s.hdop > 0 && s.hdop <= 1.5 && s.r95_m <= 5 && valid.size() >= long_enough;
  const bool usable =
      s.satellites >= 6 && (s.hdop == 0 || s.hdop <= 2.5) && s.r95_m <= 15 && valid.size() >= tells_scatter;
  s.verdict = good ? Verdict::good : usable ? Verdict::usable : Verdict::repeat;
  s.why = std::to_string(s.satellites) + " satellites, dilution " + (s.hdop > 0 ? number_text(s.hdop, 1) : "not said");
  if (valid.size() < tells_scatter) {
    s.why += "; " + std::to_string(valid.size()) + (valid.size() == 1 ? " position says" : " positions say") +
             " nothing of its scatter: let it stand for a minute.";
    return s;
  }
  s.why += "; 95 % within " + number_text(s.r95_m, 1) + " m over " + std::to_string(valid.size()) +
           " positions; home may be off by " + number_text(s.home_m, 0) + " m.";
  if (!usable)
    s.why += " Wait for more, under a clear sky, away from the video transmitter.";
  else if (valid.size() < long_enough)
    s.why += " Let it stand for a minute.";
  return s;
}

}  // namespace rigging
