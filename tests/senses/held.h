#pragma once

#include <Eigen/Dense>
#include <random>

#include "base/alignment.h"
#include "base/angle.h"
#include "senses/calibration.h"
#include "senses/orientation.h"

/// Sensors with errors that a test knows, held by hands that are not exact.
namespace rigging {

inline Eigen::Matrix3d about(const Point& axis, double deg) {
  return Eigen::AngleAxisd(deg * rad, axis.normalized()).toRotationMatrix();
}

struct Hands {
  std::mt19937 random;
  explicit Hands(unsigned seed) : random(seed) {}
  double normal(double sigma) { return std::normal_distribution<double>(0, sigma)(random); }
  double between(double least, double most) { return std::uniform_real_distribution<double>(least, most)(random); }
  Point vector(double sigma) { return {normal(sigma), normal(sigma), normal(sigma)}; }
  Point direction() { return vector(1).normalized(); }

  /// The model's attitude in a pose: columns are its axes in the world (z down).
  Eigen::Matrix3d attitude(Pose pose, double tilt_deg, double slop_deg) {
    Eigen::Matrix3d m = Eigen::Matrix3d::Identity();
    switch (pose) {
      case Pose::level: break;
      case Pose::nose_up: m = about(Point::UnitY(), tilt_deg); break;
      case Pose::nose_down: m = about(Point::UnitY(), -tilt_deg); break;
      case Pose::right_down: m = about(Point::UnitX(), tilt_deg); break;
      case Pose::left_down: m = about(Point::UnitX(), -tilt_deg); break;
      case Pose::upside_down: m = about(Point::UnitX(), 180); break;
    }
    return m * about(direction(), normal(slop_deg));
  }
};

/// What an accelerometer that sits so reads in that attitude, m/s².
inline Point force_on(const Eigen::Matrix3d& alignment, const Eigen::Matrix3d& attitude) {
  return alignment.transpose() * (attitude.transpose() * Point(0, 0, -9.80665));
}

/// An accelerometer: true = matrix · (reading − offset).
struct Accelerometer {
  Eigen::Matrix3d matrix = Eigen::Matrix3d::Identity();
  Point offset = {0, 0, 0};
  double noise = 0.05;
  static Accelerometer random(Hands& hands, double cross = 0.008) {
    Accelerometer a;
    a.offset = hands.vector(0.3);
    for (int i = 0; i < 3; ++i) a.matrix(i, i) += hands.normal(0.02);
    for (int i = 0; i < 3; ++i)
      for (int j = 0; j < i; ++j) a.matrix(i, j) = a.matrix(j, i) = hands.normal(cross);
    return a;
  }
  Point read(const Point& truth, Hands& hands) const { return matrix.inverse() * truth + offset + hands.vector(noise); }
};

/// Two seconds still in each direction, half a second of motion between, 50 readings a second. `spoilt` poses are
/// pushed.
inline Recording poses_of(const Accelerometer& sensor, const std::vector<Point>& directions, Hands& hands,
                          const std::set<std::size_t>& spoilt = {}) {
  Recording all;
  const auto add = [&](const Point& truth) {
    all.t_s.push_back(static_cast<double>(all.size()) / 50);
    all.readings.add(sensor.read(truth, hands));
  };
  for (std::size_t i = 0; i < directions.size(); ++i) {
    for (int k = 0; k < 25; ++k) add(hands.direction() * 9.80665 + hands.vector(1.5));
    const double push = spoilt.count(i) ? 1.12 : 1;
    for (int k = 0; k < 100; ++k) add(directions[i] * 9.80665 * push);
  }
  return all;
}

inline std::vector<Point> six_faces() { return {{1, 0, 0}, {-1, 0, 0}, {0, 1, 0}, {0, -1, 0}, {0, 0, 1}, {0, 0, -1}}; }

/// The faces and the twelve edges.
inline std::vector<Point> faces_and_edges() {
  std::vector<Point> all = six_faces();
  for (int a = 0; a < 3; ++a)
    for (const double s : {-1.0, 1.0})
      for (const double t : {-1.0, 1.0}) {
        Point p = {0, 0, 0};
        p[a] = s;
        p[(a + 1) % 3] = t;
        all.push_back(p.normalized());
      }
  return all;
}

/// A compass among iron: reading = soft · field + hard + noise, µT.
struct Compass {
  Eigen::Matrix3d soft = Eigen::Matrix3d::Identity();
  Point hard = {0, 0, 0};
  double field = 48, noise = 0.4;
  static Compass random(Hands& hands) {
    Compass c;
    c.hard = hands.vector(25);
    for (int i = 0; i < 3; ++i)
      for (int j = 0; j <= i; ++j) c.soft(i, j) = c.soft(j, i) = (i == j ? 1 : 0) + hands.normal(0.04);
    return c;
  }
  Recording turned(std::size_t n, Hands& hands, const std::function<bool(const Point&)>& through = {}) const {
    Recording all;
    while (all.size() < n) {
      const Point u = hands.direction();
      if (through && !through(u)) continue;
      all.t_s.push_back(static_cast<double>(all.size()) / 100);
      all.readings.add(soft * u * field + hard + hands.vector(noise));
    }
    return all;
  }
  /// What corrects it, of the same volume.
  Eigen::Matrix3d cure() const {
    const Eigen::Matrix3d inverse = soft.inverse();
    return inverse / std::cbrt(inverse.determinant());
  }
};

}  // namespace rigging
