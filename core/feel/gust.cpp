#include "feel/gust.h"

#include <algorithm>
#include <cmath>

#include "base/angle.h"

namespace rigging {
namespace {

constexpr double tick_s = 0.001, gust_s = 0.33, kept_every = 10;

/// Coefficients of s⁰ to s² over the leading one of `by`, with powers of s put in until that is s³.
std::array<double, 3> shifted(const std::array<double, 4>& polynomial, const std::array<double, 4>& by) {
  std::size_t order = by.size() - 1;
  while (by[order] == 0) --order;
  std::array<double, 3> all{};
  for (std::size_t i = 0; i < order; ++i) all[i + all.size() - order] = polynomial[i] / by[order];
  return all;
}

/// `push`: what the gust adds to the rate each second, rad/s².
GustAnswer followed(const FeelReport& r, const AxisFeel& a, double gain_s, bool levels, double m_s, double push_rad_s2,
                    double seconds) {
  GustAnswer answer;
  answer.step_s = tick_s * kept_every;
  const Loop l = loop_at(r.aeroplane, a.control, a.axis, a.path, m_s, gain_s, levels);
  // The plant as rate and two hidden states, leading coefficient 1: rate' = x − d2·rate + n2·input,
  // x' = y − d1·rate + n1·input, y' = n0·input − d0·rate. The gust is a moment about the axis itself.
  const auto n = shifted(l.plant.numerator(), l.plant.denominator()),
             d = shifted(l.plant.denominator(), l.plant.denominator());
  AxisControl alone = a.control;
  alone.effect = 1, alone.turn = 0;
  const RatePlant moment = plant_of(r.aeroplane, alone, a.axis, m_s);
  auto pushed = shifted(moment.numerator(), moment.denominator());
  for (double& value : pushed) value /= pushed.back();
  double rate = 0, x = 0, y = 0, angle = 0, servo = 0, servo_rate = 0, filtered = 0;
  std::vector<double> queue(static_cast<std::size_t>(std::max(1L, std::lround(l.delay_s / tick_s))), 0.0);
  std::size_t at = 0;
  const double limit = a.control.throw_rad;
  const auto steps = static_cast<int>(seconds / tick_s);
  int turning = 0;
  double before = 0, trend = 0;
  for (int i = 0; i < steps; ++i) {
    const double t = i * tick_s;
    const double command = std::clamp(-gain_s * (filtered + l.level_per_s * angle), -limit, limit);
    const double input = queue[at];
    queue[at] = command;
    at = (at + 1) % queue.size();
    // Half-implicit steps of a millisecond: a twentieth of the fastest lag.
    servo_rate += tick_s * (input - servo - l.servo_c1_s * servo_rate) / l.servo_c2_s2;
    servo += tick_s * servo_rate;
    const double push = t < gust_s ? push_rad_s2 : 0;
    y += tick_s * (n[0] * servo - d[0] * rate + pushed[0] * push);
    x += tick_s * (y + n[1] * servo - d[1] * rate + pushed[1] * push);
    rate += tick_s * (x + n[2] * servo - d[2] * rate + pushed[2] * push);
    angle += tick_s * rate;
    filtered += tick_s * (rate - filtered) / l.filter_s;
    const double now = rate - before;
    if (t > seconds - 1 && now * trend < 0 && std::abs(rate) > 1 * rad) ++turning;
    if (now != 0) trend = now;
    before = rate;
    if (i % static_cast<int>(kept_every) != 0) continue;
    answer.rate_deg_s.push_back(rate / rad);
    answer.angle_deg.push_back(angle / rad);
    answer.surface_deg.push_back(servo / rad);
  }
  answer.swings = turning;
  return answer;
}

}  // namespace

GustAnswer gust_answer(const FeelReport& r, Axis axis, double gain_s, bool levels, double m_s, double moved_deg,
                       double seconds) {
  const AxisFeel& a = r.of(axis);
  if (!a.known()) return {};
  const GustAnswer alone = followed(r, a, 0, false, m_s, 1, seconds);
  double most = 0;
  for (const double angle : alone.angle_deg) most = std::max(most, std::abs(angle));
  return followed(r, a, gain_s, levels, m_s, most > 0 ? moved_deg / most : 0, seconds);
}

}  // namespace rigging
