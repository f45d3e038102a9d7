#include <limits>

#include "wiring/plan.h"

namespace rigging {

std::vector<int> cheapest_assignment(const std::vector<std::vector<double>>& cost) {
  const std::size_t rows = cost.size(), columns = rows ? cost[0].size() : 0;
  // One column of "nowhere" per row, so that an answer always exists.
  const std::size_t wide = columns + rows;
  const auto at = [&](std::size_t r, std::size_t c) {
    return c < columns ? std::min(cost[r][c], forbidden) : forbidden * (c - columns == r ? 0.99 : 1.0);
  };
  constexpr double inf = std::numeric_limits<double>::infinity();
  std::vector<double> u(rows + 1, 0), v(wide + 1, 0);
  std::vector<std::size_t> owner(wide + 1, 0), way(wide + 1, 0);
  for (std::size_t r = 1; r <= rows; ++r) {
    owner[0] = r;
    std::size_t j0 = 0;
    std::vector<double> least(wide + 1, inf);
    std::vector<bool> used(wide + 1, false);
    do {
      used[j0] = true;
      const std::size_t i0 = owner[j0];
      double delta = inf;
      std::size_t j1 = 0;
      for (std::size_t j = 1; j <= wide; ++j) {
        if (used[j]) continue;
        const double reduced = at(i0 - 1, j - 1) - u[i0] - v[j];
        if (reduced < least[j]) {
          least[j] = reduced;
          way[j] = j0;
        }
        if (least[j] < delta) {
          delta = least[j];
          j1 = j;
        }
      }
      for (std::size_t j = 0; j <= wide; ++j)
        if (used[j]) {
          u[owner[j]] += delta;
          v[j] -= delta;
        } else {
          least[j] -= delta;
        }
      j0 = j1;
    } while (owner[j0] != 0);
    do {
      const std::size_t j1 = way[j0];
      owner[j0] = owner[j1];
      j0 = j1;
    } while (j0 != 0);
  }
  std::vector<int> column(rows, -1);
  for (std::size_t j = 1; j <= columns; ++j)
    if (owner[j] != 0 && cost[owner[j] - 1][j - 1] < forbidden) column[owner[j] - 1] = static_cast<int>(j - 1);
  return column;
}

}  // namespace rigging
