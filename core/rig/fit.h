#pragma once

#include <optional>
#include <string>
#include <vector>

#include "base/axis.h"
#include "base/described.h"
#include "base/unknown_members.h"

namespace rigging {

/// The room for the controller and what goes with it.
struct Bay {
  double at_m = 0.2;  ///< from the nose to its front
  double length_m = 0.2, width_m = 0.08, height_m = 0.06;
  double below_m = 0, right_m = 0;  ///< its middle, from the fuselage's middle line
  UnknownMembers unknown_members;
  bool operator==(const Bay&) const = default;
};

/// A swing test: the model on two upright strings, turning to and fro about one of its axes.
struct Swing {
  Axis axis = Axis::roll;
  double mass_kg = 0;   ///< that it had
  double apart_m = 0;   ///< one string from the other
  double length_m = 0;  ///< of a string
  double period_s = 0;  ///< of one swing to and fro
  UnknownMembers unknown_members;
  bool operator==(const Swing&) const = default;
};

/// What the fit station knows beyond the places.
struct Fit {
  std::optional<double> frame_mass_kg;                ///< airframe without the listed parts
  std::optional<double> frame_at_m;                   ///< its balance point behind the nose
  double frame_side_m = 0;                            ///< right of the middle
  std::optional<Bay> bay, second_bay;                 ///< the second behind it, or under the wing
  double static_margin = 0.10;                        ///< wanted, as a share of the mean chord
  double first_flight_forward = 0.02;                 ///< further forward for the first flight, same share
  std::optional<double> latitude_deg, longitude_deg;  ///< where it flies: for the compass
  double altitude_km = 0;
  std::vector<Swing> swings;           ///< one of an axis at most
  std::string date;                    ///< year-month-day or decimal year, for the magnetic model
  std::vector<std::string> confirmed;  ///< things only the builder can see, in the words of the fit station
  UnknownMembers unknown_members;
  bool operator==(const Fit&) const = default;
};

template <>
const Members& Described<Bay>::members();
template <>
const Members& Described<Swing>::members();
template <>
const Members& Described<Fit>::members();

}  // namespace rigging
