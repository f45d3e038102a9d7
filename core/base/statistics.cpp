#include "base/statistics.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace rigging {

double mean(std::span<const double> v) {
  return v.empty() ? 0 : std::accumulate(v.begin(), v.end(), 0.0) / static_cast<double>(v.size());
}

double median_within(std::vector<double>& v) {
  if (v.empty()) return 0;
  const auto middle = v.begin() + static_cast<std::ptrdiff_t>(v.size() / 2);
  std::nth_element(v.begin(), middle, v.end());
  return *middle;
}

double quantile(std::vector<double> values, double share) {
  if (values.empty()) return 0;
  const auto at = std::min(values.size() - 1, static_cast<std::size_t>(share * static_cast<double>(values.size())));
  std::nth_element(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(at), values.end());
  return values[at];
}

double step_deviation(std::span<const double> v) {
  double sum = 0;
  for (std::size_t i = 1; i < v.size(); ++i) sum += (v[i] - v[i - 1]) * (v[i] - v[i - 1]);
  return v.size() < 2 ? 0 : std::sqrt(sum / (2 * static_cast<double>(v.size() - 1)));
}

double slope(std::span<const double> x, std::span<const double> y) {
  const double mx = mean(x), my = mean(y);
  double up = 0, down = 0;
  for (std::size_t i = 0; i < x.size(); ++i) {
    up += (x[i] - mx) * (y[i] - my);
    down += (x[i] - mx) * (x[i] - mx);
  }
  return down > 0 ? up / down : 0;
}

}  // namespace rigging
