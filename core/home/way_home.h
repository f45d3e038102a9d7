#pragma once

#include <optional>
#include <string>
#include <vector>

#include "base/described.h"
#include "base/json_fwd.h"

/// The way home in closed form: steady wind, a straight track, constant currents. For a picture that follows the hand;
/// what the wind does with height and in gusts, turns and a sagging battery are not in it.
namespace rigging {

struct SteadyWind {
  double speed_m_s = 0;
  double from_deg = 0;  ///< where it comes from, from north clockwise
  bool operator==(const SteadyWind&) const = default;
};

/// The drift triangle on one course.
struct Track {
  double heading_deg = 0;  ///< 0 to 360
  double drift_deg = 0;    ///< course minus heading: positive when the wind carries it to the right
  double ground_m_s = 0;   ///< above 0
};

/// Nothing where the course can't be held: more wind across it than airspeed, or against it more than is left.
/// `airspeed_m_s` above 0, `course_deg` any.
std::optional<Track> track_on(double course_deg, double airspeed_m_s, const SteadyWind& wind);

inline constexpr double mah_per_as = 1 / 3.6;  ///< an ampere for a second

/// Where the aircraft is, seen from home.
struct HomePlace {
  double distance_m = 0, bearing_deg = 0, height_m = 0;
  bool operator==(const HomePlace&) const = default;

  static HomePlace at(double north_m, double east_m, double height_m);
  double north_m() const;
  double east_m() const;
};
struct HomeAircraft {
  double cruise_m_s = 0, cruise_a = 0;
  double climb_m_s = 0, climb_a = 0;  ///< upward, at the same airspeed along the track
  double bank_deg = 0;                ///< most that it uses
  bool operator==(const HomeAircraft&) const = default;
};
struct HomeReturn {
  double height_m = 0, circle_radius_m = 0;
  bool operator==(const HomeReturn&) const = default;
};
struct HomeBattery {
  double left_mah = 0, reserve_mah = 0;
  bool operator==(const HomeBattery&) const = default;
};
struct HomeCase {
  HomePlace place;
  SteadyWind wind;
  HomeAircraft aircraft;
  HomeReturn back;
  HomeBattery battery;
  bool operator==(const HomeCase&) const = default;
};
template <>
const Members& Described<SteadyWind>::members();
template <>
const Members& Described<HomePlace>::members();
template <>
const Members& Described<HomeAircraft>::members();
template <>
const Members& Described<HomeReturn>::members();
template <>
const Members& Described<HomeBattery>::members();
template <>
const Members& Described<HomeCase>::members();

/// As written in docs/command-line.md. Errors: what is missing, unknown or out of range.
Result<HomeCase> home_case_from_json(const Json& json, const std::string& file);
/// The same for `reach_of`, which needs neither a place nor the way of returning.
Result<HomeCase> reach_case_from_json(Json json, const std::string& file);

/// Turn in still air, m: V² / (g·tan bank) (FAA-H-8083-25). Speed in m/s, bank above 0 and under 90 degrees.
double turn_radius_m(double m_s, double bank_deg);
/// Bank for such a turn, degrees.
double bank_for_deg(double m_s, double radius_m);

struct WayHome {
  bool arrives = false;  ///< the track can be held and the charge lasts
  bool keeps_reserve = false;
  std::optional<Track> track;  ///< the rest counts only with it
  double climb_s = 0;          ///< that the climb takes, also where the way ends before it does
  double way_s = 0;
  double used_mah = 0, left_mah = 0;  ///< left: negative where it does not arrive
  double least_radius_m = 0;          ///< in still air
  double bank_needed_deg = 0;         ///< for the circle over the ground where the wind pushes most
  std::string why;
};

/// From the place straight home. It climbs on the way until the return height is reached; from above it nothing is
/// gained by sinking. Where the way ends first it arrives below that height, and only the climb up to there is counted.
WayHome way_home(const HomeCase& c);

struct HomeReach {
  double bearing_deg = 0;
  double reach_m = 0;         ///< farthest from where it comes home at return height with the reserve kept
  double out_and_back_m = 0;  ///< farthest that it can go and come back so
};

inline constexpr int usual_bearings = 72;
/// Round the compass from north on; 0 where the track can't be held or only the reserve is left. `count` at least 1;
/// some 10 µs for 72.
std::vector<HomeReach> reach_of(const HomeCase& c, int count = usual_bearings);

}  // namespace rigging
