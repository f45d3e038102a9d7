#include "review/grouped.h"

#include "base/find.h"

namespace rigging {
namespace {

/// Rules whose snags go away with the same work.
std::string_view cause_of(std::string_view code) {
  for (const std::string_view bench : {"PROOF-01", "PROOF-08"})
    if (code == bench) return "the bench checks are still to be done";
  for (const std::string_view measure : {"AIRFRAME-04", "AIRFRAME-05", "FIT-03", "FIT-17"})
    if (code == measure) return "something is not measured yet";
  return code;
}

}  // namespace

std::string SnagGroup::more() const {
  return snags.size() < 2 ? std::string() : "and " + std::to_string(snags.size() - 1) + " more like it";
}

std::vector<SnagGroup> grouped(const std::vector<Snag>& snags) {
  std::vector<SnagGroup> groups;
  for (const Snag& s : snags) {
    SnagGroup* of = find_in(groups, [&](const SnagGroup& g) { return cause_of(g.first().code) == cause_of(s.code); });
    (of ? *of : groups.emplace_back()).snags.push_back(s);
  }
  return groups;
}

}  // namespace rigging
