#include <benchmark/benchmark.h>

#include "airframe/airframe.h"
#include "airframe/lattice.h"

namespace {

using namespace rigging;

std::vector<LatticeSurface> surfaces() {
  Airframe a;
  a.kind = AirframeKind::tailerons_canards;
  const Planform p = planform_of(a);
  return {{p.wing, 4}, {*p.tail, 3}, {*p.foreplane, 3}, {*p.fin, 3}};
}

/// What an edit of a size costs; every other edit finds the loads in memory.
void neutral_point(benchmark::State& state) {
  const auto all = surfaces();
  for (auto _ : state) benchmark::DoNotOptimize(rising_loads(Lattice(all, 16)));
}
BENCHMARK(neutral_point)->Unit(benchmark::kMicrosecond);

/// The same aircraft on four times as many panels: what a general-purpose lattice of usual fineness would take.
void neutral_point_finer(benchmark::State& state) {
  auto all = surfaces();
  for (LatticeSurface& s : all) s.chordwise *= 2;
  for (auto _ : state) benchmark::DoNotOptimize(rising_loads(Lattice(all, 32)));
}
BENCHMARK(neutral_point_finer)->Unit(benchmark::kMicrosecond);

}  // namespace
