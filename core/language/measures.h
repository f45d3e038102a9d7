#pragma once

#include <string_view>

/// Units by the names that people give them: the one list for what is typed, asked and said of parts.
namespace rigging {

enum class Quantity {
  length,
  mass,
  speed,
  angle,
  charge,
  current,
  voltage,
  power,
  time,
  share,
  cells,           ///< of a battery
  speed_constant,  ///< of a motor, revolutions a minute per volt
  channels,        ///< of a receiver
  blades           ///< of a propeller
};

struct Unit {
  std::string_view name;  ///< in small letters
  Quantity of;
  double worth;  ///< in SI; of charge in Ah, of angle in degrees, of share in percent, else 1
};

/// In any letters; null for what is no unit. "s" is a second.
const Unit* unit_named(std::string_view name);

}  // namespace rigging
