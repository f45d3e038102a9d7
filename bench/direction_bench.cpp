#include <benchmark/benchmark.h>

#include <random>

#include "direction/brute_force.h"
#include "direction/reason.h"

namespace rigging::direction {
namespace {

/// Eight outputs: twin-boom model with flaperons, inverted V-tail, two rudders and two motors.
Case eight_outputs() {
  Case c;
  const auto add = [&](const char* surface, std::array<double, 3> mix) {
    CaseOutput o;
    o.id = "out_" + std::to_string(c.outputs.size() + 1);
    o.surfaces = {*surface_from_name(surface)};
    o.mix = mix;
    c.outputs.push_back(o);
  };
  add("elevon_left", {-.5, .5, 0});
  add("elevon_right", {.5, .5, 0});
  add("inverted_v_left", {0, .5, -.5});
  add("inverted_v_right", {0, .5, .5});
  add("rudder_left", {.3, 0, 1});
  add("rudder_right", {.3, 0, 1});
  add("motor_left", {0, 0, .3});
  add("motor_right", {0, 0, -.3});
  return c;
}

Fault fault(FaultKind kind, int output, int other = -1, Axis axis = Axis::roll) {
  Fault f;
  f.kind = kind;
  f.output = output;
  f.other_output = other;
  f.axis = axis;
  return f;
}

Case seen(int count, bool spoiled) {
  Case c = eight_outputs();
  std::vector<Fault> faults{fault(FaultKind::leads_swapped, 0, 3), fault(FaultKind::gyro_reversed, -1, -1, Axis::yaw),
                            fault(FaultKind::transmitter_reversed, -1, -1, Axis::pitch),
                            fault(FaultKind::output_reversed, 4)};
  faults.resize(static_cast<std::size_t>(count));
  for (const Fault& f : faults)
    if (f.kind == FaultKind::output_reversed) c.outputs[static_cast<std::size_t>(f.output)].reversed = true;
  for (const Act act : {Act::stick, Act::tilt})
    for (const Axis axis : all_axes) {
      Observation o;
      o.act = act;
      o.axis = axis;
      o.mode = act == Act::tilt ? Mode::rate : Mode::manual;
      o.saw = predict(c, faults, o)->saw;
      if (spoiled) o.saw[5].motion = o.saw[5].motion == 0 ? 1 : -o.saw[5].motion;
      c.observations.push_back(o);
    }
  return c;
}

void reasoning(benchmark::State& state) {
  const Case c = seen(static_cast<int>(state.range(0)), false);
  std::size_t found = 0;
  for (auto _ : state) {
    const Diagnosis answer = reason(c);
    benchmark::DoNotOptimize(answer);
    found = answer.explanations.empty() ? 0 : answer.explanations[0].faults.size();
  }
  state.counters["faults"] = static_cast<double>(found);
}
BENCHMARK(reasoning)->DenseRange(0, 4)->Unit(benchmark::kMillisecond);

void contradiction(benchmark::State& state) {
  const Case c = seen(3, true);
  for (auto _ : state) benchmark::DoNotOptimize(reason(c));
}
BENCHMARK(contradiction)->Unit(benchmark::kMillisecond);

/// Two elevons with two faults, by the search and by trying every set of faults and every servo sign, as a general
/// solver would.
Case two_elevons() {
  Case c;
  for (const char* surface : {"elevon_left", "elevon_right"}) {
    CaseOutput o;
    o.id = "out_" + std::to_string(c.outputs.size() + 1);
    o.surfaces = {*surface_from_name(surface)};
    o.mix = {surface[7] == 'l' ? -.5 : .5, .5, 0};
    c.outputs.push_back(o);
  }
  const std::vector<Fault> faults{fault(FaultKind::output_reversed, 0),
                                  fault(FaultKind::gyro_reversed, -1, -1, Axis::pitch)};
  c.outputs[0].reversed = true;
  for (const Act act : {Act::stick, Act::tilt})
    for (const Axis axis : {Axis::roll, Axis::pitch}) {
      Observation o;
      o.act = act;
      o.axis = axis;
      o.mode = act == Act::tilt ? Mode::rate : Mode::manual;
      o.saw = predict(c, faults, o)->saw;
      c.observations.push_back(o);
    }
  return c;
}

void two_elevons_by_search(benchmark::State& state) {
  const Case c = two_elevons();
  for (auto _ : state) benchmark::DoNotOptimize(reason(c));
}
BENCHMARK(two_elevons_by_search)->Unit(benchmark::kMicrosecond);

void two_elevons_by_trying_everything(benchmark::State& state) {
  const Case c = two_elevons();
  for (auto _ : state) benchmark::DoNotOptimize(brute::explain(c, 2));
}
BENCHMARK(two_elevons_by_trying_everything)->Unit(benchmark::kMicrosecond);

}  // namespace
}  // namespace rigging::direction
