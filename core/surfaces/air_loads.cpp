#include "surfaces/air_loads.h"

#include <algorithm>
#include <cmath>

#include "airframe/planform.h"
#include "base/angle.h"
#include "base/find.h"
#include "base/number.h"

namespace rigging {
namespace {

constexpr double density_kg_m3 = 1.225;                        // ISO 2533, sea level
constexpr double least_of_theory = 0.5, most_of_theory = 1.2;  // from memory

/// Chord behind the hinge over the whole chord: as measured at the gauge, else as the airframe says.
double share_behind_hinge(const Rig& rig, const Panel& p) {
  if (p.surface->kind == SurfaceKind::taileron) return 1;
  const double drawn = area_of(p.corners) / (p.corners[1] - p.corners[0]).norm();
  const Linkage* l = rig.linkage(*p.surface);
  if (!l || !l->chord_m) return rig.airframe.surface_chord;
  return std::clamp(*l->chord_m / (drawn / rig.airframe.surface_chord), 0.05, 1.0);
}

/// Area behind the hinge, with the chord that was measured.
double area_behind_hinge(const Rig& rig, const Panel& p) {
  const double drawn = area_of(p.corners);
  return p.surface->kind == SurfaceKind::taileron ? drawn
                                                  : drawn * share_behind_hinge(rig, p) / rig.airframe.surface_chord;
}

const Part* servo_of(const Rig& rig, Surface surface) {
  return find_in(rig.parts, [&](const Part& p) { return p.surface && *p.surface == surface; });
}

}  // namespace

double flap_effectiveness(double e) {
  const double theta = std::acos(std::clamp(2 * e - 1, -1.0, 1.0));
  return 1 - (theta - std::sin(theta)) / pi;
}

double hinge_moment_slope(double e) {
  // Hinge at theta_h measured from the leading edge, x = (1 − cos θ)/2. The loading has a logarithmic peak at the
  // hinge: the variable is stretched there.
  const double hinge = std::acos(std::clamp(1 - 2 * (1 - e), -1.0, 1.0));
  const double a0 = 1 - hinge / pi;
  constexpr int n = 400;
  double sum = 0;
  for (int i = 0; i < n; ++i) {
    const double u = (i + 0.5) / n;
    const double theta = hinge + (pi - hinge) * u * u, d_theta = (pi - hinge) * 2 * u / n;
    const double peak =
        hinge > 0 ? std::log(std::abs(std::sin((theta + hinge) / 2) / std::sin((theta - hinge) / 2))) / pi : 0;
    // Pressure difference · dx, with the sine of dx taken into the first term, where it takes away the peak at the
    // leading edge.
    const double load = 4 * (a0 * (1 + std::cos(theta)) + peak * std::sin(theta)) / 2;
    sum += load * (std::cos(hinge) - std::cos(theta)) / 2 * d_theta;
  }
  return -sum / (e * e);
}

std::optional<SurfaceShape> shape_of(const Rig& rig, Surface surface) {
  SurfaceShape shape;
  double along = 0;
  for (const Panel& p : aircraft_panels(rig.airframe)) {
    if (!p.surface || *p.surface != surface || surface.kind == SurfaceKind::motor || p.corners.size() != 4) continue;
    shape.area_m2 += area_behind_hinge(rig, p);
    along += (p.corners[1] - p.corners[0]).norm();
    shape.share = share_behind_hinge(rig, p);
  }
  if (along <= 0) return std::nullopt;
  shape.chord_m = shape.area_m2 / along;
  shape.all_moving = shape.share >= 1;
  return shape;
}

double chord_of(const Rig& rig, Surface surface) {
  if (const Linkage* l = rig.linkage(surface); l && l->chord_m) return *l->chord_m;
  const auto shape = shape_of(rig, surface);
  return shape ? shape->chord_m : 0.05;
}

const ServoFigures* servo_figures(const Rig& rig, const Catalogue& catalogue, Surface surface) {
  const Part* part = servo_of(rig, surface);
  const PartKind* kind = part ? catalogue.part(part->kind) : nullptr;
  return kind && kind->servo ? &*kind->servo : nullptr;
}

double dead_band_us(const Rig& rig, const Catalogue& catalogue, Surface surface) {
  const ServoFigures* s = servo_figures(rig, catalogue, surface);
  return s ? s->dead_band_us : 5;
}

std::optional<Speeds> speeds_of(const Rig& rig, const AirframeReport& airframe) {
  if (!airframe.cruise_speed) return std::nullopt;
  Speeds s;
  s.cruise = airframe.cruise_speed->value;
  s.fast = rig.airframe.fast_m_s.value_or(1.5 * s.cruise);
  s.dive = std::max(s.fast, rig.airframe.dive_m_s.value_or(2.2 * s.cruise));
  s.estimated = !rig.airframe.fast_m_s || !rig.airframe.dive_m_s;
  return s;
}

std::vector<ServoLoad> analyze_loads(const Rig& rig, const Catalogue& catalogue, const AirframeReport& airframe,
                                     const SurfacesReport& surfaces) {
  std::vector<ServoLoad> all;
  const auto speeds = speeds_of(rig, airframe);
  if (!speeds) return all;
  for (const SurfaceAnswer& a : surfaces.answers) {
    const auto shape = shape_of(rig, a.surface);
    if (!shape) continue;
    ServoLoad load;
    load.surface = a.surface;
    load.full_deg = std::max(a.most_up_deg, a.most_down_deg);
    // An all-moving half turns near its quarter chord: the hinge stands at 30 % in the drawing, so that little of the
    // lift has a lever.
    const double slope = shape->all_moving ? 2 * pi * 0.1 : std::abs(hinge_moment_slope(shape->share));
    const Part* part = servo_of(rig, a.surface);
    const PartKind* kind = part ? catalogue.part(part->kind) : nullptr;
    double idle_a = 0, stall_a = 0;
    if (kind && kind->servo) {
      load.servo = part->id;
      load.available_nm = kind->servo->torque_nm;
      for (const Load& l : kind->loads) {
        idle_a += l.idle_a;
        stall_a += l.most_a;
      }
    }
    const Linkage* linkage = rig.linkage(a.surface);
    const auto bar = linkage ? FourBar::of(*linkage) : Result<FourBar>(failure("", ""));
    // Surface degrees per degree of arm where it stands: by virtual work the servo feels the hinge moment times this.
    const auto ratio_at = [&](double deg) {
      if (!bar) return 25.0 / 45.0;
      const auto arm = bar->arm_for(deg);
      const auto pose =
          arm ? bar->pose(*arm) : tl::expected<LinkagePose, LinkageFault>(tl::make_unexpected(LinkageFault::no_size));
      return pose ? std::abs(pose->ratio) : 1.0;
    };
    const double signed_full = a.most_up_deg >= a.most_down_deg ? a.most_up_deg : -a.most_down_deg;
    const auto at = [&](double speed) {
      ServoLoad::At s;
      s.speed_m_s = speed;
      const double q = density_kg_m3 / 2 * speed * speed;
      const double hinge = q * shape->area_m2 * shape->chord_m * slope * load.full_deg * rad;
      s.hinge_low_nm = least_of_theory * hinge;
      s.hinge_high_nm = most_of_theory * hinge;
      const double ratio = ratio_at(signed_full);
      s.torque_low_nm = s.hinge_low_nm * ratio;
      s.torque_high_nm = s.hinge_high_nm * ratio;
      if (load.available_nm > 0) {
        s.share_low = s.torque_low_nm / load.available_nm;
        s.share_high = s.torque_high_nm / load.available_nm;
        s.amps_low = idle_a + (stall_a - idle_a) * std::min(1.0, s.share_low);
        s.amps_high = idle_a + (stall_a - idle_a) * std::min(1.0, s.share_high);
        if (s.share_high > 1) {
          // The deflection at which torque and servo meet: the moment grows with the angle, so that halving finds it.
          double least = 0, most = load.full_deg;
          for (int i = 0; i < 40; ++i) {
            const double deg = (least + most) / 2;
            (most_of_theory * hinge * deg / load.full_deg * ratio_at(std::copysign(deg, signed_full)) <
                     load.available_nm
                 ? least
                 : most) = deg;
          }
          s.blown_back_deg = least;
        }
      }
      return s;
    };
    load.cruise = at(speeds->cruise);
    load.fast = at(speeds->fast);
    load.dive = at(speeds->dive);
    const auto percent = [](double share) { return number_text(100 * share, 0) + " %"; };
    if (load.available_nm <= 0)
      load.verdict = "no servo is known for it";
    else if (load.fast.share_low > 1)
      load.verdict = "the servo can't hold it in fast flight";
    else if (load.fast.share_high > 1)
      load.verdict = "in fast flight it may be blown back to " + number_text(*load.fast.blown_back_deg, 0) + "°";
    else
      load.verdict = "asks " + percent(load.fast.share_low) + " to " + percent(load.fast.share_high) +
                     " of the servo's stall torque in fast flight, " +
                     (load.fast.share_high <= working_share ? "within the half that it can work at: holds"
                      : load.fast.share_low <= working_share
                          ? "perhaps more than the half that it can work at"
                          : "more than the half that it can work at: it holds for a moment and gets hot");
    if (load.fast.share_high <= 1 && load.dive.blown_back_deg)
      load.verdict += "; in a dive it may be blown back to " + number_text(*load.dive.blown_back_deg, 0) + "°";
    all.push_back(load);
  }
  return all;
}

}  // namespace rigging
