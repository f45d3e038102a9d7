#include "senses/level.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "airframe/airframe.h"
#include "airframe/drag.h"
#include "airframe/planform.h"
#include "base/angle.h"
#include "base/number.h"
#include "earth/gravity.h"

namespace rigging {
namespace {

constexpr double sea_level_kg_m3 = 1.225;  // ISO 2533
constexpr double slope_band = 0.08;
/// How far behind a quarter of the chord elevons lift, in mean chords: middle of flaps of a quarter to the wing's end.
constexpr double elevon_arm = 0.4;
constexpr double most_climb_deg = 12;  ///< a steeper path is no trim error of level
constexpr double most_bank_deg = 12;   ///< nor is a steeper bank: a board lies askew by a few degrees (common practice)

struct Camber {
  double usual, least, most;  ///< share of the chord; values from memory of common sections
  bool reflexed = false;
};

Camber camber_of(WingSection section) {
  switch (section) {
    case WingSection::symmetric: return {0, -0.002, 0.002};
    case WingSection::semi_symmetric: return {0.018, 0.010, 0.025};
    case WingSection::flat_bottom: return {0.035, 0.028, 0.042};
    case WingSection::under_cambered: return {0.06, 0.045, 0.075};
    case WingSection::reflexed: return {0.006, -0.002, 0.014, true};
    case WingSection::unknown: break;
  }
  return {0.022, 0.0, 0.042};
}

struct Case {
  double speed_m_s, camber, slope_factor;
};

struct Attitude {
  double body_deg, wing_deg, wing_lift;
};

class Trim {
 public:
  Trim(const Airframe& a, const AirframeReport& r, double balance_m) : a_(a), r_(r), balance_m_(balance_m) {
    for (const SurfaceSize& s : r.surfaces) {
      if (s.name == "wing") wing_ = &s;
      // What trims: the tail where there is one.
      if (s.name == "foreplane" && !trims_) trims_ = &s;
      if (s.name == "tail") trims_ = &s;
    }
  }

  Attitude at(const Case& c) const {
    const double q = sea_level_kg_m3 / 2 * c.speed_m_s * c.speed_m_s, area = wing_->area_m2;
    const double weight = *a_.mass_kg * standard_gravity;
    const Drag polar = drag_of(a_, c.speed_m_s);
    const double thrust = polar.at(c.speed_m_s, *a_.mass_kg, polar.parasite_m2);
    const double slope = r_.lift_slope_per_rad * wing_->lift_share * c.slope_factor;
    // A reflexed line has no moment to speak of.
    const double moment = camber_of(a_.section).reflexed ? 0 : q * area * r_.mean_chord.value * pi * c.camber;
    const double arm =
        trims_ ? trims_->quarter_m - wing_->quarter_m
               : elevon_arm * r_.mean_chord.value + a_.span_m / 4 * std::tan(std::max(0.0, a_.sweep_deg) * rad);
    double body = 0;
    Attitude attitude{};
    for (int round = 0; round < 6; ++round) {
      const double lift = weight - thrust * std::sin(body - a_.thrust_down_deg * rad);
      const double other = -(lift * (wing_->quarter_m - balance_m_) + moment) / arm;
      const double wing = lift - other;
      const double angle = wing / (q * area * slope) - 2 * c.camber;
      body = angle - a_.incidence_deg * rad;
      attitude = {body / rad, angle / rad, wing / (q * area)};
    }
    return attitude;
  }

