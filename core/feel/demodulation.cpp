#include "feel/demodulation.h"

#include <algorithm>

namespace rigging {

Demodulated demodulated(std::span<const double> readings, double rad_per_reading, std::size_t width) {
  const std::size_t n = readings.size();
  Demodulated d{std::max<std::size_t>(1, width / 8), width, {}};
  std::vector<double> real(n + 1), imaginary(n + 1);
  const double step_c = std::cos(rad_per_reading), step_s = -std::sin(rad_per_reading);
  double c = 1, s = 0;
  for (std::size_t i = 0; i < n; ++i) {
    // Exact from time to time; in between the turning is a product.
    if (i % 256 == 0) {
      const double angle = rad_per_reading * static_cast<double>(i);
      c = std::cos(angle), s = -std::sin(angle);
    }
    real[i + 1] = real[i] + readings[i] * c;
    imaginary[i + 1] = imaginary[i] + readings[i] * s;
    const double turned = c * step_c - s * step_s;
    s = c * step_s + s * step_c, c = turned;
  }
  const std::size_t half = std::max<std::size_t>(1, width / 2);
  std::vector<std::complex<double>> once;
  for (std::size_t i = 0; i < n; i += d.every) {
    const std::size_t a = i >= half ? i - half : 0, b = std::min(n, i + half + (width % 2));
    once.push_back(std::complex<double>(real[b] - real[a], imaginary[b] - imaginary[a]) / static_cast<double>(b - a));
  }
  const std::size_t reach = std::max<std::size_t>(1, half / d.every);
  for (std::size_t k = 0; k < once.size(); ++k) {
    const std::size_t a = k >= reach ? k - reach : 0, b = std::min(once.size() - 1, k + reach);
    // The ends of the box count half: it is as wide as the first.
    std::complex<double> sum = (once[a] + once[b]) / 2.0;
    for (std::size_t j = a + 1; j < b; ++j) sum += once[j];
    d.z.push_back(a == b ? once[k] : sum / static_cast<double>(b - a));
  }
  return d;
}

}  // namespace rigging
