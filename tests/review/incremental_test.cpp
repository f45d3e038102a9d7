#include <gtest/gtest.h>

#include "base/json.h"
#include "bench_rig.h"
#include "review/deferred.h"
#include "review/review.h"
#include "review/stations.h"
#include "rig/rig_file.h"
#include "rig/sections.h"

// Reports whose sections did not change are not made again. Here every value of every demo rig is changed once, and the
// review that follows is compared with one made from nothing: a section that a report reads and that its entry does not
// name would show.
namespace rigging {
namespace {

/// Another value of the same type, as near as a rig's ranges allow; several to try.
std::vector<Json> others(const Json& value) {
  if (value.is_boolean()) return {!value.get<bool>()};
  if (value.is_number_integer()) return {value.get<int>() + 1, value.get<int>() - 1};
  if (value.is_number()) return {value.get<double>() * 1.07 + 0.01, value.get<double>() * 0.9, 0.0};
  if (value.is_string()) return {value.get<std::string>() + "_x", "roll", "yaw", "none", "module", "plain"};
  return {};
}

void expect_same(const Review& a, const Review& b, const std::string& where) {
  EXPECT_TRUE(a.reports.airframe() == b.reports.airframe()) << where;
  EXPECT_TRUE(a.reports.surfaces() == b.reports.surfaces()) << where;
  EXPECT_TRUE(a.reports.control_margins() == b.reports.control_margins()) << where;
  EXPECT_TRUE(a.reports.loads() == b.reports.loads()) << where;
  EXPECT_TRUE(a.reports.power() == b.reports.power()) << where;
  EXPECT_TRUE(a.reports.fit() == b.reports.fit()) << where;
  EXPECT_TRUE(a.reports.wiring() == b.reports.wiring()) << where;
  EXPECT_TRUE(a.reports.sticks() == b.reports.sticks()) << where;
}

/// Every rig that differs from this one in one value, or lacks one item of a list, and is still a rig.
std::vector<std::pair<std::string, Rig>> neighbours(const Rig& rig) {
  const Json whole = rig_to_json(rig);
  std::vector<std::pair<std::string, Rig>> all;
  const auto try_it = [&](const Json& json, const std::string& where) {
    auto read = rig_from_json(json, where);
    if (!read || *read == rig) return false;
    all.emplace_back(where, std::move(*read));
    return true;
  };
  const Json flat = whole.flatten();
  for (const auto& [pointer, value] : flat.items())
    for (const Json& other : others(value)) {
      Json changed = whole;
      changed[Json::json_pointer(pointer)] = other;
      if (try_it(changed, pointer)) break;
    }
  for (const auto& [name, list] : whole.items())
    if (list.is_array())
      for (std::size_t i = 0; i < list.size(); ++i) {
        Json changed = whole;
        changed[name].erase(i);
        try_it(changed, name + " without " + std::to_string(i));
      }
  for (const char* name : {"airframe", "power", "radio", "home", "fit", "sensing"}) {
    Json changed = whole;
    if (!changed.contains(name)) continue;
    for (const auto& [member, value] : whole[name].items()) {
      Json less = whole;
      less[name].erase(member);
      try_it(less, std::string(name) + " without " + member);
    }
  }
  return all;
}

TEST(Sections, AreTheMembersOfTheDocument) {
  std::set<std::string> described;
  for (const auto& m : Described<Rig>::members().list) described.insert(std::string(m.name));
  const auto& names = section_names();
  EXPECT_EQ(described, std::set<std::string>(names.begin(), names.end()));
  Rig a = demo("hedgerow"), b = a;
  EXPECT_TRUE(differing_sections(a, b).none());
  b.sensing.yaw_reversed = !b.sensing.yaw_reversed;
  EXPECT_EQ(differing_sections(a, b), sections({"sensing"}));
}

TEST(Review, TakesOverOnlyWhatNoChangeReaches) {
  int tried = 0;
  for (const char* name : {"hedgerow", "delta", "heath"}) {
    const Rig rig = measured(demo(name));
    const Review before = review(rig, shipped());
    for (const auto& [where, changed] : neighbours(rig)) {
      ++tried;
      const Review full = review(changed, shipped()), after = review_after(changed, before);
      expect_same(after, full, std::string(name) + " " + where);
      EXPECT_EQ(review_to_json(changed, after), review_to_json(changed, full)) << name << " " << where;
    }
  }
  EXPECT_GT(tried, 900) << "places of the demo rigs";
}

TEST(Review, DeferredReportsAreMadeOnASnapshotAndStopWhenAsked) {
  Rig rig = demo("hedgerow");
  Linkage& l = rig.linkages.front();
  l.arm_holes_m = {0.010, 0.012, 0.014};
  l.horn_holes_m = {0.014, 0.016};
  l.want_up_deg = 20;
  Progress progress;
  const auto made = deferred_review({rig, shipped()}, progress);
  ASSERT_TRUE(made);
  EXPECT_GT(progress.share(), 0.9);
  EXPECT_EQ(made->plan.changes, plan_wiring(rig, shipped()).changes);
  const LinkageReport* report = made->linkage(l.surface);
  ASSERT_TRUE(report);
  EXPECT_EQ(report->holes.size(), 6u);
  EXPECT_EQ(report->want_deg, 20);
  progress.cancel();
  EXPECT_FALSE(deferred_review({rig, shipped()}, progress));
}

}  // namespace
}  // namespace rigging
