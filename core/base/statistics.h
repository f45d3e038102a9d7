#pragma once

#include <span>
#include <vector>

/// Of stretches of readings.
namespace rigging {

/// Means of nothing are 0.
double mean(std::span<const double> values);

/// The upper of the two in the middle where their number is even; 0 of nothing. The first leaves the values in another
/// order.
double median_within(std::vector<double>& values);
inline double median(std::vector<double> values) { return median_within(values); }

/// The value that this share of them, 0 to 1, lies below; 0 of nothing.
double quantile(std::vector<double> values, double share);

/// Standard deviation of single values from one to the next, which a slow drift does not enlarge.
double step_deviation(std::span<const double> values);

/// Least squares of y against x, of the same length; 0 where x does not change.
double slope(std::span<const double> x, std::span<const double> y);

}  // namespace rigging
