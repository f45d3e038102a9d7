#pragma once

#include <optional>
#include <set>

#include "power/power.h"
#include "wiring/plan.h"

namespace rigging {

/// Carries out one plan, step by step. Leads and ports stand in plan.cpp, what feeds them in supply_plan.cpp; sockets
/// of outputs have a planner of their own (output_plan.h).
class Planner {
 public:
  Planner(const Rig& rig, const Catalogue& catalogue)
      : before_(rig), catalogue_(catalogue), controller_(catalogue.controller(rig.controller.kind)) {
    plan_.rig = rig;
    // A lead that leads nowhere is not kept, unless the builder insists.
    std::erase_if(plan_.rig.leads, [&](const Lead& l) {
      return !l.fixed && (!terminal_of(rig, catalogue, l.from) || !terminal_of(rig, catalogue, l.to));
    });
  }

  Plan take();

 private:
  Rig& rig() { return plan_.rig; }
  std::vector<const Part*> parts_of(PartGroup group) const {
    std::vector<const Part*> all;
    for (const Part& p : plan_.rig.parts)
      if (const PartKind* k = catalogue_.part(p.kind); k && k->group == group) all.push_back(&p);
    return all;
  }
  std::string name(const std::string& part) const { return part_name(plan_.rig, catalogue_, part); }
  const Terminal* terminal(const std::string& part, const std::string& id) const {
    return terminal_of(plan_.rig, catalogue_, {part, id, {}});
  }

  bool busy(const std::string& part, const std::string& socket) const {
    return std::any_of(plan_.rig.leads.begin(), plan_.rig.leads.end(),
                       [&](const Lead& l) { return settled_.count(l.id) && far_end(l, part, socket); });
  }
  /// Where the part's terminal goes now, at `other` or anywhere.
  const LeadEnd* goes(const std::string& part, const std::string& socket, const std::string& other = {}) const;
  bool is_fixed(const std::string& part, const std::string& socket) const;

  /// Lays the lead, moving one that starts there already, and says why.
  void connect(const std::string& part, const std::string& socket, const std::string& to, const std::string& to_socket,
               const std::string& why);
  void obstacle(const std::string& subject, const std::string& what, const char* code) {
    plan_.obstacles.push_back({subject, what, code});
  }

  void servos_and_motors();
  /// A speed controller, or the release of a towed glider, where the throttle bypasses the stabilizer.
  void leave_on_receiver(const std::string& part, const std::string& socket);

  void keep(const std::string& part, const std::string& socket);

  /// The receiver and its pulse output that carries a function, if there is one.
  std::pair<std::string, std::string> receiver_channel(ChannelFunction f) const;
  std::pair<std::string, std::string> receiver_output(int channel) const;

  // ── ports ────────────────────────────────────────────────────────────────────────────────────────────────────────
  /// First what is needed, then what is worth having.
  void serial_ports(bool spareable);

  /// How far the lead has to go across the board, as a cost: metres from the socket to where the part lies.
  double way_cost(const Part& part, const Terminal& socket) const;

  void no_port(const Part& part, const Terminal& end, const std::vector<const Terminal*>& ports);

  std::string inputs_in_words() const;

  void pulse_receivers();

  // ── battery side ─────────────────────────────────────────────────────────────────────────────────────────────────
  void battery_side();

  void two_wire();

  void video_and_pads();

  /// A spliced lead's free outlet, or a spare output socket, for plus and minus alone.
  bool spare(const std::string& part, const std::string& end);

  void regulators();

  /// Small things that will want plus from a pad of this net; they are not laid yet.
  bool pads_wanted(const std::string& net) const;

  /// A net of the board that has consumers, or will have, and no source.
  struct UnpoweredRail {
    std::string name, board_net;
    double asked_a = 0;
  };
  std::optional<UnpoweredRail> unpowered_rail(const Network& net, const Solution& powered,
                                              const std::set<std::string>& tried) const;
  /// Where plus can enter a net of the board: a pad, or a socket that nothing else needs. Null when there is none.
  const Terminal* inlet_of(const std::string& board_net) const;
  /// The regulator with most room for so much more; empty when there is none.
  std::string regulator_with_room(const Network& net, const Solution& powered, double asked_a) const;
  /// A net of the board that has consumers and no source gets a second lead of a regulator that has room for it.
  void feed_dark_rails();

  void say_what_stays_dark();

  /// One source a rail: the regulator, else the first speed controller, keeps its red wire.
  void red_wires();

  const Rig& before_;
  const Catalogue& catalogue_;
  const ControllerClass* controller_;
  Plan plan_;
  std::set<std::string> settled_;
  std::pair<std::string, std::string> battery_outlet_;
};

}  // namespace rigging
