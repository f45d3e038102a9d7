#include "base/csv.h"

#include <algorithm>
#include <optional>
#include <set>

#include "base/clean_text.h"
#include "base/number.h"

namespace rigging {
namespace {

std::string_view trimmed(std::string_view s) {
  while (!s.empty() && (s.front() == ' ' || s.front() == '\t')) s.remove_prefix(1);
  while (!s.empty() && (s.back() == ' ' || s.back() == '\t' || s.back() == '\r')) s.remove_suffix(1);
  return s;
}

/// Calls `each` with every cell of the line; ends when that says no. How many cells there are, or were until then.
template <class Each>
std::size_t for_cells(std::string_view line, Each&& each) {
  std::size_t count = 0;
  for (std::size_t at = 0;;) {
    const std::size_t comma = std::min(line.find(',', at), line.size());
    if (!each(count++, trimmed(line.substr(at, comma - at))) || comma == line.size()) return count;
    at = comma + 1;
  }
}

/// The next line that is no comment and not empty; false at the end.
bool next_line(std::string_view& text, std::string_view& line, int& number) {
  while (!text.empty()) {
    const std::size_t end = std::min(text.find('\n'), text.size());
    line = trimmed(text.substr(0, end));
    text.remove_prefix(std::min(end + 1, text.size()));
    ++number;
    if (!line.empty() && line.front() != '#') return true;
  }
  return false;
}

}  // namespace

int NumberTable::column(std::string_view name) const {
  for (std::size_t i = 0; i < columns.size(); ++i)
    if (columns[i] == name) return static_cast<int>(i);
  return -1;
}

std::vector<std::string> heading_of(std::string_view text) {
  std::vector<std::string> heading;
  std::string_view line;
  int number = 0;
  if (next_line(text, line, number))
    for_cells(line, [&](std::size_t, std::string_view cell) {
      heading.emplace_back(cell);
      return heading.size() < most_columns;
    });
  return heading;
}

class NumberTableReader {
 public:
  NumberTableReader(const std::string& name, std::string_view words, const std::vector<std::string>* only)
      : name_(name), words_(words), only_(only) {}

  Result<NumberTable> read(std::string_view text, const std::function<bool(double)>& read_share) {
    constexpr int lines_between = 20000;
    const double whole = static_cast<double>(std::max<std::size_t>(1, text.size()));
    std::string_view line;
    while (next_line(text, line, number_)) {
      if (auto ok = all_.empty() ? take_heading(line) : take_row(line); !ok) return tl::make_unexpected(ok.error());
      if (read_share && number_ % lines_between == 0 && !read_share(1 - static_cast<double>(text.size()) / whole))
        return failure(name_, "was not read to its end");
    }
    if (all_.empty()) return failure(name_, "is empty", "a heading and rows of numbers");
    return std::move(table_);
  }

 private:
  enum class Use { number, words, none };

  std::string where() const { return name_ + ":" + std::to_string(number_); }

  Result<void> take_heading(std::string_view line) {
    std::set<std::string_view> names;
    std::string_view twice;
    for_cells(line, [&](std::size_t, std::string_view cell) {
      if (!names.insert(cell).second) twice = cell;
      all_.emplace_back(cell);
      return twice.empty() && all_.size() <= most_columns;
    });
    if (all_.size() > most_columns)
      return failure(where(), "has more than " + std::to_string(most_columns) + " columns", "a log or a table");
    if (names.size() < all_.size())
      return failure(where(), "column \"" + clean_text(all_.back(), 40) + "\" stands twice", "every column once");
    for (const std::string& column : all_) {
      const bool counts = !only_ || std::find(only_->begin(), only_->end(), column) != only_->end();
      use_.push_back(!words_.empty() && column == words_ ? Use::words : counts ? Use::number : Use::none);
      if (use_.back() != Use::none) table_.columns.push_back(column);
    }
    table_.rows.width_ = table_.columns.size();
    return {};
  }

  Result<void> take_row(std::string_view line) {
    std::optional<Error> error;
    const std::size_t count = for_cells(line, [&](std::size_t i, std::string_view cell) {
      if (i >= use_.size() || use_[i] == Use::none) return true;
      double value = 0;
      if (use_[i] == Use::words) {
        table_.words.emplace_back(cell);
      } else if (const auto read = number_of(cell)) {
        value = *read;
      } else if (!error) {
        error = Error{where(), "\"" + clean_text(cell, 40) + "\" in column " + all_[i], "a number"};
      }
      table_.rows.values_.push_back(value);
      return true;
    });
    if (count != all_.size())
      return failure(where(), std::to_string(count) + " cells", std::to_string(all_.size()) + " as in the heading");
    if (error) return tl::make_unexpected(std::move(*error));
    ++table_.rows.count_;
    return {};
  }

  const std::string& name_;
  std::string_view words_;
  const std::vector<std::string>* only_;
  int number_ = 0;
  std::vector<std::string> all_;  ///< names of all columns
  std::vector<Use> use_;
  NumberTable table_;
};

Result<NumberTable> parse_number_table(std::string_view text, const std::string& name, std::string_view words,
                                       const std::vector<std::string>* only,
                                       const std::function<bool(double)>& read_share) {
  return NumberTableReader(name, words, only).read(text, read_share);
}

}  // namespace rigging
