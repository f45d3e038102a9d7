#include <benchmark/benchmark.h>

#include "home/home_rigs.h"

namespace rigging {
namespace {

void one_way_home(benchmark::State& state) {
  HomeCase c = usual_way_home();
  for (auto _ : state) {
    c.place.bearing_deg += 0.1;
    benchmark::DoNotOptimize(way_home(c));
  }
}
BENCHMARK(one_way_home);

void reach_of_72_bearings(benchmark::State& state) {
  const HomeCase c = usual_way_home();
  for (auto _ : state) benchmark::DoNotOptimize(reach_of(c));
}
BENCHMARK(reach_of_72_bearings);

void home_of_a_rig(benchmark::State& state) {
  const Rig rig = demo("hedgerow");
  const FeelReport feel = feel_report(rig, shipped());
  for (auto _ : state) benchmark::DoNotOptimize(home_report(rig, shipped(), feel));
}
BENCHMARK(home_of_a_rig)->Unit(benchmark::kMicrosecond);

void story_of_a_lost_link(benchmark::State& state) {
  const Rig rig = demo("hedgerow");
  const HomeReport r = home_report(rig, shipped(), feel_report(rig, shipped()));
  for (auto _ : state) benchmark::DoNotOptimize(loss_story(rig, shipped(), r, {800, 90, 30}, 2000));
}
BENCHMARK(story_of_a_lost_link);

}  // namespace
}  // namespace rigging
