#include "base/wrapped.h"

#include <algorithm>

namespace rigging {

std::vector<std::string> wrapped(const std::string& text, std::size_t most) {
  std::vector<std::string> lines{""};
  std::size_t letters = 0;
  for (std::size_t at = 0; at < text.size();) {
    const std::size_t end = std::min(text.find(' ', at), text.size());
    const std::string piece = text.substr(at, end - at);
    const auto length = static_cast<std::size_t>(
        std::count_if(piece.begin(), piece.end(), [](char ch) { return (ch & 0xc0) != 0x80; }));
    if (letters > 0 && letters + 1 + length > most) {
      lines.emplace_back();
      letters = 0;
    }
    if (letters > 0) {
      lines.back() += ' ';
      ++letters;
    }
    lines.back() += piece;
    letters += length;
    at = end + 1;
  }
  return lines;
}

}  // namespace rigging
