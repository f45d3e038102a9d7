#pragma once

#include <map>

#include "catalogue/catalogue.h"
#include "rig/rig.h"

/// Who is joined to whom, and what feeds what.
namespace rigging {

/// Which supplies are in.
enum class SupplyState { usb, battery, both };

/// How hard everything works.
enum class LoadCase { idle, typical, all_moving, one_stalled, two_stalled };

/// One net of one thing: "servo" of the controller, "plus" of a servo.
struct Node {
  std::string part;
  std::string net;
  auto operator<=>(const Node&) const = default;
};

/// A source as it meets a rail.
struct Source {
  std::string part;      ///< the battery, regulator, speed controller or board that gives; "computer" for USB
  int node = -1;         ///< where it enters
  int rail_before = -1;  ///< the rail that feeds it; −1 for a battery or the computer
  int node_before = -1;
  FeedKind kind = FeedKind::joined;
  bool ideal = false;          ///< a battery or USB: no feed behind it
  double volts = 0, amps = 0;  ///< open voltage and rating (0: not known)
  double ohm = 0;              ///< inside a battery
  double least_in_v = 0, most_in_v = 1e9, k_per_w = 0, most_junction_c = 125;
  bool operator==(const Source&) const = default;
};

/// All that is joined by plus wires and inner tracks.
struct Rail {
  std::string name;  ///< spoken: "servo rail", "five-volt rail", "battery"
  std::vector<int> nodes;
  std::vector<Source> sources;
  double drive_share = 0;  ///< of the drive current, by how many of the speed controllers hang on it
  bool operator==(const Rail&) const = default;
};

/// One plus wire between two nodes, there and back.
struct Wire {
  std::string lead;
  int a = -1, b = -1;
  double ohm = 0;  ///< plus and minus together, with connectors
  bool operator==(const Wire&) const = default;
};

struct Draw {
  std::string part;
  int node = -1;
  Load load;
  bool servo = false;
  bool operator==(const Draw&) const = default;
};

struct Network {
  std::vector<Node> nodes;
  std::vector<int> rail_of;  ///< per node
  std::vector<Rail> rails;
  std::vector<Wire> wires;
  std::vector<Draw> draws;

  int node(const std::string& part, const std::string& net) const;  ///< −1 when there is none
  bool operator==(const Network&) const = default;
};

/// Copper at 20 °C, one conductor, Ω/m: ρ = 1.7241e-8 Ω·m (IACS) over the area of ASTM B258, d = 0.127 mm · 92^((36 −
/// n)/39).
double copper_ohm_per_m(double awg);

/// Plus and minus of a lead with the contacts of a servo plug at each end (10 mΩ each, common practice); of a battery
/// lead 0.6 mΩ each.
double lead_ohm(const Lead& lead);
double lead_length_m(const Lead& lead);  ///< as given, else the usual for its kind
/// As given; else as its way asks where both ends have a place (a third for the way round corners, and the plugs:
/// common practice), and never less than the usual for its kind. What lists of leads say.
double lead_reach_m(const Rig& rig, const Lead& lead);
double lead_awg(const Lead& lead);

/// A part's terminal, on the controller or a part; null when it is not known.
const Terminal* terminal_of(const Rig& rig, const Catalogue& catalogue, const LeadEnd& end);
const PartKind* kind_of(const Rig& rig, const Catalogue& catalogue, const std::string& part_id);
/// As the builder would call it: the label, else the kind's name, else the id; "controller" for the board.
std::string part_name(const Rig& rig, const Catalogue& catalogue, const std::string& part_id);

/// `without`: parts that are taken out of the sum ("pull this regulator").
Network network_of(const Rig& rig, const Catalogue& catalogue, const std::vector<std::string>& without = {});

}  // namespace rigging

namespace rigging {
template <>
struct Names<SupplyState> {
  static constexpr std::array<std::pair<SupplyState, std::string_view>, 3> list{
      {{SupplyState::usb, "usb"}, {SupplyState::battery, "battery"}, {SupplyState::both, "both"}}};
};
template <>
struct Names<LoadCase> {
  static constexpr std::array<std::pair<LoadCase, std::string_view>, 5> list{{{LoadCase::idle, "idle"},
                                                                              {LoadCase::typical, "typical"},
                                                                              {LoadCase::all_moving, "all_moving"},
                                                                              {LoadCase::one_stalled, "one_stalled"},
                                                                              {LoadCase::two_stalled, "two_stalled"}}};
};
}  // namespace rigging
