#include "feel/oscillation.h"

#include <algorithm>
#include <cmath>
#include <complex>
#include <map>
#include <span>

#include "base/angle.h"
#include "base/number.h"
#include "base/statistics.h"
#include "feel/demodulation.h"
#include "feel/rate_lines.h"

namespace rigging {
namespace {

using Complex = std::complex<double>;
using Values = std::vector<double>;

constexpr double vibrates_hz = 15, may_vibrate_hz = 9, pilot_hz = 2.5, slow_hz = 2, loop_hz = 0.8, slowest_hz = 0.4,
                 airframe_hz = 2.2;
constexpr double chases = 0.35;     ///< share of the power of a rate or stick that is one swing
constexpr double edge = 0.3;        ///< of full height, where an episode begins and ends
constexpr double jumpy = 0.5;       ///< rad, median: gusts
constexpr double moves_with = 0.5;  ///< coherence
constexpr double stick_moves = 0.04, large_correction = 0.4, large_deg_s = 25, grows = 1.8;
constexpr int chasing_turns = 5;                ///< that a stick goes to and fro, of who chases
constexpr double rests = 0.15, resting = 0.45;  ///< of its way, and of its time, of a stick that waits between
constexpr double straight_against_deg = 45, clear_deg_s = 10;
constexpr double echo_height = 0.7, leak_height = 0.35;

/// How another signal moves with the rate at the line's frequency.
struct Companion {
  bool known = false;
  double amplitude = 0, coherence = 0;
  double purity = 0;     ///< share of its power that swings so
  double leads_deg = 0;  ///< before the rate, −180 to 180
};

class AxisReader {
 public:
  AxisReader(const FlightLog& log, Axis axis, Progress* progress)
      : log_(log), axis_(axis), signals_(log.of(axis)), progress_(progress) {}

  std::vector<Episode> read() {
    std::vector<Episode> all;
    for (const RateLine& line : lasting_lines(signals_.rate_deg_s, log_, progress_))
      if (!progress_ || !progress_->cancelled()) add_runs(line, all);
    return all;
  }

 private:
  void add_runs(const RateLine& track, std::vector<Episode>& all) {
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
    beside_.clear();
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

  void add_run(const RateLine& track, double hz, const Demodulated& swing, const Values& height, Run run,
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
      if (of.empty()) return Companion{};
      auto known = beside_.find(&of);
      if (known == beside_.end()) known = beside_.emplace(&of, at_frequency(part(of, track), hz)).first;
      return companion_of(known->second, swing, run, within(of));
    };
    const Companion correction = companion(signals_.correction), stick = companion(signals_.stick);
    if (correction.known) {
      e.correction = correction.amplitude;
      e.saturated = saturated(within(signals_.correction));
    }
    if (const auto speeds = log_.airspeed_m_s.empty() ? std::span<const double>{} : within(log_.airspeed_m_s);
        !speeds.empty())
      e.airspeed_m_s = mean(speeds.first(speeds.size() / 4 + 1));
    const Companion other = axis_ == Axis::pitch
                                ? Companion{}
                                : companion(log_.of(axis_ == Axis::roll ? Axis::yaw : Axis::roll).rate_deg_s);
    const bool keeps_on = !signals_.stick.empty() && goes_to_and_fro(within(signals_.stick));
    const double first = quantile({from, from + length / 4}, 0.5),
                 later = quantile({from + length / 2, from + length}, 0.5);
    const double pure = purity(within(signals_.rate_deg_s), e.amplitude_deg_s);
    if (judge(e, pure, correction, stick, keeps_on, other, first > 0 ? later / first : 1)) all.push_back(std::move(e));
  }

  /// A hand that chases goes on without a rest; one that tries out a doublet lets go.
  static bool goes_to_and_fro(std::span<const double> stick) {
    const double middle = quantile({stick.begin(), stick.end()}, 0.5);
    Values away;
    for (const double s : stick) away.push_back(std::abs(s - middle));
    const double way = quantile(away, 0.95);
    const auto still = std::count_if(away.begin(), away.end(), [way](double a) { return a < rests * way; });
    int turns = 0, side = 0;
    for (const double s : stick) {
      const int now = s - middle > way / 2 ? 1 : s - middle < -way / 2 ? -1 : side;
      turns += now != side;
      side = now;
    }
    return turns >= chasing_turns && static_cast<double>(still) < resting * static_cast<double>(stick.size());
  }

  /// Roll and yaw in one slow swing, or one that the correction works straight against.
  static bool swings_by_itself(const Episode& e, const Companion& correction, const Companion& other) {
    if (e.frequency_hz > airframe_hz || e.axis == Axis::pitch) return false;
    const double ratio = e.amplitude_deg_s > 0 ? other.amplitude / e.amplitude_deg_s : 0;
    const bool together = other.known && other.coherence > 0.6 && ratio > 0.2 && ratio < 5;
    const double beside = std::abs(std::remainder(correction.leads_deg, 180));
    return together ||
           (correction.known && correction.coherence > moves_with && !e.saturated && beside < straight_against_deg);
  }

  /// A stick that drives the swing leads it by what the aircraft lags behind. One that follows a swing of the loop may
  /// seem to lead by more, and is then the lesser of the two.
  static bool drives(const Companion& stick, const Companion& correction) {
    const double share = correction.known && correction.amplitude > 0 ? stick.amplitude / correction.amplitude : 1e9;
    return stick.leads_deg > -20 && stick.leads_deg < 200 && share > (stick.leads_deg < 110 ? 0.25 : 1);
  }

  /// Fills in the kind and why. False when it is none of them.
  static bool judge(Episode& e, double pure, const Companion& correction, const Companion& stick, bool keeps_on,
                    const Companion& other, double growth) {
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
        stick.amplitude > stick_moves && stick.coherence > 0.75 && drives(stick, correction)) {
      if (!keeps_on) return false;
      return told(OscillationKind::pilot,
                  "the stick moves with it, " + number_text(stick.leads_deg, 0) +
                      "° ahead: the pilot's own chasing. Let go of the stick and look whether it ends.");
    }
    if ((correction.known && !works) || e.frequency_hz < loop_hz) return false;
    const bool grew = growth > grows && e.amplitude_deg_s > 8;
    const bool large = correction.known ? correction.amplitude >= large_correction || grew ||
                                              (e.saturated && correction.amplitude > large_correction / 2)
                                        : e.amplitude_deg_s >= large_deg_s || grew;
    // A pure swing of roll and yaw together tells it even where it stays small.
    const bool clear = pure > 0.5 && other.known && e.amplitude_deg_s > clear_deg_s;
    if ((large || clear) && swings_by_itself(e, correction, other))
      return told(
          OscillationKind::dutch_roll,
          "the airframe's own Dutch roll, roll and yaw in turn, with the correction against it. Less correction "
          "makes it worse: more of it on yaw, or a larger fin, damps it.");
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

  std::span<const double> part(const Values& of, const RateLine& t) const {
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
  Progress* progress_;
  std::map<const Values*, Demodulated> beside_;  ///< other signals at the frequency of the line that is being read
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

std::vector<Episode> oscillations_in(const FlightLog& log, Progress* progress) {
  std::vector<Episode> found;
  for (const Axis axis : all_axes) {
    if (!log.of(axis).rate_deg_s.empty())
      for (Episode& e : AxisReader(log, axis, progress).read()) found.push_back(std::move(e));
    if (progress && progress->cancelled()) return {};
    if (progress) progress->at(static_cast<double>(axis) / 3 + 1.0 / 3);
  }
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
