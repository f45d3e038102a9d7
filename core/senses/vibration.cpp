#include "senses/vibration.h"

#include <algorithm>
#include <cmath>
#include <span>

#include "base/angle.h"
#include "base/number.h"
#include "base/spectrum.h"
#include "base/statistics.h"

namespace rigging {
namespace {

constexpr double good_rms = 3, usable_rms = 8;  ///< m/s² (common practice)
constexpr double least_rate_hz = 20, least_s = 2, segment_s = 1;
constexpr double pause_steps = 3;    ///< a longer step of time is a pause
constexpr double uneven = 0.2;       ///< share by which steps of time may differ from their median
constexpr double clip_near = 0.002;  ///< of the largest reading
constexpr std::size_t most_peaks = 5;
constexpr double faint = 0.08;        ///< of the strongest: what is less is not worth a line
constexpr double lowest_peak_hz = 2;  ///< below it is the hand, or flying

/// Of a low-pass of second order, what is left at `hz`.
double butterworth(double hz, double cut_hz) { return 1 / std::sqrt(1 + std::pow(hz / cut_hz, 4)); }

/// Readings that stand at the largest or smallest of their axis again and again.
double clipped(const std::vector<double>& v) {
  const auto [least, most] = std::minmax_element(v.begin(), v.end());
  const double close = clip_near * std::max(std::abs(*least), std::abs(*most));
  const auto at = [&](double end) {
    return std::count_if(v.begin(), v.end(), [&](double x) { return std::abs(x - end) <= close; });
  };
  // One reading is the largest of any; a range that is met stands there many times.
  const auto high = at(*most), low = at(*least);
  const double share = static_cast<double>(std::max(high, low)) / static_cast<double>(v.size());
  return *most - *least > 20 && std::max(high, low) >= 8 ? share : 0;
}

}  // namespace

Vibration vibration_of(const Recording& r, const VibrationOptions& options) {
  Vibration v;
  if (r.size() < 2) {
    v.why = "No readings.";
    return v;
  }
  std::vector<double> steps;
  for (std::size_t i = 1; i < r.size(); ++i) steps.push_back(r.t_s[i] - r.t_s[i - 1]);
  const double step = median(steps);
  const double length_s = r.t_s.back() - r.t_s.front();
  if (!(step > 0) || 1 / step < least_rate_hz || length_s < least_s) {
    v.why = "At least " + number_text(least_s, 0) + " s at " + number_text(least_rate_hz, 0) +
            " readings a second or more are needed.";
    return v;
  }
  const auto off =
      std::count_if(steps.begin(), steps.end(), [&](double s) { return std::abs(s - step) > uneven * step; });
  if (static_cast<double>(off) > 0.02 * static_cast<double>(steps.size())) {
    v.why = number_text(100.0 * static_cast<double>(off) / static_cast<double>(steps.size()), 0) +
            " % of the readings come at uneven times: no spectrum can be made of them.";
    return v;
  }
  v.rate_hz = 1 / step;
  // A pause is a pause: no segment lies across one.
  std::vector<std::pair<std::size_t, std::size_t>> stretches{{0, 1}};
  for (std::size_t i = 1; i < r.size(); ++i) {
    if (steps[i - 1] > pause_steps * step) stretches.emplace_back(i, i);
    stretches.back().second = i + 1;
  }
  const auto longest = std::max_element(stretches.begin(), stretches.end(), [](const auto& a, const auto& b) {
    return a.second - a.first < b.second - b.first;
  });
  if (static_cast<double>(longest->second - longest->first) < segment_s * v.rate_hz) {
    v.why = "There is no second without a pause in the readings, which come " + number_text(v.rate_hz, 0) +
            " times a second: no spectrum can be made of them.";
    return v;
  }
  const std::size_t n = static_cast<std::size_t>(std::lround(segment_s * v.rate_hz / 2)) * 2, hop = n / 2;
  HannSpectrum spectrum(n);
  v.density.assign(spectrum.bins(), 0);
  std::size_t segments = 0;
  double squares = 0;
  for (const std::vector<double>* axis : {&r.readings.x, &r.readings.y, &r.readings.z}) {
    v.clipped_share = std::max(v.clipped_share, clipped(*axis));
    for (const auto& [begin, end] : stretches)
      for (std::size_t from = begin; from + n <= end; from += hop) {
        const std::span<const double> part(axis->data() + from, n);
        const double middle = mean(part);
        for (const double x : part) squares += (x - middle) * (x - middle);
        const std::vector<double>& power = spectrum.of(part);
        for (std::size_t k = 0; k < power.size(); ++k) v.density[k] += power[k] / v.rate_hz;
        ++segments;
      }
  }
  // Each axis counts, their segments are averaged.
  const double each = static_cast<double>(segments) / 3;
  for (double& d : v.density) d /= each;
  const double bin_hz = v.rate_hz / static_cast<double>(n);
  v.rms = std::sqrt(squares / (each * static_cast<double>(n)));
  for (std::size_t k = 0; k < spectrum.bins(); ++k) v.hz.push_back(static_cast<double>(k) * bin_hz);

  // A sine spreads over three bins of a Hann window: their sum is its power, half the square of its amplitude.
  std::vector<Peak> peaks;
  for (std::size_t k = 2; k + 2 < spectrum.bins(); ++k) {
    if (v.hz[k] < lowest_peak_hz || v.density[k] < v.density[k - 1] || v.density[k] <= v.density[k + 1] ||
        v.density[k] < v.density[k - 2] || v.density[k] < v.density[k + 2])
      continue;
    const double sum = v.density[k - 1] + v.density[k] + v.density[k + 1];
    const double around = (v.density[k - 2] + v.density[k + 2]) / 2;
    if (sum < 4 * around) continue;  // noise
    const double centre =
        (v.density[k - 1] * v.hz[k - 1] + v.density[k] * v.hz[k] + v.density[k + 1] * v.hz[k + 1]) / sum;
    peaks.push_back({centre, std::sqrt(2 * sum * bin_hz)});
  }
  std::sort(peaks.begin(), peaks.end(), [](const Peak& a, const Peak& b) { return a.amplitude > b.amplitude; });
  const double least = peaks.empty() ? 0 : faint * peaks.front().amplitude;
  std::erase_if(peaks, [least](const Peak& p) { return p.amplitude < least; });
  if (peaks.size() > most_peaks) peaks.resize(most_peaks);
  v.peaks = std::move(peaks);

  if (options.shaft_hz > v.rate_hz / 2) {
    const double turns = std::fmod(options.shaft_hz, v.rate_hz);
    v.folded_hz = std::min(turns, v.rate_hz - turns);
  }
  if (options.filter_hz > 0)
    v.filter = FilterCost{options.filter_hz, v.peaks.empty() ? 1 : butterworth(v.peaks.front().hz, options.filter_hz),
                          std::sqrt(2.0) / (2 * pi * options.filter_hz)};
  v.verdict = v.rms <= good_rms && v.clipped_share == 0 ? Verdict::good
              : v.rms <= usable_rms                     ? Verdict::usable
                                                        : Verdict::repeat;
  v.why = number_text(v.rms, 2) + " m/s² rms";
  if (!v.peaks.empty())
    v.why += ", strongest at " + number_text(v.peaks.front().hz, 1) + " Hz with " +
             number_text(v.peaks.front().amplitude, 2) + " m/s²";
  v.why += ".";
  if (v.clipped_share > 0)
    v.why += " " + number_text(v.clipped_share * 100, 1) +
             " % of the readings stand at the end of the range: the sensor is overrun.";
  if (v.folded_hz)
    v.why += " The shaft turns faster than half the rate of the readings: it shows folded, at " +
             number_text(*v.folded_hz, 1) + " Hz, and no filter behind the readings takes it out there.";
  if (v.verdict != Verdict::good)
    v.why += " Balance propeller and motor, foam under the board, nothing that touches it.";
  return v;
}

}  // namespace rigging
