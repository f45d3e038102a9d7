#include "feel/oscillation.h"

#include <algorithm>
#include <cmath>
#include <complex>
#include <numeric>
#include <span>

#include "base/angle.h"
#include "base/number.h"
#include "base/spectrum.h"
#include "base/statistics.h"

namespace rigging {
namespace {

using Complex = std::complex<double>;
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

constexpr double vibrates_hz = 15, may_vibrate_hz = 9, pilot_hz = 2.5, slow_hz = 2, loop_hz = 0.8, slowest_hz = 0.4;
constexpr double chases = 0.35;     ///< share of the power of a rate or stick that is one swing
constexpr double edge = 0.3;        ///< of full height, where an episode begins and ends
constexpr double jumpy = 0.5;       ///< rad, median: gusts
constexpr double moves_with = 0.5;  ///< coherence
constexpr double stick_moves = 0.04, large_correction = 0.4, large_deg_s = 25, grows = 1.8;
constexpr double echo_height = 0.7, leak_height = 0.35;

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
        spectrum_(static_cast<std::size_t>(std::lround(look.window_s * rate_hz / 2)) * 2) {}

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

/// The same line through several windows; places are readings of the log.
struct Track {
  double hz = 0;
  std::size_t from = 0, to = 0;
  int windows = 0, strong = 0;
  double density = 0;
};

void add_tracks(const Values& readings, const FlightLog::Stretch& stretch, const Look& look, double rate_hz,
                std::size_t each, std::vector<Track>& done) {
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
  std::vector<Track> open;
  for (std::size_t at = 0; at + finder.window() <= all.size(); at += hop) {
    const std::size_t from = stretch.from + at * each, to = from + finder.window() * each;
    for (const Line& line : finder.lines(all.subspan(at, finder.window()))) {
      const double near = std::max(1.5 / fitting.window_s, follows * line.hz);
      Track* best = nullptr;
      for (Track& t : open)
        if (t.to < to && std::abs(t.hz - line.hz) < near &&
            (!best || std::abs(t.hz - line.hz) < std::abs(best->hz - line.hz)))
          best = &t;
      if (!best) best = &open.emplace_back(Track{line.hz, from, from, 0, 0, line.density});
      best->hz = line.hz, best->to = to, ++best->windows;
      best->strong += line.prominence >= sure;
      best->density = std::max(best->density, line.density);
    }
    std::erase_if(open, [&](const Track& t) {
      if (t.to + hop * each >= to) return false;
      done.push_back(t);
      return true;
    });
  }
  done.insert(done.end(), open.begin(), open.end());
}

/// A signal seen from a turning frame: twice the size of an entry is the height of the swing at that moment, its angle
/// the phase. Averaged by two boxes of `width` readings; an entry stands for every eighth of a box.
struct Demodulated {
  std::size_t every = 1, width = 1;  ///< readings from entry to entry, and in a box
  std::vector<Complex> z;
  double height(std::size_t k) const { return 2 * std::sqrt(std::norm(z[k])); }
};

Demodulated demodulated(std::span<const double> readings, double rad_per_reading, std::size_t width) {
  const std::size_t n = readings.size();
  Demodulated d{std::max<std::size_t>(1, width / 8), width, {}};
  Values real(n + 1), imaginary(n + 1);
  const double step_c = std::cos(rad_per_reading), step_s = -std::sin(rad_per_reading);
  double c = 1, s = 0;
  for (std::size_t i = 0; i < n; ++i) {
    // Exact from time to time; in between the turning is a product.
    if (i % 256 == 0) {
      const double angle = rad_per_reading * static_cast<double>(i);
      c = std::cos(angle), s = -std::sin(angle);
    }
    real[i + 1] = real[i] + readings[i] * c;
    imaginary[i + 1] = imaginary[i] + readings[i] * s;
    const double turned = c * step_c - s * step_s;
    s = c * step_s + s * step_c, c = turned;
  }
  const std::size_t half = std::max<std::size_t>(1, width / 2);
  std::vector<Complex> once;
  for (std::size_t i = 0; i < n; i += d.every) {
    const std::size_t a = i >= half ? i - half : 0, b = std::min(n, i + half + (width % 2));
    once.push_back(Complex(real[b] - real[a], imaginary[b] - imaginary[a]) / static_cast<double>(b - a));
  }
  const std::size_t reach = std::max<std::size_t>(1, half / d.every);
  for (std::size_t k = 0; k < once.size(); ++k) {
    const std::size_t a = k >= reach ? k - reach : 0, b = std::min(once.size() - 1, k + reach);
    // The ends of the box count half: it is as wide as the first.
    Complex sum = (once[a] + once[b]) / 2.0;
    for (std::size_t j = a + 1; j < b; ++j) sum += once[j];
    d.z.push_back(a == b ? once[k] : sum / static_cast<double>(b - a));
  }
  return d;
}

/// How another signal moves with the rate at the line's frequency.
struct Companion {
  bool known = false;
  double amplitude = 0, coherence = 0;
  double purity = 0;     ///< share of its power that swings so
  double leads_deg = 0;  ///< before the rate, −180 to 180
};

class AxisReader {
 public:
  AxisReader(const FlightLog& log, Axis axis) : log_(log), axis_(axis), signals_(log.of(axis)) {}

