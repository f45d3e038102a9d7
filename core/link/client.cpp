#include "link/client.h"

#include "base/json.h"

namespace rigging::link {
namespace {

constexpr std::size_t piece_bytes = 1024;

Json binary(std::string_view bytes) { return Json::binary(std::vector<std::uint8_t>(bytes.begin(), bytes.end())); }

std::optional<std::string> bytes_in(const Json& body, const char* name) {
  const auto it = body.find(name);
  if (it == body.end() || !it->is_binary()) return std::nullopt;
  const auto& data = it->get_binary();
  return std::string(data.begin(), data.end());
}

}  // namespace

std::string Client::ask(const std::string& what, Json body) {
  const int id = next_id_++;
  open_[id] = what;
  body["id"] = id;
  body["do"] = what;
  return encode_frame(body);
}

std::vector<std::variant<Reply, Error>> Client::feed(std::string_view bytes) {
  std::vector<std::variant<Reply, Error>> out;
  reader_.feed(bytes);
  while (!reader_.empty()) {
    Received received = reader_.take();
    if (auto* error = std::get_if<Error>(&received)) {
      out.emplace_back(std::move(*error));
      continue;
    }
    Json& body = std::get<Json>(received);
    const auto id = body.find("id");
    const auto open = id != body.end() && id->is_number_integer() ? open_.find(id->get<int>()) : open_.end();
    if (open == open_.end() || !body.contains("ok") || !body["ok"].is_boolean()) {
      out.emplace_back(Error{"link", "a reply that nothing was asked for", "the id of an open request"});
      continue;
    }
    out.emplace_back(Reply{open->first, open->second, std::move(body)});
    open_.erase(open);
  }
  return out;
}

WriteTransaction::WriteTransaction(const Image& image) : bytes_(image_bytes(image)), hash_(image_hash(bytes_)) {}

std::optional<WriteTransaction::Request> WriteTransaction::next() const {
  switch (step_) {
    case Step::begin: return Request{"stage_begin", {{"size", bytes_.size()}, {"hash", hash_}}};
    case Step::stage:
      return Request{"stage",
                     {{"offset", offset_}, {"bytes", binary(std::string_view(bytes_).substr(offset_, piece_bytes))}}};
    case Step::verify: return Request{"verify", {{"hash", hash_}}};
    case Step::commit: return Request{"commit", {{"hash", hash_}}};
    case Step::read_back: return Request{"read", Json::object()};
    case Step::done:
    case Step::failed: return std::nullopt;
  }
  return std::nullopt;
}

void WriteTransaction::fail(std::string problem) {
  problem_ = std::move(problem);
  step_ = Step::failed;
}

void WriteTransaction::answered(const Reply& reply) {
  if (done() || failed()) return;
  if (!reply.ok()) return fail("The controller refused to " + spoken(reply.request) + ": " + reply.refused());
  switch (step_) {
    case Step::begin: step_ = Step::stage; break;
    case Step::stage:
      offset_ += piece_bytes;
      if (offset_ >= bytes_.size()) step_ = Step::verify;
      break;
    case Step::verify: step_ = Step::commit; break;
    case Step::commit: step_ = Step::read_back; break;
    case Step::read_back:
      if (bytes_in(reply.body, "image") != bytes_) return fail("What was read back is not what was written");
      step_ = Step::done;
      break;
    case Step::done:
    case Step::failed: break;
  }
}

Result<Image> image_in(const Reply& reply) {
  if (!reply.ok()) return failure("link", "the controller refused to read: " + reply.refused());
  const auto bytes = bytes_in(reply.body, "image");
  if (!bytes) return failure("link", "the reply holds no configuration", "bytes under \"image\"");
  if (image_hash(*bytes) != text_member(reply.body, "hash"))
    return failure("link", "the configuration does not match its hash", "an undamaged configuration");
  return image_from_bytes(*bytes, "board");
}

}  // namespace rigging::link
