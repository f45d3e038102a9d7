#pragma once

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

std::vector<EditEntry> sticks_edits();

}  // namespace rigging
