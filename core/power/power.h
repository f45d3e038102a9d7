#pragma once

#include "base/figure.h"
#include "power/drive.h"
#include "power/network.h"
#include "surfaces/air_loads.h"

namespace rigging {

/// Questions that change nothing in the rig.
struct WhatIf {
  std::vector<std::string> stalled;  ///< these servos, in place of the greediest
  std::vector<std::string> without;  ///< parts taken out
  int more_cells = 0;
  bool operator==(const WhatIf&) const = default;
};

/// A rail in one supply state at one effort.
struct RailState {
  bool live = false;
  int source = -1;     ///< index into the rail's sources; −1 while dark
  double volts = 0;    ///< where the source enters
  double amps = 0;     ///< drawn from the source
  double drive_a = 0;  ///< of it, by motors
  double least_v = 0;  ///< lowest at any node of the rail
  bool operator==(const RailState&) const = default;
};

struct Solution {
  std::vector<RailState> rails;
  std::vector<double> node_v;
  std::vector<double> draw_a;  ///< per draw of the network
  std::vector<double> wire_a;  ///< per wire, from a to b
  bool operator==(const Solution&) const = default;
};

/// One regulator, or the rating of a battery or of USB, against what is asked of it with the battery in.
struct SourceReport {
  std::string part, name, rail;
  FeedKind kind = FeedKind::switching;
  bool battery = false, supplies = false;
  double rating_a = 0;
  std::array<double, 5> amps{};  ///< by Effort
  double fresh_a = 0;            ///< a battery's: full throttle, freshly charged
  /// Linear ones, full battery: with everything moving without end; as it is flown, servos moving a quarter of the
  /// time; and the junction after ten seconds of everything moving.
  std::optional<Figure> heat, junction, heat_flown, junction_flown, junction_burst;
  /// The most that counts against its rating: of a battery fresh at full throttle, of a regulator with a servo stalled.
  double worst_a() const { return battery ? fresh_a : amps[static_cast<std::size_t>(LoadCase::one_stalled)]; }
  bool overloaded() const { return supplies && rating_a > 0 && worst_a() > rating_a; }
  double starting_a = 0;  ///< the servos of one stick starting together, each at its stall current for a moment
  double least_in_v = 0, most_in_v = 1e9;           ///< its window
  std::optional<double> lowest_in_v, highest_in_v;  ///< from an empty battery under load to a full one at rest
  std::string verdict;
  bool operator==(const SourceReport&) const = default;
};

struct ConsumerReport {
  std::string part, name, rail;
  double idle_a = 0, typical_a = 0, most_a = 0;
  double least_v = 0, most_v = 0;
  std::array<bool, 3> powered{};  ///< by SupplyState
  double worst_v = 0;             ///< battery in, two stalled
  double rest_v = 0;              ///< battery in, full, idle: the highest it sees
  bool operator==(const ConsumerReport&) const = default;
};

/// Which consumers to move to a second regulator so that everything fits, with the fewest moves.
struct Advice {
  std::string overloaded;  ///< part that gives too little
  std::vector<std::string> move;
  std::string regulator_kind;  ///< from the catalogue
  std::string words;
  bool operator==(const Advice&) const = default;
};

struct PowerReport {
  Network network;
  std::array<std::vector<RailState>, 3> states;  ///< by SupplyState, at rest
  std::array<Solution, 5> load_cases;            ///< by Effort, battery in, nominal voltage
  std::vector<SourceReport> sources;
  std::vector<ConsumerReport> consumers;
  std::optional<Drive> drive;
  std::string battery;  ///< the part that feeds the motors, else the first; empty without one
  std::optional<Figure> controller_least, brown_out_margin;  ///< with two servos stalled
  std::optional<Figure> battery_full, battery_empty, sag, endurance;
  std::optional<Figure> servos_held;  ///< what all servos draw that hold full throw in fast flight
  double servo_source_a = 0;          ///< rating of what feeds them; 0 when nothing does
  std::optional<Advice> advice;
  std::vector<std::string> explanations;  ///< what looks like a fault and is none

  const SourceReport* source(const std::string& part) const;
  const ConsumerReport* consumer(const std::string& part) const;
  std::vector<Figure> figures() const;
  bool operator==(const PowerReport&) const = default;
};

/// Rails, budget, heat, voltage drop, brown-out, endurance and drive train. Currents in ampere, direct current, steady;
/// a stalled servo draws its stall current without end, which is the worst case. `loads`: of the servos in the air,
/// when they are known already.
PowerReport analyze_power(const Rig& rig, const Catalogue& catalogue, const WhatIf& what_if = {},
                          const std::vector<ServoLoad>* loads = nullptr);

/// Voltages and currents for one supply state and effort. `cell_v`: open voltage of each battery cell; `drive_a`: what
/// all motors draw.
Solution solve(const Network& network, SupplyState state, LoadCase effort, double cell_share, double drive_a,
               const std::vector<std::string>& stalled = {});

}  // namespace rigging
