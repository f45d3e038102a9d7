#include "base/alignment.h"

#include <Eigen/Geometry>

#include "base/angle.h"

namespace rigging {

Eigen::Matrix3d alignment_matrix(const Turn& turn, double roll_deg, double pitch_deg, double yaw_deg) {
  // Columns: where the board's own x (arrow), y and z (away from its top) point in the model.
  Eigen::Matrix3d square;
  square.col(0) = Point::Unit(turn.arrow.axis % 3) * turn.arrow.sign;
  square.col(2) = Point::Unit(turn.top.axis % 3) * -turn.top.sign;
  square.col(1) = square.col(2).cross(square.col(0));
  return Eigen::AngleAxisd(yaw_deg * rad, Point::UnitZ()) * Eigen::AngleAxisd(pitch_deg * rad, Point::UnitY()) *
         Eigen::AngleAxisd(roll_deg * rad, Point::UnitX()) * square;
}

}  // namespace rigging
