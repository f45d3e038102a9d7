#include "base/units.h"

#include <array>
#include <atomic>
#include <cmath>
#include <utility>

#include "base/number.h"

namespace rigging {
namespace {

std::atomic<UnitSystem> chosen{UnitSystem::metric};
constexpr double foot_m = 0.3048;      // exact, 1959
constexpr double in_the_field_m = 25;  ///< no model is as large: this is a distance outside

std::string text(double value, std::string_view si_unit, int finer = 0) {
  const Shown s = shown(si_unit);
  return number_text(value * s.factor, s.places + finer) + " " + std::string(s.unit);
}

}  // namespace

UnitSystem unit_system() { return chosen; }
void set_unit_system(UnitSystem system) { chosen = system; }

Shown shown(std::string_view si) {
  // International inch, foot and avoirdupois pound (exact, 1959); pound-force by standard gravity.
  constexpr double inch_m = 0.0254, pound_kg = 0.45359237, ounce_kg = pound_kg / 16, ounce_force_n = ounce_kg * 9.80665;
  const bool metric = chosen == UnitSystem::metric;
  if (si == "m") return metric ? Shown{1000, "mm", 0} : Shown{1 / inch_m, "in", 2};
  if (si == "m²") return metric ? Shown{100, "dm²", 1} : Shown{1 / (foot_m * foot_m), "ft²", 1};
  if (si == "m/s") return metric ? Shown{1, "m/s", 1} : Shown{1 / foot_m, "ft/s", 1};
  if (si == "kg") return metric ? Shown{1000, "g", 0} : Shown{1 / ounce_kg, "oz", 2};
  if (si == "kg/m²") return metric ? Shown{10, "g/dm²", 0} : Shown{foot_m * foot_m / pound_kg, "lb/ft²", 2};
  if (si == "N·m") return metric ? Shown{100, "N·cm", 1} : Shown{1 / (ounce_force_n * inch_m), "oz·in", 1};
  return {1, si, 2};
}

std::string_view unit_of_name(std::string_view member) {
  constexpr std::array<std::pair<std::string_view, std::string_view>, 15> endings{{{"_m_s", "m/s"},
                                                                                   {"_deg_s", "°/s"},
                                                                                   {"_m", "m"},
                                                                                   {"_kg", "kg"},
                                                                                   {"_deg", "°"},
                                                                                   {"_us", "µs"},
                                                                                   {"_percent", "%"},
                                                                                   {"_hz", "Hz"},
                                                                                   {"_a", "A"},
                                                                                   {"_n", "N"},
                                                                                   {"_c", "°C"},
                                                                                   {"_km", "km"},
                                                                                   {"_v", "V"},
                                                                                   {"_s", "s"},
                                                                                   {"_nm", "N·m"}}};
  for (const auto& [ending, unit] : endings)
    if (member.ends_with(ending)) return unit;
  return {};
}

std::string length_text(double m, int finer) {
  return std::abs(m) < in_the_field_m ? text(m, "m", finer) : field_text(m);
}
std::string field_text(double m) {
  const bool metric = unit_system() == UnitSystem::metric;
  return number_text(metric ? m : m / foot_m, 0) + (metric ? " m" : " ft");
}
std::string length_figure(double m, int finer) {
  const Shown s = shown("m");
  return number_text(m * s.factor, s.places + finer);
}
std::string mass_text(double kg) { return text(kg, "kg"); }
std::string speed_text(double m_s) { return text(m_s, "m/s"); }

}  // namespace rigging
