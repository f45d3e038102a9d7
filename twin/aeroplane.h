#pragma once

#include <array>
#include <map>

#include "catalogue/catalogue.h"
#include "direction/case.h"
#include "rig/rig.h"
#include "transmitter.h"

namespace rigging::twin {

/// The aeroplane as it really is: which lead sits in which socket, which way each servo turns, how the board sits, what
/// the transmitter does. Rigging never reads this; it only gets what the two links let through.
struct Truth {
  std::map<std::string, std::vector<Surface>> hangs_on;  ///< per socket, whose lead sits in it
  std::map<std::string, bool> dead;                      ///< per socket
  std::map<Surface, int> servo_sign;      ///< +1: a rising pulse lifts the trailing edge (rudder: right, motor: faster)
  Turn board;                             ///< how the board sits in the model
  std::array<int, 3> gyro_sign{1, 1, 1};  ///< of the sensor itself, per body axis
  std::vector<Axis> turned_functions;     ///< that the controller starts with the other way round than the rig says
  std::array<Gimbal, 4> gimbals;          ///< roll, pitch, throttle, yaw
  std::vector<Channel> settings;          ///< of the transmitter, where they are not what the rig says
  Signal signal = Signal::inverted_serial;  ///< of the receiver
  std::map<Surface, Linkage> linkages;      ///< as they are; a surface without one makes 25° for 500 µs
  struct Servo {
    double us_per_s = 500 / 0.18;
    double dead_band_us = 0;
    double centre_us = 0;  ///< off 1500
  };
  std::map<Surface, Servo> servos;
};

/// The truth of an aeroplane that would be right but for these faults, given what its rig says. An error if the faults
/// can't be meant against this rig.
Result<Truth> truth_of(const Rig& rig, const ControllerClass& controller, const std::vector<direction::Fault>& faults);

/// Sets the transmitter badly: channel order, direction, sub-trim, travel and gimbals. The same seed draws the same.
void set_badly(Truth& truth, const Rig& rig, unsigned seed);
/// Gimbals whose resting place drifts by 1.5 µs a second while they warm up; the throttle has none.
void make_cold(Truth& truth);
/// Makes the linkages crooked: arms on the wrong tooth, leaning horns, rods of the wrong length, servos off their
/// centre and with the dead band and speed of their kind; output directions stay. The same seed draws the same.
void make_crooked(Truth& truth, const Rig& rig, const Catalogue& catalogue, unsigned seed);

/// Draws `count` different faults that this class can cure and that show on this aeroplane. The same seed draws the
/// same.
std::vector<direction::Fault> drawn_faults(const Rig& rig, const ControllerClass& controller, int count, unsigned seed);

/// "output_reversed:out_1", "leads_swapped:out_1,out_2", "mix_sign_wrong:out_1,roll",
/// "board_turned:arrow_right_top_up", …
Result<direction::Fault> fault_from_text(const std::string& text, const direction::Case& c);

}  // namespace rigging::twin
