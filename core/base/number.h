#pragma once

#include <string>

namespace rigging {

/// Decimal text with at most `places` digits behind the point, trailing zeros removed; never "-0".
std::string number_text(double value, int places);

}  // namespace rigging
