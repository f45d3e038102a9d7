#pragma once

#include <functional>
#include <optional>
#include <string>

namespace rigging::twin {

/// The controller's settings memory: two slots, each with a generation, a length and a CRC-32. A commit writes the
/// older slot from its first byte to its last; until the last byte is there the other slot counts. So power may fail at
/// any byte.
class Store {
 public:
  static constexpr std::size_t slot_bytes = 40 * 1024;

  /// `memory` is what the last run left, of any length and content.
  explicit Store(std::string memory = {});

  /// The newest whole configuration, if there is one.
  std::optional<std::string> load() const;

  /// Writes byte by byte; stops, as if power failed, after `power_for_bytes` bytes.
  void save(const std::string& content, std::size_t power_for_bytes = static_cast<std::size_t>(-1));

  const std::string& memory() const { return memory_; }

 private:
  struct Slot {
    bool whole = false;
    unsigned generation = 0;
    std::string content;
  };
  Slot slot(int index) const;

  std::string memory_;
};

}  // namespace rigging::twin
