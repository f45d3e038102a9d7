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
/// Where a switch, slider or rotary control of a channel rests, µs, lowest first; its kind follows from how many.
Edit with_positions(const Rig& rig, int channel, const std::vector<double>& positions_us);

/// What was read of one stick by someone who typed it in: as the class's own page shows it, or in µs where it shows
/// nothing. The throttle has no rest: its `centre` is not asked for.
struct TypedReading {
  ChannelFunction function = ChannelFunction::roll;
  double low = 0, centre = 0, high = 0;
  bool inverted = false;
};
/// What the rig holds of the channel, to begin typing with.
TypedReading typed_reading(const Channel& channel, const ControllerClass& controller);
/// Numbers that a page of this class, or a tester, can show of a pulse.
Span typed_range(const ControllerClass& controller);
/// Errors: no such channel; readings that can't be of a stick that was moved (`dial_in`).
Result<Edit> type_readings(const Rig& rig, const Catalogue& catalogue, const std::vector<TypedReading>& readings);

/// How the transmitter counts and what it is set to; `rates_percent` for the launch, of the channels that the rig has.
/// Error: a value outside of the range of its member.
Result<Edit> describe_transmitter(const Rig& rig, const Transmitter& transmitter,
                                  const std::map<ChannelFunction, double>& rates_percent);

std::vector<EditEntry> sticks_edits();

}  // namespace rigging
