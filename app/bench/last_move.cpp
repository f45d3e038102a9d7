#include "bench/last_move.h"

#include <cmath>

namespace rigging::app {

void LastMove::see(qint64 ms, const hands::Sight& sight) {
  constexpr qint64 rests_ms = 700, longest_ms = 8000;
  constexpr double moved_deg = 0.4;
  if (current_.empty()) {
    current_ = {{ms, sight}};
    return;
  }
  const hands::Sight& last = current_.back().sight;
  if (std::abs(sight.roll_deg - last.roll_deg) + std::abs(sight.pitch_deg - last.pitch_deg) +
          std::abs(sight.yaw_deg - last.yaw_deg) >
      moved_deg) {
    moving_ = true;
    moved_ms_ = ms;
  }
  if (!moving_) {
    current_ = {{ms, sight}};  // the last look at rest begins the next move
    return;
  }
  current_.push_back({ms, sight});
  if (ms - moved_ms_ < rests_ms && ms - current_.front().ms < longest_ms) return;
  kept_ = std::move(current_);
  current_ = {{ms, sight}};
  moving_ = false;
}

const hands::Sight* LastMove::at(qint64 ms) const {
  for (auto seen = kept_.rbegin(); seen != kept_.rend(); ++seen)
    if (seen->ms - kept_.front().ms <= ms) return seen == kept_.rbegin() ? nullptr : &seen->sight;
  return nullptr;
}

}  // namespace rigging::app
