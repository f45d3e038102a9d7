#include "feel/learn.h"

#include <algorithm>
#include <cmath>
#include <functional>

#include "base/number.h"
#include "base/statistics.h"
#include "feel/advice.h"
#include "feel/gain_scale.h"

namespace rigging {
namespace {

constexpr double least_factor = 0.1, most_factor = 10;
constexpr int cells = 600;
constexpr double reading_error = 0.12;  ///< share, of a factor that a shaking tells
constexpr double beyond = 0.05;         ///< of the belief that lies beyond either end of a band
constexpr double one_sided = 1.645;     ///< deviations that leave it there

double factor_at(int cell) { return least_factor * std::pow(most_factor / least_factor, (cell + 0.5) / cells); }

/// Belief over the cells; adds up to 1.
using Belief = std::vector<double>;

void normalize(Belief& b) {
  double sum = 0;
  for (const double p : b) sum += p;
  if (sum > 0)
    for (double& p : b) p /= sum;
}

Belief belief_of(const LearnedGain& l) {
  const double middle = std::log(l.factor);
  const double low = std::max(0.02, (middle - std::log(l.least)) / one_sided),
               high = std::max(0.02, (std::log(l.most) - middle) / one_sided);
  Belief b;
  for (int i = 0; i < cells; ++i) {
    const double away = std::log(factor_at(i)) - middle, width = away < 0 ? low : high;
    b.push_back(std::exp(-0.5 * away * away / (width * width)));
  }
  normalize(b);
  return b;
}

LearnedGain told_by(const Belief& b, Axis axis) {
  LearnedGain l;
  l.axis = axis;
  const auto quantile = [&b](double share) {
    double sum = 0;
    for (int i = 0; i < cells; ++i)
      if ((sum += b[static_cast<std::size_t>(i)]) >= share) return factor_at(i);
    return most_factor;
  };
  l.least = quantile(beyond), l.factor = quantile(0.5), l.most = quantile(1 - beyond);
  return l;
}

/// What the model's own bands make of the loop gain.
LearnedGain model_band(const FeelReport& r, const AxisFeel& a) {
  const DoubtBand d = doubts_of(r.aeroplane, a.control, a.axis);
  LearnedGain l;
  l.axis = a.axis;
  // Two bands that have nothing to do with each other add up by squares.
  const double down = std::hypot(std::log(d.least.effect), std::log(d.most.inertia)),
               up = std::hypot(std::log(d.most.effect), std::log(d.least.inertia));
  l.least = std::exp(-down), l.most = std::exp(up);
  return l;
}

/// How much of the gain the class gave while the log's readings were as chosen. Without a column for what makes it
/// smaller the least of it is supposed, which makes no loop look weaker than it is.
double given(const FlightLog& log, const ControllerClass& c, const FeelReport& r, double m_s,
             const std::function<bool(std::size_t)>& chosen) {
  double throttle = 0, count = 0;
  for (std::size_t i = 0; i < log.throttle.size(); ++i)
    if (chosen(i)) throttle += log.throttle[i], ++count;
  return follows_speed(c, m_s, r.aeroplane.cruise_m_s) *
         follows_throttle(c, count > 0 ? throttle / count : 1, r.cruise_throttle);
}

double given_during(const FlightLog& log, const ControllerClass& c, const FeelReport& r, double m_s, const Episode& e) {
  return given(log, c, r, m_s, [&](std::size_t i) { return log.at_s(i) >= e.from_s && log.at_s(i) <= e.to_s; });
}

std::string times(const LearnedGain& l) {
  return number_text(l.factor, 2) + " (" + number_text(l.least, 2) + "–" + number_text(l.most, 2) + ")";
}

}  // namespace

std::vector<Episode> episodes_in(const FlightLog& log, const ControllerClass& c, const FeelReport& r,
                                 Progress* progress) {
  constexpr double alike_hz = 0.2;
  std::vector<Episode> episodes = oscillations_in(log, progress);
  for (Episode& e : episodes) {
    // The cure is one that this aircraft has.
    if (e.kind == OscillationKind::dutch_roll && r.missing.empty() && !r.of(Axis::yaw).known())
      e.why =
          number_text(e.frequency_hz, 1) + " Hz, " + number_text(e.amplitude_deg_s, 0) +
          "°/s: the airframe's own Dutch roll, roll and yaw in turn, with the correction against it. Less correction "
          "makes it worse. Nothing here answers in yaw: larger fins damp it.";
    if (e.kind != OscillationKind::slop || !r.missing.empty() || !r.of(e.axis).known()) continue;
    const AxisFeel& a = r.of(e.axis);
    const double v = e.airspeed_m_s.value_or(r.fast_m_s);
    const MarginPoint at = margin_at(a.stricter(), v);
    const double gain = a.gain_s * given_during(log, c, r, v, e);
    if (at.shakes_s <= 0 || gain < at.shakes_least_s || std::abs(e.frequency_hz / at.hz - 1) > alike_hz) continue;
    e.kind = OscillationKind::gain;
    e.why = number_text(e.frequency_hz, 1) + " Hz, " + number_text(e.amplitude_deg_s, 0) +
            "°/s: the loop's own rhythm, at a setting that may shake here. It stays small because the servo can't "
            "follow any faster.";
  }
  return episodes;
}

FlightLesson lesson_of(const Rig& rig, const Catalogue& catalogue, const FeelReport& report, const FlightLog& log,
                       bool simulated, Progress* progress) {
  FlightLesson lesson;
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c) return lesson;
  const GainScale scale(*c, rig.feel.half_share);
  if (!log.airspeed_m_s.empty()) lesson.fastest_m_s = quantile(log.airspeed_m_s, 0.98);
  const std::vector<Episode> episodes = episodes_in(log, *c, report, progress);
  for (const Axis axis : all_axes) {
    if (log.of(axis).rate_deg_s.empty()) continue;
    AxisLesson l;
    l.axis = axis;
    for (const Episode& e : episodes)
      if (e.axis == axis) l.episodes.push_back(e);
    const std::string name = capital(std::string(name_of(axis)));
    const auto of_kind = [&](OscillationKind kind) {
      return std::find_if(l.episodes.begin(), l.episodes.end(), [kind](const Episode& e) { return e.kind == kind; });
    };
    const AxisFeel* a = report.missing.empty() && report.of(axis).known() ? &report.of(axis) : nullptr;
    const auto shook = of_kind(OscillationKind::gain);
    if (a && a->gain_s > 0) {
      const LearnedGain* known = rig.feel.learnt(axis);
      const bool builds_on = known && (simulated || !known->simulated);
      const LearnedGain prior = builds_on ? *known : model_band(report, *a);
      Belief b = belief_of(prior);
      const double flown = shook != l.episodes.end() && shook->airspeed_m_s ? *shook->airspeed_m_s
                           : lesson.fastest_m_s > 0                         ? lesson.fastest_m_s
                           : shook != l.episodes.end()                      ? report.fast_m_s
                                                                            : 0;
      if (flown > 0) {
        // The curve already holds what was learnt.
        const double model = margin_at(a->stricter(), flown).shakes_s * (known ? known->factor : 1);
        const double follow =
            shook != l.episodes.end()
                ? given_during(log, *c, report, flown, *shook)
                : given(log, *c, report, flown, [&](std::size_t i) { return log.airspeed_m_s[i] > 0.95 * flown; });
        const double told = model / (a->gain_s * follow);
        for (int i = 0; i < cells; ++i) {
          const double away = std::log(factor_at(i) / told) / reading_error;
          double& p = b[static_cast<std::size_t>(i)];
          p *= shook != l.episodes.end() ? std::exp(-0.5 * away * away) : 0.5 * std::erfc(away / std::sqrt(2.0));
        }
        normalize(b);
        l.before = prior;
        l.after = told_by(b, axis);
        l.after->simulated = simulated;
      }
    }
    if (shook != l.episodes.end()) {
      l.words = name + " shook: " + shook->why;
      if (shook->airspeed_m_s) l.words += " At " + number_text(*shook->airspeed_m_s, 1) + " m/s.";
      if (a && a->place && scale.settable()) {
        const double next = scale.rounded_down(scale.place_for(back_off_to * scale.effect(*a->place)));
        l.place = std::min(next, *a->place);
        l.words += " Turn it down from " + scale.words(*a->place) + " to " + scale.words(*l.place) + ".";
      } else if (a && !scale.settable()) {
        l.words += " Bring its throw to " + number_text(100 * back_off_to, 0) + " % of what it is.";
      }
      if (l.after) l.words += " The loop is " + times(*l.after) + " times as strong as worked out.";
    } else if (l.after && l.after->most < 0.98 * l.before->most) {
      l.words = name + " stayed calm up to " + number_text(lesson.fastest_m_s, 1) + " m/s: the loop is at most " +
                number_text(l.after->most, 2) + " times as strong as worked out.";
    } else {
      l.words = name + (l.episodes.empty() ? " stayed calm." : ".");
      l.after.reset();
    }
    if (const auto e = of_kind(OscillationKind::slop); e != l.episodes.end())
      l.words += " " + e->why + " Less gain does not cure it: take the play out.";
    if (const auto e = of_kind(OscillationKind::vibration); e != l.episodes.end())
      l.words += " " + e->why + " Station senses tells more of it.";
    if (const auto e = of_kind(OscillationKind::pilot); e != l.episodes.end())
      l.words += " " + e->why + " Lower rates or more expo make the stick calmer.";
    if (const auto e = of_kind(OscillationKind::dutch_roll); e != l.episodes.end()) l.words += " " + e->why;
    lesson.axes.push_back(std::move(l));
  }
  return lesson;
}

Result<Edit> take_lesson(const Rig& rig, const FlightLesson& lesson, bool gains) {
  Edit e{rig, "What a flight's log told"};
  for (const AxisLesson& l : lesson.axes) {
    if (l.after) {
      std::erase_if(e.rig.feel.learned, [&](const LearnedGain& k) { return k.axis == l.axis; });
      e.rig.feel.learned.push_back(*l.after);
    }
    if (gains && l.place) e.rig.feel.made_gain(l.axis).rate = *l.place;
  }
  if (e.rig == rig) return failure("log", "it tells nothing new", "a flight with airspeed, at gains that are set");
  return e;
}

}  // namespace rigging
