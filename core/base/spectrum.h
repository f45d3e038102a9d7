#pragma once

#include <complex>
#include <memory>
#include <span>
#include <vector>

namespace rigging {

/// Spectra of stretches of `size` real readings under a Hann window, single precision inside (KissFFT). `size` is even
/// and at least 4.
class HannSpectrum {
 public:
  explicit HannSpectrum(std::size_t size);
  /// The largest size up to `most` that has no factors above 5: of others a spectrum may cost as much as the square of
  /// their length. `most` at least 4.
  static std::size_t quick_size(std::size_t most);
  ~HannSpectrum();
  HannSpectrum(HannSpectrum&&) noexcept;

  std::size_t size() const { return window_.size(); }
  std::size_t bins() const { return power_.size(); }
  /// Of each bin from 0 to half the rate, after the mean has been taken out; divided by the rate it is the one-sided
  /// density, (unit)²/Hz. A sine of amplitude A spreads over three bins that sum up to A²/2 · size · 2/3.
  const std::vector<double>& of(std::span<const double> readings);

 private:
  struct Plan;
  std::unique_ptr<Plan> plan_;
  std::vector<float> window_, in_;
  double window_squares_ = 0;
  std::vector<double> power_;
};

}  // namespace rigging
