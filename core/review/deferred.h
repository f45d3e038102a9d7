#pragma once

#include "base/job.h"
#include "feel/advice.h"
#include "feel/loop_changes.h"
#include "feel/takeoff.h"
#include "flight/control_effect.h"
#include "flight/engine.h"
#include "home/home.h"
#include "review/review.h"
#include "surfaces/linkage.h"
#include "wiring/plan.h"

/// The second tier of the review: what takes longer than an edit may. A worker makes it on a snapshot; until then
/// screens say that it is being computed.
namespace rigging {

/// What follows from one linkage's readings and holes.
struct LinkageReport {
  Surface surface;
  std::optional<Estimate> as_read;  ///< with three readings or more that make sense
  double want_deg = 0;              ///< larger of the wanted throws; 0 without one
  std::vector<HoleChoice> holes;    ///< best first; empty without holes or a wanted throw
  std::string holes_error;          ///< why there are none although they were asked for
};

struct DeferredReview {
  Plan plan;                            ///< of the wiring, as it would be made now
  std::vector<LinkageReport> linkages;  ///< one for each linkage of the rig that has an output
  FeelReport feel;
  FeelAdvice feel_advice;
  std::vector<Effect> effects;  ///< what each surface does about each axis; empty while its mass is not known
  std::vector<LoopChange> loop_changes;
  Engine engine;
  HomeReport home;
  std::vector<Snag> snags;  ///< of the rules that need it

  const LinkageReport* linkage(Surface surface) const;
};

/// Nothing when it was cancelled. Some 30 ms for the demo rigs (docs/performance.md).
std::optional<DeferredReview> deferred_review(const Reports& reports, Progress& progress);

/// Both tiers' snags, what grounds first.
std::vector<Snag> with_deferred(std::vector<Snag> snags, const std::vector<Snag>& late);

/// Go or not yet, as the first tier's checks, balance and snags stand.
TakeoffAdvice takeoff_advice(const Review& review, const DeferredReview& deferred);

}  // namespace rigging
