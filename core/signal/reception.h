#pragma once

#include <deque>
#include <optional>

#include "signal/signal.h"

/// What a stretch of frames shows of the wire and of each channel, whatever hands did meanwhile.
namespace rigging {

/// Without a frame for this long a receiver counts as silent, seconds (common practice).
inline constexpr double silent_after_s = 0.3;
inline constexpr double noisy_us = 4, drifts_us = 8;  ///< common practice

/// How well frames arrive.
struct Reception {
  double frames_per_s = 0;
  double longest_gap_us = 0;
  double lost_share = 0;  ///< marked as lost, 0 to 1
  bool failsafe = false;  ///< now
};
Reception reception(const std::deque<ChannelFrame>& frames);

/// Whether a channel stands elsewhere than it was drawn last, by more than the last digit of a receiver flickers,
/// 1 µs.
bool moved(const std::optional<ChannelFrame>& drawn, const ChannelFrame* now);

/// What one channel did.
struct ChannelHabit {
  int channel = 1;
  double least_us = 0, most_us = 0, last_us = 0;
  /// Standard deviation of the jitter, from the median of the steps between frames: a hand that moves now and then does
  /// not count.
  double noise_us = 0;
  bool moved = false;  ///< by more than jitter and drift can
  /// Change of the resting place from the first quarter of the frames to the last; 0 for a channel that was moved.
  double drift_us = 0;
  std::string words;  ///< what is amiss, one sentence; empty when nothing is
};
/// One per channel, of the frames that are neither lost nor marked as failsafe. Fewer than 8 of them tell no jitter and
/// no drift.
std::vector<ChannelHabit> habits(const std::deque<ChannelFrame>& frames);

}  // namespace rigging
