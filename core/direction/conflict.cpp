#include "direction/conflict.h"

namespace rigging::direction {
namespace {

/// Exact smallest hitting set by branching on the first set that is not hit.
class HittingSet {
 public:
  explicit HittingSet(const std::vector<ObservationSet>& sets) : sets_(sets) {}

  ObservationSet smallest(int count) {
    for (limit_ = 0; limit_ <= count; ++limit_)
      if (extend({}, {}, 0)) return best_;
    return best_;
  }

 private:
  bool extend(const ObservationSet& chosen, ObservationSet barred, int size) {
    const ObservationSet* open = nullptr;
    std::size_t fewest = most_observations + 1;
    int apart = 0;  // sets that share nothing each need an element of their own
    ObservationSet covered;
    for (const ObservationSet& set : sets_) {
      if ((set & chosen).any()) continue;
      const ObservationSet left = set & ~barred;
      if (left.none()) return false;
      if (left.count() < fewest) {
        fewest = left.count();
        open = &set;
      }
      if ((set & covered).none()) {
        covered |= set;
        ++apart;
      }
    }
    if (!open) {
      best_ = chosen;
      return true;
    }
    if (size + apart > limit_) return false;
    const ObservationSet left = *open & ~barred;
    for (std::size_t i = 0; i < most_observations; ++i) {
      if (!left[i]) continue;
      ObservationSet next = chosen;
      next.set(i);
      if (extend(next, barred, size + 1)) return true;
      barred.set(i);
    }
    return false;
  }

  const std::vector<ObservationSet>& sets_;
  ObservationSet best_;
  int limit_ = 0;
};

}  // namespace

// A set is impossible exactly if it meets every "correction set" (the complement of a largest possible set). So the
// smallest set that meets the correction sets known so far is a lower bound; once it is impossible itself, it is the
// answer.
std::vector<int> smallest_conflict(int count, const std::function<bool(const ObservationSet&)>& possible) {
  std::vector<ObservationSet> corrections;
  while (true) {
    ObservationSet candidate = HittingSet(corrections).smallest(count);
    if (!possible(candidate)) {
      std::vector<int> indices;
      for (int i = 0; i < count; ++i)
        if (candidate[static_cast<std::size_t>(i)]) indices.push_back(i);
      return indices;
    }
    ObservationSet correction;
    for (int i = 0; i < count; ++i) {
      if (candidate[static_cast<std::size_t>(i)]) continue;
      candidate.set(static_cast<std::size_t>(i));
      if (!possible(candidate)) {
        candidate.reset(static_cast<std::size_t>(i));
        correction.set(static_cast<std::size_t>(i));
      }
    }
    corrections.push_back(correction);
  }
}

}  // namespace rigging::direction
