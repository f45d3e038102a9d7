#include "wiring/lead_router.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numeric>
#include <queue>

namespace rigging {
namespace {

// What a step costs beside its own length of one. A crossing is worth a detour of a dozen steps; to run upon another
// lead is worse than any way round.
constexpr int bend_cost = 3, crossing_cost = 14, upon_cost = 150;
/// Steps looked at before the search is given up for straight lines: some seconds, for looms that nobody builds.
constexpr double most_work = 6e7;
constexpr std::array<LeadRouter::Point, 4> ways{{{1, 0}, {0, 1}, {-1, 0}, {0, -1}}};

int way_of(LeadRouter::Point out) {
  for (std::size_t i = 0; i < ways.size(); ++i)
    if (ways[i] == out) return static_cast<int>(i);
  return -1;
}

}  // namespace

LeadRouter::LeadRouter(int columns, int rows)
    : columns_(std::max(2, columns)),
      rows_(std::max(2, rows)),
      charge_(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_), 0),
      along_(charge_.size(), 0),
      across_(charge_.size(), 0),
      turns_(charge_.size(), 0) {}

void LeadRouter::charge(Point from, Point to, int cost) {
  for (int y = std::max(0, from.y); y <= std::min(rows_ - 1, to.y); ++y)
    for (int x = std::max(0, from.x); x <= std::min(columns_ - 1, to.x); ++x) charge_[index({x, y})] += cost;
}

void LeadRouter::join(End from, End to) {
  for (End* e : {&from, &to}) e->at = {std::clamp(e->at.x, 0, columns_ - 1), std::clamp(e->at.y, 0, rows_ - 1)};
  leads_.push_back({from, to, {}});
}

/// Adds a lead's way to what is laid, or takes it away again.
void LeadRouter::mark(const Lead& lead, int by) {
  for (std::size_t i = 0; i < lead.path.size(); ++i) {
    const Point p = lead.path[i];
    const bool end = i == 0 || i + 1 == lead.path.size();
    const Point before = i == 0 ? p : lead.path[i - 1], after = end && i > 0               ? p
                                                                : i + 1 < lead.path.size() ? lead.path[i + 1]
                                                                                           : p;
    const bool rows = before.x != p.x || after.x != p.x, columns = before.y != p.y || after.y != p.y;
    if (end || (rows && columns))
      turns_[index(p)] += by;
    else
      (rows ? along_ : across_)[index(p)] += by;
  }
}

void LeadRouter::route(Lead& lead) {
  // Cheapest way through (point, direction of the last step). The straight distance never overestimates what is left.
  const std::size_t states = charge_.size() * 4;
  std::vector<int> best(states, -1), from(states, -1);
  using Entry = std::array<int, 3>;  // estimate, cost, state
  std::priority_queue<Entry, std::vector<Entry>, std::greater<>> open;
  const Point a = lead.from.at, b = lead.to.at;
  const auto left = [&](Point p) { return std::abs(p.x - b.x) + std::abs(p.y - b.y); };
  const auto reach = [&](Point p, int way, int cost, int state) {
    const int next = static_cast<int>(index(p)) * 4 + way;
    int& seen = best[static_cast<std::size_t>(next)];
    if (seen >= 0 && seen <= cost) return;
    seen = cost;
    from[static_cast<std::size_t>(next)] = state;
    open.push({cost + left(p), cost, next});
  };
  // An end in a socket is free of the charges round it, and where two leads share a socket they may start together.
  const auto step_cost = [&](Point p, int way) {
    const std::size_t i = index(p);
    if (p == b) return 1;
    const int ours = way % 2 == 0 ? along_[i] : across_[i], theirs = way % 2 == 0 ? across_[i] : along_[i];
    const int near = std::min(std::abs(p.x - a.x) + std::abs(p.y - a.y), left(p));
    const int upon = (ours + turns_[i]) * (near <= 2 ? 8 : upon_cost);
    return 1 + charge_[i] + upon + theirs * crossing_cost;
  };
  const int first = way_of(lead.from.out), last = lead.to.out == Point{} ? -1 : (way_of(lead.to.out) + 2) % 4;
  for (int way = 0; way < 4; ++way) {
    if (first >= 0 && way != first) continue;
    const Point p{a.x + ways[static_cast<std::size_t>(way)].x, a.y + ways[static_cast<std::size_t>(way)].y};
    if (inside(p)) reach(p, way, step_cost(p, way), -1);
  }
  int reached = -1;
  while (!open.empty()) {
    const auto [estimate, cost, state] = open.top();
    open.pop();
    if (best[static_cast<std::size_t>(state)] != cost) continue;
    const int at = state / 4, way = state % 4;
    const Point p{at % columns_, at / columns_};
    if (p == b && (last < 0 || way == last)) {
      reached = state;
      break;
    }
    if (p == b) continue;
    for (int turn = 0; turn < 4; ++turn) {
      if (turn == (way + 2) % 4) continue;
      const Point q{p.x + ways[static_cast<std::size_t>(turn)].x, p.y + ways[static_cast<std::size_t>(turn)].y};
      if (!inside(q) || (q == b && last >= 0 && turn != last)) continue;
      // To turn on another's line would touch it.
      const std::size_t i = index(p);
      const int bend = turn == way ? 0 : bend_cost + (along_[i] + across_[i]) * upon_cost;
      reach(q, turn, cost + bend + step_cost(q, turn), state);
    }
  }
  lead.path.clear();
  if (reached < 0) {
    lead.path = {a, b};  // walled in: a straight line still says what goes where
    return;
  }
  for (int s = reached; s >= 0; s = from[static_cast<std::size_t>(s)])
    lead.path.push_back({(s / 4) % columns_, (s / 4) / columns_});
  lead.path.push_back(a);
  std::reverse(lead.path.begin(), lead.path.end());
}

