#include <algorithm>

#include "base/number.h"
#include "review/rules.h"
#include "senses/inventory.h"
#include "senses/level.h"

namespace rigging {
namespace rules::senses {
namespace {

void board_turned(const Inspection& in, Findings& found) {
  if (!in.controller || in.controller->senses.can_be_turned) return;
  const Turn& set = in.rig.sensing.board;
  // A class that finds out which face is up needs not be told.
  if ((in.controller->senses.either_face ? set.face_up() : set) != Turn{})
    found.add(Severity::grounds, "board",
              "The board is planned with its " + in.rig.sensing.board.label() + ", and this class can't be told so",
              "It would correct the wrong axes.",
              in.controller->senses.half_turn_by_switches ? "Mount it with its arrow to the nose and top up, or to the "
                                                            "tail and its switches of roll and pitch turned."
              : in.controller->senses.either_face ? "Mount it with its arrow to the nose; either face may be up."
                                                  : "Mount it with its arrow to the nose and top up.");
}

void sensing_reversed(const Inspection& in, Findings& found) {
  if (!in.controller || in.controller->senses.axis_sensing_reversible) return;
  for (const Axis axis : all_axes)
    if (in.rig.sensing.reversed(axis)) {
      Snag& n =
          found.add(Severity::fix_first, std::string(name_of(axis)),
                    "Sensing of " + std::string(name_of(axis)) + " is set reversed, which this class does not offer",
                    "The plan can't be carried out.", "Set it plain and find the real cause.");
      n.fix = sets("Set " + std::string(name_of(axis)) + " sensing plain",
                   {{"sensing/" + std::string(name_of(axis)) + "_reversed", false}});
    }
}

void small_board_in_a_large_model(const Inspection& in, Findings& found) {
  if (!in.controller || in.controller->family != Family::flight_controller) return;
  constexpr double large_kg = 3, large_span_m = 2.5;  // common practice
  const double mass_kg = in.rig.airframe.mass_kg.value_or(0);
  if (mass_kg < large_kg && in.rig.airframe.span_m < large_span_m) return;
  const SensesAbilities& s = in.controller->senses;
  std::string lacks;
  const auto lack = [&](bool has, const char* what) {
    if (!has) lacks += (lacks.empty() ? "" : ", ") + std::string(what);
  };
  lack(s.isolated, "no vibration isolation");
  lack(s.spare, "no spare sensors");
  lack(s.heated, "no sensors held warm");
  if (lacks.empty()) return;
  found.add(Severity::worth_knowing, in.controller->id, "A small board in a large model: " + lacks,
            "Right for a small, cheap model. In a large one a shaken, cold or failing sensor costs more.",
            "Consider a larger controller; else foam against vibration, and time to warm up before arming.");
}

/// What the board said of its sensors when it was asked, and what it was told to use.
void sensors_against_parts(const Inspection& in, Findings& found) {
  for (const InventoryLine& line : inventory_of(in.rig, in.catalogue)) {
    const Severity severity = line.finding == Finding::sick ? Severity::grounds
                              : line.finding == Finding::missing || line.finding == Finding::left_over
                                  ? Severity::fix_first
                                  : Severity::worth_knowing;
    if (line.finding == Finding::as_planned || line.finding == Finding::not_asked) continue;
    const char* why =
        line.finding == Finding::left_over ? "A sensor that it was told to use and does not find keeps it from arming."
        : line.finding == Finding::missing ? "What rests on it will not work, and it may refuse to arm."
        : line.finding == Finding::sick    ? "A sick sensor can turn the model over."
        : line.finding == Finding::switched_off ? "It is carried along for nothing."
                                                : "What is not in the rig is not planned, wired or balanced.";
    Snag& n = found.add(severity, "found." + std::string(name_of(line.sensor)), line.words, why, line.remedy);
    if (line.finding != Finding::left_over && line.finding != Finding::switched_off) continue;
    const bool use = line.finding == Finding::switched_off;
    n.fix = Fix{"Tell it: " + std::string(name_of(line.sensor)) + (use ? " used" : " not used"),
                [use, sensor = line.sensor](const Rig& rig, const Catalogue&) { return use_sensor(rig, sensor, use); }};
  }
}

void level_far_from_the_wing(const Inspection& in, Findings& found) {
  if (!in.rig.sensing.level_nose_up_deg) return;
  const double told = *in.rig.sensing.level_nose_up_deg;
  const LevelReport level = analyze_level(in.rig.airframe, in.reports.airframe(), in.reports.fit().balance.likely_m());
  if (!level.nose_up) return;
  const double low = std::min(level.nose_up->least.value_or(0), usual_level_least_deg) - 2,
               high = std::max(level.nose_up->most.value_or(0), usual_level_most_deg) + 2;
  if (told >= low && told <= high) return;
  found.add(Severity::fix_first, "level",
            "Level is set to " + number_text(told, 1) + "° nose up; the wing carries the model at " + level_text(level),
            told > high ? "In self-level it would climb into a stall at low throttle." : "In self-level it would dive.",
            "Set it at station senses, or look at mass, speed, section and incidence again.");
}

}  // namespace
}  // namespace rules::senses

const std::vector<Rule>& senses_rules() {
  using namespace rules::senses;
  static const std::vector<Rule> rules{{"SENSES-01", Station::senses, board_turned, source::cube},
                                       {"SENSES-02", Station::senses, sensing_reversed, source::common},
                                       {"SENSES-03", Station::senses, small_board_in_a_large_model, source::common},
                                       {"SENSES-04", Station::senses, sensors_against_parts, source::common},
                                       {"SENSES-05", Station::senses, level_far_from_the_wing, source::common}};
  return rules;
}

}  // namespace rigging
