#pragma once

#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "base/result.h"

namespace rigging {

/// A table of numbers: lines that begin with # are comments, the first other line names the columns.
struct NumberTable {
  std::vector<std::string> columns;
  std::vector<std::vector<double>> rows;

  /// Index of the column, or −1.
  int column(std::string_view name) const;
};

/// Reads comma-separated numbers. Errors say file, line and what was expected; text in a cell, a missing or a surplus
/// cell, and numbers that are not finite are refused.
Result<NumberTable> parse_number_table(std::string_view text, const std::string& name);

}  // namespace rigging
