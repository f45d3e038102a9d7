#pragma once

#include <filesystem>
#include <vector>

#include "base/result.h"

namespace rigging {

/// The earth's magnetic field at one place and time, in geodetic axes.
struct MagneticField {
  double north_nT = 0, east_nT = 0, down_nT = 0;
  double horizontal_nT = 0, total_nT = 0;
  double declination_deg = 0;  ///< east of true north positive, −180 to 180
  double inclination_deg = 0;  ///< downward positive, −90 to 90
};

/// World Magnetic Model: spherical harmonics of degree 12 with linear secular variation (NOAA NCEI and British
/// Geological Survey, technical report of the 2020–2025 and 2025–2030 models; same formulas). The model's own
/// uncertainty is about 0.4° in declination at middle latitudes and grows without bound toward the magnetic poles.
class MagneticModel {
 public:
  /// Reads the coefficients: columns n, m, g_nT, h_nT, g_dot_nT_per_year, h_dot_nT_per_year, for degrees 1 to 12.
  static Result<MagneticModel> load(const std::filesystem::path& file);

  /// Latitude −90 to 90, longitude −180 to 360 degrees on WGS 84, height above the ellipsoid −1 to 850 km, time within
  /// `first_year` to `last_year`; an error outside. At the poles north is taken along the given longitude.
  Result<MagneticField> field(double latitude_deg, double longitude_deg, double altitude_km, double decimal_year) const;

  static constexpr double first_year = 2025.0, last_year = 2030.0;

 private:
  static constexpr int degree = 12;
  struct Term {
    double g = 0, h = 0, g_dot = 0, h_dot = 0;
  };
  static constexpr std::size_t index(int n, int m) { return static_cast<std::size_t>(n * (n + 1) / 2 + m); }
  std::vector<Term> terms_;
};

/// "2026-11-23" (start of that day) or "2026.9" as a decimal year.
Result<double> decimal_year(const std::string& text);

}  // namespace rigging
