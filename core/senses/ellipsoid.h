#pragma once

#include "base/point.h"

/// What a sensor's readings are corrected by, and how least squares finds it: nine unknowns, known beforehand to what
/// is usual, changed by small steps.
namespace rigging {

/// Offset x y z, matrix xx yy zz, xy xz yz.
using Nine = Eigen::Matrix<double, 9, 1>;
using NineByNine = Eigen::Matrix<double, 9, 9>;

/// Corrected = matrix · (reading − offset). The matrix is symmetric, because lengths alone say nothing of a rotation.
struct Ellipsoid {
  Point offset = {0, 0, 0};
  Eigen::Matrix3d matrix = Eigen::Matrix3d::Identity();

  Point corrected(const Point& reading) const { return matrix * (reading - offset); }
  /// By how much it differs from correcting nothing.
  Nine unusual() const;
  void change(const Nine& step);
  /// What each unknown does to the length of the corrected reading.
  Nine length_slopes(const Point& reading) const;
};

/// What is taken for usual before anything was read: offset 0 and matrix 1, each to within one standard deviation. 0
/// for "nothing is known".
struct Usual {
  double offset = 0;  ///< in the unit of the readings
  double scale = 0.1;
  double cross = 0.05;

  /// What that is worth, as the inverse of variances.
  Nine information() const;
};

}  // namespace rigging
