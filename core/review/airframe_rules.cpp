#include <algorithm>

#include "airframe/kinds.h"
#include "airframe/proportions.h"
#include "review/rules.h"

namespace rigging {
namespace rules::airframe {
namespace {

void unknown_controller(const Inspection& in, Findings& found) {
  if (!in.controller)
    found.add(
        Severity::grounds, in.rig.controller.kind, "No controller class \"" + in.rig.controller.kind + "\" is known",
        "Sockets, modes and cures depend on it.", "Choose a class, or describe it in a parts file beside the rig.");
}

void too_few_outputs(const Inspection& in, Findings& found) {
  if (!in.controller) return;
  // A throttle that stays on the receiver takes no socket.
  const auto needed = std::count_if(in.rig.outputs.begin(), in.rig.outputs.end(), [&](const Output& o) {
    return !(drives_motor(o) &&
             (in.controller->motor_bypasses() || (in.controller->motor_may_bypass() && o.socket.empty())));
  });
  if (needed <= static_cast<std::ptrdiff_t>(in.controller->outputs.size())) return;
  found.add(Severity::grounds, in.controller->id,
            "This airframe needs " + std::to_string(needed) + " outputs; the " + in.controller->name + " has " +
                std::to_string(in.controller->outputs.size()),
            "What has no socket stays still.",
            "Choose another class, share a lead, or leave the throttle on the receiver.");
}

void dimensions(const Inspection& in, Findings& found) {
  const Airframe& a = in.rig.airframe;
  const bool wing_only = a.kind == AirframeKind::flying_wing || a.kind == AirframeKind::flying_wing_rudders;
  if (!wing_only && a.wing_at_m + a.root_chord_m > a.length_m)
    found.add(Severity::fix_first, "airframe", "The wing ends behind the tail",
              "The drawing and the neutral point come out wrong.", "Check length, wing position and root chord.");
}

void no_mass(const Inspection& in, Findings& found) {
  if (!in.rig.airframe.mass_kg)
    found.add(Severity::worth_knowing, "airframe", "The flying mass is not known",
              "Wing loading and stall speed follow from it.", "Weigh the model ready to fly.");
}

void guesses(const Inspection& in, Findings& found) {
  const auto names = guesses_of(in.rig.airframe);
  if (names.empty()) return;
  std::string all;
  for (std::size_t i = 0; i < std::min<std::size_t>(names.size(), 4); ++i) all += (i ? ", " : "") + names[i];
  if (names.size() > 4) all += " and " + std::to_string(names.size() - 4) + " more";
  found.add(Severity::fix_first, "airframe", "Still guessed, by usual proportions: " + all,
            "Speeds, balance, gains and the way home follow from them.",
            "Measure the model and type what you find; a guess that is right is confirmed by typing it.");
}

}  // namespace
}  // namespace rules::airframe

const std::vector<Rule>& airframe_rules() {
  using namespace rules::airframe;
  static const std::vector<Rule> rules{{"AIRFRAME-01", Station::airframe, unknown_controller, source::catalogue},
                                       {"AIRFRAME-02", Station::airframe, too_few_outputs, source::catalogue},
                                       {"AIRFRAME-03", Station::airframe, dimensions, source::geometry},
                                       {"AIRFRAME-04", Station::airframe, no_mass, source::figures},
                                       {"AIRFRAME-05", Station::airframe, guesses, source::geometry}};
  return rules;
}

}  // namespace rigging
