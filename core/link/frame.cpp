#include "link/frame.h"

#include "base/json.h"
#include "link/cbor.h"

#include <boost/crc.hpp>

namespace rigging::link {

std::uint32_t crc32(std::string_view bytes) {
  boost::crc_32_type crc;
  crc.process_bytes(bytes.data(), bytes.size());
  return crc.checksum();
}

std::string cobs_encode(std::string_view bytes) {
  std::string out(1, '\0');
  std::size_t code_at = 0;
  unsigned char code = 1;
  const auto close = [&] {
    out[code_at] = static_cast<char>(code);
    code_at = out.size();
    code = 1;
  };
  for (std::size_t i = 0; i < bytes.size(); ++i) {
    if (bytes[i] != 0) {
      out += bytes[i];
      ++code;
    }
    // A full group needs no zero behind it; at the very end it needs no further code byte either.
    if (bytes[i] == 0 || (code == 0xff && i + 1 < bytes.size())) {
      close();
      out += '\0';
    }
  }
  out[code_at] = static_cast<char>(code);
  return out;
}

Result<std::string> cobs_decode(std::string_view bytes) {
  std::string out;
  std::size_t i = 0;
  while (i < bytes.size()) {
    const auto code = static_cast<unsigned char>(bytes[i]);
    if (code == 0 || i + code > bytes.size())
      return failure("frame", "the byte stuffing does not add up", "a COBS frame");
    for (std::size_t k = 1; k < code; ++k) {
      if (bytes[i + k] == 0) return failure("frame", "a zero inside the frame", "a COBS frame");
      out += bytes[i + k];
    }
    i += code;
    if (code != 0xff && i < bytes.size()) out += '\0';
  }
  return out;
}

std::string encode_frame(const Json& message) {
  std::string payload;
  Json::to_cbor(message, payload);
  const std::uint32_t crc = crc32(payload);
  for (int shift = 0; shift < 32; shift += 8) payload += static_cast<char>(crc >> shift & 0xff);
  return cobs_encode(payload) + '\0';
}

void FrameReader::feed(std::string_view bytes) {
  for (const char c : bytes) {
    if (c == 0) {
      finish();
    } else if (pending_.size() < most_payload_bytes + 512) {
      pending_ += c;
    } else {
      overflow_ = true;
    }
  }
}

void FrameReader::finish() {
  const std::string bytes = std::move(pending_);
  const bool overflow = overflow_;
  pending_.clear();
  overflow_ = false;
  if (bytes.empty()) return;  // zeros between frames are allowed
  if (overflow) {
    received_.emplace_back(Error{"what came over the line",
                                 "is no message: " + std::to_string(most_payload_bytes / 1024) + " kB without an end",
                                 "a controller at the other end, set to the same speed"});
    return;
  }
  const auto decoded = cobs_decode(bytes);
  if (!decoded) {
    received_.emplace_back(decoded.error());
    return;
  }
  if (decoded->size() < 5) {
    received_.emplace_back(Error{"frame", "too short", "a payload and a CRC-32"});
    return;
  }
  const std::string_view payload(decoded->data(), decoded->size() - 4);
  std::uint32_t crc = 0;
  for (std::size_t i = 0; i < 4; ++i)
    crc |= static_cast<std::uint32_t>(static_cast<unsigned char>((*decoded)[payload.size() + i])) << (8 * i);
  if (crc != crc32(payload)) {
    received_.emplace_back(Error{"frame", "the CRC-32 does not match", "an undamaged frame"});
    return;
  }
  auto message = parse_cbor(payload, "frame");
  if (!message || !message->is_object())
    received_.emplace_back(Error{"frame", "the payload is not a CBOR map", "a message"});
  else
    received_.emplace_back(std::move(*message));
}

Received FrameReader::take() {
  Received first = std::move(received_.front());
  received_.pop_front();
  return first;
}

}  // namespace rigging::link
