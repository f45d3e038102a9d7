#pragma once

#include <optional>
#include <vector>

#include "base/axis.h"
#include "base/described.h"
#include "base/unknown_members.h"
#include "rig/names.h"

namespace rigging {

/// What a sensor's readings are corrected by: matrix · (reading − offset), the matrix symmetric. Offsets in the unit of
/// the readings (m/s², µT), in the sensor's own axes.
struct SensorCorrection {
  double offset_x = 0, offset_y = 0, offset_z = 0;
  double scale_x = 1, scale_y = 1, scale_z = 1;
  double cross_xy = 0, cross_xz = 0, cross_yz = 0;
  UnknownMembers unknown_members;
  bool operator==(const SensorCorrection&) const = default;
};

template <>
const Members& Described<SensorCorrection>::members();

/// What the motor's current adds to a compass, µT for each ampere, in the compass's axes.
struct CurrentField {
  double x_ut_per_a = 0, y_ut_per_a = 0, z_ut_per_a = 0;
  UnknownMembers unknown_members;
  bool operator==(const CurrentField&) const = default;
};

template <>
const Members& Described<CurrentField>::members();

enum class Sensor { gyro, accelerometer, barometer, compass, airspeed, satellites };
enum class SensorState { works, missing, sick };

/// What a board said of one sensor that it has or looks for.
struct ReportedSensor {
  Sensor sensor = Sensor::gyro;
  SensorState state = SensorState::works;
  UnknownMembers unknown_members;
  bool operator==(const ReportedSensor&) const = default;
};

template <>
const Members& Described<ReportedSensor>::members();

struct Sensing {
  TurnName board;  ///< as the controller was told that it sits
  bool roll_reversed = false, pitch_reversed = false, yaw_reversed = false;
  /// The attitude that it takes for level, of the floor that the board sits on.
  std::optional<double> level_nose_up_deg, level_right_down_deg;
  std::optional<SensorCorrection> accelerometer, compass;
  std::optional<CurrentField> motor_field;
  /// What the board is told to use; what is not said it finds out by itself. One that it was told to use and does not
  /// find keeps it from arming.
  std::optional<bool> uses_barometer, uses_compass, uses_airspeed, uses_satellites;
  std::vector<ReportedSensor> reported;  ///< when it was last asked
  UnknownMembers unknown_members;
  bool operator==(const Sensing&) const = default;

  bool reversed(Axis axis) const {
    return axis == Axis::roll ? roll_reversed : axis == Axis::pitch ? pitch_reversed : yaw_reversed;
  }
  bool& reversed(Axis axis) {
    return axis == Axis::roll ? roll_reversed : axis == Axis::pitch ? pitch_reversed : yaw_reversed;
  }
};

template <>
const Members& Described<Sensing>::members();

/// Whether the board is told to use it; null of a sensor that every board uses.
std::optional<bool> Sensing::*use_of(Sensor sensor);

template <>
struct Names<Sensor> {
  using S = Sensor;
  static constexpr std::array<std::pair<S, std::string_view>, 6> list{{{S::gyro, "gyro"},
                                                                       {S::accelerometer, "accelerometer"},
                                                                       {S::barometer, "barometer"},
                                                                       {S::compass, "compass"},
                                                                       {S::airspeed, "airspeed"},
                                                                       {S::satellites, "satellites"}}};
};
template <>
struct Names<SensorState> {
  using S = SensorState;
  static constexpr std::array<std::pair<S, std::string_view>, 3> list{
      {{S::works, "works"}, {S::missing, "missing"}, {S::sick, "sick"}}};
};

}  // namespace rigging
