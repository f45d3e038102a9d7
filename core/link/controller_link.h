#pragma once

#include <deque>

#include "link/client.h"
#include "link/messages.h"

namespace rigging::link {

/// What came out of a link, oldest first.
struct Greeted {
  HelloReply hello;
};
struct FellSilent {};  ///< it answered, and does not any more
struct BoardRead {
  Image image;
};
struct Written {
  bool good = false;
  std::string words;
  std::optional<Image> image;  ///< as read back
};
struct Problem {
  std::string words;
};
using LinkEvent = std::variant<Greeted, FellSilent, ChannelsReply, SensorsReply, ReceiverReply, MotionReply, StateReply,
                               BoardRead, Written, Problem>;

/// Our end of a controller link over any stream of bytes: greets until it is answered, polls, asks again what was not
/// answered in time, and notices when nobody answers any more. It has no clock: every call brings the time, in seconds
/// from any start. Nothing that is lost on the way stops it.
class ControllerLink {
 public:
  struct Timing {
    double reply_s = 0.6;  ///< after which a reply counts as lost
    double greet_s = 0.3;  ///< between greetings
    double poll_s = 0.033;
    int tries = 4;        ///< for what was asked on purpose
    int lost_in_row = 6;  ///< lost polls after which the controller counts as silent
  };
  ControllerLink() : ControllerLink(Timing{}) {}
  explicit ControllerLink(Timing timing) : timing_(timing) {}

  /// The stream is there; greeting begins. It went away: what was being written is given up, and said.
  void opened(double now_s);
  void closed();
  void received(std::string_view bytes, double now_s);
  /// To be called every few milliseconds.
  void tick(double now_s);
  /// Bytes to send, once.
  std::string take_bytes() { return std::exchange(out_, {}); }
  std::vector<LinkEvent> take_events() { return std::exchange(events_, {}); }

  bool answers() const { return hello_.has_value(); }
  const std::optional<HelloReply>& hello() const { return hello_; }
  bool writing() const { return transaction_.has_value(); }
  /// The supply is known to be out: no need to wait until polls are lost.
  void supply_out();

  void read_board(double now_s) { wish(Read{}, now_s); }
  void drive(const std::string& socket, double level, double now_s) { wish(Drive{socket, level}, now_s); }
  void release(double now_s) { wish(Release{}, now_s); }
  /// Stages, verifies, commits and reads back; the end is an event. Ignored while another is under way.
  void write(const Image& image, double now_s);

 private:
  struct Asked {
    Request request;
    double until_s;
    int tries_left;
    bool poll, step;
  };
  void ask(const Request& request, double now_s, int tries, bool poll, bool step = false);
  void wish(const Request& request, double now_s) { ask(request, now_s, timing_.tries, false); }
  void poll(const Request& request, double now_s);
  void next_step(double now_s);
  void end_write(bool good, std::string words, std::optional<Image> image = {});
  void answered(const Reply& reply, double now_s);
  void lost(const Asked& asked, double now_s);
  void fall_silent();
  Timing timing_;
  bool open_ = false;
  Client client_;
  std::map<int, Asked> waiting_;
  std::optional<HelloReply> hello_;
  std::optional<WriteTransaction> transaction_;
  int greet_protocol_ = protocol_version;
  double greet_at_s_ = 0, poll_at_s_ = 0;
  int polls_ = 0, lost_in_row_ = 0;
  bool shows_receiver_ = true, shows_motion_ = true, shows_state_ = true;
  std::string out_;
  std::vector<LinkEvent> events_;
};

}  // namespace rigging::link
