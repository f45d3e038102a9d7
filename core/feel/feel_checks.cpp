#include "feel/feel_checks.h"

#include "feel/gain_scale.h"
#include "rig/path.h"

namespace rigging {
namespace {

std::vector<std::string> once_when(bool needed) {
  return needed ? std::vector<std::string>{""} : std::vector<std::string>{};
}

bool can_be_set(const CheckContext& in) { return in.controller && in.controller->feel.gain_by != GainBy::linkage; }

/// A held bank shows the gain, and one dial is both.
bool shows_amount(const CheckContext& in) {
  const ModeAnswer* level = in.controller ? in.controller->mode(Mode::level) : nullptr;
  return can_be_set(in) && in.controller->feel.gain_by == GainBy::dial && level && level->answer == AnswerKind::held &&
         !in.controller->feel.level_apart;
}

std::vector<std::string> settable_subjects(const CheckContext& in) { return once_when(can_be_set(in)); }
std::vector<std::string> amount_subjects(const CheckContext& in) { return once_when(shows_amount(in)); }

std::vector<std::string> gain_places_of(const CheckContext&, const std::string&) {
  std::vector<std::string> all{"controller/kind"};
  for (const Axis axis : all_axes)
    for (const char* of : {"rate", "level"}) all.push_back(path_of({"feel", "gains", name_of(axis), of}));
  return all;
}

/// What the surfaces do for a gain: what moves them, and how far.
std::vector<std::string> movement_places(const CheckContext& in, const std::string& subject) {
  std::vector<std::string> all = gain_places_of(in, subject);
  for (const Linkage& l : in.rig.linkages)
    for (const char* of : {"arm_m", "horn_m", "servo_travel_deg"})
      all.push_back(path_of({"linkages", l.surface.name(), of}));
  for (const Output& o : in.rig.outputs)
    if (!o.surfaces.empty())
      for (const char* of : {"low_us", "centre_us", "high_us"}) all.push_back(path_of({"outputs", o.id, of}));
  return all;
}

std::string planned_words(const CheckContext& in) {
  const GainScale scale(*in.controller, in.rig.feel.half_share);
  std::string words;
  for (const Axis axis : all_axes)
    if (const AxisGain* g = in.rig.feel.gain(axis); g && g->rate)
      words += (words.empty() ? "" : ". ") + capital(std::string(name_of(axis))) + ": " + scale.words(*g->rate);
  return words;
}

std::string nothing_planned(const CheckContext& in, const std::string&) {
  return planned_words(in).empty() ? "No gain is planned yet: station feel says which." : std::string();
}

CheckCard first_gains_card(const CheckContext& in, const std::string&) {
  CheckCard card;
  card.title = "First gains set";
  const std::string words = planned_words(in);
  const bool link = in.controller->link;
  card.todo = words.empty() ? "At station feel, plan the gains for the first flight."
              : link        ? "Write the plan to the board, or look that it holds the same."
                            : "Set them on the board.";
  if (const SettingWay* way = in.controller->way("gains"); way && !words.empty() && !link)
    for (const std::string& step : way->steps) {
      std::string line = in.controller->with_leaflet(step);
      for (std::size_t at; (at = line.find("{axis} ")) != std::string::npos;) line.erase(at, 7);
      card.todo += " " + line;
    }
  card.expected = words.empty() ? "" : words + ".";
  card.cautions = {"Propeller off. Battery out before a finger goes near a servo arm or a dial."};
  return card;
}

CheckCard barely_moves_card(const CheckContext&, const std::string&) {
  return {"Barely moves at first gains",
          "",
          "With the first gains set, in rate (or levelling, where that is all there is): a quick tilt on each axis.",
          "The surfaces move a little, the way that was proven. None of them goes to its end.",
          "A surface that slams is a gain that was left high after the look at the corrections.",
          {"Propeller off. Hold the model where nothing can catch the surfaces."}};
}

CheckCard amount_card(const CheckContext&, const std::string&) {
  return {"Correction amount looked at",
          "",
          "In levelling, hold the model at 45° of bank, and turn the roll dial until the eye says half.",
          "The surfaces stand at about half of their travel (common practice). The rudder far less.",
          "Note the place of the dial: station feel says what it expects there.",
          {"Propeller off.", "Back to the first gains afterwards."}};
}

CheckFamily family(const CheckId& id, const char* name, decltype(CheckFamily::subjects) subjects,
                   decltype(CheckFamily::depends_on) depends_on, decltype(CheckFamily::card) card) {
  CheckFamily f;
  f.id = id.family;
  f.counts_for = Station::feel;
  f.until_mounted = false;
  f.name = name;
  f.subjects = subjects;
  f.depends_on = depends_on;
  f.card = card;
  return f;
}

}  // namespace

std::vector<CheckFamily> feel_checks() {
  CheckFamily amount = family(correction_amount, "Correction amount", amount_subjects, movement_places, amount_card);
  CheckFamily gains = family(first_gains_set, "First gains set", settable_subjects, gain_places_of, first_gains_card);
  CheckFamily barely = family(barely_moves, "Barely moves", settable_subjects, movement_places, barely_moves_card);
  gains.why_not = nothing_planned;
  gains.read_back = true;
  amount.guides = barely.guides = true;
  return {amount, gains, barely};
}

}  // namespace rigging
