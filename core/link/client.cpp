#include "link/client.h"

#include <utility>

#include "base/json.h"
#include "link/messages.h"

namespace rigging::link {
namespace {

constexpr std::size_t piece_bytes = 1024;
constexpr int most_beginnings = 4;

}  // namespace

std::pair<int, std::string> Client::ask(const std::string& what, Json body) {
  const int id = next_id_++;
  open_[id] = what;
  body["id"] = id;
  body["do"] = what;
  return {id, encode_frame(body)};
}

void Client::forget(int id) {
  const auto it = open_.find(id);
  if (it == open_.end()) return;
  late_.insert(open_.extract(it));
  while (late_.size() > 64) late_.erase(late_.begin());
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
    if (open == open_.end() && id != body.end() && id->is_number_integer() && late_.erase(id->get<int>())) continue;
    if (open == open_.end() || !body.contains("ok") || !body["ok"].is_boolean()) {
      out.emplace_back(Error{"link", "a reply that nothing was asked for", "the id of an open request"});
      continue;
    }
    out.emplace_back(Reply{open->first, open->second, std::move(body)});
    open_.erase(open);
  }
  return out;
}

WriteTransaction::WriteTransaction(const Image& image, int protocol)
    : bytes_(image_bytes(image, protocol)), hash_(image_hash(bytes_)) {}

std::optional<Request> WriteTransaction::next() const {
  switch (step_) {
    case Step::begin: return StageBegin{bytes_.size(), hash_};
    case Step::stage: return Stage{offset_, bytes_.substr(offset_, piece_bytes)};
    case Step::verify: return Verify{hash_};
    case Step::commit: return Commit{hash_};
    case Step::read_back: return Read{};
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
  if (!reply.ok()) return fail("The controller refused to " + label_of(reply.request) + ": " + reply.refused());
  switch (step_) {
    case Step::begin: step_ = Step::stage; break;
    case Step::stage:
      offset_ += piece_bytes;
      if (offset_ >= bytes_.size()) step_ = Step::verify;
      break;
    case Step::verify: step_ = Step::commit; break;
    case Step::commit: step_ = Step::read_back; break;
    case Step::read_back:
      if (bytes_member(reply.body, "image") == bytes_) {
        step_ = Step::done;
      } else if (std::exchange(settling_, false)) {
        begin_again();  // the commit never arrived
      } else {
        return fail("What was read back is not what was written");
      }
      break;
    case Step::done:
    case Step::failed: break;
  }
}

void WriteTransaction::begin_again() {
  if (++begun_ > most_beginnings) return fail("The controller did not answer while it was written to. Read it again.");
  offset_ = 0;
  step_ = Step::begin;
}

void WriteTransaction::timed_out() {
  if (done() || failed()) return;
  if (step_ == Step::commit) {
    settling_ = true;
    step_ = Step::read_back;
    return;
  }
  // A read whose reply was lost is read again; what was staged so far may have got lost on the way.
  if (step_ == Step::read_back) {
    if (++begun_ > most_beginnings) fail("The controller did not answer when it was read back. Read it again.");
    return;
  }
  begin_again();
}

Result<Image> image_in(const Reply& reply) {
  if (!reply.ok()) return failure("link", "the controller refused to read: " + reply.refused());
  const auto bytes = bytes_member(reply.body, "image");
  if (!bytes) return failure("link", "the reply holds no configuration", "bytes under \"image\"");
  if (image_hash(*bytes) != text_member(reply.body, "hash"))
    return failure("link", "the configuration does not match its hash", "an undamaged configuration");
  return image_from_bytes(*bytes, "board");
}

}  // namespace rigging::link
