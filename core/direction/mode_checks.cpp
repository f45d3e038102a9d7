#include "direction/mode_checks.h"

#include <algorithm>

#include "base/number.h"
#include "direction/direction_checks.h"
#include "rig/path.h"

namespace rigging {
namespace {

bool something_steers(const Rig& rig) {
  return std::any_of(rig.outputs.begin(), rig.outputs.end(), [](const Output& o) {
    return std::any_of(all_axes.begin(), all_axes.end(), [&](Axis axis) { return o.mix.of(axis) != 0; });
  });
}

std::vector<std::string> mode_subjects(const CheckContext& in) {
  std::vector<std::string> all;
  if (!in.controller || !something_steers(in.rig)) return all;
  const auto add = [&](Mode mode) {
    const std::string name(name_of(mode));
    if (in.controller->mode(mode) && std::find(all.begin(), all.end(), name) == all.end()) all.push_back(name);
  };
  for (const ModeChoice& m : in.rig.modes)
    if (const auto mode = from_name<Mode>(m.mode)) add(*mode);
  if (in.rig.modes.empty())
    for (const ModeAnswer& m : in.controller->proof.modes)
      if (!keeps_height(m.mode)) add(m.mode);
  return all;
}

/// "channel 5 at 1000 to 1300 µs"; empty when the plan does not say.
std::string position_words(const Rig& rig, const std::string& mode) {
  for (const ModeChoice& m : rig.modes)
    if (m.mode == mode)
      return "channel " + std::to_string(m.channel) + " at " + number_text(m.from_us, 0) + " to " +
             number_text(m.to_us, 0) + " µs";
  return {};
}

std::vector<std::string> mode_places(const CheckContext& in, const std::string& subject) {
  std::vector<std::string> places{"controller/kind", "controller/firmware"};
  for (const Channel& c : in.rig.radio.channels)
    if (c.function == ChannelFunction::mode)
      places.push_back(path_of({"radio", "channels", std::to_string(c.number), "function"}));
  for (const ModeChoice& m : in.rig.modes)
    if (m.mode == subject)
      for (const char* member : {"channel", "from_us", "to_us"}) places.push_back(path_of({"modes", subject, member}));
  return places;
}

/// How a mode with this answer is called, and what should be seen.
std::pair<const char*, const char*> shown_by(AnswerKind answer) {
  switch (answer) {
    case AnswerKind::none: break;
    case AnswerKind::momentary:
      return {"answers while it moves",
              "The surfaces answer the flick, and go back to the middle while the model is held."};
    case AnswerKind::held:
      return {"holds its answer",
              "The surfaces stay deflected for as long as the model is held tilted, in roll and pitch."};
    case AnswerKind::springs_back:
      return {"answers and springs back",
              "The surfaces answer, and spring back on the bench: in the air they hold the attitude."};
    case AnswerKind::runs_away:
      return {"runs on",
              "The surfaces run to full deflection, even with the model standing still: it expects to be flying."};
  }
  return {"no answer to a tilt", "The surfaces stay where they are, and follow the sticks."};
}

CheckCard mode_card(const CheckContext& in, const std::string& subject) {
  CheckCard card;
  const Mode mode = from_name<Mode>(subject).value_or(Mode::manual);
  const ModeAnswer* answer = in.controller ? in.controller->mode(mode) : nullptr;
  if (!answer) return card;
  const std::string at = position_words(in.rig, subject);
  card.todo = "Switch to " + subject + (at.empty() ? "" : " (" + at + ")") +
              ". Sticks let go: flick the model, then hold it tilted, right wing down and nose up.";
  if (keeps_height(mode)) card.todo += " Then lift it a metre or so, level, and lower it again.";
  const auto shows = shown_by(answer->answer);
  card.title = capital(subject) + ": " + shows.first;
  card.expected = shows.second;
  card.how = answer_words(*answer);
  if (keeps_height(mode))
    card.how +=
        " Lifted, the elevator eases down, lowered, up: gently, and on some boards not before it flies. What it makes "
        "of the throttle stick is a property of the board: look while the propeller is off.";
  if (mode == Mode::manual)
    card.how = "It is the way out when a correction works the wrong way: one movement of the hand, without looking.";
  card.cautions = {"Propeller off. Hold the model where nothing can catch the surfaces or the shaft."};
  if (answer->motor_unlocked)
    card.cautions.front() = "Propeller off: the motor is unlocked for this look. Keep clear of the shaft.";
  return card;
}

const Channel* gain_channel(const CheckContext& in) {
  const Channel* c = in.rig.channel(ChannelFunction::gain);
  return c && !c->fixed_us ? c : nullptr;
}

std::vector<std::string> gain_subjects(const CheckContext& in) {
  return in.controller && gain_channel(in) && something_steers(in.rig) ? std::vector<std::string>{{}}
                                                                       : std::vector<std::string>{};
}

std::vector<std::string> gain_places(const CheckContext& in, const std::string&) {
  std::vector<std::string> places{"controller/kind", "controller/firmware"};
  if (const Channel* c = gain_channel(in))
    for (const char* member : {"function", "reversed"})
      places.push_back(path_of({"radio", "channels", std::to_string(c->number), member}));
  return places;
}

CheckCard gain_card(const CheckContext& in, const std::string&) {
  CheckCard card;
  const Channel* c = gain_channel(in);
  card.title = "Both ends of the gain control";
  card.todo = "Once the corrections are right: bring the gain control" +
              (c ? " (channel " + std::to_string(c->number) + ")" : std::string()) +
              " to one end, flick the model; to its other end, flick it again.";
  card.expected = "Barely anything at one end, plainly more at the other, and in the same direction at both.";
  card.how =
      "Another direction at one end means that the control goes through zero: keep it on the side that was "
      "proven. Leave it at the end with less for the first flight, and note where it ends up in the air.";
  card.cautions = {"Propeller off. Hold the model where nothing can catch the surfaces or the shaft."};
  return card;
}

}  // namespace

CheckFamily mode_checks() {
  return {.id = mode_family,
          .station = Station::proof,
          .until_mounted = false,
          .grouped = true,
          .one = "mode",
          .many = "modes",
          .subjects = mode_subjects,
          .depends_on = mode_places,
          .card = mode_card};
}

CheckFamily gain_check() {
  return {.id = gain_ends.family,
          .station = Station::proof,
          .until_mounted = false,
          .name = "Gain's ends",
          .one = "control",
          .many = "controls",
          .subjects = gain_subjects,
          .depends_on = gain_places,
          .card = gain_card};
}

}  // namespace rigging
