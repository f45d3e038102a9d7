#include "surfaces/linkage.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "base/angle.h"
#include "base/number.h"
#include "base/units.h"

namespace rigging {
namespace {

double wrapped(double angle) { return std::remainder(angle, 2 * std::numbers::pi); }
double sign(double v) { return v < 0 ? -1 : 1; }

}  // namespace

FourBar::Spot FourBar::arm_hole(double a) const {
  return {arm_m_ * std::sin(a), drop_m_ + arm_side_ * arm_m_ * std::cos(a)};
}
FourBar::Spot FourBar::horn_hole(double b) const { return {base_m_ + horn_m_ * std::sin(b), horn_m_ * std::cos(b)}; }

Linkage linkage_of(const Rig& rig, Surface surface) {
  if (const Linkage* l = rig.linkage(surface)) return *l;
  Linkage l;
  l.surface = surface;
  return l;
}

Rig with_linkage(Rig rig, const Linkage& linkage) {
  if (Linkage* l = rig.linkage(linkage.surface))
    *l = linkage;
  else
    rig.linkages.push_back(linkage);
  return rig;
}

Result<FourBar> FourBar::of(const Linkage& l) {
  const std::string where = "linkage of the " + l.surface.label();
  const auto positive = [](double v) { return std::isfinite(v) && v > 0; };
  if (!positive(l.arm_m) || !positive(l.rod_m) || !positive(l.horn_m))
    return failure(where, "an arm, rod or horn has no length", "lengths over 0");
  FourBar f;
  f.arm_m_ = l.arm_m;
  f.rod_m_ = l.rod_m;
  f.horn_m_ = l.horn_m;
  f.drop_m_ = l.drop_m;
  f.arm_side_ = l.crossed ? -1 : 1;
  f.push_sense_ = l.push_lifts ? 1 : -1;
  f.neutral_horn_rad_ = l.horn_deg * rad;
  const double a0 = l.arm_deg * rad, b0 = f.neutral_horn_rad_;
  if (l.base_m) {
    f.base_m_ = *l.base_m;
  } else {
    const double rise = f.horn_m_ * std::cos(b0) - f.arm_hole(a0).y;
    if (std::abs(rise) >= f.rod_m_)
      return failure(where,
                     "the rod of " + length_text(l.rod_m, 1) + " is shorter than the holes lie apart in height (" +
                         length_text(std::abs(rise), 1) + ")",
                     "a longer rod, or less difference in height");
    f.base_m_ = f.arm_m_ * std::sin(a0) - f.horn_m_ * std::sin(b0) + std::sqrt(f.rod_m_ * f.rod_m_ - rise * rise);
  }
  if (!positive(f.base_m_))
    return failure(where, "the hinge would lie ahead of the servo",
                   "a rod that is longer than arm and horn reach toward each other");
  // Of the two ways to join arm and horn the one nearest to the horn's neutral place is meant.
  const Spot p = f.arm_hole(a0);
  f.horn_branch_ = sign(wrapped(b0 - std::atan2(p.x - f.base_m_, p.y)));
  const auto at_rest = f.pose(l.arm_deg);
  if (!at_rest)
    return failure(where,
                   std::string("at 1500 µs the rod is too ") +
                       (at_rest.error() == LinkageFault::rod_too_short ? "short" : "long") + " to join arm and horn",
                   "a rod of about " + length_text(f.rod_m_ + f.rod_change_for_neutral(l.arm_deg), 1));
  f.arm_branch_ = sign(wrapped(a0 - std::atan2(at_rest->horn_x_m, f.arm_side_ * (at_rest->horn_y_m - f.drop_m_))));
  return f;
}

tl::expected<LinkagePose, LinkageFault> FourBar::pose(double arm_deg) const {
  const double a = arm_deg * rad;
  const Spot p = arm_hole(a);
  const double dx = p.x - base_m_, dy = p.y;
  const double far = std::hypot(dx, dy);
  if (far > rod_m_ + horn_m_) return tl::make_unexpected(LinkageFault::rod_too_short);
  if (far < std::abs(rod_m_ - horn_m_) || far == 0) return tl::make_unexpected(LinkageFault::rod_too_long);
  const double opening =
      std::acos(std::clamp((far * far + horn_m_ * horn_m_ - rod_m_ * rod_m_) / (2 * far * horn_m_), -1.0, 1.0));
  const double b = std::atan2(dx, dy) + horn_branch_ * opening;
  const Spot q = horn_hole(b);
  // How fast each end of the rod moves along it.
  const double rx = p.x - q.x, ry = p.y - q.y;
  const double by_arm = rx * std::cos(a) - arm_side_ * ry * std::sin(a);
  const double by_horn = rx * std::cos(b) - ry * std::sin(b);
  LinkagePose pose;
  pose.arm_deg = arm_deg;
  pose.up_deg = push_sense_ * wrapped(b - neutral_horn_rad_) / rad;
  pose.arm_x_m = p.x;
  pose.arm_y_m = p.y;
  pose.horn_x_m = q.x;
  pose.horn_y_m = q.y;
  pose.ratio = push_sense_ * arm_m_ * by_arm / (horn_m_ * by_horn);
  pose.rod_to_arm_deg = std::asin(std::min(1.0, std::abs(by_arm) / rod_m_)) / rad;
  pose.rod_to_horn_deg = std::asin(std::min(1.0, std::abs(by_horn) / rod_m_)) / rad;
  return pose;
}

tl::expected<double, LinkageFault> FourBar::arm_for(double up_deg) const {
  const Spot q = horn_hole(neutral_horn_rad_ + push_sense_ * up_deg * rad);
  const double dx = q.x, dy = arm_side_ * (q.y - drop_m_);
  const double far = std::hypot(dx, dy);
  if (far > rod_m_ + arm_m_) return tl::make_unexpected(LinkageFault::rod_too_short);
  if (far < std::abs(rod_m_ - arm_m_) || far == 0) return tl::make_unexpected(LinkageFault::rod_too_long);
  const double opening =
      std::acos(std::clamp((far * far + arm_m_ * arm_m_ - rod_m_ * rod_m_) / (2 * far * arm_m_), -1.0, 1.0));
  return wrapped(std::atan2(dx, dy) + arm_branch_ * opening) / rad;
}

double FourBar::rod_change_for_neutral(double arm_deg) const {
  const Spot p = arm_hole(arm_deg * rad), q = horn_hole(neutral_horn_rad_);
  return std::hypot(p.x - q.x, p.y - q.y) - rod_m_;
}

double arm_at(const Linkage& l, double pulse_us, int sense) {
  return l.arm_deg + sense * (l.push_lifts ? 1 : -1) * l.servo_travel_deg * (pulse_us - 1500) / 500;
}
double pulse_at(const Linkage& l, double arm_deg, int sense) {
  return 1500 + sense * (l.push_lifts ? 1 : -1) * (arm_deg - l.arm_deg) / l.servo_travel_deg * 500;
}

int rising_lifts(const Output& o, Surface surface) {
  for (const Axis axis : all_axes)
    if (const double way = o.mix.of(axis) * required_direction(surface, axis); way != 0)
      return (way > 0) == o.reversed ? -1 : 1;
  return o.reversed ? -1 : 1;
}

Result<LinkageCurve> trace(const Linkage& l, const Output& o) {
  const auto bar = FourBar::of(l);
  if (!bar) return tl::make_unexpected(bar.error());
  const int sense = rising_lifts(o, l.surface);
  LinkageCurve curve;
  const auto centre = bar->pose(arm_at(l, o.centre_us, sense));
  if (!centre)
    return failure("linkage of the " + l.surface.label(), "at the centre of its output the rod can't join arm and horn",
                   "a centre nearer to 1500 µs, or another rod");
  curve.neutral_deg = centre->up_deg;
  curve.deg_per_us = centre->ratio * (arm_at(l, o.centre_us + 1, sense) - arm_at(l, o.centre_us, sense));

  const auto problem = [&](LinkageFault fault, double arm_deg) {
    const std::string at = number_text(arm_deg, 0) + "° of arm ";
    std::string words;
    switch (fault) {
      case LinkageFault::rod_too_short:
        words = "At " + at + "the rod is pulled tight: it can't reach the horn any more, and the servo stalls";
        break;
      case LinkageFault::rod_too_long:
        words = "At " + at + "the horn is pushed as far as it goes: the servo stalls";
        break;
      case LinkageFault::arm_dead_centre:
        words = "Beyond " + at + "arm and rod have passed one line: the surface turns back although the servo goes on";
        break;
      case LinkageFault::horn_dead_centre:
        words = "At " + at + "rod and horn stand nearly in one line: it binds";
        break;
      case LinkageFault::no_size: break;
    }
    curve.problems.push_back({fault, arm_deg, words});
  };
  constexpr double step_us = 10, binds_deg = 12;
  const auto walk = [&](double end_us) {
    std::vector<LinkageCurve::Point> points;
    const double direction = end_us > o.centre_us ? 1 : -1;
    for (double pulse = o.centre_us; direction * (end_us - pulse) > -1e-9;) {
      const double arm = arm_at(l, pulse, sense);
      const auto pose = bar->pose(arm);
      if (!pose) {
        problem(pose.error(), arm);
        break;
      }
      if (pose->ratio * centre->ratio < 0) {
        problem(LinkageFault::arm_dead_centre, arm);
        break;
      }
      if (pose->rod_to_horn_deg < binds_deg) {
        problem(LinkageFault::horn_dead_centre, arm);
        break;
      }
      points.push_back({pulse, *pose});
      if (pulse == end_us) break;
      pulse = direction > 0 ? std::min(end_us, pulse + step_us) : std::max(end_us, pulse - step_us);
    }
    return points;
  };
  auto below = walk(o.low_us);
  const auto above = walk(o.high_us);
  std::reverse(below.begin(), below.end());
  if (!below.empty()) below.pop_back();  // the centre, which the other half has
  curve.points = std::move(below);
  curve.points.insert(curve.points.end(), above.begin(), above.end());
  double up = curve.neutral_deg, down = curve.neutral_deg;
  for (const auto& p : curve.points) {
    up = std::max(up, p.pose.up_deg);
    down = std::min(down, p.pose.up_deg);
  }
  curve.most_up_deg = up;
  curve.most_down_deg = -down;
  if (curve.neutral_deg > down) curve.differential = (up - curve.neutral_deg) / (curve.neutral_deg - down);
  return curve;
}

Result<double> pulse_for(const Linkage& l, double up_deg, int sense) {
  const auto bar = FourBar::of(l);
  if (!bar) return tl::make_unexpected(bar.error());
  const auto arm = bar->arm_for(up_deg);
  const auto refused = [&](const std::string& why) {
    return failure("linkage of the " + l.surface.label(), number_text(up_deg, 1) + "° is out of its reach: " + why,
                   "a smaller throw, a longer arm or a shorter horn");
  };
  if (!arm)
    return refused(arm.error() == LinkageFault::rod_too_short ? "the rod can't reach" : "the horn stands in its way");
  const auto back = bar->pose(*arm);
  if (!back || std::abs(back->up_deg - up_deg) > 1e-6) return refused("it lies behind a dead centre");
  return pulse_at(l, *arm, sense);
}

double throw_m(double chord_m, double deg) { return 2 * chord_m * std::sin(deg * rad / 2); }
double throw_deg(double chord_m, double distance_m) {
  return 2 * std::asin(std::clamp(distance_m / (2 * chord_m), -1.0, 1.0)) / rad;
}

Result<Linkage> with_holes(Linkage l, double arm_m, double horn_m) {
  const auto now = FourBar::of(l);
  if (!now) return tl::make_unexpected(now.error());
  l.base_m = now->base_m();
  l.arm_m = arm_m;
  l.horn_m = horn_m;
  const double a = l.arm_deg * rad, b = l.horn_deg * rad;
  l.rod_m = std::hypot(*l.base_m + horn_m * std::sin(b) - arm_m * std::sin(a),
                       horn_m * std::cos(b) - l.drop_m - (l.crossed ? -1 : 1) * arm_m * std::cos(a));
  l.readings.clear();
  if (const auto built = FourBar::of(l); !built) return tl::make_unexpected(built.error());
  return l;
}

Result<std::vector<HoleChoice>> choose_holes(const Linkage& l, const Output& o, double want_deg, double dead_band_us) {
  const std::string where = "linkage of the " + l.surface.label();
  if (l.arm_holes_m.empty() || l.horn_holes_m.empty())
    return failure(where, "no holes are listed", "the distances of the holes on arm and horn");
  if (!(want_deg > 0 && want_deg <= 85))
    return failure(where, "a throw of " + number_text(want_deg, 1) + "° was wished", "over 0, up to 85°");
  const auto now = FourBar::of(l);
  if (!now) return tl::make_unexpected(now.error());
  const int sense = rising_lifts(o, l.surface);
  std::vector<HoleChoice> all;
  for (const double arm : l.arm_holes_m)
    for (const double horn : l.horn_holes_m) {
      HoleChoice choice{arm, horn, 0, 0, 100, 0, 1, false, {}};
      const auto cut = with_holes(l, arm, horn);
      if (!cut) {
        choice.remark = cut.error().what;
        all.push_back(choice);
        continue;
      }
      const Linkage& other = *cut;
      const auto curve = trace(other, o);
      if (!curve) {
        choice.remark = curve.error().what;
        all.push_back(choice);
        continue;
      }
      choice.up_deg = curve->most_up_deg;
      choice.down_deg = curve->most_down_deg;
      choice.step_deg = std::abs(curve->deg_per_us) * dead_band_us;
      double used = 0, force = 1e9;
      bool both = true;
      const auto bar = FourBar::of(other);
      for (const double side : {want_deg, -want_deg}) {
        const auto pulse = pulse_for(other, side, sense);
        if (!pulse) {
          both = false;
          continue;
        }
        const double half = *pulse > o.centre_us ? o.high_us - o.centre_us : o.centre_us - o.low_us;
        used = std::max(used, 100 * std::abs(*pulse - o.centre_us) / half);
        if (const auto pose = bar->pose(arm_at(other, *pulse, sense)))
          force = std::min(force, 1 / std::abs(pose->ratio));
      }
      choice.travel_percent = used;
      choice.force = force < 1e9 ? force : 0;
      choice.reaches = both && used <= 100 + 1e-9 && std::min(choice.up_deg, choice.down_deg) >= want_deg - 1e-6;
      choice.remark = !choice.reaches
                          ? "gives " + number_text(std::min(choice.up_deg, choice.down_deg), 1) + "° at most"
                      : !curve->problems.empty() ? "mind the ends: " + curve->problems.front().words
                      : used < 60 ? "uses only " + number_text(used, 0) + " % of the travel: coarse steps, little force"
                                  : "";
      all.push_back(choice);
    }
  std::stable_sort(all.begin(), all.end(), [](const HoleChoice& a, const HoleChoice& b) {
    if (a.reaches != b.reaches) return a.reaches;
    return a.reaches ? a.travel_percent > b.travel_percent
                     : std::min(a.up_deg, a.down_deg) > std::min(b.up_deg, b.down_deg);
  });
  return all;
}

}  // namespace rigging