  std::vector<Episode> read() {
    const double rate_hz = 1 / log_.step_s;
    std::vector<Track> tracks;
    for (const FlightLog::Stretch& s : log_.stretches) {
      add_tracks(signals_.rate_deg_s, s, fast_look, rate_hz, 1, tracks);
      for (const auto& [look, enough_hz] : {std::pair{slow_look, slow_rate_hz}, {faint_look, faint_rate_hz}}) {
        const auto each = std::max<std::size_t>(1, static_cast<std::size_t>(rate_hz / enough_hz));
        add_tracks(signals_.rate_deg_s, s, look, rate_hz / static_cast<double>(each), each, tracks);
      }
    }
    std::vector<Episode> all;
    for (const Track& t : tracks)
      if (t.windows >= 3 || t.strong >= 2 || (t.windows >= 2 && t.hz < fast_look.from_hz)) add_runs(t, all);
    return all;
  }

 private:
  void add_runs(const Track& track, std::vector<Episode>& all) {
    const std::span<const double> rate = part(signals_.rate_deg_s, track);
    double hz = track.hz;
    Demodulated swing = at_frequency(rate, hz);
    // The frequency of its strongest part.
    std::size_t top = 0;
    for (std::size_t k = 0; k < swing.z.size(); ++k)
      if (std::norm(swing.z[k]) > std::norm(swing.z[top])) top = k;
    const std::size_t reach = 3 * swing.width / swing.every;
    hz += drift_hz(swing, top > reach ? top - reach : 0, std::min(swing.z.size(), top + reach));
    if (!(hz > 0)) return;
    swing = at_frequency(rate, hz);
    Values height;
    for (std::size_t k = 0; k < swing.z.size(); ++k) height.push_back(swing.height(k));
    const double noise = std::sqrt(2 * track.density * 0.67 / (static_cast<double>(swing.width) * log_.step_s));
    const double low = std::max(edge * quantile(height, 0.85), 2.2 * noise);
    const double entry_s = static_cast<double>(swing.every) * log_.step_s;
    const auto patience = static_cast<std::size_t>(std::max(0.5 / entry_s, 8.0));
    for (std::size_t i = 0; i < height.size();) {
      if (height[i] < low) {
        ++i;
        continue;
      }
      std::size_t end = i, j = i;
      for (; j < height.size() && j - end <= patience; ++j)
        if (height[j] >= low) end = j + 1;
      add_run(track, hz, swing, height, {i, end}, all);
      i = j;
    }
  }

  /// Entries of the demodulated rate, `to` one past the last.
  struct Run {
    std::size_t from, to;
  };

  void add_run(const Track& track, double hz, const Demodulated& swing, const Values& height, Run run,
               std::vector<Episode>& all) {
    Episode e;
    e.axis = axis_;
    e.from_s = log_.at_s(track.from + run.from * swing.every);
    e.to_s = log_.at_s(track.from + (run.to - 1) * swing.every);
    if (e.to_s - e.from_s < std::max(1.0, 3 / hz)) return;
    e.frequency_hz = hz + drift_hz(swing, run.from, run.to);
    const auto from = height.begin() + static_cast<std::ptrdiff_t>(run.from);
    const auto length = static_cast<std::ptrdiff_t>(run.to - run.from);
    e.amplitude_deg_s = quantile({from, from + length}, 0.8);
    if (e.frequency_hz < vibrates_hz && jump(swing, run) > jumpy) return;
    const auto within = [&](const Values& of) {
      return part(of, track).subspan(run.from * swing.every, (run.to - run.from - 1) * swing.every + 1);
    };
    const auto companion = [&](const Values& of) {
      return of.empty() ? Companion{} : companion_of(at_frequency(part(of, track), hz), swing, run, within(of));
    };
    const Companion correction = companion(signals_.correction), stick = companion(signals_.stick);
    if (correction.known) {
      e.correction = correction.amplitude;
      e.saturated = saturated(within(signals_.correction));
    }
    if (const auto speeds = log_.airspeed_m_s.empty() ? std::span<const double>{} : within(log_.airspeed_m_s);
        !speeds.empty())
      e.airspeed_m_s = mean(speeds.first(speeds.size() / 4 + 1));
    const double first = quantile({from, from + length / 4}, 0.5),
                 later = quantile({from + length / 2, from + length}, 0.5);
    const double pure = purity(within(signals_.rate_deg_s), e.amplitude_deg_s);
    if (judge(e, pure, correction, stick, first > 0 ? later / first : 1)) all.push_back(std::move(e));
  }

