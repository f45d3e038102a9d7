#pragma once

#include <array>

#include "base/words.h"

namespace rigging {

/// The stations of the work, in the order that works.
enum class Station { airframe, fit, power, wiring, sticks, surfaces, senses, feel, home, proof, logbook };

inline constexpr std::array<Station, 11> all_stations{
    Station::airframe, Station::fit,  Station::power, Station::wiring, Station::sticks, Station::surfaces,
    Station::senses,   Station::feel, Station::home,  Station::proof,  Station::logbook};

template <>
struct Words<Station> {
  using S = Station;
  static constexpr std::array<std::pair<S, std::string_view>, 11> list{{{S::airframe, "airframe"},
                                                                        {S::fit, "fit"},
                                                                        {S::power, "power"},
                                                                        {S::wiring, "wiring"},
                                                                        {S::sticks, "sticks"},
                                                                        {S::surfaces, "surfaces"},
                                                                        {S::senses, "senses"},
                                                                        {S::feel, "feel"},
                                                                        {S::home, "home"},
                                                                        {S::proof, "proof"},
                                                                        {S::logbook, "logbook"}}};
};

/// How a station stands, for the strip.
enum class StationState { unknown, snags, planned, proven, stale };

/// How much a snag matters: it keeps the aircraft on the ground, it must be put right before the flight, or it is worth
/// knowing.
enum class Severity { grounds, fix_first, worth_knowing };

template <>
struct Words<Severity> {
  static constexpr std::array<std::pair<Severity, std::string_view>, 3> list{
      {{Severity::grounds, "grounds"}, {Severity::fix_first, "fix_first"}, {Severity::worth_knowing, "worth_knowing"}}};
};

}  // namespace rigging
