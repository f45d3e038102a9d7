#include "base/spectrum.h"

#include <kissfft/kiss_fftr.h>

#include <cmath>
#include <new>

#include "base/angle.h"
#include "base/statistics.h"

namespace rigging {

struct HannSpectrum::Plan {
  explicit Plan(int size) : config(kiss_fftr_alloc(size, 0, nullptr, nullptr)) {
    if (!config) throw std::bad_alloc();
  }
  ~Plan() { kiss_fftr_free(config); }
  Plan(const Plan&) = delete;
  Plan& operator=(const Plan&) = delete;

  kiss_fftr_cfg config;
  std::vector<kiss_fft_cpx> out;
};

HannSpectrum::HannSpectrum(std::size_t size)
    : plan_(std::make_unique<Plan>(static_cast<int>(size))), window_(size), in_(size), power_(size / 2 + 1) {
  plan_->out.resize(power_.size());
  for (std::size_t i = 0; i < size; ++i) {
    window_[i] = static_cast<float>(0.5 - 0.5 * std::cos(2 * pi * static_cast<double>(i) / static_cast<double>(size)));
    window_squares_ += static_cast<double>(window_[i]) * window_[i];
  }
}
std::size_t HannSpectrum::quick_size(std::size_t most) {
  auto half = static_cast<int>(most / 2);
  while (half > 2 && kiss_fft_next_fast_size(half) != half) --half;
  return 2 * static_cast<std::size_t>(half);
}

HannSpectrum::~HannSpectrum() = default;
HannSpectrum::HannSpectrum(HannSpectrum&&) noexcept = default;

const std::vector<double>& HannSpectrum::of(std::span<const double> readings) {
  const double middle = mean(readings.first(size()));
  for (std::size_t i = 0; i < size(); ++i) in_[i] = static_cast<float>(readings[i] - middle) * window_[i];
  kiss_fftr(plan_->config, in_.data(), plan_->out.data());
  for (std::size_t k = 0; k < bins(); ++k) {
    const kiss_fft_cpx& z = plan_->out[k];
    const double square = static_cast<double>(z.r) * z.r + static_cast<double>(z.i) * z.i;
    power_[k] = (k == 0 || k + 1 == bins() ? 1 : 2) * square / window_squares_;
  }
  return power_;
}

}  // namespace rigging
