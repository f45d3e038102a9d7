#include "base/csv.h"

#include <algorithm>

#include "base/clean_text.h"
#include "base/number.h"

namespace rigging {
namespace {

std::string_view trimmed(std::string_view s) {
  while (!s.empty() && (s.front() == ' ' || s.front() == '\t')) s.remove_prefix(1);
  while (!s.empty() && (s.back() == ' ' || s.back() == '\t' || s.back() == '\r')) s.remove_suffix(1);
  return s;
}

std::vector<std::string_view> cells(std::string_view line) {
  std::vector<std::string_view> all;
  for (std::size_t at = 0;;) {
    const std::size_t comma = std::min(line.find(',', at), line.size());
    all.push_back(trimmed(line.substr(at, comma - at)));
    if (comma == line.size()) return all;
    at = comma + 1;
  }
}

}  // namespace

int NumberTable::column(std::string_view name) const {
  for (std::size_t i = 0; i < columns.size(); ++i)
    if (columns[i] == name) return static_cast<int>(i);
  return -1;
}

std::vector<std::string> heading_of(std::string_view text) {
  while (!text.empty()) {
    const std::size_t end = std::min(text.find('\n'), text.size());
    const std::string_view line = trimmed(text.substr(0, end));
    text.remove_prefix(std::min(end + 1, text.size()));
    if (line.empty() || line.front() == '#') continue;
    const auto parts = cells(line);
    return {parts.begin(), parts.end()};
  }
  return {};
}

Result<NumberTable> parse_number_table(std::string_view text, const std::string& name, std::string_view words,
                                       const std::vector<std::string>* only) {
  NumberTable table;
  std::vector<bool> counts;
  int number = 0;
  while (!text.empty()) {
    const std::size_t end = std::min(text.find('\n'), text.size());
    const std::string_view line = trimmed(text.substr(0, end));
    text.remove_prefix(std::min(end + 1, text.size()));
    ++number;
    if (line.empty() || line.front() == '#') continue;
    const auto parts = cells(line);
    if (table.columns.empty()) {
      table.columns.assign(parts.begin(), parts.end());
      for (std::size_t i = 0; i < parts.size(); ++i)
        if (std::find(parts.begin(), parts.begin() + static_cast<std::ptrdiff_t>(i), parts[i]) !=
            parts.begin() + static_cast<std::ptrdiff_t>(i))
          return failure(name + ":" + std::to_string(number),
                         "column \"" + clean_text(parts[i], 40) + "\" stands twice", "every column once");
      for (const std::string& column : table.columns)
        counts.push_back(!only || std::find(only->begin(), only->end(), column) != only->end());
      continue;
    }
    const std::string where = name + ":" + std::to_string(number);
    if (parts.size() != table.columns.size())
      return failure(where, std::to_string(parts.size()) + " cells",
                     std::to_string(table.columns.size()) + " as in the heading");
    std::vector<double>& row = table.rows.emplace_back();
    for (std::size_t i = 0; i < parts.size(); ++i) {
      if (!words.empty() && table.columns[i] == words) {
        table.words.emplace_back(parts[i]);
        row.push_back(0);
        continue;
      }
      if (!counts[i]) {
        row.push_back(0);
        continue;
      }
      const auto value = number_of(parts[i]);
      if (!value)
        return failure(where, "\"" + clean_text(parts[i], 40) + "\" in column " + table.columns[i],
                       "a number");
      row.push_back(*value);
    }
  }
  if (table.columns.empty()) return failure(name, "is empty", "a heading and rows of numbers");
  return table;
}

}  // namespace rigging
