#include "feel/gain_scale.h"

#include <algorithm>
#include <cmath>

#include "base/number.h"

namespace rigging {
namespace {

// A dial from 7 over 12 to 5 o'clock; a two-sided one from 12 to 5, and to 7 the other way round.
constexpr double first_hour = 7, hours = 10, half_hours = 5;

/// "10 o'clock", "half past 9", "quarter to 12".
std::string clock_words(double hour) {
  const int quarters = static_cast<int>(std::lround(hour * 4));
  const int rest = quarters % 4, full = ((quarters / 4 + 11) % 12) + 1, next = full % 12 + 1;
  switch (rest) {
    case 1: return "quarter past " + std::to_string(full);
    case 2: return "half past " + std::to_string(full);
    case 3: return "quarter to " + std::to_string(next);
    default: return std::to_string(full) + " o'clock";
  }
}

std::optional<double> hour_of(std::string_view text) {
  const auto number = [](std::string_view t) { return number_of(t); };
  const auto after = [&](std::string_view start, double offset) -> std::optional<double> {
    if (!text.starts_with(start)) return {};
    const auto full = number(text.substr(start.size()));
    return full ? std::optional(*full + offset) : std::nullopt;
  };
  if (auto h = after("half past ", 0.5)) return h;
  if (auto h = after("quarter past ", 0.25)) return h;
  if (auto h = after("quarter to ", -0.25)) return h;
  if (text.ends_with(" o'clock")) return number(text.substr(0, text.size() - 8));
  if (const auto colon = text.find(':'); colon != text.npos) {
    const auto full = number(text.substr(0, colon)), minutes = number(text.substr(colon + 1));
    if (full && minutes && *minutes >= 0 && *minutes < 60) return *full + *minutes / 60;
    return {};
  }
  return number(text);
}

/// Whole as steps are; what was typed between two of them is shown as it was.
std::string plain(double v) { return number_text(v, std::abs(v - std::round(v)) < 0.05 ? 0 : 1); }

}  // namespace

GainScale::GainScale(const ControllerClass& c, std::optional<double> half_share)
    : by_(c.feel.gain_by),
      two_sided_(c.feel.dials == Dials::two_sided),
      least_(c.feel.least),
      most_(c.feel.most),
      gentle_(c.feel.gentle_share),
      power_(std::log(half_share.value_or(c.feel.half_share)) / std::log(0.5)) {}

double GainScale::effect(double place) const {
  if (by_ == GainBy::linkage) return 1;
  if (by_ == GainBy::strengths) return place <= 0 ? 0 : place < 0.75 ? gentle_ : 1;
  return std::pow(std::clamp(place, 0.0, 1.0), power_);
}

double GainScale::place_for(double effect) const {
  if (effect <= 0) return 0;
  if (by_ == GainBy::strengths) return effect < gentle_ ? 0 : effect < 1 ? 0.5 : effect;
  return std::pow(effect, 1 / power_);
}

double GainScale::step() const {
  if (by_ == GainBy::dial) return 0.25 / (two_sided_ ? half_hours : hours);
  if (by_ == GainBy::strengths) return 0.5;
  return 1 / std::max(1.0, most_ - least_);
}

double GainScale::rounded_down(double place) const {
  return std::clamp(std::floor(place / step() + 1e-9) * step(), 0.0, 1.0);
}

std::string GainScale::words(double place) const {
  switch (by_) {
    case GainBy::linkage: return "as the linkage gives it";
    case GainBy::strengths: return place <= 0 ? "off" : place < 0.75 ? "gentle" : "strong";
    case GainBy::dial:
      if (two_sided_)
        return place < step() / 2 ? "the middle"
                                  : clock_words(12 + half_hours * place) + ", or as far to its other side";
      return clock_words(first_hour + hours * place);
    case GainBy::percent: return plain(least_ + (most_ - least_) * place) + " %";
    case GainBy::number: return plain(least_ + (most_ - least_) * place);
  }
  return {};
}

Result<double> GainScale::read(std::string_view text) const {
  while (!text.empty() && text.front() == ' ') text.remove_prefix(1);
  while (!text.empty() && (text.back() == ' ' || text.back() == '%')) text.remove_suffix(1);
  const std::string typed(text);
  // Many write a comma where others write a point.
  std::string pointed = typed;
  std::replace(pointed.begin(), pointed.end(), ',', '.');
  text = pointed;
  if (by_ == GainBy::linkage) return failure("gain", "\"" + typed + "\"", "nothing: the linkage sets the gain");
  if (by_ == GainBy::strengths) {
    if (text == "off") return 0.0;
    if (text == "gentle") return 0.5;
    if (text == "strong") return 1.0;
    return failure("gain", "\"" + typed + "\"", "off, gentle or strong");
  }
  if (by_ == GainBy::dial) {
    auto hour = text == "the middle" ? std::optional(12.0) : hour_of(text);
    if (hour && *hour >= 0.75 && *hour < first_hour - 1.5) *hour += 12;
    const double first = two_sided_ ? 12 : first_hour, wide = two_sided_ ? half_hours : hours;
    // The other side of a two-sided dial counts by its distance.
    if (hour && two_sided_ && *hour < 12) *hour = 24 - *hour;
    if (!hour || *hour < first - 1e-9 || *hour > first + wide + 1e-9)
      return failure("gain", "\"" + typed + "\"", "a place of the dial from 7 o'clock over 12 to 5, as \"9:30\"");
    return std::clamp((*hour - first) / wide, 0.0, 1.0);
  }
  const auto number = number_of(text);
  if (!number || *number < least_ - 1e-9 || *number > most_ + 1e-9)
    return failure("gain", "\"" + typed + "\"", number_text(least_, 1) + " to " + number_text(most_, 1));
  return most_ > least_ ? (*number - least_) / (most_ - least_) : 0;
}

}  // namespace rigging
