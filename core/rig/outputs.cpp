#include "rig/outputs.h"

#include "base/described.h"
#include "rig/ranges.h"

namespace rigging {

template <>
const Members& Described<Mix>::members() {
  static const Members all = Describe<Mix>()
                                 .member("roll", &Mix::roll, range::weight, "roll")
                                 .member("pitch", &Mix::pitch, range::weight, "pitch")
                                 .member("yaw", &Mix::yaw, range::weight, "yaw")
                                 .member("throttle", &Mix::throttle, range::weight, "throttle")
                                 .member("flap", &Mix::flap, range::weight, "flap")
                                 .member("roll_differential", &Mix::roll_differential, {-1, 1}, "differential")
                                 .rest(&Mix::unknown_members);
  return all;
}

template <>
const Members& Described<Output>::members() {
  static const Members all =
      Describe<Output>()
          .needed("id", &Output::id)
          .member("socket", &Output::socket)
          .member("surfaces", &Output::surfaces)
          .needed("mix", &Output::mix)
          .needed("reversed", &Output::reversed)
          .needed("low_us", &Output::low_us, range::read_us, "lower end")
          .needed("centre_us", &Output::centre_us, range::read_us, "centre")
          .needed("high_us", &Output::high_us, range::read_us, "upper end")
          .needed("rate_hz", &Output::rate_hz, {20, 560}, "pulse rate")
          .member("passthrough_channel", &Output::passthrough_channel, {0, 32}, "channel passed through")
          .member("fixed", &Output::fixed)
          .rest(&Output::unknown_members);
  return all;
}

}  // namespace rigging
