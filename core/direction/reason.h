#pragma once

#include "direction/case.h"

namespace rigging::direction {

/// The most faults that are supposed at once.
inline constexpr int most_faults = 4;

/// One set of faults that accounts for everything that was seen.
struct Explanation {
  std::vector<Fault> faults;
  /// Sum of the faults' prior costs; orders explanations with equally many faults.
  double cost = 0;
};

/// The most outputs that are reasoned about: with more the leads could be exchanged in too many ways.
inline constexpr std::size_t most_outputs = 8;

struct Diagnosis {
  /// All explanations with the fewest faults, cheapest first. Where the leads of a pair would be exchanged, the
  /// function turned round on both of its outputs stands before that, although it counts two.
  std::vector<Explanation> explanations;
  bool settled = false;
  bool equivalent = false;
  bool too_many = false;  ///< more than `most_outputs`: nothing was worked out
  std::optional<Question> next;
  /// Indices of a smallest set of observations that can't be true together.
  std::vector<int> contradictions;
};

/// How unlikely a fault is before anything was seen: minus the logarithm of its share among bench faults, up to a
/// constant. Common practice, no published source; docs/direction.md gives the reasons.
double prior_cost(FaultKind kind);

/// Exact for up to `most_faults` faults. The physics is that of docs/direction.md.
/// Every output needs 1 to 4 surfaces and no surface may appear twice; `case_from_json` and `case_from_rig` see to it.
Diagnosis reason(const Case& c);

/// What an aircraft with these faults would show. `faults` must leave an aircraft that is right when they are undone
/// (no value otherwise, as for a set that contradicts the case's own mix).
struct Outcome {
  std::vector<Seen> saw;
  std::vector<std::uint8_t> may_show;  ///< per entry of `saw`, every motion that can be seen, as `bit_of` (evidence.h)
  std::array<int, 3> channels{};
};
std::optional<Outcome> predict(const Case& c, const std::vector<Fault>& faults, const Observation& observation);

Json answer_to_json(const Diagnosis& answer, const Case& c);
/// One sentence for people: what is wrong and what to do.
std::string explanation_text(const Explanation& explanation, const Case& c);

}  // namespace rigging::direction
