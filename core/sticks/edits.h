#pragma once

#include <map>

#include "edit/edit.h"

namespace rigging {

/// The controller takes the ends and centres that were read for its own; of the four sticks, as far as they read the
/// right way round.
Result<Edit> learn_ends(const Rig& rig);

/// The channel with this number becomes this one; added when the rig does not have it. Told after what differs.
Result<Edit> put_channel(const Rig& rig, const Channel& channel);
/// What the transmitter's screen shows. A channel that stands as it came from the works and that the rig does not know
/// is left out.
Edit with_transmitter_screen(const Rig& rig, const std::vector<Channel>& settings);
/// As many channels for modes as the class has positions of its own for. What is added moves with the first: one
/// three-position switch, mixed in the transmitter, does for both.
Rig with_switch_channels(Rig rig, const Catalogue& catalogue);
/// A function moves to this channel; what stood there changes places with it.
Edit channel_serves(const Rig& rig, int number, ChannelFunction function);
/// The mode boundaries of a channel half way between the positions of its switch.
Edit even_boundaries(const Rig& rig, int channel);
/// Where a switch, slider or rotary control of a channel rests, µs, lowest first; its kind follows from how many.
Edit with_positions(const Rig& rig, int channel, const std::vector<double>& positions_us);

/// Where numbers that someone types in were read: on the class's own page (in µs where it shows nothing), or on the
/// transmitter's own channel screen, in percent of its travel.
enum class ReadOn { board, transmitter };
/// µs from a number that was read there, and back.
double us_from(ReadOn where, const ControllerClass& controller, const Transmitter& transmitter, double shown);
double shown_from(ReadOn where, const ControllerClass& controller, const Transmitter& transmitter, double pulse_us);

/// What was read of one stick by someone who typed it in; nothing where it was not read. The throttle has no rest: its
/// `centre` is not asked for.
struct TypedReading {
  ChannelFunction function = ChannelFunction::roll;
  std::optional<double> low, centre, high;
  bool inverted = false;
};
/// Where a channel that is no stick rests, one number for each position, as read: "1000 1500 2000". Empty: not read.
struct TypedPositions {
  int channel = 5;
  std::string positions;
};
/// What the rig holds of the channel, to begin typing with.
TypedReading typed_reading(const Rig& rig, const Channel& channel, const ControllerClass& controller,
                           ReadOn where = ReadOn::board);
TypedPositions typed_positions(const Rig& rig, const Channel& channel, const ControllerClass& controller, ReadOn where);
/// Numbers that can be read there of a pulse.
Span typed_range(const Rig& rig, const ControllerClass& controller, ReadOn where = ReadOn::board);
/// A stick of which nothing was read stays as it is. Errors: no such channel; one that was read in part; readings that
/// can't be of a stick that was moved (`dial_in`); positions that are no
/// numbers, or beyond what a pulse can be.
Result<Edit> type_readings(const Rig& rig, const Catalogue& catalogue, const std::vector<TypedReading>& readings,
                           ReadOn where = ReadOn::board, const std::vector<TypedPositions>& positions = {});

/// How the transmitter counts and what it is set to; `rates_percent` for the launch, of the channels that the rig has.
/// Error: a value outside of the range of its member.
Result<Edit> describe_transmitter(const Rig& rig, const Transmitter& transmitter,
                                  const std::map<ChannelFunction, double>& rates_percent);

std::vector<EditEntry> sticks_edits();

}  // namespace rigging
