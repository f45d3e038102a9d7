#include "review/deferred.h"

#include <algorithm>

#include "airframe/drag.h"
#include "base/find.h"
#include "direction/direction_checks.h"
#include "feel/without_gain.h"
#include "review/rules.h"
#include "surfaces/air_loads.h"

namespace rigging {
namespace {

LinkageReport linkage_report(const Rig& rig, const Catalogue& catalogue, const Linkage& l, const Output& o) {
  LinkageReport r;
  r.surface = l.surface;
  if (l.readings.size() >= 3)
    if (const auto e = estimate(l)) r.as_read = *e;
  r.want_deg = std::max(l.want_up_deg.value_or(0), l.want_down_deg.value_or(0));
  if (l.arm_holes_m.empty() || l.horn_holes_m.empty() || r.want_deg <= 0) return r;
  if (auto choices = choose_holes(l, o, r.want_deg, dead_band_us(rig, catalogue, l.surface)))
    r.holes = std::move(*choices);
  else
    r.holes_error = choices.error().text();
  return r;
}

}  // namespace

const LinkageReport* DeferredReview::linkage(Surface surface) const {
  return find_in(linkages, [&](const LinkageReport& l) { return l.surface == surface; });
}

std::vector<Snag> with_deferred(std::vector<Snag> snags, const std::vector<Snag>& late) {
  snags.insert(snags.end(), late.begin(), late.end());
  std::stable_sort(snags.begin(), snags.end(), [](const Snag& a, const Snag& b) { return a.severity < b.severity; });
  return snags;
}

std::optional<DeferredReview> deferred_review(const Reports& reports, Progress& progress) {
  const Rig& rig = reports.rig();
  const Catalogue& catalogue = reports.catalogue();
  DeferredReview r;
  r.plan = reports.plan();
  if (progress.cancelled()) return std::nullopt;
  r.feel = analyze_feel(reports);
  r.effects = effects_of(r.feel.aeroplane, reports.surfaces());
  r.feel_advice = advise_feel(rig, catalogue, r.feel);
  r.loop_changes = loop_changes(rig, catalogue, r.feel);
  if (r.feel.missing.empty()) r.engine = engine_of(reports, r.feel.aeroplane);
  r.home = analyze_home(reports, r.feel);
  double done = 1;
  for (const Linkage& l : rig.linkages) {
    progress.at(done++ / static_cast<double>(rig.linkages.size() + 1));
    if (progress.cancelled()) return std::nullopt;
    if (const Output* o = rig.output_of(l.surface)) r.linkages.push_back(linkage_report(rig, catalogue, l, *o));
  }
  r.snags = found_by_rules({reports, {}, {}, &r}, Tier::deferred);
  progress.at(1);
  return r;
}

namespace {

/// Checks other than directions, which are told by themselves, that are not proven as it is now.
std::string open_checks(const std::vector<CheckStatus>& checks) {
  constexpr std::size_t named = 4;
  std::vector<std::string> open;
  for (const CheckStatus& c : checks)
    if (!is_direction(c.id) && c.state != ProofState::fresh) open.push_back(c.title);
  if (open.empty()) return {};
  std::string words =
      (open.size() == 1 ? std::string("A check is") : std::to_string(open.size()) + " checks are") + " still to do: ";
  for (std::size_t i = 0; i < std::min(named, open.size()); ++i) words += (i > 0 ? ", " : "") + small(open[i]);
  return words + (open.size() > named ? " and " + std::to_string(open.size() - named) + " more" : "");
}

}  // namespace

TakeoffAdvice takeoff_advice(const Review& review, const DeferredReview& deferred) {
  std::vector<std::string> grounded;
  for (const std::vector<Snag>* snags : {&review.snags, &deferred.snags})
    for (const Snag& s : *snags)
      // Directions and balance are told by themselves.
      if (s.severity == Severity::grounds && !s.code.starts_with("PROOF-0")) grounded.push_back(s.what);
  if (std::string words = open_checks(review.checks); !words.empty()) grounded.push_back(std::move(words));
  if (const std::string axes = axes_without_gain(deferred.feel); !axes.empty())
    grounded.push_back("No gain is set for " + axes + ": set the first ones at station feel");
  // One verdict: whatever else keeps the rig from being ready keeps it on the ground.
  if (grounded.empty() && !review.readiness.ready) grounded.push_back(review.readiness.words);
  const Rig& rig = review.reports.rig();
  const double cruise = deferred.feel.missing.empty() ? deferred.feel.aeroplane.cruise_m_s : 10;
  return advise_takeoff(rig, deferred.feel, deferred.engine, drag_of(rig.airframe, cruise),
                        review.reports.fit().balance, review.checks, grounded);
}

}  // namespace rigging
