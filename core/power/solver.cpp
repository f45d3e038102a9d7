#include "power/solver.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <bit>
#include <cmath>

// Kirchhoff's laws on the rails: what is live, who gives how much, and what each wire loses.
namespace rigging {

double drawn(const Load& l, bool servo, LoadCase effort) {
  constexpr double servo_duty = 0.25;  // share of the time in which a servo moves in calm flight, common practice
  switch (effort) {
    case LoadCase::idle: return l.idle_a;
    case LoadCase::typical: return servo ? l.idle_a + servo_duty * (l.typical_a - l.idle_a) : l.typical_a;
    default: return servo ? l.typical_a : l.most_a;
  }
}

namespace {

constexpr double diode_v = 0.35;          // Schottky, typical
constexpr double switching_yield = 0.88;  // typical of small step-down regulators
constexpr double drop_out_v = 0.3;        // what a regulator at least keeps for itself

class Solver {
 public:
  Solver(const Network& network, SupplyState state, LoadCase effort, double cell_share, double drive_a,
         const std::vector<std::string>& stalled)
      : net_(network), state_(state), share_(cell_share), drive_a_(effort == LoadCase::idle ? 0 : drive_a) {
    s_.rails.resize(net_.rails.size());
    s_.node_v.assign(net_.nodes.size(), 0);
    s_.draw_a.resize(net_.draws.size());
    s_.wire_a.assign(net_.wires.size(), 0);
    amps_done_.assign(net_.rails.size(), -1);
    for (std::size_t i = 0; i < net_.draws.size(); ++i)
      s_.draw_a[i] = drawn(net_.draws[i].load, net_.draws[i].servo, effort);
    stall(effort, stalled);
    light();
    for (std::size_t r = 0; r < net_.rails.size(); ++r) amps_of(static_cast<int>(r));
    std::vector<bool> done(net_.rails.size());
    for (std::size_t r = 0; r < net_.rails.size(); ++r) spread(static_cast<int>(r), done);
    // What is dark draws nothing.
    for (std::size_t i = 0; i < net_.draws.size(); ++i)
      if (!rail(net_.draws[i].node).live) s_.draw_a[i] = 0;
  }
  Solution take() { return std::move(s_); }

 private:
  RailState& rail(int node) { return s_.rails[static_cast<std::size_t>(net_.rail_of[static_cast<std::size_t>(node)])]; }

  void stall(LoadCase effort, const std::vector<std::string>& stalled) {
    const int count = effort == LoadCase::one_stalled ? 1 : effort == LoadCase::two_stalled ? 2 : 0;
    for (std::size_t r = 0; r < net_.rails.size(); ++r) {
      std::vector<std::size_t> servos;
      for (std::size_t i = 0; i < net_.draws.size(); ++i)
        if (net_.draws[i].servo && net_.rail_of[static_cast<std::size_t>(net_.draws[i].node)] == static_cast<int>(r))
          servos.push_back(i);
      if (!stalled.empty()) {
        for (const std::size_t i : servos)
          if (std::find(stalled.begin(), stalled.end(), net_.draws[i].part) != stalled.end())
            s_.draw_a[i] = net_.draws[i].load.most_a;
        continue;
      }
      // The greediest of each rail: what they add by stalling counts.
      std::stable_sort(servos.begin(), servos.end(), [&](std::size_t a, std::size_t b) {
        const auto extra = [&](std::size_t i) { return net_.draws[i].load.most_a - s_.draw_a[i]; };
        return extra(a) > extra(b);
      });
      for (int k = 0; k < count && k < static_cast<int>(servos.size()); ++k)
        s_.draw_a[servos[static_cast<std::size_t>(k)]] = net_.draws[servos[static_cast<std::size_t>(k)]].load.most_a;
    }
  }

  bool in(const Source& s) const {
    return s.part == "computer" ? state_ != SupplyState::battery : state_ != SupplyState::usb;
  }

  /// Which rails are alive and what feeds each: the highest voltage wins.
  void light() {
    for (std::size_t pass = 0; pass <= net_.rails.size(); ++pass) {
      bool changed = false;
      for (std::size_t r = 0; r < net_.rails.size(); ++r) {
        double best = 0;
        int by = -1;
        for (std::size_t k = 0; k < net_.rails[r].sources.size(); ++k) {
          const Source& s = net_.rails[r].sources[k];
          double v = 0;
          if (s.ideal) {
            v = in(s) ? open_v(s) : 0;
          } else if (s.rail_before != static_cast<int>(r)) {
            const RailState& before = s_.rails[static_cast<std::size_t>(s.rail_before)];
            if (before.live) v = regulated(s, before.volts);
          }
          if (v > best + 1e-9) {
            best = v;
            by = static_cast<int>(k);
          }
        }
        RailState& state = s_.rails[r];
        if (state.source != by || std::abs(state.volts - best) > 1e-9) changed = true;
        state.live = by >= 0;
        state.source = by;
        state.volts = best;
      }
      if (!changed) return;
    }
  }

  double open_v(const Source& s) const { return s.part == "computer" ? s.volts : s.volts * share_; }

  static double regulated(const Source& s, double in_v) {
    if (s.kind == FeedKind::diode) return std::max(0.0, in_v - diode_v);
    if (in_v < s.least_in_v - 1.0 || in_v > s.most_in_v)
      return 0;  // far below its window it gives up; above it is destroyed
    return std::min(s.volts, in_v - drop_out_v);
  }

