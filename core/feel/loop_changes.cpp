#include "feel/loop_changes.h"

#include "base/number.h"
#include "base/units.h"

namespace rigging {
namespace {

constexpr double faster_servo = 1.5, less_throw = 0.8, wider_filter = 2, quick_pulses_hz = 100;

}  // namespace

std::vector<LoopChange> loop_changes(const Rig& rig, const Catalogue& catalogue, const FeelReport& r) {
  std::vector<LoopChange> all;
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c || !r.missing.empty()) return all;
  const GainScale scale(*c, rig.feel.half_share);
  for (const AxisFeel& a : r.axes) {
    if (!a.known()) continue;
    const double v = r.fast_m_s, follow = follows_speed(*c, v, r.aeroplane.cruise_m_s);
    const auto calm_with = [&](const SignalPath& path) {
      const auto curve = margins_over_speed(r.aeroplane, a.control, a.axis, path, rig.feel.learnt(a.axis),
                                            {.levels = !a.level.empty(), .at_m_s = v});
      return curve.empty() ? 0 : curve.front().calm_s / follow;
    };
    // As the hand sets it: a place of the dial, or a throw where the linkage is the gain.
    const auto as_set = [&](double gain_s, double full_gain_s) {
      if (gain_s <= 0) return std::string("whatever is set");
      if (!scale.settable()) return number_text(gain_s * c->feel.full_at_deg_s, 1) + "° of throw";
      const double place = scale.place_for(gain_s / full_gain_s);
      return place > 1 ? "the most that can be set" : scale.words(scale.rounded_down(place));
    };
    const std::string now = as_set(calm_with(a.path), a.path.full_gain_s);
    const auto add = [&](const std::string& change, const SignalPath& path, const std::string& but = {}) {
      const double calm = calm_with(path);
      const std::string then = as_set(calm, path.full_gain_s);
      all.push_back({a.axis, calm,
                     change + ": calm up to " + then + (then == now ? ", as now" : " instead of " + now) + but + "."});
    };
    SignalPath path = a.path;
    path.servo_hz *= faster_servo;
    add("Servos half again as fast", path);
    if (const double hz = a.path.pulses_hz; hz > 0 && hz < quick_pulses_hz) {
      path = a.path;
      // Shares of a period as in `signal_path`.
      const double sooner = 1 / hz - 1 / quick_pulses_hz;
      path.delay_s -= sooner / 2, path.delay_least_s -= sooner / 4, path.delay_most_s -= sooner;
      add("Pulses at " + number_text(quick_pulses_hz, 0) + " Hz in place of " + number_text(hz, 0), path,
          " (digital servos alone: an analogue one overheats)");
    }
    path = a.path;
    path.full_gain_s *= less_throw;
    if (scale.settable()) add("A fifth less throw, by another hole", path, ", and the stick has a fifth less as well");
    path = a.path;
    path.filter_hz *= wider_filter;
    add("A filter twice as wide, where the board lets one choose it", path, ", if nothing shakes the board");
    if (a.place && scale.settable() && *a.place + scale.step() <= 1) {
      const double next = *a.place + scale.step(), was = scale.effect(*a.place);
      all.push_back({a.axis, a.calm_gain_s,
                     "One step further, to " + scale.words(next) + ": " +
                         (was > 0 ? number_text(scale.effect(next) / was, 2) + " times the correction"
                                  : "a correction where there was none") +
                         "."});
    }
  }
  return all;
}

}  // namespace rigging
