#pragma once

#include <array>
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "rig/radio.h"

/// What a receiver says on its wire, and how it becomes channels. docs/receiver-signals.md describes the bytes.
namespace rigging {

inline constexpr std::size_t most_channels = 16;

/// All channels at one time.
struct ChannelFrame {
  double t_us =
      0;  ///< when the frame was complete, on the capture's clock; counts frames when the capture has no times
  std::array<float, most_channels> pulse_us{};  ///< 0 where a channel is absent
  std::uint8_t channels = 0;
  bool lost = false;      ///< the receiver missed this one and repeats the last values
  bool failsafe = false;  ///< the receiver reports that the link is gone
};

/// What was met on the way. Nothing is dropped in silence.
struct SignalTally {
  std::uint64_t frames = 0;    ///< whole frames, flagged ones included
  std::uint64_t lost = 0;      ///< frames that the receiver marks as missed, and gaps in a frame counter
  std::uint64_t failsafe = 0;  ///< frames that report the link as gone
  std::uint64_t damaged = 0;   ///< frames cut short, with a wrong check sum or a wrong number of channels
  std::uint64_t skipped = 0;   ///< bytes (serial) or edges (pulses) that belong to no frame
  std::uint64_t resyncs = 0;   ///< how often the place was lost and found again
  bool operator==(const SignalTally&) const = default;
};

/// What a two-way receiver says of its own reception.
struct LinkReport {
  double quality_percent = 0;  ///< frames received of those sent, 0 to 100
  double strength_dbm = 0;     ///< 0 to −255
  bool operator==(const LinkReport&) const = default;
};

/// Times on a wire are less than three years, either way: what says more is damaged. Microseconds.
inline constexpr double latest_us = 1e14;

/// One change of level on one line.
struct Edge {
  double t_us = 0;
  bool high = false;
  std::uint8_t line = 0;  ///< channel − 1 for a pulse per channel, else 0
};

// Serial signals
// ------------------------------------------------------------------------------------------------------------------

/// Takes serial bytes in any pieces, gives frames. Speaks `inverted_serial` and `two_way_serial`.
class ByteDecoder {
 public:
  explicit ByteDecoder(Signal signal);

  /// `t_us` is when the first of these bytes began; bytes follow each other at the signal's baud. Time must not run
  /// backward: bytes that seem to come earlier than the last ones are taken as following them.
  void feed(std::string_view bytes, double t_us, std::vector<ChannelFrame>& out);
  /// The same without times.
  void feed(std::string_view bytes, std::vector<ChannelFrame>& out);
  /// No more bytes will come: what is left is judged as it is.
  void finish(std::vector<ChannelFrame>& out);

  const SignalTally& tally() const { return tally_; }
  const LinkReport& link_report() const { return report_; }
  bool timed() const { return timed_; }

 private:
  void run(std::vector<ChannelFrame>& out, bool last);
  std::size_t run_inverted(std::vector<ChannelFrame>& out, bool last);
  std::size_t run_two_way(std::vector<ChannelFrame>& out, bool last);
  void skip(std::size_t bytes);
  void cut_off(std::vector<ChannelFrame>& out);

  Signal signal_;
  SignalTally tally_;
  LinkReport report_;
  std::string pending_;
  double first_us_ = 0;  ///< when the first pending byte began
  bool timed_ = false, locked_ = false, ever_locked_ = false, fresh_start_ = true;
  int counter_ = -1;
};

/// 25 bytes, as on the wire before the inversion. Channels beyond 16 are left at rest; pulses are clamped to 880 to
/// 2159 µs.
std::string encode_inverted_serial(const ChannelFrame& frame);
/// One channel frame of the two-way format with its counter.
std::string encode_two_way(const ChannelFrame& frame, std::uint8_t counter);
std::string encode_link_report(const LinkReport& report);

inline constexpr double inverted_serial_byte_us = 120;    ///< 100 000 baud, 8E2
inline constexpr double two_way_byte_us = 10e6 / 420000;  ///< 420 000 baud, 8N1

// Pulses
// --------------------------------------------------------------------------------------------------------------------------

/// Takes edges, gives frames. Speaks `pulse` (one line per channel) and `summed` (one line).
class EdgeDecoder {
 public:
  explicit EdgeDecoder(Signal signal) : signal_(signal) {}
  void feed(const Edge& edge, std::vector<ChannelFrame>& out);
  /// No more edges will come: the frame that is under way is given if it has anything in it.
  void finish(std::vector<ChannelFrame>& out);
  const SignalTally& tally() const { return tally_; }

 private:
  void pulse(const Edge& edge, std::vector<ChannelFrame>& out);
  void summed(const Edge& edge, std::vector<ChannelFrame>& out);
  void give(double t_us, unsigned shape, std::vector<ChannelFrame>& out);
  unsigned filled_shape() const;

  /// Which channels frames have: it does not change from one to the next, so that a frame which lacks some was damaged.
  /// It is settled, and changed, by three that agree.
  unsigned shape_ = 0, other_shape_ = 0;
  int others_ = 0;
  std::vector<ChannelFrame> held_;  ///< the first ones, until three agree
  unsigned held_shape_ = 0;

  Signal signal_;
  SignalTally tally_;
  ChannelFrame under_way_;
  std::array<double, most_channels> rose_us_{};
  std::array<bool, most_channels> up_{}, filled_{};
  double last_rise_us_ = -1;
  int collected_ = -1;  ///< of a summed frame; −1 before the first pause
};

/// Edges of one frame, beginning at `t_us`. Pulse: every channel rises together on its own line. Summed: marks of 300
/// µs, `pause_us` of silence behind.
std::vector<Edge> encode_pulses(const ChannelFrame& frame, double t_us);
std::vector<Edge> encode_summed(const ChannelFrame& frame, double t_us);

}  // namespace rigging
