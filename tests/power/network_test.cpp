#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "bench_rig.h"
#include "power/power.h"

// The rail solver against a second way of getting there: relaxation, node by node, without a matrix.
namespace rigging {
namespace {

/// One rail with a regulator that holds `supply_v` at node 0 and random wires and loads.
struct Circuit {
  Network net;
  std::vector<double> amps;

  explicit Circuit(std::mt19937& random) {
    const auto uniform = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
    const std::size_t nodes = 2 + random() % 8;
    Rail rail;
    rail.name = "rail";
    for (std::size_t n = 0; n < nodes; ++n) {
      net.nodes.push_back({"part_" + std::to_string(n), "plus"});
      net.rail_of.push_back(0);
      rail.nodes.push_back(static_cast<int>(n));
      // A tree first, so that everything hangs together; then some loops.
      if (n > 0)
        net.wires.push_back(
            {"w" + std::to_string(n), static_cast<int>(random() % n), static_cast<int>(n), uniform(0.02, 0.4)});
      Draw d;
      d.part = net.nodes.back().part;
      d.node = static_cast<int>(n);
      d.load.idle_a = d.load.typical_a = d.load.most_a = uniform(0, 0.8);
      amps.push_back(d.load.idle_a);
      net.draws.push_back(d);
    }
    for (unsigned extra = random() % 3; extra > 0; --extra) {
      const int a = static_cast<int>(random() % nodes), b = static_cast<int>(random() % nodes);
      if (a != b) net.wires.push_back({"loop" + std::to_string(extra), a, b, uniform(0.05, 0.5)});
    }
    Source battery;
    battery.part = "battery";
    battery.node = 0;
    battery.ideal = true;
    battery.volts = 8;
    battery.ohm = uniform(0, 0.05);
    rail.sources.push_back(battery);
    net.rails.push_back(rail);
  }

