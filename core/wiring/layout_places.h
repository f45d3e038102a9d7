#pragma once

#include "wiring/layout.h"
#include "wiring/lead_router.h"

namespace rigging {

/// Where board and parts stand on a sheet of `columns` × `rows` points, in steps of the grid that the leads run on. The
/// board's face keeps the order of its sockets and pads; what it is stretched by follows the sheet.
class LayoutPlaces {
 public:
  using Point = LeadRouter::Point;
  enum class Edge { left, right, nose, tail };
  /// A part with what it has to plug; `at` its upper left corner.
  struct Item {
    std::string part;
    std::vector<std::string> name;
    std::vector<const Terminal*> terminals;
    Edge edge = Edge::left;
    double order = 0;  ///< where its sockets sit along that edge, in steps of the grid
    Point at;
    int w = 0, h = 0, head = 0;
    bool beside_board() const { return edge == Edge::left || edge == Edge::right; }
  };
  struct Socket {
    const Terminal* terminal;
    Point at;
    bool inner = false;
  };

  LayoutPlaces(const Rig& rig, const Catalogue& catalogue, int columns, int rows);
  /// False where the sheet is too small for all of it.
  bool fits() const { return fits_; }
  Point board() const { return board_; }
  int board_w() const { return board_w_; }
  int board_h() const { return board_h_; }
  const std::vector<Socket>& sockets() const { return sockets_; }
  const std::vector<Item>& items() const { return items_; }
  /// Where the n-th terminal of an item has its lead.
  static Point end_of(const Item& item, std::size_t n);

 private:
  void gather();
  void size(Item& item) const;
  void stretch_board(int room_rows);
  void choose_edges();
  void spread();
  void stand();
  void order_terminals();
  void lift_board(int upper, int lower);
  const Socket* socket(const std::string& id) const;
  Edge edge_of(const Terminal& t) const;
  std::vector<Item*> along(Edge edge);
  int length(Edge edge) const;

  const Rig& rig_;
  const Catalogue& catalogue_;
  const ControllerClass* class_ = nullptr;
  int columns_, rows_;
  bool fits_ = true;
  Point board_;
  int board_w_ = 0, board_h_ = 0;
  std::vector<Socket> sockets_;
  std::vector<Item> items_;
};

}  // namespace rigging
