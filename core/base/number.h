#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace rigging {

/// Decimal text with at most `places` digits behind the point, trailing zeros removed; never "-0". From 10¹⁵ on
/// with a power of ten.
std::string number_text(double value, int places);
/// "2.3°".
inline std::string degrees_text(double deg) { return number_text(deg, 1) + "°"; }
/// The finite number that this whole text is, with a point for the decimals; none for anything else.
std::optional<double> number_of(std::string_view text);

/// The nearest number of fifteen figures: as many as a decimal number keeps through a double.
double of_fifteen_figures(double value);

}  // namespace rigging
