#pragma once

#include <optional>

#include "base/described.h"
#include "base/unknown_members.h"

namespace rigging {

/// What the power station knows beyond the parts.
struct Power {
  std::optional<double> static_a;         ///< measured at full throttle, propeller on, model held
  std::optional<double> static_thrust_n;  ///< measured
  std::optional<double> cruise_a;         ///< drive current at cruise, from a flight record
  std::optional<double> cruise_throttle;  ///< open share of the throttle at cruise, from a hand-flown flight
  double ambient_c = 25;
  double reserve_share = 0.2;          ///< of the capacity, kept for the way home
  bool propeller_faces_flight = true;  ///< lettered side toward the direction of flight
  std::optional<double> clearance_m;   ///< least distance from the blade tips to anything
  UnknownMembers unknown_members;
  bool operator==(const Power&) const = default;
};

template <>
const Members& Described<Power>::members();

}  // namespace rigging
