#include "direction/direction_checks.h"

#include <algorithm>

#include "base/number.h"
#include "rig/path.h"

namespace rigging {
namespace {

bool serves(const Output& o, Axis axis) {
  return o.mix.of(axis) != 0 &&
         std::any_of(o.surfaces.begin(), o.surfaces.end(), [&](Surface s) { return required_direction(s, axis) != 0; });
}

/// The mode in which this axis' correction shows best. Levelling never answers yaw.
Mode mode_for(const ControllerClass& controller, Axis axis) {
  if (axis != Axis::yaw || controller.proof.bench_mode != Mode::level) return controller.proof.bench_mode;
  for (const Mode mode : {Mode::rate, Mode::hold})
    if (const ModeAnswer* a = controller.mode(mode); a && a->answer != AnswerKind::none) return mode;
  return controller.proof.bench_mode;
}

ChannelFunction function_of(Axis axis) {
  return axis == Axis::roll    ? ChannelFunction::roll
         : axis == Axis::pitch ? ChannelFunction::pitch
                               : ChannelFunction::yaw;
}

Axis axis_of(const std::string& subject) { return from_name<Axis>(subject).value_or(Axis::roll); }

bool some_output_serves(const Rig& rig, Axis axis) {
  return std::any_of(rig.outputs.begin(), rig.outputs.end(), [&](const Output& o) { return serves(o, axis); });
}

/// Axis by axis; only axes that some surface answers.
std::vector<std::string> stick_subjects(const CheckContext& in) {
  std::vector<std::string> axes;
  for (const Axis axis : all_axes)
    if (in.controller && some_output_serves(in.rig, axis)) axes.emplace_back(name_of(axis));
  return axes;
}

std::vector<std::string> correction_subjects(const CheckContext& in) {
  std::vector<std::string> axes = stick_subjects(in);
  std::erase_if(axes, [&](const std::string& name) {
    const Axis axis = axis_of(name);
    const ModeAnswer* answer = in.controller->mode(mode_for(*in.controller, axis));
    return !answer || (axis == Axis::yaw && answer->mode == Mode::level);
  });
  return axes;
}

std::vector<std::string> shared_places(const CheckContext& in, Axis axis) {
  std::vector<std::string> places{"controller/kind", "controller/firmware", "controller/mounted"};
  for (const Output& o : in.rig.outputs)
    if (serves(o, axis)) {
      for (const char* member : {"socket", "surfaces", "reversed"})
        places.push_back(path_of({"outputs", o.id, member}));
      places.push_back(path_of({"outputs", o.id, "mix", name_of(axis)}));
    }
  return places;
}

std::vector<std::string> stick_places(const CheckContext& in, const std::string& subject) {
  std::vector<std::string> places = shared_places(in, axis_of(subject));
  for (const Channel& c : in.rig.radio.channels)
    if (c.function == function_of(axis_of(subject)))
      for (const char* member : {"function", "reversed"})
        places.push_back(path_of({"radio", "channels", std::to_string(c.number), member}));
  return places;
}

std::vector<std::string> correction_places(const CheckContext& in, const std::string& subject) {
  std::vector<std::string> places = shared_places(in, axis_of(subject));
  places.push_back("sensing/board");
  places.push_back("sensing/" + subject + "_reversed");
  return places;
}

template <const char* family>
CheckCard plain_card(const CheckContext& in, const std::string& subject) {
  return direction_card(in, {family, subject});
}

}  // namespace

bool is_direction(const CheckId& id) { return id.family == stick_family || id.family == correction_family; }

CheckFamily stick_checks() {
  return {.id = stick_family,
          .station = Station::proof,
          .counts_for = Station::surfaces,
          .one = "direction",
          .many = "directions",
          .subjects = stick_subjects,
          .depends_on = stick_places,
          .card = plain_card<stick_family>};
}

CheckFamily correction_checks() {
  return {.id = correction_family,
          .station = Station::proof,
          .one = "direction",
          .many = "directions",
          .subjects = correction_subjects,
          .depends_on = correction_places,
          .card = plain_card<correction_family>};
}

namespace {

std::vector<const Output*> leaning_outputs(const CheckContext& in) {
  std::vector<const Output*> all;
  if (in.controller && in.controller->proof.rudder_into_bank)
    for (const Output& o : in.rig.outputs)
      if (serves(o, Axis::yaw) && o.mix.roll == 0 &&
          std::none_of(o.surfaces.begin(), o.surfaces.end(), [](Surface s) { return s.kind == SurfaceKind::motor; }))
        all.push_back(&o);
  return all;
}

std::vector<std::string> lean_subjects(const CheckContext& in) {
  return leaning_outputs(in).empty() ? std::vector<std::string>{} : std::vector<std::string>{{}};
}

std::vector<std::string> lean_places(const CheckContext& in, const std::string&) {
  std::vector<std::string> places = shared_places(in, Axis::yaw);
  for (const char* place : {"sensing/board", "sensing/roll_reversed", "sensing/yaw_reversed"}) places.push_back(place);
  return places;
}

CheckCard lean_card(const CheckContext& in, const std::string&) {
  CheckCard card;
  card.title = "The rudder leans into a held bank";
  card.todo = "Once roll and yaw correction are right: in level mode, lower the right wing slowly and hold it there.";
  for (const Output* o : leaning_outputs(in))
    for (const Surface s : o->surfaces)
      card.expected +=
          (card.expected.empty() ? "" : ", ") + s.label() + " " + motion_label(s, required_direction(s, Axis::yaw));
  card.expected = capital(card.expected) + ", a little, for as long as the bank is held.";
  card.how =
      "Toward the low wing it makes turns clean. The other way it works against every turn: then one of the two "
      "corrections is wrong after all. Look at both again, and do not fly before all three are right.";
  card.cautions = {"Propeller off. Hold the model where nothing can catch the surfaces or the shaft."};
  return card;
}

}  // namespace

CheckFamily lean_check() {
  return {.id = rudder_leans.family,
          .station = Station::proof,
          .name = "Rudder leans",
          .one = "direction",
          .many = "directions",
          .subjects = lean_subjects,
          .depends_on = lean_places,
          .card = lean_card};
}

std::string answer_words(const ModeAnswer& m) {
  std::string text;
  switch (m.answer) {
    case AnswerKind::momentary:
      text = "Momentary: it shows only while the model moves. A quick flick shows it best.";
      break;
    case AnswerKind::held: text = "Held: it stays while the model is held tilted."; break;
    case AnswerKind::springs_back: text = "It shows, then springs back."; break;
    case AnswerKind::runs_away: text = "It may run on to full deflection: only the direction counts."; break;
    case AnswerKind::none: text = "This mode answers no tilt."; break;
  }
  if (m.motor_unlocked)
    text += " Unlock the motor first, propeller off: the stabilized modes sleep while it is locked.";
  if (m.from_deg > 0) text += " It reacts only past about " + number_text(m.from_deg, 0) + "° of tilt.";
  return m.note.empty() ? text : text + " " + m.note;
}

std::vector<Mode> look_modes(const ControllerClass& controller, Axis axis) {
  std::vector<Mode> all{mode_for(controller, axis)};
  for (const ModeAnswer& m : controller.proof.modes)
    if (m.answer != AnswerKind::none && m.answer != AnswerKind::runs_away && m.mode != all.front() &&
        !(axis == Axis::yaw && levels_wings(m.mode)))
      all.push_back(m.mode);
  return all;
}

DirectionCard direction_card(const CheckContext& context, const CheckId& id, std::optional<Mode> look_in) {
  const Rig& rig = context.rig;
  const ControllerClass& controller = *context.controller;
  DirectionCard card;
  card.correction = id.family == correction_family;
  card.axis = axis_of(id.subject);
  card.title =
      capital(id.subject) + (card.correction ? " correction fights the disturbance" : " stick moves the right way");
  card.observation.axis = card.axis;
  const std::string sense(sense_word(card.axis, true));
  if (!card.correction) {
    card.observation.mode = Mode::manual;
    card.todo = card.axis == Axis::pitch ? "In manual, pull the pitch stick back and hold it."
                                         : "In manual, push the " + std::string(name_of(card.axis)) + " stick to the " +
                                               sense + " and hold it.";
    card.how =
        "Held: it stays as long as the stick is held. Stand behind the model, tail toward you; a card taped to the "
        "trailing edge makes a small movement plain.";
    card.cautions = {"Propeller off. Stand clear of its arc before the battery goes in."};
  } else {
    card.observation.act = direction::Act::tilt;
    card.observation.mode = look_in ? *look_in : mode_for(controller, card.axis);
    const std::string mode(name_of(card.observation.mode));
    card.todo = card.axis == Axis::roll    ? "In " + mode + " mode, lower the right wing"
                : card.axis == Axis::pitch ? "In " + mode + " mode, raise the nose"
                                           : "In " + mode + " mode, swing the nose to the right";
    if (const ModeAnswer* answer = controller.mode(card.observation.mode)) {
      card.answer = answer->answer;
      card.from_deg = answer->from_deg;
      card.how = answer_words(*answer);
    }
    card.todo += card.answer == AnswerKind::held ? " and hold it there." : ", quickly.";
    card.how += card.axis == Axis::yaw
                    ? " The surface follows your hand: where you push the fin, its trailing edge goes."
                    : " The surface follows your hand: where you push it down, its trailing edge goes down.";
    if (controller.proof.rudder_into_bank && card.axis == Axis::roll)
      card.how += " The rudder leans toward a held bank as well: that has a check of its own.";
    card.cautions = {"Propeller off. Hold the model where nothing can catch the surfaces or the shaft."};
    if (const ModeAnswer* answer = controller.mode(card.observation.mode); answer && answer->motor_unlocked)
      card.cautions.front() = "Propeller off: the motor is unlocked for this look. Keep clear of the shaft.";
  }
  // A stabilizer fights the disturbance: the answer to a positive tilt is the negative command.
  const int command = !card.correction ? 1 : -1;
  for (const Output& o : rig.outputs)
    for (const Surface s : o.surfaces)
      if (o.mix.of(card.axis) != 0 && required_direction(s, card.axis) != 0)
        card.looks.push_back({s, command * required_direction(s, card.axis)});
  for (const Expected& e : card.looks)
    card.expected += (card.expected.empty() ? "" : ", ") + e.surface.label() + " " + motion_label(e.surface, e.motion);
  card.expected = capital(card.expected) + ".";
  return card;
}

}  // namespace rigging
