#include "ports.h"

#include <algorithm>

#include "base/json.h"
#include "link/messages.h"
#include "link/requests.h"

namespace rigging::twin {
namespace {

Json refused(const std::string& why) { return {{"ok", false}, {"refused", why}}; }
Json done() { return {{"ok", true}}; }
Json done_or(const Result<void>& r) { return r ? done() : refused(r.error().text()); }

/// Takes frames apart, lets `answer` reply to each, and counts what was damaged.
template <class Answer>
std::string serve(link::FrameReader& reader, std::string_view bytes, int& damaged, Answer&& answer) {
  std::string out;
  reader.feed(bytes);
  while (!reader.empty()) {
    const link::Received received = reader.take();
    const Json* request = std::get_if<Json>(&received);
    if (!request || !request->contains("id") || !(*request)["id"].is_number_integer()) {
      ++damaged;
      continue;
    }
    Json reply = answer(*request);
    reply["id"] = (*request)["id"];
    out += link::encode_frame(reply);
  }
  return out;
}

}  // namespace

ControllerPort::ControllerPort(Bench& bench, Store& store, std::string firmware)
    : bench_(bench), store_(store), firmware_(std::move(firmware)) {
  if (const auto kept = store_.load())
    if (auto image = link::image_from_bytes(*kept, "store")) bench_.configure(std::move(*image));
}

void ControllerPort::disconnected() {
  staging_ = verified_ = false;
  staged_.clear();
  reader_ = {};
  bench_.release();
}

std::string ControllerPort::feed(std::string_view bytes) {
  return serve(reader_, bytes, damaged_, [&](const Json& request) { return answer(request); });
}

Json ControllerPort::answer(const Json& r) {
  if (!bench_.awake()) return refused("no supply");
  const auto request = link::request_of(text_member(r, "do"), r);
  if (!request) return refused(request.error().text());
  const auto is_setting = [](const auto& asked) {
    using Asked = std::decay_t<decltype(asked)>;
    return std::is_same_v<Asked, link::Read> || std::is_same_v<Asked, link::StageBegin> ||
           std::is_same_v<Asked, link::Stage> || std::is_same_v<Asked, link::Verify> ||
           std::is_same_v<Asked, link::Commit>;
  };
  if (std::visit(is_setting, *request) && !bench_.controller().link)
    return refused("this class has no settings over a link");
  return std::visit([this](const auto& asked) { return carry_out(asked); }, *request);
}

Json ControllerPort::carry_out(const link::Hello& r) {
  if (r.protocol < 1) return refused("protocol 1 to " + std::to_string(link::protocol_version) + " is spoken here");
  protocol_ = std::min(r.protocol, link::protocol_version);
  return link::to_json(
      link::HelloReply{protocol_, bench_.controller().id, firmware_, true, damaged_, bench_.controller().link});
}
Json ControllerPort::carry_out(const link::Read&) {
  const std::string bytes = link::image_bytes(bench_.image(), protocol_);
  return link::to_json(link::ImageReply{bytes, link::image_hash(bytes)});
}
Json ControllerPort::carry_out(const link::StageBegin& r) {
  if (r.size == 0) return refused("the size must be 1 to " + std::to_string(link::most_image_bytes) + " bytes");
  staging_ = true;
  verified_ = false;
  staged_.clear();
  staged_size_ = r.size;
  staged_hash_ = r.hash;
  return done();
}
Json ControllerPort::carry_out(const link::Stage& r) {
  if (!staging_) return refused("nothing was begun");
  if (r.bytes.empty()) return refused("no bytes");
  if (r.offset != staged_.size())
    return refused("out of order: offset " + std::to_string(staged_.size()) + " comes next");
  if (staged_.size() + r.bytes.size() > staged_size_) return refused("more bytes than announced");
  staged_ += r.bytes;
  verified_ = false;
  return done();
}
Json ControllerPort::carry_out(const link::Verify& r) {
  if (!staging_ || staged_.size() != staged_size_) return refused("not all bytes are here");
  if (link::image_hash(staged_) != r.hash || staged_hash_ != r.hash) return refused("the hash does not match");
  const auto image = link::image_from_bytes(staged_, "staged");
  if (!image) return refused(image.error().text());
  for (const SettingOf of : {SettingOf::output, SettingOf::port})
    for (const std::string& socket : image->subjects(of))
      if (!bench_.controller().terminal(socket)) return refused("there is no socket " + socket);
  verified_ = true;
  return done();
}
Json ControllerPort::carry_out(const link::Commit& r) {
  if (!verified_ || r.hash != staged_hash_) return refused("nothing verified to commit");
  auto image = link::image_from_bytes(staged_, "staged");
  if (!image) return refused(image.error().text());
  store_.save(staged_);
  bench_.configure(std::move(*image));
  staging_ = verified_ = false;
  staged_.clear();
  return done();
}
Json ControllerPort::carry_out(const link::ReadChannels&) {
  return link::to_json(link::ChannelsReply{bench_.channels(), !bench_.receiver_lit()});
}
Json ControllerPort::carry_out(const link::ReadReceiver&) {
  if (!bench_.controller().sticks.reads_channels) return refused("this class does not show what it receives");
  Transmitter::Wire wire = bench_.radio().take_wire();
  return link::to_json(
      link::ReceiverReply{wire.signal, !bench_.receiver_powered(), std::move(wire.chunks), std::move(wire.edges)});
}
Json ControllerPort::carry_out(const link::ReadOutputs&) { return {{"ok", true}, {"pulses", bench_.pulses()}}; }
Json ControllerPort::carry_out(const link::ReadSensors&) {
  return link::to_json(
      link::SensorsReply{bench_.rates_deg_s(), bench_.harness().battery_v(), bench_.harness().ports(), bench_.found()});
}
Json ControllerPort::carry_out(const link::ReadMotion&) {
  if (!bench_.controller().senses.shows_motion) return refused("this class does not show what its sensors read");
  return link::to_json(bench_.take_readings());
}
Json ControllerPort::carry_out(const link::Drive& r) {
  if (!bench_.controller().surfaces.drives_one_output) return refused("this class can't move one output alone");
  return done_or(bench_.drive(r.socket, r.level));
}
Json ControllerPort::carry_out(const link::Release&) {
  bench_.release();
  return done();
}
Json ControllerPort::carry_out(const link::ReadState&) {
  if (!bench_.controller().home.tells_state) return refused("this class does not tell what it does");
  return link::to_json(bench_.state());
}

HandsPort::HandsPort(Bench& bench, std::vector<std::string> shown, FlyingTruth air, bool time_by_hands)
    : bench_(bench), air_(std::move(air)), time_by_hands_(time_by_hands), shown_(std::move(shown)) {}

std::string HandsPort::feed(std::string_view bytes) {
  int damaged = 0;
  return serve(reader_, bytes, damaged, [&](const Json& request) { return answer(request); });
}

Json HandsPort::answer(const Json& r) {
  const std::string what = text_member(r, "do");
  if (what == "hello")
    return {{"ok", true},
            {"protocol", link::protocol_version},
            {"simulated", true},
            {"rig", bench_.rig().name},
            {"faults", shown_}};
  const auto request = hands::request_of(what, r);
  if (!request) return refused(request.error().text());
  return std::visit([this](const auto& asked) { return carry_out(asked); }, *request);
}

Json HandsPort::carry_out(const hands::Supply& r) {
  bench_.plug({r.usb, r.battery});
  return done();
}
Json HandsPort::carry_out(const hands::Stick& r) {
  if (r.axis)
    bench_.stick(*r.axis, r.position);
  else
    bench_.throttle(r.position);
  return done();
}
Json HandsPort::carry_out(const hands::Hold& r) {
  bench_.hold({r.roll_deg, r.pitch_deg, r.yaw_deg});
  return done();
}
Json HandsPort::carry_out(const hands::Flick& r) {
  bench_.flick(r.axis, r.sense);
  return done();
}
Json HandsPort::carry_out(const hands::ChooseMode& r) {
  if (!bench_.controller().mode(r.mode)) return refused("this class has no such mode");
  bench_.mode(r.mode);
  return done();
}
Json HandsPort::carry_out(const hands::SwitchTransmitter& r) {
  bench_.transmitter(r.on);
  return done();
}
Json HandsPort::carry_out(const hands::TurnControl& r) {
  bench_.turn_control(r.channel, r.position);
  return done();
}
Json HandsPort::carry_out(const hands::PressButton&) {
  bench_.press_button();
  return done();
}
Json HandsPort::carry_out(const hands::ReadTransmitter&) { return hands::to_json(bench_.radio().settings()); }
Json HandsPort::carry_out(const hands::Dial& r) {
  const Channel& c = r.channel;
  bench_.radio().dial(std::clamp(c.number, 1, 16), c.reversed, c.sub_trim_us, c.travel_low_percent,
                      c.travel_high_percent);
  return done();
}
Json HandsPort::carry_out(const hands::Clevis& r) { return done_or(bench_.clevis(r.surface, r.turns)); }
Json HandsPort::carry_out(const hands::Tooth& r) { return done_or(bench_.tooth(r.surface, r.teeth)); }
Json HandsPort::carry_out(const hands::SetOutput& r) {
  const Output& o = r.output;
  return done_or(bench_.set_output(o.id, o.reversed, o.low_us, o.centre_us, o.high_us));
}
Json HandsPort::carry_out(const hands::Inspect& r) {
  const auto seen = bench_.harness().inspect(r.lead);
  return seen ? *seen : refused(seen.error().text());
}
Json HandsPort::carry_out(const hands::Mend& r) { return done_or(bench_.harness().mend(r.lead)); }
Json HandsPort::carry_out(const hands::Work& r) { return done_or(bench_.work(r)); }
Json HandsPort::carry_out(const hands::PushTube& r) {
  bench_.push_tube(r.pressure_pa);
  return done();
}
Json HandsPort::carry_out(const hands::TurnGain& r) { return done_or(bench_.turn_gain(r.gain)); }
Json HandsPort::carry_out(const hands::Fly& r) {
  const auto flight = fly(bench_, air_, r.plan);
  if (!flight) return refused(flight.error().text());
  flight_ = flight->csv();
  return {{"ok", true}, {"simulated", true}, {"size", flight_.size()}, {"end", flight->end}};
}
Json HandsPort::carry_out(const hands::ReadFlight& r) {
  if (r.from >= flight_.size()) return refused("there is no flight, or no more of it");
  constexpr std::size_t piece = 24 * 1024;
  return hands::to_json(hands::FlightPiece{r.from, flight_.size(), flight_.substr(r.from, piece)});
}
Json HandsPort::carry_out(const hands::PassTime& r) {
  if (!time_by_hands_) return refused("time passes by itself here");
  pass_time(bench_, r.s);
  return done();
}
Json HandsPort::carry_out(const hands::Look&) {
  const Bench::Sight seen = bench_.look();
  hands::Sight sight;
  sight.deflections = {seen.deflection.begin(), seen.deflection.end()};
  sight.roll_deg = seen.pose_deg[0];
  sight.pitch_deg = seen.pose_deg[1];
  sight.yaw_deg = seen.pose_deg[2];
  sight.lamp = seen.lamp;
  sight.servos_powered = seen.servos_powered;
  sight.usb = bench_.supply().usb;
  sight.battery = bench_.supply().battery;
  const auto& destroyed = bench_.harness().destroyed();
  sight.destroyed = {destroyed.begin(), destroyed.end()};
  return hands::to_json(sight);
}

}  // namespace rigging::twin
