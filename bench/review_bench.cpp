#include <benchmark/benchmark.h>

#include "direction/from_rig.h"
#include "link/client.h"
#include "ports.h"
#include "review/review.h"
#include "rig/rig_file.h"

namespace rigging {
namespace {

const std::filesystem::path source(RIGGING_SOURCE_DIR);

void review_demo(benchmark::State& state) {
  const Catalogue catalogue = *load_catalogue(source / "data/catalogue");
  const Rig rig = *load_rig(source / "data/demo/hedgerow.rig.json");
  for (auto _ : state) benchmark::DoNotOptimize(review(rig, catalogue));
}
BENCHMARK(review_demo)->Unit(benchmark::kMicrosecond);

void rig_text_round_trip(benchmark::State& state) {
  const Rig rig = *load_rig(source / "data/demo/hedgerow.rig.json");
  for (auto _ : state) benchmark::DoNotOptimize(rig_from_json(*parse_json(rig_text(rig), "x"), "x"));
}
BENCHMARK(rig_text_round_trip)->Unit(benchmark::kMicrosecond);

/// The general-purpose alternative: the JSON library's own parse and dump, without any check of what is inside.
void plain_json_round_trip(benchmark::State& state) {
  const std::string text = rig_text(*load_rig(source / "data/demo/hedgerow.rig.json"));
  for (auto _ : state) benchmark::DoNotOptimize(OrderedJson::parse(text).dump(2));
}
BENCHMARK(plain_json_round_trip)->Unit(benchmark::kMicrosecond);

void write_and_read_back(benchmark::State& state) {
  const Catalogue catalogue = *load_catalogue(source / "data/catalogue");
  const Rig rig = *load_rig(source / "data/demo/hedgerow.rig.json");
  const ControllerClass& controller = *catalogue.controller(rig.controller.kind);
  twin::Bench bench(rig, controller, *twin::truth_of(rig, controller, {}));
  bench.plug({false, true});
  bench.step(0.5);
  twin::Store store;
  twin::ControllerPort port(bench, store, "1");
  link::Client client;
  for (auto _ : state) {
    link::WriteTransaction transaction(link::image_of(rig));
    while (auto request = transaction.next())
      for (auto& item : client.feed(port.feed(client.ask(request->what, request->body)))) transaction.answered(std::get<link::Reply>(item));
    if (!transaction.done()) state.SkipWithError("not written");
  }
}
BENCHMARK(write_and_read_back)->Unit(benchmark::kMicrosecond);

void frames(benchmark::State& state) {
  const std::string wire = link::encode_frame({{"id", 1}, {"bytes", Json::binary(std::vector<std::uint8_t>(1024, 7))}});
  link::FrameReader reader;
  for (auto _ : state) {
    reader.feed(wire);
    benchmark::DoNotOptimize(reader.take());
  }
  state.SetBytesProcessed(static_cast<std::int64_t>(state.iterations() * static_cast<std::int64_t>(wire.size())));
}
BENCHMARK(frames);

}  // namespace
}  // namespace rigging
