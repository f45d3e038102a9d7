#include "satellites.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

#include "base/number.h"
#include "link/messages.h"

namespace rigging::twin {
namespace {

/// A meadow of our own: nowhere in particular.
constexpr double latitude_deg = 50.4321, longitude_deg = 8.1234, height_m = 231;
constexpr double metres_per_deg = 111320;
constexpr double sentence_every_s = 0.5, wanders_s = 40;

double first_fix_s(SkyTruth truth) {
  switch (truth) {
    case SkyTruth::fine: return 18;
    case SkyTruth::slow: return 120;
    case SkyTruth::poor: return 45;
    case SkyTruth::never: break;
  }
  return 1e12;
}

std::string degrees_minutes(double deg, int whole_digits) {
  const double whole = std::floor(std::abs(deg));
  char text[32] = {};
  std::snprintf(text, sizeof text, "%0*d%08.5f", whole_digits, static_cast<int>(whole), (std::abs(deg) - whole) * 60);
  for (char& c : text)
    if (c == ',') c = '.';  // of a locale
  return text;
}

/// "$GPGGA,…*47": the sentence with its check sum and line end.
std::string framed_sentence(const std::string& body) {
  unsigned sum = 0;
  for (const char c : body) sum ^= static_cast<unsigned char>(c);
  char end[8];
  std::snprintf(end, sizeof end, "*%02X", sum);
  return "$" + body + end + "\r\n";
}

}  // namespace

bool Satellites::has_fix() const { return on_s_ >= first_fix_s(truth_); }

int Satellites::count() const {
  // More of them as the sky becomes known.
  const int most = truth_ == SkyTruth::poor ? 5 : 14;
  return has_fix() ? std::min(most, 4 + static_cast<int>((on_s_ - first_fix_s(truth_)) / 4)) : 0;
}

void Satellites::step(double dt, bool powered) {
  if (!powered) {
    on_s_ = next_s_ = 0;
    bytes_.clear();
    return;
  }
  on_s_ += dt;
  if (on_s_ < next_s_) return;
  next_s_ = on_s_ + sentence_every_s - 1e-9;
  // Wanders about where it is, as receivers do: a first-order process.
  const double sigma = truth_ == SkyTruth::poor ? 12 : 0.9, keeps = std::exp(-sentence_every_s / wanders_s);
  std::normal_distribution<double> normal(0, sigma * std::sqrt(1 - keeps * keeps));
  north_m_ = keeps * north_m_ + normal(random_);
  east_m_ = keeps * east_m_ + normal(random_);
  up_m_ = keeps * up_m_ + 1.7 * normal(random_);
  speak();
}

void Satellites::speak() {
  const double day_s = std::fmod(36000 + on_s_, 86400);
  const int whole = static_cast<int>(day_s);
  char time[32];
  std::snprintf(time, sizeof time, "%02d%02d%02d.%02d", whole / 3600 % 24, whole / 60 % 60, whole % 60,
                static_cast<int>((day_s - whole) * 100));
  std::string position = ",,,,0,00,99.9,,M,,M,,", kind = "A,1,,,,,,,,,,,,,99.9,99.9,99.9";
  if (has_fix()) {
    const double since_s = on_s_ - first_fix_s(truth_);
    const double hdop = truth_ == SkyTruth::poor ? 3.8 : std::max(0.8, 2.4 - since_s / 25);
    const double lat = latitude_deg + north_m_ / metres_per_deg,
                 lon = longitude_deg + east_m_ / (metres_per_deg * std::cos(latitude_deg * 3.14159265358979 / 180));
    const std::string used = (count() < 10 ? "0" : "") + std::to_string(count());
    position = degrees_minutes(lat, 2) + ",N," + degrees_minutes(lon, 3) + ",E,1," + used + "," + number_text(hdop, 1) +
               "," + number_text(height_m + up_m_, 1) + ",M,47.0,M,,";
    position.insert(0, ",");
    kind =
        "A,3,,,,,,,,,,,,," + number_text(hdop * 1.8, 1) + "," + number_text(hdop, 1) + "," + number_text(hdop * 1.5, 1);
  }
  bytes_ += framed_sentence("GNGGA," + std::string(time) + position);
  bytes_ += framed_sentence("GNGSA," + kind);
  if (bytes_.size() > link::most_satellite_bytes) bytes_.erase(0, bytes_.size() - link::most_satellite_bytes);
}

}  // namespace rigging::twin
