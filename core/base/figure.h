#pragma once

#include <optional>
#include <string>

namespace rigging {

/// A computed number that can say where it came from.
struct Figure {
  std::string name;
  double value = 0;
  std::string unit;  ///< SI or the field's own: "m²", "m/s", "kg/m²"
  /// Band when the number is an estimate.
  std::optional<double> least, most;
  std::string formula;  ///< with the inputs filled in
  std::string source;
  bool operator==(const Figure&) const = default;
};

/// "8.6 m/s" or "28.2 ft/s", estimates with their band behind it.
std::string figure_text(const Figure& figure);

}  // namespace rigging
