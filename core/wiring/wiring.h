#pragma once

#include "catalogue/sockets.h"
#include "power/network.h"

namespace rigging {

/// One line of the loom.
struct HarnessRow {
  std::string lead;
  std::string from, from_socket, to, to_socket;  ///< as the builder calls them
  LeadKind kind = LeadKind::servo;
  double length_m = 0, awg = 0;
  std::string remarks;  ///< red wire out, pair turned …
  bool operator==(const HarnessRow&) const = default;
};

/// Outputs that share a pulse rate.
struct TimerGroup {
  int group = 0;
  std::vector<std::string> outputs;  ///< ids of the rig's outputs on it
  std::vector<double> rates_hz;      ///< those asked for, each once
  bool motor = false, servo = false;
  bool operator==(const TimerGroup&) const = default;
};

struct WiringReport {
  std::vector<HarnessRow> harness;
  std::vector<TimerGroup> groups;
  int power_pads = 0, power_pads_needed = 0;
  int ground_pads = 0, ground_pads_needed = 0;
  std::vector<std::string> free_ports;    ///< hardware serial ports with no lead
  std::vector<std::string> free_outputs;  ///< sockets with neither output nor lead
  bool operator==(const WiringReport&) const = default;
};

WiringReport analyze_wiring(const Rig& rig, const Catalogue& catalogue);

/// The other end of the lead as seen from a part; null if the lead does not touch it.
const LeadEnd* far_end(const Lead& lead, const std::string& part, const std::string& socket = {});
/// The servos that hang on an output of the rig, by their leads to its socket.
std::vector<const Part*> servos_on(const Rig& rig, const Catalogue& catalogue, const std::string& socket);
/// The output that a servo or speed controller belongs to by what it works; null when there is none. Speed controllers
/// go by the side of their motor, those without a side to the motor outputs in order.
const Output* output_for(const Rig& rig, const Catalogue& catalogue, const Part& part);
/// Where the leads of the output's servos and speed controllers sit on the board: one socket, or nothing when there is
/// no such lead or they sit apart.
std::string socket_by_leads(const Rig& rig, const Catalogue& catalogue, const Output& output);
/// Brings every output to the socket that its leads sit in, wherever no other output is left in the way. Edits move
/// leads and call this: a lead decides, its output follows.
void outputs_follow(Rig& rig, const Catalogue& catalogue);
/// What a lead between two such terminals is made of.
LeadKind usual_lead(const Terminal& a, const Terminal& b);

}  // namespace rigging
