#pragma once

#include <algorithm>

namespace rigging {

/// The first entry that `same` says yes to, or null.
template <class List, class Same>
auto* find_in(List& list, Same&& same) {
  const auto it = std::find_if(list.begin(), list.end(), same);
  return it == list.end() ? nullptr : &*it;
}

}  // namespace rigging
