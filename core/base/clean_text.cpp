#include "base/clean_text.h"

#include <algorithm>

namespace rigging {
namespace {

bool continues(unsigned char c) { return (c & 0xc0) == 0x80; }

/// Bytes of the letter that begins here; 0 where none does (RFC 3629, overlong forms and surrogates left to the
/// reader).
std::size_t letter_at(std::string_view text, std::size_t at) {
  const auto lead = static_cast<unsigned char>(text[at]);
  const std::size_t size = lead < 0x80                   ? 1
                           : lead >= 0xc2 && lead < 0xe0 ? 2
                           : lead >= 0xe0 && lead < 0xf0 ? 3
                           : lead >= 0xf0 && lead < 0xf5 ? 4
                                                         : 0;
  if (size == 0 || at + size > text.size()) return 0;
  for (std::size_t i = 1; i < size; ++i)
    if (!continues(static_cast<unsigned char>(text[at + i]))) return 0;
  return size;
}

}  // namespace

std::string clean_text(std::string_view text, std::size_t most_bytes) {
  std::string head, tail;
  if (text.size() > most_bytes) {
    std::size_t end = most_bytes / 2, begin = text.size() - most_bytes / 2;
    while (end > 0 && continues(static_cast<unsigned char>(text[end]))) --end;
    while (begin < text.size() && continues(static_cast<unsigned char>(text[begin]))) ++begin;
    return clean_text(text.substr(0, end), most_bytes) + " … " + clean_text(text.substr(begin), most_bytes);
  }
  std::string clean;
  for (std::size_t at = 0; at < text.size();) {
    const std::size_t size = letter_at(text, at);
    const auto c = static_cast<unsigned char>(text[at]);
    if (size == 0)
      clean += '?';
    else if (c < 0x20 || c == 0x7f)
      clean += ' ';
    else
      clean += text.substr(at, size);
    at += std::max<std::size_t>(1, size);
  }
  return clean;
}

}  // namespace rigging
