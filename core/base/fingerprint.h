#pragma once

#include <cstdint>
#include <string>
#include <string_view>

namespace rigging {

/// FNV-1a, 64 bits: tells values apart that differ by accident; no protection against intent.
class Fingerprint {
 public:
  Fingerprint& add(std::string_view bytes) {
    for (const char c : bytes) mix(static_cast<unsigned char>(c));
    mix(0x1f);  // keeps "ab","c" apart from "a","bc"
    return *this;
  }
  std::uint64_t value() const { return hash_; }
  /// 16 hexadecimal digits.
  std::string text() const {
    std::string out(16, '0');
    for (int i = 0; i < 16; ++i) out[static_cast<std::size_t>(i)] = "0123456789abcdef"[hash_ >> (60 - 4 * i) & 15];
    return out;
  }

 private:
  void mix(unsigned char byte) { hash_ = (hash_ ^ byte) * 0x100000001b3u; }
  std::uint64_t hash_ = 0xcbf29ce484222325u;
};

}  // namespace rigging
