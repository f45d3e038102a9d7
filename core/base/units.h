#pragma once

#include <string>
#include <string_view>

/// Numbers as they are said. Inside everything is SI; how a quantity is spoken is one choice for the whole process,
/// like a locale: it touches words and never a number that is computed or stored.
namespace rigging {

enum class UnitSystem { metric, imperial };

UnitSystem unit_system();
void set_unit_system(UnitSystem system);

/// How a quantity is shown: `shown = value · factor`, in `unit`, with so many decimals.
struct Shown {
  double factor = 1;
  std::string_view unit;
  int places = 2;
};
/// Of a quantity in this SI unit: m (on the bench: millimetres, inches), m², m/s, kg, kg/m², N·m. Others stay as they
/// are.
Shown shown(std::string_view si_unit);
/// The unit in which a member of this name is stored ("span_m" m, "up_deg" °, "low_us" µs); empty for a bare number.
std::string_view unit_of_name(std::string_view member);

/// "12 mm" or "0.47 in". `finer`: so many decimals more than usual.
std::string length_text(double m, int finer = 0);
/// A distance in the field, metres: "150 m" or "492 ft".
std::string field_text(double m);
/// The number alone, for a column whose head has the unit.
std::string length_figure(double m, int finer = 0);
/// "125 g" or "4.41 oz".
std::string mass_text(double kg);
/// "8.6 m/s" or "28.2 ft/s".
std::string speed_text(double m_s);

}  // namespace rigging
