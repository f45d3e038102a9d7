#include "language/typed.h"

#include <optional>
#include <string>

#include "base/number.h"
#include "language/measures.h"
#include "language/tokens.h"

namespace rigging {

Result<double> typed_number(std::string_view text, std::string_view unit) {
  const std::string typed(text);
  const Unit* counts_in = unit_named(unit);
  const std::string expected = "a number" + (unit.empty() ? std::string() : " in " + std::string(unit));
  double sum = 0;
  bool any = false;
  std::optional<Quantity> of;
  for (std::size_t i = 0; i < typed.size();) {
    if (typed[i] == ' ') {
      ++i;
      continue;
    }
    // The number, with a comma or a point.
    std::size_t end = i;
    if (end < typed.size() && (typed[end] == '-' || typed[end] == '+')) ++end;
    if (typed.compare(i, 3, "−") == 0) end = i + 3;
    while (end < typed.size() && (is_digit(typed[end]) || typed[end] == '.' || typed[end] == ',')) ++end;
    std::string digits = typed.substr(i, end - i);
    if (digits.rfind("−", 0) == 0) digits = "-" + digits.substr(3);
    if (digits.rfind('+', 0) == 0) digits.erase(0, 1);
    for (char& c : digits)
      if (c == ',') c = '.';
    const auto number = number_of(digits);
    if (!number)
      return failure("\"" + typed + "\"", any ? "has something behind its number" : "is no number", expected);
    while (end < typed.size() && typed[end] == ' ') ++end;
    // Its unit: up to the next number.
    std::size_t stop = end;
    while (stop < typed.size() && !is_digit(typed[stop]) && typed[stop] != '-') ++stop;
    std::string name = typed.substr(end, stop - end);
    while (!name.empty() && name.back() == ' ') name.pop_back();
    if (name.empty()) {
      if (any || stop < typed.size()) return failure("\"" + typed + "\"", "has a number without its unit", expected);
      return *number;
    }
    const Unit* u = unit_named(name);
    if (!u && name == unit && !any && stop == typed.size()) return *number;
    if (!u) return failure("\"" + typed + "\"", "ends with \"" + name + "\", which is no unit that is known", expected);
    if (!counts_in || u->of != counts_in->of || (of && *of != u->of))
      return failure("\"" + typed + "\"", "is in " + name, expected);
    of = u->of;
    sum += (any && sum < 0 ? -1 : 1) * *number * u->worth;
    any = true;
    i = stop;
  }
  if (!any) return failure("\"" + typed + "\"", "is no number", expected);
  return sum / counts_in->worth;
}

}  // namespace rigging
