#pragma once

#include "wiring/wiring.h"

namespace rigging {

/// The wiring as a drawing: the board with its sockets and pads in the middle, parts around it, leads as curves.
/// Millimetres on a sheet of `width` × `height`, origin at its upper left. The screen and the printed sheet draw the
/// same layout.
struct WiringLayout {
  struct Spot {
    std::string part, terminal;
    std::string label;
    TerminalKind kind = TerminalKind::output;
    double x = 0, y = 0;
    double out_x = 0, out_y = 0;  ///< unit vector away from the board or part
    bool on_board = false, pad = false;
  };
  struct Box {
    std::string part, name;
    double x = 0, y = 0, w = 0, h = 0;
  };
  struct Curve {
    std::string lead;
    double xy[8] = {};                 ///< cubic: start, two handles, end
    std::vector<const char*> strands;  ///< "minus", "plus", "signal", "transmit", "receive", "phase"
    bool plus_removed = false, crossed_wrongly = false;
    int number = 0;  ///< as in the loom, from 1
  };
  double width = 0, height = 0;
  double board_x = 0, board_y = 0, board_w = 0, board_h = 0;
  double quiet_y = 0;  ///< where across the board there is room for its arrow and name
  std::vector<Spot> spots;
  std::vector<Box> boxes;
  std::vector<Curve> curves;

  const Spot* spot(const std::string& part, const std::string& terminal) const;
  /// The nearest socket, port or pad within `reach` millimetres that `end` could go to; null if none.
  const Spot* nearest_board_spot(double x, double y, double reach) const;
};

WiringLayout layout_wiring(const Rig& rig, const Catalogue& catalogue, double width_mm, double height_mm);

/// The wires in a lead between such terminals, in the words of `Curve::strands`.
std::vector<const char*> strands_of(const Lead& lead, const Terminal* a, const Terminal* b);

}  // namespace rigging
