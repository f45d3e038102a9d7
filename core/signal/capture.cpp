#include "signal/capture.h"

#include <algorithm>
#include <cmath>

#include "base/csv.h"
#include "base/number.h"

namespace rigging {
namespace {

bool serial(Signal signal) { return signal == Signal::inverted_serial || signal == Signal::two_way_serial; }

std::string_view next_line(std::string_view& text) {
  const std::size_t end = text.find('\n');
  std::string_view line = text.substr(0, end);
  text.remove_prefix(end == std::string_view::npos ? text.size() : end + 1);
  if (line.ends_with('\r')) line.remove_suffix(1);
  return line;
}

/// A table begins with a comment or with the name of its time column; anything else is taken for raw bytes.
bool is_table(std::string_view content) {
  return content.starts_with("t_us,") || content.starts_with("t_s,") || content.starts_with("#");
}

int nibble(char c) {
  return c >= '0' && c <= '9'   ? c - '0'
         : c >= 'a' && c <= 'f' ? c - 'a' + 10
         : c >= 'A' && c <= 'F' ? c - 'A' + 10
                                : -1;
}

Result<Capture> read_byte_table(std::string_view text, const std::string& name) {
  Capture capture;
  capture.timed = true;
  double unit = 0, last = -latest_us;
  int number = 0;
  while (!text.empty()) {
    const std::string_view line = next_line(text);
    const std::string where = name + ":" + std::to_string(++number);
    if (line.empty() || line.front() == '#') continue;
    if (unit == 0) {
      unit = line.starts_with("t_s,") ? 1e6 : 1;
      continue;
    }
    const std::size_t comma = line.find(',');
    const auto time = number_of(line.substr(0, comma));
    if (comma == std::string_view::npos || !time)
      return failure(where, "no time before the comma", "a number, then bytes in hexadecimal");
    const double t = *time * unit;
    if (!(std::abs(t) < latest_us)) return failure(where, "the time is out of range", "times within three years");
    if (t < last) return failure(where, "time runs backward", "times in order");
    last = t;
    Capture::Chunk chunk{t, {}};
    int high = -1;
    for (const char c : line.substr(comma + 1)) {
      if (c == ' ') continue;
      const int n = nibble(c);
      if (n < 0)
        return failure(where, std::string("\"") + (c >= ' ' && c < 127 ? c : '?') + "\" is no hexadecimal digit",
                       "bytes such as 0f a2 00");
      if (high < 0) {
        high = n;
      } else {
        chunk.bytes += static_cast<char>(high << 4 | n);
        high = -1;
      }
    }
    if (high >= 0) return failure(where, "half a byte at the end", "two digits for each byte");
    capture.chunks.push_back(std::move(chunk));
  }
  return capture;
}

/// Bytes of a serial line out of its levels: start bit, eight bits with the lowest first, parity where there is one,
/// stop bits. `idle_high` as the line rests. A byte whose stop bit is missing is left out.
std::vector<Capture::Chunk> bytes_of(const std::vector<Edge>& edges, bool idle_high, double bit_us, bool parity) {
  std::vector<Capture::Chunk> bytes;
  std::size_t next = 0;
  // The level of line 0 at a time at or after the last one asked for.
  bool level = idle_high;
  const auto level_at = [&](double t) {
    while (next < edges.size() && edges[next].t_us <= t) level = edges[next++].high;
    return level;
  };
  for (std::size_t i = 0; i < edges.size(); ++i) {
    if (i < next || edges[i].high == idle_high) continue;  // inside of a byte, or back to rest
    const double start = edges[i].t_us;
    unsigned value = 0;
    for (int bit = 0; bit < 8; ++bit)
      if (level_at(start + (1.5 + bit) * bit_us) == idle_high) value |= 1u << bit;
    double at = 9.5;
    bool good = true;
    if (parity) {
      unsigned ones = level_at(start + at * bit_us) == idle_high ? 1 : 0;
      for (unsigned v = value; v != 0; v &= v - 1) ++ones;
      good = ones % 2 == 0;
      at += 1;
    }
    if (level_at(start + at * bit_us) == idle_high && good)
      bytes.push_back({start, std::string(1, static_cast<char>(value))});
  }
  return bytes;
}

/// A level line that carries serial bytes, by its shortest distance between edges.
std::optional<Signal> serial_by_edges(const std::vector<Edge>& edges) {
  double shortest = 1e9;
  for (std::size_t i = 1; i < edges.size(); ++i) shortest = std::min(shortest, edges[i].t_us - edges[i - 1].t_us);
  constexpr double no_bit_us = 100;  // marks and pulses of the other signals are longer
  if (shortest > no_bit_us) return std::nullopt;
  return shortest > 1.7 * two_way_byte_us / 10 ? Signal::inverted_serial : Signal::two_way_serial;
}

Capture serial_from_levels(const Capture& levels, bool first_high, Signal signal) {
  Capture capture;
  capture.timed = true;
  capture.signal = signal;
  const bool inverted = signal == Signal::inverted_serial;
  const double bit_us = inverted ? inverted_serial_byte_us / 12 : two_way_byte_us / 10;
  // A line rests at the level that it keeps longest.
  double high_us = 0, low_us = 0;
  bool level = first_high;
  for (std::size_t i = 0; i < levels.edges.size(); ++i) {
    if (i > 0)
      (level ? high_us : low_us) = std::max(level ? high_us : low_us, levels.edges[i].t_us - levels.edges[i - 1].t_us);
    level = levels.edges[i].high;
  }
  capture.chunks = bytes_of(levels.edges, high_us > low_us, bit_us, inverted);
  return capture;
}

Result<Capture> read_levels(std::string_view content, const std::string& name, std::optional<Signal> asked) {
  auto table = parse_number_table(content, name);
  if (!table) return tl::make_unexpected(table.error());
  const std::size_t lines = table->columns.size() - 1;
  if (lines < 1 || lines > most_channels)
    return failure(name, std::to_string(lines) + " columns of levels", "1 to " + std::to_string(most_channels));
  const double unit = table->columns[0] == "t_s" ? 1e6 : 1;
  Capture capture;
  capture.timed = true;
  std::vector<double> level;
  double last = 0;
  for (std::size_t row = 0; row < table->rows.size(); ++row) {
    const NumberRows::Row cells = table->rows[row];
    const std::string where = name + ": row " + std::to_string(row + 1);
    const double t = cells[0] * unit;
    if (!level.empty() && t < last) return failure(where, "time runs backward", "times in order");
    last = t;
    for (std::size_t i = 0; i < lines; ++i) {
      const double now = cells[i + 1];
      if (now != 0 && now != 1)
        return failure(where + ", column " + table->columns[i + 1], "a level of " + number_text(now, 3), "0 or 1");
      if (!level.empty() && now != level[i]) capture.edges.push_back({t, now == 1, static_cast<std::uint8_t>(i)});
    }
    level.assign(cells.begin() + 1, cells.end());
  }
  if (lines > 1) {
    if (asked && serial(*asked))
      return failure(name, std::to_string(lines) + " columns of levels for " + label_of(name_of(*asked)), "one column");
    capture.signal = Signal::pulse;
    return capture;
  }
  const std::optional<Signal> bits = asked ? (serial(*asked) ? asked : std::nullopt) : serial_by_edges(capture.edges);
  if (bits) return serial_from_levels(capture, !table->rows.empty() && table->rows.front()[1] == 1, *bits);
  // One line: a pulse per channel rises as often as it carries a channel; a summed one rises many times between two
  // pauses.
  Capture as_sum = capture;
  as_sum.signal = Signal::summed;
  capture.signal = Signal::pulse;
  const Decoded sum = decode(as_sum), single = decode(capture);
  const bool summed = !sum.frames.empty() && sum.frames.front().channels > 1;
  return summed || single.frames.empty() ? as_sum : capture;
}

Capture as(Capture capture, Signal signal) {
  capture.signal = signal;
  return capture;
}

}  // namespace

Result<Capture> read_capture(std::string_view content, const std::string& name, std::optional<Signal> signal) {
  if (content.empty())
    return failure(name, "the capture is empty", "serial bytes, or a table of times and levels or bytes");
  const bool table = is_table(content);
  // Comments may stand before the names of the columns.
  std::string_view rest = content, heading;
  if (table)
    while (!rest.empty() && (heading = next_line(rest), heading.empty() || heading.front() == '#')) {}
  const bool byte_table = table && (heading == "t_us,bytes" || heading == "t_s,bytes");
  if (table && !byte_table) {
    if (!heading.starts_with("t_us,") && !heading.starts_with("t_s,"))
      return failure(name, "the first column is not a time",
                     "a heading t_us or t_s, then bytes or one column of levels per line");
    auto capture = read_levels(content, name, signal);
    return !capture || !signal ? capture : Result<Capture>(as(std::move(*capture), *signal));
  }
  if (signal && !serial(*signal))
    return failure(name, "serial bytes can't be decoded as " + label_of(name_of(*signal)),
                   "a table of times and levels");
  Capture capture;
  if (byte_table) {
    auto read = read_byte_table(content, name);
    if (!read) return read;
    capture = std::move(*read);
  } else {
    capture.chunks.push_back({0, std::string(content)});
  }
  if (signal) return as(std::move(capture), *signal);
  // Which of the two explains more of the bytes?
  capture.signal = Signal::inverted_serial;
  const Decoded inverted = decode(capture);
  capture.signal = Signal::two_way_serial;
  const Decoded two_way = decode(capture);
  if (inverted.frames.empty() && two_way.frames.empty())
    return failure(name, "no frame of either serial signal is in it",
                   "a capture of a receiver's wire; inverted framed serial must be captured after the inversion");
  if (inverted.tally.skipped < two_way.tally.skipped) capture.signal = Signal::inverted_serial;
  return capture;
}

Decoded decode(const Capture& capture) {
  Decoded d;
  d.signal = capture.signal;
  d.timed = capture.timed;
  if (serial(capture.signal)) {
    ByteDecoder decoder(capture.signal);
    std::size_t bytes = 0;
    for (const Capture::Chunk& c : capture.chunks) bytes += c.bytes.size();
    d.frames.reserve(bytes / 25);
    for (const Capture::Chunk& c : capture.chunks)
      capture.timed ? decoder.feed(c.bytes, c.t_us, d.frames) : decoder.feed(c.bytes, d.frames);
    decoder.finish(d.frames);
    d.tally = decoder.tally();
    d.link = decoder.link_report();
  } else {
    EdgeDecoder decoder(capture.signal);
    for (const Edge& e : capture.edges) decoder.feed(e, d.frames);
    decoder.finish(d.frames);
    d.tally = decoder.tally();
  }
  return d;
}

std::string capture_text(const Capture& capture) {
  std::string text;
  if (serial(capture.signal)) {
    text = "t_us,bytes\n";
    constexpr char digits[] = "0123456789abcdef";
    for (const Capture::Chunk& c : capture.chunks) {
      text += number_text(c.t_us, 1) + ",";
      for (const char b : c.bytes) {
        text += digits[static_cast<unsigned char>(b) >> 4];
        text += digits[static_cast<unsigned char>(b) & 15];
      }
      text += '\n';
    }
    return text;
  }
  std::uint8_t lines = 1;
  for (const Edge& e : capture.edges) lines = std::max(lines, static_cast<std::uint8_t>(e.line + 1));
  text = "t_us";
  for (int i = 1; i <= lines; ++i) text += ",line_" + std::to_string(i);
  std::vector<bool> level(lines);
  const auto row = [&](double t) {
    text += "\n" + number_text(t, 2);
    for (const bool l : level) text += l ? ",1" : ",0";
  };
  if (!capture.edges.empty()) row(capture.edges.front().t_us - 1);
  for (const Edge& e : capture.edges) {
    level[e.line] = e.high;
    row(e.t_us);
  }
  return text + "\n";
}

}  // namespace rigging
