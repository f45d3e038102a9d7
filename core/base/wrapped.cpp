#include "base/wrapped.h"

#include <algorithm>

namespace rigging {

std::size_t letters(std::string_view text) {
  return static_cast<std::size_t>(std::count_if(text.begin(), text.end(), [](char c) { return (c & 0xc0) != 0x80; }));
}

std::string_view first_letters(std::string_view text, std::size_t most) {
  for (std::size_t at = 0; at < text.size(); ++at)
    if ((text[at] & 0xc0) != 0x80 && most-- == 0) return text.substr(0, at);
  return text;
}

std::vector<std::string> wrapped(const std::string& text, std::size_t most) {
  std::vector<std::string> lines{""};
  std::size_t taken = 0;
  for (std::size_t at = 0; at < text.size();) {
    const std::size_t end = std::min(text.find(' ', at), text.size());
    const std::string piece = text.substr(at, end - at);
    const std::size_t length = letters(piece);
    if (taken > 0 && taken + 1 + length > most) {
      lines.emplace_back();
      taken = 0;
    }
    if (taken > 0) {
      lines.back() += ' ';
      ++taken;
    }
    lines.back() += piece;
    taken += length;
    at = end + 1;
  }
  return lines;
}

}  // namespace rigging
