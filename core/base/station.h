#pragma once

#include <array>
#include <vector>

#include "base/words.h"

namespace rigging {

/// The stations of the work, in the order that works.
enum class Station { airframe, fit, power, wiring, sticks, surfaces, senses, feel, home, proof, logbook };

/// Open until the program has started: another station is a number of its own and a name behind the others.
template <>
struct Names<Station> {
  using S = Station;
  static inline std::vector<std::pair<S, std::string_view>> list{
      {S::airframe, "airframe"}, {S::fit, "fit"},           {S::power, "power"},    {S::wiring, "wiring"},
      {S::sticks, "sticks"},     {S::surfaces, "surfaces"}, {S::senses, "senses"},  {S::feel, "feel"},
      {S::home, "home"},         {S::proof, "proof"},       {S::logbook, "logbook"}};
};

inline std::size_t station_count() { return Names<Station>::list.size(); }

inline std::vector<Station> all_stations() {
  std::vector<Station> all;
  for (const auto& [station, name] : Names<Station>::list) all.push_back(station);
  return all;
}

/// How a station stands, for the strip.
enum class StationState { unknown, snags, planned, proven, stale };

/// How much a snag matters: it keeps the aircraft on the ground, it must be put right before the flight, or it is worth
/// knowing.
enum class Severity { grounds, fix_first, worth_knowing };

template <>
struct Names<Severity> {
  static constexpr std::array<std::pair<Severity, std::string_view>, 3> list{
      {{Severity::grounds, "grounds"}, {Severity::fix_first, "fix_first"}, {Severity::worth_knowing, "worth_knowing"}}};
};

}  // namespace rigging
