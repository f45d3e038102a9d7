#include "store.h"

#include "link/frame.h"

namespace rigging::twin {
namespace {

constexpr std::size_t header_bytes = 12;  // generation, length, CRC-32 of both and of the content

void put(std::string& out, std::uint32_t value) {
  for (int shift = 0; shift < 32; shift += 8) out += static_cast<char>(value >> shift & 0xff);
}

std::uint32_t get(const std::string& in, std::size_t at) {
  std::uint32_t value = 0;
  for (std::size_t i = 0; i < 4; ++i)
    value |= static_cast<std::uint32_t>(static_cast<unsigned char>(in[at + i])) << (8 * i);
  return value;
}

}  // namespace

Store::Store(std::string memory) : memory_(std::move(memory)) { memory_.resize(2 * slot_bytes, '\xff'); }

Store::Slot Store::slot(int index) const {
  const std::size_t at = static_cast<std::size_t>(index) * slot_bytes;
  Slot s;
  s.generation = get(memory_, at);
  const std::uint32_t length = get(memory_, at + 4);
  if (length > slot_bytes - header_bytes) return s;
  s.content = memory_.substr(at + header_bytes, length);
  s.whole = link::crc32(memory_.substr(at, 8) + s.content) == get(memory_, at + 8);
  return s;
}

std::optional<std::string> Store::load() const {
  const Slot a = slot(0), b = slot(1);
  if (!a.whole && !b.whole) return std::nullopt;
  return !b.whole || (a.whole && a.generation > b.generation) ? a.content : b.content;
}

void Store::save(const std::string& content, std::size_t power_for_bytes) {
  if (content.size() > slot_bytes - header_bytes) return;
  const Slot a = slot(0), b = slot(1);
  const bool into_first = !a.whole || (b.whole && b.generation > a.generation);
  const unsigned generation = 1 + (into_first ? (b.whole ? b.generation : 0) : (a.whole ? a.generation : 0));
  std::string head;
  put(head, generation);
  put(head, static_cast<std::uint32_t>(content.size()));
  std::string bytes = head;
  put(bytes, link::crc32(head + content));
  bytes += content;
  const std::size_t at = into_first ? 0 : slot_bytes;
  for (std::size_t i = 0; i < bytes.size() && i < power_for_bytes; ++i) memory_[at + i] = bytes[i];
}

}  // namespace rigging::twin
