#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

/// Sentences cut into what they are made of: the one way for what is typed, asked and said of parts.
namespace rigging {

inline bool is_digit(char c) { return c >= '0' && c <= '9'; }
/// Of ASCII, or a byte of any other letter.
inline bool is_letter(char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c & 0x80) != 0; }

/// ASCII letters in lower case; others as they are.
std::string small_letters(std::string_view text);

/// Runs of letters and digits, in small letters.
std::vector<std::string> words_of(std::string_view text);

/// Numbers, runs of letters, and the stroke of inches as "inch"; everything else parts them. Small letters, the sign of
/// "times" as x, a comma between digits as a point.
std::vector<std::string> tokens_of(std::string_view text);

/// "3", "2.5", "three", "twenty"; nothing for another word.
std::optional<double> said_number(std::string_view word);

/// The words with their number cut out: "move the battery 20 mm back" is "move the battery back" and "20 mm".
struct CutNumber {
  std::string words, number;  ///< no number: empty
};
CutNumber cut_number(std::string_view text);

}  // namespace rigging
