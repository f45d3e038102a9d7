#include "home/rehearsal.h"

#include <algorithm>
#include <cmath>
#include <random>

#include "base/angle.h"
#include "base/number.h"
#include "base/units.h"
#include "earth/gravity.h"

namespace rigging {
namespace {

constexpr double step_s = 0.1;
constexpr double longest_s = 3600;
constexpr double bank_lag_s = 0.6;      ///< until a wanted bank stands
constexpr double course_to_bank = 1.2;  ///< radians of bank for a radian off the course
constexpr double gust_lasts_s = 4;
constexpr double lowest_wind_m = 2;   ///< the profile's lowest height
constexpr double hits_within_m = 25;  ///< beside what stands high
constexpr double circles_s = 60;
constexpr double arrives_within_m = 10;  ///< of the circle
constexpr double gone_m = 3000;          ///< further off than when the link went: blown away
constexpr double open_ground = 0.14;     ///< common practice

double turned(double rad_) { return std::remainder(rad_, 2 * pi); }

/// The aircraft, its air and its battery.
class Flown {
 public:
  Flown(const HomePerformance& p, const RehearsalCase& c)
      : p_(p), c_(c), speed_(p.cruise_m_s.expected * c.cruise_factor), random_(c.seed) {
    north_ = c.place.north_m(), east_ = c.place.east_m();
    height_ = c.place.height_m;
    heading_ = c.heading_deg * rad;
    left_ = c.left_mah;
  }

  double distance() const { return std::hypot(north_, east_); }
  double height() const { return height_; }
  double left_mah() const { return left_; }
  bool dead() const { return dead_; }
  HomePlace place() const { return HomePlace::at(north_, east_, height_); }
  /// Over the ground, from north.
  double course() const { return std::atan2(ground_east_, ground_north_); }
  double ground_speed() const { return std::hypot(ground_north_, ground_east_); }
  double to_home() const { return std::atan2(-east_, -north_); }

  /// A tenth of a second with this bank wanted.
  void go(double wanted_bank, bool climbs) {
    const double most = p_.bank_deg * rad;
    bank_ += step_s / bank_lag_s * (std::clamp(wanted_bank, -most, most) - bank_);
    heading_ += step_s * standard_gravity * std::tan(bank_) / speed_;
    const double share = std::sqrt(2 * step_s / gust_lasts_s);
    for (double* gust : {&gust_north_, &gust_east_})
      *gust += -step_s / gust_lasts_s * *gust + share * c_.gusts * c_.wind.speed_m_s * normal_(random_);
    const double aloft = c_.wind.speed_m_s * std::pow(std::max(height_, lowest_wind_m) / 10, c_.wind_exponent);
    ground_north_ = speed_ * std::cos(heading_) - aloft * std::cos(c_.wind.from_deg * rad) + gust_north_;
    ground_east_ = speed_ * std::sin(heading_) - aloft * std::sin(c_.wind.from_deg * rad) + gust_east_;
    north_ += step_s * ground_north_;
    east_ += step_s * ground_east_;
    double amps = 0;
    if (dead_) {
      height_ = std::max(0.0, height_ - step_s * p_.sink_m_s);
    } else {
      amps = (climbs ? p_.climb_a.expected : p_.cruise_a.expected) * c_.current_factor;
      if (climbs) height_ += step_s * p_.climb_m_s.expected * c_.climb_factor;
    }
    left_ -= step_s * amps * mah_per_as;
    dead_ = dead_ || left_ <= 0;
  }

