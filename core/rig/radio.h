#pragma once

#include <optional>
#include <string>
#include <vector>

#include "base/described.h"
#include "base/unknown_members.h"
#include "base/words.h"

namespace rigging {

enum class ChannelFunction { roll, pitch, throttle, yaw, mode, arm, return_home, gain, flap, other };

/// What the hand moves in the transmitter.
enum class Control { stick, two_position, three_position, slider, rotary, multi_position, fixed };

struct Channel {
  int number = 1;  ///< 1 is the first
  ChannelFunction function = ChannelFunction::other;
  std::optional<Control> control;  ///< absent: a stick for roll, pitch, throttle and yaw, unknown for the rest
  bool reversed = false;           ///< in the transmitter
  double sub_trim_us = 0;
  double travel_low_percent = 100, travel_high_percent = 100;  ///< below and above the centre of the pulse
  double rate_percent = 100;                                   ///< how much of the stick the rates let through
  std::optional<double> fixed_us;                              ///< of a channel that is fixed on or off
  std::optional<double> low_us, centre_us, high_us;            ///< as the controller read them
  bool inverted = false;                             ///< read the wrong way round: right, back, open or right read low
  bool learned = false;                              ///< the controller has taken these for its own ends
  std::optional<double> noise_us, centre_spread_us;  ///< found while measuring
  std::vector<double> positions_us;                  ///< of a switch, as read, lowest first
  /// The channel whose switch moves this one as well, mixed in the transmitter: that one rises first, then this one.
  /// 0: it has a switch of its own.
  int with_channel = 0;
  UnknownMembers unknown_members;
  bool operator==(const Channel&) const = default;
};

enum class TravelUnit { percent, us };

/// How the user's transmitter counts, and what it can.
struct Transmitter {
  TravelUnit counts = TravelUnit::percent;  ///< in which it shows sub-trim and travel
  double full_us = 500;                     ///< what 100 % of travel moves the pulse to either side
  double step_percent = 0.1;                ///< of travel
  double sub_trim_step_us = 0.5;
  double most_travel_percent = 150;
  double most_sub_trim_us = 150;
  double tolerance_us = 5;  ///< as near as the sticks must land; nobody feels more (common practice)
  int channels = 8;
  bool mixes = false;                     ///< it mixes channels itself
  bool gestures_change_settings = false;  ///< stick gestures that change settings of the controller are on
  std::vector<std::string> also_serves;   ///< other rigs that fly on the same memory
  UnknownMembers unknown_members;
  bool operator==(const Transmitter&) const = default;
};

/// What the receiver does when it hears nothing.
enum class OnLoss { unknown, no_pulses, hold, preset, flag };

/// What a receiver says on its wire.
enum class Signal { pulse, summed, inverted_serial, two_way_serial };

struct Radio {
  std::vector<Channel> channels;
  Transmitter transmitter;
  OnLoss on_loss = OnLoss::unknown;
  std::optional<Signal>
      receiver_signal;  ///< what the controller is told that the receiver says; absent where it finds out
  UnknownMembers unknown_members;
  bool operator==(const Radio&) const = default;
};

template <>
struct Names<ChannelFunction> {
  using F = ChannelFunction;
  static constexpr std::array<std::pair<F, std::string_view>, 10> list{{{F::roll, "roll"},
                                                                        {F::pitch, "pitch"},
                                                                        {F::throttle, "throttle"},
                                                                        {F::yaw, "yaw"},
                                                                        {F::mode, "mode"},
                                                                        {F::arm, "arm"},
                                                                        {F::return_home, "return"},
                                                                        {F::gain, "gain"},
                                                                        {F::flap, "flap"},
                                                                        {F::other, "other"}}};
};

template <>
struct Names<Control> {
  using C = Control;
  static constexpr std::array<std::pair<C, std::string_view>, 7> list{{{C::stick, "stick"},
                                                                       {C::two_position, "two_position"},
                                                                       {C::three_position, "three_position"},
                                                                       {C::slider, "slider"},
                                                                       {C::rotary, "rotary"},
                                                                       {C::multi_position, "multi_position"},
                                                                       {C::fixed, "fixed"}}};
};

template <>
struct Names<TravelUnit> {
  static constexpr std::array<std::pair<TravelUnit, std::string_view>, 2> list{
      {{TravelUnit::percent, "percent"}, {TravelUnit::us, "us"}}};
};

template <>
struct Names<OnLoss> {
  using L = OnLoss;
  static constexpr std::array<std::pair<L, std::string_view>, 5> list{{{L::unknown, "unknown"},
                                                                       {L::no_pulses, "no_pulses"},
                                                                       {L::hold, "hold"},
                                                                       {L::preset, "preset"},
                                                                       {L::flag, "flag"}}};
};

template <>
struct Names<Signal> {
  using S = Signal;
  static constexpr std::array<std::pair<S, std::string_view>, 4> list{{{S::pulse, "pulse"},
                                                                       {S::summed, "summed"},
                                                                       {S::inverted_serial, "inverted_serial"},
                                                                       {S::two_way_serial, "two_way_serial"}}};
};

template <>
const Members& Described<Channel>::members();
template <>
const Members& Described<Transmitter>::members();
template <>
const Members& Described<Radio>::members();

}  // namespace rigging
