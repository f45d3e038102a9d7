#include "base/number.h"

#include <charconv>
#include <cmath>

namespace rigging {

std::string number_text(double value, int places) {
  // A point whatever the user's locale: a comma would end up in files and in what a setting is read back from.
  char buffer[400];
  // Nothing that is measured is that large: nobody reads a hundred digits in a refusal.
  if (std::abs(value) >= 1e15) return {buffer, std::to_chars(buffer, buffer + sizeof buffer, value).ptr};
  std::string text(buffer, std::to_chars(buffer, buffer + sizeof buffer, value, std::chars_format::fixed, places).ptr);
  if (text.find('.') != std::string::npos) {
    text.erase(text.find_last_not_of('0') + 1);
    if (text.back() == '.') text.pop_back();
  }
  return text == "-0" ? "0" : text;
}

double of_fifteen_figures(double value) {
  char buffer[40];
  const auto [end, error] = std::to_chars(buffer, buffer + sizeof buffer, value, std::chars_format::general, 15);
  return number_of({buffer, static_cast<std::size_t>(end - buffer)}).value_or(value);
}

std::optional<double> number_of(std::string_view text) {
  if (text.starts_with('+') && !text.starts_with("+-")) text.remove_prefix(1);
  double value = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (text.empty() || error != std::errc() || end != text.data() + text.size() || !std::isfinite(value))
    return std::nullopt;
  return value;
}

}  // namespace rigging
