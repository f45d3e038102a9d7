#include "earth/magnetic_model.h"

#include <charconv>
#include <cmath>
#include <numbers>

#include "base/angle.h"
#include "base/clean_text.h"
#include "base/csv.h"
#include "base/file.h"
#include "base/number.h"

namespace rigging {
namespace {

constexpr double ellipsoid_a_km = 6378.137, ellipsoid_f = 1 / 298.257223563;  // WGS 84
constexpr double reference_radius_km = 6371.2;  // geomagnetic reference radius of the model

}  // namespace

Result<MagneticModel> MagneticModel::load(const std::filesystem::path& file) {
  const auto text = read_file(file, 1 << 20);
  if (!text) return tl::make_unexpected(text.error());
  const auto table = parse_number_table(*text, file.string());
  if (!table) return tl::make_unexpected(table.error());
  int columns[6];
  const char* names[6] = {"n", "m", "g_nT", "h_nT", "g_dot_nT_per_year", "h_dot_nT_per_year"};
  for (int i = 0; i < 6; ++i)
    if ((columns[i] = table->column(names[i])) < 0)
      return failure(file.string(), std::string("has no column ") + names[i], "the coefficients of the model");
  MagneticModel model;
  model.terms_.resize(index(degree, degree) + 1);
  std::size_t given = 0;
  for (const auto& row : table->rows) {
    const auto cell = [&](int i) { return row[static_cast<std::size_t>(columns[i])]; };
    const double n = cell(0), m = cell(1);
    if (!(n >= 1 && n <= degree && m >= 0 && m <= n && n == std::floor(n) && m == std::floor(m)))
      return failure(file.string(), "a term of degree " + number_text(n, 2) + ", order " + number_text(m, 2),
                     "degrees 1 to 12");
    model.terms_[index(static_cast<int>(n), static_cast<int>(m))] = {cell(2), cell(3), cell(4), cell(5)};
    ++given;
  }
  if (given != model.terms_.size() - 1)
    return failure(file.string(), std::to_string(given) + " terms",
                   std::to_string(model.terms_.size() - 1) + " terms, each once");
  return model;
}

Result<MagneticField> MagneticModel::field(double latitude_deg, double longitude_deg, double altitude_km,
                                           double year) const {
  const auto check = [](const char* name, double value, double least, double most, const char* unit) -> Result<void> {
    if (value >= least && value <= most) return {};
    return failure(name, "is " + number_text(value, 6), number_text(least, 1) + " to " + number_text(most, 1) + unit);
  };
  if (auto ok = check("latitude", latitude_deg, -90, 90, " degrees"); !ok) return tl::make_unexpected(ok.error());
  if (auto ok = check("longitude", longitude_deg, -180, 360, " degrees"); !ok) return tl::make_unexpected(ok.error());
  if (auto ok = check("altitude", altitude_km, -1, 850, " km"); !ok) return tl::make_unexpected(ok.error());
  if (auto ok = check("date", year, first_year, last_year, ", the years of the model"); !ok)
    return tl::make_unexpected(ok.error());

  // Geodetic to geocentric.
  const double phi = latitude_deg * rad, lambda = longitude_deg * rad;
  const double e2 = ellipsoid_f * (2 - ellipsoid_f),
               normal = ellipsoid_a_km / std::sqrt(1 - e2 * std::sin(phi) * std::sin(phi));
  const double axis_distance = (normal + altitude_km) * std::cos(phi),
               z = (normal * (1 - e2) + altitude_km) * std::sin(phi);
  const double r = std::hypot(axis_distance, z);
  const double cos_theta = z / r;                               // θ is the colatitude
  const double sin_theta = std::max(axis_distance / r, 1e-12);  // keeps the limit at the poles

  // Schmidt semi-normalised associated Legendre functions and their derivatives by θ, with the usual recursions.
  double p[degree + 1][degree + 1] = {}, dp[degree + 1][degree + 1] = {};
  p[0][0] = 1;
  for (int n = 1; n <= degree; ++n)
    for (int m = 0; m <= n; ++m) {
      if (m == n) {
        const double k = n == 1 ? 1 : std::sqrt(1 - 1 / (2.0 * n));
        p[n][n] = k * sin_theta * p[n - 1][n - 1];
        dp[n][n] = k * (sin_theta * dp[n - 1][n - 1] + cos_theta * p[n - 1][n - 1]);
      } else {
        const double k = std::sqrt(static_cast<double>(n * n - m * m));
        const double l = n >= 2 ? std::sqrt(static_cast<double>((n - 1) * (n - 1) - m * m)) : 0;
        const double before = n >= 2 ? p[n - 2][m] : 0, dbefore = n >= 2 ? dp[n - 2][m] : 0;
        p[n][m] = ((2 * n - 1) * cos_theta * p[n - 1][m] - l * before) / k;
        dp[n][m] = ((2 * n - 1) * (cos_theta * dp[n - 1][m] - sin_theta * p[n - 1][m]) - l * dbefore) / k;
      }
    }

  double north = 0, east = 0, down = 0;  // geocentric
  const double years = year - first_year;
  double power = std::pow(reference_radius_km / r, 2);
  for (int n = 1; n <= degree; ++n) {
    power *= reference_radius_km / r;
    for (int m = 0; m <= n; ++m) {
      const Term& t = terms_[index(n, m)];
      const double g = t.g + years * t.g_dot, h = t.h + years * t.h_dot;
      const double c = std::cos(m * lambda), s = std::sin(m * lambda);
      north += power * (g * c + h * s) * dp[n][m];
      east += power * m * (g * s - h * c) * p[n][m] / sin_theta;
      down -= power * (n + 1) * (g * c + h * s) * p[n][m];
    }
  }

  // Back to geodetic axes: a turn in the meridian by the difference of the latitudes.
  const double psi = std::atan2(z, axis_distance) - phi;
  MagneticField f;
  f.north_nT = north * std::cos(psi) - down * std::sin(psi);
  f.east_nT = east;
  f.down_nT = north * std::sin(psi) + down * std::cos(psi);
  f.horizontal_nT = std::hypot(f.north_nT, f.east_nT);
  f.total_nT = std::hypot(f.horizontal_nT, f.down_nT);
  f.declination_deg = std::atan2(f.east_nT, f.north_nT) / rad;
  f.inclination_deg = std::atan2(f.down_nT, f.horizontal_nT) / rad;
  return f;
}

Result<double> decimal_year(const std::string& text) {
  const auto refuse = [&] {
    return failure("date", "\"" + clean_text(text, 40) + "\" is not understood",
                   "YYYY-MM-DD or a decimal year such as 2026.5");
  };
  const auto whole = [&](std::size_t at, std::size_t count) {
    int value = -1;
    const auto [end, error] = std::from_chars(text.data() + at, text.data() + at + count, value);
    return error == std::errc() && end == text.data() + at + count ? value : -1;
  };
  if (text.size() == 10 && text[4] == '-' && text[7] == '-') {
    const int year = whole(0, 4), month = whole(5, 2), day = whole(8, 2);
    const bool leap = year % 4 == 0 && (year % 100 != 0 || year % 400 == 0);
    const int days[12] = {31, leap ? 29 : 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31};
    if (year < 0 || month < 1 || month > 12 || day < 1 || day > days[month - 1]) return refuse();
    int passed = day - 1;
    for (int k = 0; k + 1 < month; ++k) passed += days[k];
    return year + passed / (leap ? 366.0 : 365.0);
  }
  const auto value = number_of(text);
  if (!value) return refuse();
  return *value;
}

}  // namespace rigging
