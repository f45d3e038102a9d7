#include "feel/margins.h"

#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "base/number.h"
#include "base/statistics.h"
#include "surfaces/air_loads.h"

namespace rigging {
namespace {

constexpr double analogue_hz_s = 0.85, digital_hz_s = 1.1;  ///< natural frequency times the time for 60° (from memory)
constexpr double servo_least = 0.7, servo_most = 1.4;
constexpr double usual_seconds_per_60deg = 0.12, usual_deg_per_us = 0.05;
constexpr double phase_margin_deg = 45, gain_margin = 2;  ///< common practice
constexpr double edge_share = 0.05;                       ///< of the draws that may lie beyond the edge of a band

/// Halton's sequence: draws that fill the room evenly, the same ones every time.
double halton(int index, int base) {
  double result = 0, share = 1;
  for (int i = index; i > 0; i /= base) {
    share /= base;
    result += share * (i % base);
  }
  return result;
}

/// A draw from a band around 1: half of them below.
double from_band(double u, double least, double most) {
  return u < 0.5 ? least + (1 - least) * 2 * u : 1 + (most - 1) * (2 * u - 1);
}

/// One aircraft out of those that it may be.
struct Sample {
  Doubt doubt;
  double servo = 1, delay_s = 0;
};

std::vector<Sample> draws_of(const Aeroplane& a, const AxisControl& control, Axis axis, const SignalPath& path,
                             const LearnedGain* learnt, int count) {
  const DoubtBand band = doubts_of(a, control, axis);
  std::vector<Sample> all;
  for (int i = 1; i <= count; ++i) {
    Sample d;
    d.doubt.damping = from_band(halton(i, 2), band.least.damping, band.most.damping);
    d.doubt.stiffness = from_band(halton(i, 3), band.least.stiffness, band.most.stiffness);
    if (learnt) {
      d.doubt.effect =
          learnt->factor * from_band(halton(i, 5), learnt->least / learnt->factor, learnt->most / learnt->factor);
    } else {
      d.doubt.effect = from_band(halton(i, 5), band.least.effect, band.most.effect);
      d.doubt.inertia = from_band(halton(i, 7), band.least.inertia, band.most.inertia);
    }
    d.servo = from_band(halton(i, 11), path.servo_least, path.servo_most);
    const double u = halton(i, 13);
    d.delay_s = u < 0.5 ? path.delay_least_s + (path.delay_s - path.delay_least_s) * 2 * u
                        : path.delay_s + (path.delay_most_s - path.delay_s) * (2 * u - 1);
    all.push_back(d);
  }
  return all;
}

Loop drawn_loop(const Aeroplane& a, const AxisControl& control, Axis axis, const SignalPath& path, double m_s,
                const Sample& d, bool levels) {
  Loop l;
  l.plant = plant_of(a, control, axis, m_s, d.doubt);
  l.servo(path.servo_hz * d.servo, servo_damping);
  l.lowpass(path.filter_hz);
  l.delay_s = d.delay_s;
  // Nothing levels the heading.
  if (levels && axis != Axis::yaw) l.level_per_s = path.level_per_s;
  return l;
}

}  // namespace

SurfaceServo surface_servo(const Rig& rig, const Catalogue& catalogue, const SurfaceAnswer& answer) {
  const ServoFigures* s = servo_figures(rig, catalogue, answer.surface);
  const double seconds = s ? s->seconds_per_60deg : usual_seconds_per_60deg;
  // Through the linkage a degree of the servo is worth less or more of the surface; 500 µs are 45° of it.
  const double deg_per_us = answer.travel ? std::abs(answer.travel->deg_per_us) : usual_deg_per_us;
  return {(s && s->digital ? digital_hz_s : analogue_hz_s) / seconds, 60 / seconds * deg_per_us * 500 / 45,
          s != nullptr};
}

SignalPath signal_path(const Rig& rig, const Catalogue& catalogue, const ControllerClass& c,
                       const SurfacesReport& surfaces, const AxisControl& control, Axis axis) {
  SignalPath p;
  const auto i = static_cast<std::size_t>(index_of(axis));
  const FeelAbilities& f = c.feel;
  p.full_gain_s = control.throw_rad / (f.full_at_deg_s * rad);
  p.level_per_s = f.full_at_deg_s / f.full_at_deg;
  p.filter_hz = f.filter_hz;
  p.servo_least = servo_least, p.servo_most = servo_most;
  double bands = 0, plays = 0;
  int serving = 0;
  bool known = false;
  for (const SurfaceAnswer& answer : surfaces.answers) {
    if (answer.surface.kind == SurfaceKind::motor || answer.positive_deg[i] == 0) continue;
    const SurfaceServo s = surface_servo(rig, catalogue, answer);
    known = known || s.known;
    if (p.servo_hz == 0 || s.hz < p.servo_hz) p.servo_hz = s.hz;
    if (const Output* o = rig.output(answer.output))
      p.pulses_hz = p.pulses_hz == 0 ? o->rate_hz : std::min(p.pulses_hz, o->rate_hz);
    const double deg_per_us = answer.travel ? std::abs(answer.travel->deg_per_us) : usual_deg_per_us;
    bands += dead_band_us(rig, catalogue, answer.surface) * deg_per_us * rad;
    if (const Linkage* l = rig.linkage(answer.surface); l && l->play_m)
      plays += *l->play_m / chord_of(rig, answer.surface);
    ++serving;
  }
  if (serving == 0) return p;
  p.dead_band_rad = bands / serving, p.play_rad = plays / serving;
  const double cycle = 1 / f.cycles_hz, period = 1 / std::max(20.0, p.pulses_hz);
  p.delay_s = 1.5 * cycle + period / 2 + pulse_itself_s;
  p.delay_least_s = cycle + period / 4 + pulse_itself_s;
  p.delay_most_s = p.delay_s + period / 2;
  const auto n = [](double v, int places) { return number_text(v, places); };
  p.figures = {
      {"Surfaces at most correction",
       control.throw_rad / rad,
       "°",
       {},
       {},
       "mean throw of the axis for full command",
       "linkage and mix (surfaces)"},
      {"Gain at most",
       p.full_gain_s,
       "s",
       {},
       {},
       n(control.throw_rad / rad, 1) + "° / " + n(f.full_at_deg_s, 0) + "°/s",
       "degrees of surface for a degree a second; catalogue of classes"},
      {"Servo, natural frequency", p.servo_hz, "Hz", p.servo_hz * servo_least, p.servo_hz * servo_most,
       std::string("0.85 (digital: 1.1) by the time for 60°") + (known ? "" : ", a usual servo"),
       "from memory; small movements, 5 V"},
      {"Delay", 1000 * p.delay_s, "ms", 1000 * p.delay_least_s, 1000 * p.delay_most_s,
       "1.5 / " + n(f.cycles_hz, 0) + " Hz + half of 1 / " + n(std::max(20.0, p.pulses_hz), 0) + " Hz + 1.5 ms",
       "half a period of hold, one of computing; the pulse's own length"},
      {"Low-pass on the rate", p.filter_hz, "Hz", {}, {}, "of the class", "catalogue of classes"}};
  return p;
}

Loop loop_at(const Aeroplane& a, const AxisControl& control, Axis axis, const SignalPath& path, double m_s,
             double rate_gain_s, bool levels) {
  Loop l = drawn_loop(a, control, axis, path, m_s, {{}, 1, path.delay_s}, levels);
  l.rate_gain = rate_gain_s;
  return l;
}

std::vector<MarginPoint> margins_over_speed(const Aeroplane& a, const AxisControl& control, Axis axis,
                                            const SignalPath& path, const LearnedGain* learnt,
                                            const MarginOptions& options) {
  std::vector<MarginPoint> all;
  if (control.throw_rad <= 0 || path.servo_hz <= 0 || plant_of(a, control, axis, a.cruise_m_s).b0 <= 0) return all;
  const std::vector<Sample> draws = draws_of(a, control, axis, path, learnt, options.draws);
  Sample middle{{}, 1, path.delay_s};
  if (learnt) middle.doubt.effect = learnt->factor;
  const bool one = options.at_m_s > 0;
  const double from = one ? options.at_m_s : 1.1 * a.stall_m_s, to = one ? from : std::max(a.dive_m_s, 1.2 * from);
  std::vector<double> shakes, calm;
  for (int i = 0; i < (one ? 1 : options.speeds); ++i) {
    MarginPoint p;
    p.m_s = from + (to - from) * i / std::max(1, options.speeds - 1);
    const Loop expected = drawn_loop(a, control, axis, path, p.m_s, middle, options.levels);
    if (expected.plant.b0 <= 0) {
      all.push_back(p);  // so slow that it answers the other way: no gain to speak of
      continue;
    }
    if (const auto onset = onset_of(expected)) p.shakes_s = onset->rate_gain, p.hz = onset->hz;
    shakes.clear(), calm.clear();
    for (const Sample& d : draws) {
      const Loop l = drawn_loop(a, control, axis, path, p.m_s, d, options.levels);
      const auto onset = onset_of(l);
      const auto firm = gain_at_phase(l, -(180 - phase_margin_deg) * rad);
      if (!onset) continue;
      shakes.push_back(onset->rate_gain);
      calm.push_back(std::min(onset->rate_gain / gain_margin, firm ? firm->rate_gain : onset->rate_gain));
    }
    if (!shakes.empty()) {
      p.calm_s = quantile(calm, edge_share);
      p.shakes_least_s = std::min(p.shakes_s, quantile(shakes, edge_share));
      p.shakes_most_s = std::max(p.shakes_s, quantile(shakes, 1 - edge_share));
    }
    all.push_back(p);
  }
  return all;
}

}  // namespace rigging
