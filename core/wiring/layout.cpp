#include "wiring/layout.h"

#include <algorithm>
#include <cmath>

#include "base/find.h"

namespace rigging {
namespace {

constexpr double box_w = 40, row_h = 4.2, head_h = 5.2, gap = 2.6;

struct Item {
  std::string part;
  std::vector<const Terminal*> terminals;
  double order = 0;  ///< where its socket sits along its side of the board
  bool left = false, direct = false;
  /// Beside the board terminals stand one below the other, under it side by side.
  double height() const {
    return head_h + row_h * (direct ? static_cast<double>(std::max<std::size_t>(1, terminals.size())) : 1.0);
  }
};

/// Middle of the widest strip across the board in which nothing stands near its middle.
double quiet_height(const WiringLayout& layout) {
  const double middle = layout.board_x + layout.board_w / 2;
  std::vector<double> stands{layout.board_y, layout.board_y + layout.board_h};
  for (const WiringLayout::Spot& s : layout.spots)
    if (s.on_board && std::abs(s.x - middle) < 0.3 * layout.board_w) {
      constexpr double label_mm = 5;  // a name stands inward of its socket
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
  WiringLayout r;
  r.width = width_mm;
  r.height = height_mm;
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (c) {
    // Stretched across where the sheet is flat, so that sockets keep their distance; their order and edges stay true.
    r.board_h = std::min(height_mm * 0.58, width_mm * 0.34 / c->width_mm * c->length_mm);
    r.board_w = std::min(width_mm * 0.34, 2.2 * r.board_h * c->width_mm / c->length_mm);
    const double along = r.board_w / c->width_mm, down = r.board_h / c->length_mm;
    r.board_x = (width_mm - r.board_w) / 2;
    r.board_y = height_mm * 0.40 - r.board_h / 2;
    for (const Terminal* t : c->terminals()) {
      WiringLayout::Spot s{"controller",
                           t->id,
                           t->label,
                           t->kind,
                           r.board_x + t->x_mm * along,
                           r.board_y + r.board_h - t->y_mm * down,
                           0,
                           0,
                           true,
                           t->side.empty()};
      if (t->side == "left")
        s.out_x = -1;
      else if (t->side == "right")
        s.out_x = 1;
      else if (t->side == "nose")
        s.out_y = -1;
      else if (t->side == "tail")
        s.out_y = 1;
      else
        s.out_x = t->x_mm < c->width_mm / 2 ? -1 : 1;
      r.spots.push_back(s);
    }
  }

  std::vector<Item> items;
  for (const Part& p : rig.parts) {
    const PartKind* k = catalogue.part(p.kind);
    if (!k || k->terminals.empty()) continue;
    Item item;
    item.part = p.id;
    double x = 0, y = 0;
    int n = 0;
    for (const Terminal& t : k->terminals) {
      const bool used = std::any_of(rig.leads.begin(), rig.leads.end(),
                                    [&](const Lead& l) { return far_end(l, p.id, t.id) != nullptr; });
      // Of many alike only those in use, so that a receiver's box stays small.
      if (used || k->terminals.size() <= 3) item.terminals.push_back(&t);
      for (const Lead& l : rig.leads)
        if (const LeadEnd* far = far_end(l, p.id, t.id); far && far->part == "controller")
          if (const auto* s = r.spot("controller", far->socket)) {
            x += s->x;
            y += s->y + s->out_y * 12;
            ++n;
          }
    }
    item.direct = n > 0;
    if (n > 0) {
      item.left = x / n < r.board_x + r.board_w / 2;
      // Down the left edge the lower sockets come last; at the tail edge those further out come first.
      const double side = item.left ? x / n - r.board_x : r.board_x + r.board_w - x / n;
      item.order = y / n + (y / n > r.board_y + r.board_h ? side * 0.8 : 0);
    }
    items.push_back(std::move(item));
  }
  // Balance the two sides: whatever sits nearest to the middle changes over.
  const auto tall = [&](bool left) {
    double h = 0;
    for (const Item& i : items)
      if (i.direct && i.left == left) h += i.height() + gap;
    return h;
  };
  for (int guard = 0; guard < 8; ++guard) {
    const double l = tall(true), rr = tall(false);
    const bool from_left = l > rr;
    Item* best = nullptr;
    for (Item& i : items)
      if (i.direct && i.left == from_left && i.height() + gap < std::abs(l - rr) && (!best || i.order > best->order))
        best = &i;
    if (!best) break;
    best->left = !from_left;
  }
  const auto stack = [&](bool left) {
    std::vector<Item*> column;
    for (Item& i : items)
      if (i.direct && i.left == left) column.push_back(&i);
    std::stable_sort(column.begin(), column.end(), [](const Item* a, const Item* b) { return a->order < b->order; });
    const double used = tall(left),
                 spare = std::max(0.0, height_mm * 0.80 - used) / static_cast<double>(column.size() + 1);
    const double squeeze = used > height_mm * 0.80 ? height_mm * 0.80 / used : 1;
    double y = 3 + spare;
    for (const Item* i : column) {
      r.boxes.push_back({i->part, part_name(rig, catalogue, i->part), left ? 4.0 : width_mm - box_w - 4, y, box_w,
                         i->height() * squeeze});
      y += (i->height() + gap) * squeeze + spare;
    }
  };
  stack(true);
  stack(false);
  // What does not touch the board stands in a row below: battery, drive, propeller side by side.
  std::vector<const Item*> below;
  for (const Item& i : items)
    if (!i.direct) below.push_back(&i);
  const double step = below.empty() ? 0 : std::min(box_w + 12, (width_mm - 8) / static_cast<double>(below.size()));
  double x = (width_mm - step * static_cast<double>(below.size())) / 2 + (step - std::min(box_w, step - 2)) / 2;
  for (const Item* i : below) {
    r.boxes.push_back({i->part, part_name(rig, catalogue, i->part), x, height_mm - i->height() - 1.5,
                       std::min(box_w, step - 2), i->height()});
    x += step;
  }
  for (const WiringLayout::Box& b : r.boxes) {
    const Item& item = *std::find_if(items.begin(), items.end(), [&](const Item& i) { return i.part == b.part; });
    const bool below_board = !item.direct;
    const double rows =
        (b.h - head_h * b.h / item.height()) / static_cast<double>(std::max<std::size_t>(1, item.terminals.size()));
    double y = b.y + head_h * b.h / item.height() + rows / 2;
    int n = 0;
    for (const Terminal* t : item.terminals) {
      WiringLayout::Spot s{item.part, t->id, t->label, t->kind, 0, y, 0, 0, false, false};
      if (below_board) {
        // Leads leave upward from the head of the box.
        s.x = b.x + b.w * (n + 1) / (static_cast<double>(item.terminals.size()) + 1);
        s.y = b.y;
        s.out_y = -1;
      } else {
        s.x = b.x < width_mm / 2 ? b.x + b.w : b.x;
        s.out_x = b.x < width_mm / 2 ? 1 : -1;
      }
      r.spots.push_back(s);
      y += rows;
      ++n;
    }
  }

  // A pad lies on the face: its lead leaves to the side where it goes.
  for (WiringLayout::Spot& s : r.spots) {
    if (!s.on_board || !s.pad) continue;
    for (const Lead& l : rig.leads)
      if (const LeadEnd* far = far_end(l, "controller", s.terminal))
        for (const WiringLayout::Box& b : r.boxes)
          if (b.part == far->part) s.out_x = b.x + b.w / 2 < s.x ? -1 : 1;
  }

  int number = 0;
  for (const Lead& l : rig.leads) {
    ++number;
    const auto *a = r.spot(l.from.part, l.from.socket), *b = r.spot(l.to.part, l.to.socket);
    if (!a || !b) continue;
    WiringLayout::Curve curve;
    curve.lead = l.id;
    curve.number = number;
    const double reach = std::clamp(std::hypot(a->x - b->x, a->y - b->y) * 0.45, 8.0, 42.0);
    // Leads that leave up or down turn soon: the sheet is flat.
    const auto from = [&](const WiringLayout::Spot& s) {
      return s.out_y == 0                ? reach
             : s.on_board && s.out_y < 0 ? std::min(reach, std::max(2.0, s.y - 1))
                                         : std::min(reach, 14.0);
    };
    const double ra = from(*a), rb = from(*b);
    const double xy[8] = {
        a->x, a->y, a->x + a->out_x * ra, a->y + a->out_y * ra, b->x + b->out_x * rb, b->y + b->out_y * rb, b->x, b->y};
    std::copy(std::begin(xy), std::end(xy), curve.xy);
    curve.strands = strands_of(l, terminal_of(rig, catalogue, l.from), terminal_of(rig, catalogue, l.to));
    curve.plus_removed = l.plus_removed;
    curve.crossed_wrongly = l.pair_turned || l.plug_turned;
    r.curves.push_back(std::move(curve));
  }
  r.quiet_y = quiet_height(r);
  return r;
}

}  // namespace rigging
