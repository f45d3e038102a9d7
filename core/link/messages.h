#pragma once

#include <array>
#include <map>

#include "base/json.h"
#include "link/image.h"
#include "rig/sensing.h"
#include "signal/board_state.h"
#include "signal/motion.h"
#include "signal/signal.h"

/// What goes over the controller link, typed, for both of its ends (docs/link-protocol.md has the members). Reading
/// believes nothing: what does not fit is an error, or left out where it is one of many.
namespace rigging::link {

struct HelloReply {
  int protocol = protocol_version;
  std::string kind, firmware;
  bool simulated = false;
  int damaged_frames = 0;
  bool settings = true;  ///< false: the class has no settings over a link
};

/// Pulses as received, by function, µs; normalised.
struct ChannelsReply {
  std::map<std::string, double> us;
  bool unpowered = false;
};

struct SensorsReply {
  std::array<double, 3> rate_deg_s{};        ///< roll, pitch, yaw
  double battery_v = 0;                      ///< 0 without a measuring lead
  std::map<std::string, bool> ports;         ///< true where data arrives
  std::map<Sensor, SensorState> found = {};  ///< that it has, or is told to use
};

/// Readings since the last time; at most `most_motion_samples`, `most_slow_readings` and `most_satellite_bytes`.
using MotionReply = BoardReadings;
inline constexpr std::size_t most_motion_samples = 500, most_slow_readings = 100, most_satellite_bytes = 4096;

using StateReply = BoardState;
inline constexpr std::size_t most_refusals = 32;

/// What was on the receiver's wire since the last time.
struct ReceiverReply {
  Signal signal = Signal::inverted_serial;
  bool unpowered = false;
  std::vector<std::pair<double, std::string>> chunks;  ///< µs of the first byte, bytes
  std::vector<Edge> edges;
};

struct ImageReply {
  std::string bytes, hash;
};

Json to_json(const HelloReply& reply);
Json to_json(const ChannelsReply& reply);
Json to_json(const SensorsReply& reply);
Json to_json(const MotionReply& reply);
Json to_json(const StateReply& reply);
Json to_json(const ReceiverReply& reply);
Json to_json(const ImageReply& reply);

Result<HelloReply> hello_reply(const Json& body);
Result<ChannelsReply> channels_reply(const Json& body);
Result<SensorsReply> sensors_reply(const Json& body);
Result<MotionReply> motion_reply(const Json& body);
Result<StateReply> state_reply(const Json& body);
Result<ReceiverReply> receiver_reply(const Json& body);

/// Bytes as a CBOR byte string.
Json binary(std::string_view bytes);
std::optional<std::string> bytes_member(const Json& body, const char* name);

}  // namespace rigging::link
