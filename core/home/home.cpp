#include "home/home.h"

#include <algorithm>
#include <cmath>

#include "airframe/drag.h"
#include "base/angle.h"
#include "base/number.h"
#include "base/units.h"
#include "earth/gravity.h"
#include "flight/dynamics.h"
#include "flight/engine.h"
#include "rig/parts.h"

namespace rigging {
namespace {

constexpr double climb_share = 0.8;        ///< of the full thrust, on the way up (common practice)
constexpr double steepest_climb_deg = 15;  ///< common practice
constexpr double usual_bank_deg = 35;      ///< most of a return (common practice)
constexpr double capacity_worse = 0.85;    ///< of the label: age and cold (common practice)
constexpr double propeller_drag = 1.2;     ///< of the whole, motor off (from memory)
constexpr double most_share = 0.95;        ///< of the cruise speed that a circle's wind may have

std::string n(double v, int places = 0) { return number_text(v, places); }

Expectation banded(const Figure& f, bool more_is_worse) {
  Expectation b{f.value, f.value, f.value};
  const double least = f.least.value_or(f.value), most = f.most.value_or(f.value);
  b.worse = more_is_worse ? most : least, b.better = more_is_worse ? least : most;
  return b;
}

const BatteryFigures* battery_of(const Rig& rig, const Catalogue& catalogue, const PowerReport& power) {
  const PartKind* kind = kind_of(rig, catalogue, power.battery);
  return kind && kind->battery ? &*kind->battery : nullptr;
}

/// Current of everything together while it cruises, of which the drive is a part.
double cruise_total(const PowerReport& power) {
  double amps = 0;
  for (std::size_t q = 0; q < power.network.rails.size(); ++q) {
    const RailState& s = power.load_cases[static_cast<std::size_t>(LoadCase::typical)].rails[q];
    if (s.source >= 0 && power.network.rails[q].sources[static_cast<std::size_t>(s.source)].part == power.battery)
      amps += s.amps;
  }
  return amps;
}

/// Current of all motors for a thrust at an airspeed; nothing when they can't.
std::optional<double> thrust_amps(const Rig& rig, const Catalogue& catalogue, const Drive& drive, double volts,
                                  double thrust_n, double m_s) {
  double amps = 0;
  for (const Motor& m : drive.motors) {
    const PartKind *motor = kind_of(rig, catalogue, m.motor), *propeller = kind_of(rig, catalogue, m.propeller);
    if (!motor || !motor->motor || !propeller || !propeller->propeller) return std::nullopt;
    const auto one = amps_in_flight(*motor->motor, *propeller->propeller, volts,
                                    thrust_n / static_cast<double>(drive.motors.size()), m_s);
    if (!one) return std::nullopt;
    amps += *one;
  }
  return amps;
}

struct Climb {
  double m_s = 0, amps = 0;
};

/// At cruise speed: as steep as the thrust allows, not steeper than is usual.
std::optional<Climb> climb_of(const Rig& rig, const Catalogue& catalogue, const Aeroplane& a, const PowerReport& power,
                              const BatteryFigures& battery) {
  const double v = a.cruise_m_s, weight = a.mass_kg * standard_gravity;
  const Drag drag = drag_of(rig.airframe, v);
  const double resisting = drag.at(v, a.mass_kg, drag.parasite_m2), volts = battery.cells * battery.nominal_cell_v;
  double least = 0, most = std::sin(steepest_climb_deg * rad);
  const auto amps_for = [&](double sine) {
    return thrust_amps(rig, catalogue, *power.drive, volts, resisting + weight * sine, v);
  };
  const double allowed = climb_share * power.drive->full_current.value;
  const auto good = [&](double sine) {
    const auto amps = amps_for(sine);
    return amps && *amps <= allowed;
  };
  if (!good(0.01)) return std::nullopt;
  if (good(most)) least = most;
  for (int i = 0; i < 30 && least < most; ++i) {
    const double middle = (least + most) / 2;
    (good(middle) ? least : most) = middle;
  }
  return Climb{v * least, *amps_for(least)};
}

/// Best glide: where parasite and induced drag are alike (FAA-H-8083-25; the parabolic polar).
void glide(const Rig& rig, const Aeroplane& a, HomePerformance& p) {
  const Drag drag = drag_of(rig.airframe, a.cruise_m_s);
  const double weight = a.mass_kg * standard_gravity, parasite = propeller_drag * drag.parasite_m2;
  const double q = weight * std::sqrt(drag.induced_per_m2 / parasite);
  p.glide_m_s = std::max(1.2 * a.stall_m_s, std::sqrt(2 * q / air_density_kg_m3));
  p.glide_ratio = weight / drag.at(p.glide_m_s, a.mass_kg, parasite);
  p.sink_m_s = p.glide_m_s / p.glide_ratio;
}

Figure figure(const char* name, const Expectation& b, const char* unit, const std::string& formula,
              const char* source) {
  Figure f{name, b.expected, unit, {}, {}, formula, source};
  if (b.worse != b.better) f.least = std::min(b.worse, b.better), f.most = std::max(b.worse, b.better);
  return f;
}

Figure throttle_figure(double throttle, bool noted) {
  Figure f{"Throttle at cruise",
           100 * throttle,
           "%",
           {},
           {},
           "thrust that equals the drag",
           "thrust falls with the square of the airspeed; band from memory"};
  if (noted) {
    f.formula = "as noted in level flight";
    f.source = "flown by hand (station power)";
  } else {
    f.least = 100 * std::max(0.0, throttle - throttle_band), f.most = 100 * std::min(1.0, throttle + throttle_band);
  }
  return f;
}

/// Numbers of the aircraft; what is missing in words, with the station where it is given.
std::pair<std::string, Station> performance(const Reports& reports, const FeelReport& feel, HomePerformance& p) {
  const Rig& rig = reports.rig();
  const Catalogue& catalogue = reports.catalogue();
  const PowerReport& power = reports.power();
  if (!feel.missing.empty()) return {feel.missing, Station::airframe};
  const BatteryFigures* battery = battery_of(rig, catalogue, power);
  if (!battery) return {"There is no battery: how far it flies is not known. Needed: a battery.", Station::fit};
  const bool fed = power.drive && std::any_of(power.drive->motors.begin(), power.drive->motors.end(),
                                              [](const Motor& m) { return !m.battery.empty(); });
  if (!fed && !parts_of(rig, catalogue, PartGroup::motor).empty() &&
      !parts_of(rig, catalogue, PartGroup::propeller).empty())
    return {"The motor hangs on no battery yet: what cruising takes is not known. Plan the wiring first.",
            Station::wiring};
  if (!power.drive || power.drive->cruise_current.value <= 0)
    return {
        "There is no motor with a propeller: what cruising takes is not known. Needed: motor, propeller and flying "
        "mass.",
        Station::fit};
  const Aeroplane& a = feel.aeroplane;
  const AirframeReport& airframe = reports.airframe();
  p.cruise_m_s = airframe.cruise_speed ? banded(*airframe.cruise_speed, false)
                                       : Expectation{a.cruise_m_s, a.cruise_m_s, a.cruise_m_s};
  const Figure& drive = power.drive->cruise_current;
  const double rest = std::max(0.0, cruise_total(power) - drive.value);
  p.cruise_a = banded(drive, true);
  for (double* amps : {&p.cruise_a.expected, &p.cruise_a.worse, &p.cruise_a.better}) *amps += rest;
  const auto climb = climb_of(rig, catalogue, a, power, *battery);
  if (!climb)
    return {"The motor can't hold it in level flight at cruise speed: look at station power.", Station::power};
  p.climb_m_s = {climb->m_s, 0.7 * climb->m_s, 1.2 * climb->m_s};
  p.climb_a = {climb->amps + rest, 1.2 * climb->amps + rest, 0.9 * climb->amps + rest};
  const double label = 1000 * battery->capacity_ah;
  p.capacity_mah = {label, capacity_worse * label, label};
  p.reserve_mah = rig.power.reserve_share * label;
  p.cells = battery->cells, p.full_cell_v = battery->full_cell_v, p.empty_cell_v = battery->empty_cell_v;
  p.battery_ohm = battery->cells * battery->cell_milliohm / 1000;
  p.bank_deg = std::min(usual_bank_deg, rig.feel.bank_limit_deg.value_or(usual_limit_deg));
  glide(rig, a, p);
  const std::optional<double>& noted = rig.power.cruise_throttle;
  p.cruise_throttle =
      noted ? *noted : FlightModel(a, drag_of(rig.airframe, a.cruise_m_s), engine_of(reports, a)).cruise_throttle();
  p.figures = {
      figure("Cruise speed", p.cruise_m_s, "m/s", "as flown, or 1.6 times the stall speed",
             "station airframe; common practice"),
      figure("Current at cruise", p.cruise_a, "A", "drive " + n(drive.value, 1) + " A + the rest " + n(rest, 1) + " A",
             power.drive->measured || rig.power.cruise_a ? "measured in flight"
                                                         : "drag of the airframe, propeller and motor (station power)"),
      figure("Climbs at", p.climb_m_s, "m/s",
             "at cruise speed, up to " + n(100 * climb_share) + " % of the full current and " + n(steepest_climb_deg) +
                 "°",
             "thrust less drag over weight; band from memory"),
      figure("Current in the climb", p.climb_a, "A", "motor equation and propeller coefficients",
             "station power; band from memory"),
      figure("Charge", p.capacity_mah, "mAh", "label, and " + n(100 * capacity_worse) + " % of it for age and cold",
             "common practice"),
      {"Reserve",
       p.reserve_mah,
       "mAh",
       {},
       {},
       n(100 * rig.power.reserve_share) + " % of the label",
       "as planned at station power"},
      {"Best glide",
       p.glide_ratio,
       "",
       {},
       {},
       "at " + n(p.glide_m_s, 1) + " m/s, propeller standing",
       "parabolic polar (airframe/drag.h)"},
      {"Sinks with the motor off", p.sink_m_s, "m/s", {}, {}, "speed over glide ratio", "FAA-H-8083-25"},
      throttle_figure(p.cruise_throttle, noted.has_value()),
      {"Bank on the way",
       p.bank_deg,
       "°",
       {},
       {},
       "the limit of station feel, not above " + n(usual_bank_deg) + "°",
       "common practice"}};
  return {};
}

HomeCase case_of(const Rig& rig, const HomeReport& r, double Expectation::*which, double wind) {
  HomeCase c;
  c.aircraft = r.performance.aircraft(which);
  c.wind = {wind, rig.home.wind_from_deg};
  c.back = {r.return_height_m, r.circle_radius_m};
  c.battery = {r.performance.capacity_mah.*which, r.performance.reserve_mah};
  c.place.height_m = r.return_height_m;
  return c;
}

/// The least circle that bank and wind allow over the ground: the bank is greatest where it flies with the wind.
double least_circle(const HomePerformance& p, double wind_m_s) {
  return turn_radius_m(p.cruise_m_s.expected + wind_m_s, p.bank_deg);
}

void judge_obstacles(const Rig& rig, HomeReport& r) {
  const double area = rig.home.area_m.value_or(1e9);
  for (const FieldObstacle& o : rig.home.obstacles) {
    if (o.distance_m <= area) r.least_height_m = std::max(r.least_height_m, o.height_m + clears_by_m);
    r.obstacles.push_back({o.name, 0});
  }
}

/// From the planned area's edge: the bearing that asks most, and the charge and voltage that it takes.
void judge_area(const Rig& rig, HomeReport& r) {
  if (!rig.home.area_m) return;
  double most = -1;
  bool all_held = true;
  for (const HomeReach& at : r.reach.worse) {
    HomeCase c = r.worse;
    c.place = {*rig.home.area_m, at.bearing_deg, 0.5 * r.return_height_m};
    const WayHome w = way_home(c);
    all_held = all_held && w.track;
    const double used = w.track ? w.used_mah : 1e12;
    if (used > most) most = used, r.worst_bearing_deg = at.bearing_deg;
  }
  if (!all_held || !r.worst_bearing_deg) return;
  const auto needed = [&](const HomeCase& base) {
    HomeCase c = base;
    c.place = {*rig.home.area_m, *r.worst_bearing_deg, 0.5 * r.return_height_m};
    return way_home(c).used_mah + r.performance.reserve_mah;
  };
  const double expected = needed(r.expected), worse = needed(r.worse), better = needed(r.better);
  r.turn_home_mah = Figure{
      "Turn home with",
      worse,
      "mAh",
      better,
      worse,
      "way from " + field_text(*rig.home.area_m) + " against the wind, from half the return height, and the reserve",
      "closed form, the worst corner of the bands; expected " + n(expected) + " mAh"};
  const HomePerformance& p = r.performance;
  const auto volts = [&](double mah, double capacity) { return p.volts_at(mah / capacity, p.cruise_a.expected); };
  r.turn_home_v = Figure{"Turn home at",
                         volts(worse, p.capacity_mah.worse),
                         "V",
                         volts(better, p.capacity_mah.better),
                         volts(worse, p.capacity_mah.worse),
                         n(worse) + " of " + n(p.capacity_mah.worse) + " mAh, at " + n(p.cruise_a.expected, 1) +
                             " A through " + n(1000 * p.battery_ohm) + " mΩ",
                         "discharge curve of lithium polymer cells, from memory, ±0.05 V a cell"};
}

void say(const Rig& rig, HomeReport& r) {
  const HomePerformance& p = r.performance;
  const double wind = rig.home.wind_m_s, gusty = wind * (1 + gust_share);
  auto& w = r.words;
  if (r.blown_away())
    w.push_back("The wind of " + speed_text(wind) +
                " is as fast as it flies: it can't come home against it, nor hold a place. Only ground downwind can be "
                "reached.");
  else if (gusty >= p.cruise_m_s.worse)
    w.push_back("Gusts may be as fast as it flies (" + speed_text(gusty) + "): against them it stands still.");
  if (rig.home.area_m && !r.blown_away()) {
    if (r.surely_out_and_back_m < *rig.home.area_m)
      w.push_back("Out to " + field_text(*rig.home.area_m) + " and back is more than a full battery surely gives: " +
                  field_text(r.surely_out_and_back_m) + " with the reserve kept.");
    if (r.turn_home_mah && !r.area_holds())
      w.push_back("From the edge of the area the way home takes more than there is.");
    else if (r.turn_home_v) {
      const std::string at = n(r.turn_home_v->value, 1) + " V under load";
      if (!rig.home.turn_home_v)
        w.push_back("It has to turn home at " + at + " (" + n(r.turn_home_mah->value) + " mAh left) at the latest.");
      else if (!r.in_time(*rig.home.turn_home_v))
        w.push_back("The threshold of " + n(*rig.home.turn_home_v, 1) +
                    " V is too low: from the edge of the area it has to turn home at " + at + ".");
      else
        w.push_back("The threshold of " + n(*rig.home.turn_home_v, 1) +
                    " V brings it home from anywhere in the area (" + at + " would do): holds.");
    }
  } else if (!rig.home.area_m) {
    w.push_back("How far it is meant to fly is not told: then the threshold for turning home can be worked out.");
  }
  if (r.least_height_m > 0)
    w.push_back(r.clears() ? "The return height of " + field_text(r.return_height_m) + " clears everything by " +
                                 field_text(clears_by_m) + " or more: holds."
                           : "The return height of " + field_text(r.return_height_m) +
                                 " is too low: " + field_text(r.least_height_m) + " clears everything by " +
                                 field_text(clears_by_m) + ".");
  if (wind < most_share * p.cruise_m_s.expected)
    w.push_back(r.circle_holds()
                    ? "A circle of " + field_text(r.circle_radius_m) + " can be held with " + n(p.bank_deg) +
                          "° of bank in this wind: holds."
                    : "A circle of " + field_text(r.circle_radius_m) + " asks for more than " + n(p.bank_deg) +
                          "° of bank in this wind: it drifts out. " + field_text(r.least_circle_m) + " is the least.");
}

}  // namespace

HomeAircraft HomePerformance::aircraft(double Expectation::*which) const {
  return {cruise_m_s.*which, cruise_a.*which, climb_m_s.*which, climb_a.*which, bank_deg};
}

double HomePerformance::volts_at(double share, double amps) const {
  // Share of the charge against share of the way from empty to full.
  constexpr std::pair<double, double> curve[]{{0, 0},      {0.05, 0.28}, {0.1, 0.38}, {0.2, 0.44},
                                              {0.3, 0.48}, {0.4, 0.51},  {0.5, 0.56}, {0.6, 0.62},
                                              {0.7, 0.7},  {0.8, 0.79},  {0.9, 0.89}, {1, 1}};
  share = std::clamp(share, 0.0, 1.0);
  double open = 1;
  for (std::size_t i = 1; i < std::size(curve); ++i) {
    if (share > curve[i].first) continue;
    const auto [x0, y0] = curve[i - 1];
    const auto [x1, y1] = curve[i];
    open = y0 + (y1 - y0) * (share - x0) / (x1 - x0);
    break;
  }
  return cells * (empty_cell_v + (full_cell_v - empty_cell_v) * open) - amps * battery_ohm;
}

ReachBand reach_band(const HomeReport& r, double left_mah, const SteadyWind& wind) {
  const auto with = [&](HomeCase c, double gusts) {
    c.wind = {wind.speed_m_s * gusts, wind.from_deg};
    c.battery.left_mah = left_mah;
    return reach_of(c);
  };
  return {with(r.expected, 1), with(r.worse, 1 + gust_share), with(r.better, 1 - gust_share)};
}

HomeReport analyze_home(const Reports& reports, const FeelReport& feel) {
  const Rig& rig = reports.rig();
  const Catalogue& catalogue = reports.catalogue();
  HomeReport r;
  const ControllerClass* c = reports.controller();
  if (!c) {
    r.missing = "Choose a controller at station airframe first: what happens by itself depends on it.";
    return r;
  }
  r.can_act = !c->home.on_loss.empty();
  r.knows_place = r.can_act && !parts_of(rig, catalogue, PartGroup::satellite_receiver).empty();
  for (const LossAction action : c->home.on_loss)
    if (action == LossAction::glide || r.knows_place) r.choices.push_back(action);
  std::tie(r.missing, r.missing_at) = performance(reports, feel, r.performance);
  if (!r.missing.empty()) return r;
  const HomePerformance& p = r.performance;
  const double wind = rig.home.wind_m_s;
  judge_obstacles(rig, r);
  r.return_height_m = rig.home.return_height_m.value_or(std::max(50.0, r.least_height_m));
  for (std::size_t i = 0; i < r.obstacles.size(); ++i)
    r.obstacles[i].clearance_m = r.return_height_m - rig.home.obstacles[i].height_m;
  r.least_circle_m = least_circle(p, wind);
  r.circle_radius_m = rig.home.circle_radius_m.value_or(std::ceil(r.least_circle_m / 5) * 5);
  r.expected = case_of(rig, r, &Expectation::expected, wind);
  r.worse = case_of(rig, r, &Expectation::worse, wind * (1 + gust_share));
  r.better = case_of(rig, r, &Expectation::better, wind * (1 - gust_share));
  r.reach = reach_band(r, r.performance.capacity_mah.worse, r.expected.wind);
  r.surely_out_and_back_m = 1e12;
  for (const HomeReach& at : r.reach.worse)
    r.surely_out_and_back_m = std::min(r.surely_out_and_back_m, at.out_and_back_m);
  judge_area(rig, r);
  say(rig, r);
  return r;
}

std::vector<RoseLine> wind_rose_of(const Rig& rig, const HomeReport& r) {
  std::vector<RoseLine> all;
  if (!r.missing.empty()) return all;
  const HomePerformance& p = r.performance;
  for (double wind = 0; wind < p.cruise_m_s.expected && wind <= 40; wind += 1) {
    RoseLine line;
    line.wind_m_s = wind;
    HomeCase c = r.worse;
    // Against it all the way: that no other side asks for more the bearings show.
    c.wind = {wind * (1 + gust_share), 0};
    const auto reach = reach_of(c);
    line.out_and_back_m = std::min_element(reach.begin(), reach.end(), [](const HomeReach& a, const HomeReach& b) {
                            return a.out_and_back_m < b.out_and_back_m;
                          })->out_and_back_m;
    if (wind < most_share * p.cruise_m_s.expected) line.least_circle_m = least_circle(p, wind);
    if (rig.home.area_m) {
      double most = 0;
      bool held = true;
      for (const HomeReach& at : reach) {
        c.place = {*rig.home.area_m, at.bearing_deg, 0.5 * r.return_height_m};
        const WayHome w = way_home(c);
        held = held && w.track;
        if (w.track) most = std::max(most, w.used_mah + p.reserve_mah);
      }
      if (held && most <= p.capacity_mah.worse) {
        line.turn_home_mah = most;
        line.turn_home_v = p.volts_at(most / p.capacity_mah.worse, p.cruise_a.expected);
      }
    }
    all.push_back(line);
  }
  return all;
}

}  // namespace rigging