  /// A stick that drives the swing leads it by what the aircraft lags behind. One that follows a swing of the loop may
  /// seem to lead by more, and is then the lesser of the two.
  static bool drives(const Companion& stick, const Companion& correction) {
    const double share = correction.known && correction.amplitude > 0 ? stick.amplitude / correction.amplitude : 1e9;
    return stick.leads_deg > -20 && stick.leads_deg < 200 && share > (stick.leads_deg < 110 ? 0.25 : 1);
  }

  /// Fills in the kind and why. False when it is none of them.
  static bool judge(Episode& e, double pure, const Companion& correction, const Companion& stick, double growth) {
    const std::string at = number_text(e.frequency_hz, 1) + " Hz", how = number_text(e.amplitude_deg_s, 0) + "°/s";
    const bool works = correction.known && correction.coherence > moves_with && correction.amplitude > 0.02;
    const auto told = [&](OscillationKind kind, std::string why) {
      e.kind = kind;
      e.why = at + ", " + how + ": " + std::move(why);
      return true;
    };
    if (e.frequency_hz >= vibrates_hz)
      return told(OscillationKind::vibration,
                  "faster than a servo follows; the airframe, the propeller or the board shakes.");
    if (e.frequency_hz >= may_vibrate_hz && e.amplitude_deg_s > 3 && correction.known && !works)
      return told(OscillationKind::vibration, "fast, and the correction has no part in it.");
    if (e.frequency_hz < pilot_hz && e.frequency_hz > slowest_hz && pure > chases && stick.purity > chases &&
        stick.amplitude > stick_moves && stick.coherence > 0.75 && drives(stick, correction))
      return told(OscillationKind::pilot,
                  "the stick moves with it, " + number_text(stick.leads_deg, 0) +
                      "° ahead: the pilot's own chasing. Let go of the stick and look whether it ends.");
    if ((correction.known && !works) || e.frequency_hz < loop_hz) return false;
    const bool grew = growth > grows && e.amplitude_deg_s > 8;
    const bool large = correction.known ? correction.amplitude >= large_correction || grew ||
                                              (e.saturated && correction.amplitude > large_correction / 2)
                                        : e.amplitude_deg_s >= large_deg_s || grew;
    const std::string quiet = stick.known && stick.amplitude < stick_moves ? " with a quiet stick" : "";
    if (large)
      return told(OscillationKind::gain, std::string(grew          ? "it builds up"
                                                     : e.saturated ? "the correction reaches its ends"
                                                                   : "large") +
                                             quiet + ": too much correction at this speed.");
    if (e.frequency_hz < slow_hz) return false;
    return told(OscillationKind::slop, "small and steady" + quiet + ": play or dead band in servo and linkage.");
  }

  /// Boxes of two swings, and of a tenth of a second at least where rotors change their speed.
  Demodulated at_frequency(std::span<const double> readings, double hz) const {
    const double box_s = std::max(2 / hz, hz >= vibrates_hz ? 0.1 : 0);
    const auto width = std::max<std::size_t>(1, static_cast<std::size_t>(std::lround(box_s / log_.step_s)));
    return demodulated(readings, 2 * pi * hz * log_.step_s, width);
  }

  std::span<const double> part(const Values& of, const Track& t) const {
    return std::span<const double>(of).subspan(t.from, t.to - t.from);
  }

  /// How far the line lies beside the frame's frequency, by its phase, from one entry to another.
  double drift_hz(const Demodulated& d, std::size_t from, std::size_t to) const {
    Values t, phase;
    double turned = 0;
    for (std::size_t k = from; k < to; ++k) {
      if (k > from) turned += std::arg(d.z[k] * std::conj(d.z[k - 1]));
      t.push_back(static_cast<double>(k * d.every) * log_.step_s);
      phase.push_back(turned);
    }
    return t.size() < 2 ? 0 : slope(t, phase) / (2 * pi);
  }

