#include "checks/checks.h"

#include <algorithm>

#include "base/find.h"
#include "rig/path.h"

namespace rigging {
namespace {

std::vector<std::string> changes_of(const Dependencies& then, const Dependencies& now) {
  std::vector<std::string> all;
  const auto add = [&](std::string&& more) { all.push_back(std::move(more)); };
  for (const auto& [place, fact] : now) {
    const auto was = then.find(place);
    if (was == then.end())
      add(place_words(place) + ": " + value_words(place, fact) + ", not there before");
    else if (was->second != fact)
      add(place_words(place) + ": " + value_words(place, fact) + ", was " + value_words(place, was->second));
  }
  for (const auto& [place, fact] : then)
    if (!now.count(place)) add(place_words(place) + ": " + value_words(place, fact) + " no longer counts");
  return all;
}

}  // namespace

std::string CheckStatus::because() const {
  std::string words;
  for (const std::string& c : changes) words += (words.empty() ? "" : "; ") + c;
  return words;
}

CheckFamily reading_family(const CheckId& id, Station station, std::string name) {
  CheckFamily f;
  f.id = id.family;
  f.station = station;
  f.by_station = true;
  f.grouped = true;
  f.name = std::move(name);
  f.one = "reading";
  f.many = "readings";
  f.subjects = [](const CheckContext&) { return std::vector<std::string>{{}}; };
  return f;
}

const CheckFamily* family_of(const CheckId& id) {
  for (const CheckFamily* f : check_families())
    if (f->id == id.family) return f;
  return nullptr;
}

std::vector<CheckStatus> check_statuses(const Rig& rig, const Catalogue& catalogue) {
  const CheckContext context(rig, catalogue);
  std::vector<CheckStatus> all;
  for (const CheckFamily* f : check_families()) {
    const CheckFamily& family = *f;
    for (const std::string& subject : family.subjects(context)) {
      CheckStatus s{
          {family.id, subject}, &family, family.card(context, subject).title, ProofState::none, {}, {}, true, {}};
      if (family.why_not) s.why_not = family.why_not(context, subject);
      s.holds = s.why_not.empty();
      if (const Proof* proof = find_in(rig.proofs, [&](const Proof& p) { return p.check == s.id; })) {
        s.at = proof->at;
        const Dependencies now = values_at(rig, family.depends_on(context, subject));
        s.state = now != proof->depends_on || !proof->words.empty() ? ProofState::stale
                  : proof->provisional                              ? ProofState::provisional
                                                                    : ProofState::fresh;
        if (s.state == ProofState::stale) {
          s.changes = changes_of(proof->depends_on, now);
          for (const std::string& line : proof->words) s.changes.push_back("no longer: " + line);
        }
      }
      all.push_back(std::move(s));
    }
  }
  return all;
}

const CheckStatus* find_check(const std::vector<CheckStatus>& checks, const CheckId& id) {
  return find_in(checks, [&](const CheckStatus& c) { return c.id == id; });
}

const CheckStatus* find_check(const std::vector<CheckStatus>& checks, const std::string& text) {
  return find_in(checks, [&](const CheckStatus& c) { return c.id.text() == text; });
}

Result<Rig> with_proof(Rig rig, const Catalogue& catalogue, const CheckId& id, const std::string& at, bool simulated) {
  const CheckContext context(rig, catalogue);
  const CheckFamily* family = family_of(id);
  const auto subjects = family ? family->subjects(context) : std::vector<std::string>{};
  if (std::find(subjects.begin(), subjects.end(), id.subject) == subjects.end())
    return failure(id.text(), "is no check of this rig", "one that its checks list");
  if (family->why_not)
    if (const std::string why = family->why_not(context, id.subject); !why.empty())
      return failure(id.text(), "does not pass: " + why, "readings that pass");
  Proof proof;
  proof.check = id;
  proof.at = at;
  proof.depends_on = values_at(rig, family->depends_on(context, id.subject));
  proof.provisional = family->until_mounted && !rig.controller.mounted;
  proof.simulated = simulated;
  std::erase_if(rig.proofs, [&](const Proof& p) { return p.check == id; });
  rig.proofs.push_back(std::move(proof));
  std::sort(rig.proofs.begin(), rig.proofs.end(), [](const Proof& a, const Proof& b) { return a.check < b.check; });
  return rig;
}

Rig without_proofs(Rig rig, const std::string& family, const std::string& subject) {
  std::erase_if(rig.proofs, [&](const Proof& p) {
    return p.check.family == family && (subject.empty() || p.check.subject == subject);
  });
  return rig;
}

CheckCard card_of(const CheckContext& context, const CheckId& id) {
  const CheckFamily* family = family_of(id);
  return family ? family->card(context, id.subject) : CheckCard{};
}

}  // namespace rigging
