#include <benchmark/benchmark.h>

#include "home/field_files.h"
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
  const FeelReport feel = analyze_feel({rig, shipped()});
  for (auto _ : state) benchmark::DoNotOptimize(analyze_home({rig, shipped()}, feel));
}
BENCHMARK(home_of_a_rig)->Unit(benchmark::kMicrosecond);

void story_of_a_lost_link(benchmark::State& state) {
  const Rig rig = demo("hedgerow");
  const HomeReport r = analyze_home({rig, shipped()}, analyze_feel({rig, shipped()}));
  for (auto _ : state) benchmark::DoNotOptimize(loss_story(rig, shipped(), r, {800, 90, 30}, 2000));
}
BENCHMARK(story_of_a_lost_link);

void rose_of_every_wind(benchmark::State& state) {
  const Rig rig = demo("hedgerow");
  const HomeReport r = analyze_home({rig, shipped()}, analyze_feel({rig, shipped()}));
  for (auto _ : state) benchmark::DoNotOptimize(wind_rose_of(rig, r));
}
BENCHMARK(rose_of_every_wind)->Unit(benchmark::kMicrosecond);

void reach_as_gpx(benchmark::State& state) {
  Rig rig = demo("hedgerow");
  rig.fit.latitude_deg = 47, rig.fit.longitude_deg = 8;
  const HomeReport r = analyze_home({rig, shipped()}, analyze_feel({rig, shipped()}));
  const ReachBand band = reach_band(r, 1500, r.expected.wind);
  for (auto _ : state) benchmark::DoNotOptimize(reach_gpx(rig, r, band, 1500));
}
BENCHMARK(reach_as_gpx)->Unit(benchmark::kMicrosecond);

}  // namespace
}  // namespace rigging
