#pragma once

#include <map>

#include "base/json.h"
#include "link/frame.h"
#include "link/image.h"
#include "link/requests.h"

namespace rigging::link {

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
  /// A request's id and bytes. Requests are answered one by one, in any order.
  std::pair<int, std::string> ask(const std::string& what, Json body = Json::object());
  std::pair<int, std::string> ask(const Request& request) { return ask(request_name(request), body_of(request)); }
  /// No longer waits for this one; a late reply to it is passed over.
  void forget(int id);
  /// Replies and problems that came out of the bytes.
  std::vector<std::variant<Reply, Error>> feed(std::string_view bytes);
  std::size_t open_requests() const { return open_.size(); }

 private:
  FrameReader reader_;
  std::map<int, std::string> open_;
  std::map<int, std::string> late_;  ///< given up lately
  int next_id_ = 1;
};

/// Writes a whole configuration: stage in pieces, verify by hash, commit, read back and compare. Until the commit is
/// carried out the controller works with its old configuration.
class WriteTransaction {
 public:
  explicit WriteTransaction(const Image& image, int protocol = protocol_version);

  /// The request to send now; no value when the transaction is over.
  std::optional<Request> next() const;
  void answered(const Reply& reply);
  /// No reply to the last request came in time. A lost commit is settled by reading; everything else begins anew, which
  /// the controller's staging allows, for a few times.
  void timed_out();
  /// The configuration's bytes.
  const std::string& bytes() const { return bytes_; }

  bool done() const { return step_ == Step::done; }
  bool failed() const { return step_ == Step::failed; }
  const std::string& problem() const { return problem_; }

 private:
  enum class Step { begin, stage, verify, commit, read_back, done, failed };
  void fail(std::string problem);
  void begin_again();

  std::string bytes_, hash_, problem_;
  std::size_t offset_ = 0;
  int begun_ = 1;
  bool settling_ = false;  ///< reading to see whether a commit whose reply was lost was carried out
  Step step_ = Step::begin;
};

/// The configuration in the reply to "read".
Result<Image> image_in(const Reply& reply);

}  // namespace rigging::link
