#pragma once

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace rigging {

/// The words of an enumeration, the same in files, on the command line and in the link.
/// Specialise with `static constexpr std::array<std::pair<E, std::string_view>, N> list`, or a vector where it is open.
template <class E>
struct Names;

template <class E>
constexpr std::string_view name_of(E value) {
  for (const auto& [e, w] : Names<E>::list)
    if (e == value) return w;
  return {};
}

template <class E>
constexpr std::optional<E> from_name(std::string_view text) {
  for (const auto& [e, w] : Names<E>::list)
    if (w == text) return e;
  return std::nullopt;
}

/// All words of an enumeration, in its order.
template <class E>
std::vector<std::string> all_names() {
  std::vector<std::string> all;
  for (const auto& [value, text] : Names<E>::list) all.emplace_back(text);
  return all;
}

/// "a, b or c": for saying what was expected.
template <class List>
std::string choice_of(const List& words) {
  std::string text;
  for (std::size_t i = 0; i < words.size(); ++i) {
    if (i > 0) text += i + 1 == words.size() ? " or " : ", ";
    text += words[i];
  }
  return text;
}

template <class E>
std::string choice_of() {
  return choice_of(all_names<E>());
}

/// "out_1" spoken as "out 1".
inline std::string label_of(std::string_view text) {
  std::string out(text);
  for (char& c : out)
    if (c == '_') c = ' ';
  return out;
}

/// The text with every one of these names replaced by its value.
inline std::string replaced(std::string text, const std::vector<std::pair<std::string, std::string>>& names) {
  for (const auto& [name, value] : names)
    for (std::size_t at = text.find(name); at != std::string::npos; at = text.find(name, at + value.size()))
      text.replace(at, name.size(), value);
  return text;
}

/// First letter in lower case (ASCII), for a sentence that goes on.
inline std::string small(std::string text) {
  if (!text.empty() && text[0] >= 'A' && text[0] <= 'Z') text[0] = static_cast<char>(text[0] - 'A' + 'a');
  return text;
}

/// First letter in upper case (ASCII).
inline std::string capital(std::string text) {
  if (!text.empty() && text[0] >= 'a' && text[0] <= 'z') text[0] = static_cast<char>(text[0] - 'a' + 'A');
  return text;
}

}  // namespace rigging
