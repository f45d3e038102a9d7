#include "senses.h"

#include <Eigen/Geometry>

#include "airframe/airframe.h"
#include "base/alignment.h"
#include "base/angle.h"
#include "earth/gravity.h"
#include "fit/fit.h"
#include "link/messages.h"
#include "power/power.h"
#include "senses/inventory.h"

namespace rigging::twin {
namespace {

constexpr double period_s = 0.01;
/// North, east and down of a place in the middle latitudes, µT.
const Point earth_ut{20, 0, 43};
constexpr double unsteady = 0.4;   ///< of a hand that turns the model at 100° a second, m/s²
constexpr double zeroing_s = 0.4;  ///< for which it looks for its zero after the start
constexpr double slow_period_s = 0.1, cold_c = 21, warmer_c = 19, warms_s = 90;
constexpr double shaft_hz = 138;                  ///< at full throttle: folded by a hundred readings a second
constexpr double idle_a = 0.3, bench_full_a = 6;  ///< without a propeller little flows

double temperature_at(double awake_s) { return cold_c + warmer_c * (1 - std::exp(-awake_s / warms_s)); }

}  // namespace

SensesTruth senses_of(const Reports& reports) {
  const Rig& rig = reports.rig();
  const Catalogue& catalogue = reports.catalogue();
  SensesTruth truth;
  truth.board = alignment_of(rig.mounting("controller"));
  const std::string compass = sensor_part(rig, catalogue, Sensor::compass);
  truth.has_compass = !compass.empty();
  const Mounting* apart = rig.mounting(compass);
  truth.compass = apart ? alignment_of(apart) : truth.board;
  truth.has_barometer = !sensor_part(rig, catalogue, Sensor::barometer).empty();
  truth.has_airspeed = !sensor_part(rig, catalogue, Sensor::airspeed).empty();
  // The field of the leads as station fit has it, in a direction of its own.
  const FitReport& fit = reports.fit();
  if (!fit.compasses.empty()) {
    double per_a = 0;
    for (const CompassPath& p : fit.compasses.front().paths)
      if (p.path.amps > 1) per_a += p.field_ut / p.path.amps;
    truth.field_per_a = per_a * Point(0.6, 0.64, 0.48);
  }
  return truth;
}

void sit_as(SensesTruth& truth, const Rig& rig, const Turn& board) {
  const Mounting* p = rig.mounting("controller");
  if (board != (p ? Turn(p->turn) : Turn{})) truth.board = alignment_matrix(board);
}

void make_poor(SensesTruth& truth, unsigned seed) {
  std::mt19937 random(seed * 2654435761u + 77u);
  std::normal_distribution<double> normal(0, 1);
  const auto vector = [&](double sigma) -> Point {
    return Point(normal(random), normal(random), normal(random)) * sigma;
  };
  truth.force_offset = vector(0.25);
  truth.rate_offset = vector(0.5);
  truth.field_offset = vector(18);
  truth.rate_drift = vector(0.012);
  truth.barometer_drift_pa_s = 0.05 * normal(random);
  truth.pitot_zero_pa = 3 * normal(random);
  // And what happens now and then.
  std::uniform_real_distribution<double> chance(0, 1);
  truth.bumped = chance(random) < 0.35;
  if (chance(random) < 0.35 && !truth.has_airspeed) truth.left_over.insert(Sensor::airspeed);
  if (const double sky = chance(random); sky < 0.45) truth.sky = sky < 0.3 ? SkyTruth::slow : SkyTruth::poor;
  if (chance(random) < 0.35) truth.pitot_leak_s = 12;
  truth.hoses_exchanged = chance(random) < 0.25;
  for (int i = 0; i < 3; ++i)
    for (int k = 0; k <= i; ++k) {
      truth.force(i, k) = truth.force(k, i) = (i == k ? 1 : 0) + normal(random) * (i == k ? 0.015 : 0.004);
      truth.iron(i, k) = truth.iron(k, i) = (i == k ? 1 : 0) + normal(random) * 0.04;
    }
}

Point Senses::noise(double sigma) {
  std::normal_distribution<double> normal(0, sigma);
  return {normal(random_), normal(random_), normal(random_)};
}

void Senses::fall_asleep() {
  samples_.clear();
  slow_.clear();
  awake_s_ = 0;
}

void Senses::step(double dt, const Around& around) {
  now_s_ += dt;
  since_s_ += dt;
  pushed_s_ += dt;
  if (now_s_ < next_s_) return;
  // On a grid of its own clock, whenever it is asked.
  const double read_at_s = next_s_;
  next_s_ += period_s;
  if (next_s_ < now_s_ - 10 * period_s) next_s_ = now_s_;
  const Eigen::Matrix3d& attitude = around.attitude;
  const Eigen::AngleAxisd turned(before_.transpose() * attitude);
  Point rate = turned.axis() * (turned.angle() / std::max(since_s_, 1e-6) / rad);
  before_ = attitude;
  const double step_s = since_s_;
  since_s_ = 0;
  if (!around.awake) {
    fall_asleep();
    return;
  }
  if (awake_s_ == 0) {
    zero_ = zero_sum_ = {0, 0, 0};
    zero_count_ = 0;
    moved_at_start_ = false;
  }
  awake_s_ += step_s;
  const bool zeroing = awake_s_ <= zeroing_s;
  if (zeroing && truth_.bumped && !bumped_once_) rate += Point(5, -3.5, 2);
  MotionSample s;
  s.t_s = read_at_s;
  const double current_a = idle_a + bench_full_a * around.motor * around.motor;
  Point force = attitude.transpose() * Point(0, 0, -standard_gravity) + noise(unsteady * rate.norm() / 100);
  const double turns = 2 * pi * shaft_hz * std::sqrt(std::max(0.0, around.motor)) * now_s_;
  force += truth_.shaking * around.motor * Point(0, std::sin(turns), std::cos(turns));
  s.force_m_s2 = truth_.force * (truth_.board.transpose() * force) + truth_.force_offset + noise(truth_.force_noise);
  const Point raw = truth_.board.transpose() * rate + truth_.rate_offset +
                    truth_.rate_drift * (temperature_at(awake_s_) - cold_c) + noise(truth_.rate_noise);
  if (zeroing) {
    zero_sum_ += raw;
    zero_ = zero_sum_ / ++zero_count_;
    moved_at_start_ = moved_at_start_ || rate.norm() > 3;
  } else if (moved_at_start_) {
    bumped_once_ = true;
  }
  s.rate_deg_s = raw - zero_;
  if (truth_.has_compass)
    s.field_ut = truth_.iron * (truth_.compass.transpose() * (attitude.transpose() * (earth_ut + truth_.iron_around))) +
                 truth_.field_offset + (current_a - idle_a) * truth_.field_per_a + noise(truth_.field_noise);
  if (now_s_ >= slow_s_) {
    slow_s_ = now_s_ + slow_period_s - 1e-9;
    read_slow(current_a);
  }
  samples_.push_back(s);
  if (samples_.size() > link::most_motion_samples) samples_.erase(samples_.begin());
}

void Senses::read_slow(double current_a) {
  std::normal_distribution<double> normal(0, 1);
  SlowReading s;
  s.t_s = now_s_;
  s.temperature_c = temperature_at(awake_s_);
  if (truth_.has_barometer) s.pressure_pa = 98600 + truth_.barometer_drift_pa_s * awake_s_ + 2.4 * normal(random_);
  if (truth_.has_airspeed)
    s.pitot_pa = truth_.pitot_zero_pa + 0.5 * normal(random_) +
                 (truth_.hoses_exchanged ? -1 : 1) * tube_pa_ * std::exp(-pushed_s_ / truth_.pitot_leak_s);
  s.current_a = current_a + 0.05 * normal(random_);
  slow_.push_back(s);
  if (slow_.size() > link::most_slow_readings) slow_.erase(slow_.begin());
}

namespace {

using SenseFault = std::pair<std::string, void (*)(SensesTruth&)>;

const std::vector<SenseFault>& sense_faults() {
  static const std::vector<SenseFault> all{
      {"bumped", [](SensesTruth& t) { t.bumped = true; }},
      {"left_over_airspeed", [](SensesTruth& t) { t.left_over.insert(Sensor::airspeed); }},
      {"left_over_compass", [](SensesTruth& t) { t.left_over.insert(Sensor::compass); }},
      {"sick_compass", [](SensesTruth& t) { t.sick.insert(Sensor::compass); }},
      {"sick_barometer", [](SensesTruth& t) { t.sick.insert(Sensor::barometer); }},
      {"sky_slow", [](SensesTruth& t) { t.sky = SkyTruth::slow; }},
      {"sky_poor", [](SensesTruth& t) { t.sky = SkyTruth::poor; }},
      {"sky_never", [](SensesTruth& t) { t.sky = SkyTruth::never; }},
      {"hoses_exchanged", [](SensesTruth& t) { t.hoses_exchanged = true; }},
      {"pitot_leak", [](SensesTruth& t) { t.pitot_leak_s = 12; }},
      {"iron_table",
       [](SensesTruth& t) {
         t.iron_around = {7, -9, 14};
       }},
      {"shaken", [](SensesTruth& t) { t.shaking = 14; }}};
  return all;
}

}  // namespace

std::vector<std::string> sense_fault_names() {
  std::vector<std::string> names;
  for (const SenseFault& f : sense_faults()) names.push_back(f.first);
  return names;
}

Result<void> add_sense_fault(SensesTruth& truth, const std::string& name) {
  std::string known;
  for (const auto& [id, add] : sense_faults()) {
    if (id == name) {
      add(truth);
      return {};
    }
    known += (known.empty() ? "" : ", ") + id;
  }
  return failure("sense fault", "\"" + name + "\" is not known", known);
}

}  // namespace rigging::twin
