#include "proof/version_1.h"

#include <algorithm>

#include "base/fields.h"
#include "base/file.h"
#include "base/fingerprint.h"
#include "base/number.h"
#include "checks/checks.h"
#include "rig/path.h"
#include "rig/rig_file.h"
#include "rig/socket_names.h"
#include "sticks/sticks.h"

// The sentences of version 1, as it wrote them. They never change.
namespace rigging {
namespace version_1 {
namespace {

using Lines = std::vector<std::string>;

Lines direction(const Rig& rig, const CheckId& id) {
  const Axis axis = from_name<Axis>(id.subject).value_or(Axis::roll);
  const std::string name(name_of(axis));
  Lines lines{"controller " + rig.controller.kind, "firmware " + rig.controller.firmware,
              rig.controller.mounted ? "board mounted" : "board loose"};
  Lines outputs;
  for (const Output& o : rig.outputs) {
    if (o.mix.of(axis) == 0 ||
        std::none_of(o.surfaces.begin(), o.surfaces.end(), [&](Surface s) { return required_direction(s, axis) != 0; }))
      continue;
    std::string line = o.id + " in " + former_socket(o.socket) + " drives";
    for (const Surface s : o.surfaces) line += " " + s.name();
    outputs.push_back(line + ", " + name + " " + number_text(o.mix.of(axis), 6) + (o.reversed ? ", reversed" : ""));
  }
  std::sort(outputs.begin(), outputs.end());
  lines.insert(lines.end(), outputs.begin(), outputs.end());
  if (id.family == "stick") {
    for (const Channel& c : rig.radio.channels)
      if (name_of(c.function) == name)
        lines.push_back(name + " on channel " + std::to_string(c.number) +
                        (c.reversed ? ", reversed in the transmitter" : ""));
  } else {
    lines.push_back("board " + rig.sensing.board.name());
    lines.push_back(name + (rig.sensing.reversed(axis) ? " sensing reversed" : " sensing plain"));
  }
  return lines;
}

Lines lead(const Rig& rig, const Lead& l) {
  const auto end = [&](const char* name, const LeadEnd& e) {
    const Part* p = rig.part(e.part);
    return std::string(name) + " " + e.part + (p ? " (" + p->kind + ")" : " (" + rig.controller.kind + ")") + " " +
           former_socket(e.socket);
  };
  return {end("from", l.from), end("to", l.to),
          std::string(l.plus_removed ? "red wire out" : "red wire in") + (l.plug_turned ? ", plug turned" : "") +
              (l.pair_turned ? ", pair turned" : "")};
}

Lines centre(const Rig& rig, bool ends) {
  Lines lines;
  for (const Output& o : rig.outputs)
    for (const Surface s : o.surfaces) {
      if (s.kind == SurfaceKind::motor) continue;
      std::string line = s.label() + ": " + former_socket(o.socket) + (o.reversed ? " reversed" : "") + ", centre " +
                         number_text(o.centre_us, 0) + " µs";
      if (ends) line += ", ends " + number_text(o.low_us, 0) + " and " + number_text(o.high_us, 0) + " µs";
      if (const Linkage* l = rig.linkage(s))
        line += ", arm " + number_text(1000 * l->arm_m, 1) + " mm at " + number_text(l->arm_deg, 1) + "°, horn " +
                number_text(1000 * l->horn_m, 1) + " mm, rod " + number_text(1000 * l->rod_m, 1) + " mm";
      for (const Part& p : rig.parts)
        if (p.surface && *p.surface == s) line += ", servo " + p.kind;
      lines.push_back(line);
    }
  return lines;
}

Lines calibration(const Rig& rig) {
  Lines lines;
  for (const Channel& c : rig.radio.channels)
    if (is_stick(c.function))
      lines.push_back(function_label(c.function) + " on channel " + std::to_string(c.number) +
                      (c.reversed ? ", reversed" : "") + ", sub-trim " + number_text(c.sub_trim_us, 1) +
                      " µs, travel " + number_text(c.travel_low_percent, 1) + " and " +
                      number_text(c.travel_high_percent, 1) + " %" + (c.learned ? ", ends learned" : ""));
  std::sort(lines.begin(), lines.end());
  lines.push_back("controller " + rig.controller.kind);
  return lines;
}

Lines loss(const Rig& rig, const Catalogue& catalogue) {
  Lines lines{"on loss the receiver: " + label_of(name_of(rig.radio.on_loss)), "controller " + rig.controller.kind};
  for (const Part* p : parts_of(rig, catalogue, PartGroup::receiver)) lines.push_back("receiver " + p->kind);
  if (rig.home.on_loss != LossAction::undecided)
    lines.push_back("planned on loss: " + std::string(name_of(rig.home.on_loss)));
  return lines;
}

Lines of(const Rig& rig, const Catalogue& catalogue, const CheckId& id) {
  if (id.family == "lead") {
    const Lead* l = rig.lead(id.subject);
    return l ? lead(rig, *l) : Lines{};
  }
  if (id.family == "sticks.calibrated") return calibration(rig);
  if (id.family == "sticks.loss_noticed") return loss(rig, catalogue);
  if (id.family == "surfaces.centred") return centre(rig, false);
  if (id.family == "surfaces.throws_equal") return centre(rig, true);
  return direction(rig, id);
}

std::string fingerprint(const CheckId& id, const Lines& lines) {
  Fingerprint f;
  f.add(id.text());
  for (const std::string& line : lines) f.add(line);
  return f.text();
}

}  // namespace
}  // namespace version_1

Rig with_version_1_proofs(Rig rig, const Catalogue& catalogue) {
  const CheckContext context(rig, catalogue);
  for (Proof& p : rig.proofs) {
    if (p.fingerprint.empty()) continue;
    const CheckFamily* family = family_of(p.check);
    if (!family) continue;  // of a station that this version does not have: kept as it is
    const auto now = version_1::of(rig, catalogue, p.check);
    const bool stands = version_1::fingerprint(p.check, now) == p.fingerprint;
    p.depends_on = values_at(rig, family->depends_on(context, p.check.subject));
    if (stands) {
      p.words.clear();
    } else {
      // What no longer holds, in the words that were written; what stood at each place then is not known any more.
      std::erase_if(p.words,
                    [&](const std::string& line) { return std::find(now.begin(), now.end(), line) != now.end(); });
      if (p.words.empty()) p.words.push_back("what it depended on when it was made");
    }
    p.fingerprint.clear();
  }
  return rig;
}

Result<RigAndText> open_rig(const std::filesystem::path& path, const Catalogue& catalogue) {
  auto text = read_file(path);
  if (!text) return tl::make_unexpected(text.error());
  auto rig = rig_from_text(*text, path.string());
  if (!rig) return tl::make_unexpected(rig.error());
  return RigAndText{with_version_1_proofs(std::move(*rig), catalogue), std::move(*text)};
}

}  // namespace rigging
