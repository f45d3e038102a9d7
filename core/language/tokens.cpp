#include "language/tokens.h"

#include <array>
#include <cctype>

#include "base/number.h"
#include "language/typed.h"

namespace rigging {
namespace {

/// Small letters, the two signs of "times" as x, a comma between digits as a point.
std::string plain(std::string_view text) {
  std::string out;
  for (std::size_t i = 0; i < text.size(); ++i) {
    if (out.ends_with("li") && (text.size() - i > 3) && (text[i] == '-' || text[i] == ' ') &&
        (text.substr(i + 1, 3) == "ion" || text.substr(i + 1, 3) == "Ion" || text.substr(i + 1, 3) == "ION") &&
        (out.size() == 2 || !is_letter(out[out.size() - 3]))) {
      out.replace(out.size() - 2, 2, "cylindrical");
      i += 3;
    } else if (text.substr(i, 2) == "×") {
      out += 'x';
      ++i;
    } else if (text[i] == ',' && i > 0 && i + 1 < text.size() && is_digit(text[i - 1]) && is_digit(text[i + 1])) {
      out += '.';
    } else {
      out += static_cast<char>(std::tolower(static_cast<unsigned char>(text[i])));
    }
  }
  return out;
}

}  // namespace

std::string small_letters(std::string_view text) {
  std::string out(text);
  for (char& c : out) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
  return out;
}

std::vector<std::string> words_of(std::string_view text) {
  std::vector<std::string> words(1);
  for (const char c : small_letters(text)) {
    if (is_letter(c) || is_digit(c))
      words.back() += c;
    else if (!words.back().empty())
      words.emplace_back();
  }
  if (words.back().empty()) words.pop_back();
  return words;
}

std::vector<std::string> tokens_of(std::string_view text) {
  const std::string all = plain(text);
  std::vector<std::string> tokens;
  for (std::size_t i = 0; i < all.size();) {
    std::size_t end = i;
    if (is_digit(all[i])) {
      while (end < all.size() &&
             (is_digit(all[end]) || (all[end] == '.' && end + 1 < all.size() && is_digit(all[end + 1]))))
        ++end;
    } else if (is_letter(all[i])) {
      while (end < all.size() && is_letter(all[end])) ++end;
    } else {
      if (all[i] == '"') tokens.emplace_back("inch");
      ++i;
      continue;
    }
    tokens.push_back(all.substr(i, end - i));
    i = end;
  }
  return tokens;
}

std::optional<double> said_number(std::string_view word) {
  if (!word.empty() && is_digit(word[0])) return number_of(word);
  static constexpr std::array<std::string_view, 13> words{"no",    "one",   "two",  "three", "four",   "five",  "six",
                                                          "seven", "eight", "nine", "ten",   "eleven", "twelve"};
  for (std::size_t i = 1; i < words.size(); ++i)
    if (word == words[i]) return static_cast<double>(i);
  return word == "twenty" ? std::optional(20.0) : word == "forty" ? std::optional(40.0) : std::nullopt;
}

CutNumber cut_number(std::string_view text) {
  const std::string all(text);
  std::size_t i = 0;
  while (i < all.size() && !is_digit(all[i])) ++i;
  if (i == all.size()) return {all, {}};
  std::size_t from = i;
  if (from > 0 && (all[from - 1] == '-' || all[from - 1] == '.')) --from;
  // A number with its unit ends where the next plain word begins.
  std::string number;
  std::size_t best = from;
  for (std::size_t to = from + 1; to <= all.size(); ++to) {
    if (to < all.size() && all[to] != ' ') continue;
    const std::string some = all.substr(from, to - from);
    bool understood = false;
    for (const char* unit : {"mm", "g", "°", "m/s", "Ah", "V", "A", "s", "%"})
      understood = understood || typed_number(some, unit).has_value();
    if (understood) best = to, number = some;
  }
  if (number.empty()) return {all, {}};
  return {all.substr(0, from) + all.substr(best), number};
}

}  // namespace rigging
