#include <benchmark/benchmark.h>

#include "airframe/proportions.h"
#include "ask/knowledge.h"
#include "begin/begin.h"
#include "bench_rig.h"
#include "fit/usual_places.h"

namespace rigging {
namespace {

NewAircraft a_wing() {
  NewAircraft b;
  b.kind = AirframeKind::flying_wing, b.span_m = 1.2, b.mass_kg = 1.1;
  const auto airframe = airframe_of(b);
  b.drive = suggest_drives(*airframe, shipped()).front().kinds;
  b.servo = usual_servo(*airframe, shipped());
  b.receiver = usual_receiver(shipped(), b.controller);
  b.others = parts_in_words(shipped(), "camera, 200 mW video, satellite with compass, buzzer");
  return b;
}

void list_of_parts_in_words(benchmark::State& state) {
  for (auto _ : state)
    benchmark::DoNotOptimize(
        parts_in_words(shipped(), "camera, 200 mW video, satellite with compass, 5 V 3 A regulator"));
}
BENCHMARK(list_of_parts_in_words)->Unit(benchmark::kMicrosecond);

/// With every key that is typed into span or mass.
void drives_that_suit(benchmark::State& state) {
  Airframe a = usual_airframe(AirframeKind::flying_wing, 1.2);
  a.mass_kg = 1.1;
  for (auto _ : state) benchmark::DoNotOptimize(suggest_drives(a, shipped()));
}
BENCHMARK(drives_that_suit)->Unit(benchmark::kMicrosecond);

void place_every_part(benchmark::State& state) {
  const Rig rig = demo("hedgerow");
  for (auto _ : state) benchmark::DoNotOptimize(place_parts(rig, shipped(), true));
}
BENCHMARK(place_every_part)->Unit(benchmark::kMicrosecond);

void begin_a_rig(benchmark::State& state) {
  const NewAircraft b = a_wing();
  for (auto _ : state) benchmark::DoNotOptimize(begin_rig(shipped(), b));
}
BENCHMARK(begin_a_rig)->Unit(benchmark::kMicrosecond);

/// With every key that is typed into the ask box.
void answer_a_question(benchmark::State& state) {
  const Rig rig = demo("hedgerow");
  const Review r = review(rig, shipped());
  const Knowledge knowledge(topics_beside(in_source("/data")));
  const std::vector<Term> terms = terms_beside(in_source("/data"));
  const std::vector<Passage> manual = passages_beside(in_source("/data"));
  for (auto _ : state)
    benchmark::DoNotOptimize(
        answers({rig, shipped(), r, nullptr, &terms, &manual, &knowledge}, "why does it wag its tail"));
}
BENCHMARK(answer_a_question)->Unit(benchmark::kMicrosecond);

}  // namespace
}  // namespace rigging
