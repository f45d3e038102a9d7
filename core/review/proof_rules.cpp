#include <algorithm>

#include "review/rules.h"

namespace rigging {
namespace rules::proof {
namespace {

void unproven(const Inspection& in, Findings& found) {
  std::string names, first;
  int count = 0;
  for (const CheckStatus& c : in.reports.checks) {
    if (c.state != ProofState::none) continue;
    if (count++ == 0) first = c.check.id;
    names += (names.empty() ? "" : ", ") + std::string(word(c.check.axis)) +
             (c.check.kind == CheckKind::stick ? " stick" : " correction");
  }
  if (count > 0)
    found.add(Severity::fix_first, first,
              count == 1 ? "One direction is not proven: " + names
                         : std::to_string(count) + " directions are not proven: " + names,
              "Only a look at the surface shows that stick, mix, lead and servo agree, and that the "
              "correction fights the disturbance.",
              "Do the checks on the bench, sticks first.");
}

void stale(const Inspection& in, Findings& found) {
  for (const CheckStatus& c : in.reports.checks)
    if (c.state == ProofState::stale)
      found.add(Severity::fix_first, c.check.id, "Gone stale: " + c.check.title,
                "Changed since it was proven: " + c.because + ".", "Do this check again.");
}

void provisional(const Inspection& in, Findings& found) {
  if (in.rig.controller.mounted) return;
  Snag& n = found.add(Severity::fix_first, "board", "The board lies loose: what is proven now is provisional",
                      "Mounting it can turn it.", "Mount it, then do the checks again.");
  n.fix = Fix{"The board is mounted now", [](const Rig& rig) {
                Rig r = rig;
                r.controller.mounted = true;
                return r;
              }};
}

void loose_ends(const Inspection& in, Findings& found) {
  for (const LooseEnd& l : in.rig.loose_ends) {
    Snag& n = found.add(Severity::fix_first, l.id, "Loose end: " + l.text,
                        "It was bypassed for the bench" + (l.since.empty() ? "." : " on " + l.since + "."),
                        "Put it back and close it.");
    n.fix = Fix{"It is put back: close it", [id = l.id](const Rig& rig) {
                  Rig r = rig;
                  std::erase_if(r.loose_ends, [&](const LooseEnd& x) { return x.id == id; });
                  return r;
                }};
  }
}

void simulated(const Inspection& in, Findings& found) {
  const auto count =
      std::count_if(in.rig.proofs.begin(), in.rig.proofs.end(), [](const Proof& p) { return p.simulated; });
  if (count > 0)
    found.add(Severity::worth_knowing, "proofs",
              std::to_string(count) + (count == 1 ? " proof was" : " proofs were") + " made on the simulated bench",
              "A simulation proves the settings, not your model.",
              "Do the checks once more on the real aircraft, propeller off.");
}

void stale_reading(const Inspection& in, Findings& found) {
  for (const MeasuredStatus& m : in.reports.measured)
    if (m.standing.state == ProofState::stale)
      found.add(Severity::fix_first, m.id, "Gone stale: " + m.title,
                "Changed since it was read: " + m.standing.because + ".", "Read it again.");
}

void not_read(const Inspection& in, Findings& found) {
  for (const std::string_view station : {"sticks.", "surfaces."}) {
    std::string names, first;
    for (const MeasuredStatus& m : in.reports.measured) {
      if (m.standing.state != ProofState::none || !m.id.starts_with(station)) continue;
      if (first.empty()) first = m.id;
      names += (names.empty() ? "" : ", ") + small(m.title);
    }
    if (!first.empty())
      found.add(Severity::fix_first, first, "Not read yet: " + names,
                "Pulses and throws are plans until they were read on the model.",
                "Read them at station " + std::string(station.substr(0, station.size() - 1)) + " and record it.");
  }
}

}  // namespace
}  // namespace rules::proof

const std::vector<Rule>& proof_rules() {
  using namespace rules::proof;
  static const std::vector<Rule> rules{{"PROOF-01", Station::proof, unproven, source::common},
                                       {"PROOF-02", Station::proof, stale, source::proof},
                                       {"PROOF-03", Station::proof, provisional, source::common},
                                       {"PROOF-04", Station::proof, loose_ends, source::common},
                                       {"PROOF-05", Station::proof, simulated, source::proof},
                                       {"PROOF-06", Station::proof, stale_reading, source::proof},
                                       {"PROOF-07", Station::proof, not_read, source::common}};
  return rules;
}

}  // namespace rigging
