#include "senses/gyro.h"

#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "base/statistics.h"

namespace rigging {
namespace {

constexpr double least_rest_s = 3, rest_window_s = 0.25;
constexpr double moved_deg_s = 1.5, moved_sigmas = 6;  ///< of a window's mean from where it rests
constexpr double good_zero_deg_s = 0.5, usable_zero_deg_s = 1.5;
constexpr double least_warming_c = 3, wander_from_s = 60;
constexpr double least_gyro_rate_hz = 5;
constexpr double loud_deg_s = 1.0;  ///< of single readings: more is a shaken or a sick sensor

const std::vector<double>& axis_of(const Readings& r, std::size_t axis) {
  return axis == 0 ? r.x : axis == 1 ? r.y : r.z;
}

using Stretch = std::span<const double>;

/// Means of short windows, and which of them rest.
struct Windows {
  std::size_t length = 1;
  std::vector<Point> means;
  std::vector<bool> rests;
  Point rest = {0, 0, 0};  ///< where most of them lie
};

Windows windows_of(const Recording& r, double rate_hz) {
  Windows w;
  w.length = std::max<std::size_t>(1, static_cast<std::size_t>(std::lround(rest_window_s * rate_hz)));
  for (std::size_t i = 0; i + w.length <= r.size(); i += w.length) {
    Point sum(0, 0, 0);
    for (std::size_t k = i; k < i + w.length; ++k) sum += r.readings.at(k);
    w.means.push_back(sum / static_cast<double>(w.length));
  }
  Point sigma(0, 0, 0);
  for (int axis = 0; axis < 3; ++axis) {
    std::vector<double> means, inner;
    for (std::size_t k = 0; k < w.means.size(); ++k) {
      means.push_back(w.means[k][axis]);
      inner.push_back(
          step_deviation(Stretch(axis_of(r.readings, static_cast<std::size_t>(axis))).subspan(k * w.length, w.length)));
    }
    w.rest[axis] = median(means);
    sigma[axis] = median(inner) / std::sqrt(static_cast<double>(w.length));
  }
  for (const Point& m : w.means) {
    bool rests = true;
    for (int axis = 0; axis < 3; ++axis)
      rests = rests && std::abs(m[axis] - w.rest[axis]) <= std::max(moved_deg_s, moved_sigmas * sigma[axis]);
    w.rests.push_back(rests);
  }
  return w;
}

/// What wanders beside white noise, °/s: Allan's variance over averaging times is N²/τ + B² + K²·τ/3 (IEEE Std 952,
/// annex C: noise, flicker, random walk). Nothing, a flicker and a walk of any size are taken for as likely beforehand,
/// and weighed by how well the variances agree, which scatter as a gamma distribution of as many averages as there are.
/// Returned is what they make of a mean of the whole length as a zero from now on.
double wander_of(const std::vector<AllanPoint>& allan, double noise_deg_s, double rate_hz, double length_s) {
  constexpr double points_an_octave = 3;  // neighbours tell nearly the same
  const double white = noise_deg_s * noise_deg_s / rate_hz;
  const auto misfit = [&](double flicker, double walk) {
    double sum = 0;
    for (const AllanPoint& p : allan) {
      const double averages = length_s / p.tau_s - 1;
      const double model = white / p.tau_s + flicker + walk * p.tau_s / 3,
                   variance = p.deviation_deg_s * p.deviation_deg_s;
      if (averages >= 1 && variance > 0)
        sum += averages / 2 * (std::log(model / variance) + variance / model - 1) / points_an_octave;
    }
    return sum;
  };
  struct Level {
    double variance, misfit, weight;
  };
  // Twelve steps a decade, from what a stretch of this length can show to the noise itself.
  constexpr int decades = 8, a_decade = 12, levels = decades * a_decade;
  std::vector<Level> all{{0, misfit(0, 0), 1}};
  for (int i = 0; i < levels; ++i) {
    const double v = white / length_s / 10 * std::pow(10, static_cast<double>(i) / a_decade);
    all.push_back({v, misfit(v, 0), 1.0 / levels});
    all.push_back({v / 3, misfit(0, v / length_s), 1.0 / levels});
  }
  double best = all[0].misfit;
  for (const Level& l : all) best = std::min(best, l.misfit);
  double sum = 0, weights = 0;
  for (const Level& l : all) {
    const double weight = l.weight * std::exp(best - l.misfit);
    sum += weight * l.variance, weights += weight;
  }
  return std::sqrt(sum / weights);
}

}  // namespace

std::vector<AllanPoint> allan_deviation(std::span<const double> readings, double rate_hz) {
  std::vector<AllanPoint> all;
  const std::size_t n = readings.size();
  if (n < 8 || !(rate_hz > 0)) return all;
  std::vector<double> sums(n + 1, 0);
  for (std::size_t i = 0; i < n; ++i) sums[i + 1] = sums[i] + readings[i];
  std::size_t last = 0;
  for (double wanted = 1; wanted <= static_cast<double>(n) / 4; wanted *= std::sqrt(std::sqrt(2.0))) {
    const auto m = static_cast<std::size_t>(std::lround(wanted));
    if (m == last || m < 1) continue;
    last = m;
    double squares = 0;
    const std::size_t pairs = n + 1 - 2 * m;
    for (std::size_t i = 0; i < pairs; ++i) {
      const double off = sums[i + 2 * m] - 2 * sums[i + m] + sums[i];
      squares += off * off;
    }
    const auto count = static_cast<double>(m);
    all.push_back({count / rate_hz, std::sqrt(squares / (2 * static_cast<double>(pairs))) / count});
  }
  return all;
}

GyroReport gyro_of(const Recording& r, const GyroOptions& options) {
  GyroReport g;
  const double length_s = r.size() < 2 ? 0 : r.t_s.back() - r.t_s.front();
  if (r.size() < 16 || !(length_s > 0)) {
    g.why = "Too few readings.";
    return g;
  }
  std::vector<double> steps;
  for (std::size_t i = 1; i < r.size(); ++i) steps.push_back(r.t_s[i] - r.t_s[i - 1]);
  const double step_s = median(steps);
  if (!(step_s > 0) || 1 / step_s < least_gyro_rate_hz) {
    g.why = "At least " + number_text(least_gyro_rate_hz, 0) + " readings a second are needed.";
    return g;
  }
  g.rate_hz = 1 / step_s;
  const Windows w = windows_of(r, g.rate_hz);

  std::size_t best_from = 0, best_to = 0;
  for (std::size_t k = 0; k < w.means.size();) {
    std::size_t end = k;
    while (end < w.means.size() && w.rests[end] == w.rests[k]) ++end;
    if (w.rests[k]) {
      if (end - k > best_to - best_from) best_from = k, best_to = end;
    } else {
      Moved moved{r.t_s[k * w.length], r.t_s[std::min(end * w.length, r.size()) - 1], 0};
      for (std::size_t i = k; i < end; ++i) moved.most_deg_s = std::max(moved.most_deg_s, (w.means[i] - w.rest).norm());
      g.moved.push_back(moved);
    }
    k = end;
  }
  const std::size_t from = best_from * w.length, to = best_to == w.means.size() ? r.size() : best_to * w.length;
  if (to < from + 8) {
    g.why = "It was never still. Set the model down, hands off.";
    return g;
  }
  g.still_s = r.t_s[to - 1] - r.t_s[from];
  const auto n = static_cast<double>(to - from);
  int worst = 0;
  for (int axis = 0; axis < 3; ++axis) {
    const Stretch v = Stretch(axis_of(r.readings, static_cast<std::size_t>(axis))).subspan(from, to - from);
    g.zero_deg_s[axis] = mean(v);
    g.noise_deg_s[axis] = step_deviation(v);
    g.zero_error_deg_s[axis] = std::hypot(
        g.noise_deg_s[axis] / std::sqrt(n),
        g.noise_deg_s[axis] > 0 ? wander_of(allan_deviation(v, g.rate_hz), g.noise_deg_s[axis], g.rate_hz, g.still_s)
                                : 0);
    g.density[axis] = g.noise_deg_s[axis] * std::sqrt(2 / g.rate_hz);
    if (g.noise_deg_s[axis] > g.noise_deg_s[worst]) worst = axis;
  }
  g.allan = allan_deviation(Stretch(axis_of(r.readings, static_cast<std::size_t>(worst))).subspan(from, to - from),
                            g.rate_hz);
  if (g.still_s >= wander_from_s && !g.allan.empty())
    g.wander_deg_s = std::min_element(g.allan.begin(), g.allan.end(), [](const AllanPoint& a, const AllanPoint& b) {
                       return a.deviation_deg_s < b.deviation_deg_s;
                     })->deviation_deg_s;
  if (options.temperature_c.size() == r.size()) {
    const Stretch warmth = Stretch(options.temperature_c).subspan(from, to - from);
    const auto [coldest, warmest] = std::minmax_element(warmth.begin(), warmth.end());
    if (*warmest - *coldest >= least_warming_c) {
      g.drift_deg_s_per_c.emplace(0, 0, 0);
      for (int axis = 0; axis < 3; ++axis)
        (*g.drift_deg_s_per_c)[axis] =
            slope(warmth, Stretch(axis_of(r.readings, static_cast<std::size_t>(axis))).subspan(from, to - from));
    }
  }

  const double zero = g.zero_deg_s.cwiseAbs().maxCoeff(), noise = g.noise_deg_s.maxCoeff();
  const auto per_s = [](double v) { return number_text(v, 2) + "°/s"; };
  std::string moved;
  if (!g.moved.empty())
    moved = " It was moved at " + number_text(g.moved.front().from_s - r.t_s.front(), 1) + " s, by up to " +
            number_text(g.moved.front().most_deg_s, 0) + "°/s" +
            (g.moved.size() > 1 ? ", and " + std::to_string(g.moved.size() - 1) + " times more." : ".");
  if (g.still_s < least_rest_s) {
    g.why = "Still for only " + number_text(g.still_s, 1) + " s; " + number_text(least_rest_s, 0) + " s are needed." +
            moved;
    return g;
  }
  if (g.noise_deg_s.minCoeff() == 0) {
    g.why = "It says exactly the same all the time: a sensor that works rustles. This one is frozen." + moved;
    return g;
  }
  if (noise > loud_deg_s) {
    g.why = "It rustles by " + per_s(noise) + " at rest. Something shakes it, or it is sick." + moved;
    return g;
  }
  if (options.zeroed && zero > usable_zero_deg_s) {
    g.why = "At rest it says " + per_s(zero) +
            ": it was moved while it looked for its zero. Unplug, keep the model still, plug in again." + moved;
    return g;
  }
  const bool good = !options.zeroed || zero <= good_zero_deg_s;
  g.verdict = good ? Verdict::good : Verdict::usable;
  g.why = "Still for " + number_text(g.still_s, 1) + " s. Zero within " + per_s(zero) + ", rustling by " +
          per_s(noise) + "." +
          (good ? "" : " Its zero has moved a little since power-up: it was still cold, or was touched.") + moved;
  if (g.drift_deg_s_per_c)
    g.why += " It drifts by up to " + number_text(g.drift_deg_s_per_c->cwiseAbs().maxCoeff(), 3) +
             "°/s per degree of warmth.";
  return g;
}

}  // namespace rigging
