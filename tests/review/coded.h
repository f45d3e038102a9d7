#pragma once

#include "review/review.h"

namespace rigging {

/// The first snag with this code, or null.
inline const Snag* coded(const std::vector<Snag>& snags, std::string_view code) {
  for (const Snag& s : snags)
    if (s.code == code) return &s;
  return nullptr;
}

}  // namespace rigging
