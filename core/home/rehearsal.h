#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "base/job.h"
#include "home/home.h"

/// The way home flown: the state machine of a board that comes home, an aircraft that banks no further than it may,
/// wind that grows with height and gusts, a battery that sags. A point with a heading, not six degrees of freedom: it
/// says what the plan is worth, not how the aircraft shakes. Always a simulation.
namespace rigging {

/// What one rehearsal begins with, and what of the true aircraft is not as expected.
struct RehearsalCase {
  HomePlace place;
  double heading_deg = 0;  ///< flown when the link goes
  double left_mah = 0;
  SteadyWind wind;           ///< ten metres up
  double wind_exponent = 0;  ///< it grows with (height / 10 m) to this power; 0.14 over open ground (common practice)
  double gusts = 0;          ///< their deviation over the wind
  std::uint32_t seed = 1;
  double cruise_factor = 1, current_factor = 1, climb_factor = 1;  ///< true over expected
};

enum class RehearsalEnd { home, battery_empty, blown_away, hit };

struct Rehearsal {
  RehearsalEnd end = RehearsalEnd::home;
  std::string words;
  double way_s = 0;               ///< from the lost link until it is over the circle at home
  double used_mah = 0;            ///< until then
  double left_mah = 0;            ///< then
  double circle_reaches_m = 0;    ///< farthest from home during the minute of circling that follows
  double ends_m = 0;              ///< from home, where it ended otherwise
  std::vector<HomePlace> places;  ///< one a second
};

/// Follows it until it has circled at home for a minute, or does not come home. Errors: what the report misses, no plan
/// to come home. Some 0.3 ms for a way of a minute.
Result<Rehearsal> rehearse(const Rig& rig, const Catalogue& catalogue, const HomeReport& report,
                           const RehearsalCase& c);

/// Many of them: places all over the area, wind and aircraft out of their bands, charge between what turns it home and
/// a full battery.
struct RehearsalTable {
  int flown = 0, home = 0, kept_reserve = 0;
  struct Line {
    RehearsalEnd end;
    int count = 0;
    RehearsalCase first;  ///< the first one that ended so
    std::string words;
  };
  std::vector<Line> failed;  ///< what fails most first
};
/// The same seed draws the same. Errors as of `rehearse`. Nothing more is flown once it is cancelled.
Result<RehearsalTable> rehearse_many(const Rig& rig, const Catalogue& catalogue, const HomeReport& report, int count,
                                     std::uint32_t seed, Progress& progress);

template <>
struct Names<RehearsalEnd> {
  using E = RehearsalEnd;
  static constexpr std::array<std::pair<E, std::string_view>, 4> list{
      {{E::home, "home"}, {E::battery_empty, "battery_empty"}, {E::blown_away, "blown_away"}, {E::hit, "hit"}}};
};

}  // namespace rigging
