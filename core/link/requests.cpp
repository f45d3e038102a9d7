#include "link/requests.h"

#include <algorithm>
#include <cmath>

#include "base/clean_text.h"
#include "link/messages.h"

namespace rigging::link {
namespace {

struct Form {
  std::string name;
  Json body = Json::object();
};

struct Writer {
  Form operator()(const Hello& r) const { return {"hello", {{"protocol", r.protocol}}}; }
  Form operator()(const Read&) const { return {"read"}; }
  Form operator()(const StageBegin& r) const { return {"stage_begin", {{"size", r.size}, {"hash", r.hash}}}; }
  Form operator()(const Stage& r) const {
    return {"stage", {{"offset", r.offset.value_or(0)}, {"bytes", binary(r.bytes)}}};
  }
  Form operator()(const Verify& r) const { return {"verify", {{"hash", r.hash}}}; }
  Form operator()(const Commit& r) const { return {"commit", {{"hash", r.hash}}}; }
  Form operator()(const ReadChannels&) const { return {"channels"}; }
  Form operator()(const ReadReceiver&) const { return {"receiver"}; }
  Form operator()(const ReadOutputs&) const { return {"outputs"}; }
  Form operator()(const ReadSensors&) const { return {"sensors"}; }
  Form operator()(const ReadMotion&) const { return {"motion"}; }
  Form operator()(const Drive& r) const { return {"drive", {{"output", r.socket}, {"level", r.level}}}; }
  Form operator()(const Release&) const { return {"release"}; }
  Form operator()(const ReadState&) const { return {"state"}; }
};

/// A whole number of bytes, at most `most`; nothing otherwise.
std::optional<std::size_t> size_member(const Json& body, const char* name, std::size_t most) {
  const double value = number_member(body, name, -1);
  if (!(value >= 0 && value <= static_cast<double>(most)) || value != std::floor(value)) return std::nullopt;
  return static_cast<std::size_t>(value);
}

}  // namespace

std::string request_name(const Request& request) { return std::visit(Writer{}, request).name; }
Json body_of(const Request& request) { return std::visit(Writer{}, request).body; }

Result<Request> request_of(const std::string& name, const Json& b) {
  if (name == "hello") return Hello{static_cast<int>(std::clamp(number_member(b, "protocol", 0), 0.0, 1e6))};
  if (name == "read") return Read{};
  if (name == "stage_begin")
    return StageBegin{size_member(b, "size", most_image_bytes).value_or(0), text_member(b, "hash")};
  if (name == "stage") return Stage{size_member(b, "offset", most_image_bytes), bytes_member(b, "bytes").value_or("")};
  if (name == "verify") return Verify{text_member(b, "hash")};
  if (name == "commit") return Commit{text_member(b, "hash")};
  if (name == "channels") return ReadChannels{};
  if (name == "receiver") return ReadReceiver{};
  if (name == "outputs") return ReadOutputs{};
  if (name == "sensors") return ReadSensors{};
  if (name == "motion") return ReadMotion{};
  if (name == "drive") {
    const double level = number_member(b, "level", 0);
    return Drive{text_member(b, "output"), std::isfinite(level) ? std::clamp(level, -1.0, 1.0) : 0};
  }
  if (name == "release") return Release{};
  if (name == "state") return ReadState{};
  return failure("link", "unknown request \"" + clean_text(name, 40) + "\"",
                 "one that docs/link-protocol.md describes");
}

}  // namespace rigging::link
