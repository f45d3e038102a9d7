#pragma once

#include "catalogue/catalogue.h"
#include "rig/rig.h"
#include "signal/signal.h"

/// Does the controller hear what the hand means? What was read of each channel, what to dial in so that it lands, which
/// switch position means what, what shares a channel, and what happens when the receiver hears nothing.
namespace rigging {

/// Where a channel should land with this class, µs.
struct Reach {
  double low_us = 1000, centre_us = 1500, high_us = 2000;
  bool operator==(const Reach&) const = default;
};
Reach wanted_reach(const ControllerClass& controller, const Transmitter& transmitter, ChannelFunction function);

/// A µs reading from what the class's own test page shows (± `reads_full`, or µs), and back.
double us_from_page(const ControllerClass& controller, double shown);
double page_from_us(const ControllerClass& controller, double pulse_us);

/// Beyond the transmitter's tolerance, but ends are not yet short and no full command is lost (common practice).
inline constexpr double lands_usably_us = 10;

/// What to set in the transmitter for one channel.
struct DialIn {
  bool turn_round = false;  ///< reverse the channel first; the numbers below hold after that
  double sub_trim_us = 0;
  double travel_low_percent = 100, travel_high_percent = 100;
  Reach lands;                      ///< with exactly these settings, µs
  std::vector<std::string> limits;  ///< what can't be reached, one sentence each
  bool changes = false;             ///< anything to do at all
  bool operator==(const DialIn&) const = default;
};

/// Sub-trim and travel such that the pulses land. The transmitter is taken to be linear on each side of its centre:
/// pulse = 1500 µs + sub-trim + gimbal error ± reach · travel · full_us / 100, travel counted on the pulse's side; the
/// ends move with the sub-trim. What was read (`low_us`, `centre_us`, `high_us` of the channel) was read with the
/// settings that the channel holds. `inverted`: the stick reads the wrong way round and will be turned in the
/// transmitter. Errors: a reading is missing, or the three are not in order, or closer than 50 µs: such a channel was
/// not moved.
Result<DialIn> dial_in(const Channel& channel, const Transmitter& transmitter, const Reach& wanted, bool inverted);
/// The channel with what was dialled in. Its readings are forgotten: they have to be made again.
Channel dialled(Channel channel, const DialIn& settings);

/// How the transmitter shows a setting: "+7.4 %" or "+37 µs".
std::string shown_sub_trim(const Transmitter& transmitter, double sub_trim_us);
std::string shown_travel(const Transmitter& transmitter, double travel_percent);

/// What one channel is for, what was read and what follows.
struct ChannelLine {
  Channel channel;
  bool stick = false;  ///< one of the four
  Reach wanted;
  bool read = false;       ///< low, centre and high are known
  bool exempt = false;     ///< its travel is the gain: it need not land
  bool wrong_way = false;  ///< reads the wrong way round for this class
  std::optional<DialIn> dial;
  std::string verdict;  ///< one sentence
  enum class State { unread, lands, usable, off } state = State::unread;
  bool operator==(const ChannelLine&) const = default;
};

/// One position of a switch and the mode that it chooses.
struct SwitchPosition {
  double pulse_us = 1500;
  std::string mode;     ///< empty when no range takes it
  double guard_us = 0;  ///< to the nearest boundary of a range
  bool operator==(const SwitchPosition&) const = default;
};
struct SwitchLine {
  int channel = 5;
  ChannelFunction function = ChannelFunction::mode;
  bool measured = false;  ///< else the positions are those of a plain switch of its kind
  std::vector<SwitchPosition> positions;
  bool operator==(const SwitchLine&) const = default;
};
inline constexpr double least_guard_us = 40;  ///< between a position and the edge of its range (common practice)

struct BudgetLine {
  ChannelFunction function = ChannelFunction::other;
  int channel = 0;  ///< 0 when none carries it
  bool needed = false;
  std::string words;  ///< how it is worked, or what to do without it
  bool operator==(const BudgetLine&) const = default;
};

/// How a receiver tells of the loss, and whether this class can tell.
struct LossLine {
  OnLoss behaviour = OnLoss::unknown;
  bool possible = true;  ///< with this signal
  bool noticed = false;
  bool chosen = false;
  std::string words;
  bool operator==(const LossLine&) const = default;
};

struct SticksReport {
  std::vector<ChannelLine> channels;  ///< in order of their numbers
  std::vector<SwitchLine> switches;
  std::vector<BudgetLine> budget;
  int free_channels = 0;
  std::vector<LossLine> losses;
  std::optional<Signal> signal;             ///< of the receiver that is fitted
  std::vector<std::string> authority;       ///< what the rates leave to stick and stabilizer, per axis
  bool all_read = false, all_land = false;  ///< of the four sticks, as far as this airframe has them
  bool operator==(const SticksReport&) const = default;
};

SticksReport analyze_sticks(const Rig& rig, const Catalogue& catalogue);

/// The mode ranges with boundaries half way between the measured positions of their channel; what a position chooses
/// stays.
Rig with_even_boundaries(Rig rig, int channel);

/// "roll stick", "mode switch".
std::string function_label(ChannelFunction function);
/// Roll, pitch, yaw or throttle.
bool is_stick(ChannelFunction function);

}  // namespace rigging
