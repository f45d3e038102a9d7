#pragma once

#include <cstdint>
#include <deque>
#include <string>
#include <string_view>
#include <variant>

#include "base/json.h"

/// Frames of the controller link: CBOR payload, CRC-32 (IEEE, little-endian) behind it, the whole in COBS, ended by a
/// zero byte. docs/link-protocol.md describes the bytes.
namespace rigging::link {

inline constexpr std::size_t most_payload_bytes = 32 * 1024;

std::uint32_t crc32(std::string_view bytes);

/// Consistent overhead byte stuffing (Cheshire and Baker 1999), without the ending zero.
std::string cobs_encode(std::string_view bytes);
/// No value when the code bytes do not add up or a zero is inside.
Result<std::string> cobs_decode(std::string_view bytes);

/// One message as it goes over the wire, ending zero included.
std::string encode_frame(const Json& message);

/// A message, or what was wrong with the bytes that came instead of one.
using Received = std::variant<Json, Error>;

/// Takes bytes in any pieces, gives whole messages. Corrupt, cut, foreign and oversized frames become errors; the
/// reader finds the next frame by itself.
class FrameReader {
 public:
  void feed(std::string_view bytes);
  bool empty() const { return received_.empty(); }
  Received take();

 private:
  void finish();

  std::string pending_;
  bool overflow_ = false;
  std::deque<Received> received_;
};

}  // namespace rigging::link