 private:
  const HomePerformance& p_;
  const RehearsalCase& c_;
  double speed_;
  double north_, east_, height_, heading_, bank_ = 0;
  double ground_north_ = 0, ground_east_ = 0, gust_north_ = 0, gust_east_ = 0;
  double left_;
  bool dead_ = false;
  std::mt19937 random_;
  std::normal_distribution<double> normal_;
};

/// Bank that brings the course over the ground to this one.
double bank_toward(const Flown& f, double course, double beside = 0) {
  return beside + course_to_bank * turned(course - f.course());
}

/// Right round home at the radius: the bank of the turn over the ground, and back to the circle where it is off it.
double bank_round(const Flown& f, double radius_m) {
  const double off = std::clamp((f.distance() - radius_m) / radius_m, -1.0, 1.0);
  // Square to the way home, the nearer the further it is out.
  const double course = f.to_home() - (pi / 2) * (1 - std::max(0.0, off)) * (off < 0 ? 1 - off * 0.5 : 1);
  const double v = f.ground_speed();
  return bank_toward(f, course, std::atan(v * v / (standard_gravity * radius_m)));
}

const FieldObstacle* hit_by(const Rig& rig, const Flown& f) {
  const HomePlace at = f.place();
  for (const FieldObstacle& o : rig.home.obstacles) {
    const HomePlace top{o.distance_m, o.bearing_deg, o.height_m};
    if (std::hypot(at.north_m() - top.north_m(), at.east_m() - top.east_m()) < hits_within_m &&
        at.height_m < o.height_m)
      return &o;
  }
  return nullptr;
}

Result<void> can_be_rehearsed(const Rig& rig, const HomeReport& r) {
  if (!r.missing.empty()) return failure("rehearse", r.missing, "");
  if (rig.home.on_loss != LossAction::come_home)
    return failure("rehearse", "it is not planned to come home", "come_home as what happens when the link is gone");
  if (!r.knows_place) return failure("rehearse", "it does not know where home is", "a satellite receiver");
  return {};
}

}  // namespace

Result<Rehearsal> rehearse(const Rig& rig, const Catalogue& catalogue, const HomeReport& r, const RehearsalCase& c) {
  if (const auto can = can_be_rehearsed(rig, r); !can) return tl::make_unexpected(can.error());
  const ControllerClass* controller = catalogue.controller(rig.controller.kind);
  Rehearsal out;
  Flown f(r.performance, c);
  const double acts_s = controller->home.notices_after_s + rig.home.loss_hold_s;
  const double ring = r.circle_radius_m + arrives_within_m;
  bool arrived = false;
  double arrived_s = 0;
  const auto ends = [&](RehearsalEnd end, const std::string& words) {
    out.end = end, out.words = words, out.ends_m = f.distance();
    if (!arrived) out.left_mah = f.left_mah(), out.used_mah = c.left_mah - f.left_mah();
    return out;
  };
  for (int i = 0; i * step_s < longest_s; ++i) {
    const double t = i * step_s;
    if (i % 10 == 0) out.places.push_back(f.place());
    if (f.dead() && (!arrived || f.height() <= 0))
      return ends(RehearsalEnd::battery_empty,
                  "The battery is empty " + field_text(f.distance()) + " from home after " + number_text(t, 0) + " s.");
    if (const FieldObstacle* o = hit_by(rig, f))
      return ends(RehearsalEnd::hit, "It flies into " + o->name + ", " + field_text(f.height()) + " up.");
    if (f.distance() > c.place.distance_m + gone_m)
      return ends(RehearsalEnd::blown_away, "The wind carries it away: it is " + field_text(f.distance()) +
                                                " off after " + number_text(t, 0) + " s.");
    const bool low = f.height() < r.return_height_m;
    if (t < acts_s) {
      f.go(0, false);
    } else if (!arrived) {
      const bool circles = rig.home.climb_first && low;
      f.go(circles ? r.performance.bank_deg * rad : bank_toward(f, f.to_home()), low);
      if (!circles && f.distance() <= ring) {
        arrived = true, arrived_s = t;
        out.way_s = t - acts_s;
        out.left_mah = f.left_mah(), out.used_mah = c.left_mah - f.left_mah();
      }
    } else {
      f.go(bank_round(f, r.circle_radius_m), low);
      // The first half of the minute is for getting onto the circle.
      if (t > arrived_s + circles_s / 2) out.circle_reaches_m = std::max(out.circle_reaches_m, f.distance());
      if (t > arrived_s + circles_s) {
        out.words = "Home after " + number_text(arrived_s, 0) + " s with " + number_text(out.left_mah, 0) + " mAh.";
        return out;
      }
    }
  }
  return ends(RehearsalEnd::blown_away, "After an hour it is still " + field_text(f.distance()) + " from home.");
}

Result<RehearsalTable> rehearse_many(const Rig& rig, const Catalogue& catalogue, const HomeReport& r, int count,
                                     std::uint32_t seed, Progress& progress) {
  if (const auto can = can_be_rehearsed(rig, r); !can) return tl::make_unexpected(can.error());
  std::mt19937 random(seed);
  const auto between = [&random](double a, double b) {
    return std::uniform_real_distribution(std::min(a, b), std::max(a, b))(random);
  };
  const HomePerformance& p = r.performance;
  const double area = rig.home.area_m.value_or(500), full = p.capacity_mah.expected;
  const double least = std::min(full, r.turn_home_mah ? r.turn_home_mah->value : 0.3 * full);
  RehearsalTable table;
  for (int i = 0; i < count && !progress.cancelled(); ++i) {
    RehearsalCase c;
    // As many places in every hectare.
    c.place = {area * std::sqrt(between(0, 1)), between(0, 360), between(0.3, 1.0) * r.return_height_m};
    c.heading_deg = between(0, 360);
    c.left_mah = between(least, between(p.capacity_mah.worse, full));
    c.wind = {rig.home.wind_m_s * between(0.6, 1.2), rig.home.wind_from_deg + between(-40, 40)};
    c.wind_exponent = open_ground;
    c.gusts = between(0, gust_share / 2);
    c.seed = static_cast<std::uint32_t>(random());
    c.cruise_factor = between(p.cruise_m_s.worse, p.cruise_m_s.better) / p.cruise_m_s.expected;
    c.current_factor = between(p.cruise_a.worse, p.cruise_a.better) / p.cruise_a.expected;
    c.climb_factor = between(p.climb_m_s.worse, p.climb_m_s.better) / p.climb_m_s.expected;
    const auto one = rehearse(rig, catalogue, r, c);
    if (!one) return tl::make_unexpected(one.error());
    ++table.flown;
    progress.at(static_cast<double>(i + 1) / count);
    if (one->end == RehearsalEnd::home) {
      ++table.home;
      table.kept_reserve += one->left_mah >= p.reserve_mah;
      continue;
    }
    auto line = std::find_if(table.failed.begin(), table.failed.end(),
                             [&](const RehearsalTable::Line& l) { return l.end == one->end; });
    if (line == table.failed.end()) line = table.failed.insert(line, {one->end, 0, c, one->words});
    ++line->count;
  }
  std::stable_sort(table.failed.begin(), table.failed.end(),
                   [](const auto& a, const auto& b) { return a.count > b.count; });
  return table;
}

}  // namespace rigging
