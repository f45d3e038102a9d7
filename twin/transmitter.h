#pragma once

#include <deque>
#include <random>

#include "rig/rig.h"
#include "signal/signal.h"

namespace rigging::twin {

/// One stick as it really is.
struct Gimbal {
  int channel = 1;
  int sense = 1;         ///< +1: right, back or open raises the pulse while the transmitter's direction is plain
  double middle_us = 0;  ///< where it comes to rest, off the centre
  double reach_low = 1, reach_high = 1;  ///< how far it goes to the side below and above the centre, as shares
  double noise_us = 0;                   ///< standard deviation
  double drift_us_s = 0;                 ///< of the resting place while it warms up, for the first two minutes
  double wear_us = 0;                    ///< how far from its middle it stays when let go, on the side it came from
};

/// Transmitter and receiver: what hands move and dial, and what leaves the receiver's wire.
class Transmitter {
 public:
  Transmitter() = default;
  /// Gimbals for roll, pitch, throttle and yaw; settings and the receiver's way with a loss are the rig's.
  Transmitter(const Rig& rig, const std::array<Gimbal, 4>& gimbals, Signal signal);

  /// −1 to 1; a throttle is closed at −1.
  void stick(ChannelFunction function, double position);
  /// Any channel that is no stick, −1 to 1.
  void control(int channel, double position);
  /// The same, such that this pulse is sent, as far as the channel's settings reach.
  void control_to(int channel, double pulse_us);
  /// What its screen shows.
  const std::vector<Channel>& settings() const { return settings_; }
  /// Changes direction, sub-trim and travel of a channel; what is beyond its limits stops there.
  void dial(int channel, bool reversed, double sub_trim_us, double travel_low_percent, double travel_high_percent);
  void turn_round(int channel);
  void exchange(ChannelFunction a, ChannelFunction b);
  void on(bool on) { on_ = on; }

  /// Moves time forward; `receiver_lit`: the receiver has supply.
  void step(double dt_s, bool receiver_lit);
  /// The latest frame that left the receiver within the last 100 ms, or null.
  const ChannelFrame* heard() const;

  struct Wire {
    Signal signal = Signal::inverted_serial;
    std::vector<std::pair<double, std::string>> chunks;  ///< serial: when the first byte began, µs, and the bytes
    std::vector<Edge> edges;
  };
  /// What was on the wire since the last time, at most half a second of it.
  Wire take_wire();

  static std::size_t index(ChannelFunction function);  ///< of roll, pitch, throttle, yaw among the gimbals

 private:
  ChannelFrame sent();
  Channel& setting(int channel);

  std::array<Gimbal, 4> gimbals_{};
  std::array<double, 4> hand_{0, 0, -1, 0}, side_{1, 1, 1, 1};
  std::map<int, double> controls_;
  std::vector<Channel> settings_;
  rigging::Transmitter limits_;
  OnLoss on_loss_ = OnLoss::flag;
  Signal signal_ = Signal::inverted_serial;
  bool on_ = true;
  double now_us_ = 0, next_us_ = 0;
  std::optional<ChannelFrame> last_;
  Wire wire_;
  std::uint8_t counter_ = 0;
  std::mt19937 random_{12345};
};

}  // namespace rigging::twin
