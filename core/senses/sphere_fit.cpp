#include "senses/sphere_fit.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <optional>

#include "base/angle.h"
#include "base/statistics.h"

namespace rigging {
namespace {

/// Enough for a start that the rest then betters.
constexpr std::size_t start_sample = 300, trial_sample = 120, cheap_to_repeat = 2000;
constexpr int start_trials = 80;
/// Tukey's constant: 95 % of the efficiency of plain least squares where there are no outliers.
constexpr double tukey = 4.685;
constexpr double near = 0.02;        ///< of the length: steps so short need no second look
constexpr double any_size = 2;       ///< times as large or as small
constexpr double outlier_at = 5;     ///< times the noise
constexpr double to_sigma = 1.4826;  ///< of a normal distribution, from its median deviation

double median_error(const Readings& r, const Ellipsoid& s, double radius, std::vector<double>& scratch) {
  scratch.clear();
  for (std::size_t i = 0; i < r.size(); ++i)
    scratch.push_back(std::abs((s.matrix * (r.at(i) - s.offset)).norm() - radius));
  return median_within(scratch);
}

struct Sphere {
  Point centre = {0, 0, 0};
  double radius = 0;
};

/// The sphere with the least median error of those through four readings (Rousseeuw 1984).
std::optional<Sphere> start_sphere(const Readings& all, double known_radius) {
  const Readings r = thinned(all, trial_sample);
  std::uint64_t state = 0x9e3779b97f4a7c15u;  // the same readings give the same answer
  const auto pick = [&] {
    state = state * 6364136223846793005u + 1442695040888963407u;
    return static_cast<std::size_t>((state >> 33) % r.size());
  };
  std::optional<Sphere> best;
  double least = 0;
  std::vector<double> scratch;
  for (int trial = 0; trial < start_trials; ++trial) {
    Eigen::Matrix3d a;
    Eigen::Vector3d b = {0, 0, 0};
    const Point p = r.at(pick());
    for (int row = 0; row < 3; ++row) {
      const Point d = r.at(pick()) - p;
      a.row(row) = 2 * d.transpose();
      b[row] = d.squaredNorm();
    }
    // Four that nearly lie in one plane say little of the sphere.
    const double size = a.norm();
    if (size <= 0 || std::abs(a.determinant()) < 1e-3 * size * size * size) continue;
    const Point out = a.partialPivLu().solve(b);
    Sphere s{p + out, out.norm()};
    if (known_radius > 0 && (s.radius < 0.5 * known_radius || s.radius > 2 * known_radius)) continue;
    const double error = median_error(r, {s.centre, Eigen::Matrix3d::Identity()}, s.radius, scratch);
    if (best && error >= least) continue;
    least = error;
    best = s;
  }
  return best;
}

/// One round of Gauss–Newton: information and right side over all readings, weighted by Tukey at `cut`.
struct Sums {
  NineByNine information = NineByNine::Zero();
  Nine right = Nine::Zero();
};

Sums gather(const Readings& r, const Ellipsoid& s, double radius, double cut) {
  // Four readings at a time: each sum is four sums, which the processor adds side by side.
  using Lanes = Eigen::Array<double, 4, 1>;
  std::array<Lanes, 45> upper;
  std::array<Lanes, 9> right;
  upper.fill(Lanes::Zero());
  right.fill(Lanes::Zero());
  const double xx = s.matrix(0, 0), yy = s.matrix(1, 1), zz = s.matrix(2, 2), xy = s.matrix(0, 1), xz = s.matrix(0, 2),
               yz = s.matrix(1, 2), per_cut = 1 / (cut * cut);
  const std::size_t whole = r.size() / 4 * 4;
  for (std::size_t i = 0; i < r.size(); i += 4) {
    Lanes dx, dy, dz, there = Lanes::Ones();
    if (i < whole) {
      dx = Eigen::Map<const Lanes>(&r.x[i]) - s.offset.x();
      dy = Eigen::Map<const Lanes>(&r.y[i]) - s.offset.y();
      dz = Eigen::Map<const Lanes>(&r.z[i]) - s.offset.z();
    } else {
      for (std::size_t k = 0; k < 4; ++k) {
        const std::size_t at = std::min(i + k, r.size() - 1);
        const auto lane = static_cast<Eigen::Index>(k);
        dx[lane] = r.x[at] - s.offset.x();
        dy[lane] = r.y[at] - s.offset.y();
        dz[lane] = r.z[at] - s.offset.z();
        there[lane] = i + k < r.size() ? 1 : 0;
      }
    }
    Lanes ux = xx * dx + xy * dy + xz * dz, uy = xy * dx + yy * dy + yz * dz, uz = xz * dx + yz * dy + zz * dz;
    const Lanes length = (ux * ux + uy * uy + uz * uz).sqrt().max(1e-300), error = length - radius;
    const Lanes inside = (1 - error * error * per_cut).max(0.0), weight = inside * inside * there,
                per_length = length.inverse();
    ux *= per_length;
    uy *= per_length;
    uz *= per_length;
    const std::array<Lanes, 9> j{-(xx * ux + xy * uy + xz * uz),
                                 -(xy * ux + yy * uy + yz * uz),
                                 -(xz * ux + yz * uy + zz * uz),
                                 ux * dx,
                                 uy * dy,
                                 uz * dz,
                                 ux * dy + uy * dx,
                                 ux * dz + uz * dx,
                                 uy * dz + uz * dy};
    std::size_t at = 0;
    for (std::size_t a = 0; a < 9; ++a) {
      const Lanes wj = weight * j[a];
      right[a] -= wj * error;
      for (std::size_t b = a; b < 9; ++b) upper[at++] += wj * j[b];
    }
  }
  Sums sums;
  std::size_t at = 0;
  for (int a = 0; a < 9; ++a) {
    sums.right[a] = right[static_cast<std::size_t>(a)].sum();
    for (int b = a; b < 9; ++b) sums.information(a, b) = sums.information(b, a) = upper[at++].sum();
  }
  return sums;
}

/// Information that what is usual adds. How large all of it is is no matter of what is usual where the length is not
/// known: only that one way is about as large as another.
NineByNine usual_information(const SphereFitOptions& options) {
  NineByNine information = options.usual.information().asDiagonal();
  if (options.radius <= 0) information.block<3, 3>(3, 3).array() -= (information(3, 3) - 1 / (any_size * any_size)) / 3;
  return information;
}

/// What Gauss–Newton makes less: Tukey's loss and what is unusual, in standard deviations.
double loss(const Readings& r, const Ellipsoid& s, double radius, double noise, const NineByNine& usual) {
  const double cut = tukey * noise;
  double sum = 0;
  for (std::size_t i = 0; i < r.size(); ++i) {
    const double error = (s.matrix * (r.at(i) - s.offset)).norm() - radius;
    const double inside = std::max(0.0, 1 - error * error / (cut * cut));
    sum += (1 - inside * inside * inside) / 3;
  }
  return sum * tukey * tukey + s.unusual().dot(usual * s.unusual());
}

void improve(const Readings& r, Ellipsoid& s, double radius, const SphereFitOptions& options, double noise,
             int rounds) {
  const NineByNine usual = usual_information(options);
  double now = loss(r, s, radius, noise, usual), damping = 0;
  for (int round = 0; round < rounds; ++round) {
    Sums sums = gather(r, s, radius, tukey * noise);
    sums.information /= noise * noise;
    sums.right /= noise * noise;
    sums.information += usual;
    sums.right -= usual * s.unusual();
    Nine step = sums.information.ldlt().solve(sums.right);
    if (!step.allFinite()) return;
    // Levenberg and Marquardt: a shorter step where the whole one makes it worse.
    for (int shorter = 0;; ++shorter) {
      Ellipsoid next = s;
      next.change(step);
      if (const double then = loss(r, next, radius, noise, usual); then <= now && std::isfinite(then)) {
        now = then;
        damping *= 0.2;
        break;
      }
      if (shorter == 12) return;
      damping = std::max(damping * 8, 1e-4);
      NineByNine damped = sums.information;
      damped.diagonal() *= 1 + damping;
      step = damped.ldlt().solve(sums.right);
      if (!step.allFinite()) return;
    }
    s.change(step);
    if (step.head<3>().norm() < 1e-9 * radius && step.tail<6>().norm() < 1e-10) return;
  }
}

}  // namespace

SphereFit fit_sphere(const Readings& readings, const SphereFitOptions& options) {
  SphereFit fit;
  fit.radius = options.radius > 0 ? options.radius : 1;
  fit.outlier.assign(readings.size(), false);
  if (readings.size() < 4) return fit;
  const Readings few = thinned(readings, start_sample);
  const auto start = start_sphere(few, options.radius);
  if (!start || start->radius <= 0) return fit;
  const double radius = options.radius > 0 ? options.radius : start->radius;
  Ellipsoid shape{start->centre, Eigen::Matrix3d::Identity() * (radius / start->radius)};
  // Errors count against the noise, the noise against the errors: a few rounds of each on the few settle both.
  std::vector<double> scratch;
  double noise = 0;
  const auto scatter = [&] {
    return std::max({to_sigma * median_error(few, shape, radius, scratch), options.least_noise, 1e-9 * radius});
  };
  for (int round = 0; round < 12; ++round) {
    const double before = noise;
    noise = scatter();
    improve(few, shape, radius, options, noise, 3);
    if (std::abs(noise - before) < 0.02 * noise) break;
  }
  noise = scatter();
  // From so near, one step on all of them is as good as many, and what it gathers serves for the covariance.
  Sums sums = gather(readings, shape, radius, tukey * noise);
  if (few.size() < readings.size() && readings.size() <= cheap_to_repeat) {
    improve(readings, shape, radius, options, noise, 4);
  } else if (few.size() < readings.size()) {
    NineByNine information = sums.information / (noise * noise) + usual_information(options);
    Nine right = sums.right / (noise * noise) - usual_information(options) * shape.unusual();
    const Nine step = information.ldlt().solve(right);
    if (step.allFinite() && step.head<3>().norm() < near * radius && step.tail<6>().norm() < near)
      shape.change(step);
    else
      improve(readings, shape, radius, options, noise, 3);
  }

  fit.noise = noise;
  double squares = 0;
  for (std::size_t i = 0; i < readings.size(); ++i) {
    const double error = (shape.matrix * (readings.at(i) - shape.offset)).norm() - radius;
    if (std::abs(error) > outlier_at * noise)
      fit.outlier[i] = true;
    else
      squares += error * error, ++fit.used;
  }
  fit.rms = fit.used ? std::sqrt(squares / static_cast<double>(fit.used)) : 0;
  const double thinner =
      options.independent > 0 ? std::min(1.0, options.independent / static_cast<double>(readings.size())) : 1.0;
  sums.information *= thinner / (noise * noise);
  sums.information += usual_information(options);
  fit.covariance = sums.information.ldlt().solve(NineByNine::Identity());
  fit.offset = shape.offset;
  fit.matrix = shape.matrix;
  fit.radius = radius;
  // Lengths alone say nothing of the unit either: the volume stays.
  if (options.radius <= 0) return fit.scaled(1 / std::cbrt(std::max(shape.matrix.determinant(), 1e-12)));
  return fit;
}

SphereFit SphereFit::scaled(double times) const {
  SphereFit fit = *this;
  fit.matrix *= times;
  fit.radius *= times;
  fit.rms *= times;
  fit.noise *= times;
  fit.covariance.bottomRows<6>() *= times;
  fit.covariance.rightCols<6>() *= times;
  return fit;
}

double SphereFit::direction_error_deg(const Point& direction) const {
  // Where that corrected direction was read, and what each unknown does to it.
  const Point d = matrix.inverse() * direction.normalized() * radius;
  Eigen::Matrix<double, 3, 9> slope = Eigen::Matrix<double, 3, 9>::Zero();
  slope.leftCols<3>() = -matrix;
  for (int i = 0; i < 3; ++i) slope(i, 3 + i) = d[i];
  slope(0, 6) = d.y(), slope(1, 6) = d.x();
  slope(0, 7) = d.z(), slope(2, 7) = d.x();
  slope(1, 8) = d.z(), slope(2, 8) = d.y();
  const Point n = direction.normalized();
  const Eigen::Matrix3d across = Eigen::Matrix3d::Identity() - n * n.transpose();
  const Eigen::Matrix3d of = across * slope * covariance * slope.transpose() * across;
  const Eigen::SelfAdjointEigenSolver<Eigen::Matrix3d> solver(of);
  return std::atan2(std::sqrt(std::max(0.0, solver.eigenvalues()[2])), radius) / rad;
}

std::size_t gore_cell(const Point& direction) {
  const Point d = direction.normalized();
  const int band = std::clamp(static_cast<int>((1 - d.z()) / 2 * bands), 0, bands - 1);
  const double turn = std::atan2(d.y(), d.x()) / (2 * pi) + 0.5;
  const int gore = std::clamp(static_cast<int>(turn * gores), 0, gores - 1);
  return static_cast<std::size_t>(band * gores + gore);
}

}  // namespace rigging