  /// Median jump of the phase's slope from one box to the next: a steady swing has none, however it drifts.
  static double jump(const Demodulated& d, Run run) {
    const std::size_t box = std::max<std::size_t>(1, d.width / d.every);
    Values jumps;
    for (std::size_t k = run.from + box; k + box < run.to; k += std::max<std::size_t>(1, box / 4))
      jumps.push_back(std::abs(std::arg(d.z[k - box] * std::conj(d.z[k]) * std::conj(d.z[k]) * d.z[k + box])));
    return jumps.empty() ? 0 : median_within(jumps);
  }

  static Companion companion_of(const Demodulated& other, const Demodulated& rate, Run run,
                                std::span<const double> readings) {
    Companion c;
    c.known = true;
    Complex cross = 0;
    double own = 0, theirs = 0;
    Values heights;
    for (std::size_t k = run.from; k < run.to; ++k) {
      cross += other.z[k] * std::conj(rate.z[k]);
      own += std::norm(rate.z[k]), theirs += std::norm(other.z[k]);
      heights.push_back(other.height(k));
    }
    c.amplitude = quantile(std::move(heights), 0.8);
    c.purity = purity(readings, c.amplitude);
    if (own > 0 && theirs > 0) c.coherence = std::norm(cross) / (own * theirs);
    c.leads_deg = std::arg(cross) / rad;
    if (c.leads_deg < -90) c.leads_deg += 360;
    return c;
  }

  /// Power of a swing of this height over the power of everything.
  static double purity(std::span<const double> readings, double amplitude) {
    const double middle = mean(readings);
    double squares = 0;
    for (const double x : readings) squares += (x - middle) * (x - middle);
    return squares > 0 ? amplitude * amplitude / 2 * static_cast<double>(readings.size()) / squares : 0;
  }

  /// At its full deflection, or cut off at a limit of its own: a sine stands for 13 % of its time within 2 % of its
  /// ends.
  static bool saturated(std::span<const double> correction) {
    double most = 0;
    for (const double c : correction) most = std::max(most, std::abs(c));
    const auto there =
        std::count_if(correction.begin(), correction.end(), [most](double c) { return std::abs(c) >= 0.98 * most; });
    return most >= 0.95 || (most > 0.15 && static_cast<double>(there) > 0.3 * static_cast<double>(correction.size()));
  }

  const FlightLog& log_;
  Axis axis_;
  const AxisLog& signals_;
};

double overlap_s(const Episode& a, const Episode& b) { return std::min(a.to_s, b.to_s) - std::max(a.from_s, b.from_s); }

/// The same swing found twice: by both looks, by neighbouring lines, or in pieces.
bool same(const Episode& a, const Episode& b) {
  return a.axis == b.axis && a.kind == b.kind &&
         std::abs(a.frequency_hz - b.frequency_hz) < 0.12 * std::max(a.frequency_hz, b.frequency_hz) &&
         overlap_s(a, b) > -1;
}

bool echo(const Episode& weak, const Episode& strong) {
  if (weak.amplitude_deg_s >= strong.amplitude_deg_s || overlap_s(weak, strong) < 0.5 * (weak.to_s - weak.from_s))
    return false;
  const double ratio = weak.frequency_hz / strong.frequency_hz, whole = std::round(ratio);
  const double share = weak.amplitude_deg_s / strong.amplitude_deg_s;
  if (weak.axis == strong.axis)
    return share < echo_height && whole >= 1 && whole <= 9 && std::abs(ratio - whole) < 0.04 * whole;
  return share < leak_height && whole >= 1 && whole <= 3 && std::abs(ratio - whole) < 0.05 * whole;
}

}  // namespace

std::vector<Episode> oscillations_in(const FlightLog& log) {
  std::vector<Episode> found;
  for (const Axis axis : all_axes)
    if (!log.of(axis).rate_deg_s.empty())
      for (Episode& e : AxisReader(log, axis).read()) found.push_back(std::move(e));
  std::sort(found.begin(), found.end(),
            [](const Episode& a, const Episode& b) { return a.amplitude_deg_s > b.amplitude_deg_s; });
  std::vector<Episode> all;
  for (const Episode& e : found) {
    if (std::any_of(all.begin(), all.end(), [&](const Episode& strong) { return echo(e, strong); })) continue;
    const auto twin = std::find_if(all.begin(), all.end(), [&](const Episode& other) { return same(e, other); });
    if (twin == all.end()) {
      all.push_back(e);
      continue;
    }
    twin->from_s = std::min(twin->from_s, e.from_s);
    twin->to_s = std::max(twin->to_s, e.to_s);
  }
  std::sort(all.begin(), all.end(), [](const Episode& a, const Episode& b) { return a.from_s < b.from_s; });
  return all;
}

}  // namespace rigging
