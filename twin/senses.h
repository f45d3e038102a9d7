#pragma once

#include <random>
#include <set>

#include "catalogue/catalogue.h"
#include "reports/reports.h"
#include "rig/rig.h"
#include "satellites.h"
#include "signal/motion.h"

namespace rigging::twin {

/// The sensors of board and compass as they really are: reading = matrix · truth + offset + noise, in their own axes.
struct SensesTruth {
  Eigen::Matrix3d board = Eigen::Matrix3d::Identity(), compass = Eigen::Matrix3d::Identity();  ///< how they sit
  bool has_compass = false;
  Eigen::Matrix3d force = Eigen::Matrix3d::Identity(), iron = Eigen::Matrix3d::Identity();
  Point force_offset = {0, 0, 0}, rate_offset = {0, 0, 0}, field_offset = {0, 0, 0};
  double force_noise = 0.05, rate_noise = 0.08, field_noise = 0.35;  ///< m/s², °/s, µT (common practice)
  Point rate_drift = {0, 0, 0};                                      ///< °/s for each degree of warmth
  bool bumped = false;            ///< the model is bumped while the board looks for its zero, the first time
  Point iron_around = {0, 0, 0};  ///< what iron in the room adds to the earth's field, north, east, down, µT
  Point field_per_a = {0, 0, 0};  ///< of the motor's current, µT for each ampere, compass axes
  double shaking = 1.2;           ///< of the motor at full throttle without a propeller, m/s²
  bool has_barometer = false, has_airspeed = false;
  double barometer_drift_pa_s = 0;
  double pitot_zero_pa = 0, pitot_leak_s = 600;  ///< left of its zero; time constant of what is lost
  bool hoses_exchanged = false;
  std::set<Sensor> sick,
      left_over;  ///< found and saying nonsense; told to be used though nothing of the kind is fitted
  SkyTruth sky = SkyTruth::fine;
};

/// "bumped", "left_over_airspeed", "sick_compass", "sky_poor", "hoses_exchanged", "pitot_leak": by name, for tests and
/// trainers. An error lists them.
Result<void> add_sense_fault(SensesTruth& truth, const std::string& name);
std::vector<std::string> sense_fault_names();

/// Sensors without an error but noise, sitting as the rig says.
SensesTruth senses_of(const Reports& reports);
/// A board that sits otherwise than the rig says sits so; the small angles of its place stay on top where it does not.
void sit_as(SensesTruth& truth, const Rig& rig, const Turn& board);
/// Zeros off, scales off, axes not quite square, iron near the compass. The same seed draws the same.
void make_poor(SensesTruth& truth, unsigned seed);

/// What they read over time, a hundred times a second.
class Senses {
 public:
  explicit Senses(SensesTruth truth) : truth_(std::move(truth)) {}

  /// What goes on around them. `attitude`: columns are the model's axes in the world (north, east, down). Asleep
  /// nothing is read, and the zero is looked for anew.
  struct Around {
    Eigen::Matrix3d attitude = Eigen::Matrix3d::Identity();
    bool awake = false;
    double motor = 0;  ///< its speed, 0 to 1
  };
  void step(double dt_s, const Around& around);
  /// Supply out, however shortly: the next start looks for its zero anew.
  void fall_asleep();
  /// Since the last time; the oldest are dropped where nobody reads.
  BoardReadings take() { return {std::exchange(samples_, {}), std::exchange(slow_, {}), {}}; }
  /// It was moved while it looked for its zero, after its last start.
  bool moved_at_start() const { return moved_at_start_; }
  void push_tube(double pressure_pa) {
    tube_pa_ = pressure_pa;
    pushed_s_ = 0;
  }
  const SensesTruth& truth() const { return truth_; }

 private:
  Point noise(double sigma);
  SensesTruth truth_;
  Eigen::Matrix3d before_ = Eigen::Matrix3d::Identity();
  void read_slow(double current_a);
  double now_s_ = 0, next_s_ = 0, since_s_ = 0, slow_s_ = 0;
  double awake_s_ = 0, tube_pa_ = 0, pushed_s_ = 0;
  bool bumped_once_ = false, moved_at_start_ = false;
  Point zero_ = {0, 0, 0}, zero_sum_ = {0, 0, 0};
  int zero_count_ = 0;
  std::mt19937 random_{1};
  std::vector<MotionSample> samples_;
  std::vector<SlowReading> slow_;
};

}  // namespace rigging::twin
