#include "link/controller_link.h"

namespace rigging::link {
namespace {

template <class TypeInfo>
bool is(const Request& request) {
  return std::holds_alternative<TypeInfo>(request);
}

}  // namespace

void ControllerLink::opened(double now_s) {
  closed();
  open_ = true;
  greet_at_s_ = poll_at_s_ = now_s;
  tick(now_s);
}

void ControllerLink::closed() {
  open_ = false;
  if (transaction_)
    end_write(false,
              "The link was cut while writing; the controller keeps its old configuration or has the whole new one. "
              "Read it again.");
  if (hello_) fall_silent();
  client_ = {};
  waiting_.clear();
  out_.clear();
  shows_receiver_ = shows_motion_ = true;
}

void ControllerLink::supply_out() {
  if (hello_) fall_silent();
}

void ControllerLink::fall_silent() {
  hello_.reset();
  lost_in_row_ = 0;
  if (transaction_) end_write(false, "The controller fell silent while writing. Read it again before you trust it.");
  waiting_.clear();
  events_.emplace_back(FellSilent{});
}

void ControllerLink::ask(const Request& request, double now_s, int tries, bool poll, bool step) {
  if (!open_) return;
  const auto [id, bytes] = client_.ask(request);
  out_ += bytes;
  waiting_.insert_or_assign(id, Asked{request, now_s + timing_.reply_s, tries, poll, step});
}

/// What has not been answered yet is not asked again.
void ControllerLink::poll(const Request& request, double now_s) {
  for (const auto& [id, a] : waiting_)
    if (a.request.index() == request.index()) return;
  ask(request, now_s, 1, true);
}

void ControllerLink::tick(double now_s) {
  if (!open_) return;
  std::vector<Asked> overdue;
  for (auto it = waiting_.begin(); it != waiting_.end();)
    if (now_s >= it->second.until_s) {
      client_.forget(it->first);
      overdue.push_back(std::move(it->second));
      it = waiting_.erase(it);
    } else {
      ++it;
    }
  for (const Asked& a : overdue) lost(a, now_s);
  if (!hello_) {
    if (now_s >= greet_at_s_) {
      greet_at_s_ = now_s + timing_.greet_s;
      ask(Hello{greet_protocol_}, now_s, 1, true);
    }
    return;
  }
  if (now_s < poll_at_s_) return;
  poll_at_s_ = now_s + timing_.poll_s;
  poll(++polls_ % 8 == 0 ? Request(ReadSensors{}) : ReadChannels{}, now_s);
  if (shows_state_ && polls_ % 8 == 4) poll(ReadState{}, now_s);
  if (shows_receiver_) poll(ReadReceiver{}, now_s);
  if (shows_motion_ && polls_ % 2 == 0) poll(ReadMotion{}, now_s);
}

void ControllerLink::lost(const Asked& a, double now_s) {
  if (is<Hello>(a.request)) return;
  if (hello_ && ++lost_in_row_ >= timing_.lost_in_row) return fall_silent();
  if (a.step) {
    if (!transaction_) return;
    transaction_->timed_out();
    return next_step(now_s);
  }
  if (a.poll) return;
  if (a.tries_left > 1) return ask(a.request, now_s, a.tries_left - 1, false);
  events_.emplace_back(Problem{"The controller did not answer \"" + label_of(request_name(a.request)) + "\"."});
}

void ControllerLink::received(std::string_view bytes, double now_s) {
  if (!open_) return;
  for (auto& item : client_.feed(bytes)) {
    if (const auto* error = std::get_if<Error>(&item)) {
      events_.emplace_back(Problem{error->text()});
      continue;
    }
    answered(std::get<Reply>(item), now_s);
  }
}

void ControllerLink::answered(const Reply& reply, double now_s) {
  const auto it = waiting_.find(reply.id);
  if (it == waiting_.end()) return;
  const Asked a = std::move(it->second);
  waiting_.erase(it);
  lost_in_row_ = 0;
  if (a.step) {
    if (!transaction_) return;
    transaction_->answered(reply);
    return next_step(now_s);
  }
  if (is<Hello>(a.request)) {
    if (!reply.ok()) {  // without supply, or an old one that knows protocol 1 alone; greeting goes on
      if (!hello_) greet_protocol_ = greet_protocol_ == protocol_version ? 1 : protocol_version;
      return;
    }
    auto hello = hello_reply(reply.body);
    if (hello_) {
      if (hello) hello_->protocol = hello->protocol;
      return;
    }
    if (!hello) {
      events_.emplace_back(Problem{hello.error().text()});
      return;
    }
    hello_ = *hello;
    shows_receiver_ = shows_motion_ = shows_state_ = true;
    events_.emplace_back(Greeted{*hello});
    // Greeted by the lower one for want of supply, perhaps: one that knows more says so.
    if (std::exchange(greet_protocol_, protocol_version) < protocol_version)
      ask(Hello{protocol_version}, now_s, 1, true);
    if (hello->settings) read_board(now_s);
    return;
  }
  const auto take = [&](auto&& read) {
    if (auto message = read(reply.body))
      events_.emplace_back(std::move(*message));
    else
      events_.emplace_back(Problem{message.error().text()});
  };
  if (is<ReadReceiver>(a.request) && !reply.ok()) {
    shows_receiver_ = false;
  } else if (is<ReadMotion>(a.request) && !reply.ok()) {
    shows_motion_ = false;
  } else if (is<ReadState>(a.request) && !reply.ok()) {
    shows_state_ = false;
  } else if (!reply.ok()) {
    if (!a.poll) events_.emplace_back(Problem{"The controller refuses: " + reply.refused()});
  } else if (is<ReadChannels>(a.request)) {
    take(channels_reply);
  } else if (is<ReadSensors>(a.request)) {
    take(sensors_reply);
  } else if (is<ReadReceiver>(a.request)) {
    take(receiver_reply);
  } else if (is<ReadMotion>(a.request)) {
    // One that answers nonsense is not asked every time again.
    shows_motion_ = motion_reply(reply.body).has_value();
    take(motion_reply);
  } else if (is<ReadState>(a.request)) {
    shows_state_ = state_reply(reply.body).has_value();
    take(state_reply);
  } else if (is<Read>(a.request)) {
    if (auto image = image_in(reply))
      events_.emplace_back(BoardRead{std::move(*image)});
    else
      events_.emplace_back(Problem{image.error().text()});
  }
}

void ControllerLink::write(const Image& image, double now_s) {
  if (transaction_) return;
  if (!hello_) {
    events_.emplace_back(Written{false, "No controller answers", {}});
    return;
  }
  transaction_.emplace(image, hello_->protocol);
  next_step(now_s);
}

void ControllerLink::next_step(double now_s) {
  if (transaction_->failed()) return end_write(false, transaction_->problem());
  if (transaction_->done()) {
    auto image = image_from_bytes(transaction_->bytes(), "board");
    return end_write(true, "Written to the controller and read back",
                     image ? std::optional(std::move(*image)) : std::nullopt);
  }
  if (auto request = transaction_->next()) ask(*request, now_s, 1, false, true);
}

void ControllerLink::end_write(bool good, std::string words, std::optional<Image> image) {
  transaction_.reset();
  events_.emplace_back(Written{good, std::move(words), std::move(image)});
}

}  // namespace rigging::link
