#include "proof/checks.h"

#include <algorithm>

#include "base/fingerprint.h"
#include "base/number.h"

namespace rigging {
namespace {

bool serves(const Output& o, Axis axis) {
  return o.mix.of(axis) != 0 && std::any_of(o.surfaces.begin(), o.surfaces.end(), [&](Surface s) { return required_direction(s, axis) != 0; });
}

/// The mode in which this axis' correction shows best. Levelling never answers yaw.
Mode mode_for(const ControllerClass& controller, Axis axis) {
  if (axis != Axis::yaw || controller.bench_mode != Mode::level) return controller.bench_mode;
  for (const Mode mode : {Mode::rate, Mode::hold})
    if (const ModeAnswer* a = controller.mode(mode); a && a->answer != AnswerKind::none) return mode;
  return controller.bench_mode;
}

ChannelFunction function_of(Axis axis) {
  return axis == Axis::roll ? ChannelFunction::roll : axis == Axis::pitch ? ChannelFunction::pitch : ChannelFunction::yaw;
}

std::string answer_words(const ModeAnswer& m) {
  std::string text;
  switch (m.answer) {
    case AnswerKind::momentary: text = "Momentary: it shows only while the model moves. A quick flick shows it best."; break;
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
      if (std::none_of(rig.outputs.begin(), rig.outputs.end(), [&](const Output& o) { return serves(o, axis); })) continue;
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
                                          : "In manual, push the " + std::string(word(check.axis)) + " stick to the " + sense + " and hold it.";
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
    line += ", " + std::string(word(check.axis)) + " " + number_text(o.mix.of(check.axis), 6) + (o.reversed ? ", reversed" : "");
    outputs.push_back(std::move(line));
  }
  std::sort(outputs.begin(), outputs.end());  // the order of the list in the file proves nothing
  lines.insert(lines.end(), outputs.begin(), outputs.end());
  if (check.kind == CheckKind::stick) {
    for (const Channel& c : rig.radio.channels)
      if (c.function == function_of(check.axis))
        lines.push_back(std::string(word(check.axis)) + " on channel " + std::to_string(c.number) + (c.reversed ? ", reversed in the transmitter" : ""));
  } else {
    lines.push_back("board " + rig.sensing.board.name());
    lines.push_back(std::string(word(check.axis)) + (rig.sensing.reversed(check.axis) ? " sensing reversed" : " sensing plain"));
  }
  return lines;
}

std::string fingerprint(const Rig& rig, const Check& check) {
  Fingerprint f;
  f.add(check.id);
  for (const std::string& line : dependencies(rig, check)) f.add(line);
  return f.text();
}

std::vector<CheckStatus> check_statuses(const Rig& rig, const ControllerClass& controller) {
  std::vector<CheckStatus> all;
  for (const Check& check : needed_checks(rig, controller)) {
    CheckStatus status{check, ProofState::none, {}, {}};
    const auto proof = std::find_if(rig.proofs.begin(), rig.proofs.end(), [&](const Proof& p) { return p.check == check.id; });
    if (proof != rig.proofs.end()) {
      status.at = proof->at;
      if (proof->fingerprint != fingerprint(rig, check)) {
        status.state = ProofState::stale;
        const auto now = dependencies(rig, check);
        const auto then = texts_member(proof->extra, "depends_on");
        for (const std::string& line : now)
          if (std::find(then.begin(), then.end(), line) == then.end()) status.because += (status.because.empty() ? "" : "; ") + line;
        if (status.because.empty())
          for (const std::string& line : then)
            if (std::find(now.begin(), now.end(), line) == now.end()) status.because += (status.because.empty() ? "no longer: " : "; ") + line;
      } else {
        status.state = proof->provisional ? ProofState::provisional : ProofState::fresh;
      }
    }
    all.push_back(std::move(status));
  }
  return all;
}

Rig proven(Rig rig, const Check& check, const std::string& at, bool simulated) {
  std::erase_if(rig.proofs, [&](const Proof& p) { return p.check == check.id; });
  Proof proof{check.id, at, fingerprint(rig, check), !rig.controller.mounted, simulated, {}, Json::object()};
  proof.extra["depends_on"] = dependencies(rig, check);
  rig.proofs.push_back(std::move(proof));
  std::sort(rig.proofs.begin(), rig.proofs.end(), [](const Proof& a, const Proof& b) { return a.check < b.check; });
  return rig;
}

}  // namespace rigging
