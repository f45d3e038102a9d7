#pragma once

#include <functional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "base/result.h"

namespace rigging {

/// Rows of numbers, one behind the other in one piece.
class NumberRows {
 public:
  using Row = std::span<const double>;
  class Iterator {
   public:
    Iterator(const NumberRows& of, std::size_t at) : of_(of), at_(at) {}
    Row operator*() const { return of_[at_]; }
    Iterator& operator++() { return ++at_, *this; }
    bool operator!=(const Iterator& other) const { return at_ != other.at_; }

   private:
    const NumberRows& of_;
    std::size_t at_;
  };

  std::size_t size() const { return count_; }
  bool empty() const { return count_ == 0; }
  Row operator[](std::size_t i) const { return Row(values_).subspan(i * width_, width_); }
  Row front() const { return (*this)[0]; }
  Iterator begin() const { return {*this, 0}; }
  Iterator end() const { return {*this, count_}; }

 private:
  friend class NumberTableReader;
  std::vector<double> values_;
  std::size_t width_ = 0, count_ = 0;
};

/// More columns than any log has.
inline constexpr std::size_t most_columns = 2000;

/// A table of numbers: lines that begin with # are comments, the first other line names the columns.
struct NumberTable {
  std::vector<std::string> columns;  ///< those that count
  NumberRows rows;
  std::vector<std::string> words;  ///< of each row, where one column holds words; its number is 0

  /// Index of the column, or −1.
  int column(std::string_view name) const;
};

/// Reads comma-separated numbers. Errors say file, line and what was expected; text in a cell, a missing or a surplus
/// cell, numbers that are not finite and more than `most_columns` are refused. `words`: the one column that holds
/// words, if any does. `only`: null, or the columns that count; the others may hold anything, and take no room.
/// `read_share` is told the share that was read from time to time; when it says no, the reading ends with an error.
Result<NumberTable> parse_number_table(std::string_view text, const std::string& name, std::string_view words = {},
                                       const std::vector<std::string>* only = nullptr,
                                       const std::function<bool(double share)>& read_share = {});

/// The names of the columns alone, `most_columns` of them at most; empty of an empty text.
std::vector<std::string> heading_of(std::string_view text);

}  // namespace rigging
