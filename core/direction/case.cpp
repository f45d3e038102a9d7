#include "direction/case.h"

namespace rigging::direction {

std::vector<Question> Case::all_questions() const {
  std::vector<Question> questions;
  for (const Axis axis : all_axes) {
    Observation o;
    o.axis = axis;
    questions.push_back({o, true, true});
  }
  for (int i = 0; i < static_cast<int>(outputs.size()); ++i) {
    Observation o;
    o.act = Act::drive;
    o.output = i;
    questions.push_back({o, true, false});
  }
  // Hold answers like rate on the bench, so it can tell nothing more.
  for (const Mode mode : {Mode::rate, Mode::level})
    for (const Axis axis : all_axes) {
      Observation o;
      o.act = Act::tilt;
      o.axis = axis;
      o.mode = mode;
      questions.push_back({o, true, false});
    }
  return questions;
}

namespace {
std::string output_id(const Case& c, int index) {
  const CaseOutput& o = c.outputs[static_cast<std::size_t>(index)];
  return o.label.empty() ? "output " + o.id : o.label;
}
}  // namespace

std::string fault_text(const Fault& f, const Case& c) {
  const auto id = [&](int output) { return output_id(c, output); };
  switch (f.kind) {
    case FaultKind::output_reversed: return id(f.output) + " turns the wrong way";
    case FaultKind::leads_swapped:
      return "the leads of " + id(f.output) + " and " + id(f.other_output) + " are exchanged";
    case FaultKind::mix_sign_wrong:
      return id(f.output) + " answers " + std::string(name_of(f.axis)) + " with the wrong sign, and only " +
             std::string(name_of(f.axis));
    case FaultKind::transmitter_reversed:
      return "the transmitter sends the " + std::string(name_of(f.axis)) + " channel reversed";
    case FaultKind::transmitter_swapped:
      return "the transmitter sends " + std::string(name_of(f.axis)) + " and " + std::string(name_of(f.other_axis)) +
             " on each other's channel";
    case FaultKind::gyro_reversed:
      return "the controller senses " + std::string(name_of(f.axis)) + " the wrong way round";
    case FaultKind::board_turned:
      return "the board sits with its " + f.turn.label() + " and the controller does not know it";
    case FaultKind::output_dead: return id(f.output) + " gives no pulse, or its servo is dead or unplugged";
    case FaultKind::linkage_opposed:
      return f.surface.kind == SurfaceKind::motor
                 ? "the " + f.surface.label() + " answers the wrong way round by itself"
                 : "the linkage of the " + f.surface.label() + " works the wrong way round";
    case FaultKind::function_reversed:
      return "the controller works " + std::string(name_of(f.axis)) +
             " the wrong way round, stick and correction together, on every output that carries it";
  }
  return {};
}

std::string remedy_text(const Fault& f, const Case& c) {
  const auto id = [&](int output) { return output_id(c, output); };
  switch (f.kind) {
    case FaultKind::output_reversed: return "reverse " + id(f.output);
    case FaultKind::leads_swapped: return "exchange the leads of " + id(f.output) + " and " + id(f.other_output);
    case FaultKind::mix_sign_wrong:
      return "flip the sign of the " + std::string(name_of(f.axis)) + " weight of " + id(f.output);
    case FaultKind::transmitter_reversed:
      return "reverse the " + std::string(name_of(f.axis)) + " channel in the transmitter";
    case FaultKind::transmitter_swapped:
      return "exchange the " + std::string(name_of(f.axis)) + " and " + std::string(name_of(f.other_axis)) +
             " channels in the transmitter";
    case FaultKind::gyro_reversed: return "reverse the sensing of " + std::string(name_of(f.axis));
    case FaultKind::board_turned:
      return "mount the board with its arrow to the nose and top up, or tell the controller: " + f.turn.label();
    case FaultKind::output_dead: return "check the plug, lead and servo on " + id(f.output);
    case FaultKind::linkage_opposed:
      return f.surface.kind == SurfaceKind::motor
                 ? "turn the sense of the " + f.surface.label() + "'s speed controller"
                 : "move the rod of the " + f.surface.label() + " to the other side of the arm, or remount the servo";
    case FaultKind::function_reversed: return "reverse the " + std::string(name_of(f.axis)) + " function";
  }
  return {};
}

std::string observation_text(const Observation& o, const Case& c) {
  const std::string sense(o.act == Act::drive || o.act == Act::inspect ? "" : sense_word(o.axis, o.sense > 0));
  switch (o.act) {
    case Act::stick: {
      const std::string stick = o.axis == Axis::pitch
                                    ? (o.sense > 0 ? "pitch stick back (nose up)" : "pitch stick forward (nose down)")
                                    : std::string(name_of(o.axis)) + " stick " + sense;
      return stick + " in " + std::string(name_of(o.mode));
    }
    case Act::drive:
      return std::string(o.sense > 0 ? "raise" : "lower") + " the pulse of " + output_id(c, o.output) + " alone";
    case Act::tilt: {
      const std::string move = o.axis == Axis::roll    ? "roll the model " + sense + " (" + sense + " wing down)"
                               : o.axis == Axis::pitch ? "turn the nose " + sense
                                                       : "swing the nose " + sense;
      return move + " in " + std::string(name_of(o.mode));
    }
    case Act::inspect: {
      std::string what;
      const auto add = [&](const std::string& one) { what += (what.empty() ? "look at " : ", ") + one; };
      for (const int i : o.leads) add("the lead of " + output_id(c, i));
      for (const Surface s : o.horns) add("the linkage of the " + s.label());
      if (o.board) add("how the board sits");
      return what;
    }
  }
  return {};
}

hands::Work work_for(const Fault& f, const Case& c) {
  hands::Work work;
  work.remedy = remedy_of(f.kind);
  const auto add_output = [&](int index) { work.outputs.push_back(c.outputs[at(index)].id); };
  switch (f.kind) {
    case FaultKind::output_reversed:
    case FaultKind::output_dead: add_output(f.output); break;
    case FaultKind::leads_swapped:
      add_output(f.output);
      add_output(f.other_output);
      break;
    case FaultKind::mix_sign_wrong:
      add_output(f.output);
      work.axes = {f.axis};
      break;
    case FaultKind::transmitter_reversed:
    case FaultKind::gyro_reversed:
    case FaultKind::function_reversed: work.axes = {f.axis}; break;
    case FaultKind::transmitter_swapped: work.axes = {f.axis, f.other_axis}; break;
    case FaultKind::board_turned: break;
    case FaultKind::linkage_opposed: work.surface = f.surface; break;
  }
  return work;
}

}  // namespace rigging::direction
