#pragma once

#include <string>
#include <vector>

#include "base/figure.h"
#include "catalogue/catalogue.h"
#include "flight/axis_plant.h"

/// Where a stabilizer begins to shake, against airspeed.
namespace rigging {

/// How a correction gets from the sensed rate to the surfaces of one axis.
struct SignalPath {
  double full_gain_s = 0;                  ///< radians of surface for a radian a second, with the gain at most
  double level_per_s = 0;                  ///< of a levelling mode: rate that a radian of tilt is worth
  double filter_hz = 0;                    ///< low-pass of first order on the rate
  double servo_hz = 0;                     ///< natural frequency of the slowest servo
  double servo_least = 1, servo_most = 1;  ///< its band, as factors
  double pulses_hz = 0;                    ///< of the slowest output
  double delay_s = 0, delay_least_s = 0, delay_most_s = 0;
  double dead_band_rad = 0, play_rad = 0;  ///< of the mean surface, whole widths
  std::vector<Figure> figures;
  bool operator==(const SignalPath&) const = default;
};

/// One surface's servo: natural frequency of small movements, how fast it moves the surface, and whether the rig names
/// it (else a usual one).
struct SurfaceServo {
  double hz = 0, deg_s = 0;
  bool known = false;
};
inline constexpr double servo_damping = 0.7;      ///< from memory
inline constexpr double pulse_itself_s = 0.0015;  ///< until it is told
SurfaceServo surface_servo(const Rig& rig, const Catalogue& catalogue, const SurfaceAnswer& answer);

/// From the class (cycle, filter, strength), the outputs' pulse rate, the slowest servo of the axis (0.85 / time for
/// 60° of an analogue one, 1.1 of a digital one, 0.7 to 1.4 times that, from memory) and the linkages. The delay: one
/// and a half cycles of the controller, half a period of the pulses, 1.5 ms for the pulse itself; its band is the
/// servo's own sampling, up to one more pulse.
SignalPath signal_path(const Rig& rig, const Catalogue& catalogue, const ControllerClass& controller,
                       const SurfacesReport& surfaces, const AxisControl& control, Axis axis);

struct MarginPoint {
  double m_s = 0;
  /// Rate gain, s, at which it begins to shake; the band holds nine of ten.
  double shakes_s = 0, shakes_least_s = 0, shakes_most_s = 0;
  double hz = 0;  ///< at which it then shakes
  /// Up to here all but one in twenty keep 6 dB and 45° (common practice).
  double calm_s = 0;
  bool operator==(const MarginPoint&) const = default;
};

struct MarginOptions {
  int speeds = 50;
  int draws = 48;       ///< out of the band of everything that is uncertain
  bool levels = false;  ///< in a levelling mode
  double at_m_s = 0;    ///< this speed alone; 0: all of them
};

/// From a tenth above the stall speed to the dive speed. The same draws at every speed. Points at which nothing shakes
/// (the phase never gets there) have 0 for `shakes_s`. `learnt`: null, or what flights have told of the loop gain,
/// which then stands for the bands of surface and inertia.
std::vector<MarginPoint> margins_over_speed(const Aeroplane& aeroplane, const AxisControl& control, Axis axis,
                                            const SignalPath& path, const LearnedGain* learnt,
                                            const MarginOptions& options = {});

/// The loop of one axis at a speed, with a gain.
Loop loop_at(const Aeroplane& aeroplane, const AxisControl& control, Axis axis, const SignalPath& path, double m_s,
             double rate_gain_s, bool levels);

}  // namespace rigging
