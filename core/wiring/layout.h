#pragma once

#include <Eigen/Core>

#include "wiring/wiring.h"

namespace rigging {

/// The wiring as a drawing: the board with its sockets and pads in the middle, each part at the edge of the board where
/// its sockets are, leads at right angles round the board and round everything that is written. Millimetres, origin at
/// the upper left. The screen and the printed sheet draw the same layout.
struct WiringLayout {
  struct Spot {
    std::string part, terminal;
    std::string label;
    TerminalKind kind = TerminalKind::output;
    double x = 0, y = 0;
    double out_x = 0, out_y = 0;  ///< unit vector away from the board or part
    bool on_board = false, pad = false;
    bool inner = false;  ///< sockets too close for their labels: this one's stands a line further in
  };
  struct Box {
    std::string part;
    std::vector<std::string> name;  ///< in one or two lines
    double x = 0, y = 0, w = 0, h = 0;
    double name_y = 0;  ///< upper edge of the name's first line, from the sheet's
  };
  struct Line {
    std::string lead;
    std::vector<Eigen::Vector2d> corners;  ///< from the lead's one end to the other, every part along the sheet's edges
    std::vector<const char*> strands;      ///< "minus", "plus", "signal", "transmit", "receive", "phase"
    bool plus_removed = false, crossed_wrongly = false;
    int number = 0;          ///< as in the loom, from 1
    Eigen::Vector2d sign{};  ///< where on it its number stands, away from other leads
  };
  /// As asked for, or larger in the same proportion where the parts would not fit: whoever draws scales.
  double width = 0, height = 0;
  double board_x = 0, board_y = 0, board_w = 0, board_h = 0;
  double quiet_y = 0;  ///< where across the board there is room for its arrow and name
  std::vector<Spot> spots;
  std::vector<Box> boxes;
  std::vector<Line> lines;
  int crossings = 0;      ///< how often one lead passes over another
  int shared_points = 0;  ///< places, 2.4 mm apart, where leads run upon each other although they share no socket

  const Spot* spot(const std::string& part, const std::string& terminal) const;
  /// The nearest socket, port or pad within `reach` millimetres that `end` could go to; null if none.
  const Spot* nearest_board_spot(double x, double y, double reach) const;
};

/// On a sheet of at least 60 x 40 mm.
WiringLayout layout_wiring(const Rig& rig, const Catalogue& catalogue, double width_mm, double height_mm);

/// The wires in a lead between such terminals, in the words of `Curve::strands`.
std::vector<const char*> strands_of(const Lead& lead, const Terminal* a, const Terminal* b);

}  // namespace rigging