  std::vector<double> relaxed(double held_v) const {
    std::vector<double> v(net.nodes.size(), held_v);
    for (int round = 0; round < 200000; ++round) {
      double change = 0;
      for (std::size_t n = 1; n < v.size(); ++n) {
        double inward = -amps[n], siemens = 0;
        for (const Wire& w : net.wires) {
          if (w.a != static_cast<int>(n) && w.b != static_cast<int>(n)) continue;
          const auto other = static_cast<std::size_t>(w.a == static_cast<int>(n) ? w.b : w.a);
          inward += v[other] / w.ohm;
          siemens += 1 / w.ohm;
        }
        const double next = inward / siemens;
        change = std::max(change, std::abs(next - v[n]));
        v[n] = next;
      }
      if (change < 1e-12) break;
    }
    return v;
  }
};

TEST(Network, VoltagesAgreeWithRelaxationOnRandomRails) {
  std::mt19937 random(3);
  for (int round = 0; round < 120; ++round) {
    const Circuit c(random);
    const Solution s = solve(c.net, SupplyState::battery, LoadCase::idle, 1, 0);
    double sum = 0;
    for (const double a : c.amps) sum += a;
    ASSERT_NEAR(s.rails[0].amps, sum, 1e-9);
    const double held = 8 - c.net.rails[0].sources[0].ohm * sum;
    EXPECT_NEAR(s.node_v[0], held, 1e-9);
    const std::vector<double> expected = c.relaxed(held);
    for (std::size_t n = 0; n < expected.size(); ++n)
      EXPECT_NEAR(s.node_v[n], expected[n], 1e-6) << "round " << round << " node " << n;
    EXPECT_NEAR(s.rails[0].least_v, *std::min_element(expected.begin(), expected.end()), 1e-6);
    // Kirchhoff at every node but the held one.
    for (std::size_t n = 1; n < expected.size(); ++n) {
      double inward = 0;
      for (std::size_t w = 0; w < c.net.wires.size(); ++w) {
        if (c.net.wires[w].b == static_cast<int>(n)) inward += s.wire_a[w];
        if (c.net.wires[w].a == static_cast<int>(n)) inward -= s.wire_a[w];
      }
      EXPECT_NEAR(inward, c.amps[n], 1e-6);
    }
  }
}

TEST(Network, DarkRailsDrawNothing) {
  std::mt19937 random(5);
  const Circuit c(random);
  const Solution s = solve(c.net, SupplyState::usb, LoadCase::two_stalled, 1, 30);
  EXPECT_FALSE(s.rails[0].live);
  for (const double a : s.draw_a) EXPECT_EQ(a, 0);
  for (const double v : s.node_v) EXPECT_EQ(v, 0);
}

/// Battery, a switching regulator, a diode and a load behind it.
TEST(Network, RegulatorsAndDiodesPassOnWhatTheyShould) {
  Network n;
  n.nodes = {{"battery", "plus"}, {"bec", "out"}, {"board", "core"}};
  n.rail_of = {0, 1, 2};
  n.rails.resize(3);
  for (int i = 0; i < 3; ++i) n.rails[static_cast<std::size_t>(i)].nodes = {i};
  Source battery;
  battery.part = "battery";
  battery.node = 0;
  battery.ideal = true;
  battery.volts = 12;
  battery.ohm = 0.1;
  n.rails[0].sources = {battery};
  Source bec;
  bec.part = "bec";
  bec.node = 1;
  bec.node_before = bec.rail_before = 0;
  bec.kind = FeedKind::switching;
  bec.volts = 5;
  bec.least_in_v = 6;
  bec.most_in_v = 20;
  n.rails[1].sources = {bec};
  Source diode;
  diode.part = "board";
  diode.node = 2;
  diode.node_before = diode.rail_before = 1;
  diode.kind = FeedKind::diode;
  n.rails[2].sources = {diode};
  Draw core;
  core.part = "board";
  core.node = 2;
  core.load.idle_a = core.load.typical_a = core.load.most_a = 0.88;
  n.draws = {core};
  const Solution s = solve(n, SupplyState::battery, LoadCase::idle, 1, 0);
  // 0.88 A at 5 V through a regulator of 88 %: 5 W from 12 V.
  EXPECT_NEAR(s.rails[2].amps, 0.88, 1e-12);
  EXPECT_NEAR(s.rails[1].amps, 0.88, 1e-12);
  EXPECT_NEAR(s.rails[0].amps, 5.0 / 12, 1e-9);
  EXPECT_NEAR(s.node_v[0], 12 - 0.1 * 5 / 12, 1e-9);
  EXPECT_NEAR(s.node_v[1], 5, 1e-12);
  EXPECT_NEAR(s.node_v[2], 5 - 0.35, 1e-12);
  // A linear one passes its current on.
  n.rails[1].sources[0].kind = FeedKind::linear;
  EXPECT_NEAR(solve(n, SupplyState::battery, LoadCase::idle, 1, 0).rails[0].amps, 0.88, 1e-12);
  // Above its window it gives nothing; near the lower end it follows its inlet.
  n.rails[1].sources[0].most_in_v = 11;
  EXPECT_FALSE(solve(n, SupplyState::battery, LoadCase::idle, 1, 0).rails[1].live);
  n.rails[1].sources[0].most_in_v = 20;
  EXPECT_NEAR(solve(n, SupplyState::battery, LoadCase::idle, 0.425, 0).rails[1].volts, 5.1 - 0.088 - 0.3, 1e-9);
  EXPECT_FALSE(solve(n, SupplyState::battery, LoadCase::idle, 0.4, 0).rails[1].live);
}

TEST(Network, JoinsWhatLeadsAndTracksJoinAndNothingElse) {
  Rig rig;
  rig.controller.kind = "full_controller";
  add_part(rig, "esc", "esc_30_switching");
  add_part(rig, "servo", "servo_9g_digital", Surface{SurfaceKind::rudder, Side::single});
  add_lead(rig, "a", "esc", "servo", "controller", "slot_1");
  add_lead(rig, "b", "servo", "plug", "controller", "slot_2");
  const auto rail = [&](const Network& n, const char* part, const char* net) {
    return n.rail_of.at(static_cast<std::size_t>(n.node(part, net)));
  };
  Network n = network_of(rig, shipped());
  EXPECT_EQ(rail(n, "esc", "five"), rail(n, "controller", "servo")) << "all plus pins of the rail are joined";
  EXPECT_EQ(rail(n, "servo", "plus"), rail(n, "controller", "servo"));
  EXPECT_NE(rail(n, "controller", "five"), rail(n, "controller", "servo"));
  rig.lead("a")->plus_removed = true;
  n = network_of(rig, shipped());
  EXPECT_NE(rail(n, "esc", "five"), rail(n, "controller", "servo"));
  EXPECT_EQ(n.node("nobody", "plus"), -1);
  EXPECT_EQ(network_of(rig, shipped(), {"servo"}).node("servo", "plus"), -1);
}

TEST(Network, NamesAreThoseOfTheBuilder) {
  Rig rig = demo("hedgerow");
  EXPECT_EQ(part_name(rig, shipped(), "camera"), "Hedge camera");
  EXPECT_EQ(part_name(rig, shipped(), "servo_flaperon_left"), "left flaperon servo");
  EXPECT_EQ(part_name(rig, shipped(), "controller"), "controller");
  EXPECT_EQ(part_name(rig, shipped(), "computer"), "USB");
  EXPECT_EQ(part_name(rig, shipped(), "nobody"), "nobody");
}

}  // namespace
}  // namespace rigging
