#include <gtest/gtest.h>

#include "base/file.h"
#include "earth/gravity.h"
#include "places.h"
#include "senses/gyro.h"
#include "senses/held.h"
#include "senses/interference.h"

/// Accelerometer, compass and turns against sources outside of the project.
namespace rigging {
namespace {

// Source: WGS 84 (NIMA TR8350.2, 3rd edition): normal gravity at the equator and at the pole, on the ellipsoid.
TEST(SensesReference, NormalGravityOfWgs84) {
  EXPECT_NEAR(normal_gravity(0, 0), 9.7803253359, 1e-9);
  EXPECT_NEAR(normal_gravity(90, 0), 9.8321849378, 1e-9);
  EXPECT_NEAR(normal_gravity(-90, 0), normal_gravity(90, 0), 1e-12);
  // Somigliana's closed form between them, constants of the same report.
  for (const double latitude : {15.0, 45.0, 52.5, 70.0}) {
    const double s = std::pow(std::sin(latitude * rad), 2);
    EXPECT_NEAR(normal_gravity(latitude, 0),
                9.7803253359 * (1 + 0.00193185265241 * s) / std::sqrt(1 - 0.00669437999013 * s), 1e-8);
  }
  // Free air: 0.3086 mGal a metre.
  EXPECT_NEAR(normal_gravity(45, 1000) - normal_gravity(45, 0), -3.086e-3, 3e-5);
}

// Source: SciPy 1.10, scipy.optimize.least_squares on the same residuals; tests/reference/data/compass_fit.py made
// readings and result. Tukey's weights cost five per cent of the efficiency, so that the two differ by a part of the
// standard error, which is 0.03 µT and 0.0008 here.
TEST(SensesReference, TheEllipsoidIsThatOfLeastSquares) {
  const auto text = read_file(in_source("/tests/reference/data/compass-readings.csv"));
  ASSERT_TRUE(text);
  const auto recording = parse_recording(*text, "readings", {"mx", "my", "mz"});
  ASSERT_TRUE(recording);
  SphereFitOptions options;
  options.radius = 48;
  options.usual = {0, 0, 1e6};
  const SphereFit fit = fit_sphere(recording->readings, options);
  const Point offset{1.19553153e+01, -3.09981223e+01, 7.50895314e+00};
  Eigen::Matrix3d matrix;
  matrix << 9.55109959e-01, -3.09613667e-02, 2.04646656e-02, -3.09613667e-02, 1.06536810e+00, -4.31517307e-02,
      2.04646656e-02, -4.31517307e-02, 9.91127734e-01;
  EXPECT_LT((fit.offset - offset).cwiseAbs().maxCoeff(), 0.02);
  EXPECT_LT((fit.matrix - matrix).cwiseAbs().maxCoeff(), 0.0003);
  // With a cut that nothing reaches, Tukey's weights are one, and it is plain least squares.
  options.least_noise = 1e3;
  const SphereFit plain = fit_sphere(recording->readings, options);
  EXPECT_LT((plain.offset - offset).cwiseAbs().maxCoeff(), 1e-5);
  EXPECT_LT((plain.matrix - matrix).cwiseAbs().maxCoeff(), 1e-6);
}

// Source: the Cramér–Rao bound of the model, from its Jacobian at the truth (Kay, Fundamentals of Statistical Signal
// Processing: Estimation Theory, ch. 3): no unbiased estimate scatters less. Tukey's weights are 95 % efficient.
TEST(SensesReference, OffsetsScatterAsTheCramerRaoBoundSays) {
  Hands hands(31);
  double ratio = 0;
  constexpr int twins = 150;
  for (int twin = 0; twin < twins; ++twin) {
    const Compass compass = Compass::random(hands);
    const Recording r = compass.turned(600, hands);
    // Unknown: hard iron (3) and symmetric soft iron (6), at unknown size of the field: one direction of ten is only a
    // choice of unit, and the pseudo-inverse takes it out.
    Eigen::MatrixXd jacobian(600, 9);
    const Eigen::Matrix3d cure = compass.soft.inverse();
    for (int i = 0; i < 600; ++i) {
      const Point d = r.readings.at(static_cast<std::size_t>(i)) - compass.hard, u = (cure * d).normalized();
      // The length is off by what the noise has along the normal of the ellipsoid.
      const double sigma = compass.noise * (cure * u).norm();
      jacobian.row(i) << -(cure * u).transpose() / sigma, u.cwiseProduct(d).transpose() / sigma,
          (u.x() * d.y() + u.y() * d.x()) / sigma, (u.x() * d.z() + u.z() * d.x()) / sigma,
          (u.y() * d.z() + u.z() * d.y()) / sigma;
    }
    const Eigen::Matrix3d bound =
        (jacobian.transpose() * jacobian).ldlt().solve(Eigen::MatrixXd::Identity(9, 9)).topLeftCorner<3, 3>();
    const Point off = calibrate_compass(r).offset - compass.hard;
    ratio += off.dot(bound.inverse() * off) / 3 / twins;
  }
  // Mean of 450 squared deviates: 1 within 0.07; 1/0.95 for the weights.
  EXPECT_GT(ratio, 0.8);
  EXPECT_LT(std::sqrt(ratio), 1.2) << "a small factor: 1.2";
}

// Source: Eigen, ZYX Euler angles of ISO 1151 put together by hand.
TEST(SensesReference, AlignmentIsYawPitchRollOnTheTurn) {
  const double roll = 12, pitch = -5, yaw = 33;
  const Eigen::Matrix3d by_hand =
      (Eigen::AngleAxisd(yaw * rad, Point::UnitZ()) * Eigen::AngleAxisd(pitch * rad, Point::UnitY()) *
       Eigen::AngleAxisd(roll * rad, Point::UnitX()))
          .toRotationMatrix();
  for (const Turn& turn : all_turns()) {
    const Eigen::Matrix3d square = alignment_matrix(turn);
    EXPECT_NEAR(square.determinant(), 1, 1e-12) << turn.name() << ": no mirror";
    EXPECT_LT((alignment_matrix(turn, roll, pitch, yaw) - by_hand * square).norm(), 1e-12);
    // What the board senses on its own axis, told by the turn's own table.
    for (int axis = 0; axis < 3; ++axis) {
      const Point sensed = square.transpose() * Point::Unit(axis);
      EXPECT_NEAR(sensed[turn.sensed(axis).axis], turn.sensed(axis).sign, 1e-12);
    }
  }
}

// Source: IEEE Std 952, annex C: white noise of density N (°/s/√Hz) gives an Allan deviation of N/√τ, slope −1/2; a
// rate random walk of K (°/s/√s) gives K·√(τ/3), slope +1/2.
TEST(SensesReference, AllanDeviationOfWhiteNoiseAndOfARandomWalk) {
  std::mt19937 random(12);
  std::normal_distribution<double> normal(0, 1);
  constexpr double rate_hz = 100, density = 0.012, walk = 0.004;
  constexpr int count = 400000;
  std::vector<double> white, walked;
  double at = 0;
  for (int i = 0; i < count; ++i) {
    white.push_back(density * std::sqrt(rate_hz) * normal(random));
    at += walk / std::sqrt(rate_hz) * normal(random);
    walked.push_back(at);
  }
  int looked_at = 0;
  for (const AllanPoint& p : allan_deviation(white, rate_hz)) {
    if (p.tau_s > 40) continue;  // a hundred averages and more: within some per cent
    EXPECT_NEAR(p.deviation_deg_s, density / std::sqrt(p.tau_s), 0.1 * density / std::sqrt(p.tau_s)) << p.tau_s;
    ++looked_at;
  }
  EXPECT_GT(looked_at, 30);
  for (const AllanPoint& p : allan_deviation(walked, rate_hz)) {
    if (p.tau_s < 0.2 || p.tau_s > 40) continue;
    EXPECT_NEAR(p.deviation_deg_s, walk * std::sqrt(p.tau_s / 3), 0.12 * walk * std::sqrt(p.tau_s / 3)) << p.tau_s;
  }
}

// Source: the definition, by hand: of 0 1 0 1 0 1 0 1 every neighbours' difference is 1, so that the deviation at one
// step is √(1/2), and averages of two do not differ at all.
TEST(SensesReference, AllanDeviationByHand) {
  const std::vector<AllanPoint> all = allan_deviation(std::vector<double>{0, 1, 0, 1, 0, 1, 0, 1}, 10);
  ASSERT_GE(all.size(), 2u);
  EXPECT_NEAR(all[0].tau_s, 0.1, 1e-12);
  EXPECT_NEAR(all[0].deviation_deg_s, std::sqrt(0.5), 1e-12);
  EXPECT_NEAR(all[1].tau_s, 0.2, 1e-12);
  EXPECT_NEAR(all[1].deviation_deg_s, 0, 1e-12);
}

// Source: the closed form of least squares (slope = covariance / variance), by hand, and its standard error
// σ/√Σ(I − Ī)².
TEST(SensesReference, TheMotorsFieldIsTheSlopeOfLeastSquares) {
  Recording field;
  std::vector<double> amps;
  std::mt19937 random(3);
  std::normal_distribution<double> normal(0, 0.4);
  double sum_a = 0, sum_x = 0, sum_aa = 0, sum_ax = 0;
  constexpr int n = 600;
  for (int i = 0; i < n; ++i) {
    const double a = 2.5 * (i / 150), x = 20 + 0.21 * a + normal(random);
    field.t_s.push_back(i * 0.02);
    field.readings.add({x, 3, 40});
    amps.push_back(a);
    sum_a += a;
    sum_x += x;
    sum_aa += a * a;
    sum_ax += a * x;
  }
  const double slope = (n * sum_ax - sum_a * sum_x) / (n * sum_aa - sum_a * sum_a);
  const Interference f = interference_of(field, amps, 20, 20);
  EXPECT_NEAR(f.per_a.x(), slope, 0.003);  // a few readings beyond 3.5 deviations are left out
  EXPECT_NEAR(f.per_a_error.x(), 0.4 / std::sqrt(sum_aa - sum_a * sum_a / n), 0.001);
}

}  // namespace
}  // namespace rigging
