#pragma once

#include <string_view>

#include "base/described.h"

namespace rigging {

/// A number typed for a member, in the unit of the document: with a unit of its own, else as it stands in a box; a bare
/// number that can't be millimetres or grams but can be metres or kilograms is taken so ("1.2" of a span). Errors: as
/// of `typed_number`; out of the member's range.
Result<double> typed_value(const Member& member, std::string_view text);

/// The member's value as a box says it: "1200 mm".
std::string value_text(const Member& member, double value);

}  // namespace rigging
