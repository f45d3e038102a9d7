#pragma once

#include "base/point.h"
#include "base/turn.h"

namespace rigging {

/// Direction cosines of what sits turned: columns say where its own x, y and z point in the model. The small angles are
/// those of the model's axes (ZYX, ISO 1151), put on top of the turn, degrees.
Eigen::Matrix3d alignment_matrix(const Turn& turn, double roll_deg = 0, double pitch_deg = 0, double yaw_deg = 0);

}  // namespace rigging
