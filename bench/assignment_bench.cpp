#include <benchmark/benchmark.h>

#include <boost/graph/adjacency_list.hpp>
#include <boost/graph/successive_shortest_path_nonnegative_weights.hpp>
// Needs what stands above it.
#include <boost/graph/find_flow_cost.hpp>
#include <cmath>
#include <random>

#include "wiring/plan.h"

namespace rigging {
namespace {

/// Twelve outputs on twelve sockets, whole costs, the same for both.
std::vector<std::vector<double>> costs() {
  std::mt19937 random(5);
  std::vector<std::vector<double>> cost(12, std::vector<double>(12));
  for (auto& row : cost)
    for (double& c : row) c = static_cast<double>(random() % 100);
  return cost;
}

void assignment(benchmark::State& state) {
  const auto cost = costs();
  for (auto _ : state) benchmark::DoNotOptimize(cheapest_assignment(cost));
}
BENCHMARK(assignment)->Unit(benchmark::kMicrosecond);

/// The general-purpose alternative: minimum-cost flow of a graph library.
double by_flow(const std::vector<std::vector<double>>& cost) {
  using Traits = boost::adjacency_list_traits<boost::vecS, boost::vecS, boost::directedS>;
  using Graph = boost::adjacency_list<
      boost::vecS, boost::vecS, boost::directedS, boost::no_property,
      boost::property<boost::edge_capacity_t, long,
                      boost::property<boost::edge_residual_capacity_t, long,
                                      boost::property<boost::edge_reverse_t, Traits::edge_descriptor,
                                                      boost::property<boost::edge_weight_t, long>>>>>;
  const std::size_t n = cost.size(), source = 2 * n, sink = 2 * n + 1;
  Graph g(2 * n + 2);
  const auto edge = [&](std::size_t a, std::size_t b, long weight) {
    const auto forth = boost::add_edge(a, b, g).first, back = boost::add_edge(b, a, g).first;
    boost::put(boost::edge_capacity, g, forth, 1);
    boost::put(boost::edge_capacity, g, back, 0);
    boost::put(boost::edge_weight, g, forth, weight);
    boost::put(boost::edge_weight, g, back, -weight);
    boost::put(boost::edge_reverse, g, forth, back);
    boost::put(boost::edge_reverse, g, back, forth);
  };
  for (std::size_t i = 0; i < n; ++i) {
    edge(source, i, 0);
    edge(n + i, sink, 0);
    for (std::size_t k = 0; k < n; ++k) edge(i, n + k, std::lround(cost[i][k]));
  }
  boost::successive_shortest_path_nonnegative_weights(g, source, sink);
  return static_cast<double>(boost::find_flow_cost(g));
}

void assignment_by_flow(benchmark::State& state) {
  const auto cost = costs();
  double ours = 0;
  const auto got = cheapest_assignment(cost);
  for (std::size_t i = 0; i < cost.size(); ++i) ours += cost[i][static_cast<std::size_t>(got[i])];
  if (by_flow(cost) != ours) state.SkipWithError("the two disagree");
  for (auto _ : state) benchmark::DoNotOptimize(by_flow(cost));
}
BENCHMARK(assignment_by_flow)->Unit(benchmark::kMicrosecond);

}  // namespace
}  // namespace rigging
