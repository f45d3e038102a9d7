#include "flight/loop.h"

#include <algorithm>
#include <cmath>
#include <complex>
#include <vector>

#include "base/angle.h"

namespace rigging {
namespace {

using Complex = std::complex<double>;

constexpr double steps_per_decade = 60;
constexpr double most_phase_step = 0.25;  ///< rad, between two looks
constexpr double widest = 1e4;            ///< from the outermost corners on
constexpr int most_halvings = 200;
constexpr int late_crossings = 3;  ///< beyond the last corner, where each later one needs more gain

/// Frequencies at which something bends, rad/s.
std::vector<double> corners(const Loop& l) {
  std::vector<double> all;
  const auto add = [&all](double rad_s) {
    if (std::isfinite(rad_s) && rad_s > 0) all.push_back(rad_s);
  };
  const RatePlant& p = l.plant;
  add(std::abs(p.b0 / p.b1));
  if (p.b2 != 0) {
    add(std::sqrt(std::abs(p.b0 / p.b2)));
    add(std::abs(p.b1 / p.b2));
  }
  if (p.c1 != 0) add(std::abs(p.c0 / p.c1));
  add(std::abs(p.a0 / p.a1));
  if (p.a2 != 0) {
    add(std::sqrt(std::abs(p.a0 / p.a2)));
    add(std::abs(p.a1 / p.a2));
  }
  if (l.servo_c2_s2 > 0) add(1 / std::sqrt(l.servo_c2_s2));
  add(1 / l.servo_c1_s);
  add(1 / l.filter_s);
  add(1 / l.delay_s);
  add(std::abs(l.level_per_s));
  if (all.empty()) all.push_back(1);
  std::sort(all.begin(), all.end());
  return all;
}

/// Where `f` changes its sign between two places, to the last bits.
template <class F>
double root(F f, double a, double b) {
  double fa = f(a);
  for (int i = 0; i < most_halvings; ++i) {
    const double middle = (a + b) / 2;
    if (middle <= a || middle >= b) break;
    const double fm = f(middle);
    if ((fm < 0) == (fa < 0))
      a = middle, fa = fm;
    else
      b = middle;
  }
  return (a + b) / 2;
}

/// Degree of the open loop's denominator, and the characteristic function along the imaginary axis.
int degree(const Loop& l) {
  return (l.plant.a2 != 0 ? 2 : 1) + (l.plant.c1 != 0 ? 1 : 0) +
         (l.servo_c2_s2 > 0  ? 2
          : l.servo_c1_s > 0 ? 1
                             : 0) +
         (l.filter_s > 0 ? 1 : 0) + (l.level_per_s != 0 ? 1 : 0);
}
Complex characteristic(const Loop& l, double gain, double rad_s) {
  const Complex s(0, rad_s), filter = l.filter_s * s + 1.0;
  Complex d = (l.plant.a2 * s * s + l.plant.a1 * s + l.plant.a0) * (l.servo_c2_s2 * s * s + l.servo_c1_s * s + 1.0);
  Complex n = (l.plant.b2 * s * s + l.plant.b1 * s + l.plant.b0) * std::exp(-s * l.delay_s);
  d *= filter * (l.plant.c1 * s + l.plant.c0);
  if (l.level_per_s != 0) {
    d *= s;
    n *= s + l.level_per_s * filter;
  }
  return d + gain * n;
}

/// How many poles of the closed loop lie to the right.
int unstable_poles(const Loop& l, double gain, const std::vector<double>& bends) {
  const double end = bends.back() * widest;
  Complex at = characteristic(l, gain, 0);
  double w = 0, step = bends.front() / widest, turned = 0;
  while (true) {
    const Complex next = characteristic(l, gain, w + step);
    const double turn = std::arg(next / at);
    if (std::abs(turn) > most_phase_step && step > 1e-12 * w) {
      step /= 2;
      continue;
    }
    w += step, at = next, turned += turn;
    const double weight = gain * response_at(l, w).size;
    if (w > end && weight < 1e-2) break;
    step = std::min(step * 2, w * 0.2);
    // The delay's own turning shows only where the correction has weight.
    if (weight > 0.1 && l.delay_s > 0) step = std::min(step, most_phase_step / l.delay_s);
  }
  return static_cast<int>(std::lround(degree(l) / 2.0 - turned / pi));
}

/// Where a gain puts poles on the imaginary axis, and how many go over to the right there as it grows (Nyquist's
/// criterion: a pair for every crossing of the negative real axis downward in phase, a pair back for one upward).
struct Crossing {
  Onset at;
  int poles = 0;
};

/// All crossings of the negative real axis that can matter, by rising frequency.
std::vector<Crossing> crossings(const Loop& l, const std::vector<double>& bends) {
  std::vector<Crossing> all;
  const auto turn = [&l](double w) { return response_at(l, w).phase_rad / pi; };
  double w = bends.front() / widest, phase = turn(w);
  int late = 0;
  double factor = std::pow(10, 1 / steps_per_decade);
  while (w < bends.back() * widest && late < late_crossings) {
    const double next = w * factor, there = turn(next);
    if (std::abs(there - phase) > most_phase_step && factor > 1 + 1e-12) {
      factor = std::sqrt(factor);
      continue;
    }
    // Odd multiples of π lie where (phase + 1) / 2 is whole.
    const double from = std::floor((phase + 1) / 2), to = std::floor((there + 1) / 2);
    if (from != to) {
      const double odd = 2 * std::max(from, to) - 1;
      const double at = root([&](double x) { return turn(x) - odd; }, w, next);
      const double size = response_at(l, at).size;
      if (size > 0) all.push_back({{1 / size, at / (2 * pi)}, to < from ? 2 : -2});
      if (at > 3 * bends.back()) ++late;
    }
    w = next, phase = there;
    factor = std::min(factor * factor, std::pow(10, 1 / steps_per_decade));
  }
  return all;
}

struct Crossover {
  double rad_s = 0, margin_rad = 0;
};

/// The gain crossover with the smallest phase margin.
std::optional<Crossover> crossover(const Loop& l, const std::vector<double>& bends, bool stable) {
  const double gain = std::abs(l.rate_gain);
  const auto over = [&](double w) { return std::log(gain * response_at(l, w).size); };
  if (gain == 0 || response_at(l, bends.front()).size == 0) return {};
  double low = bends.front() / widest, high = bends.back() * widest;
  // Outside of the corners the size is a plain power of the frequency: go on until it has passed 1.
  if (l.level_per_s != 0)
    while (over(low) < 0 && low > 1e-200) low /= 10;
  while (over(high) > 0 && high < 1e200) high *= 10;
  std::vector<double> at;
  for (double w = low; w < high; w *= std::pow(10, 1 / (4 * steps_per_decade))) at.push_back(w);
  at.push_back(high);
  if (l.servo_c2_s2 > 0)
    for (int i = -200; i <= 200; ++i) at.push_back((1 + i * 1e-3) / std::sqrt(l.servo_c2_s2));
  std::sort(at.begin(), at.end());
  std::optional<Crossover> best;
  for (std::size_t i = 0; i + 1 < at.size(); ++i) {
    const double a = over(at[i]), b = over(at[i + 1]);
    if ((a < 0) == (b < 0)) continue;
    const double w = root(over, at[i], at[i + 1]);
    double margin = pi + response_at(l, w).phase_rad + (l.rate_gain < 0 ? pi : 0);
    if (stable || margin > pi) margin = std::remainder(margin, 2 * pi);
    if (!best || std::abs(margin) < std::abs(best->margin_rad)) best = Crossover{w, margin};
  }
  return best;
}

}  // namespace

void Loop::servo(double natural_hz, double damping) {
  const double natural = 2 * pi * natural_hz;
  servo_c1_s = 2 * damping / natural;
  servo_c2_s2 = 1 / (natural * natural);
}

void Loop::lowpass(double hz) { filter_s = 1 / (2 * pi * hz); }

Response response_at(const Loop& l, double w) {
  const RatePlant& p = l.plant;
  const double b = p.b1 * w, b_real = p.b0 - p.b2 * w * w, a = p.a1 * w, a_real = p.a0 - p.a2 * w * w;
  const double c = l.servo_c1_s * w, c_real = 1 - l.servo_c2_s2 * w * w, f = l.filter_s * w;
  double square = (b * b + b_real * b_real) / ((a * a + a_real * a_real) * (c * c + c_real * c_real) * (1 + f * f));
  double phase = std::atan2(b, b_real) - std::atan2(a, a_real) - std::atan2(c, c_real) - std::atan(f) - w * l.delay_s;
  if (p.c1 != 0) {
    square /= p.c1 * p.c1 * w * w + p.c0 * p.c0;
    phase -= std::atan2(p.c1 * w, p.c0);
  }
  if (l.level_per_s != 0) {
    const double up = w * (1 + l.level_per_s * l.filter_s);
    square *= (up * up + l.level_per_s * l.level_per_s) / (w * w);
    phase += std::atan2(up, l.level_per_s) - pi / 2;
  }
  return {std::sqrt(square), phase};
}

LoopMargins margins_of(const Loop& given) {
  LoopMargins m;
  Loop l = given;
  // A negative gain is a positive one on a plant that turns the other way.
  if (l.rate_gain < 0) {
    l.rate_gain = -l.rate_gain;
    l.plant.b0 = -l.plant.b0, l.plant.b1 = -l.plant.b1, l.plant.b2 = -l.plant.b2;
  }
  const std::vector<double> bends = corners(l);
  std::vector<Crossing> at = crossings(l, bends);
  if (l.level_per_s == 0 && l.plant.b0 != 0) {
    const double still = -l.plant.a0 * l.plant.c0 / l.plant.b0;
    if (still > 0) at.push_back({{still, 0}, l.plant.a0 * l.plant.c0 < 0 ? -1 : 1});
  }
  std::sort(at.begin(), at.end(), [](const Crossing& a, const Crossing& b) { return a.at.rate_gain < b.at.rate_gain; });
  // Poles on the right below the first crossing, and from there on.
  std::vector<int> right{unstable_poles(l, at.empty() ? 2e-3 : at[0].at.rate_gain / 2, bends)};
  for (const Crossing& c : at) right.push_back(right.back() + c.poles);
  const auto stable_between = [&](std::size_t i) { return right[i] == 0; };
  std::size_t here = 0;
  while (here < at.size() && at[here].at.rate_gain <= l.rate_gain) ++here;
  m.stable = l.rate_gain == 0 ? l.plant.a0 > 0 && l.plant.a1 > 0 && l.plant.a2 >= 0 && l.plant.c0 > 0 && l.plant.c1 >= 0
                              : stable_between(here);
  const double sign = given.rate_gain < 0 ? -1 : 1;
  std::optional<std::size_t> end;
  if (m.stable || l.rate_gain == 0) {
    for (std::size_t i = here; i < at.size() && !end; ++i)
      if (stable_between(i) && !stable_between(i + 1)) end = i;
  } else {
    for (std::size_t i = here; i-- > 0 && !end;)
      if (stable_between(i)) end = i;
    if (!end)
      for (std::size_t i = here; i < at.size() && !end; ++i)
        if (stable_between(i) && !stable_between(i + 1)) end = i;
  }
  if (end) {
    m.onset = Onset{sign * at[*end].at.rate_gain, at[*end].at.hz};
    if (l.rate_gain > 0 && (m.stable || *end < here))
      m.gain_margin_db = 20 * std::log10(at[*end].at.rate_gain / l.rate_gain);
  }
  if (const auto c = crossover(l, bends, m.stable)) {
    m.phase_margin_deg = c->margin_rad / rad;
    m.crossover_hz = c->rad_s / (2 * pi);
  }
  return m;
}

std::optional<Onset> onset_of(const Loop& l) { return gain_at_phase(l, -pi); }

std::optional<Onset> gain_at_phase(const Loop& l, double phase_rad) {
  const auto above = [&](double w) { return response_at(l, w).phase_rad - phase_rad; };
  // A plant that falls away by itself begins below the wanted phase: first up to where it is above, then down.
  // Where a pair of zeros lifts the phase again, a dip is narrow.
  const double stride = l.plant.b2 != 0 ? 1.03 : 1.5;
  double low = 0.05, f_low = above(low);
  while (f_low <= 0) {
    low *= stride;
    if (low > 1e4) return {};
    f_low = above(low);
  }
  double high = low * stride, f_high = above(high);
  while (f_high > 0) {
    low = high, f_low = f_high;
    high *= stride;
    if (high > 1e6) return {};
    f_high = above(high);
  }
  // False position; the weight of an end that stays twice is halved (Illinois).
  int stayed = 0;
  double at = high;
  for (int i = 0; i < 60 && high - low > 1e-9 * high; ++i) {
    at = (low * f_high - high * f_low) / (f_high - f_low);
    const double f = above(at);
    if (std::abs(f) < 1e-10) break;
    if (f > 0) {
      low = at, f_low = f;
      if (stayed > 0) f_high /= 2;
      stayed = 1;
    } else {
      high = at, f_high = f;
      if (stayed < 0) f_low /= 2;
      stayed = -1;
    }
  }
  const double size = response_at(l, at).size;
  if (size <= 0) return {};
  return Onset{1 / size, at / (2 * pi)};
}

std::optional<double> full_stick_rate(const Loop& l) {
  if (l.stick_rad == 0 || l.level_per_s != 0 || !(l.plant.a0 * l.plant.c0 > 0)) return std::nullopt;
  const double per_rad = l.plant.steady();
  return per_rad * l.stick_rad / (1 + l.rate_gain * per_rad);
}

}  // namespace rigging
