#include "rig/radio.h"

#include "base/described.h"
#include "rig/ranges.h"

namespace rigging {

template <>
const Members& Described<Channel>::members() {
  static const Members all =
      Describe<Channel>()
          .needed("number", &Channel::number, {1, 32}, "channel")
          .needed("function", &Channel::function)
          .member("control", &Channel::control)
          .member("reversed", &Channel::reversed)
          .needed("sub_trim_us", &Channel::sub_trim_us, {-500, 500}, "sub-trim")
          .needed("travel_low_percent", &Channel::travel_low_percent, range::percent, "travel below the centre")
          .needed("travel_high_percent", &Channel::travel_high_percent, range::percent, "travel above the centre")
          .member("rate_percent", &Channel::rate_percent, range::percent, "rate")
          .member("fixed_us", &Channel::fixed_us, range::read_us, "fixed at")
          .member("low_us", &Channel::low_us, range::read_us, "lower end")
          .member("centre_us", &Channel::centre_us, range::read_us, "centre")
          .member("high_us", &Channel::high_us, range::read_us, "upper end")
          .member("inverted", &Channel::inverted)
          .member("learned", &Channel::learned)
          .member("noise_us", &Channel::noise_us, {0, 500}, "jitter")
          .member("centre_spread_us", &Channel::centre_spread_us, {0, 1000}, "spread of the centre")
          .member("positions_us", &Channel::positions_us, range::read_us, "positions")
          .member("with_channel", &Channel::with_channel, {0, 32})
          .rest(&Channel::unknown_members);
  return all;
}

template <>
const Members& Described<Transmitter>::members() {
  static const Members all =
      Describe<Transmitter>()
          .member("counts", &Transmitter::counts)
          .member("full_us", &Transmitter::full_us, {100, 1000}, "100 % of travel")
          .member("step_percent", &Transmitter::step_percent, {0.01, 10}, "step of the travel")
          .member("sub_trim_step_us", &Transmitter::sub_trim_step_us, {0.01, 20}, "step of the sub-trim")
          .member("most_travel_percent", &Transmitter::most_travel_percent, {50, 200}, "most travel")
          .member("most_sub_trim_us", &Transmitter::most_sub_trim_us, {0, 500}, "most sub-trim")
          .member("tolerance_us", &Transmitter::tolerance_us, {1, 20}, "tolerance of the sticks")
          .member("channels", &Transmitter::channels, {1, 32}, "channels")
          .member("mixes", &Transmitter::mixes)
          .member("gestures_change_settings", &Transmitter::gestures_change_settings)
          .member("also_serves", &Transmitter::also_serves)
          .rest(&Transmitter::unknown_members);
  return all;
}

template <>
const Members& Described<Radio>::members() {
  static const Members all = Describe<Radio>()
                                 .needed("channels", &Radio::channels)
                                 .member("transmitter", &Radio::transmitter)
                                 .member("on_loss", &Radio::on_loss)
                                 .member("receiver_signal", &Radio::receiver_signal)
                                 .rest(&Radio::unknown_members);
  return all;
}

}  // namespace rigging
