#pragma once

#include <array>
#include <bitset>
#include <cstdint>
#include <vector>

#include "direction/case.h"

namespace rigging::direction {

/// How many surfaces, and how many outputs, a case can have at most: as many as there are surface words.
inline constexpr int most_surfaces = 23;
inline constexpr int most_observations = 256;
using ObservationSet = std::bitset<most_observations>;

/// Motions seen for one surface under one kind of observation: bit 0 with the sense, bit 1 against it, bit 2 still.
/// More than one bit contradicts itself.
using SeenBits = std::uint8_t;
inline constexpr SeenBits still_bit = 4;

constexpr SeenBits bit_of(int motion) { return motion > 0 ? 1 : motion < 0 ? 2 : still_bit; }
constexpr bool fits(SeenBits seen, int motion) { return (seen & ~bit_of(motion)) == 0; }

/// A stick or rotation that arrives on one axis with a sign.
struct Arrival {
  std::uint8_t axis = 0;
  std::int8_t sign = 1;
  bool operator==(const Arrival&) const = default;
};
using Routing = std::array<Arrival, 3>;

/// One way the transmitter can be set: which sticks are exchanged and which channels reversed.
struct TransmitterState {
  /// Index of the axis that is not exchanged, or −1 when nothing is.
  int kept = -1;
  unsigned reversed = 0;
  int faults = 0;
  Routing routing{};
};

/// One way the board can sit and sense.
struct SensingState {
  Turn turn{};
  unsigned gyro_reversed = 0;
  int faults = 0;
  /// From the model's rotation to what is sensed.
  Routing routing{};
  /// States with the same routing share a class; no observation can tell them apart. Where levelling follows gravity
  /// that holds only for those that find it.
  int routing_class = 0;
};

std::vector<TransmitterState> transmitter_states(Abilities can);
std::vector<SensingState> sensing_states(const Case& c);

/// The observations of a case, boiled down so that their number no longer matters to the search.
class Evidence {
 public:
  Evidence(const Case& c, const ObservationSet& active);

  int outputs() const { return outputs_; }
  int surfaces() const { return static_cast<int>(home_.size()); }
  /// The output that the surface should hang on.
  int home(int surface) const { return home_[static_cast<std::size_t>(surface)]; }

  bool channels_fit(const TransmitterState& t) const;
  /// True if the surface never moved, so that a dead output accounts for it.
  bool never_moved(int surface) const { return never_moved_[static_cast<std::size_t>(surface)]; }
  /// True if its lead was followed to where it should go.
  bool lead_planned(int output) const { return leads_planned_ >> output & 1; }
  /// True if its horn was looked at and stands on the planned side.
  bool horn_planned(int surface) const { return horns_planned_ >> surface & 1; }
  bool board_planned() const { return board_planned_; }
  /// True if the surface moved although nothing commanded it: no fault accounts for that.
  bool impossible() const { return impossible_; }

  /// Which servo signs (bit 0 positive, bit 1 negative) fit all sticks if the surface hangs on `socket`.
  std::uint8_t stick_signs(int surface, int socket, const Routing& transmitter) const;
  std::uint8_t tilt_signs(int surface, int socket, const SensingState& sensing) const;
  std::uint8_t drive_signs(int surface, int socket) const;

 private:
  int pulse_sign(int socket, int axis) const {
    return pulse_[static_cast<std::size_t>(socket)][static_cast<std::size_t>(axis)];
  }

  int outputs_;
  std::vector<int> home_;
  std::vector<std::array<int, 3>> pulse_;
  std::vector<std::array<SeenBits, 3>> stick_, rate_, level_;
  /// Per surface, axis and sense (0 negative): what was seen in level, up or right positive.
  std::vector<std::array<std::array<SeenBits, 2>, 3>> level_seen_;
  bool levels_by_gravity_;
  std::vector<std::vector<SeenBits>> drive_;
  std::array<std::array<SeenBits, 3>, 3> channels_{};
  std::vector<bool> never_moved_;
  bool impossible_ = false, board_planned_ = false;
  std::uint32_t leads_planned_ = 0, horns_planned_ = 0;
};

/// The sign that one output's pulse takes for a positive command on the axis, as configured: −1, 0, +1.
int pulse_sign(const CaseOutput& output, Axis axis);

}  // namespace rigging::direction
