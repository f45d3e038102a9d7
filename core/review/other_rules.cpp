#include <algorithm>

#include "airframe/kinds.h"
#include "review/rules.h"

namespace rigging {

Snag make_snag(Station station, std::string_view code, Severity severity, std::string subject, std::string what,
               std::string why, std::string remedy) {
  Snag s;
  s.code = code;
  s.severity = severity;
  s.station = station;
  s.subject = std::move(subject);
  s.what = std::move(what);
  s.why = std::move(why);
  s.remedy = std::move(remedy);
  return s;
}

namespace {

void unknown_controller(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  if (!in.controller)
    snags.push_back(make_snag(Station::airframe, code, Severity::grounds, in.rig.controller.kind,
                              "No controller class \"" + in.rig.controller.kind + "\" is known",
                              "Sockets, modes and cures depend on it.",
                              "Choose a class, or describe it in a parts file beside the rig."));
}

void too_few_outputs(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  if (!in.controller) return;
  // A throttle that stays on the receiver takes no socket.
  const auto needed = std::count_if(in.rig.outputs.begin(), in.rig.outputs.end(), [&](const Output& o) {
    return !(in.controller->motor_bypasses && drives_motor(o));
  });
  if (needed <= static_cast<std::ptrdiff_t>(in.controller->outputs.size())) return;
  snags.push_back(make_snag(Station::airframe, code, Severity::grounds, in.controller->id,
                            "This airframe needs " + std::to_string(needed) + " outputs; the " + in.controller->name +
                                " has " + std::to_string(in.controller->outputs.size()),
                            "What has no socket stays still.",
                            "Choose another class, share a lead, or leave the throttle on the receiver."));
}

void dimensions(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  const Airframe& a = in.rig.airframe;
  const bool wing_only = a.kind == AirframeKind::flying_wing || a.kind == AirframeKind::flying_wing_rudders;
  if (!wing_only && a.wing_at_m + a.root_chord_m > a.length_m)
    snags.push_back(make_snag(Station::airframe, code, Severity::fix_first, "airframe", "The wing ends behind the tail",
                              "The drawing and the neutral point come out wrong.",
                              "Check length, wing position and root chord."));
}

void no_mass(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  if (!in.rig.airframe.mass_kg)
    snags.push_back(make_snag(Station::airframe, code, Severity::worth_knowing, "airframe",
                              "The flying mass is not known", "Wing loading and stall speed follow from it.",
                              "Weigh the model ready to fly."));
}

void board_turned(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  if (in.controller && !in.controller->can_be_turned && in.rig.sensing.board != Turn{})
    snags.push_back(make_snag(
        Station::senses, code, Severity::grounds, "board",
        "The board is planned with its " + in.rig.sensing.board.spoken() + ", and this class can't be told so",
        "It would correct the wrong axes.", "Mount it with its arrow to the nose and top up."));
}

void sensing_reversed(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  if (!in.controller || in.controller->axis_sensing_reversible) return;
  for (const Axis axis : all_axes)
    if (in.rig.sensing.reversed(axis)) {
      Snag n = make_snag(Station::senses, code, Severity::fix_first, std::string(word(axis)),
                         "Sensing of " + std::string(word(axis)) + " is set reversed, which this class does not offer",
                         "The plan can't be carried out.", "Set it plain and find the real cause.");
      n.fix = Fix{"Set " + std::string(word(axis)) + " sensing plain", [axis](const Rig& rig) {
                    Rig r = rig;
                    r.sensing.reversed(axis) = false;
                    return r;
                  }};
      snags.push_back(std::move(n));
    }
}

void unproven(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  std::string names, first;
  int count = 0;
  for (const CheckStatus& c : in.reports.checks) {
    if (c.state != ProofState::none) continue;
    if (count++ == 0) first = c.check.id;
    names += (names.empty() ? "" : ", ") + std::string(word(c.check.axis)) +
             (c.check.kind == CheckKind::stick ? " stick" : " correction");
  }
  if (count > 0)
    snags.push_back(make_snag(Station::proof, code, Severity::fix_first, first,
                              count == 1 ? "One direction is not proven: " + names
                                         : std::to_string(count) + " directions are not proven: " + names,
                              "Only a look at the surface shows that stick, mix, lead and servo agree, and that the "
                              "correction fights the disturbance.",
                              "Do the checks on the bench, sticks first."));
}

void stale(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  for (const CheckStatus& c : in.reports.checks)
    if (c.state == ProofState::stale)
      snags.push_back(make_snag(Station::proof, code, Severity::fix_first, c.check.id, "Gone stale: " + c.check.title,
                                "Changed since it was proven: " + c.because + ".", "Do this check again."));
}

void provisional(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  if (in.rig.controller.mounted) return;
  Snag n = make_snag(Station::proof, code, Severity::fix_first, "board",
                     "The board lies loose: what is proven now is provisional", "Mounting it can turn it.",
                     "Mount it, then do the checks again.");
  n.fix = Fix{"The board is mounted now", [](const Rig& rig) {
                Rig r = rig;
                r.controller.mounted = true;
                return r;
              }};
  snags.push_back(std::move(n));
}

void loose_ends(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  for (const LooseEnd& l : in.rig.loose_ends) {
    Snag n = make_snag(Station::proof, code, Severity::fix_first, l.id, "Loose end: " + l.text,
                       "It was bypassed for the bench" + (l.since.empty() ? "." : " on " + l.since + "."),
                       "Put it back and close it.");
    n.fix = Fix{"It is put back: close it", [id = l.id](const Rig& rig) {
                  Rig r = rig;
                  std::erase_if(r.loose_ends, [&](const LooseEnd& x) { return x.id == id; });
                  return r;
                }};
    snags.push_back(std::move(n));
  }
}

void stale_reading(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  for (const MeasuredStatus& m : in.reports.measured)
    if (m.standing.state == ProofState::stale)
      snags.push_back(make_snag(Station::proof, code, Severity::fix_first, m.id, "Gone stale: " + m.title,
                                "Changed since it was read: " + m.standing.because + ".", "Read it again."));
}

void not_read(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  for (const std::string_view station : {"sticks.", "surfaces."}) {
    std::string names, first;
    for (const MeasuredStatus& m : in.reports.measured) {
      if (m.standing.state != ProofState::none || !m.id.starts_with(station)) continue;
      if (first.empty()) first = m.id;
      names += (names.empty() ? "" : ", ") + small(m.title);
    }
    if (!first.empty())
      snags.push_back(
          make_snag(Station::proof, code, Severity::fix_first, first, "Not read yet: " + names,
                    "Pulses and throws are plans until they were read on the model.",
                    "Read them at station " + std::string(station.substr(0, station.size() - 1)) + " and record it."));
  }
}

void simulated(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  const auto count =
      std::count_if(in.rig.proofs.begin(), in.rig.proofs.end(), [](const Proof& p) { return p.simulated; });
  if (count > 0)
    snags.push_back(
        make_snag(Station::proof, code, Severity::worth_knowing, "proofs",
                  std::to_string(count) + (count == 1 ? " proof was" : " proofs were") + " made on the simulated bench",
                  "A simulation proves the settings, not your model.",
                  "Do the checks once more on the real aircraft, propeller off."));
}

}  // namespace

const std::vector<Rule>& airframe_rules() {
  static const std::vector<Rule> rules{{"AIRFRAME-01", unknown_controller},
                                       {"AIRFRAME-02", too_few_outputs},
                                       {"AIRFRAME-03", dimensions},
                                       {"AIRFRAME-04", no_mass}};
  return rules;
}

const std::vector<Rule>& senses_rules() {
  static const std::vector<Rule> rules{{"SENSES-01", board_turned}, {"SENSES-02", sensing_reversed}};
  return rules;
}

const std::vector<Rule>& proof_rules() {
  static const std::vector<Rule> rules{{"PROOF-01", unproven},   {"PROOF-02", stale},     {"PROOF-03", provisional},
                                       {"PROOF-04", loose_ends}, {"PROOF-05", simulated}, {"PROOF-06", stale_reading},
                                       {"PROOF-07", not_read}};
  return rules;
}

}  // namespace rigging
