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
                                 .rest(&SensorCorrection::unknown_members);
  return all;
}

template <>
const Members& Described<CurrentField>::members() {
  constexpr Span field{-100, 100};
  static const Members all = Describe<CurrentField>()
                                 .member("x_ut_per_a", &CurrentField::x_ut_per_a, field)
                                 .member("y_ut_per_a", &CurrentField::y_ut_per_a, field)
                                 .member("z_ut_per_a", &CurrentField::z_ut_per_a, field)
                                 .rest(&CurrentField::unknown_members);
  return all;
}

template <>
const Members& Described<ReportedSensor>::members() {
  static const Members all = Describe<ReportedSensor>()
                                 .needed("sensor", &ReportedSensor::sensor)  // places go by it
                                 .needed("state", &ReportedSensor::state)
                                 .rest(&ReportedSensor::unknown_members);
  return all;
}

std::optional<bool> Sensing::*use_of(Sensor sensor) {
  switch (sensor) {
    case Sensor::barometer: return &Sensing::uses_barometer;
    case Sensor::compass: return &Sensing::uses_compass;
    case Sensor::airspeed: return &Sensing::uses_airspeed;
    case Sensor::satellites: return &Sensing::uses_satellites;
    case Sensor::gyro:
    case Sensor::accelerometer: break;
  }
  return nullptr;
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
          .member("level_right_down_deg", &Sensing::level_right_down_deg, range::small_deg, "level, right wing down")
          .member("accelerometer", &Sensing::accelerometer)
          .member("compass", &Sensing::compass)
          .member("motor_field", &Sensing::motor_field)
          .member("uses_barometer", &Sensing::uses_barometer)
          .member("uses_compass", &Sensing::uses_compass)
          .member("uses_airspeed", &Sensing::uses_airspeed)
          .member("uses_satellites", &Sensing::uses_satellites)
          .member("reported", &Sensing::reported)
          .rest(&Sensing::unknown_members);
  return all;
}

}  // namespace rigging
