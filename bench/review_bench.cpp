#include <benchmark/benchmark.h>

#include "base/json.h"
#include "direction/from_rig.h"
#include "link/client.h"
#include "places.h"
#include "ports.h"
#include "review/deferred.h"
#include "review/review.h"
#include "rig/rig_file.h"
#include "wiring/plan.h"

namespace rigging {
namespace {

const std::filesystem::path source(in_source(""));

void review_demo(benchmark::State& state) {
  const Catalogue catalogue = *load_catalogue(source / "data/catalogue");
  const Rig rig = *load_rig(source / "data/demo/hedgerow.rig.json");
  for (auto _ : state) benchmark::DoNotOptimize(review(rig, catalogue));
}
BENCHMARK(review_demo)->Unit(benchmark::kMicrosecond);

/// After an edit: what the change does not reach is taken over.
void review_after_edit(benchmark::State& state, void (*change)(Rig&)) {
  const Catalogue catalogue = *load_catalogue(source / "data/catalogue");
  const Rig was = *load_rig(source / "data/demo/hedgerow.rig.json");
  const Review before = review(was, catalogue);
  Rig rig = was;
  change(rig);
  for (auto _ : state) benchmark::DoNotOptimize(review_after(rig, before));
}
BENCHMARK_CAPTURE(review_after_edit, a_sub_trim, [](Rig& r) {
  r.radio.channels.front().sub_trim_us += 5;
})->Unit(benchmark::kMicrosecond);
BENCHMARK_CAPTURE(review_after_edit, a_lead, [](Rig& r) {
  r.leads.front().length_m = 0.3;
})->Unit(benchmark::kMicrosecond);
BENCHMARK_CAPTURE(review_after_edit, a_weight, [](Rig& r) {
  r.outputs.front().mix.roll *= 0.9;
})->Unit(benchmark::kMicrosecond);

/// The second tier, which a worker makes.
void deferred_demo(benchmark::State& state) {
  const Catalogue catalogue = *load_catalogue(source / "data/catalogue");
  const Rig rig = *load_rig(source / "data/demo/hedgerow.rig.json");
  for (auto _ : state) {
    Progress progress;
    benchmark::DoNotOptimize(deferred_review({rig, catalogue}, progress));
  }
}
BENCHMARK(deferred_demo)->Unit(benchmark::kMicrosecond);

void power_demo(benchmark::State& state) {
  const Catalogue catalogue = *load_catalogue(source / "data/catalogue");
  const Rig rig = *load_rig(source / "data/demo/hedgerow.rig.json");
  for (auto _ : state) benchmark::DoNotOptimize(analyze_power(rig, catalogue));
}
BENCHMARK(power_demo)->Unit(benchmark::kMicrosecond);

/// A full board: 12 outputs in six timer groups, 8 ports, 16 parts that want one, nothing plugged yet.
void plan_full_board(benchmark::State& state) {
  Catalogue catalogue = *load_catalogue(source / "data/catalogue");
  ControllerClass board = *catalogue.controller("full_controller");
  board.id = "full_board";
  board.outputs.clear();
  for (int i = 0; i < 12; ++i) {
    Terminal t;
    t.id = "s" + std::to_string(i + 1);
    t.label = t.id;
    t.net = "servo";
    t.timer_group = 1 + i / 2;
    board.outputs.push_back(t);
  }
  Terminal port = board.ports[1];
  for (int i = 5; i <= 8; ++i) {
    port.id = port.label = "serial_" + std::to_string(i);
    board.ports.push_back(port);
  }
  catalogue.controllers.push_back(board);
  Rig rig = *load_rig(source / "data/demo/hedgerow.rig.json");
  rig.controller.kind = "full_board";
  rig.leads.clear();
  const auto part = [&](const std::string& id, const char* kind) {
    Part p;
    p.id = id;
    p.kind = kind;
    rig.parts.push_back(p);
  };
  for (int i = 0; i < 6; ++i) part("gps_" + std::to_string(i), "satellite_plain");
  part("air", "airspeed_sensor");
  part("compass", "compass_plain");
  rig.outputs.clear();
  for (int i = 0; i < 12; ++i) {
    Output o;
    o.id = "out_" + std::to_string(i + 1);
    o.rate_hz = i < 6 ? 50 : i < 10 ? 333 : 400;
    if (i < 10) o.surfaces = {Surface{static_cast<SurfaceKind>(0), i % 2 ? Side::right : Side::left}};
    o.mix.roll = i < 10 ? 1 : 0;
    o.mix.throttle = i < 10 ? 0 : 1;
    rig.outputs.push_back(o);
  }
  for (auto _ : state) benchmark::DoNotOptimize(plan_wiring(rig, catalogue));
  state.counters["changes"] = plan_wiring(rig, catalogue).changes;
}
BENCHMARK(plan_full_board)->Unit(benchmark::kMillisecond);

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
      for (auto& item : client.feed(port.feed(client.ask(*request).second)))
        transaction.answered(std::get<link::Reply>(item));
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
