#pragma once

#include <deque>

#include "rig/rig.h"
#include "signal/reception.h"

/// Guided set-up that listens: what moved, which way, how far, and how quietly.
namespace rigging {

/// What was heard of one stick. Pulses are means over a still window, µs.
struct StickReading {
  ChannelFunction function = ChannelFunction::roll;
  int channel = 0;
  bool inverted = false;  ///< right, back, open or right again read low
  double low_us = 1000, high_us = 2000;
  std::optional<double> centre_us;  ///< not of a throttle
  double noise_us = 0;              ///< standard deviation at rest
  double spread_us = 0;             ///< between the centres found from both sides
};

/// What the samples show that a number alone would hide.
struct StickFinding {
  ChannelFunction function = ChannelFunction::roll;
  enum class TypeInfo { noise, drift, worn, together } kind = TypeInfo::noise;
  std::string words;
};

inline constexpr double worn_us = 8;  ///< common practice

/// Says what to do, hears whether it was done, goes on by itself. Frames that the receiver marks as lost are passed
/// over.
class StickSetup {
 public:
  /// The sticks to find, in this order; what was read before says which channels belong to other sticks.
  explicit StickSetup(std::vector<ChannelFunction> sticks, std::vector<StickReading> others = {});

  void feed(const ChannelFrame& frame);
  /// What the hand should do now, one sentence; empty when done.
  std::string todo() const;
  /// Why it does not go on yet; empty while all is well.
  const std::string& remark() const { return remark_; }
  /// Which stick is meant, and whether it should be held at its positive end (+1), its negative end (−1) or let go (0).
  std::optional<ChannelFunction> stick() const;
  int side() const;
  int steps_done() const { return static_cast<int>(at_); }
  int steps() const { return static_cast<int>(steps_.size()); }
  bool done() const { return at_ >= steps_.size(); }
  /// One stick back, or from the beginning.
  void again();

  /// Of the sticks that are finished.
  const std::vector<StickReading>& readings() const { return readings_; }
  std::vector<StickFinding> findings() const;

 private:
  enum class Phase { rest, push, after_push, pull, after_pull, open, close };
  struct Step {
    Phase phase;
    ChannelFunction function;
  };
  struct Still {
    std::array<double, most_channels> mean{}, deviation{}, range{};
    int channels = 0;
  };
  std::optional<Still> window(double seconds) const;
  bool still(const Still& w, int channel) const;
  void judge();
  void next();

  std::vector<Step> steps_;
  std::size_t at_ = 0;
  std::deque<ChannelFrame> heard_;
  double since_us_ = 0;  ///< when this step began
  Still rest_;
  std::array<double, most_channels> end_of_{};  ///< latest resting mean of each channel
  StickReading now_;
  double first_end_ = 0, second_end_ = 0, first_centre_ = 0;
  std::vector<StickReading> readings_, others_;
  std::vector<StickFinding> findings_;
  std::string remark_;
};

/// The rig with what was heard: functions go to the channels that carry them; what the transmitter was set to stays
/// with its channel.
Rig with_readings(Rig rig, const std::vector<StickReading>& readings);

/// Hears the positions of a switch, slider or rotary control: wherever a channel other than `taken` rests for a moment.
class SwitchSetup {
 public:
  explicit SwitchSetup(std::vector<int> taken) : taken_(std::move(taken)) {}
  void feed(const ChannelFrame& frame);
  /// The channel that moved; 0 before any did.
  int channel() const { return channel_; }
  /// Lowest first, µs.
  std::vector<double> positions() const;

 private:
  std::vector<int> taken_;
  int channel_ = 0;
  std::deque<ChannelFrame> heard_;
  std::optional<ChannelFrame> first_;
  struct Mounting {
    double sum = 0;
    int count = 0;
    double mean() const { return sum / count; }
  };
  std::vector<Mounting> places_;
};

}  // namespace rigging
