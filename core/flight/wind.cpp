#include "flight/wind.h"

#include <algorithm>
#include <cmath>

#include "base/angle.h"

namespace rigging {
namespace {

constexpr double foot_m = 0.3048;
const double root_three = std::sqrt(3.0);

}  // namespace

Turbulence::Turbulence(std::uint32_t seed, double wind_m_s, double height_m, double airspeed_m_s, double span_m)
    : random_(seed), speed_(airspeed_m_s), span_(span_m) {
  const double h = std::clamp(height_m / foot_m, 10.0, 1000.0), bend = 0.177 + 0.000823 * h;
  sigma_w_ = 0.1 * wind_m_s;
  sigma_u_ = sigma_w_ / std::pow(bend, 0.4);
  length_w_ = h * foot_m;
  length_u_ = h / std::pow(bend, 1.2) * foot_m;
  // Of the turning about the body's length: 1.9 / √(L_w·b) · σ_w.
  sigma_p_ = sigma_w_ > 0 ? 1.9 / std::sqrt(length_w_ * span_) * sigma_w_ : 0;
}

void Turbulence::step(double dt, Air& air) {
  if (sigma_w_ <= 0) return;
  const double root = 1 / std::sqrt(dt);
  const double a = speed_ / length_u_, c = speed_ / length_w_;
  u_ += dt * (-a * u_ + sigma_u_ * std::sqrt(2 * a) * normal_(random_) * root);
  // σ·(1 + √3·s/a) / (√a·(1 + s/a)²) on white noise of unit intensity: two equal lags in a row, and the part of the
  // first that the zero lets through.
  const auto second = [&](double& first, double& behind, double rate, double sigma) {
    first += dt * (-rate * first + normal_(random_) * root);
    behind += dt * (-rate * behind + first);
    return sigma * (root_three * std::sqrt(rate) * first + (1 - root_three) * rate * std::sqrt(rate) * behind);
  };
  const double v = second(v1_, v2_, a, sigma_u_), w = second(w1_, w2_, c, sigma_w_);
  const double wide = pi * speed_ / (4 * span_), side = pi * speed_ / (3 * span_);
  const double turning = speed_ > 0 ? pi * speed_ / (4 * span_) : 0;
  p_ += dt * (-turning * p_ + sigma_p_ * std::sqrt(2 * turning) * normal_(random_) * root);
  // The vertical gust changes along the way: the nose meets it first.
  const double q_before = q_, r_before = r_;
  q_ += dt * wide * (w - q_before);
  r_ += dt * side * (v - r_before);
  air.u += u_, air.v += v, air.w += w;
  air.p += p_;
  air.q += wide * (w - q_) / speed_;
  air.r -= side * (v - r_) / speed_;
}

}  // namespace rigging
