#include <algorithm>

#include "airframe/edits.h"
#include "direction/direction_checks.h"
#include "direction/mode_checks.h"
#include "proof/edits.h"
#include "review/rules.h"
#include "wiring/lead_checks.h"

namespace rigging {
namespace rules::proof {
namespace {

/// Checks that are done with a card in hand, and were never done.
void unproven(const Inspection& in, Findings& found) {
  std::string names, first;
  int count = 0;
  constexpr int said = 4;
  for (const CheckStatus& c : in.checks) {
    if (c.family->by_station || c.family->guides || c.state != ProofState::none) continue;
    if (count++ == 0) first = c.id.text();
    const bool short_name = is_direction(c.id) || c.id.family == mode_family;
    if (count <= said)
      names += (names.empty() ? "" : ", ") + (short_name ? c.id.subject + " " + c.id.family : small(c.title));
  }
  if (count > said) names += " and " + std::to_string(count - said) + " more";
  if (count > 0)
    found.add(Severity::fix_first, first,
              count == 1 ? "One look is still to take: " + names
                         : std::to_string(count) + " looks are still to take: " + names,
              "Only a look at the surface shows that stick, mix, lead and servo agree, and that the "
              "correction fights the disturbance.",
              "Do the checks on the bench, sticks first.");
}

/// One change in the sentence, several on a line each.
std::string changed_since(const std::string& what, const CheckStatus& c) {
  if (c.changes.size() == 1) return what + ": " + c.changes.front() + ".";
  std::string words = what + ":";
  for (const std::string& change : c.changes) words += "\n• " + change;
  return words;
}

void stale(const Inspection& in, Findings& found) {
  for (const CheckStatus& c : in.checks)
    if (!c.family->by_station && !c.family->guides && c.state == ProofState::stale)
      found.add(Severity::fix_first, c.id.text(), "Gone stale: " + c.title,
                changed_since("Changed since it was proven", c), "Do this check again.");
}

void provisional(const Inspection& in, Findings& found) {
  if (in.rig.controller.mounted) return;
  Snag& n = found.add(Severity::fix_first, "board", "The board lies loose: what is proven now is provisional",
                      "Mounting it can turn it.", "Mount it, then do the checks again.");
  n.fix = Fix{"The board is mounted now", [](const Rig& rig, const Catalogue&) { return mount_board(rig, true); }};
}

void loose_ends(const Inspection& in, Findings& found) {
  for (const LooseEnd& l : in.rig.loose_ends) {
    Snag& n = found.add(Severity::fix_first, l.id, "Loose end: " + l.text,
                        "It was bypassed for the bench" + (l.since.empty() ? "." : " on " + l.since + "."),
                        "Put it back and close it.");
    n.fix = Fix{"It is put back: close it",
                [id = l.id](const Rig& rig, const Catalogue&) { return close_loose_end(rig, id); }};
  }
  for (const LooseEnd& l : in.due)
    found.add(Severity::fix_first, l.id, "Loose end: " + l.text, "Left so since " + l.since + ".",
              "Do the card that puts it back, at station proof.");
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

/// Of families with a rule of their own at their station, nothing is said here.
bool told_elsewhere(const CheckStatus& c) { return !c.family->by_station || c.id.family == lead_family; }

void stale_reading(const Inspection& in, Findings& found) {
  for (const CheckStatus& c : in.checks)
    if (!told_elsewhere(c) && c.state == ProofState::stale)
      found.add(Severity::fix_first, c.id.text(), "Gone stale: " + c.title,
                changed_since("Changed since it was read", c), "Read it again.");
}

void not_read(const Inspection& in, Findings& found) {
  for (const Station station : all_stations()) {
    std::string names, first;
    for (const CheckStatus& c : in.checks) {
      if (told_elsewhere(c) || c.state != ProofState::none || c.family->station != station) continue;
      if (first.empty()) first = c.id.text();
      names += (names.empty() ? "" : ", ") + small(c.title);
    }
    if (!first.empty())
      found.add(Severity::fix_first, first, "Not read yet: " + names,
                "Pulses and throws are plans until they were read on the model.",
                "Read them at station " + std::string(name_of(station)) + " and record it.");
  }
}

void leads_untried(const Inspection& in, Findings& found) {
  int count = 0;
  std::string first;
  for (const CheckStatus& c : in.checks)
    if (c.id.family == lead_family && c.state == ProofState::none && count++ == 0) first = c.id.text();
  if (count > 0)
    found.add(Severity::fix_first, first,
              count == 1 ? "One lead was not followed and tried yet"
                         : std::to_string(count) + " leads were not followed and tried yet",
              "A lead in the wrong socket, or a plug the wrong way round, shows before power or never.",
              "Follow each at station wiring with everything dark, then try it.");
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
                                       {"PROOF-07", Station::proof, not_read, source::common},
                                       {"PROOF-08", Station::proof, leads_untried, source::common}};
  return rules;
}

}  // namespace rigging
