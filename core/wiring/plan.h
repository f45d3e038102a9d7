#pragma once

#include "wiring/wiring.h"

namespace rigging {

/// Where something goes, and why there.
struct Choice {
  std::string subject;  ///< part or output id
  std::string end;      ///< its own terminal; empty for an output
  std::string goes_to;  ///< in words: "controller SER 2"
  std::string why;
  bool changed = false;  ///< differs from the rig as it was
};

/// Something that finds no place without breaking a rule.
struct Obstacle {
  std::string subject;
  std::string what;      ///< in words, with what would help
  std::string code;      ///< of the rule that forbids it
  std::string get = {};  ///< a kind of part that would do away with it; empty where none is known
};

struct Plan {
  Rig rig;  ///< with leads and sockets as planned
  std::vector<Choice> choices;
  std::vector<Obstacle> obstacles;
  int changes = 0;
};

/// Gives every output a socket and every part its leads so that no rule is broken and least is disturbed. What is
/// marked fixed stays. Ports and sockets are assigned at least cost (exact); see docs/wiring.md for the costs.
Plan plan_wiring(const Rig& rig, const Catalogue& catalogue);

/// What the plan weighs against what; docs/wiring.md says why.
namespace plan_cost {
inline constexpr double moved = 10, emulated = 6, shared_with_motor = 4, inverter_wasted = 2, order = 0.01;
}

/// Least total cost of giving each row a column of its own: Kuhn–Munkres with potentials, O(rows²·columns). Costs of
/// `forbidden` or above mean impossible. Returns the column per row, −1 where none was possible. Rows may outnumber
/// columns.
std::vector<int> cheapest_assignment(const std::vector<std::vector<double>>& cost);
inline constexpr double forbidden = 1e6;

}  // namespace rigging
