#pragma once

#include "flight/flight.h"
#include "home/home.h"

namespace rigging {

/// What a flight with its link cut came to, beside what was reckoned for it.
struct FlownHome {
  bool home = false;
  double over_home_s = 0;       ///< after the link went; the first time within its circle
  double circle_reaches_m = 0;  ///< farthest from home in its last half minute, once it was there
  double used_mah = 0, lowest_m = 0;
  std::optional<double> reckoned_s,
      reckoned_mah;  ///< in closed form, waiting included; nothing where it can't come home
  std::string words;
};

/// Of a flight that was flown by this plan, to come home as the rig says.
FlownHome flown_home(const Flight& flight, const FlightPlan& plan, const Rig& rig, const ControllerClass& controller,
                     const HomeReport& report);

}  // namespace rigging
