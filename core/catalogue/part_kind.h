#pragma once

#include <optional>

#include "catalogue/terminal.h"
#include "rig/rig.h"

namespace rigging {

enum class PartGroup {
  servo,
  receiver,
  speed_controller,
  regulator,
  battery,
  power_module,
  motor,
  propeller,
  satellite_receiver,
  compass,
  airspeed,
  camera,
  video_transmitter,
  camera_switch,  ///< chooses between two pictures, worked by a channel
  buzzer,
  light,
  lead,
  plug,
  other
};

struct ServoFigures {
  bool digital = false;
  double seconds_per_60deg = 0.12;
  double torque_nm = 0.15;  ///< stalled, at five volts
  double dead_band_us = 5;
  double most_rate_hz = 50;
  UnknownMembers unknown_members;
  bool operator==(const ServoFigures&) const = default;
};

struct BatteryFigures {
  int cells = 3;
  double capacity_ah = 2.2;
  double amps = 40;                                                    ///< continuous
  double cell_milliohm = 6;                                            ///< warm, each cell
  double full_cell_v = 4.2, nominal_cell_v = 3.7, empty_cell_v = 3.3;  ///< empty: under load
  UnknownMembers unknown_members;
  bool operator==(const BatteryFigures&) const = default;
};

struct DriveFigures {
  double amps = 30;  ///< a speed controller's or power module's, continuous
  int least_cells = 2, most_cells = 4;
  UnknownMembers unknown_members;
  bool operator==(const DriveFigures&) const = default;
};

struct MotorFigures {
  double rpm_per_v = 1000;
  double ohm = 0.08;
  double no_load_a = 0.7;
  double amps = 18;  ///< most, for some seconds
  UnknownMembers unknown_members;
  bool operator==(const MotorFigures&) const = default;
};

struct PropellerFigures {
  double diameter_m = 0.23;
  double pitch_m = 0.13;
  int blades = 2;            ///< 2 to 6
  bool slow_fly = false;     ///< broad, thin blades for slow models
  bool left_handed = false;  ///< turns against the clock seen from behind in tractor flight
  UnknownMembers unknown_members;
  bool operator==(const PropellerFigures&) const = default;
};

struct SerialFigures {
  double baud = 115200;
  UnknownMembers unknown_members;
  bool operator==(const SerialFigures&) const = default;
};

struct LeadFigures {
  LeadKind kind = LeadKind::servo;
  double awg = 26;
  double length_m = 0.3;
  UnknownMembers unknown_members;
  bool operator==(const LeadFigures&) const = default;
};

/// A pair of plugs for power leads. The side that gives has the covered contacts (sleeves), the side that takes the
/// pins (common practice).
struct PlugFigures {
  double amps = 40;  ///< continuous
  UnknownMembers unknown_members;
  bool operator==(const PlugFigures&) const = default;
};

/// A kind of part. What does not apply is absent.
struct PartKind {
  std::string id;
  std::string name;
  PartGroup group = PartGroup::other;
  std::optional<double> mass_kg;
  std::optional<double> length_mm, width_mm, height_mm;  ///< along, across and up when it lies as usual
  std::string basis;                                     ///< where the figures come from
  std::vector<Terminal> terminals;
  std::vector<Feed> feeds;
  std::vector<Load> loads;
  std::optional<ServoFigures> servo;
  std::optional<BatteryFigures> battery;
  std::optional<DriveFigures> drive;
  std::optional<MotorFigures> motor;
  std::optional<PropellerFigures> propeller;
  std::optional<SerialFigures> serial;
  std::optional<LeadFigures> lead;
  std::optional<PlugFigures> plug;
  bool needs_sky = false;
  bool magnetic_sensor = false;  ///< a compass is in it
  UnknownMembers unknown_members;
  bool operator==(const PartKind&) const = default;

  const Terminal* terminal(const std::string& terminal_id) const;
};

}  // namespace rigging

namespace rigging {
template <>
struct Names<PartGroup> {
  using G = PartGroup;
  static constexpr std::array<std::pair<G, std::string_view>, 19> list{{{G::servo, "servo"},
                                                                        {G::receiver, "receiver"},
                                                                        {G::speed_controller, "speed_controller"},
                                                                        {G::regulator, "regulator"},
                                                                        {G::battery, "battery"},
                                                                        {G::power_module, "power_module"},
                                                                        {G::motor, "motor"},
                                                                        {G::propeller, "propeller"},
                                                                        {G::satellite_receiver, "satellite_receiver"},
                                                                        {G::compass, "compass"},
                                                                        {G::airspeed, "airspeed"},
                                                                        {G::camera, "camera"},
                                                                        {G::video_transmitter, "video_transmitter"},
                                                                        {G::camera_switch, "camera_switch"},
                                                                        {G::buzzer, "buzzer"},
                                                                        {G::light, "light"},
                                                                        {G::lead, "lead"},
                                                                        {G::plug, "plug"},
                                                                        {G::other, "other"}}};
};
}  // namespace rigging
