#include "wiring/layout.h"

#include <algorithm>
#include <cmath>

#include "base/find.h"
#include "base/wrapped.h"
#include "wiring/layout_places.h"

namespace rigging {
namespace {

constexpr double step_mm = 2.4;  // four strands side by side, and a little

using GridPoint = LeadRouter::Point;

/// Middle of the widest strip across the board in which nothing stands near its middle.
double quiet_height(const WiringLayout& layout) {
  const double middle = layout.board_x + layout.board_w / 2;
  std::vector<double> stands{layout.board_y, layout.board_y + layout.board_h};
  for (const WiringLayout::Spot& s : layout.spots)
    if (s.on_board && std::abs(s.x - middle) < 0.3 * layout.board_w) {
      const double label_mm = s.inner ? 7.4 : 5;  // a name stands inward of its socket
      stands.push_back(s.y - (s.pad ? 0 : s.out_y * label_mm));
    }
  std::sort(stands.begin(), stands.end());
  double widest = 0, at = layout.board_y + layout.board_h / 2;
  for (std::size_t i = 1; i < stands.size(); ++i)
    if (stands[i] - stands[i - 1] > widest) {
      widest = stands[i] - stands[i - 1];
      at = (stands[i] + stands[i - 1]) / 2;
    }
  return at;
}

/// From the grid to the sheet and back.
struct Grid {
  double left = 0, top = 0;
  double x(int column) const { return left + column * step_mm; }
  double y(int row) const { return top + row * step_mm; }
  GridPoint at(double x_mm, double y_mm) const {
    return {static_cast<int>(std::lround((x_mm - left) / step_mm)),
            static_cast<int>(std::lround((y_mm - top) / step_mm))};
  }
};

void put_spots(WiringLayout& r, const LayoutPlaces& places, const Grid& grid, double middle_mm) {
  for (const LayoutPlaces::Socket& s : places.sockets()) {
    const Terminal& t = *s.terminal;
    WiringLayout::Spot spot{"controller", t.id,           t.label, t.kind, grid.x(s.at.x), grid.y(s.at.y), 0, 0,
                            true,         t.side.empty(), s.inner};
    if (t.side == "nose" || t.side == "tail")
      spot.out_y = t.side == "nose" ? -1 : 1;
    else
      spot.out_x = t.side == "left" || (t.side.empty() && t.x_mm < middle_mm) ? -1 : 1;
    r.spots.push_back(std::move(spot));
  }
  for (const LayoutPlaces::Item& item : places.items()) {
    using Edge = LayoutPlaces::Edge;
    const double w = item.w * step_mm, h = item.h * step_mm;
    const double label_mm = item.edge == Edge::tail ? 1.6 * step_mm : 0;
    r.boxes.push_back(
        {item.part, item.name, grid.x(item.at.x), grid.y(item.at.y), w, h, grid.y(item.at.y) + label_mm + 0.8});
    for (std::size_t n = 0; n < item.terminals.size(); ++n) {
      const Terminal& t = *item.terminals[n];
      const GridPoint at = LayoutPlaces::end_of(item, n);
      r.spots.push_back({item.part, t.id, t.label, t.kind, grid.x(at.x), grid.y(at.y),
                         item.edge == Edge::left    ? 1.0
                         : item.edge == Edge::right ? -1.0
                                                    : 0.0,
                         item.edge == Edge::nose   ? 1.0
                         : item.edge == Edge::tail ? -1.0
                                                   : 0.0,
                         false, false, false});
    }
  }
}

/// What leads go round: boxes, sockets, labels; the board's face only for who must.
void charge_obstacles(LeadRouter& router, const WiringLayout& r, const Grid& grid) {
  constexpr int face = 6, written = 80, plugged = 200, part = 400, doorstep = 4;
  if (r.board_w > 0) {
    const GridPoint a = grid.at(r.board_x, r.board_y), b = grid.at(r.board_x + r.board_w, r.board_y + r.board_h);
    router.charge(a, b, face);
    const GridPoint quiet = grid.at(r.board_x + r.board_w / 2, r.quiet_y);
    router.charge({quiet.x - 6, quiet.y - 4}, {quiet.x + 6, quiet.y + 4}, written / 4);
  }
  for (const WiringLayout::Box& b : r.boxes) router.charge(grid.at(b.x, b.y), grid.at(b.x + b.w, b.y + b.h), part);
  for (const WiringLayout::Spot& s : r.spots) {
    const GridPoint at = grid.at(s.x, s.y);
    router.charge(at, at, plugged);
    const GridPoint out{static_cast<int>(s.out_x), static_cast<int>(s.out_y)};
    if (!s.pad) router.charge({at.x + out.x, at.y + out.y}, {at.x + out.x, at.y + out.y}, doorstep);
    if (!s.on_board) continue;
    const int wide = static_cast<int>(std::ceil((static_cast<double>(letters(s.label)) * 1.25 + 2.4) / step_mm));
    if (out.x != 0) {
      const int inward = -out.x;
      router.charge({std::min(at.x + inward, at.x + inward * wide), at.y},
                    {std::max(at.x + inward, at.x + inward * wide), at.y}, written);
    } else {
      const int row = at.y - out.y * (s.inner ? 2 : 1);
      router.charge({at.x - wide / 2, std::min(row, at.y - out.y)}, {at.x + wide / 2, std::max(row, at.y - out.y)},
                    written);
    }
  }
}

double distance(const Eigen::Vector2d& p, const Eigen::Vector2d& a, const Eigen::Vector2d& b) {
  const Eigen::Vector2d low = a.cwiseMin(b), high = a.cwiseMax(b);
  return (p - p.cwiseMax(low).cwiseMin(high)).norm();
}

/// Each number to the place on its lead that is farthest from other leads, numbers, and the lead's own ends.
void place_numbers(WiringLayout& r) {
  constexpr double enough_mm = 4.6;
  std::vector<Eigen::Vector2d> taken;
  for (WiringLayout::Line& line : r.lines) {
    double best = -1;
    for (std::size_t i = 1; i < line.corners.size(); ++i) {
      const Eigen::Vector2d a = line.corners[i - 1], b = line.corners[i];
      const int n = std::max(1, static_cast<int>((b - a).norm() / step_mm));
      for (int k = 0; k <= n; ++k) {
        const Eigen::Vector2d p = a + (b - a) * (static_cast<double>(k) / n);
        double clear = enough_mm;
        for (const WiringLayout::Line& other : r.lines)
          for (std::size_t j = 1; &other != &line && j < other.corners.size(); ++j)
            clear = std::min(clear, distance(p, other.corners[j - 1], other.corners[j]));
        for (const Eigen::Vector2d& t : taken) clear = std::min(clear, (p - t).norm());
        for (const WiringLayout::Spot& s : r.spots) clear = std::min(clear, (p - Eigen::Vector2d(s.x, s.y)).norm());
        if (p.x() > r.board_x && p.x() < r.board_x + r.board_w && p.y() > r.board_y && p.y() < r.board_y + r.board_h)
          clear *= 0.5;
        // A little better in the middle of a stretch than at a corner.
        clear += 0.2 * std::min(k, n - k) / n;
        if (clear > best) {
          best = clear;
          line.sign = p;
        }
      }
    }
    taken.push_back(line.sign);
  }
}

void lay_leads(WiringLayout& r, const Rig& rig, const Catalogue& catalogue, const Grid& grid, int columns, int rows) {
  LeadRouter router(columns, rows);
  charge_obstacles(router, r, grid);
  int number = 0;
  for (const Lead& l : rig.leads) {
    ++number;
    const auto *a = r.spot(l.from.part, l.from.socket), *b = r.spot(l.to.part, l.to.socket);
    if (!a || !b || a == b) continue;
    // A pad lies on the face: its lead leaves to wherever it gets off soonest.
    const auto end = [&](const WiringLayout::Spot& s) {
      return LeadRouter::End{grid.at(s.x, s.y),
                             s.pad ? GridPoint{} : GridPoint{static_cast<int>(s.out_x), static_cast<int>(s.out_y)}};
    };
    router.join(end(*a), end(*b));
    WiringLayout::Line line;
    line.lead = l.id;
    line.number = number;
    line.strands = strands_of(l, terminal_of(rig, catalogue, l.from), terminal_of(rig, catalogue, l.to));
    line.plus_removed = l.plus_removed;
    line.crossed_wrongly = l.pair_turned || l.plug_turned;
    r.lines.push_back(std::move(line));
  }
  router.lay();
  for (std::size_t i = 0; i < r.lines.size(); ++i)
    for (const GridPoint& p : router.routes()[i]) r.lines[i].corners.emplace_back(grid.x(p.x), grid.y(p.y));
  r.crossings = router.crossings();
  r.shared_points = router.shared_points();
}

}  // namespace

const WiringLayout::Spot* WiringLayout::spot(const std::string& part, const std::string& terminal) const {
  return find_in(spots, [&](const Spot& s) { return s.part == part && s.terminal == terminal; });
}

const WiringLayout::Spot* WiringLayout::nearest_board_spot(double x, double y, double reach) const {
  const Spot* best = nullptr;
  for (const Spot& s : spots) {
    const double d = std::hypot(s.x - x, s.y - y);
    if (s.on_board && d <= reach) {
      best = &s;
      reach = d;
    }
  }
  return best;
}

std::vector<const char*> strands_of(const Lead& lead, const Terminal* a, const Terminal* b) {
  const auto has = [&](TerminalKind k) { return (a && a->kind == k) || (b && b->kind == k); };
  if (has(TerminalKind::motor_in) || has(TerminalKind::motor_out)) return {"phase", "phase", "phase"};
  if (has(TerminalKind::video_in) || has(TerminalKind::video_out)) return {"minus", "signal"};
  if (has(TerminalKind::battery_in) || has(TerminalKind::battery_out)) return {"minus", "plus"};
  if (has(TerminalKind::power_in) || has(TerminalKind::power) || has(TerminalKind::supply) ||
      has(TerminalKind::switched))
    return lead.plus_removed ? std::vector<const char*>{"minus"} : std::vector<const char*>{"minus", "plus"};
  std::vector<const char*> s{"minus"};
  const bool plus = !lead.plus_removed && !((a && a->net.empty()) || (b && b->net.empty()));
  if (plus) s.push_back("plus");
  if (lead.kind == LeadKind::four_way || lead.kind == LeadKind::two_plus_two || lead.kind == LeadKind::six_way ||
      lead.kind == LeadKind::two_wire)
    s.insert(s.end(), {"transmit", "receive"});
  else
    s.push_back("signal");
  return s;
}

WiringLayout layout_wiring(const Rig& rig, const Catalogue& catalogue, double width_mm, double height_mm) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  for (double scale = 1;; scale *= 1.08) {
    WiringLayout r;
    r.width = std::max(60.0, width_mm) * scale;
    r.height = std::max(40.0, height_mm) * scale;
    const int columns = static_cast<int>(r.width / step_mm), rows = static_cast<int>(r.height / step_mm);
    const LayoutPlaces places(rig, catalogue, columns, rows);
    if (!places.fits() && scale < 6) continue;
    const Grid grid{(r.width - (columns - 1) * step_mm) / 2, (r.height - (rows - 1) * step_mm) / 2};
    if (c) {
      r.board_x = grid.x(places.board().x);
      r.board_y = grid.y(places.board().y);
      r.board_w = places.board_w() * step_mm;
      r.board_h = places.board_h() * step_mm;
    }
    put_spots(r, places, grid, c ? c->width_mm / 2 : 0);
    r.quiet_y = quiet_height(r);
    lay_leads(r, rig, catalogue, grid, columns, rows);
    place_numbers(r);
    return r;
  }
}

}  // namespace rigging
