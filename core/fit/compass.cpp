#include <Eigen/Geometry>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "base/number.h"
#include "fit/compass.h"

namespace rigging {
namespace {

constexpr double mu0_over_4pi_ut = 0.1;      // 1e-7 T·m/A in µT·m/A
constexpr double magnets_a_m2_per_kg = 0.5;  // stray dipole of a motor by its mass; from memory

double distance_to(const CurrentPath& path, Point p) {
  const Point along = path.b - path.a;
  const double size = along.squaredNorm();
  const double share = size > 0 ? std::clamp((p - path.a).dot(along) / size, 0.0, 1.0) : 0;
  return (p - mix(path.a, path.b, share)).norm();
}

}  // namespace

Point field_of_segment_ut(Point a, Point b, double amps, Point p) {
  const Point along = b - a;
  const double size = along.norm();
  if (size < 1e-9) return Point::Zero();
  const Point unit = along / size, to_a = p - a, to_b = p - b;
  const Point off = to_a - unit * to_a.dot(unit);
  const double d = off.norm();
  if (d < 1e-6) return Point::Zero();
  const double value = mu0_over_4pi_ut * amps / d * (to_a.dot(unit) / to_a.norm() - to_b.dot(unit) / to_b.norm());
  return unit.cross(off / d) * value;
}

double field_of_pair_ut(const CurrentPath& path, Point p) {
  if (path.single) return field_of_segment_ut(path.a, path.b, path.amps, p).norm();
  const Point along = path.b - path.a;
  const double size = along.norm();
  if (size < 1e-9) return 0;
  const Point unit = along / size, to_p = p - path.a;
  Point off = to_p - unit * to_p.dot(unit);
  const double d = off.norm();
  // In line with the lead, any side will do.
  off = d > 1e-6 ? Point(off / d) : unit.unitOrthogonal();
  double worst = 0;
  const Point side = unit.cross(off);
  for (const Point& apart : {Point(off * (path.spacing_m / 2)), Point(side * (path.spacing_m / 2))}) {
    const Point b = field_of_segment_ut(path.a + apart, path.b + apart, path.amps, p) -
                    field_of_segment_ut(path.a - apart, path.b - apart, path.amps, p);
    worst = std::max(worst, b.norm());
  }
  return worst;
}

double heading_error_deg(double disturbing_ut, double horizontal_ut) {
  if (disturbing_ut >= horizontal_ut) return points_nowhere_deg;
  return std::asin(disturbing_ut / horizontal_ut) * 180 / std::numbers::pi;
}

double least_distance_single_m(double amps, double horizontal_ut, double error_deg) {
  return 2 * mu0_over_4pi_ut * std::abs(amps) / (horizontal_ut * std::sin(error_deg * std::numbers::pi / 180));
}

double least_distance_m(double amps, double spacing_m, double horizontal_ut, double error_deg) {
  return std::sqrt(2 * mu0_over_4pi_ut * std::abs(amps) * spacing_m /
                   (horizontal_ut * std::sin(error_deg * std::numbers::pi / 180)));
}

double error_at(const FitReport& report, Point p, double horizontal_ut) {
  double sum = 0;
  for (const CurrentPath& c : report.currents) sum += field_of_pair_ut(c, p);
  return heading_error_deg(sum, horizontal_ut);
}

std::optional<MagneticField> earth_field(const Rig& rig, const Catalogue& catalogue) {
  const Fit& fit = rig.fit;
  if (!catalogue.earth || !fit.latitude_deg || !fit.longitude_deg) return std::nullopt;
  const auto year = fit.date.empty() ? Result<double>(2027.5) : decimal_year(fit.date);
  if (!year) return std::nullopt;
  const auto field = catalogue.earth->field(*fit.latitude_deg, *fit.longitude_deg, fit.altitude_km, *year);
  return field ? std::optional(*field) : std::nullopt;
}

/// Earth's horizontal field where it flies.
static Figure horizontal_field(const Rig& rig, const Catalogue& catalogue) {
  if (const auto field = earth_field(rig, catalogue))
    return {"Earth's horizontal field",
            field->horizontal_nT / 1000,
            "µT",
            {},
            {},
            "at the given place" + std::string(rig.fit.date.empty() ? ", middle of 2027" : ""),
            "World Magnetic Model 2025"};
  return {"Earth's horizontal field",
          20,
          "µT",
          15,
          30,
          "place not given",
          "usual at middle latitudes: give latitude and longitude"};
}

std::vector<CompassReport> compass_reports(const Rig& rig, const Catalogue& catalogue,
                                           const std::vector<CurrentPath>& currents, bool current_known) {
  std::vector<CompassReport> all;
  const auto add = [&](const std::string& part) {
    const Mounting* place = rig.mounting(part);
    if (!place) return;
    CompassReport r;
    r.part = part;
    r.at = point_of(*place);
    r.horizontal = horizontal_field(rig, catalogue);
    const double h = r.horizontal.value;
    double sum = 0;
    for (const CurrentPath& c : currents) {
      // Its own lead ends in the part, which was made to live with it.
      if (const Lead* l = rig.lead(c.lead); l && (l->from.part == part || l->to.part == part)) continue;
      CompassPath p{c, distance_to(c, r.at), field_of_pair_ut(c, r.at), 0,
                    c.single ? least_distance_single_m(c.amps, h, wanted_compass_error_deg)
                             : least_distance_m(c.amps, c.spacing_m, h, wanted_compass_error_deg)};
      p.error_deg = heading_error_deg(p.field_ut, h);
      sum += p.field_ut;
      r.paths.push_back(std::move(p));
    }
    // Magnets of motors, as dipoles that lie as badly as they can.
    for (const Part& motor : rig.parts) {
      const PartKind* k = catalogue.part(motor.kind);
      const Mounting* at = rig.mounting(motor.id);
      if (!k || !k->motor || !at) continue;
      const Point where = point_of(*at);
      const double away = (where - r.at).norm(),
                   moment = magnets_a_m2_per_kg * motor.mass_kg.value_or(k->mass_kg.value_or(0.05));
      CompassPath p{{"", part_name(rig, catalogue, motor.id) + " (magnets)", where, where, 0, 0, false},
                    away,
                    2 * mu0_over_4pi_ut * moment / std::pow(std::max(0.02, away), 3),
                    0,
                    0};
      p.error_deg = heading_error_deg(p.field_ut, h);
      p.least_distance_m =
          std::cbrt(2 * mu0_over_4pi_ut * moment / (h * std::sin(wanted_compass_error_deg * std::numbers::pi / 180)));
      sum += p.field_ut;
      r.paths.push_back(std::move(p));
    }
    std::stable_sort(r.paths.begin(), r.paths.end(),
                     [](const auto& a, const auto& b) { return a.field_ut > b.field_ut; });
    r.error = {
        "Heading error from currents and magnets",
        heading_error_deg(sum, h),
        "°",
        {},
        {},
        "asin(" + number_text(sum, 3) + " µT / " + number_text(h, 2) + " µT)",
        "Biot–Savart, every lead lying as badly as it can, full throttle; motor magnets as dipoles of 0.5 A·m² per "
        "kilogram (from memory, within a factor of three)"};
    r.verdict = r.error.value >= points_nowhere_deg         ? CompassVerdict::points_nowhere
                : r.error.value >= wanted_compass_error_deg ? CompassVerdict::too_near
                : current_known                             ? CompassVerdict::holds
                                                            : CompassVerdict::so_far;
    all.push_back(std::move(r));
  };
  const ControllerClass* controller = catalogue.controller(rig.controller.kind);
  if (controller && controller->senses.has_compass) add("controller");
  for (const Part& p : rig.parts)
    if (const PartKind* k = catalogue.part(p.kind); k && k->magnetic_sensor) add(p.id);
  return all;
}

}  // namespace rigging
