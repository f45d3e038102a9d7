#include "mixer.h"

#include <algorithm>
#include <cmath>

namespace rigging::twin {
namespace {

/// What one output is asked, by command.
struct Parts {
  double roll, pitch, yaw, flap;
  double sum() const { return roll + pitch + yaw + flap; }
};

Parts parts_of(const Mix& m, const Command& c) {
  double roll = m.roll * c.roll;
  if (roll * m.roll_differential < 0) roll *= 1 - std::abs(m.roll_differential);
  return {roll, m.pitch * c.pitch, m.yaw * c.yaw, m.flap * c.flap};
}

}  // namespace

void Mixer::pulses(Command c, std::vector<double>& out) const {
  if (saturation_ != Saturation::each_stops) {
    // What comes first stays whole; the rest is made smaller until the worst output can just follow.
    double kept = 1;
    for (const Output& o : *outputs_) {
      if (o.mix.throttle != 0) continue;
      const Parts p = parts_of(o.mix, c);
      if (std::abs(p.sum()) <= 1) continue;
      const double first = p.flap + (saturation_ == Saturation::roll_first    ? p.roll
                                     : saturation_ == Saturation::pitch_first ? p.pitch
                                                                              : 0);
      const double rest = p.sum() - first, end = p.sum() > 0 ? 1 : -1;
      if (rest != 0) kept = std::clamp((end - first) / rest, 0.0, kept);
    }
    c.yaw *= kept;
    if (saturation_ != Saturation::roll_first) c.roll *= kept;
    if (saturation_ != Saturation::pitch_first) c.pitch *= kept;
  }
  out.clear();
  for (const Output& o : *outputs_) {
    const double way = o.reversed ? -1 : 1, asked = parts_of(o.mix, c).sum() + o.mix.throttle * c.throttle;
    double pulse = o.centre_us;
    if (o.passthrough_channel > 0) {
    } else if (o.mix.throttle != 0) {
      // From end to end.
      const double open = std::clamp(asked, 0.0, 1.0);
      pulse = o.low_us + (o.reversed ? 1 - open : open) * (o.high_us - o.low_us);
    } else {
      const double level = way * std::clamp(asked, -1.0, 1.0);
      pulse += level > 0 ? level * (o.high_us - o.centre_us) : level * (o.centre_us - o.low_us);
    }
    out.push_back(pulse);
  }
}

}  // namespace rigging::twin
