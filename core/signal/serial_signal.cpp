#include <algorithm>
#include <boost/crc.hpp>
#include <cmath>
#include <cstring>

#include "signal/signal.h"

namespace rigging {
namespace {

using Byte = unsigned char;

// Inverted framed serial: one head byte, sixteen channels of eleven bits, flags, one tail byte.
constexpr std::size_t inverted_size = 25;
constexpr Byte inverted_head = 0x0F;
constexpr double inverted_zero_us = 880, inverted_step_us = 0.625;
constexpr Byte lost_bit = 0x04, failsafe_bit = 0x08;

/// Receivers that answer on the same wire number their slots in the tail byte.
bool is_tail(Byte b) { return b == 0 || (b & 0xCF) == 0x04; }
bool stands(const Byte* b) { return b[0] == inverted_head && is_tail(b[inverted_size - 1]); }

std::array<std::uint16_t, 16> unpack(const Byte* data) {
  std::array<std::uint16_t, 16> raw;
  // Eight channels are eleven bytes.
  for (int half = 0; half < 2; ++half) {
    std::uint64_t low;
    std::uint32_t high = 0;
    std::memcpy(&low, data + 11 * half, 8);
    std::memcpy(&high, data + 11 * half + 8, 3);
    std::uint16_t* r = raw.data() + 8 * half;
    for (int i = 0; i < 5; ++i) r[i] = static_cast<std::uint16_t>(low >> (11 * i) & 0x7FF);
    r[5] = static_cast<std::uint16_t>((low >> 55 | static_cast<std::uint64_t>(high) << 9) & 0x7FF);
    r[6] = static_cast<std::uint16_t>(high >> 2 & 0x7FF);
    r[7] = static_cast<std::uint16_t>(high >> 13 & 0x7FF);
  }
  return raw;
}

/// How much a stretch that begins and ends right looks like a frame: a resting stick can hide the marks of a frame in
/// its own bits.
int plausibility(const Byte* b) {
  int points = (b[23] & 0xF0) == 0 ? 8 : 0;
  for (const std::uint16_t raw : unpack(b + 1)) points += raw == 0 || (raw >= 150 && raw <= 1900);
  return points;
}

// Two-way serial, a format of our own: two marks, kind, length, content, CRC-16.
constexpr Byte mark_one = 0x9E, mark_two = 0x47;
constexpr Byte kind_channels = 1, kind_report = 2;
constexpr std::size_t two_way_around = 6;  // marks, kind, length, check sum
constexpr std::size_t most_content = 32;
constexpr double two_way_zero_us = 500, two_way_step_us = 0.5;

/// CRC-16 with polynomial 0x1021 and start value 0xFFFF: "123456789" gives 0x29B1.
std::uint16_t check_sum(const void* data, std::size_t size) {
  boost::crc_optimal<16, 0x1021, 0xFFFF, 0, false, false> crc;
  crc.process_bytes(data, size);
  return static_cast<std::uint16_t>(crc.checksum());
}

std::string two_way_frame(Byte kind, const std::string& content) {
  std::string f;
  f += static_cast<char>(mark_one);
  f += static_cast<char>(mark_two);
  f += static_cast<char>(kind);
  f += static_cast<char>(content.size());
  f += content;
  const std::uint16_t sum = check_sum(f.data() + 2, f.size() - 2);
  f += static_cast<char>(sum >> 8);
  f += static_cast<char>(sum & 0xFF);
  return f;
}

constexpr double gap_us = 1000;  // of silence: whatever was under way is over

}  // namespace

ByteDecoder::ByteDecoder(Signal signal) : signal_(signal) {}

void ByteDecoder::feed(std::string_view bytes, double t_us, std::vector<ChannelFrame>& out) {
  if (bytes.empty()) return;
  const double byte_us = signal_ == Signal::inverted_serial ? inverted_serial_byte_us : two_way_byte_us;
  const double end_us = first_us_ + static_cast<double>(pending_.size()) * byte_us;
  if (!timed_ || pending_.empty()) {
    if (!timed_) cut_off(out);
    fresh_start_ = !timed_ || t_us > end_us + gap_us;
    first_us_ = timed_ ? std::max(t_us, end_us) : t_us;
    timed_ = true;
  } else if (t_us > end_us + gap_us) {
    cut_off(out);
    first_us_ = t_us;
    fresh_start_ = true;
  }
  pending_.append(bytes);
  run(out, false);
}

void ByteDecoder::feed(std::string_view bytes, std::vector<ChannelFrame>& out) {
  pending_.append(bytes);
  run(out, false);
}

void ByteDecoder::finish(std::vector<ChannelFrame>& out) { cut_off(out); }

/// Silence: what is pending will get no more bytes.
void ByteDecoder::cut_off(std::vector<ChannelFrame>& out) {
  run(out, true);
  if (pending_.empty()) return;
  if (locked_) ++tally_.damaged;
  tally_.skipped += pending_.size();
  pending_.clear();
  locked_ = false;
}

void ByteDecoder::run(std::vector<ChannelFrame>& out, bool last) {
  const std::size_t used = signal_ == Signal::inverted_serial ? run_inverted(out, last) : run_two_way(out, last);
  pending_.erase(0, used);
  const double byte_us = signal_ == Signal::inverted_serial ? inverted_serial_byte_us : two_way_byte_us;
  first_us_ += static_cast<double>(used) * byte_us;
}

void ByteDecoder::skip(std::size_t bytes) {
  tally_.skipped += bytes;
  if (locked_) ++tally_.damaged;
  locked_ = false;
}

std::size_t ByteDecoder::run_inverted(std::vector<ChannelFrame>& out, bool last) {
  const Byte* const begin = reinterpret_cast<const Byte*>(pending_.data());
  const std::size_t size = pending_.size();
  std::size_t at = 0;
  while (size - at >= inverted_size) {
    const Byte* b = begin + at;
    if (!locked_) {
      // Look for the start that stands best: one whose successor stands too, or which follows a silence or ends the
      // capture.
      std::size_t best = size;
      int points = -1;
      bool wait = false;
      const std::size_t until = std::min(at + inverted_size, size - inverted_size + 1);
      for (std::size_t i = at; i < until; ++i) {
        if (!stands(begin + i)) continue;
        const bool whole_next = i + 2 * inverted_size <= size;
        const bool after_silence = timed_ && fresh_start_ && i == 0;
        if (whole_next ? !stands(begin + i + inverted_size) && !after_silence : !after_silence && !last) {
          wait = wait || !whole_next;
          continue;
        }
        const int p = plausibility(begin + i) + (after_silence ? 100 : 0);
        if (p > points) {
          points = p;
          best = i;
        }
      }
      if (best == size && wait) return at;
      if (best == size) {
        skip(until - at);
        at = until;
        continue;
      }
      skip(best - at);
      at = best;
      if (ever_locked_) ++tally_.resyncs;
      locked_ = ever_locked_ = true;
      continue;
    }
    if (!stands(b)) {
      skip(1);
      ++at;
      continue;
    }
    ChannelFrame& f = out.emplace_back();
    const auto raw = unpack(b + 1);
    for (std::size_t i = 0; i < 16; ++i)
      f.pulse_us[i] = static_cast<float>(inverted_zero_us + inverted_step_us * raw[i]);
    f.channels = 16;
    f.lost = b[23] & lost_bit;
    f.failsafe = b[23] & failsafe_bit;
    at += inverted_size;
    f.t_us =
        timed_ ? first_us_ + static_cast<double>(at) * inverted_serial_byte_us : static_cast<double>(tally_.frames);
    ++tally_.frames;
    tally_.lost += f.lost;
    tally_.failsafe += f.failsafe;
    fresh_start_ = false;
  }
  return at;
}

std::size_t ByteDecoder::run_two_way(std::vector<ChannelFrame>& out, bool last) {
  const Byte* const begin = reinterpret_cast<const Byte*>(pending_.data());
  const std::size_t size = pending_.size();
  std::size_t at = 0;
  while (at < size) {
    const Byte* b = begin + at;
    const std::size_t left = size - at;
    if (b[0] != mark_one || (left >= 2 && b[1] != mark_two) || (left >= 4 && b[3] > most_content)) {
      const auto* next = static_cast<const Byte*>(left > 1 ? std::memchr(b + 1, mark_one, left - 1) : nullptr);
      const std::size_t gone = next ? static_cast<std::size_t>(next - b) : left;
      skip(gone);
      at += gone;
      continue;
    }
    if (left < 4 || left < two_way_around + b[3]) {
      if (!last) return at;
      // Cut short; but whole frames may still hide in what was taken for its content.
      skip(1);
      ++at;
      continue;
    }
    const std::size_t length = b[3], whole = two_way_around + length;
    const std::uint16_t sum = static_cast<std::uint16_t>(b[whole - 2] << 8 | b[whole - 1]);
    if (check_sum(b + 2, whole - 4) != sum) {
      skip(1);
      ++at;
      continue;
    }
    if (!locked_ && ever_locked_) ++tally_.resyncs;
    locked_ = ever_locked_ = true;
    const Byte* content = b + 4;
    at += whole;
    if (b[2] == kind_report && length == 2) {
      report_ = {static_cast<double>(content[0]), -static_cast<double>(content[1])};
      continue;
    }
    const std::size_t channels = b[2] == kind_channels && length >= 3 ? content[2] : 0;
    if (channels == 0 || channels > most_channels || length != 3 + (channels * 12 + 7) / 8) {
      ++tally_.damaged;
      continue;
    }
    ChannelFrame& f = out.emplace_back();
    for (std::size_t i = 0; i < channels; ++i) {
      const std::size_t bit = i * 12;
      const Byte* p = content + 3 + bit / 8;
      const unsigned raw = bit % 8 == 0 ? static_cast<unsigned>(p[0] | (p[1] & 0x0F) << 8)
                                        : static_cast<unsigned>(p[0] >> 4 | p[1] << 4);
      f.pulse_us[i] = static_cast<float>(two_way_zero_us + two_way_step_us * raw);
    }
    f.channels = static_cast<std::uint8_t>(channels);
    f.failsafe = content[0] & 2;
    if (counter_ >= 0) tally_.lost += static_cast<Byte>(content[1] - counter_ - 1);
    counter_ = content[1];
    f.lost = content[0] & 1;
    f.t_us = timed_ ? first_us_ + static_cast<double>(at) * two_way_byte_us : static_cast<double>(tally_.frames);
    ++tally_.frames;
    tally_.lost += f.lost;
    tally_.failsafe += f.failsafe;
  }
  return at;
}

std::string encode_inverted_serial(const ChannelFrame& frame) {
  std::array<Byte, inverted_size> b{};
  b[0] = inverted_head;
  for (std::size_t i = 0; i < 16; ++i) {
    const double pulse = i < frame.channels ? static_cast<double>(frame.pulse_us[i]) : 1500.0;
    const auto raw =
        static_cast<unsigned>(std::clamp(std::lround((pulse - inverted_zero_us) / inverted_step_us), 0L, 2047L));
    for (std::size_t bit = 0; bit < 11; ++bit)
      if (raw >> bit & 1) b[1 + (i * 11 + bit) / 8] |= static_cast<Byte>(1 << ((i * 11 + bit) % 8));
  }
  b[23] = static_cast<Byte>((frame.lost ? lost_bit : 0) | (frame.failsafe ? failsafe_bit : 0));
  return {reinterpret_cast<const char*>(b.data()), b.size()};
}

std::string encode_two_way(const ChannelFrame& frame, std::uint8_t counter) {
  const std::size_t channels = std::min<std::size_t>(frame.channels, most_channels);
  std::string content(3 + (channels * 12 + 7) / 8, '\0');
  content[0] = static_cast<char>((frame.lost ? 1 : 0) | (frame.failsafe ? 2 : 0));
  content[1] = static_cast<char>(counter);
  content[2] = static_cast<char>(channels);
  for (std::size_t i = 0; i < channels; ++i) {
    const auto raw = static_cast<unsigned>(std::clamp(
        std::lround((static_cast<double>(frame.pulse_us[i]) - two_way_zero_us) / two_way_step_us), 0L, 4095L));
    char* p = content.data() + 3 + i * 12 / 8;
    if (i % 2 == 0) {
      p[0] = static_cast<char>(raw & 0xFF);
      p[1] = static_cast<char>(raw >> 8);
    } else {
      p[0] = static_cast<char>(static_cast<Byte>(p[0]) | (raw & 0x0F) << 4);
      p[1] = static_cast<char>(raw >> 4);
    }
  }
  return two_way_frame(kind_channels, content);
}

std::string encode_link_report(const LinkReport& r) {
  std::string content(2, '\0');
  content[0] = static_cast<char>(std::lround(std::clamp(r.quality_percent, 0.0, 100.0)));
  content[1] = static_cast<char>(std::lround(std::clamp(-r.strength_dbm, 0.0, 255.0)));
  return two_way_frame(kind_report, content);
}

}  // namespace rigging
