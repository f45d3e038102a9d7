#include "senses/interference.h"

#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "base/number.h"

namespace rigging {
namespace {

constexpr double harmless_deg = 2, compensable_deg = 10;
constexpr double cut_sigmas = 3.5;
constexpr double least_field_ut = 5;  ///< the earth has 22 µT and more
constexpr std::size_t least_with_current = 40;

struct LineFit {
  Point base = {0, 0, 0}, slope = {0, 0, 0}, slope_error = {0, 0, 0};
  Point spread = {0, 0, 0};
};

LineFit straight(const Recording& r, const std::vector<double>& amps, const std::vector<bool>& used) {
  LineFit fit;
  double n = 0, sum = 0, squares = 0;
  Point values(0, 0, 0), products(0, 0, 0);
  for (std::size_t i = 0; i < r.size(); ++i) {
    if (!used[i]) continue;
    const Point v = r.readings.at(i);
    n += 1;
    sum += amps[i];
    squares += amps[i] * amps[i];
    values += v;
    products += amps[i] * v;
  }
  const double spread = squares - sum * sum / n;
  fit.slope = (products - sum / n * values) / spread;
  fit.base = values / n - sum / n * fit.slope;
  Point off(0, 0, 0);
  for (std::size_t i = 0; i < r.size(); ++i)
    if (used[i]) off += (r.readings.at(i) - fit.base - amps[i] * fit.slope).cwiseAbs2();
  fit.spread = (off / (n - 2)).cwiseSqrt();
  fit.slope_error = fit.spread / std::sqrt(spread);
  return fit;
}

double heading_off(double field_ut, double horizontal_ut) {
  return field_ut >= horizontal_ut ? 180 : std::asin(field_ut / horizontal_ut) / rad;
}

}  // namespace

Interference interference_of(const Recording& r, const std::vector<double>& amps, double full_a, double horizontal_ut) {
  Interference f;
  if (r.size() < least_with_current || amps.size() != r.size()) {
    f.why = std::to_string(least_with_current) + " readings with their current are needed.";
    return f;
  }
  const auto [least, most] = std::minmax_element(amps.begin(), amps.end());
  f.most_a = *most;
  const double needed = std::max(2.0, full_a / 10);
  if (f.most_a - *least < needed) {
    f.why = "The current changed by " + number_text(f.most_a - *least, 1) + " A only; " + number_text(needed, 1) +
            " A are needed to tell. Without a propeller little flows: a flight log has more.";
    return f;
  }
  std::vector<bool> used(r.size(), true);
  LineFit fit;
  for (int round = 0; round < 4; ++round) {
    fit = straight(r, amps, used);
    std::size_t kept = 0;
    for (std::size_t i = 0; i < r.size(); ++i) {
      const Point off = (r.readings.at(i) - fit.base - amps[i] * fit.slope).cwiseAbs();
      used[i] = (off.array() <= cut_sigmas * fit.spread.array().max(0.05)).all();
      kept += used[i] ? 1 : 0;
    }
    if (2 * kept < r.size()) {
      f.why = "The field does not follow the current: the model was moved, or iron near by was.";
      return f;
    }
  }
  if (fit.base.norm() < least_field_ut) {
    f.why = "A field of " + number_text(fit.base.norm(), 1) + " µT is none of the earth: the compass says nothing.";
    return f;
  }
  f.per_a = fit.slope;
  f.per_a_error = fit.slope_error;
  const double field = f.per_a.norm(), error = f.per_a_error.norm();
  f.full_ut = field * full_a;
  f.heading_deg = heading_off(f.full_ut, horizontal_ut);
  f.heading_least_deg = heading_off(std::max(0.0, field - 2 * error) * full_a, horizontal_ut);
  f.heading_most_deg = heading_off((field + 2 * error) * full_a, horizontal_ut);
  f.left_deg = heading_off(2 * error * full_a, horizontal_ut);
  f.estimate = f.most_a < full_a / 2;
  f.distance_factor = std::sqrt(std::max(1.0, f.full_ut / (horizontal_ut * std::sin(harmless_deg * rad))));
  f.why = number_text(field, 2) + " µT for each ampere: at " + number_text(full_a, 0) +
          " A the heading is off by up to " +
          (f.heading_deg >= 180 ? std::string("anything") : degrees_text(f.heading_deg)) +
          (f.estimate ? ", an estimate from at most " + number_text(f.most_a, 1) + " A" : "") + ". ";
  // The upper end counts: what is not known well is not called good.
  if (f.heading_most_deg < harmless_deg) {
    f.verdict = Verdict::good;
    f.why += "Nothing to do.";
  } else if (f.heading_most_deg < compensable_deg) {
    f.verdict = Verdict::usable;
    f.why += "Taken off by current, " + degrees_text(f.left_deg) + " are left; or move it to " +
             number_text(f.distance_factor, 1) + " times the distance from the leads.";
  } else {
    f.why += "Too much to take off: move it to " + number_text(f.distance_factor, 1) +
             " times the distance, or twist plus and minus together.";
  }
  return f;
}

}  // namespace rigging
