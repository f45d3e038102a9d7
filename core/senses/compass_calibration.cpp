#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "base/number.h"
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
constexpr double few_outliers = 0.05, many_outliers = 0.25;
/// Readings of one turn err alike: so many count for what is said of uncertainty.
constexpr double count_as = 500;
/// Of compasses in models: soft iron to 15 %, 8 % across (common practice).
constexpr Usual usual_compass{200, 0.15, 0.08};
constexpr std::size_t blocks = 20;

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
/// lengths are off by, in a few steps.
OffsetShift shift_of(const Calibration& all, const Readings& r, std::size_t from, std::size_t to) {
  OffsetShift shift;
  for (int round = 0; round < 4; ++round) {
    Eigen::Matrix3d normal = Eigen::Matrix3d::Identity() * 1e-9;
    Point pull(0, 0, 0);
    for (std::size_t i = from; i < to; ++i) {
      const Point good = all.matrix * (r.at(i) - all.offset - shift.offset);
      const double length = std::max(good.norm(), 1e-9), off = length - all.radius;
      const Point slope = all.matrix.transpose() * (good / length);
      normal += slope * slope.transpose();
      pull += slope * off;
    }
    const Eigen::Matrix3d inverse = normal.inverse();
    shift.offset += inverse * pull;
    const auto n = static_cast<double>(to - from);
    // As the readings scatter that belong; those of one turn err alike.
    shift.variance = inverse.diagonal() * all.residual_rms * all.residual_rms * n / std::min(n, count_as / 2);
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
  if (field_ut > 0) {
    // The place knows the length that the readings should have.
    const double scale = field_ut / fit.radius;
    fit = fit.scaled(scale);
    if (std::abs(scale - 1) > 0.15)
      note(Verdict::usable, "The readings are " + number_text(100 / scale, 0) +
                                " % of the field of this place: the compass's unit, or steel or a magnet near by.");
  }
  static_cast<Ellipsoid&>(c) = fit;
  c.radius = fit.radius;
  c.residual_rms = fit.rms;
  c.samples_used = fit.used;
  c.outliers = r.size() - fit.used;
  c.bad = fit.outlier;
  c.offset_error = fit.covariance.diagonal().head<3>().cwiseSqrt();
  std::vector<bool> seen(static_cast<std::size_t>(gores * bands));
  for (std::size_t i = 0; i < r.size(); ++i)
    if (!fit.outlier[i]) seen[gore_cell(fit.corrected(r.at(i)))] = true;
  c.coverage = static_cast<double>(std::count(seen.begin(), seen.end(), true)) / static_cast<double>(seen.size());
  Point worst = {0, 0, 1};
  for (int band = 0; band < 2 * bands; ++band)
    for (int gore = 0; gore < gores; ++gore) {
      const double z = 1 - (band + 0.5) / bands, turn = 2 * pi * gore / gores, flat = std::sqrt(1 - z * z);
      const Point n{flat * std::cos(turn), flat * std::sin(turn), z};
      if (const double error = fit.direction_error_deg(n); error > c.direction_error_deg) {
        c.direction_error_deg = error;
        worst = n;
      }
    }
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
         "It was turned through " + number_text(c.coverage * 100, 0) + " % of all directions: the offset along " +
             std::string(axis == 0   ? "x"
                         : axis == 1 ? "y"
                                     : "z") +
             " is only known to " + number_text(offset_sigma, 1) + " µT at best, a direction to " +
             number_text(c.direction_error_deg, 1) + "°.");
  }
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
