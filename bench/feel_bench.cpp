#include <benchmark/benchmark.h>

#include <cmath>
#include <random>
#include <sstream>

#include "base/angle.h"
#include "bench_rig.h"
#include "feel/feel.h"
#include "feel/flyer.h"
#include "feel/oscillation.h"
#include "flight/dynamics.h"

namespace rigging {
namespace {

void BM_MarginsOverFiftySpeeds(benchmark::State& state) {
  const FeelReport r = analyze_feel({demo("hedgerow"), shipped()});
  const AxisFeel& roll = r.of(Axis::roll);
  for (auto _ : state)
    benchmark::DoNotOptimize(margins_over_speed(r.aeroplane, roll.control, Axis::roll, roll.path, nullptr));
}
BENCHMARK(BM_MarginsOverFiftySpeeds)->Unit(benchmark::kMillisecond);

void BM_ExactMarginsOfOneLoop(benchmark::State& state) {
  const FeelReport r = analyze_feel({demo("hedgerow"), shipped()});
  const AxisFeel& roll = r.of(Axis::roll);
  const Loop l = loop_at(r.aeroplane, roll.control, Axis::roll, roll.path, 15, 0.05, true);
  for (auto _ : state) benchmark::DoNotOptimize(margins_of(l));
}
BENCHMARK(BM_ExactMarginsOfOneLoop)->Unit(benchmark::kMicrosecond);

void BM_FeelReport(benchmark::State& state) {
  const Rig rig = demo("hedgerow");
  for (auto _ : state) benchmark::DoNotOptimize(analyze_feel({rig, shipped()}).fast_m_s);
}
BENCHMARK(BM_FeelReport)->Unit(benchmark::kMillisecond);

/// The equations alone, steps of a millisecond of the fourth order; tests/reference/data/flight_ivp.py solves the same
/// ones with SciPy's solve_ivp.
void BM_SixDegreeSteps(benchmark::State& state) {
  const FeelReport r = analyze_feel({demo("hedgerow"), shipped()});
  const FlightModel model(r.aeroplane, drag_of(demo("hedgerow").airframe, r.aeroplane.cruise_m_s), {10, 30});
  Motion m = Motion::straight(r.aeroplane.cruise_m_s, 100, 0.2);
  for (auto _ : state) {
    model.step(m, {.pitch = 0.002}, 0.5, {}, 1e-3);
    benchmark::DoNotOptimize(m);
    benchmark::ClobberMemory();
  }
  state.SetItemsProcessed(state.iterations());
}
BENCHMARK(BM_SixDegreeSteps);

/// The whole flight: law, pulses, four servos, gusts and all.
void BM_TenMinutesInTheLoop(benchmark::State& state) {
  const Rig rig = demo("hedgerow");
  FlyOptions o;
  o.seconds = 600;
  o.wind_m_s = 5;
  for (auto _ : state) benchmark::DoNotOptimize(fly(rig, shipped(), o)->lowest_m);
  state.SetItemsProcessed(state.iterations() * 600000);
}
BENCHMARK(BM_TenMinutesInTheLoop)->Unit(benchmark::kMillisecond);

/// Ten minutes at a thousand readings a second, three axes with sticks and corrections: one burst of shaking, and
/// gusts.
void BM_TenMinuteLog(benchmark::State& state) {
  FlightLog log;
  log.step_s = 1e-3;
  log.size = 600000;
  log.stretches = {{0, log.size}};
  std::mt19937 random(1);
  std::normal_distribution<double> normal;
  for (AxisLog& a : log.axes) {
    double rate = 0;
    for (std::size_t i = 0; i < log.size; ++i) {
      rate += 1e-3 * (-rate / 0.2) + normal(random) * 0.3;
      const double t = log.at_s(i);
      a.rate_deg_s.push_back(rate + (t > 200 && t < 215 ? 60 * std::sin(2 * pi * 6 * t) : 0));
      a.stick.push_back(0.1 * std::sin(0.5 * t));
      a.correction.push_back(-0.01 * a.rate_deg_s.back());
    }
  }
  for (auto _ : state) benchmark::DoNotOptimize(oscillations_in(log).size());
}
BENCHMARK(BM_TenMinuteLog)->Unit(benchmark::kMillisecond);

}  // namespace
}  // namespace rigging
