#include "rig/sensing.h"

#include "base/described.h"
#include "rig/ranges.h"

namespace rigging {

template <>
const Members& Described<SensorCorrection>::members() {
  constexpr Span offset{-1000, 1000}, scale{0.2, 5}, cross{-1, 1};
  static const Members all = Describe<SensorCorrection>()
                                 .member("offset_x", &SensorCorrection::offset_x, offset)
                                 .member("offset_y", &SensorCorrection::offset_y, offset)
                                 .member("offset_z", &SensorCorrection::offset_z, offset)
                                 .member("scale_x", &SensorCorrection::scale_x, scale)
                                 .member("scale_y", &SensorCorrection::scale_y, scale)
                                 .member("scale_z", &SensorCorrection::scale_z, scale)
                                 .member("cross_xy", &SensorCorrection::cross_xy, cross)
                                 .member("cross_xz", &SensorCorrection::cross_xz, cross)
                                 .member("cross_yz", &SensorCorrection::cross_yz, cross)
                                 .rest(&SensorCorrection::extra);
  return all;
}

template <>
const Members& Described<Sensing>::members() {
  static const Members all =
      Describe<Sensing>()
          .needed("board", &Sensing::board)
          .member("roll_reversed", &Sensing::roll_reversed)
          .member("pitch_reversed", &Sensing::pitch_reversed)
          .member("yaw_reversed", &Sensing::yaw_reversed)
          .member("level_nose_up_deg", &Sensing::level_nose_up_deg, range::degrees, "level, nose up")
          .member("accelerometer", &Sensing::accelerometer)
          .member("compass", &Sensing::compass)
          .rest(&Sensing::extra);
  return all;
}

}  // namespace rigging
