#include "direction/hand_card.h"

namespace rigging {

const Output* output_in(const Rig& rig, const direction::Case& c, int index) {
  return index < 0 ? nullptr : rig.output(c.outputs[static_cast<std::size_t>(index)].id);
}

std::string socket_label(const Rig& rig, const ControllerClass& controller, const direction::Case& c, int index) {
  const Output* o = output_in(rig, c, index);
  if (!o) return {};
  const Terminal* s = controller.socket(o->socket);
  return s ? s->label : o->socket.empty() ? o->id : o->socket;
}

HandCard hand_card(const Rig& rig, const ControllerClass& controller, const direction::Fault& f,
                   const direction::Case& c) {
  HandCard card;
  card.fault = f;
  const Remedy remedy = direction::remedy_of(f.kind);
  const Output* output = output_in(rig, c, f.output);
  std::string surface = f.kind == direction::FaultKind::linkage_opposed ? f.surface.label()
                        : output && !output->surfaces.empty()           ? output->surfaces.front().label()
                                                                        : "";
  if (f.kind == direction::FaultKind::function_reversed)
    for (const direction::CaseOutput& o : c.outputs)
      if (o.mix[direction::at(index_of(f.axis))] != 0)
        for (const Surface s : o.surfaces) surface += (surface.empty() ? "" : ", ") + s.label();
  card.title = capital(direction::remedy_text(f, c));
  card.because = "Because " + direction::fault_text(f, c) + ".";
  std::string other = socket_label(rig, controller, c, f.other_output);
  if (f.kind == direction::FaultKind::transmitter_swapped) other = name_of(f.other_axis);
  const RemedySteps* remedy_steps = controller.steps_for(remedy);
  if (remedy_steps) card.over_link = remedy_steps->over_link;
  std::vector<std::string> steps = remedy_steps ? remedy_steps->steps : std::vector<std::string>{};
  if (steps.empty()) steps = {capital(direction::remedy_text(f, c)) + ".", "Look at stick and correction again."};
  for (const std::string& step : steps)
    card.steps.push_back(
        replaced(controller.with_leaflet(step), {{"{output}", output ? output->id : ""},
                                                 {"{socket}", socket_label(rig, controller, c, f.output)},
                                                 {"{other}", other},
                                                 {"{axis}", std::string(name_of(f.axis))},
                                                 {"{surface}", surface},
                                                 {"{rotation}", f.turn.label()}}));
  card.cautions = {"Propeller off, or the motor lead unplugged, while anything is powered.",
                   "Battery last in, first out."};
  return card;
}

}  // namespace rigging
