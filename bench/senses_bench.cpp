#include <benchmark/benchmark.h>

#include <Eigen/Geometry>
#include <random>

#include "senses/calibration.h"
#include "senses/compass_turn.h"
#include "senses/gyro.h"
#include "senses/orientation.h"

namespace rigging {
namespace {

/// The readings of tests/reference/data/compass_fit.py, drawn anew.
Recording readings(std::size_t n) {
  std::mt19937 random(2);
  std::normal_distribution<double> normal(0, 1);
  Eigen::Matrix3d soft;
  soft << 1.05, 0.03, -0.02, 0.03, 0.94, 0.04, -0.02, 0.04, 1.01;
  Recording r;
  for (std::size_t i = 0; i < n; ++i) {
    const Point u = Point(normal(random), normal(random), normal(random)).normalized();
    r.t_s.push_back(static_cast<double>(i) / 100);
    r.readings.add(soft * u * 48 + Point(12, -31, 7.5) + 0.4 * Point(normal(random), normal(random), normal(random)));
  }
  return r;
}

void BM_SphereFit(benchmark::State& state) {
  const Recording r = readings(static_cast<std::size_t>(state.range(0)));
  SphereFitOptions options;
  options.radius = 48;
  options.usual = {200, 0.15, 0.08};
  options.least_noise = 0.05;
  for (auto _ : state) benchmark::DoNotOptimize(fit_sphere(r.readings, options).offset);
}
BENCHMARK(BM_SphereFit)->Arg(1000)->Arg(20000)->Unit(benchmark::kMillisecond);

void BM_CompassCalibration(benchmark::State& state) {
  const Recording r = readings(20000);
  for (auto _ : state) benchmark::DoNotOptimize(calibrate_compass(r).offset);
}
BENCHMARK(BM_CompassCalibration)->Unit(benchmark::kMillisecond);

void BM_Orientation(benchmark::State& state) {
  std::vector<HeldPose> poses;
  for (const Pose p : {Pose::level, Pose::nose_up, Pose::right_down}) poses.push_back({p, 9.8 * reading_in(p, Turn{})});
  for (auto _ : state) benchmark::DoNotOptimize(orientation_from(poses));
}
BENCHMARK(BM_Orientation)->Unit(benchmark::kMicrosecond);

/// A minute at a hundred readings a second.
void BM_GyroAtRest(benchmark::State& state) {
  std::mt19937 random(5);
  std::normal_distribution<double> normal(0, 0.08);
  Recording r;
  for (int i = 0; i < 6000; ++i) {
    r.t_s.push_back(i * 0.01);
    r.readings.add({normal(random), normal(random), normal(random)});
  }
  for (auto _ : state) benchmark::DoNotOptimize(gyro_of(r).zero_deg_s);
}
BENCHMARK(BM_GyroAtRest)->Unit(benchmark::kMillisecond);

void BM_CompassTurn(benchmark::State& state) {
  std::mt19937 random(6);
  std::normal_distribution<double> normal(0, 1);
  const Point earth(20, 0, 43);
  std::vector<Point> fields, forces;
  for (int i = 0; i < 2000; ++i) {
    const Eigen::Quaterniond q =
        Eigen::Quaterniond(normal(random), normal(random), normal(random), normal(random)).normalized();
    fields.push_back(q * earth);
    forces.push_back(q * Point(0, 0, -9.80665));
  }
  for (auto _ : state) benchmark::DoNotOptimize(compass_turn(fields, forces).dip_deg);
}
BENCHMARK(BM_CompassTurn)->Unit(benchmark::kMillisecond);

}  // namespace
}  // namespace rigging
