#include "direction/from_rig.h"

#include "direction/direction_checks.h"

#include <algorithm>

namespace rigging::direction {

Case case_from_rig(const Rig& rig, const ControllerClass& controller) {
  Case c;
  c.can = controller.abilities();
  c.mix_is_plan = true;
  c.levels_by_gravity = true;
  c.either_face = controller.senses.either_face;
  for (const Output& o : rig.outputs) {
    if (o.surfaces.empty()) continue;
    const Terminal* socket = controller.socket(o.socket);
    CaseOutput output{o.id,
                      socket ? socket->label + " (" + o.surfaces.front().label() +
                                   (o.surfaces.size() > 1 ? " and its Y-lead" : "") + ")"
                             : "",
                      {o.surfaces.begin(), o.surfaces.end()},
                      {},
                      o.reversed};
    for (const Axis axis : all_axes)
      // A weight that this surface can't serve is a snag of its own; it must not spoil the reasoning.
      if (std::all_of(o.surfaces.begin(), o.surfaces.end(),
                      [&](Surface s) { return required_direction(s, axis) != 0; }))
        output.mix[static_cast<std::size_t>(index_of(axis))] = o.mix.of(axis);
    c.outputs.push_back(std::move(output));
  }
  std::vector<Question> questions;
  for (Question q : c.all_questions()) {
    const Act act = q.observation.act;
    if (act == Act::drive && !controller.surfaces.drives_one_output) continue;
    if (act == Act::tilt) {
      const ModeAnswer* answer = controller.mode(q.observation.mode);
      if (!answer || answer->answer == AnswerKind::none || answer->answer == AnswerKind::runs_away) continue;
    }
    q.channels = q.channels && controller.sticks.reads_channels;
    questions.push_back(q);
  }
  c.may_ask = std::move(questions);
  return c;
}

bool is_setting(Remedy remedy, const ControllerClass& controller) {
  return remedy == Remedy::reverse_output || remedy == Remedy::reverse_function || remedy == Remedy::flip_mix ||
         remedy == Remedy::flip_gyro || (remedy == Remedy::turn_board && controller.senses.can_be_turned);
}

void reverse_function(std::vector<Output>& outputs, Axis axis) {
  for (Output& o : outputs) {
    o.mix.of(axis) *= -1;
    if (axis == Axis::roll) o.mix.roll_differential *= -1;
  }
}

Rig remedied(Rig rig, const Fault& f, const Case& c, const ControllerClass& controller) {
  const auto output = [&](int index) { return rig.output(c.outputs[static_cast<std::size_t>(index)].id); };
  const auto flip_channel = [&](Axis axis) {
    const ChannelFunction function = axis == Axis::roll    ? ChannelFunction::roll
                                     : axis == Axis::pitch ? ChannelFunction::pitch
                                                           : ChannelFunction::yaw;
    for (Channel& channel : rig.radio.channels)
      if (channel.function == function) channel.reversed = !channel.reversed;
  };
  // Work by hand leaves no trace in the settings, so the proofs that it touches are taken back.
  const auto take_back = [&](int index) {
    const auto& mix = c.outputs[static_cast<std::size_t>(index)].mix;
    std::erase_if(rig.proofs, [&](const Proof& p) {
      return std::any_of(all_axes.begin(), all_axes.end(), [&](Axis axis) {
        return mix[static_cast<std::size_t>(index_of(axis))] != 0 && is_direction(p.check) &&
               p.check.subject == name_of(axis);
      });
    });
  };
  const auto take_back_stick = [&](Axis axis) {
    rig = without_proofs(std::move(rig), stick_family, std::string(name_of(axis)));
  };

  switch (f.kind) {
    case FaultKind::output_reversed: output(f.output)->reversed = !output(f.output)->reversed; break;
    case FaultKind::mix_sign_wrong: output(f.output)->mix.of(f.axis) *= -1; break;
    case FaultKind::function_reversed:
      // A button or gesture brings the controller to the plan.
      take_back_stick(f.axis);
      rig = without_proofs(std::move(rig), correction_family, std::string(name_of(f.axis)));
      break;
    case FaultKind::gyro_reversed: rig.sensing.reversed(f.axis) = !rig.sensing.reversed(f.axis); break;
    case FaultKind::board_turned:
      if (controller.senses.can_be_turned)
        rig.sensing.board = f.turn.inside(rig.sensing.board);
      else
        rig = without_proofs(std::move(rig), correction_family);
      break;
    case FaultKind::transmitter_reversed:
      flip_channel(f.axis);
      take_back_stick(f.axis);
      break;
    case FaultKind::transmitter_swapped:
      take_back_stick(f.axis);
      take_back_stick(f.other_axis);
      break;
    case FaultKind::leads_swapped:
      take_back(f.output);
      take_back(f.other_output);
      break;
    case FaultKind::output_dead:
    case FaultKind::linkage_opposed: take_back(f.output); break;
  }
  return rig;
}

}  // namespace rigging::direction
