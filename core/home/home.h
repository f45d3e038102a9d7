#pragma once

#include <optional>
#include <string>
#include <vector>

#include "base/figure.h"
#include "base/station.h"
#include "feel/feel.h"
#include "home/way_home.h"
#include "power/power.h"

/// What happens when the link goes: what the aircraft can do, from where it comes home, and the failsafe as a story.
/// Estimates with bands; no statement about where one may fly.
namespace rigging {

/// A number that the way home counts with, in its expected, worse and better case.
struct Expectation {
  double expected = 0, worse = 0, better = 0;
  bool operator==(const Expectation&) const = default;
};

/// What this aircraft does on its way home.
struct HomePerformance {
  Expectation cruise_m_s, cruise_a, climb_m_s, climb_a, capacity_mah;
  double sink_m_s = 0, glide_ratio = 0, glide_m_s = 0;  ///< motor off, at best glide
  double bank_deg = 0;                                  ///< most that it uses
  double cruise_throttle = 0;                           ///< 0 to 1, that holds height at cruise: noted, else reckoned
  double reserve_mah = 0;
  int cells = 0;
  double full_cell_v = 4.2, empty_cell_v = 3.3, battery_ohm = 0;
  std::vector<Figure> figures;  ///< with where they come from
  bool operator==(const HomePerformance&) const = default;

  HomeAircraft aircraft(double Expectation::*which) const;
  /// Open voltage of the whole battery with this share of its charge, less what the current takes. Shape of the curve
  /// of lithium polymer cells from memory, ±0.05 V a cell; between the cell's own full and empty voltage.
  double volts_at(double share, double amps) const;
};

enum class StoryPart { flying, unnoticed, holding, gliding, climbing, returning, circling, landing, end };

/// One step from the last good frame to the ground.
struct StoryStep {
  StoryPart part = StoryPart::flying;
  double from_s = 0, to_s = 0;
  double from_m = 0, to_m = 0;  ///< distance from home
  double from_height_m = 0, to_height_m = 0;
  double used_mah = 0;  ///< until its end
  std::string title, what;
  bool good = true;  ///< false: here it goes wrong
  bool operator==(const StoryStep&) const = default;
};

/// How high something near the field stands into the way.
struct ObstacleLine {
  std::string name;
  double clearance_m = 0;  ///< of the return height over it
  bool operator==(const ObstacleLine&) const = default;
};

/// Round the compass: from where it comes home with the reserve kept, expected and at the ends of the band.
struct ReachBand {
  std::vector<HomeReach> expected, worse, better;
};

struct HomeReport {
  std::string missing;  ///< what has to be known first; the rest is empty then
  Station missing_at = Station::airframe;
  HomePerformance performance;
  bool can_act = false;              ///< the class does something by itself
  bool knows_place = false;          ///< a satellite receiver is fitted, and the class can use it
  std::vector<LossAction> choices;   ///< that can work with what is fitted
  HomeCase expected, worse, better;  ///< over home, with the planned wind and a full battery
  ReachBand reach;                   ///< with what an aged battery surely gives
  double return_height_m = 0;        ///< as planned, or the least that clears everything
  double circle_radius_m = 0;        ///< as planned, or the least that wind and bank allow
  double least_circle_m = 0;         ///< over the ground in the planned wind
  std::vector<ObstacleLine> obstacles;
  double least_height_m = 0;  ///< that clears them all
  /// From the worst place of the planned area; nothing without an area, or where it does not come home at all.
  std::optional<double> worst_bearing_deg;
  std::optional<Figure> turn_home_mah, turn_home_v;  ///< charge and voltage under load at which it has to turn home
  double surely_out_and_back_m = 0;                  ///< round the compass, in the worst corner of the bands
  std::vector<std::string> words;                    ///< verdicts, the gravest first

  /// It flies no faster than the planned wind.
  bool blown_away() const { return expected.wind.speed_m_s >= performance.cruise_m_s.expected; }
  bool clears() const { return return_height_m >= least_height_m; }
  bool circle_holds() const { return circle_radius_m + 0.5 >= least_circle_m; }
  /// From the edge of the area even an aged battery has enough.
  bool area_holds() const { return turn_home_mah && turn_home_mah->value <= performance.capacity_mah.worse; }
  /// A threshold that brings it home from there; to be asked where the area holds.
  bool in_time(double volts) const { return volts >= turn_home_v->value - 0.05; }
};

/// Of the flying aircraft and its power. A fraction of a millisecond.
HomeReport analyze_home(const Reports& reports, const FeelReport& feel);

/// With this charge left, in this wind (gusts on top of it in the worse case).
ReachBand reach_band(const HomeReport& report, double left_mah, const SteadyWind& wind);

/// How it stands in one wind, from whatever side it comes, in the worst corner of the bands with gusts on top.
struct RoseLine {
  double wind_m_s = 0;
  double out_and_back_m = 0;                         ///< with a full aged battery, against the wind
  std::optional<double> turn_home_mah, turn_home_v;  ///< from the edge of the area; nothing where it does not come home
  std::optional<double> least_circle_m;              ///< nothing where no circle can be held
};
/// From no wind in steps of a metre a second to the one that it can't fly against.
std::vector<RoseLine> wind_rose_of(const Rig& rig, const HomeReport& report);

/// What happens from the last good frame on, when the link goes at this place with this charge.
std::vector<StoryStep> loss_story(const Rig& rig, const Catalogue& catalogue, const HomeReport& report,
                                  const HomePlace& place, double left_mah);

inline constexpr double throttle_band = 0.1;  ///< of a reckoned cruise throttle, to either side (from memory)
inline constexpr double clears_by_m = 20;     ///< common practice
inline constexpr double gust_share = 0.3;     ///< that gusts add to the planned wind (common practice)

}  // namespace rigging
