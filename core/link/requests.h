#pragma once

#include <variant>

#include "base/json.h"

/// What is asked of a controller over its link, typed, for both of its ends (docs/link-protocol.md has the members).
namespace rigging::link {

struct Hello {
  int protocol = 0;
};
struct Read {};
/// Opens the staging area for a configuration of `size` bytes, 1 to `most_image_bytes`.
struct StageBegin {
  std::size_t size = 0;  ///< 0: none that can be
  std::string hash;
};
/// The next piece; pieces come in order.
struct Stage {
  std::optional<std::size_t> offset;  ///< of its first byte; nothing: none that can be
  std::string bytes;
};
struct Verify {
  std::string hash;
};
struct Commit {
  std::string hash;
};
struct ReadChannels {};
struct ReadReceiver {};
struct ReadOutputs {};
struct ReadSensors {};
/// Readings of the board's own sensors since the last time.
struct ReadMotion {};
/// Moves one output alone; −1 to 1.
struct Drive {
  std::string socket;
  double level = 0;
};
struct Release {};
/// What flies, whether the link is gone, and why it does not arm.
struct ReadState {};

inline constexpr std::size_t most_image_bytes = 32 * 1024;

using Request = std::variant<Hello, Read, StageBegin, Stage, Verify, Commit, ReadChannels, ReadReceiver, ReadOutputs,
                             ReadSensors, ReadMotion, Drive, Release, ReadState>;

/// The request's name on the wire: "stage_begin".
std::string request_name(const Request& request);
/// Its members, without the name.
Json body_of(const Request& request);
/// Reads a request believing nothing: what does not fit is left out, for the receiver to refuse. Error: an unknown
/// name.
Result<Request> request_of(const std::string& name, const Json& body);

}  // namespace rigging::link
