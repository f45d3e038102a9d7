#include "proof/checks.h"

#include <algorithm>

#include "base/fingerprint.h"
#include "base/number.h"

namespace rigging {
namespace {

bool serves(const Output& o, Axis axis) {
  return o.mix.of(axis) != 0 &&
         std::any_of(o.surfaces.begin(), o.surfaces.end(), [&](Surface s) { return required_direction(s, axis) != 0; });
}

/// The mode in which this axis' correction shows best. Levelling never answers yaw.
Mode mode_for(const ControllerClass& controller, Axis axis) {
  if (axis != Axis::yaw || controller.bench_mode != Mode::level) return controller.bench_mode;
  for (const Mode mode : {Mode::rate, Mode::hold})
    if (const ModeAnswer* a = controller.mode(mode); a && a->answer != AnswerKind::none) return mode;
  return controller.bench_mode;
}

ChannelFunction function_of(Axis axis) {
  return axis == Axis::roll    ? ChannelFunction::roll
         : axis == Axis::pitch ? ChannelFunction::pitch
                               : ChannelFunction::yaw;
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
  if (m.from_deg > 0) text += " It reacts only past about " + number_text(m.from_deg, 0) + "° of tilt.";
  return m.note.empty() ? text : text + " " + m.note;
}

}  // namespace

std::vector<Check> needed_checks(const Rig& rig, const ControllerClass& controller) {
  std::vector<Check> checks;
  for (const CheckKind kind : {CheckKind::stick, CheckKind::correction})
    for (const Axis axis : all_axes) {
      if (std::none_of(rig.outputs.begin(), rig.outputs.end(), [&](const Output& o) { return serves(o, axis); }))
        continue;
      const std::string name(word(axis));
      if (kind == CheckKind::stick) {
        checks.push_back({"stick." + name, kind, axis, capital(name) + " stick moves the right way"});
      } else {
        const ModeAnswer* answer = controller.mode(mode_for(controller, axis));
        if (!answer || (axis == Axis::yaw && answer->mode == Mode::level)) continue;
        checks.push_back({"correction." + name, kind, axis, capital(name) + " correction fights the disturbance"});
      }
    }
  return checks;
}

CheckCard card_of(const Rig& rig, const ControllerClass& controller, const Check& check) {
  CheckCard card;
  card.check = check;
  card.observation.axis = check.axis;
  const std::string sense(sense_word(check.axis, true));
  if (check.kind == CheckKind::stick) {
    card.observation.mode = Mode::manual;
    card.todo = check.axis == Axis::pitch ? "In manual, pull the pitch stick back and hold it."
                                          : "In manual, push the " + std::string(word(check.axis)) + " stick to the " +
                                                sense + " and hold it.";
    card.how = "Held: it stays as long as the stick is held.";
    card.cautions = {"Propeller off. Stand clear of its arc before the battery goes in."};
  } else {
    card.observation.act = direction::Act::tilt;
    card.observation.mode = mode_for(controller, check.axis);
    const std::string mode(word(card.observation.mode));
    card.todo = check.axis == Axis::roll    ? "In " + mode + " mode, lower the right wing"
                : check.axis == Axis::pitch ? "In " + mode + " mode, raise the nose"
                                            : "In " + mode + " mode, swing the nose to the right";
    if (const ModeAnswer* answer = controller.mode(card.observation.mode)) {
      card.answer = answer->answer;
      card.from_deg = answer->from_deg;
      card.how = answer_words(*answer);
    }
    card.todo += card.answer == AnswerKind::held ? " and hold it there." : ", quickly.";
    if (controller.rudder_into_bank && check.axis == Axis::roll)
      card.how += " Rudder toward a held bank is coordination: no fault.";
    card.cautions = {"Propeller off. Hold the model where nothing can catch the surfaces or the shaft."};
  }
  // A stabilizer fights the disturbance: the answer to a positive tilt is the negative command.
  const int command = check.kind == CheckKind::stick ? 1 : -1;
  for (const Output& o : rig.outputs)
    for (const Surface s : o.surfaces)
      if (o.mix.of(check.axis) != 0 && required_direction(s, check.axis) != 0)
        card.expected.push_back({s, command * required_direction(s, check.axis)});
  return card;
}

std::vector<std::string> dependencies(const Rig& rig, const Check& check) {
  std::vector<std::string> lines;
  lines.push_back("controller " + rig.controller.kind);
  lines.push_back("firmware " + rig.controller.firmware);
  lines.push_back(rig.controller.mounted ? "board mounted" : "board loose");
  std::vector<std::string> outputs;
  for (const Output& o : rig.outputs) {
    if (!serves(o, check.axis)) continue;
    std::string line = o.id + " in " + o.socket + " drives";
    for (const Surface s : o.surfaces) line += " " + s.word();
    line += ", " + std::string(word(check.axis)) + " " + number_text(o.mix.of(check.axis), 6) +
            (o.reversed ? ", reversed" : "");
    outputs.push_back(std::move(line));
  }
  std::sort(outputs.begin(), outputs.end());  // the order of the list in the file proves nothing
  lines.insert(lines.end(), outputs.begin(), outputs.end());
  if (check.kind == CheckKind::stick) {
    for (const Channel& c : rig.radio.channels)
      if (c.function == function_of(check.axis))
        lines.push_back(std::string(word(check.axis)) + " on channel " + std::to_string(c.number) +
                        (c.reversed ? ", reversed in the transmitter" : ""));
  } else {
    lines.push_back("board " + rig.sensing.board.name());
    lines.push_back(std::string(word(check.axis)) +
                    (rig.sensing.reversed(check.axis) ? " sensing reversed" : " sensing plain"));
  }
  return lines;
}

namespace {

std::string fingerprint_of(const std::string& check_id, const std::vector<std::string>& lines) {
  Fingerprint f;
  f.add(check_id);
  for (const std::string& line : lines) f.add(line);
  return f.text();
}

}  // namespace

std::string fingerprint(const Rig& rig, const Check& check) {
  return fingerprint_of(check.id, dependencies(rig, check));
}

Standing standing(const Rig& rig, const std::string& check_id, const std::vector<std::string>& now) {
  Standing s;
  const auto proof =
      std::find_if(rig.proofs.begin(), rig.proofs.end(), [&](const Proof& p) { return p.check == check_id; });
  if (proof == rig.proofs.end()) return s;
  s.at = proof->at;
  if (proof->fingerprint == fingerprint_of(check_id, now)) {
    s.state = proof->provisional ? ProofState::provisional : ProofState::fresh;
    return s;
  }
  s.state = ProofState::stale;
  const auto& then = proof->depends_on;
  const auto missing_from = [&](const std::vector<std::string>& list, const std::vector<std::string>& from,
                                const char* first) {
    for (const std::string& line : list)
      if (std::find(from.begin(), from.end(), line) == from.end())
        s.because += (s.because.empty() ? first : "; ") + line;
  };
  missing_from(now, then, "");
  if (s.because.empty()) missing_from(then, now, "no longer: ");
  return s;
}

Rig recorded(Rig rig, const std::string& check_id, const std::vector<std::string>& depends_on, const std::string& at,
             bool simulated, bool provisional) {
  std::erase_if(rig.proofs, [&](const Proof& p) { return p.check == check_id; });
  Proof proof{check_id, at, fingerprint_of(check_id, depends_on), depends_on, provisional, simulated, {}, {}};
  rig.proofs.push_back(std::move(proof));
  std::sort(rig.proofs.begin(), rig.proofs.end(), [](const Proof& a, const Proof& b) { return a.check < b.check; });
  return rig;
}

std::vector<CheckStatus> check_statuses(const Rig& rig, const ControllerClass& controller) {
  std::vector<CheckStatus> all;
  for (const Check& check : needed_checks(rig, controller)) {
    Standing s = standing(rig, check.id, dependencies(rig, check));
    all.push_back({check, s.state, std::move(s.at), std::move(s.because)});
  }
  return all;
}

Rig proven(Rig rig, const Check& check, const std::string& at, bool simulated) {
  const auto lines = dependencies(rig, check);
  const bool loose = !rig.controller.mounted;
  return recorded(std::move(rig), check.id, lines, at, simulated, loose);
}

}  // namespace rigging
