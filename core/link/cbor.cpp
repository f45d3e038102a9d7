#include "link/cbor.h"

#include "base/json.h"

#include <cstdint>
#include <vector>

namespace rigging::link {
namespace {

/// Walks the items without building anything. The library's reader recurses and believes lengths, so that neither may
/// reach it unchecked.
bool well_formed(std::string_view bytes) {
  constexpr std::size_t deepest = 32;
  std::vector<std::uint64_t> open{1};  // items still to come, per level
  std::size_t at = 0;
  while (!open.empty()) {
    if (open.back() == 0) {
      open.pop_back();
      continue;
    }
    --open.back();
    if (at >= bytes.size()) return false;
    const auto head = static_cast<unsigned char>(bytes[at++]);
    const unsigned major = head >> 5, info = head & 31;
    if (info > 27) return false;
    std::uint64_t value = info;
    if (info >= 24) {
      const std::size_t length = std::size_t{1} << (info - 24);
      if (bytes.size() - at < length) return false;
      value = 0;
      for (std::size_t i = 0; i < length; ++i) value = value << 8 | static_cast<unsigned char>(bytes[at++]);
    }
    const std::size_t left = bytes.size() - at;
    if (major == 2 || major == 3) {
      if (value > left) return false;
      at += static_cast<std::size_t>(value);
    } else if (major == 4 || major == 5) {
      // Every item takes at least one byte.
      if (value > left || open.size() >= deepest) return false;
      open.push_back(major == 5 ? 2 * value : value);
    } else if (major == 6) {
      return false;  // tags have no use here
    }
  }
  return at == bytes.size();
}

}  // namespace

Result<Json> parse_cbor(std::string_view bytes, const std::string& where) {
  if (well_formed(bytes)) {
    try {
      return Json::from_cbor(bytes.begin(), bytes.end());
    } catch (const Json::exception&) {
      // A map key that is no text, bytes that are no UTF-8.
    }
  }
  return failure(where, "the bytes can't be read", "one CBOR value");
}

}  // namespace rigging::link