void LeadRouter::lay() {
  for (const Lead& l : leads_)
    if (!l.path.empty()) mark(l, -1);
  std::vector<std::size_t> order(leads_.size());
  std::iota(order.begin(), order.end(), 0u);
  const auto distance = [&](std::size_t i) {
    const Lead& l = leads_[i];
    return std::abs(l.from.at.x - l.to.at.x) + std::abs(l.from.at.y - l.to.at.y);
  };
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return distance(a) < distance(b); });
  const double work = static_cast<double>(charge_.size()) * 4 * static_cast<double>(leads_.size());
  for (const std::size_t i : order) {
    if (work < most_work)
      route(leads_[i]);
    else
      leads_[i].path = {leads_[i].from.at, leads_[i].to.at};
    mark(leads_[i], 1);
  }
  for (int pass = 0; pass < 4 && work < most_work; ++pass) {
    bool better = false;
    for (auto i = order.rbegin(); i != order.rend(); ++i) {
      Lead& l = leads_[*i];
      const auto meets = [&](const Point& p) { return along_[index(p)] + across_[index(p)] + turns_[index(p)] > 1; };
      if (std::none_of(l.path.begin() + 1, l.path.end() - 1, meets)) continue;
      const std::vector<Point> old = l.path;
      mark(l, -1);
      route(l);
      mark(l, 1);
      better = better || l.path != old;
    }
    if (!better) break;
  }
  if (work < most_work) shorten_detours();
  routes_.clear();
  for (const Lead& l : leads_) {
    std::vector<Point> corners;
    for (const Point& p : l.path) {
      const std::size_t n = corners.size();
      const bool straight = n >= 2 && ((corners[n - 1].x == p.x && corners[n - 2].x == p.x) ||
                                       (corners[n - 1].y == p.y && corners[n - 2].y == p.y));
      if (straight)
        corners.back() = p;
      else
        corners.push_back(p);
    }
    routes_.push_back(std::move(corners));
  }
}

int LeadRouter::cost() const {
  int sum = crossings() * crossing_cost + shared_points() * upon_cost;
  for (const Lead& l : leads_)
    for (std::size_t i = 1; i < l.path.size(); ++i) {
      const Point &a = l.path[i - 1], &b = l.path[i];
      sum += 1 + charge_[index(b)];
      if (i + 1 < l.path.size() && (l.path[i + 1].x - a.x) * (l.path[i + 1].y - a.y) != 0) sum += bend_cost;
    }
  return sum;
}

/// A lead that was laid late may have been left only the way round everything. It is laid first, and the other that was
/// in its way after it, where both together are the better for it and no more leads cross.
void LeadRouter::shorten_detours() {
  const auto length = [](const Lead& l) { return static_cast<double>(l.path.size()); };
  for (Lead& l : leads_) {
    const double straight = std::abs(l.from.at.x - l.to.at.x) + std::abs(l.from.at.y - l.to.at.y);
    for (Lead& other : leads_) {
      if (length(l) < 1.15 * straight + 6) break;
      if (&other == &l) continue;
      const std::vector<Point> way = l.path, others_way = other.path;
      const int before = cost(), crossed = crossings();
      mark(l, -1);
      mark(other, -1);
      route(l);
      mark(l, 1);
      if (l.path.size() < way.size()) {
        route(other);
        mark(other, 1);
        if (cost() < before && crossings() <= crossed) continue;
        mark(other, -1);
      }
      mark(l, -1);
      l.path = way;
      other.path = others_way;
      mark(l, 1);
      mark(other, 1);
    }
  }
}

int LeadRouter::crossings() const {
  int n = 0;
  for (std::size_t i = 0; i < along_.size(); ++i) n += along_[i] * across_[i];
  return n;
}

int LeadRouter::shared_points() const {
  int n = 0;
  for (int y = 0; y < rows_; ++y)
    for (int x = 0; x < columns_; ++x) {
      const Point p{x, y};
      const bool socket =
          std::any_of(leads_.begin(), leads_.end(), [&](const Lead& l) { return l.from.at == p || l.to.at == p; });
      const std::size_t i = index(p);
      const int here = along_[i] + across_[i] + turns_[i];
      if (!socket && here > 1 && (turns_[i] > 0 || along_[i] > 1 || across_[i] > 1)) n += here - 1;
    }
  return n;
}

}  // namespace rigging
