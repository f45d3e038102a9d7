#pragma once

#include <map>

#include "base/json.h"
#include "link/frame.h"
#include "link/image.h"

namespace rigging::link {

inline constexpr int protocol_version = 1;

struct Reply {
  int id = 0;
  std::string request;  ///< what was asked: "hello", "read", …
  Json body;
  bool ok() const { return flag_member(body, "ok", false); }
  /// Why the controller refused.
  std::string refused() const { return text_member(body, "refused", "no reason given"); }
};

/// Our end of a link: bytes out, bytes in. Knows nothing about sockets and time.
class Client {
 public:
  /// Bytes of a request; `body` gets an id. Requests are answered one by one, in any order.
  std::string ask(const std::string& what, Json body = Json::object());
  /// Replies and problems that came out of the bytes.
  std::vector<std::variant<Reply, Error>> feed(std::string_view bytes);
  std::size_t open_requests() const { return open_.size(); }

 private:
  FrameReader reader_;
  std::map<int, std::string> open_;
  int next_id_ = 1;
};

/// Writes a whole configuration: stage in pieces, verify by hash, commit, read back and compare. Until the commit is
/// carried out the controller works with its old configuration.
class WriteTransaction {
 public:
  explicit WriteTransaction(const Image& image);

  struct Request {
    std::string what;
    Json body;
  };
  /// The request to send now; no value when the transaction is over.
  std::optional<Request> next() const;
  void answered(const Reply& reply);

  bool done() const { return step_ == Step::done; }
  bool failed() const { return step_ == Step::failed; }
  const std::string& problem() const { return problem_; }

 private:
  enum class Step { begin, stage, verify, commit, read_back, done, failed };
  void fail(std::string problem);

  std::string bytes_, hash_, problem_;
  std::size_t offset_ = 0;
  Step step_ = Step::begin;
};

/// The configuration in the reply to "read".
Result<Image> image_in(const Reply& reply);

}  // namespace rigging::link
