#include "senses/air.h"

#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "base/statistics.h"

namespace rigging {
namespace {

constexpr double air_kg_m3 = 1.225;  // ISO 2533, sea level
constexpr double good_noise_m = 0.5, usable_noise_m = 1.5, good_drift = 1.5, usable_drift = 6;
constexpr double good_zero_pa = 5, usable_zero_pa = 15, good_loss = 0.10, usable_loss = 0.25;
constexpr double covered_s = 3, barometer_s = 10, held_least_s = 5;
constexpr double most_tube_pa = 20000;  ///< 180 m/s
/// Medians are taken over so long; a push counts as on from this share of it, and rests after so long.
constexpr double smooth_s = 0.35, rising = 0.7, settles_s = 0.3;
constexpr double push_pa = 40;  ///< less is a draught (8 m/s)

using Values = std::span<const double>;

std::size_t first_after(const std::vector<double>& t, double t_s) {
  return static_cast<std::size_t>(std::lower_bound(t.begin(), t.end(), t_s) - t.begin());
}

/// Medians of a third of a second about each reading: an edge stays one, single readings do not count.
std::vector<double> without_spikes(const std::vector<double>& t, const std::vector<double>& values, std::size_t n) {
  std::vector<double> all;
  for (std::size_t i = 0; i < n; ++i) {
    const std::size_t from = first_after(t, t[i] - smooth_s / 2);
    std::size_t to = std::max(i + 1, std::min(n, first_after(t, t[i] + smooth_s / 2)));
    // As many on either side.
    const std::size_t side = std::min(i - std::min(from, i), to - 1 - i);
    const auto at = values.begin() + static_cast<std::ptrdiff_t>(i - side);
    all.push_back(median({at, at + static_cast<std::ptrdiff_t>(2 * side + 1)}));
  }
  return all;
}

}  // namespace

double pressure_height_m(double pressure_pa) { return 44330.77 * (1 - std::pow(pressure_pa / 101325.0, 0.1902632)); }

BarometerReport barometer_of(const std::vector<double>& t, const std::vector<double>& pressure) {
  BarometerReport b;
  const std::size_t n = std::min(t.size(), pressure.size());
  b.held_s = n < 2 ? 0 : t[n - 1] - t[0];
  if (b.held_s < barometer_s) {
    b.why = number_text(barometer_s, 0) + " s at rest are needed; there are " + number_text(b.held_s, 1) + ".";
    return b;
  }
  std::vector<double> height(n);
  for (std::size_t i = 0; i < n; ++i) {
    if (!(pressure[i] > 20000 && pressure[i] < 110000)) {
      b.why = "A pressure of " + number_text(pressure[i] / 100, 0) + " hPa is none of the air.";
      return b;
    }
    height[i] = pressure_height_m(pressure[i]);
  }
  b.noise_m = step_deviation(height);
  b.drift_m_per_min = 60 * slope(Values(t).first(n), height);
  double high = -1e9, low = 1e9;
  for (std::size_t from = 0; from < n;) {
    const std::size_t to = std::min(n, std::max(from + 1, first_after(t, t[from] + 2)));
    const double m = mean(Values(height).subspan(from, to - from));
    high = std::max(high, m);
    low = std::min(low, m);
    from = to;
  }
  b.wander_m = high - low;
  if (b.noise_m == 0) {
    b.why = "It says exactly the same all the time: a sensor that works rustles. This one is frozen.";
    return b;
  }
  const double drift = std::abs(b.drift_m_per_min);
  const std::string what = "Rustles by " + number_text(b.noise_m, 2) + " m, drifts by " +
                           number_text(b.drift_m_per_min, 1) + " m a minute, wandered within " +
                           number_text(b.wander_m, 1) + " m.";
  if (b.noise_m <= good_noise_m && drift <= good_drift) {
    b.verdict = Verdict::good;
    b.why = what;
  } else if (b.noise_m <= usable_noise_m && drift <= usable_drift) {
    b.verdict = Verdict::usable;
    b.why = what + " It is still warming up, or wind or light reaches it: open-cell foam over it, out of the sun.";
  } else {
    b.why = what + (b.noise_m > usable_noise_m
                        ? " Too loud: wind or propeller wash reaches it. Foam over it, and close the hatch."
                        : " Too much drift: let it warm up for some minutes, out of the sun, and read again.");
  }
  return b;
}

AirspeedReport airspeed_of(const std::vector<double>& t, const std::vector<double>& pitot, double cruise_m_s) {
  AirspeedReport a;
  const std::size_t n = std::min(t.size(), pitot.size());
  const std::size_t covered = n == 0 ? 0 : std::min(n, first_after(t, t[0] + covered_s));
  if (n < 8 || covered < 4 || t[n - 1] - t[0] < covered_s) {
    a.why = "Three seconds with the tube covered are needed first.";
    return a;
  }
  if (std::any_of(pitot.begin(), pitot.end(), [](double pa) { return !(std::abs(pa) < most_tube_pa); })) {
    a.why = "A pressure beyond " + number_text(most_tube_pa / 100, 0) + " hPa is none of a tube.";
    return a;
  }
  // What was read before the hand began: a push within the first seconds must not count as zero.
  a.zero_pa = median({pitot.begin(), pitot.begin() + static_cast<std::ptrdiff_t>(covered)});
  a.noise_pa = step_deviation(Values(pitot).first(covered));
  a.zero_m_s = a.zero_pa / (air_kg_m3 * std::max(3.0, cruise_m_s));
  a.least_m_s = std::sqrt(2 * 3 * std::max(a.noise_pa, 0.1) / air_kg_m3);

  const std::vector<double> steady = without_spikes(t, pitot, n);
  const auto off = [&](std::size_t i) { return steady[i] - a.zero_pa; };
  std::size_t peak = std::min(covered, n - 1);
  for (std::size_t i = covered; i < n; ++i)
    if (std::abs(off(i)) > std::abs(off(peak))) peak = i;
  if (covered < n && std::abs(off(peak)) > push_pa) {
    a.pushed_pa = off(peak);
    a.exchanged = *a.pushed_pa < 0;
    const double sign = a.exchanged ? -1 : 1, high = std::abs(*a.pushed_pa);
    const auto over = [&](std::size_t i) { return sign * off(i); };
    // Held: from where it came up, not from the reading that stands highest by chance, until it falls off at once. A
    // leak falls slowly; a hand that lets go does not.
    std::size_t begin = peak, end = peak;
    while (begin > covered && over(begin - 1) > rising * high) --begin;
    const double rest_s = std::max(settles_s, smooth_s);
    begin = std::min(peak, first_after(t, t[begin] + rest_s));
    const auto earlier = [&](std::size_t i) { return std::max(begin, first_after(t, t[i] - 2 * smooth_s)); };
    while (end + 1 < n && over(end + 1) > push_pa / 2 && over(end + 1) > 0.75 * over(earlier(end + 1))) ++end;
    // The last of it may be the hand coming off.
    const double came_off = t[end] - rest_s;
    while (end > begin && t[end] > came_off) --end;
    if (const double held = t[end] - t[begin]; held + 2 * rest_s >= held_least_s && end > begin + 4) {
      // Exponential: straight in the logarithm.
      std::vector<double> logs;
      for (std::size_t i = begin; i <= end; ++i) logs.push_back(std::log(std::max(over(i), 1.0)));
      a.lost_in_10s = std::max(0.0, 1 - std::exp(10 * slope(Values(t).subspan(begin, logs.size()), logs)));
    }
  }

  const std::string zero =
      "Zero off by " + number_text(a.zero_pa, 1) + " Pa, " + number_text(std::abs(a.zero_m_s), 1) + " m/s at cruise. ";
  if (std::abs(a.zero_pa) > usable_zero_pa) {
    a.why = zero + "Cover the tube loosely and power up again: it takes its zero then.";
  } else if (a.exchanged) {
    a.why = zero + "Pushing made it fall: the two hoses are exchanged.";
  } else if (a.lost_in_10s && *a.lost_in_10s > usable_loss) {
    a.why = zero + "It lost " + number_text(100 * *a.lost_in_10s, 0) + " % in ten seconds: a hose or a joint leaks.";
  } else if (!a.pushed_pa) {
    a.verdict = Verdict::usable;
    a.why = zero + "Nothing was pushed: hoses and leaks are not known.";
  } else if (!a.lost_in_10s) {
    a.verdict = Verdict::usable;
    a.why = zero + "The hoses are right. The pressure was not held for five seconds: leaks are not known.";
  } else {
    a.verdict = std::abs(a.zero_pa) <= good_zero_pa && *a.lost_in_10s <= good_loss ? Verdict::good : Verdict::usable;
    a.why = zero + "The hoses are right; " + number_text(100 * *a.lost_in_10s, 0) + " % lost in ten seconds. Below " +
            number_text(a.least_m_s, 1) + " m/s it tells nothing.";
  }
  return a;
}

}  // namespace rigging