 private:
  const Airframe& a_;
  const AirframeReport& r_;
  double balance_m_;
  const SurfaceSize* wing_ = nullptr;
  const SurfaceSize* trims_ = nullptr;
};

std::string beside_practice(const Figure& f) {
  if (f.value > 2.5 * usual_level_most_deg)
    return "Far more than the usual 2 to 5°: look at mass, speed and incidence again. Angles of 15 to 20° are set by "
           "some on one class; the wing is near its stall there.";
  if (f.value > usual_level_most_deg + 0.5)
    return "More than the usual 2 to 5°: it flies slowly for its wing loading, or the incidence is small.";
  if (f.value < usual_level_least_deg - 0.5)
    return "Less than the usual 2 to 5°: the incidence or a cambered section already carries it. What is usual would "
           "make it climb in self-level.";
  return "As usual: 2 to 5°.";
}

}  // namespace

LevelReport analyze_level(const Airframe& a, const AirframeReport& r, double balance_m) {
  LevelReport level;
  if (!a.mass_kg) {
    level.first = "The flying mass is needed first.";
    return level;
  }
  const auto speed = cruise_speed(a);
  if (!speed || r.surfaces.empty()) {
    level.first = "A cruise speed is needed first.";
    return level;
  }
  level.speed = *speed;
  const Trim trim(a, r, balance_m);
  const Camber camber = camber_of(a.section);
  const Attitude usual = trim.at({speed->value, camber.usual, 1});
  if (usual.wing_lift > highest_lift(a.kind).most) {
    level.first =
        "At " + number_text(speed->value, 1) + " m/s the wing cannot carry it: look at mass, area and cruise speed.";
    return level;
  }
  double least = usual.body_deg, most = usual.body_deg;
  for (const double v : {speed->least.value_or(speed->value), speed->most.value_or(speed->value)})
    for (const double f : {camber.least, camber.most})
      for (const double s : {1 - slope_band, 1 + slope_band}) {
        const double body = trim.at({v, f, s}).body_deg;
        least = std::min(least, body);
        most = std::max(most, body);
      }
  level.wing_deg = usual.wing_deg;
  level.wing_lift =
      Figure{"Wing's lift coefficient", usual.wing_lift, "", {}, {}, "lift of the wing / (q·S)", "level flight"};
  level.nose_up = Figure{"Level, nose up",
                         usual.body_deg,
                         "°",
                         least,
                         most,
                         "wing at " + degrees_text(usual.wing_deg) + " to the air (lift coefficient " +
                             number_text(usual.wing_lift, 2) + ", none at " + degrees_text(-2 * camber.usual / rad) +
                             ") less " + degrees_text(a.incidence_deg) + " of incidence",
                         "thin aerofoil theory (Glauert) for the angle without lift, vortex lattice for the slope"};
  level.beside = beside_practice(*level.nose_up);
  return level;
}

std::string level_text(const LevelReport& l) {
  if (!l.nose_up) return {};
  return degrees_text(l.nose_up->value) + " (" + number_text(l.nose_up->least.value_or(l.nose_up->value), 1) + " to " +
         degrees_text(l.nose_up->most.value_or(l.nose_up->value)) + ")";
}

std::optional<LevelChange> level_from_climb(const Airframe& a, const AirframeReport& r, double climb_m_s) {
  const auto speed = cruise_speed(a);
  if (!a.mass_kg || !speed || r.lift_slope_per_rad <= 0) return std::nullopt;
  const double v = speed->value, weight = *a.mass_kg * standard_gravity;
  const double q = sea_level_kg_m3 / 2 * v * v, area = r.wing_area.value;
  const double path = std::asin(std::clamp(climb_m_s / v, -0.5, 0.5));
  const Drag polar = drag_of(a, v);
  // Lift balances weight: V² times the angle from zero lift is constant, dV/V = −dα/(2·α).
  const double from_zero_lift = weight / (q * area * r.lift_slope_per_rad);
  const auto factor = [&](double parasite, double thrust_slope) {
    const double drag = polar.at(v, *a.mass_kg, parasite);
    const double induced = polar.induced_per_m2 * weight * weight / q;
    const double drag_slope = 2 * (drag - 2 * induced) / v;  // parasite grows with V², induced falls with it
    const double path_per_alpha = (drag_slope - thrust_slope * drag / v) * v / (2 * from_zero_lift * weight);
    // On the back of the power curve a higher nose makes it sink: nothing can be told from height there.
    return path_per_alpha > 0.05 ? (1 + path_per_alpha) / path_per_alpha : 0.0;
  };
  // Thrust falls with speed: by all of its share at constant power, a little more as a fixed propeller unloads.
  const double usual = factor(polar.parasite_m2, -1);
  const std::array<double, 4> ends{factor(polar.parasite_least_m2, -0.7), factor(polar.parasite_least_m2, -1.8),
                                   factor(polar.parasite_most_m2, -0.7), factor(polar.parasite_most_m2, -1.8)};
  LevelChange change;
  if (usual == 0 || std::abs(path) > most_climb_deg * rad) {
    change.why = usual == 0
                     ? "At this speed it flies on the back of the power curve, where height does not tell of the "
                       "attitude: fly the check faster."
                     : "That is no trim error: a path steeper than " + number_text(most_climb_deg, 0) +
                           "° comes from throttle, not from level.";
    return change;
  }
  change.deg = -path / rad * usual;
  change.least = change.most = change.deg;
  for (const double f : ends) {
    if (f == 0) continue;
    change.least = std::min(change.least, -path / rad * f);
    change.most = std::max(change.most, -path / rad * f);
  }
  change.why = climb_m_s == 0
                   ? "It kept its height: level is right."
                   : std::string("With the throttle at cruise and the elevator's trim in the middle: it ") +
                         (climb_m_s > 0 ? "climbed" : "sank") + ", so the nose is held " +
                         (climb_m_s > 0 ? "too high" : "too low") + ". A path of " +
                         degrees_text(std::abs(path) / rad) + " at " + number_text(v, 1) +
                         " m/s and a fixed throttle is " + degrees_text(std::abs(change.deg)) + " of attitude (" +
                         degrees_text(std::min(std::abs(change.least), std::abs(change.most))) + " to " +
                         degrees_text(std::max(std::abs(change.least), std::abs(change.most))) + ").";
  return change;
}

std::optional<LevelChange> level_from_turn(const Airframe& a, double turn_deg_s) {
  const auto speed = cruise_speed(a);
  if (!speed) return std::nullopt;
  const auto bank = [&](double v) { return std::atan(v * turn_deg_s * rad / standard_gravity) / rad; };
  LevelChange change;
  if (const double held = std::abs(bank(speed->value)); held > most_bank_deg) {
    change.why = "Turning so fast is a bank of " + degrees_text(held) +
                 ", and no board lies so far askew: a trim that is "
                 "not in the middle, the motor's pull, or a correction that works the wrong way. Level stays as it is.";
    return change;
  }
  change.deg = -bank(speed->value);
  const double a1 = -bank(speed->least.value_or(speed->value)), a2 = -bank(speed->most.value_or(speed->value));
  change.least = std::min(a1, a2);
  change.most = std::max(a1, a2);
  change.why = turn_deg_s == 0
                   ? "It flew straight: level is right."
                   : std::string("It turned ") + (turn_deg_s > 0 ? "right" : "left") + ": level is held with the " +
                         (turn_deg_s > 0 ? "right" : "left") + " wing down by " + degrees_text(std::abs(change.deg)) +
                         ". First look whether rudder and ailerons stand in the middle: a crooked trim turns, too.";
  return change;
}

}  // namespace rigging
