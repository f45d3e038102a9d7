#pragma once

namespace rigging {

/// 3rd General Conference on Weights and Measures (1901), m/s².
inline constexpr double standard_gravity = 9.80665;

/// Normal gravity of WGS 84 (NIMA TR8350.2), m/s²: what a level surface feels at geodetic latitude −90 to 90 degrees
/// and height above the ellipsoid, metres. The earth itself differs by up to 0.003 m/s².
double normal_gravity(double latitude_deg, double height_m);

}  // namespace rigging
