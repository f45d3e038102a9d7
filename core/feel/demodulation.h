#pragma once

#include <cmath>
#include <complex>
#include <span>
#include <vector>

namespace rigging {

/// A signal seen from a frame that turns with a frequency: twice the size of an entry is the height of the swing at
/// that moment, its angle the phase. Averaged by two boxes of `width` readings; an entry stands for every eighth of a
/// box.
struct Demodulated {
  std::size_t every = 1, width = 1;  ///< readings from entry to entry, and in a box
  std::vector<std::complex<double>> z;
  double height(std::size_t k) const { return 2 * std::sqrt(std::norm(z[k])); }
};
Demodulated demodulated(std::span<const double> readings, double rad_per_reading, std::size_t width);

}  // namespace rigging
