#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "base/number.h"
#include "base/statistics.h"
#include "senses/calibration.h"

namespace rigging {
namespace {

/// A hand-held still pose is known to this, m/s² (common practice).
constexpr double pose_noise = 0.02;
constexpr double face_deg = 40;      ///< a face counts as seen from this near
constexpr double distinct_deg = 20;  ///< poses nearer to each other say little anew
/// Of accelerometers in order, one standard deviation (common practice): zero to 0.5 m/s², scale to 3 %, cross to 1.5
/// %.
constexpr Usual usual_sensor{0.5, 0.03, 0.015};
/// A cross term is told when it is known to half of what it is known to beforehand, and not at all at nine tenths.
constexpr double told_cross = 0.5, untold_cross = 0.9;
constexpr double least_drift = 0.04, much_drift = 0.15;  ///< of the zero, first pose to last, m/s²
constexpr double finest_pose = 0.005;                    ///< no pose is known better than this, m/s²
constexpr double bad_pose = 0.2;              ///< a pose whose length is off by less is never left out, m/s²
constexpr double judged_to = 0.05;            ///< what a pose is held to when it is asked whether it belongs, m/s²
constexpr std::size_t pairs_up_to = 40;       ///< beyond that one spoilt pose hardly hides another
constexpr std::size_t tried_one_by_one = 80;  ///< beyond that they are left out by how far they lie beside the rest
constexpr double far_better = 20;             ///< of misfit: odds of 1 to 20 000

const char* axis_word(int axis) { return axis == 0 ? "x" : axis == 1 ? "y" : "z"; }

struct PoseFit : Ellipsoid {
  std::vector<double> error;
  double misfit = 0;                            ///< squares of errors and of what is unusual, in standard deviations
  NineByNine information = NineByNine::Zero();  ///< of the poses alone
};

/// Least squares from the usual values: sensors in order are near them, so no start is needed.
PoseFit fit_poses(const std::vector<StillPose>& poses, const std::vector<bool>& bad, double gravity,
                  const Usual& expected, double noise) {
  PoseFit fit;
  const Nine prior = expected.information();
  for (int round = 0; round < 12; ++round) {
    NineByNine information = NineByNine::Zero();
    Nine right = Nine::Zero();
    for (std::size_t i = 0; i < poses.size(); ++i) {
      if (bad[i]) continue;
      const Nine j = fit.length_slopes(poses[i].mean);
      information += j * j.transpose() / (noise * noise);
      right -= j * (fit.corrected(poses[i].mean).norm() - gravity) / (noise * noise);
    }
    fit.information = information;
    information.diagonal() += prior;
    right -= prior.cwiseProduct(fit.unusual());
    const Nine step = information.ldlt().solve(right);
    if (!step.allFinite()) break;
    fit.change(step);
    if (step.norm() < 1e-12) break;
  }
  fit.misfit = prior.dot(fit.unusual().cwiseAbs2());
  for (std::size_t i = 0; i < poses.size(); ++i) {
    fit.error.push_back(fit.corrected(poses[i].mean).norm() - gravity);
    if (!bad[i]) fit.misfit += fit.error[i] * fit.error[i] / (noise * noise);
  }
  return fit;
}

/// What the nine unknowns are told to by the poses alone; a large number where nothing tells. `cross`: what the cross
/// terms are known to beforehand, 0 for not at all.
Nine told_to(NineByNine information, double cross) {
  if (cross > 0) information.diagonal().tail<3>().array() += 1 / (cross * cross);
  // Each in its own unit, so that one eigenvalue is as good as another.
  Nine unit = Nine::Ones();
  for (int i = 0; i < 9; ++i)
    if (information(i, i) > 0) unit[i] = 1 / std::sqrt(information(i, i));
  const NineByNine even = unit.asDiagonal() * information * unit.asDiagonal();
  const Eigen::SelfAdjointEigenSolver<NineByNine> solver(even);
  Nine sigma = Nine::Zero();
  for (int i = 0; i < 9; ++i) {
    for (int k = 0; k < 9; ++k)
      sigma[i] += std::pow(solver.eigenvectors()(i, k), 2) / std::max(solver.eigenvalues()[k], 1e-9);
    sigma[i] = std::sqrt(sigma[i]) * unit[i];
  }
  return sigma;
}

/// Of very many, each hardly counts: those far beside the rest go, a few times over.
void leave_out_of_many(const std::vector<StillPose>& poses, std::vector<bool>& bad, double gravity,
                       const Usual& in_order) {
  constexpr double far = 5, to_sigma = 1.4826;
  for (int round = 0; round < 4; ++round) {
    const PoseFit fit = fit_poses(poses, bad, gravity, in_order, judged_to);
    std::vector<double> errors;
    for (std::size_t i = 0; i < poses.size(); ++i)
      if (!bad[i]) errors.push_back(std::abs(fit.error[i]));
    if (errors.empty()) return;
    const double most = std::max(bad_pose, far * to_sigma * median(errors));
    for (std::size_t i = 0; i < poses.size(); ++i) bad[i] = std::abs(fit.error[i]) > most;
  }
}

/// Poses go when the rest are far better explained without them, by a sensor in order; two at a time where they would
/// hide each other. Six are always kept. False when others could as well have been the ones.
bool leave_out(const std::vector<StillPose>& poses, std::vector<bool>& bad, double gravity) {
  const Usual in_order{usual_sensor.offset, usual_sensor.scale, usual_sensor.cross * 1.5};
  if (poses.size() > tried_one_by_one) {
    leave_out_of_many(poses, bad, gravity, in_order);
    return true;
  }
  using Set = std::vector<std::size_t>;
  bool sure = true;
  for (;;) {
    const auto kept = static_cast<std::size_t>(std::count(bad.begin(), bad.end(), false));
    const double with = fit_poses(poses, bad, gravity, in_order, judged_to).misfit;
    struct Best {
      Set out;
      double misfit = 0, next = 0;  ///< next: of the best other set
    };
    // All sets of one or two; what is out must itself be off.
    const auto best_of = [&](std::size_t size) {
      Best best{{}, with, with};
      const auto try_set = [&](const Set& out) {
        std::vector<bool> without = bad;
        for (const std::size_t i : out) without[i] = true;
        const PoseFit f = fit_poses(poses, without, gravity, in_order, judged_to);
        for (const std::size_t i : out)
          if (std::abs(f.error[i]) < bad_pose) return;
        if (f.misfit < best.misfit) {
          best.next = best.misfit;
          best.misfit = f.misfit;
          best.out = out;
        } else {
          best.next = std::min(best.next, f.misfit);
        }
      };
      for (std::size_t i = 0; i < poses.size(); ++i) {
        if (bad[i]) continue;
        if (size == 1) try_set({i});
        for (std::size_t k = i + 1; size == 2 && k < poses.size(); ++k)
          if (!bad[k]) try_set({i, k});
      }
      return best;
    };
    if (kept <= 6) return sure;
    Best best = best_of(1);
    if (kept > 7 && kept <= pairs_up_to && with > far_better)
      if (Best two = best_of(2); two.misfit < std::min(best.misfit, with - far_better) - far_better)
        best = std::move(two);
    if (best.out.empty() || best.misfit > with - far_better) return sure;
    sure = sure && best.next - best.misfit > far_better / 2;
    for (const std::size_t i : best.out) bad[i] = true;
  }
}

/// Of the unknowns, how many the poses tell and not what is usual; the rest of the poses is left over to check them.
double told_unknowns(const NineByNine& information, const Usual& expected) {
  NineByNine all = information;
  all.diagonal() += expected.information();
  return all.ldlt().solve(information).trace();
}

/// The zero changes evenly while the poses are taken: what of their misfit that would explain.
struct Drift {
  Point per_s = {0, 0, 0};
  double gain = 0;  ///< of misfit, in squares of `pose_noise`
};
Drift drift_of(const std::vector<StillPose>& poses, const std::vector<bool>& bad, const PoseFit& fit,
               const Usual& expected, double middle_s) {
  NineByNine nine = fit.information;
  nine.diagonal() += expected.information();
  Eigen::Matrix<double, 9, 3> both = Eigen::Matrix<double, 9, 3>::Zero();
  Eigen::Matrix3d own = Eigen::Matrix3d::Identity() * 1e-9;
  Point slope = Point::Zero();
  constexpr double weight = 1 / (pose_noise * pose_noise);
  for (std::size_t i = 0; i < poses.size(); ++i) {
    if (bad[i]) continue;
    const Nine j = fit.length_slopes(poses[i].mean);
    const Point d = j.head<3>() * (poses[i].t_s - middle_s);
    both += weight * j * d.transpose();
    own += weight * d * d.transpose();
    slope += weight * fit.error[i] * d;
  }
  // What the nine do not take up already.
  const Eigen::Matrix3d left = own - both.transpose() * nine.ldlt().solve(both);
  Drift drift;
  drift.per_s = -left.ldlt().solve(slope);
  drift.gain = -slope.dot(drift.per_s);
  return drift;
}

/// How far the zero went from the first pose to the last, where either the poses' lengths or their own creeping tell it
/// beyond doubt; 0 where neither does.
double drifted(const std::vector<StillPose>& poses, const std::vector<bool>& bad, const PoseFit& fit,
               const Usual& expected, double squares, double spare) {
  double first = 1e300, last = -1e300, count = 0;
  for (std::size_t i = 0; i < poses.size(); ++i)
    if (!bad[i]) first = std::min(first, poses[i].t_s), last = std::max(last, poses[i].t_s), ++count;
  if (!(last > first)) return 0;
  const double lasted = last - first;
  const Drift drift = drift_of(poses, bad, fit, expected, (first + last) / 2);
  const double over = spare - 3;  // that check the poses once drift is told as well
  double told = 0;
  if (over >= 1) {
    const double left = squares / (pose_noise * pose_noise) - drift.gain;
    const double noise = std::max(left / over, std::pow(finest_pose / pose_noise, 2));
    // Three more unknowns gain 3 by chance; 16 once in a thousand, more where little is left to know the noise by.
    if (drift.gain / noise > 16 * (1 + 6 / over)) told = drift.per_s.norm() * lasted;
  }
  // Hands sway to any side, a drift goes one way in every pose.
  Point sum = Point::Zero(), sum_squares = Point::Zero();
  double from_noise = 0, creeping = 0;
  for (std::size_t i = 0; i < poses.size(); ++i) {
    if (bad[i] || poses[i].creeps_error <= 0) continue;
    sum += poses[i].creeps, sum_squares += poses[i].creeps.cwiseAbs2(), ++creeping;
    from_noise += poses[i].creeps_error * poses[i].creeps_error;
  }
  if (creeping >= 5) {
    const Point each = sum / creeping;
    const Point scatter = (sum_squares / creeping - each.cwiseAbs2()) * (creeping / (creeping - 1));
    for (int k = 0; k < 3; ++k) {
      const double error = std::sqrt(std::max(scatter[k], from_noise / creeping) / creeping);
      if (std::abs(each[k]) > 5 * error) told = std::max(told, std::abs(each[k]) * lasted);
    }
  }
  return told > least_drift ? told : 0;
}

std::size_t distinct(const std::vector<StillPose>& poses, const std::vector<bool>& bad) {
  std::vector<Point> seen;
  for (std::size_t i = 0; i < poses.size(); ++i) {
    const Point n = poses[i].mean.normalized();
    if (!bad[i] &&
        std::none_of(seen.begin(), seen.end(), [&](const Point& s) { return s.dot(n) > std::cos(distinct_deg * rad); }))
      seen.push_back(n);
  }
  return seen.size();
}

/// The faces toward which no pose lies: axis 0 to 2, and 3 to 5 for the other way.
std::vector<int> faces_missing(const std::vector<StillPose>& poses, const std::vector<bool>& bad) {
  std::vector<int> missing;
  for (int face = 0; face < 6; ++face) {
    const Point way = Point::Unit(face % 3) * (face < 3 ? 1 : -1);
    bool seen = false;
    for (std::size_t i = 0; i < poses.size(); ++i)
      seen = seen || (!bad[i] && poses[i].mean.normalized().dot(way) > std::cos(face_deg * rad));
    if (!seen) missing.push_back(face);
  }
  return missing;
}

}  // namespace

Calibration calibrate_accelerometer(const Recording& recording, double gravity) {
  return calibrate_poses(still_poses(recording), gravity);
}

Calibration calibrate_poses(std::vector<StillPose> poses, double gravity) {
  Calibration c;
  c.radius = gravity;
  c.poses = std::move(poses);
  std::vector<bool>& bad = c.bad;
  bad.assign(c.poses.size(), false);
  const auto note = [&](Verdict at_best, std::string words) {
    c.verdict = std::max(c.verdict, at_best);
    c.why.push_back(std::move(words));
  };
  c.verdict = Verdict::good;
  if (c.poses.empty()) {
    note(Verdict::repeat, "No still pose was found: hold or prop the model still for a second in each.");
    return c;
  }
  // Something else than gravity: no sensor in order is off by so much.
  for (std::size_t i = 0; i < c.poses.size(); ++i) bad[i] = std::abs(c.poses[i].mean.norm() - gravity) > 0.25 * gravity;
  const bool sure = leave_out(c.poses, bad, gravity);
  // Zero and scale are hardly held to what is usual; the cross terms are, as far as the poses do not tell them.
  constexpr double wide = 4;
  const Usual expected{wide * usual_sensor.offset, wide * usual_sensor.scale, usual_sensor.cross};
  PoseFit fit = fit_poses(c.poses, bad, gravity, expected, pose_noise);
  const std::size_t directions = distinct(c.poses, bad);
  const std::vector<int> missing = faces_missing(c.poses, bad);
  c.coverage = 1 - static_cast<double>(missing.size()) / 6;
  std::string faces;
  for (const int face : missing)
    faces += std::string(faces.empty() ? "" : ", ") + (face < 3 ? "+" : "−") + axis_word(face % 3);
  const Nine sigma = told_to(fit.information, usual_sensor.cross);
  std::string untold_pairs;
  for (int k = 0; k < 3; ++k) {
    const int a = k < 2 ? 0 : 1, b = k == 0 ? 1 : 2;
    const double known = sigma[6 + k] / usual_sensor.cross;
    if (known > told_cross)
      untold_pairs += std::string(untold_pairs.empty() ? "" : ", ") + axis_word(a) + " and " + axis_word(b);
    if (known > untold_cross) fit.matrix(a, b) = fit.matrix(b, a) = 0;
  }
  for (std::size_t i = 0; i < c.poses.size(); ++i) fit.error[i] = fit.corrected(c.poses[i].mean).norm() - gravity;
  double squares = 0;
  std::size_t used = 0, bad_poses = 0;
  for (std::size_t i = 0; i < c.poses.size(); ++i) {
    const std::size_t size = c.poses[i].to - c.poses[i].from;
    if (bad[i]) {
      c.outliers += size;
      ++bad_poses;
    } else {
      c.samples_used += size;
      squares += fit.error[i] * fit.error[i];
      ++used;
    }
  }
  c.residual_rms = used ? std::sqrt(squares / static_cast<double>(used)) : 0;
  static_cast<Ellipsoid&>(c) = fit;
  c.offset_error = sigma.head<3>();
  c.direction_error_deg = std::atan2(sigma.head<3>().maxCoeff(), gravity) / rad;

  if (directions < 6) {
    note(Verdict::repeat, "Only " + std::to_string(directions) +
                              (directions == 1 ? " still direction" : " still directions") +
                              ": six or more are needed, nose up and down, either wing down, level and "
                              "upside down.");
    // What one side of an axis alone says of zero and scale can't be told apart: nothing is corrected.
    static_cast<Ellipsoid&>(c) = {};
  }
  if (!missing.empty() && directions >= 6) {
    const bool untold = sigma.head<3>().maxCoeff() > 0.1;
    note(untold ? Verdict::repeat : Verdict::usable,
         "No pose toward " + faces + (untold ? ": zero and scale of that axis can't be told apart." : "."));
  }
  if (bad_poses > 0)
    note(bad_poses * 3 > c.poses.size() ? Verdict::repeat : Verdict::usable,
         std::to_string(bad_poses) + " of " + std::to_string(c.poses.size()) +
             " poses do not fit the others and were left out: moved or touched meanwhile?");
  const double zero = c.offset.cwiseAbs().maxCoeff(),
               scale = (c.matrix.diagonal() - Point::Ones()).cwiseAbs().maxCoeff();
  const double rare = std::max(zero / usual_sensor.offset, scale / usual_sensor.scale);
  // Poses that are left over to check with, so that a fit with little to check does not look better than it is.
  const double spare = static_cast<double>(used) - told_unknowns(fit.information, expected);
  if (directions >= 6 && (rare > 4 || (rare > 2.2 && spare < 3)))
    note(Verdict::repeat, "Zero is off by " + number_text(zero, 2) + " m/s², scale by " + number_text(scale * 100, 0) +
                              (rare > 4 ? " %: no sensor in order is off by so much. Held still in every pose? Units?"
                                        : " %: rare for a sensor in order, and too few poses to check it."));
  if (sigma.head<3>().maxCoeff() > 0.05 && directions >= 6 && missing.empty())
    note(sigma.head<3>().maxCoeff() > 0.15 ? Verdict::repeat : Verdict::usable,
         "The zero is only known to " + number_text(sigma.head<3>().maxCoeff(), 2) + " m/s²: more poses.");
  if (!sure) note(Verdict::repeat, "Which of the poses was spoilt can't be told from these: more poses, or again.");
  const double scatter = spare > 0.5 ? std::sqrt(squares / spare) : c.residual_rms;
  if (scatter > 0.15)
    note(Verdict::repeat, "The poses contradict each other by " + number_text(scatter, 2) + " m/s²: was it at rest?");
  else if (scatter > 0.05)
    note(Verdict::usable, "The poses differ by " + number_text(scatter, 2) + " m/s² more than a good sensor's do.");
  if (const double zero_moved = drifted(c.poses, bad, fit, expected, squares, spare); zero_moved > 0 && directions >= 6)
    note(zero_moved > much_drift ? Verdict::repeat : Verdict::usable,
         "The zero drifted by " + number_text(zero_moved, 2) +
             " m/s² from the first pose to the last: let the board come to its warmth, and take the poses again.");
  if (directions >= 6 && !untold_pairs.empty())
    note(Verdict::usable, "The cross-axis terms of " + untold_pairs +
                              " are not told by these poses: a still pose on an edge between the two, leaning toward "
                              "both, tells each." +
                              (spare < 1 ? " Nothing is left over to check the poses against." : ""));
  if (c.why.empty())
    c.why.push_back(std::to_string(used) + " still poses agree to " + number_text(c.residual_rms, 3) + " m/s².");
  return c;
}

}  // namespace rigging
