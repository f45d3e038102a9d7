#include "way_back.h"

#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "earth/gravity.h"
#include "feel/feel.h"

namespace rigging::twin {
namespace {

constexpr double looks_every_s = 0.2;
constexpr double most_bank_deg = 35, most_nose_deg = 15, least_nose_deg = -12;
constexpr double course_to_bank = 1.0;  ///< rad of bank for a radian off the course
constexpr double usual_return_m = 50, usual_radius_m = 60;
constexpr double nose_per_m = 0.012, nose_per_m_s = 0.04, trim_per_m_s = 0.004, most_trim = 0.2;
constexpr double throttle_per_m_s = 0.06, throttle_to_climb = 0.35;
constexpr double arrives_within_m = 10;

double turned(double angle) { return std::remainder(angle, 2 * pi); }

}  // namespace

WayBack::WayBack(const Rig& set, const ControllerClass& controller, double cruise_m_s, double cruise_throttle,
                 bool knows_place)
    : plan_(set.home),
      notices_s_(controller.home.notices_after_s),
      bank_limit_(std::min(most_bank_deg, set.feel.bank_limit_deg.value_or(usual_limit_deg)) * rad),
      nose_limit_(std::min(most_nose_deg, set.feel.nose_limit_deg.value_or(usual_limit_deg)) * rad),
      cruise_m_s_(cruise_m_s),
      cruise_throttle_(set.home.cruise_throttle.value_or(cruise_throttle)),
      return_m_(set.home.return_height_m.value_or(usual_return_m)),
      radius_m_(set.home.circle_radius_m.value_or(usual_radius_m)),
      acts_(!controller.home.on_loss.empty()),
      knows_place_(knows_place) {}

void WayBack::choose(double lost_for_s) {
  const Doing before = doing_;
  if (!acts_ || lost_for_s < notices_s_) {
    doing_ = Doing::by_hand;
  } else if (lost_for_s < notices_s_ + plan_.loss_hold_s) {
    doing_ = Doing::waits;
  } else if (doing_ == Doing::by_hand || doing_ == Doing::waits) {
    switch (plan_.on_loss) {
      case LossAction::undecided:
      case LossAction::glide: doing_ = Doing::glides; break;
      case LossAction::circle: doing_ = knows_place_ ? Doing::circles : Doing::glides; break;
      case LossAction::come_home:
        doing_ = !knows_place_ ? Doing::glides : plan_.climb_first ? Doing::climbs : Doing::comes_home;
        break;
    }
  }
  for (const TriggerChoice& t : plan_.triggers)
    if (t.on == HomeTrigger::long_loss && t.at && lost_for_s > *t.at)
      doing_ = t.does == TriggerAction::land ? Doing::lands : Doing::glides;
  if (doing_ != before && (doing_ == Doing::circles || doing_ == Doing::climbs))
    held_north_ = north_, held_east_ = east_;
}

void WayBack::look(const Motion& m, double dt) {
  looked_s_ += dt;
  if (looked_s_ < looks_every_s) return;
  const double since = looked_s_;
  if (since < 1) ground_north_ = (m.north - north_) / since, ground_east_ = (m.east - east_) / since;
  looked_s_ = 0;
  north_ = m.north, east_ = m.east;
}

double WayBack::toward(double course, double beside) const {
  const double off = turned(course - std::atan2(ground_east_, ground_north_));
  return std::clamp(beside + course_to_bank * off, -bank_limit_, bank_limit_);
}

/// Right round a place.
double WayBack::round(double north, double east, double radius_m) const {
  const double dn = north - north_, de = east - east_, far = std::hypot(dn, de);
  const double off = std::clamp((far - radius_m) / radius_m, -1.0, 1.0);
  const double to_it = std::atan2(de, dn);
  const double course = to_it - (pi / 2) * (1 - off * (off > 0 ? 1 : 0.5));
  const double v2 = ground_north_ * ground_north_ + ground_east_ * ground_east_;
  // The turn itself only where it is on the circle.
  const double turn = std::abs(off) < 0.9 ? std::atan(v2 / (standard_gravity * radius_m)) : 0;
  return toward(course, turn);
}

WayBack::Steering WayBack::step(const Motion& m, double airspeed, double lost_for_s, double dt) {
  look(m, dt);
  const bool flew_by_hand = doing_ == Doing::by_hand;
  choose(lost_for_s);
  if (doing_ == Doing::by_hand) return {};
  if (flew_by_hand) held_m_ = m.height(), trimmed_ = 0;
  Steering s;
  const double far = std::hypot(north_, east_);
  double wanted_m = held_m_;
  switch (doing_) {
    case Doing::by_hand:
    case Doing::waits: break;
    case Doing::glides: s.nose = -4 * rad; return s;
    case Doing::circles: s.bank = round(held_north_, held_east_, radius_m_); break;
    case Doing::climbs:
      s.bank = round(held_north_, held_east_, radius_m_);
      wanted_m = std::max(return_m_, held_m_);
      if (m.height() > wanted_m - 3) doing_ = Doing::comes_home;
      break;
    case Doing::comes_home:
      s.bank = toward(std::atan2(-east_, -north_), 0);
      wanted_m = std::max(return_m_, held_m_);
      if (far <= radius_m_ + arrives_within_m) doing_ = Doing::circles_home;
      break;
    case Doing::circles_home:
    case Doing::lands:
      s.bank = round(0, 0, radius_m_);
      wanted_m = std::max(return_m_, held_m_);
      if (far <= 2 * radius_m_ || at_home_s_ > 0) at_home_s_ += dt;
      if (doing_ == Doing::circles_home && plan_.on_arrival == OnArrival::land && at_home_s_ > 30)
        doing_ = Doing::lands;
      break;
  }
  if (doing_ == Doing::lands) {
    s.nose = -3 * rad;
    s.throttle = plan_.landing_throttle.value_or(0);
    return s;
  }
  const double low = std::clamp(wanted_m - m.height(), -15.0, 15.0), up = m.climb_m_s();
  const double climb = std::clamp(0.25 * low, -2.5, 2.5);
  trimmed_ = std::clamp(trimmed_ + dt * trim_per_m_s * (climb - up), -most_trim, most_trim);
  s.nose = std::clamp(nose_per_m * low + nose_per_m_s * (climb - up) + trimmed_, least_nose_deg * rad, nose_limit_);
  s.throttle = std::clamp(cruise_throttle_ + throttle_per_m_s * (cruise_m_s_ - airspeed) +
                              throttle_to_climb * std::clamp(climb / 2.5, -1.0, 1.0),
                          0.0, 1.0);
  return s;
}

}  // namespace rigging::twin
