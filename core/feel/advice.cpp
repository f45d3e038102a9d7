#include "feel/advice.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "base/angle.h"
#include "base/number.h"
#include "base/units.h"
#include "feel/gain_scale.h"
#include "flight/limit_cycle.h"

namespace rigging {
namespace {

constexpr double least_school = 0.25, half_school = 0.5;  ///< of what is calm
constexpr double stride = 1.33, short_stride = 1.15;      ///< of the effect, from step to step (common practice)
constexpr double near_the_end = 0.75;                     ///< of where it shakes: shorter steps from here on
constexpr int most_steps = 8;
constexpr double middle_rates = 0.6;                              ///< of the stick, for the launch (common practice)
constexpr double usual_roll_deg_s = 120, usual_pitch_deg_s = 60;  ///< calm for a first flight (common practice)

std::string axis_text(Axis axis) { return std::string(name_of(axis)); }
std::string n(double v, int places = 0) { return number_text(v, places); }

/// What an axis that shakes shows, at what rhythm.
std::string shaking(const AxisFeel& a) {
  const std::string who = a.axis == Axis::roll    ? "wings that quiver"
                          : a.axis == Axis::pitch ? "a nose that nods"
                                                  : "a tail that wags";
  return "fast, even " + who + ", about " + n(a.shakes_hz, 1) +
         " times a second, that go on when you let go of the stick";
}

/// Reached by a hand: on a step, not above.
double settable(const GainScale& scale, double place) { return scale.rounded_down(std::min(place, 1.0)); }

void first_and_steps(const Rig& rig, const GainScale& scale, const FeelReport& r, const AxisFeel& a, FeelAdvice& out) {
  const double most = a.path.full_gain_s;
  const double calm = std::min(a.calm_gain_s, most) / most, shakes = a.shakes_gain_s / most;
  const bool half = rig.feel.start == StartAt::half;
  double place = scale.place_for(calm * (half ? half_school : least_school));
  if (scale.by() == GainBy::dial) place = half ? std::min(place, 0.5) : 0;
  // A switch has no quarter: half of what is calm is its rule in either school.
  if (scale.by() == GainBy::strengths)
    place = half_school * calm >= 1 && half ? 1 : half_school * calm >= scale.effect(0.5) ? 0.5 : 0;
  place = settable(scale, place);
  const bool off = scale.effect(place) <= 0;
  FirstGain first{a.axis, place, scale.words(place), ""};
  first.why = off ? "It hardly corrects yet: the first flight is flown nearly by hand."
                  : n(100 * scale.effect(place) * most / a.calm_gain_s) + " % of what stays calm up to " +
                        speed_text(r.fast_m_s) + ", the fastest level flight.";
  if (a.axis == Axis::yaw && !off) first.why += " Rudder is the first to wag: when in doubt, less.";
  out.first.push_back(first);

  // From where it stands, one step a flight, until it is expected to shake or the end is reached.
  double last = a.place.value_or(place);
  double effect = scale.effect(last);
  if (effect < 0.05 * calm) effect = least_school * calm / stride;
  for (int i = 0; i < most_steps; ++i) {
    effect *= shakes > 0 && effect > near_the_end * shakes ? short_stride : stride;
    if (effect > 1.02 * std::max(1.0, scale.effect(1)) || (shakes > 0 && effect > shakes)) break;
    double next = settable(scale, scale.place_for(effect));
    if (next <= last) next = last + scale.step();
    if (next > 1 + 1e-9) break;
    last = next;
    effect = std::max(effect, scale.effect(next));
    if (shakes > 0 && effect > shakes) break;
    GainStep s;
    s.axis = a.axis, s.place = next, s.set = scale.words(next);
    s.m_s = r.fast_m_s;
    s.watch = shaking(a);
    const double back = settable(scale, scale.place_for(back_off_to * scale.effect(next)));
    s.back_off = "Throttle back at once, then set " + scale.words(back) + " and leave it there.";
    if (scale.effect(next) * most > a.calm_gain_s)
      s.watch += "; it may already show here, where the room is less than 6 dB or 45°";
    out.steps.push_back(std::move(s));
  }
}

/// A switch that serves all axes stands where the most delicate of them is calm.
void one_for_all(const GainScale& scale, FeelAdvice& out) {
  double least = 1;
  for (const FirstGain& f : out.first) least = std::min(least, f.place);
  for (FirstGain& f : out.first)
    if (f.place > least) {
      f.place = least, f.set = scale.words(least);
      f.why = "One switch serves all axes, and another is calm no further.";
    }
}

/// The rate that full stick is to give, degrees a second, as far as the wing carries it; 0 where nobody asks for one.
double wanted_rate(const Rig& rig, const AxisFeel& a) {
  const double wanted = a.axis == Axis::roll    ? rig.feel.want_roll_deg_s.value_or(usual_roll_deg_s)
                        : a.axis == Axis::pitch ? rig.feel.want_pitch_deg_s.value_or(usual_pitch_deg_s)
                                                : 0;
  return std::min(wanted, a.stall_rate_deg_s.value_or(wanted));
}

/// Axes that are worked by the same surfaces have one linkage, and so one answer.
using Sharing = std::vector<const AxisFeel*>;
std::vector<Sharing> sharing_surfaces(const Rig& rig, const FeelReport& r) {
  std::array<int, 3> group{0, 1, 2};
  for (const Output& o : rig.outputs) {
    if (std::all_of(o.surfaces.begin(), o.surfaces.end(), [](Surface s) { return s.kind == SurfaceKind::motor; }))
      continue;
    std::optional<int> first;
    for (const Axis axis : all_axes) {
      int& own = group[static_cast<std::size_t>(index_of(axis))];
      if (o.mix.of(axis) == 0 || !r.of(axis).known()) continue;
      if (first)
        for (int& g : group) g = g == own ? *first : g;
      else
        first = own;
    }
  }
  std::vector<Sharing> all;
  for (int g = 0; g < 3; ++g) {
    Sharing axes;
    for (const Axis axis : all_axes)
      if (r.of(axis).known() && group[static_cast<std::size_t>(index_of(axis))] == g) axes.push_back(&r.of(axis));
    if (!axes.empty()) all.push_back(std::move(axes));
  }
  return all;
}

/// Least share of the throw that the stick needs, of all axes of the surfaces. A smaller throw is a smaller gain, and a
/// slower stick: what the stick needs stays.
double needed_share(const Rig& rig, const Sharing& axes) {
  double needed = 0;
  for (const AxisFeel* a : axes)
    needed = std::max(needed, a->full_rate_deg_s > 0 ? std::min(1.0, wanted_rate(rig, *a) / a->full_rate_deg_s) : 1);
  return needed;
}

/// "from 25° to 14.2°", or axis by axis where the mix gives them different throws.
std::string throws_in_words(const Sharing& axes, double share) {
  std::string words;
  for (const AxisFeel* a : axes) {
    const double now = a->control.throw_rad / rad;
    const std::string one = "from " + n(now, 1) + "° to " + n(now * share, 1) + "°";
    if (a != axes.front() && std::abs(now - axes.front()->control.throw_rad / rad) < 0.05) continue;
    words += (words.empty() ? "" : ", " + axis_text(a->axis) + " ") + one;
  }
  return words;
}

std::string axes_in_words(const Sharing& axes) {
  std::string words;
  for (const AxisFeel* a : axes) words += (words.empty() ? "" : a == axes.back() ? " and " : ", ") + axis_text(a->axis);
  return capital(words);
}

/// One entry an axis, with the words of all that share the linkage.
void add_throws(const Sharing& axes, double share, const std::string& words, FeelAdvice& out) {
  for (const AxisFeel* a : axes) {
    FeelAdvice::Throw t;
    t.axis = a->axis;
    t.share = share;
    t.words = words;
    out.throws.push_back(std::move(t));
  }
}

void by_linkage(const Rig& rig, const Sharing& axes, const FeelReport& r, FeelAdvice& out) {
  const double needed = needed_share(rig, axes);
  double calm = 1, up_to = std::numeric_limits<double>::infinity();
  const AxisFeel* strict = axes.front();
  for (const AxisFeel* a : axes)
    if (const double own = a->gain_s > 0 ? std::min(1.0, a->calm_gain_s / a->gain_s) : 1; own < calm)
      calm = own, strict = a;
  const double share = std::max(calm, needed);
  std::string words = axes_in_words(axes) + ": ";
  if (calm < needed) {
    for (const AxisFeel* a : axes) {
      double own = 0;
      for (const MarginPoint& p : a->stricter())
        if (p.calm_s >= a->gain_s * share) own = p.m_s;
      up_to = std::min(up_to, own);
    }
    if (share < 0.98)
      words += "bring the throw " + throws_in_words(axes, share) +
               ", which the stick still needs: rod inward on the servo arm or outward on the horn. ";
    words += (up_to > 0 ? "It stays calm up to " + speed_text(up_to) + ": fly no faster"
                        : std::string("Even at its slowest it may shake: first flights in manual")) +
             ", or use faster servos and pulses.";
  } else if (share < 0.98) {
    words += "bring the throw " + throws_in_words(axes, share) +
             ": rod inward on the servo arm or outward on the horn. So it stays calm up to " + speed_text(r.fast_m_s) +
             "; as it is, " + (axes.size() > 1 ? axis_text(strict->axis) : std::string("it")) + " may shake from " +
             (strict->may_shake_from_m_s ? speed_text(*strict->may_shake_from_m_s) : std::string("there")) + " on.";
  } else {
    words += "the throw of " + n(axes.front()->control.throw_rad / rad, 1) + "° is calm up to " +
             speed_text(r.fast_m_s) + ".";
  }
  add_throws(axes, share, words, out);
}

/// A switch has no place between its strengths: where its lower one is more than half of what stays calm, only the
/// throw makes it less.
void by_switch(const Rig& rig, const GainScale& scale, const Sharing& axes, FeelAdvice& out) {
  const double gentle = scale.effect(0.5);
  double share = 1;
  const AxisFeel* strict = axes.front();
  for (const AxisFeel* a : axes)
    if (const double own = half_school * a->calm_gain_s / (gentle * a->path.full_gain_s); own < share)
      share = own, strict = a;
  if (share >= 0.98) return;
  const double needed = needed_share(rig, axes);
  std::string words = axes_in_words(axes) + ": even its lower strength is " + n(100 * half_school / share) +
                      " % of what stays calm" + (axes.size() > 1 ? " in " + axis_text(strict->axis) : "") +
                      ", where a first flight wants half, and a switch has nothing between. ";
  const double to = std::max(share, needed);
  if (to < 0.98)
    words += "Bring the throw " + throws_in_words(axes, to) + ": rod inward on the servo arm or outward on the horn" +
             (share < needed ? ", as far as the stick allows; first flights with the switch at off." : ".");
  else
    words += "The stick needs the throw that there is: first flights with the switch at off.";
  add_throws(axes, to, words, out);
}

void on_the_bench(const ControllerClass& c, const GainScale& scale, const FeelReport& r, FeelAdvice& out) {
  if (scale.by() == GainBy::dial)
    out.bench.push_back("Mark the dial's end, or put a dot where it points: its place must be read at arm's length.");
  // Where a dial sets rate and level as one, a held bank of 45° shows the gain. The rule is one of such dials alone.
  const AxisFeel& roll = r.of(Axis::roll);
  if (scale.by() == GainBy::dial && c.mode(Mode::level) && c.mode(Mode::level)->answer == AnswerKind::held &&
      !c.feel.level_apart && roll.known()) {
    const double place = std::min(1.0, scale.place_for(0.5 * c.feel.full_at_deg / 45));
    if (place <= roll.calm_place)
      out.bench.push_back("Held at 45° of bank, half of the surfaces' travel (common practice) is about " +
                          scale.words(settable(scale, place)) +
                          ": turn until the eye says half, and write the place down. The rudder far lower.");
    else
      out.bench.push_back(
          "Half of the surfaces' travel at 45° of bank, the usual rule for such a dial, would be about " +
          scale.words(settable(scale, place)) + ": too much for this model, which stays calm up to " +
          scale.words(settable(scale, roll.calm_place)) + ".");
  }
  bool off = false;
  for (const FirstGain& f : out.first) off = off || scale.effect(f.place) < 0.05;
  if (scale.settable())
    out.bench.push_back(
        off ? "After the look at the corrections, back to the first setting: a quick tilt barely moves the surfaces."
            : "After the look at the corrections, back to the first setting: a quick tilt moves the surfaces a little, "
              "not to their ends.");
  for (const Axis axis : all_axes) {
    const AxisFeel& a = r.of(axis);
    if (!a.known() || a.path.play_rad + a.path.dead_band_rad <= 0) continue;
    Loop loop = loop_at(r.aeroplane, a.control, axis, a.path, r.fast_m_s, a.calm_gain_s, !a.level.empty());
    const auto ceiling = play_ceiling(loop);
    if (ceiling && *ceiling < a.shakes_gain_s && a.path.play_rad > 0)
      out.bench.push_back(capital(axis_text(axis)) + ": with " + n(a.path.play_rad / rad, 2) +
                          "° of play it keeps up a small swing from " + n(100 * *ceiling / a.shakes_gain_s) +
                          " % of the shaking gain on. Take the play out before raising the gain.");
  }
}

void rates(const Rig& rig, const FeelReport& r, FeelAdvice& out) {
  const auto say = [&](const AxisFeel& a, double wanted) {
    if (!a.known() || a.full_rate_deg_s <= 0) return;
    const double share = wanted / a.full_rate_deg_s;
    const bool stalls = a.stall_rate_deg_s && *a.stall_rate_deg_s < a.full_rate_deg_s;
    const std::string at = speed_text(r.aeroplane.cruise_m_s);
    std::string words =
        capital(axis_text(a.axis)) + ": full stick asks for about " + n(a.full_rate_deg_s) + "°/s at " + at +
        (stalls ? ", and the wing carries " + n(*a.stall_rate_deg_s) + "°/s there: beyond it, it stalls. " : ". ");
    if (share < 0.95) {
      const double expo = std::clamp(std::round(10 * (1 - share)) * 10, 0.0, 60.0);
      words += "For " + n(wanted) + "°/s set the rate to " + n(100 * share) + " %, or a throw of " +
               n(a.control.throw_rad / rad * share, 1) + "°; on full rate " + n(expo) +
               " % of expo makes the middle as gentle.";
    } else {
      words += "That is " + std::string(share > 1.05 ? "less than" : "about") + " the " + n(wanted) + "°/s wanted" +
               (share > 1.05 ? ": more throw is needed, " + n(a.control.throw_rad / rad * share, 1) + "°." : ".");
    }
    out.rates.push_back(std::move(words));
  };
  for (const Axis axis : {Axis::roll, Axis::pitch}) say(r.of(axis), wanted_rate(rig, r.of(axis)));
}

void launch(const Rig& rig, const ControllerClass& c, const FeelReport& r, FeelAdvice& out) {
  // A launch shakes the model about: 60 degrees a second, say, are answered with this share of the surfaces' travel.
  constexpr double upset_deg_s = 60;
  for (const Axis axis : {Axis::roll, Axis::pitch}) {
    const AxisFeel& a = r.of(axis);
    if (!a.known() || a.gain_s <= 0) continue;
    const double correction = std::min(c.feel.authority, a.gain_s * upset_deg_s * rad / a.control.throw_rad);
    const double both = correction + middle_rates, high = correction + 1;
    out.launch.push_back(capital(axis_text(axis)) + ": a jolt of " + n(upset_deg_s) + "°/s is answered with " +
                         n(100 * correction) + " % of the travel. With the stick at middle rates (" +
                         n(100 * middle_rates) + " %) that asks for " + n(100 * both) + " %, on high rates for " +
                         n(100 * high) + " %: while you hold full stick, what goes beyond 100 % is not corrected.");
  }
  if (c.feel.sets_stick && rig.feel.takeoff.way == TakeoffWay::hand) {
    const double thrown = rig.feel.takeoff.throw_m_s.value_or(usual_throw_m_s) + rig.feel.takeoff.wind_m_s;
    for (const Axis axis : {Axis::roll, Axis::pitch}) {
      const AxisFeel& a = r.of(axis);
      if (!a.known()) continue;
      const double turns = a.stick_rate_deg_s(r.aeroplane, thrown, false),
                   by_hand = a.stick_rate_deg_s(r.aeroplane, thrown, true);
      if (by_hand <= 0) continue;
      std::string words = capital(axis_text(axis)) + ": direct stick " + n(100 * a.stick_share) +
                          " %. At the throw's " + speed_text(thrown) + " full stick turns it at " + n(turns) +
                          "°/s in rate mode, at " + n(by_hand) + "°/s in manual.";
      if (turns < upset_deg_s)
        words += by_hand < upset_deg_s
                     ? " That is less than the jolt of " + n(upset_deg_s) +
                           "°/s even by hand: throw harder, or into more wind."
                     : " That is less than the jolt of " + n(upset_deg_s) + "°/s: " +
                           (a.stick_share < 1 ? "more direct stick for the throw." : "less gain, or launch in manual.");
      out.launch.push_back(std::move(words));
    }
  }
  out.launch.push_back("Launch on middle rates. The rates limit your stick, not the stabilizer.");
  out.launch.push_back(c.feel.authority < 1 ? "When the correction is full, the stick still has " +
                                                  n(100 * (1 - c.feel.authority)) + " % of the travel."
                                            : "When the correction is full and against you, the stick has nothing "
                                              "left: manual is the way out, one movement away.");
}

}  // namespace

FeelAdvice advise_feel(const Rig& rig, const Catalogue& catalogue, const FeelReport& r) {
  FeelAdvice out;
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c || !r.missing.empty()) return out;
  const GainScale scale(*c, rig.feel.half_share);
  for (const Axis axis : all_axes) {
    const AxisFeel& a = r.of(axis);
    if (!a.known()) continue;
    if (scale.settable()) first_and_steps(rig, scale, r, a, out);
  }
  for (const Sharing& axes : sharing_surfaces(rig, r)) {
    if (!scale.settable()) by_linkage(rig, axes, r, out);
    if (scale.by() == GainBy::strengths) by_switch(rig, scale, axes, out);
  }
  if (scale.by() == GainBy::strengths) one_for_all(scale, out);
  on_the_bench(*c, scale, r, out);
  rates(rig, r, out);
  launch(rig, *c, r, out);
  out.cautions = {
      "Propeller off for every look on the bench.",
      "One change a flight, at " + n(safe_height_m) + " m" + " or higher, within sight, with manual one movement away.",
      "Worked out, not flown: the band says how sure it is. Where it shakes in the air, the air is right."};
  if (c->feel.follows == GainFollows::throttle)
    out.cautions.push_back(
        "This class gives less correction with more throttle. A dive has little throttle and much speed: that is where "
        "it shakes first.");
  for (const Axis axis : all_axes) {
    const AxisFeel& a = r.of(axis);
    if (a.known() && a.path.play_rad > 0.5 * rad) {
      out.cautions.push_back(
          "Play with a fast, unbalanced surface invites flutter. Nothing here can say from which speed on: take the "
          "play out.");
      break;
    }
  }
  return out;
}

}  // namespace rigging