  /// Drawn from the rail's source; what is fed onward counts at its inlet.
  double amps_of(int r) {
    double& done = amps_done_[static_cast<std::size_t>(r)];
    if (done >= 0) return done;
    done = 0;  // a ring of rails ends here
    RailState& state = s_.rails[static_cast<std::size_t>(r)];
    if (!state.live) return 0;
    inflow_.resize(net_.nodes.size(), 0);
    double sum = 0;
    for (std::size_t i = 0; i < net_.draws.size(); ++i)
      if (net_.rail_of[static_cast<std::size_t>(net_.draws[i].node)] == r) sum += s_.draw_a[i];
    for (std::size_t q = 0; q < net_.rails.size(); ++q) {
      const RailState& onward = s_.rails[q];
      if (!onward.live || static_cast<int>(q) == r) continue;
      const Source& s = net_.rails[q].sources[static_cast<std::size_t>(onward.source)];
      if (s.ideal || s.rail_before != r) continue;
      const double out = amps_of(static_cast<int>(q));
      const double a =
          s.kind == FeedKind::switching ? out * onward.volts / (switching_yield * std::max(1.0, state.volts)) : out;
      inflow_[static_cast<std::size_t>(s.node_before)] += a;
      sum += a;
    }
    const Source& s = net_.rails[static_cast<std::size_t>(r)].sources[static_cast<std::size_t>(state.source)];
    if (s.ideal && s.part != "computer") {
      state.drive_a = drive_a_ * net_.rails[static_cast<std::size_t>(r)].drive_share;
      sum += state.drive_a;
    }
    state.amps = sum;
    return done = sum;
  }

  /// Voltages over the wires of one rail: the Laplacian of the resistive network with the source's node held.
  void spread(int r, std::vector<bool>& done) {
    if (done[static_cast<std::size_t>(r)]) return;
    done[static_cast<std::size_t>(r)] = true;
    RailState& state = s_.rails[static_cast<std::size_t>(r)];
    const Rail& rail = net_.rails[static_cast<std::size_t>(r)];
    if (!state.live) return;
    const Source& s = rail.sources[static_cast<std::size_t>(state.source)];
    if (s.ideal) {
      state.volts = open_v(s) - s.ohm * state.amps;
    } else {
      spread(s.rail_before, done);
      state.volts = regulated(s, s_.node_v[static_cast<std::size_t>(s.node_before)]);
    }
    const auto n = static_cast<Eigen::Index>(rail.nodes.size());
    std::vector<int> local(net_.nodes.size(), -1);
    for (Eigen::Index i = 0; i < n; ++i)
      local[static_cast<std::size_t>(rail.nodes[static_cast<std::size_t>(i)])] = static_cast<int>(i);
    Eigen::MatrixXd g = Eigen::MatrixXd::Identity(n, n) * 1e-9;  // keeps a node that hangs nowhere from being undefined
    Eigen::VectorXd current = Eigen::VectorXd::Zero(n);
    for (const Wire& w : net_.wires) {
      const int a = local[static_cast<std::size_t>(w.a)], b = local[static_cast<std::size_t>(w.b)];
      if (a < 0 || b < 0 || a == b) continue;
      const double siemens = 1 / std::max(1e-5, w.ohm);
      g(a, a) += siemens;
      g(b, b) += siemens;
      g(a, b) -= siemens;
      g(b, a) -= siemens;
    }
    for (std::size_t i = 0; i < net_.draws.size(); ++i)
      if (const int k = local[static_cast<std::size_t>(net_.draws[i].node)]; k >= 0) current(k) -= s_.draw_a[i];
    for (Eigen::Index i = 0; i < n; ++i)
      current(i) -= inflow_[static_cast<std::size_t>(rail.nodes[static_cast<std::size_t>(i)])];
    // Motors draw where their speed controllers hang; their share of the drop is in the battery's sag, the leads' in
    // the drive analysis.
    const int held = local[static_cast<std::size_t>(s.node)];
    Eigen::VectorXd drop = Eigen::VectorXd::Zero(n);
    if (n > 1) {
      g.row(held).setZero();
      g.col(held).setZero();
      g(held, held) = 1;
      current(held) = 0;
      drop = g.ldlt().solve(current);
    }
    state.least_v = state.volts;
    for (Eigen::Index i = 0; i < n; ++i) {
      const double v = state.volts + drop(i);
      s_.node_v[static_cast<std::size_t>(rail.nodes[static_cast<std::size_t>(i)])] = v;
      state.least_v = std::min(state.least_v, v);
    }
    for (std::size_t w = 0; w < net_.wires.size(); ++w)
      if (local[static_cast<std::size_t>(net_.wires[w].a)] >= 0)
        s_.wire_a[w] = (s_.node_v[static_cast<std::size_t>(net_.wires[w].a)] -
                        s_.node_v[static_cast<std::size_t>(net_.wires[w].b)]) /
                       std::max(1e-5, net_.wires[w].ohm);
  }

  const Network& net_;
  SupplyState state_;
  double share_, drive_a_;
  Solution s_;
  std::vector<double> amps_done_, inflow_;
};

}  // namespace

Solution solve(const Network& network, SupplyState state, LoadCase effort, double cell_share, double drive_a,
               const std::vector<std::string>& stalled) {
  return Solver(network, state, effort, cell_share, drive_a, stalled).take();
}

}  // namespace rigging
