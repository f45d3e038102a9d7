#include "base/typed.h"

#include <array>
#include <cctype>
#include <optional>
#include <string>

#include "base/number.h"

namespace rigging {
namespace {

enum class Quantity { length, mass, speed, angle, charge, current, voltage, time, share };

struct Unit {
  std::string_view name;
  Quantity of;
  double worth;  ///< in SI, of charge in Ah
};

/// International inch, foot, mile and pound (exact, 1959).
constexpr std::array<Unit, 62> units{{{"m", Quantity::length, 1},
                                      {"metre", Quantity::length, 1},
                                      {"metres", Quantity::length, 1},
                                      {"meter", Quantity::length, 1},
                                      {"meters", Quantity::length, 1},
                                      {"cm", Quantity::length, 0.01},
                                      {"mm", Quantity::length, 0.001},
                                      {"millimetres", Quantity::length, 0.001},
                                      {"km", Quantity::length, 1000},
                                      {"in", Quantity::length, 0.0254},
                                      {"inch", Quantity::length, 0.0254},
                                      {"inches", Quantity::length, 0.0254},
                                      {"\"", Quantity::length, 0.0254},
                                      {"″", Quantity::length, 0.0254},
                                      {"ft", Quantity::length, 0.3048},
                                      {"foot", Quantity::length, 0.3048},
                                      {"feet", Quantity::length, 0.3048},
                                      {"'", Quantity::length, 0.3048},
                                      {"′", Quantity::length, 0.3048},
                                      {"kg", Quantity::mass, 1},
                                      {"kilo", Quantity::mass, 1},
                                      {"kilos", Quantity::mass, 1},
                                      {"g", Quantity::mass, 0.001},
                                      {"gram", Quantity::mass, 0.001},
                                      {"grams", Quantity::mass, 0.001},
                                      {"oz", Quantity::mass, 0.45359237 / 16},
                                      {"ounce", Quantity::mass, 0.45359237 / 16},
                                      {"ounces", Quantity::mass, 0.45359237 / 16},
                                      {"lb", Quantity::mass, 0.45359237},
                                      {"lbs", Quantity::mass, 0.45359237},
                                      {"pounds", Quantity::mass, 0.45359237},
                                      {"m/s", Quantity::speed, 1},
                                      {"km/h", Quantity::speed, 1 / 3.6},
                                      {"kmh", Quantity::speed, 1 / 3.6},
                                      {"kph", Quantity::speed, 1 / 3.6},
                                      {"mph", Quantity::speed, 0.44704},
                                      {"ft/s", Quantity::speed, 0.3048},
                                      {"kt", Quantity::speed, 1852.0 / 3600},
                                      {"knots", Quantity::speed, 1852.0 / 3600},
                                      {"°", Quantity::angle, 1},
                                      {"deg", Quantity::angle, 1},
                                      {"degree", Quantity::angle, 1},
                                      {"degrees", Quantity::angle, 1},
                                      {"ah", Quantity::charge, 1},
                                      {"mah", Quantity::charge, 0.001},
                                      {"a", Quantity::current, 1},
                                      {"amps", Quantity::current, 1},
                                      {"ma", Quantity::current, 0.001},
                                      {"v", Quantity::voltage, 1},
                                      {"volt", Quantity::voltage, 1},
                                      {"volts", Quantity::voltage, 1},
                                      {"mv", Quantity::voltage, 0.001},
                                      {"s", Quantity::time, 1},
                                      {"sec", Quantity::time, 1},
                                      {"seconds", Quantity::time, 1},
                                      {"ms", Quantity::time, 0.001},
                                      {"us", Quantity::time, 1e-6},
                                      {"µs", Quantity::time, 1e-6},
                                      {"min", Quantity::time, 60},
                                      {"minutes", Quantity::time, 60},
                                      {"%", Quantity::share, 1},
                                      {"percent", Quantity::share, 1}}};

std::string small_letters(std::string_view text) {
  std::string out(text);
  for (char& c : out) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
  return out;
}

const Unit* unit_named(std::string_view name) {
  const std::string wanted = small_letters(name);
  for (const Unit& u : units)
    if (u.name == wanted) return &u;
  return nullptr;
}

}  // namespace

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
    while (end < typed.size() &&
           (std::isdigit(static_cast<unsigned char>(typed[end])) || typed[end] == '.' || typed[end] == ','))
      ++end;
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
    while (stop < typed.size() && !std::isdigit(static_cast<unsigned char>(typed[stop])) && typed[stop] != '-') ++stop;
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
