#include "base/settled.h"

#include <algorithm>
#include <cstddef>

namespace rigging {

std::vector<double> settled(const std::vector<double>& wanted, const std::vector<double>& sizes, double gap, double low,
                            double high) {
  // Pool adjacent violators: neighbours that would overlap become one run that stands where its members want it on
  // average.
  struct Run {
    double sum = 0;  ///< of where each of its members would have the run begin
    int count = 0;
    double length = 0;
    double start() const { return sum / count; }
  };
  std::vector<Run> runs;
  for (std::size_t i = 0; i < wanted.size(); ++i) {
    runs.push_back({wanted[i], 1, sizes[i] + gap});
    while (runs.size() > 1 && runs[runs.size() - 2].start() + runs[runs.size() - 2].length > runs.back().start()) {
      const Run last = runs.back();
      runs.pop_back();
      Run& r = runs.back();
      r.sum += last.sum - static_cast<double>(last.count) * r.length;
      r.count += last.count;
      r.length += last.length;
    }
  }
  std::vector<double> starts;
  for (const Run& r : runs) {
    double at = r.start();
    for (int n = 0; n < r.count; ++n) {
      starts.push_back(at);
      at += sizes[starts.size() - 1] + gap;
    }
  }
  double from = low;
  for (std::size_t i = 0; i < starts.size(); ++i) {
    starts[i] = std::max(starts[i], from);
    from = starts[i] + sizes[i] + gap;
  }
  double to = high;
  for (std::size_t i = starts.size(); i-- > 0;) {
    starts[i] = std::min(starts[i], to - sizes[i]);
    to = starts[i] - gap;
  }
  return starts;
}

}  // namespace rigging
