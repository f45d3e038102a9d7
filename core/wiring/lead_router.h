#pragma once

#include <vector>

namespace rigging {

/// Leads along the lines of a square grid, at right angles: round what stands in the way, beside one another, with few
/// crossings. Counts in steps of the grid; a point is (column, row) from the upper left.
class LeadRouter {
 public:
  struct Point {
    int x = 0, y = 0;
    bool operator==(const Point&) const = default;
  };
  /// One end of a lead: where it is, and which way it leaves; no way at all (0, 0) leaves anywhere.
  struct End {
    Point at, out;
  };

  LeadRouter(int columns, int rows);
  /// Makes every point of a rectangle, its edges among them, dearer to pass. Costs add up.
  void charge(Point from, Point to, int cost);
  /// Puts a lead between two points of the grid. Ends outside the grid are moved to its edge.
  void join(End from, End to);
  /// Lays all leads, short ones first, and lays those again that cross another until nothing gets better; then those
  /// that go a long way round, with the one that is in their way after them.
  void lay();

  /// Corners of each lead from its first end to its second, in the order they were joined.
  const std::vector<std::vector<Point>>& routes() const { return routes_; }
  /// How often one lead passes straight over another.
  int crossings() const;
  /// How many points two leads share other than by crossing at a right angle; ends that lie in one socket don't count.
  int shared_points() const;

 private:
  struct Lead {
    End from, to;
    std::vector<Point> path;  ///< every point of the grid that it passes
  };
  std::size_t index(Point p) const {
    return static_cast<std::size_t>(p.y) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(p.x);
  }
  bool inside(Point p) const { return p.x >= 0 && p.y >= 0 && p.x < columns_ && p.y < rows_; }
  void route(Lead& lead);
  void mark(const Lead& lead, int by);
  /// What all leads cost as they lie: length, bends, and what they pass.
  int cost() const;
  void shorten_detours();

  int columns_, rows_;
  std::vector<int> charge_;
  /// How many leads pass each point along the rows, along the columns, and turn or end there.
  std::vector<int> along_, across_, turns_;
  std::vector<Lead> leads_;
  std::vector<std::vector<Point>> routes_;
};

}  // namespace rigging
