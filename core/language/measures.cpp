#include "language/measures.h"

#include <array>
#include <string>

#include "language/tokens.h"

namespace rigging {
namespace {

/// International inch, foot, mile and pound (exact, 1959).
constexpr std::array<Unit, 83> units{{{"m", Quantity::length, 1},
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
                                      {"percent", Quantity::share, 1},
                                      {"gramme", Quantity::mass, 0.001},
                                      {"amp", Quantity::current, 1},
                                      {"ampere", Quantity::current, 1},
                                      {"amperes", Quantity::current, 1},
                                      {"w", Quantity::power, 1},
                                      {"watt", Quantity::power, 1},
                                      {"watts", Quantity::power, 1},
                                      {"mw", Quantity::power, 0.001},
                                      {"milliwatt", Quantity::power, 0.001},
                                      {"milliwatts", Quantity::power, 0.001},
                                      {"cell", Quantity::cells, 1},
                                      {"cells", Quantity::cells, 1},
                                      {"kv", Quantity::speed_constant, 1},
                                      {"rpm", Quantity::speed_constant, 1},
                                      {"rev", Quantity::speed_constant, 1},
                                      {"channel", Quantity::channels, 1},
                                      {"channels", Quantity::channels, 1},
                                      {"ch", Quantity::channels, 1},
                                      {"blade", Quantity::blades, 1},
                                      {"blades", Quantity::blades, 1},
                                      {"bladed", Quantity::blades, 1}}};

}  // namespace

const Unit* unit_named(std::string_view name) {
  const std::string wanted = small_letters(name);
  for (const Unit& u : units)
    if (u.name == wanted) return &u;
  return nullptr;
}

}  // namespace rigging
