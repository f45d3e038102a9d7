#pragma once

#include <functional>

#include "direction/evidence.h"

namespace rigging::direction {

/// One way an output and what hangs on it can be wrong by themselves, chosen so that undoing it leaves the output
/// right.
struct LocalFaults {
  bool reversed = false;
  unsigned mix_flipped = 0;      ///< bit per axis
  unsigned linkage_opposed = 0;  ///< bit per surface of the output
  int count = 0;
  unsigned negative = 0;  ///< bit per surface: its servo sign, as it is now, is negative
};

/// One explanation in the terms of the search.
struct Found {
  int transmitter = 0;
  int sensing = 0;
  std::array<std::int8_t, most_surfaces> socket{};  ///< per output: the socket in which its lead really sits
  std::array<const LocalFaults*, most_surfaces> local{};
  std::uint32_t dead = 0;  ///< bit per socket
  unsigned functions = 0;  ///< bit per axis that the controller works the wrong way round
};

/// Factored exact search. For a given state of transmitter and sensing the outputs are independent of each other but
/// for the exchange of leads, so that what is left is an assignment of leads to sockets with a cost per pair.
class Search {
 public:
  explicit Search(const Case& c);

  /// Fewest faults that account for the active observations, or `most_faults` + 1.
  int fewest(const ObservationSet& active) const;
  /// Calls back for every explanation with exactly `count` faults, which must be `fewest(active)`.
  void enumerate(const ObservationSet& active, int count, const std::function<void(const Found&)>& each) const;

  const std::vector<TransmitterState>& transmitters() const { return transmitters_; }
  const std::vector<SensingState>& sensings() const { return sensings_; }

 private:
  struct Tables;
  struct Pairs;
  /// The part of `enumerate` for one state of the transmitter and one set of functions, with so many faults `left`.
  void enumerate(const Tables& tables, std::size_t transmitter, std::size_t functions, int left, Found& found,
                 const std::function<void(const Found&)>& each) const;

  const Case& case_;
  std::vector<TransmitterState> transmitters_;
  std::vector<SensingState> sensings_;
  std::vector<SensingState> classes_;  ///< one of each routing class
  std::vector<unsigned> functions_;    ///< sets of axes that may be worked the wrong way round, the empty one first
  std::vector<std::vector<std::vector<LocalFaults>>> local_;  ///< per set of functions and output, fewest first
  std::vector<int> first_surface_;                            ///< per output, and one past the end
};

}  // namespace rigging::direction
