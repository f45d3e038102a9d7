#include "flight/limit_cycle.h"

#include <cmath>
#include <complex>

#include "base/angle.h"

namespace rigging {
namespace {

/// Of play of width 1, for an amplitude over a half.
std::complex<double> play_gain(double amplitude) {
  const double x = 1 - 1 / amplitude, root = std::sqrt(std::max(0.0, 1 - x * x));
  return {(pi / 2 + std::asin(x) + x * root) / pi, -(1 - x * x) / pi};
}

/// What the loop would need to keep a swing of this amplitude up.
std::optional<Onset> needed(const Loop& l, double amplitude) {
  const std::complex<double> n = play_gain(amplitude);
  const auto at = gain_at_phase(l, -pi - std::arg(n));
  if (!at) return {};
  return Onset{at->rate_gain / std::abs(n), at->hz};
}

constexpr double least_amplitude = 0.52, most_amplitude = 500, next_amplitude = 1.05;

}  // namespace

std::optional<double> play_ceiling(const Loop& l) {
  std::optional<double> least;
  for (double a = least_amplitude; a < most_amplitude; a *= next_amplitude)
    if (const auto n = needed(l, a); n && (!least || n->rate_gain < *least)) least = n->rate_gain;
  return least;
}

std::optional<LimitCycle> play_cycle(const Loop& l) {
  // From above: the outer of two swings is the one that stays.
  double outer = most_amplitude;
  auto beyond = needed(l, outer);
  if (!beyond || beyond->rate_gain <= l.rate_gain) return {};
  for (double a = outer / next_amplitude; a > least_amplitude; a /= next_amplitude) {
    const auto n = needed(l, a);
    if (!n) return {};
    if (n->rate_gain > l.rate_gain) {
      outer = a;
      continue;
    }
    double inner = a;
    for (int i = 0; i < 40; ++i) {
      const double middle = (inner + outer) / 2;
      const auto there = needed(l, middle);
      (there && there->rate_gain > l.rate_gain ? outer : inner) = middle;
    }
    const auto there = needed(l, outer);
    return LimitCycle{outer, there ? there->hz : n->hz};
  }
  return {};
}

std::optional<LimitCycle> saturation_cycle(const Loop& l) {
  const auto onset = onset_of(l);
  if (!onset || l.rate_gain <= onset->rate_gain) return {};
  const double wanted = onset->rate_gain / l.rate_gain;
  const auto gain = [](double amplitude) {
    const double x = 1 / amplitude;
    return 2 / pi * (std::asin(x) + x * std::sqrt(1 - x * x));
  };
  double low = 1, high = 2;
  while (gain(high) > wanted) high *= 2;
  for (int i = 0; i < 60; ++i) {
    const double middle = (low + high) / 2;
    (gain(middle) > wanted ? low : high) = middle;
  }
  return LimitCycle{(low + high) / 2, onset->hz};
}

}  // namespace rigging
