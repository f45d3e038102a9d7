#pragma once

#include "review/review.h"

namespace rigging {

/// Snags of one cause, the worst in front: what one rule found, or what goes away with the same work. One card shows
/// them all.
struct SnagGroup {
  std::vector<Snag> snags;  ///< never empty

  const Snag& first() const { return snags.front(); }
  /// "and 44 more like it"; empty when there is one.
  std::string more() const;
};

/// In the order of their first ones.
std::vector<SnagGroup> grouped(const std::vector<Snag>& snags);

}  // namespace rigging
