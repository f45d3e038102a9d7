#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "base/number.h"
#include "base/statistics.h"
#include "senses/calibration.h"

namespace rigging {
namespace {

constexpr std::size_t least_readings = 30, least_half = 200;
/// Of the corrected direction, one standard deviation. Where the field dips by 65° a heading is off by two and a half
/// times as much: 1° is good, 5° still finds home (common practice).
constexpr double good_deg = 0.4, usable_deg = 2;
/// Through less than this share of all directions the ellipsoid bends more ways than its uncertainty says.
constexpr double least_coverage = 0.4;
constexpr double good_share = 0.02, usable_share = 0.05;  ///< of the field: scatter of the lengths
constexpr double few_outliers = 0.05, many_outliers = 0.23;
/// Readings of one turn err alike: so many count for what is said of uncertainty.
constexpr double count_as = 500;
/// Of compasses in models: soft iron to 15 %, 8 % across (common practice).
constexpr Usual usual_compass{200, 0.15, 0.08};
constexpr std::size_t blocks = 20;
/// No place on earth has a field of less than 22 µT, and no compass in order shows less than two thirds of it; a
/// direction that is worse known than this is not one that was seen.
constexpr double least_length_ut = 15, known_deg = 10;

/// Stretches of time in which most readings do not belong.
std::string disturbed_stretch(const Recording& r, const std::vector<bool>& outlier) {
  std::size_t worst = blocks;
  double most = 0.5;
  for (std::size_t b = 0; b < blocks; ++b) {
    const std::size_t from = b * r.size() / blocks, to = (b + 1) * r.size() / blocks;
    if (to <= from) continue;
    const auto n = std::count(outlier.begin() + static_cast<std::ptrdiff_t>(from),
                              outlier.begin() + static_cast<std::ptrdiff_t>(to), true);
    if (const double share = static_cast<double>(n) / static_cast<double>(to - from); share > most) {
      most = share;
      worst = b;
    }
  }
  if (worst == blocks) return {};
  return "Most of it from " + number_text(r.t_s[worst * r.size() / blocks], 1) + " s to " +
         number_text(r.t_s[(worst + 1) * r.size() / blocks - 1], 1) + " s: what came near then?";
}

/// By how much the offset of a stretch differs from that of all readings.
struct OffsetShift {
  Point offset = {0, 0, 0}, variance = {0, 0, 0};
};

/// The matrix of all readings is kept: half of a turn bends a matrix of its own as it likes. Least squares of what the
/// lengths are off by, in a few steps, with Tukey's weights about the stretch's own scatter: wild readings and a few
/// seconds of iron are no other offset.
OffsetShift shift_of(const Calibration& all, const Readings& r, std::size_t from, std::size_t to) {
  OffsetShift shift;
  constexpr double tukey = 4.685, to_sigma = 1.4826;
  std::vector<double> away;
  for (int round = 0; round < 8; ++round) {
    away.clear();
    for (std::size_t i = from; i < to; ++i)
      away.push_back(std::abs((all.matrix * (r.at(i) - all.offset - shift.offset)).norm() - all.radius));
    const double noise = std::max(to_sigma * median_within(away), 0.05), cut = tukey * noise;
    Eigen::Matrix3d normal = Eigen::Matrix3d::Identity() * 1e-9;
    Point pull(0, 0, 0);
    double n = 0, squares = 0;
    for (std::size_t i = from; i < to; ++i) {
      const Point good = all.matrix * (r.at(i) - all.offset - shift.offset);
      const double length = std::max(good.norm(), 1e-9), off = length - all.radius;
      const double inside = std::max(0.0, 1 - off * off / (cut * cut)), weight = inside * inside;
      const Point slope = all.matrix.transpose() * (good / length);
      normal += weight * slope * slope.transpose();
      pull += weight * slope * off;
      n += weight, squares += weight * off * off;
    }
    const Eigen::Matrix3d inverse = normal.inverse();
    shift.offset += inverse * pull;
    // As the readings scatter that belong; those of one turn err alike.
    const double variance = n > 0 ? std::max(squares / n, all.residual_rms * all.residual_rms) : 1;
    shift.variance = inverse.diagonal() * variance * n / std::min(std::max(n, 1.0), count_as / 2);
  }
  return shift;
}

}  // namespace

SphereFit fit_compass(const Readings& readings, std::size_t most) {
  SphereFitOptions options;
  options.usual = usual_compass;
  options.least_noise = 0.05;
  options.independent = count_as;
  return fit_sphere(thinned(readings, most), options);
}

CompassReach reach_of(const SphereFit& fit, const Readings& r) {
  CompassReach reach;
  if (fit.used == 0) return reach;
  std::vector<bool> seen(static_cast<std::size_t>(gores * bands));
  for (std::size_t i = 0; i < r.size(); ++i)
    if (fit.outlier.size() != r.size() || !fit.outlier[i]) seen[gore_cell(fit.corrected(r.at(i)))] = true;
  const double parts =
      static_cast<double>(std::count(seen.begin(), seen.end(), true)) / static_cast<double>(seen.size());
  for (int band = 0; band < 2 * bands; ++band)
    for (int gore = 0; gore < gores; ++gore) {
      const double z = 1 - (band + 0.5) / bands, turn = 2 * pi * gore / gores, flat = std::sqrt(1 - z * z);
      reach.direction_error_deg = std::max(reach.direction_error_deg,
                                           fit.direction_error_deg({flat * std::cos(turn), flat * std::sin(turn), z}));
    }
  const double sure = std::min(1.0, known_deg / std::max(reach.direction_error_deg, 1e-9)),
               large = std::min(1.0, std::pow(fit.radius / least_length_ut, 2));
  reach.coverage = parts * sure * large;
  reach.known = sure * large > 0.5;
  return reach;
}

Calibration calibrate_compass(const Recording& recording, double field_ut) {
  Calibration c;
  c.verdict = Verdict::good;
  const auto note = [&](Verdict at_best, std::string words) {
    c.verdict = std::max(c.verdict, at_best);
    c.why.push_back(std::move(words));
  };
  const Readings& r = recording.readings;
  if (r.size() < least_readings) {
    note(Verdict::repeat, std::to_string(r.size()) + (r.size() == 1 ? " reading is" : " readings are") +
                              " too few: turn the model for a minute.");
    return c;
  }
  Point mean = {0, 0, 0};
  for (std::size_t i = 0; i < r.size(); ++i) mean += r.at(i) / static_cast<double>(r.size());
  Eigen::Matrix3d scatter = Eigen::Matrix3d::Zero();
  for (std::size_t i = 0; i < r.size(); ++i) scatter += (r.at(i) - mean) * (r.at(i) - mean).transpose();
  const Eigen::SelfAdjointEigenSolver<Eigen::Matrix3d> spread(scatter / static_cast<double>(r.size()));
  const double widest = std::sqrt(std::max(spread.eigenvalues()[2], 0.0)),
               narrowest = std::sqrt(std::max(spread.eigenvalues()[0], 0.0));
  if (widest < 1) {
    note(Verdict::repeat, widest < 1e-6 ? "The readings never change: the compass is not read, or not there."
                                        : "The readings hardly change: the model was not turned.");
    return c;
  }
  SphereFit fit = fit_compass(r, r.size());
  if (fit.used == 0) {
    note(Verdict::repeat, "The model was turned in one plane only: nose and wings up and down as well.");
    return c;
  }
  // The place knows the length that the readings should have.
  const double to_field = field_ut > 0 ? field_ut / fit.radius : 1;
  const double as_read = fit.radius;
  const CompassReach reach = reach_of(fit, r);
  fit = fit.scaled(to_field);
  static_cast<Ellipsoid&>(c) = fit;
  c.radius = fit.radius;
  c.residual_rms = fit.rms;
  c.samples_used = fit.used;
  c.outliers = r.size() - fit.used;
  c.bad = fit.outlier;
  c.offset_error = fit.covariance.diagonal().head<3>().cwiseSqrt();
  c.coverage = reach.coverage, c.direction_error_deg = reach.direction_error_deg;
  const Eigen::Matrix3d of_offset = fit.covariance.topLeftCorner<3, 3>();
  const Eigen::SelfAdjointEigenSolver<Eigen::Matrix3d> offset(of_offset);
  const double offset_sigma = std::sqrt(std::max(offset.eigenvalues()[2], 0.0));

  const double share = static_cast<double>(c.outliers) / static_cast<double>(r.size());
  if (c.direction_error_deg > good_deg || c.coverage < least_coverage || narrowest < 0.1 * widest) {
    const Point way = offset.eigenvectors().col(2).cwiseAbs();
    int axis = 0;
    way.maxCoeff(&axis);
    const bool bad = c.direction_error_deg > usable_deg || c.coverage < least_coverage || narrowest < 0.1 * widest;
    note(bad ? Verdict::repeat : Verdict::usable,
         std::string(bad ? "Not enough yet: it" : "It") + " was turned through " + number_text(c.coverage * 100, 0) +
             " % of all directions: the offset along " +
             std::string(axis == 0   ? "x"
                         : axis == 1 ? "y"
                                     : "z") +
             " is only known to " + number_text(offset_sigma, 1) + " µT at best, a direction to " +
             number_text(c.direction_error_deg, 1) + "°.");
    // What little turning tells of magnets, iron and strength is nothing.
    if (bad) {
      if (as_read < least_length_ut)
        c.why.push_back("What it reads is " + number_text(as_read, 1) +
                        " µT strong, less than anywhere on earth: too little turning, or another unit than µT.");
      return c;
    }
  }
  if (std::abs(to_field - 1) > 0.15)
    note(Verdict::usable, "The readings are " + number_text(100 / to_field, 0) +
                              " % of the field of this place: the compass's unit, or steel or a magnet near by.");
  // Either half of the time alone: what does not turn with the model, or was moved, shows as another offset.
  if (r.size() >= 2 * least_half) {
    const OffsetShift first = shift_of(c, r, 0, r.size() / 2), second = shift_of(c, r, r.size() / 2, r.size());
    const Point moved = second.offset - first.offset;
    const Point sigma = (first.variance + second.variance).cwiseSqrt();
    if (moved.cwiseQuotient(sigma).cwiseAbs().maxCoeff() > 6 && moved.norm() > 0.02 * c.radius)
      note(moved.norm() > 0.06 * c.radius ? Verdict::repeat : Verdict::usable,
           "The second half of the time has another offset than the first, by " + number_text(moved.norm(), 1) +
               " µT: something was moved or switched on meanwhile.");
  }
  const double scatter_share = c.residual_rms / c.radius;
  if (scatter_share > good_share)
    note(scatter_share > usable_share ? Verdict::repeat : Verdict::usable,
         "The lengths scatter by " + number_text(scatter_share * 100, 1) +
             " % of the field: iron, leads or magnets that do not turn with the model.");
  if (share > few_outliers) {
    note(share > many_outliers ? Verdict::repeat : Verdict::usable,
         number_text(share * 100, 0) +
             " % of the readings do not belong to the others and were left out: iron near by?");
    if (const std::string when = disturbed_stretch(recording, fit.outlier); !when.empty()) c.why.push_back(when);
  }
  const Eigen::SelfAdjointEigenSolver<Eigen::Matrix3d> soft(fit.matrix);
  const double squeeze = soft.eigenvalues()[2] / std::max(soft.eigenvalues()[0], 1e-9);
  if (squeeze > 1.5 || soft.eigenvalues()[0] <= 0)
    note(squeeze > 2.5 || soft.eigenvalues()[0] <= 0 ? Verdict::repeat : Verdict::usable,
         "Iron near the compass squeezes the field " + number_text(squeeze, 1) + " times more one way than another.");
  if (c.offset.norm() > 2 * c.radius)
    note(c.offset.norm() > 6 * c.radius ? Verdict::repeat : Verdict::usable,
         "A magnet or steel near the compass is " + number_text(c.offset.norm() / c.radius, 1) +
             " times as strong as the earth: further away with it.");
  if (c.why.empty())
    c.why.push_back("Turned through " + number_text(c.coverage * 100, 0) + " % of all directions; lengths agree to " +
                    number_text(c.residual_rms, 2) + " µT, directions to " + number_text(c.direction_error_deg, 1) +
                    "°.");
  return c;
}

}  // namespace rigging
