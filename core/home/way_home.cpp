#include "home/way_home.h"

#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "base/number.h"
#include "earth/gravity.h"

namespace rigging {
namespace {

double around(double deg) {
  const double turned = std::fmod(deg, 360);
  return turned < 0 ? turned + 360 : turned;
}

std::string in_words(const HomeCase& c, const WayHome& w) {
  const auto n = [](double v, int places = 0) { return number_text(v, places); };
  std::string why;
  if (!w.arrives)
    why = "It does not arrive: the way takes " + n(w.used_mah) + " mAh and " + n(c.battery.left_mah) + " are left.";
  else if (!w.keeps_reserve)
    why = "It arrives with " + n(w.left_mah) + " mAh, less than the reserve of " + n(c.battery.reserve_mah) + ".";
  else
    why = "It arrives after " + n(w.way_s) + " s with " + n(w.left_mah) + " mAh.";
  if (w.climb_s > w.way_s)
    why += " The way ends before the climb: it comes in at " + n(c.place.height_m + c.aircraft.climb_m_s * w.way_s) +
           " m.";
  if (c.wind.speed_m_s >= c.aircraft.cruise_m_s)
    why += " The wind is as fast as it flies or faster: it can't hold a place or a circle at home.";
  else if (w.bank_needed_deg > c.aircraft.bank_deg)
    why += " The circle of " + n(c.back.circle_radius_m) + " m needs " + n(w.bank_needed_deg) +
           "° of bank in this wind, " + n(c.aircraft.bank_deg) + "° are allowed: it drifts out.";
  return why;
}

}  // namespace

HomePlace HomePlace::at(double north_m, double east_m, double height_m) {
  return {std::hypot(north_m, east_m), around(std::atan2(east_m, north_m) / rad), height_m};
}
double HomePlace::north_m() const { return distance_m * std::cos(bearing_deg * rad); }
double HomePlace::east_m() const { return distance_m * std::sin(bearing_deg * rad); }

std::optional<Track> track_on(double course_deg, double airspeed_m_s, const SteadyWind& wind) {
  const double from = (wind.from_deg - course_deg) * rad;
  const double across = wind.speed_m_s * std::sin(from);  // from the right
  if (std::abs(across) > airspeed_m_s) return std::nullopt;
  const double held = std::asin(across / airspeed_m_s);
  const double ground = airspeed_m_s * std::cos(held) - wind.speed_m_s * std::cos(from);
  if (ground <= 1e-9 * airspeed_m_s) return std::nullopt;
  return Track{around(course_deg + held / rad), -held / rad, ground};
}

double turn_radius_m(double m_s, double bank_deg) { return m_s * m_s / (standard_gravity * std::tan(bank_deg * rad)); }

double bank_for_deg(double m_s, double radius_m) { return std::atan(m_s * m_s / (standard_gravity * radius_m)) / rad; }

WayHome way_home(const HomeCase& c) {
  WayHome w;
  const HomeAircraft& a = c.aircraft;
  w.track = track_on(c.place.bearing_deg + 180, a.cruise_m_s, c.wind);
  if (!w.track) {
    w.why = "It can't hold the track home: the wind of " + number_text(c.wind.speed_m_s, 1) + " m/s from " +
            number_text(around(c.wind.from_deg), 0) + "° leaves nothing of " + number_text(a.cruise_m_s, 1) +
            " m/s. Only ground downwind can be reached.";
    return w;
  }
  w.climb_s = std::max(0.0, c.back.height_m - c.place.height_m) / a.climb_m_s;
  w.way_s = c.place.distance_m / w.track->ground_m_s;
  const double climbing = std::min(w.climb_s, w.way_s);
  w.used_mah = (climbing * a.climb_a + (w.way_s - climbing) * a.cruise_a) * mah_per_as;
  w.left_mah = c.battery.left_mah - w.used_mah;
  w.arrives = w.left_mah >= 0;
  w.keeps_reserve = w.left_mah >= c.battery.reserve_mah;
  w.least_radius_m = turn_radius_m(a.cruise_m_s, a.bank_deg);
  w.bank_needed_deg = bank_for_deg(a.cruise_m_s + c.wind.speed_m_s, c.back.circle_radius_m);
  w.why = in_words(c, w);
  return w;
}

std::vector<HomeReach> reach_of(const HomeCase& c, int count) {
  std::vector<HomeReach> all;
  const double spare_as = std::max(0.0, c.battery.left_mah - c.battery.reserve_mah) / mah_per_as;
  const double flies_s = spare_as / c.aircraft.cruise_a;
  for (int i = 0; i < count; ++i) {
    HomeReach r;
    r.bearing_deg = 360.0 * i / count;
    const auto out = track_on(r.bearing_deg, c.aircraft.cruise_m_s, c.wind),
               back = track_on(r.bearing_deg + 180, c.aircraft.cruise_m_s, c.wind);
    if (back) r.reach_m = flies_s * back->ground_m_s;
    if (out && back) r.out_and_back_m = flies_s / (1 / out->ground_m_s + 1 / back->ground_m_s);
    all.push_back(r);
  }
  return all;
}

}  // namespace rigging
