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
  std::vector<std::string> words;  ///< of each row, where one column holds words; its number is 0

  /// Index of the column, or −1.
  int column(std::string_view name) const;
};

/// Reads comma-separated numbers. Errors say file, line and what was expected; text in a cell, a missing or a surplus
/// cell, and numbers that are not finite are refused. `words`: the one column that holds words, if any does. `only`:
/// null, or the columns that count; the others may hold anything, and are 0.
Result<NumberTable> parse_number_table(std::string_view text, const std::string& name, std::string_view words = {},
                                       const std::vector<std::string>* only = nullptr);

/// The names of the columns alone; empty of an empty text.
std::vector<std::string> heading_of(std::string_view text);

}  // namespace rigging
