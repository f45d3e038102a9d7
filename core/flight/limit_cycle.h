#pragma once

#include <optional>

#include "flight/loop.h"

/// Small and large swings that a loop keeps up by itself, by describing functions (Gelb and Vander Velde,
/// Multiple-Input Describing Functions, ch. 2 and app. B): exact for a pure sine, here within a tenth of what a
/// simulation does, because the loop takes the harmonics out.
namespace rigging {

struct LimitCycle {
  double amplitude = 0;  ///< of what goes into the play, or of the command that is cut off; its own unit
  double hz = 0;
};

/// With play of a whole width of 1 between servo and surface: nothing where the gain is too small for it. It stays
/// steady at its amplitude, which grows with the play.
std::optional<LimitCycle> play_cycle(const Loop& loop);
/// Rate gain from which on any play keeps swinging; at or below the onset of the loop without play. Nothing where the
/// loop's phase never gets there.
std::optional<double> play_ceiling(const Loop& loop);
/// With a correction that is cut off at ±1: nothing where the loop is calm.
std::optional<LimitCycle> saturation_cycle(const Loop& loop);

}  // namespace rigging
