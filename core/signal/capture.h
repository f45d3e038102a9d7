#pragma once

#include <optional>

#include "base/result.h"
#include "signal/signal.h"

namespace rigging {

/// What was recorded of a receiver's wire, by a serial adapter or a logic analyser.
struct Capture {
  struct Chunk {
    double t_us = 0;
    std::string bytes;
  };
  Signal signal = Signal::inverted_serial;
  bool timed = false;
  std::vector<Chunk> chunks;  ///< serial signals; one chunk without times for a raw file
  std::vector<Edge> edges;    ///< pulse signals, in order of time
};

/// Reads a capture. Three forms are known (docs/receiver-signals.md): a table `t_us,bytes` (bytes in hexadecimal) or
/// `t_s,bytes`; a table `t_us` or `t_s` followed by one column of levels 0 and 1 per line, of pulses or of serial bits;
/// and raw serial bytes. `signal` absent: it is found out from the content. An error says file, line and what was
/// expected.
Result<Capture> read_capture(std::string_view content, const std::string& name, std::optional<Signal> signal);

struct Decoded {
  Signal signal = Signal::inverted_serial;
  bool timed = false;
  std::vector<ChannelFrame> frames;
  SignalTally tally;
  LinkReport link;
};

Decoded decode(const Capture& capture);

/// A table `t_us,bytes` or of levels that `read_capture` takes back.
std::string capture_text(const Capture& capture);

}  // namespace rigging
