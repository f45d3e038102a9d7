#include <benchmark/benchmark.h>

#include <boost/graph/adjacency_list.hpp>
#include <boost/graph/dijkstra_shortest_paths.hpp>

#include "bench_rig.h"
#include "wiring/layout.h"
#include "wiring/lead_router.h"

namespace rigging {
namespace {

/// The drawing of the largest demo rig, leads laid, on the screen's sheet and on paper's.
void wiring_layout(benchmark::State& state) {
  const Rig rig = demo("hedgerow");
  const double width = static_cast<double>(state.range(0)), height = static_cast<double>(state.range(1));
  int crossings = 0;
  for (auto _ : state) crossings = layout_wiring(rig, shipped(), width, height).crossings;
  state.counters["crossings"] = crossings;
}
BENCHMARK(wiring_layout)->Args({200, 76})->Args({220, 138})->Unit(benchmark::kMillisecond);

constexpr int columns = 124, rows = 78, bend = 3;

/// One lead across an empty sheet, bends dear.
void one_lead(benchmark::State& state) {
  for (auto _ : state) {
    LeadRouter router(columns, rows);
    router.join({{5, 9}, {1, 0}}, {{110, 66}, {0, -1}});
    router.lay();
    benchmark::DoNotOptimize(router.routes().front().size());
  }
}
BENCHMARK(one_lead)->Unit(benchmark::kMicrosecond);

/// The same by a general-purpose library: the graph of points and directions built once, Dijkstra's search over it.
void one_lead_boost(benchmark::State& state) {
  using Graph = boost::adjacency_list<boost::vecS, boost::vecS, boost::directedS, boost::no_property,
                                      boost::property<boost::edge_weight_t, int>>;
  const int ways[4][2] = {{1, 0}, {0, 1}, {-1, 0}, {0, -1}};
  const auto node = [](int x, int y, int way) { return static_cast<std::size_t>((y * columns + x) * 4 + way); };
  Graph graph(static_cast<std::size_t>(columns * rows * 4));
  for (int y = 0; y < rows; ++y)
    for (int x = 0; x < columns; ++x)
      for (int way = 0; way < 4; ++way)
        for (int turn = 0; turn < 4; ++turn) {
          const int nx = x + ways[turn][0], ny = y + ways[turn][1];
          if (turn == (way + 2) % 4 || nx < 0 || ny < 0 || nx >= columns || ny >= rows) continue;
          boost::add_edge(node(x, y, way), node(nx, ny, turn), 1 + (turn == way ? 0 : bend), graph);
        }
  std::vector<int> distance(boost::num_vertices(graph));
  for (auto _ : state) {
    boost::dijkstra_shortest_paths(graph, node(6, 9, 0), boost::distance_map(distance.data()));
    benchmark::DoNotOptimize(distance[node(110, 66, 1)]);
  }
}
BENCHMARK(one_lead_boost)->Unit(benchmark::kMicrosecond);

}  // namespace
}  // namespace rigging
