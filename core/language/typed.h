#pragma once

#include <string_view>

#include "base/result.h"

namespace rigging {

/// A number as people type it, with a unit or without: "1.2 m", "1,2 m", "48 in", "48\"", "4 ft 6 in", "2 lb 3 oz",
/// "60 km/h". The result counts in `unit`, one of those that are shown or stored: m, mm, in, ft, km, kg, g, oz, lb,
/// m/s, km/h, mph, ft/s, °, Ah, mAh, A, V, s, ms, µs, min, %; a number without a unit counts in it already. A unit that
/// `unit` does not know takes only bare numbers or its own name.
/// Errors: no number; a unit of another quantity; a text behind it that is no unit.
Result<double> typed_number(std::string_view text, std::string_view unit);

}  // namespace rigging
