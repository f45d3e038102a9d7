#pragma once

#include "base/json.h"

namespace rigging::link {

/// The configuration as protocol 1 has it: two settings under other names (`sharing`, `passes`), and lists as texts:
/// "manual 5 900 1300; level 5 1300 1700", "fence come_home 500; low_battery warn", "volts; height".
Json to_protocol_1(Json image);

/// Back. What is of protocol 2 already, and a text that is no such list, stay as they are.
Json from_protocol_1(Json image);

}  // namespace rigging::link
