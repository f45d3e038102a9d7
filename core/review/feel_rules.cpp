#include "base/number.h"
#include "base/units.h"
#include "feel/edits.h"
#include "feel/gain_scale.h"
#include "review/deferred.h"
#include "review/rules.h"

namespace rigging {
namespace rules::feel {
namespace {

constexpr double weak_weathercock = 0.01;  ///< Cnβ, per radian; half of what small models usually have (from memory)

/// Where nothing is known of the flying aircraft there is nothing to say.
const FeelReport* feel(const Inspection& in) {
  return in.controller && in.deferred->feel.missing.empty() ? &in.deferred->feel : nullptr;
}

/// The calm place of an axis; of all, where one switch sets them all.
double calm_place(const FeelReport& report, const AxisFeel& axis, GainBy by) {
  double place = axis.calm_place;
  for (const AxisFeel& other : report.axes)
    if (by == GainBy::strengths && other.known() && other.place) place = std::min(place, other.calm_place);
  return place;
}

/// As it is set it shakes at a speed that it reaches in level flight: surely, or only perhaps.
template <bool surely>
void shakes(const Inspection& in, Findings& found) {
  const FeelReport* report = feel(in);
  if (!report) return;
  const GainScale scale(*in.controller, in.rig.feel.half_share);
  const auto within = [&](const std::optional<double>& from) { return from && *from <= report->fast_m_s; };
  for (const AxisFeel& a : report->axes) {
    if (!a.known() || a.gain_s <= 0) continue;
    const bool expected = within(a.shakes_from_m_s);
    if (surely ? !expected : expected || !within(a.may_shake_from_m_s)) continue;
    const double from = surely ? *a.shakes_from_m_s : *a.may_shake_from_m_s;
    const std::string name = capital(std::string(name_of(a.axis)));
    const std::string as_set = a.place ? " at " + scale.words(*a.place) : " with this throw";
    const double calm = calm_place(*report, a, scale.by());
    const bool can_turn_down = a.place && calm < *a.place;
    const double down = can_turn_down ? scale.rounded_down(calm) : 0;
    Snag& n = found.add(
        surely ? Severity::fix_first : Severity::worth_knowing, std::string(name_of(a.axis)),
        name + as_set + (surely ? " is expected to shake from " : " may shake from ") + speed_text(from) + " on",
        "It reaches " + speed_text(report->fast_m_s) +
            " in level flight, and a shaking surface wears, overheats and tears loose.",
        can_turn_down       ? "Begin at " + scale.words(down) + " or below, and raise it in steps."
        : !scale.settable() ? "Choose holes for less throw at station surfaces."
                            : "Look at the linkage: less throw makes it calmer.");
    if (!can_turn_down) continue;
    const std::string what = scale.by() == GainBy::strengths ? "the switch" : std::string(name_of(a.axis));
    n.fix = Fix{"Set " + what + " to " + scale.words(down),
                [axis = a.axis, down](const Rig& rig, const Catalogue& c) { return set_gain(rig, c, axis, down); }};
  }
}

/// What the simulated bench told of the loop is not what the aircraft told.
void learnt_in_simulation(const Inspection& in, Findings& found) {
  if (!feel(in)) return;
  for (const LearnedGain& l : in.rig.feel.learned) {
    if (!l.simulated) continue;
    Snag& n = found.add(Severity::worth_knowing, std::string(name_of(l.axis)),
                        "What is known of the " + std::string(name_of(l.axis)) + " loop comes from the simulated bench",
                        "Its model differs from yours in a way of its own.",
                        "Forget it before the first real flight; the first real log does so by itself.");
    n.fix =
        Fix{"Forget what the simulation told", [](const Rig& rig, const Catalogue&) { return forget_simulated(rig); }};
    return;
  }
}

void hardly_weathercocks(const Inspection& in, Findings& found) {
  const FeelReport* report = feel(in);
  if (!report) return;
  const Banded& n = report->aeroplane.stability.yaw_beta;
  if (n.value >= weak_weathercock && n.least > 0) return;
  const std::string figure = ": Cnβ " + number_text(n.value, 3) + " (" + number_text(n.least, 3) + " to " +
                             number_text(n.most, 3) + ") a radian";
  const char* cure = "Look at the fins' measures at station airframe. Larger fins, or fins further back, are the cure.";
  // As with the static margin of pitch: what does not come back by itself stays on the ground.
  if (n.value <= 0)
    found.add(Severity::grounds, "yaw", "It does not turn its nose into the wind" + figure,
              "It slews round and stays there; no hand is fast enough to fly it.", cure);
  else if (n.least <= 0)
    found.add(Severity::fix_first, "yaw", "It may not turn its nose into the wind" + figure,
              "Whether the fins suffice is within what is not known of them: it may slew round.", cure);
  else
    found.add(Severity::worth_knowing, "yaw", "It hardly turns its nose into the wind" + figure,
              "In gusts it swings, and a stabilizer has to hold what fins should.", cure);
}

}  // namespace
}  // namespace rules::feel

const std::vector<Rule>& feel_rules() {
  using namespace rules::feel;
  static const std::vector<Rule> rules{{"FEEL-01", Station::feel, shakes<true>, source::loop, Tier::deferred},
                                       {"FEEL-02", Station::feel, shakes<false>, source::loop, Tier::deferred},
                                       {"FEEL-03", Station::feel, learnt_in_simulation, source::plan, Tier::deferred},
                                       {"FEEL-04", Station::feel, hardly_weathercocks, source::fins, Tier::deferred}};
  return rules;
}

}  // namespace rigging
