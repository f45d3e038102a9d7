#include <benchmark/benchmark.h>

#include <Eigen/Dense>
#include <unsupported/Eigen/NonLinearOptimization>

#include "base/json.h"
#include "rig/rig_file.h"
#include "surfaces/surfaces.h"

namespace rigging {
namespace {

Linkage linkage() {
  Linkage l;
  l.rod_m = 0.12;
  l.horn_deg = 10;
  return l;
}

void linkage_pose(benchmark::State& state) {
  const FourBar bar = *FourBar::of(linkage());
  double arm = -40;
  for (auto _ : state) {
    benchmark::DoNotOptimize(bar.pose(arm));
    arm = arm > 40 ? -40 : arm + 0.37;
  }
}
BENCHMARK(linkage_pose);

void linkage_inverse(benchmark::State& state) {
  const FourBar bar = *FourBar::of(linkage());
  double up = -30;
  for (auto _ : state) {
    benchmark::DoNotOptimize(bar.arm_for(up));
    up = up > 30 ? -30 : up + 0.37;
  }
}
BENCHMARK(linkage_inverse);

/// The general-purpose alternative: a library's root finder on the length of the rod, begun where the last point lay.
struct RodMisfit {
  using Scalar = double;
  using InputType = Eigen::VectorXd;
  using ValueType = Eigen::VectorXd;
  using JacobianType = Eigen::MatrixXd;
  enum { InputsAtCompileTime = Eigen::Dynamic, ValuesAtCompileTime = Eigen::Dynamic };
  double arm_rad = 0;
  int inputs() const { return 1; }
  int values() const { return 1; }
  int operator()(const Eigen::VectorXd& horn, Eigen::VectorXd& off) const {
    const double x = 0.12 + 0.014 * std::sin(horn[0]) - 0.012 * std::sin(arm_rad),
                 y = 0.014 * std::cos(horn[0]) - 0.012 * std::cos(arm_rad);
    off[0] = x * x + y * y - 0.12 * 0.12;
    return 0;
  }
};

void linkage_by_root_finder(benchmark::State& state) {
  RodMisfit misfit;
  Eigen::VectorXd horn = Eigen::VectorXd::Zero(1);
  double arm = -40;
  for (auto _ : state) {
    misfit.arm_rad = arm / 57.29578;
    Eigen::NumericalDiff<RodMisfit> with_slope(misfit);
    Eigen::HybridNonLinearSolver<Eigen::NumericalDiff<RodMisfit>> solver(with_slope);
    solver.solveNumericalDiff(horn);
    benchmark::DoNotOptimize(horn[0]);
    arm = arm > 40 ? -40 : arm + 0.37;
    if (arm == -40) horn[0] = -0.5;
  }
}
BENCHMARK(linkage_by_root_finder);

void centring_of_a_surface(benchmark::State& state) {
  Linkage l = linkage();
  Output o;
  o.surfaces = {*surface_from_name("elevator")};
  o.mix.pitch = 1;
  for (const double us : {1000.0, 1250.0, 1500.0, 1750.0, 2000.0})
    l.readings.push_back({us, -3.0 + (us - 1500) * 0.06, {}});
  for (auto _ : state) benchmark::DoNotOptimize(centre(l, o));
}
BENCHMARK(centring_of_a_surface)->Unit(benchmark::kMicrosecond);

}  // namespace
}  // namespace rigging
