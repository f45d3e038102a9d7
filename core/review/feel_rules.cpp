#include "base/number.h"
#include "base/units.h"
#include "feel/gain_scale.h"
#include "review/deferred.h"
#include "review/rules.h"

namespace rigging {
namespace rules::feel {
namespace {

constexpr double weak_weathercock = 0.01;  ///< Cnβ, per radian; half of what small models usually have (from memory)

struct FeelInspection {
  const Rig& rig;
  const ControllerClass& controller;
  const FeelReport& report;
};

/// As it is set it shakes at a speed that it reaches in level flight.
void shakes(const FeelInspection& in, std::vector<Snag>& snags) {
  const GainScale scale(in.controller, in.rig.feel.half_share);
  Findings surely("FEEL-01", Station::feel, source::loop, snags),
      perhaps("FEEL-02", Station::feel, source::loop, snags);
  for (const AxisFeel& a : in.report.axes) {
    if (!a.known() || a.gain_s <= 0) continue;
    const std::string name = capital(std::string(word(a.axis)));
    const std::string as_set = a.place ? " at " + scale.words(*a.place) : " with this throw";
    const bool expected = a.shakes_from_m_s && *a.shakes_from_m_s <= in.report.fast_m_s;
    if (!expected && !(a.may_shake_from_m_s && *a.may_shake_from_m_s <= in.report.fast_m_s)) continue;
    Findings& found = expected ? surely : perhaps;
    const double from = expected ? *a.shakes_from_m_s : *a.may_shake_from_m_s;
    const bool can_turn_down = a.place && a.calm_place < *a.place;
    const double down = can_turn_down ? scale.rounded_down(a.calm_place) : 0;
    Snag& n = found.add(
        expected ? Severity::fix_first : Severity::worth_knowing, std::string(word(a.axis)),
        name + as_set + (expected ? " is expected to shake from " : " may shake from ") + speed_text(from) + " on",
        "It reaches " + speed_text(in.report.fast_m_s) +
            " in level flight, and a shaking surface wears, overheats and "
            "tears loose.",
        can_turn_down       ? "Begin at " + scale.words(down) + " or below, and raise it in steps."
        : !scale.settable() ? "Choose holes for less throw at station surfaces."
                            : "Look at the linkage: less throw makes it calmer.");
    if (can_turn_down)
      n.fix =
          Fix{"Set " + std::string(word(a.axis)) + " to " + scale.words(down), [axis = a.axis, down](const Rig& rig) {
                Rig r = rig;
                r.feel.made_gain(axis).rate = down;
                return r;
              }};
  }
}

/// What the simulated bench told of the loop is not what the aircraft told.
void learnt_in_simulation(const FeelInspection& in, std::vector<Snag>& snags) {
  Findings found("FEEL-03", Station::feel, source::plan, snags);
  for (const LearnedGain& l : in.rig.feel.learned) {
    if (!l.simulated) continue;
    Snag& n = found.add(Severity::worth_knowing, std::string(word(l.axis)),
                        "What is known of the " + std::string(word(l.axis)) + " loop comes from the simulated bench",
                        "Its model differs from yours in a way of its own.",
                        "Forget it before the first real flight; the first real log does so by itself.");
    n.fix = Fix{"Forget what the simulation told", [](const Rig& rig) {
                  Rig r = rig;
                  std::erase_if(r.feel.learned, [](const LearnedGain& k) { return k.simulated; });
                  return r;
                }};
    return;
  }
}

void hardly_weathercocks(const FeelInspection& in, std::vector<Snag>& snags) {
  const Banded& n = in.report.aeroplane.stability.yaw_beta;
  if (n.value >= weak_weathercock) return;
  Findings found("FEEL-04", Station::feel, source::fins, snags);
  found.add(Severity::worth_knowing, "yaw",
            "It hardly turns its nose into the wind: Cnβ " + number_text(n.value, 3) + " (" + number_text(n.least, 3) +
                " to " + number_text(n.most, 3) + ") a radian",
            "In gusts it swings, and a stabilizer has to hold what fins should.",
            "Look at the fins' measures at station airframe. Larger fins, or fins further back, are the cure.");
}

}  // namespace
}  // namespace rules::feel

std::vector<Snag> feel_snags(const Rig& rig, const Catalogue& catalogue, const FeelReport& report) {
  std::vector<Snag> snags;
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c || !report.missing.empty()) return snags;
  const rules::feel::FeelInspection in{rig, *c, report};
  rules::feel::shakes(in, snags);
  rules::feel::learnt_in_simulation(in, snags);
  rules::feel::hardly_weathercocks(in, snags);
  return snags;
}

}  // namespace rigging
