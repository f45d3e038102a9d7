#include "wiring/layout_places.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "base/find.h"
#include "base/settled.h"
#include "base/wrapped.h"

namespace rigging {
namespace {

using Edge = LayoutPlaces::Edge;
using Item = LayoutPlaces::Item;

constexpr int column_w = 16, least_row_w = 12, label_rows = 2, gap = 1, row_gap = 2, lanes = 2;
constexpr double grid_mm = 2.4, name_letter_mm = 1.55, label_letter_mm = 1.25;

int label_steps(const std::string& label) {
  return static_cast<int>(std::ceil(static_cast<double>(letters(label)) * label_letter_mm / grid_mm));
}

/// Whole steps for places that must keep their order: apart by at least one, what shares an edge by two.
std::map<double, int> stepped(const std::vector<std::pair<double, bool>>& places, double scale) {
  std::map<double, bool> distinct;
  for (const auto& [at, edge] : places) distinct[at] = distinct[at] || edge;
  std::map<double, int> steps;
  int last = -1, last_edge = -2;
  for (const auto& [at, edge] : distinct) {
    int here = std::max(static_cast<int>(std::lround(at * scale)), last + 1);
    if (edge) here = std::max(here, last_edge + 2);
    steps[at] = last = here;
    if (edge) last_edge = here;
  }
  return steps;
}

}  // namespace

LayoutPlaces::LayoutPlaces(const Rig& rig, const Catalogue& catalogue, int columns, int rows)
    : rig_(rig),
      catalogue_(catalogue),
      class_(catalogue.controller(rig.controller.kind)),
      columns_(columns),
      rows_(rows) {
  stretch_board(rows / 2);
  gather();
  choose_edges();
  spread();
  stand();
  order_terminals();
}

Edge LayoutPlaces::edge_of(const Terminal& t) const {
  if (t.side == "left") return Edge::left;
  if (t.side == "right") return Edge::right;
  if (t.side == "nose") return Edge::nose;
  if (t.side == "tail") return Edge::tail;
  return t.x_mm < class_->width_mm / 2 ? Edge::left : Edge::right;
}

const LayoutPlaces::Socket* LayoutPlaces::socket(const std::string& id) const {
  return find_in(sockets_, [&](const Socket& s) { return s.terminal->id == id; });
}

LayoutPlaces::Point LayoutPlaces::end_of(const Item& item, std::size_t n) {
  if (item.beside_board())
    return {item.edge == Edge::left ? item.at.x + item.w : item.at.x,
            item.at.y + item.head + label_rows * static_cast<int>(n) + 1};
  // Side by side, each with the room that its label takes.
  int all = 0, before = 0;
  for (std::size_t i = 0; i < item.terminals.size(); ++i) {
    const int slot = std::max(4, label_steps(item.terminals[i]->label) + 1);
    if (i < n) before += slot;
    if (i == n) before += slot / 2;
    all += slot;
  }
  return {item.at.x + before + std::max(0, item.w - all) / 2, item.edge == Edge::tail ? item.at.y : item.at.y + item.h};
}

/// The board as wide as a good third of the sheet, or as its rows of sockets need; as high as the room allows.
void LayoutPlaces::stretch_board(int room_rows) {
  sockets_.clear();
  if (!class_) return;
  std::vector<std::pair<double, bool>> across, up;
  for (const Terminal* t : class_->terminals()) {
    const bool row = t->side == "nose" || t->side == "tail";
    across.emplace_back(t->x_mm, row);
    up.emplace_back(class_->length_mm - t->y_mm, true);
  }
  board_w_ = std::max(columns_ * 34 / 100, 8);
  const auto xs = stepped(across, board_w_ / class_->width_mm);
  if (!xs.empty()) board_w_ = std::max(board_w_, xs.rbegin()->second + 2);
  board_h_ = std::clamp(static_cast<int>(board_w_ * class_->length_mm / class_->width_mm), 10, std::max(10, room_rows));
  const auto ys = stepped(up, board_h_ / class_->length_mm);
  if (!ys.empty()) board_h_ = std::max(board_h_, ys.rbegin()->second + 1);
  board_.x = (columns_ - board_w_) / 2;
  for (const Terminal* t : class_->terminals()) {
    Point at{xs.at(t->x_mm), std::clamp(ys.at(class_->length_mm - t->y_mm), 0, board_h_)};
    if (t->side == "left") at.x = 0;
    if (t->side == "right") at.x = board_w_;
    if (t->side == "nose") at.y = 0;
    if (t->side == "tail") at.y = board_h_;
    sockets_.push_back({t, {board_.x + at.x, at.y}});
  }
  // Labels of a row stand in two lines where they would meet.
  for (const char* side : {"nose", "tail"}) {
    std::vector<Socket*> row;
    for (Socket& s : sockets_)
      if (s.terminal->side == side) row.push_back(&s);
    std::sort(row.begin(), row.end(), [](const Socket* a, const Socket* b) { return a->at.x < b->at.x; });
    bool tight = false;
    for (std::size_t i = 1; i < row.size(); ++i)
      tight = tight || static_cast<double>(letters(row[i]->terminal->label) + letters(row[i - 1]->terminal->label)) *
                                   label_letter_mm / 2 +
                               0.6 >
                           (row[i]->at.x - row[i - 1]->at.x) * grid_mm;
    for (std::size_t i = 1; tight && i < row.size(); i += 2) row[i]->inner = true;
  }
}

void LayoutPlaces::size(Item& item) const {
  const std::string name = part_name(rig_, catalogue_, item.part);
  int slots = 0;
  for (const Terminal* t : item.terminals) slots += std::max(4, label_steps(t->label) + 1);
  item.w = item.beside_board() ? column_w : std::max(least_row_w, slots);
  item.name = wrapped(name, static_cast<std::size_t>((item.w * grid_mm - 3) / name_letter_mm));
  for (std::size_t i = 2; i < item.name.size(); ++i) item.name[1] += " " + item.name[i];
  item.name.resize(std::min<std::size_t>(2, item.name.size()));
  item.head = static_cast<int>(item.name.size()) + 1;
  item.h = item.head + label_rows * (item.beside_board() ? std::max(1, static_cast<int>(item.terminals.size())) : 1);
}

void LayoutPlaces::gather() {
  for (const Part& p : rig_.parts) {
    const PartKind* k = catalogue_.part(p.kind);
    if (!k || k->terminals.empty()) continue;
    Item item;
    item.part = p.id;
    for (const Terminal& t : k->terminals) {
      const bool used = std::any_of(rig_.leads.begin(), rig_.leads.end(),
                                    [&](const Lead& l) { return far_end(l, p.id, t.id) != nullptr; });
      // Of many alike only those in use, so that a receiver's box stays small.
      if (used || k->terminals.size() <= 3) item.terminals.push_back(&t);
    }
    items_.push_back(std::move(item));
  }
}

/// Each part goes to the edge where most of its leads end; what touches no board stands by what it hangs on.
void LayoutPlaces::choose_edges() {
  std::map<std::string, std::map<Edge, std::vector<double>>> votes;
  for (const Lead& l : rig_.leads)
    for (const auto& [end, far] : {std::pair{&l.from, &l.to}, std::pair{&l.to, &l.from}})
      if (far->part == "controller")
        if (const Socket* s = socket(far->socket)) {
          const Edge edge = edge_of(*s->terminal);
          votes[end->part][edge].push_back(edge == Edge::left || edge == Edge::right ? s->at.y : s->at.x);
        }
  std::set<std::string> placed;
  std::map<Edge, int> load;
  const auto put = [&](Item& item, Edge edge, double order) {
    item.edge = edge;
    item.order = order;
    size(item);
    load[edge] += item.h;
    placed.insert(item.part);
  };
  for (const bool undecided : {false, true})
    for (Item& item : items_) {
      const auto v = votes.find(item.part);
      if (v == votes.end() || placed.count(item.part)) continue;
      std::size_t most = 0;
      std::vector<Edge> best;
      for (const auto& [edge, at] : v->second) {
        if (at.size() > most) best.clear();
        most = std::max(most, at.size());
        if (at.size() == most) best.push_back(edge);
      }
      if (best.size() > 1 && !undecided) continue;
      const Edge edge = *std::min_element(best.begin(), best.end(), [&](Edge a, Edge b) { return load[a] < load[b]; });
      double sum = 0;
      for (const double at : v->second.at(edge)) sum += at;
      put(item, edge, sum / static_cast<double>(v->second.at(edge).size()));
    }
  for (bool more = true; more;) {
    more = false;
    for (Item& item : items_) {
      if (placed.count(item.part)) continue;
      for (const Lead& l : rig_.leads) {
        const LeadEnd* far = far_end(l, item.part);
        if (!far || !placed.count(far->part) || placed.count(item.part)) continue;
        const Item* by = find_in(items_, [&](const Item& i) { return i.part == far->part; });
        // Away from the middle, so that what comes from the board passes it by.
        const double outward = by->beside_board() || by->order > board_.x + board_w_ / 2.0 ? 0.1 : -0.1;
        put(item, by->edge, by->order + outward);
        more = true;
      }
    }
  }
  for (Item& item : items_)
    if (!placed.count(item.part)) put(item, load[Edge::left] <= load[Edge::right] ? Edge::left : Edge::right, 1e3);
}

std::vector<Item*> LayoutPlaces::along(Edge edge) {
  std::vector<Item*> row;
  for (Item& i : items_)
    if (i.edge == edge) row.push_back(&i);
  std::stable_sort(row.begin(), row.end(), [](const Item* a, const Item* b) { return a->order < b->order; });
  return row;
}

int LayoutPlaces::length(Edge edge) const {
  int sum = 0;
  for (const Item& i : items_)
    if (i.edge == edge) sum += i.beside_board() ? i.h + gap : i.w + row_gap;
  return sum;
}

/// What finds no room in a row goes to the end of a column beside it, and the other way round.
void LayoutPlaces::spread() {
  const auto move = [&](Item* item, Edge edge, double order) {
    item->edge = edge;
    item->order = order;
    size(*item);
  };
  for (const Edge edge : {Edge::tail, Edge::nose})
    for (int n = 1; length(edge) > columns_ - 2; ++n) {
      const std::vector<Item*> row = along(edge);
      const bool left = length(Edge::left) <= length(Edge::right);
      move(left ? row.front() : row.back(), left ? Edge::left : Edge::right, edge == Edge::tail ? board_h_ + n : -n);
    }
  for (const Edge edge : {Edge::left, Edge::right}) {
    const auto room = [&] {
      int taken = 0;
      for (const Edge row : {Edge::tail, Edge::nose}) {
        int high = 0;
        for (const Item* i : along(row)) high = std::max(high, i->h + 1 + lanes);
        taken += high;
      }
      return rows_ - 2 - taken;
    };
    while (length(edge) > room()) {
      const std::vector<Item*> column = along(edge);
      Item probe = *column.back();
      move(&probe, Edge::tail, 0);
      if (length(Edge::tail) + probe.w + row_gap > columns_ - 2) break;
      move(column.back(), Edge::tail, edge == Edge::left ? -1e3 : 1e3);
    }
  }
}

/// Moves the board between what stands at its nose and at its tail, and stretches it into the room left.
void LayoutPlaces::lift_board(int upper, int lower) {
  if (!class_) return;
  const auto leads_at = [&](const char* side) {
    int n = 0;
    for (const Lead& l : rig_.leads)
      for (const LeadEnd* e : {&l.from, &l.to})
        if (e->part == "controller")
          if (const Socket* s = socket(e->socket)) n += s->terminal->side == side;
    return std::min(n, 8);
  };
  const int above = 2 + leads_at("nose"), below = 2 + leads_at("tail");
  const int room = lower - upper - above - below;
  stretch_board(room);
  fits_ = fits_ && board_h_ <= room;
  board_.y = upper + above + std::max(0, room - board_h_) / 2;
  for (Socket& s : sockets_) s.at.y += board_.y;
}

void LayoutPlaces::stand() {
  int top = 0, bottom = 0;
  for (const Item& i : items_) {
    if (i.edge == Edge::nose) top = std::max(top, i.h);
    if (i.edge == Edge::tail) bottom = std::max(bottom, i.h);
  }
  const int upper = 1 + (top > 0 ? top + 1 : 0), lower = rows_ - 2 - (bottom > 0 ? bottom + 1 : 0);
  lift_board(upper, lower);
  for (const Edge edge : {Edge::left, Edge::right, Edge::nose, Edge::tail}) {
    const std::vector<Item*> row = along(edge);
    const bool column = edge == Edge::left || edge == Edge::right;
    std::vector<double> wanted;
    std::vector<double> sizes;
    for (const Item* i : row) {
      sizes.push_back(column ? i->h : i->w);
      wanted.push_back(column ? board_.y + i->order - i->h / 2.0 - 1 : i->order - i->w / 2.0);
    }
    // Two lanes stay free between a column and the row below or above it: what stands in the row is reached there.
    const int low = column ? upper + (top > 0 ? lanes : 0) : 1,
              high = column ? lower - (bottom > 0 ? lanes : 0) : columns_ - 2;
    const std::vector<double> starts = settled(wanted, sizes, column ? gap : row_gap, low, high);
    for (std::size_t n = 0; n < row.size(); ++n) {
      fits_ = fits_ && starts[n] >= low && starts[n] + sizes[n] <= high;
      Item& i = *row[n];
      const int start = static_cast<int>(std::lround(starts[n]));  // whole sizes stay apart when rounded alike
      if (column)
        i.at = {edge == Edge::left ? 1 : columns_ - 2 - i.w, start};
      else
        i.at = {start, edge == Edge::nose ? 1 : rows_ - 2 - i.h};
    }
  }
  fits_ = fits_ && board_.x >= column_w + 6;
}

/// In the order of where their leads go, so that they need not cross at the box.
void LayoutPlaces::order_terminals() {
  for (Item& item : items_) {
    const bool column = item.beside_board();
    std::map<const Terminal*, double> key;
    for (const Terminal* t : item.terminals) {
      double sum = 0;
      int n = 0;
      for (const Lead& l : rig_.leads) {
        const LeadEnd* far = far_end(l, item.part, t->id);
        if (!far) continue;
        if (far->part == "controller") {
          if (const Socket* s = socket(far->socket)) sum += column ? s->at.y : s->at.x, ++n;
        } else if (const Item* other = find_in(items_, [&](const Item& i) { return i.part == far->part; })) {
          const int ahead = column ? other->at.y - item.at.y : other->at.x - item.at.x;
          // A neighbour in the same row is reached past the row's own ends.
          sum += other->edge == item.edge ? (ahead > 0 ? 1e4 - ahead : -1e4 - ahead)
                                          : (column ? other->at.y + other->h / 2.0 : other->at.x + other->w / 2.0);
          ++n;
        }
      }
      key[t] = n > 0 ? sum / n : 1e6;
    }
    std::stable_sort(item.terminals.begin(), item.terminals.end(),
                     [&](const Terminal* a, const Terminal* b) { return key[a] < key[b]; });
  }
}

}  // namespace rigging
