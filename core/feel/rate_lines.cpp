#include "feel/rate_lines.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <span>

#include "base/spectrum.h"
#include "base/statistics.h"

namespace rigging {
namespace {

using Values = std::vector<double>;

/// A way of looking: short windows for what swings fast, long ones for what swings slowly.
struct Look {
  double window_s, hop_s, from_hz, to_hz;
};
constexpr Look fast_look{3, 1, 2, 1e9}, faint_look{7, 1.5, 2, 12}, slow_look{6, 1, 0.4, 2.4};
constexpr double slow_rate_hz = 20, faint_rate_hz = 50;

constexpr double stands_out = 8;           ///< times what lies beside it, in a band of three bins
constexpr double sure = 20;                ///< so much in two windows does as well as less in three
constexpr double band_share = 0.03;        ///< half a line's width, of its frequency
constexpr double beside = 1.7;             ///< how far to look on either side
constexpr double least_amplitude = 0.8;    ///< deg/s
constexpr double median_to_mean = 1.4427;  ///< of the power of noise in one bin
constexpr double follows = 0.10;           ///< share by which a line's frequency may change from window to window

/// One line in one window.
struct Line {
  double hz = 0, prominence = 0, density = 0;  ///< density of what lies beside it, (deg/s)²/Hz
};

/// Lines of one window, within the look's frequencies.
class LineFinder {
 public:
  LineFinder(const Look& look, double rate_hz)
      : look_(look),
        rate_hz_(rate_hz),
        spectrum_(HannSpectrum::quick_size(static_cast<std::size_t>(std::lround(look.window_s * rate_hz / 2)) * 2)) {}

  std::size_t window() const { return spectrum_.size(); }

  std::vector<Line> lines(std::span<const double> readings) {
    const Values& power = spectrum_.of(readings);
    sums_.assign(power.size() + 1, 0);
    std::partial_sum(power.begin(), power.end(), sums_.begin() + 1);
    const double bin_hz = rate_hz_ / static_cast<double>(window());
    const auto last = static_cast<long>(power.size()) - 1;
    const long first = std::max(2L, std::lround(look_.from_hz / bin_hz));
    const long end = static_cast<long>(std::min(static_cast<double>(last - 2), look_.to_hz / bin_hz));
    std::vector<Line> all;
    for (long k = first; k <= end; ++k) {
      const long half = std::max(1L, std::lround(band_share * static_cast<double>(k)));
      const double band = sum(k - half, k + half), wide = static_cast<double>(2 * half + 1);
      if (band < sum(k - half - 1, k + half - 1) || band <= sum(k - half + 1, k + half + 1)) continue;
      const double amplitude = std::sqrt(2 * band * bin_hz / rate_hz_);
      if (amplitude < least_amplitude) continue;
      const long low = std::max(1L, static_cast<long>(static_cast<double>(k) / beside)),
                 high = std::min(last, static_cast<long>(static_cast<double>(k) * beside) + 1), inner = half + 2;
      const double needed = 1 + (stands_out - 1) * std::sqrt(3 / wide);
      // Means first: they cost nothing, and only what stands above them is worth a median.
      const double around = sum(low, k - inner) + sum(k + inner, high);
      const double count = static_cast<double>(std::max(1L, k - inner - low + 1) + std::max(1L, high - k - inner + 1));
      if (band / wide < 0.35 * needed * around / count) continue;
      const double noise = median_to_mean * std::max(middle(power, low, k - inner), middle(power, k + inner, high));
      const double prominence = noise > 0 ? band / wide / noise : 1e9;
      if (prominence < needed) continue;
      double weighted = 0;
      for (long i = k - half; i <= k + half; ++i)
        weighted += static_cast<double>(i) * power[static_cast<std::size_t>(i)];
      const double scaled = stands_out * prominence / needed;
      all.push_back({weighted / band * bin_hz, scaled, noise / rate_hz_});
    }
    return all;
  }

 private:
  /// Of the bins from a to b, both included, as far as they are there.
  double sum(long a, long b) const {
    const long last = static_cast<long>(sums_.size()) - 2;
    a = std::clamp(a, 0L, last + 1), b = std::clamp(b, -1L, last);
    return b < a ? 0 : sums_[static_cast<std::size_t>(b + 1)] - sums_[static_cast<std::size_t>(a)];
  }
  double middle(const Values& power, long a, long b) {
    if (b - a < 2) return 0;
    part_.assign(power.begin() + a, power.begin() + b + 1);
    return median_within(part_);
  }

  Look look_;
  double rate_hz_;
  HannSpectrum spectrum_;
  Values sums_, part_;
};

void add_lines(const Values& readings, const FlightLog::Stretch& stretch, const Look& look, double rate_hz,
               std::size_t each, const Progress* progress, std::vector<RateLine>& done) {
  const std::size_t size = (stretch.to - stretch.from) / each;
  Look fitting = look;
  fitting.window_s = std::min(look.window_s, static_cast<double>(size) / rate_hz);
  if (fitting.window_s < look.window_s * 0.6) return;
  Values coarse;
  std::span<const double> all(readings.data() + stretch.from, stretch.to - stretch.from);
  if (each > 1) {
    for (std::size_t i = 0; i < size; ++i) coarse.push_back(mean(all.subspan(i * each, each)));
    all = coarse;
  }
  LineFinder finder(fitting, rate_hz);
  const auto hop = std::max<std::size_t>(1, static_cast<std::size_t>(std::lround(fitting.hop_s * rate_hz)));
  std::vector<RateLine> open;
  for (std::size_t at = 0; at + finder.window() <= all.size(); at += hop) {
    if (progress && progress->cancelled()) return;
    const std::size_t from = stretch.from + at * each, to = from + finder.window() * each;
    for (const Line& line : finder.lines(all.subspan(at, finder.window()))) {
      const double near = std::max(1.5 / fitting.window_s, follows * line.hz);
      RateLine* best = nullptr;
      for (RateLine& t : open)
        if (t.to < to && std::abs(t.hz - line.hz) < near &&
            (!best || std::abs(t.hz - line.hz) < std::abs(best->hz - line.hz)))
          best = &t;
      if (!best) best = &open.emplace_back(RateLine{line.hz, from, from, 0, 0, line.density});
      best->hz = line.hz, best->to = to, ++best->windows;
      best->strong += line.prominence >= sure;
      best->density = std::max(best->density, line.density);
    }
    std::erase_if(open, [&](const RateLine& t) {
      if (t.to + hop * each >= to) return false;
      done.push_back(t);
      return true;
    });
  }
  done.insert(done.end(), open.begin(), open.end());
}

}  // namespace

std::vector<RateLine> lasting_lines(const std::vector<double>& rate_deg_s, const FlightLog& log,
                                    const Progress* progress) {
  const double rate_hz = 1 / log.step_s;
  std::vector<RateLine> all;
  for (const FlightLog::Stretch& s : log.stretches) {
    add_lines(rate_deg_s, s, fast_look, rate_hz, 1, progress, all);
    for (const auto& [look, enough_hz] : {std::pair{slow_look, slow_rate_hz}, {faint_look, faint_rate_hz}}) {
      const auto each = std::max<std::size_t>(1, static_cast<std::size_t>(rate_hz / enough_hz));
      add_lines(rate_deg_s, s, look, rate_hz / static_cast<double>(each), each, progress, all);
    }
  }
  std::erase_if(all, [](const RateLine& t) {
    return t.windows < 3 && t.strong < 2 && !(t.windows >= 2 && t.hz < fast_look.from_hz);
  });
  return all;
}

}  // namespace rigging
