#pragma once

#include "ask/ask.h"
#include "ask/knowledge.h"
#include "base/job.h"
#include "bench_rig.h"

namespace rigging {

inline const std::vector<Term>& shipped_terms() {
  static const std::vector<Term> all = terms_beside(in_source("/data"));
  return all;
}
inline const Knowledge& shipped_knowledge() {
  static const Knowledge all(topics_beside(in_source("/data")));
  return all;
}
inline const std::vector<Passage>& shipped_manual() {
  static const std::vector<Passage> all = passages_beside(in_source("/data"));
  return all;
}

/// As the window answers. Both tiers of a review, made once for a rig however often it is asked.
inline std::vector<Interpretation> answers_to(const Rig& rig, std::string_view words) {
  static std::optional<Rig> of;
  static std::optional<Review> first;
  static std::optional<DeferredReview> late;
  if (!of || !(*of == rig)) {
    of = rig;
    first = review(*of, shipped());
    Progress progress;
    late = deferred_review(first->reports, progress);
  }
  return answers(
      {*of, shipped(), *first, late ? &*late : nullptr, &shipped_terms(), &shipped_manual(), &shipped_knowledge()},
      words);
}

}  // namespace rigging
