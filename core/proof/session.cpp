#include "proof/session.h"

#include <algorithm>

namespace rigging {

BenchSession::BenchSession(const Rig& rig, const ControllerClass& controller)
    : case_(direction::case_from_rig(rig, controller)) {}

void BenchSession::reason() { answer_ = anything_seen() ? direction::reason(case_) : direction::Diagnosis{}; }

void BenchSession::add(direction::Observation observation) {
  case_.observations.push_back(std::move(observation));
  reason();
}

void BenchSession::know(std::optional<direction::Observation> known) {
  auto& all = case_.observations;
  all.erase(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(known_));
  known_ = known ? 1 : 0;
  if (known) all.insert(all.begin(), std::move(*known));
  reason();
}

void BenchSession::drop_contradictions() {
  for (auto i = answer_.contradictions.rbegin(); i != answer_.contradictions.rend(); ++i) {
    case_.observations.erase(case_.observations.begin() + *i);
    if (static_cast<std::size_t>(*i) < known_) --known_;
  }
  reason();
}

void BenchSession::take_back_last() {
  if (!anything_seen()) return;
  case_.observations.pop_back();
  reason();
}

void BenchSession::forget() {
  case_.observations.resize(known_);
  answer_ = {};
}

bool BenchSession::wrong() const {
  return !answer_.explanations.empty() && !answer_.explanations.front().faults.empty();
}

bool as_expected(const DirectionCard& card, const direction::Observation& seen) {
  return !card.looks.empty() && std::all_of(card.looks.begin(), card.looks.end(), [&](const Expected& e) {
    return std::any_of(seen.saw.begin(), seen.saw.end(),
                       [&](const direction::Seen& s) { return s.surface == e.surface && s.motion == e.motion; });
  });
}

RepairedRig repaired(const Rig& rig, const ControllerClass& controller, const direction::Case& c,
                     const direction::Explanation& explanation) {
  RepairedRig result{rig, {}, {}};
  for (const direction::Fault& f : explanation.faults) {
    result.rig = direction::remedied(std::move(result.rig), f, c, controller);
    const Remedy remedy = direction::remedy_of(f.kind);
    const RemedySteps* remedy_steps = controller.steps_for(remedy);
    const bool written =
        direction::is_setting(remedy, controller) && controller.link && remedy_steps && remedy_steps->over_link;
    if (!written) result.by_hand.push_back(f);
    result.label += (result.label.empty() ? "" : ", ") + direction::remedy_text(f, c);
  }
  result.label = capital(result.label);
  return result;
}

}  // namespace rigging
