#include "ports.h"

#include <cmath>

#include "base/json.h"
#include "link/messages.h"

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
  const std::string what = text_member(r, "do");
  if (!bench_.awake()) return refused("no supply");
  if (what == "hello") {
    if (number_member(r, "protocol", 0) != link::protocol_version)
      return refused("protocol " + std::to_string(link::protocol_version) + " is spoken here");
    return link::to_json(link::HelloReply{link::protocol_version, bench_.controller().id, firmware_, true, damaged_,
                                          bench_.controller().link});
  }
  const bool settings =
      what == "read" || what == "stage_begin" || what == "stage" || what == "verify" || what == "commit";
  if (settings && !bench_.controller().link) return refused("this class has no settings over a link");
  if (what == "read") {
    const std::string bytes = link::image_bytes(bench_.image());
    return link::to_json(link::ImageReply{bytes, link::image_hash(bytes)});
  }
  if (what == "stage_begin") {
    const double size = number_member(r, "size", -1);
    if (!(size > 0 && size <= 32 * 1024)) return refused("the size must be 1 to 32768 bytes");
    staging_ = true;
    verified_ = false;
    staged_.clear();
    staged_size_ = static_cast<std::size_t>(size);
    staged_hash_ = text_member(r, "hash");
    return done();
  }
  if (what == "stage") {
    if (!staging_) return refused("nothing was begun");
    const auto it = r.find("bytes");
    if (it == r.end() || !it->is_binary()) return refused("no bytes");
    if (number_member(r, "offset", -1) != static_cast<double>(staged_.size()))
      return refused("out of order: offset " + std::to_string(staged_.size()) + " comes next");
    if (staged_.size() + it->get_binary().size() > staged_size_) return refused("more bytes than announced");
    staged_.append(it->get_binary().begin(), it->get_binary().end());
    verified_ = false;
    return done();
  }
  if (what == "verify") {
    if (!staging_ || staged_.size() != staged_size_) return refused("not all bytes are here");
    if (link::image_hash(staged_) != text_member(r, "hash") || staged_hash_ != text_member(r, "hash"))
      return refused("the hash does not match");
    const auto image = link::image_from_bytes(staged_, "staged");
    if (!image) return refused(image.error().text());
    for (const std::string& socket : image->subjects(SettingOf::output))
      if (!bench_.controller().socket(socket)) return refused("there is no socket " + socket);
    verified_ = true;
    return done();
  }
  if (what == "commit") {
    if (!verified_ || text_member(r, "hash") != staged_hash_) return refused("nothing verified to commit");
    auto image = link::image_from_bytes(staged_, "staged");
    if (!image) return refused(image.error().text());
    store_.save(staged_);
    bench_.configure(std::move(*image));
    staging_ = verified_ = false;
    staged_.clear();
    return done();
  }
  if (what == "channels") return link::to_json(link::ChannelsReply{bench_.channels(), !bench_.receiver_lit()});
  if (what == "receiver") {
    if (!bench_.controller().reads_channels) return refused("this class does not show what it receives");
    Transmitter::Wire wire = bench_.radio().take_wire();
    return link::to_json(
        link::ReceiverReply{wire.signal, !bench_.receiver_powered(), std::move(wire.chunks), std::move(wire.edges)});
  }
  if (what == "outputs") return {{"ok", true}, {"pulses", bench_.pulses()}};
  if (what == "sensors") {
    return link::to_json(link::SensorsReply{bench_.rates_deg_s(), bench_.loom().battery_v(), bench_.loom().ports()});
  }
  if (what == "drive") {
    if (!bench_.controller().drives_one_output) return refused("this class can't move one output alone");
    const double level = number_member(r, "level", 0);
    return done_or(bench_.drive(text_member(r, "output"), std::isfinite(level) ? level : 0));
  }
  if (what == "release") {
    bench_.release();
    return done();
  }
  if (what == "arm") {
    std::string why;
    for (const std::string& reason : bench_.arming_refusals()) why += (why.empty() ? "" : "; ") + reason;
    return refused(why);
  }
  return refused("unknown request \"" + what.substr(0, 40) + "\"");
}

HandsPort::HandsPort(Bench& bench, std::vector<std::string> shown) : bench_(bench), shown_(std::move(shown)) {}

std::string HandsPort::feed(std::string_view bytes) {
  int damaged = 0;
  return serve(reader_, bytes, damaged, [&](const Json& request) { return answer(request); });
}

Json HandsPort::answer(const Json& r) {
  const std::string what = text_member(r, "do");
  const auto number = [&](const char* name, double least, double most) {
    const double value = number_member(r, name, 0);
    return std::isfinite(value) ? std::clamp(value, least, most) : 0;
  };
  if (what == "hello")
    return {{"ok", true},
            {"protocol", link::protocol_version},
            {"simulated", true},
            {"rig", bench_.rig().name},
            {"faults", shown_}};
  if (what == "supply") {
    bench_.plug({flag_member(r, "usb", false), flag_member(r, "battery", false)});
    return done();
  }
  if (what == "stick") {
    if (text_member(r, "axis") == "throttle") {
      bench_.throttle(number("position", 0, 1));
      return done();
    }
    const auto axis = from_word<Axis>(text_member(r, "axis"));
    if (!axis) return refused("which stick? " + word_choice<Axis>() + " or throttle");
    bench_.stick(*axis, number("position", -1, 1));
    return done();
  }
  if (what == "hold") {
    bench_.hold({number("roll_deg", -90, 90), number("pitch_deg", -90, 90), number("yaw_deg", -180, 180)});
    return done();
  }
  if (what == "flick") {
    const auto axis = from_word<Axis>(text_member(r, "axis"));
    if (!axis) return refused("which axis? " + word_choice<Axis>());
    bench_.flick(*axis, number("sense", -1, 1) < 0 ? -1 : 1);
    return done();
  }
  const auto surface_named = [&]() -> std::optional<Surface> { return surface_from_word(text_member(r, "surface")); };
  if (what == "control") {
    bench_.radio().control(static_cast<int>(number("channel", 1, 16)), number("position", -1, 1));
    return done();
  }
  if (what == "read_transmitter") {
    Json channels = Json::array();
    for (const Channel& c : bench_.radio().settings())
      channels.push_back({{"channel", c.number},
                          {"reversed", c.reversed},
                          {"sub_trim_us", c.sub_trim_us},
                          {"travel_low_percent", c.travel_low_percent},
                          {"travel_high_percent", c.travel_high_percent}});
    return {{"ok", true}, {"channels", channels}};
  }
  if (what == "dial") {
    bench_.radio().dial(static_cast<int>(number("channel", 1, 16)), flag_member(r, "reversed", false),
                        number("sub_trim_us", -500, 500), number("travel_low_percent", 0, 200),
                        number("travel_high_percent", 0, 200));
    return done();
  }
  if (what == "clevis" || what == "tooth") {
    const auto surface = surface_named();
    if (!surface) return refused("which surface?");
    return done_or(what == "clevis" ? bench_.clevis(*surface, number("turns", -50, 50))
                                    : bench_.tooth(*surface, static_cast<int>(number("teeth", -12, 12))));
  }
  if (what == "set_output")
    return done_or(bench_.set_output(text_member(r, "output"), flag_member(r, "reversed", false),
                                     number("low_us", 500, 2500), number("centre_us", 500, 2500),
                                     number("high_us", 500, 2500)));
  if (what == "mode") {
    const auto mode = from_word<Mode>(text_member(r, "mode"));
    if (!mode || !bench_.controller().mode(*mode)) return refused("this class has no such mode");
    bench_.mode(*mode);
    return done();
  }
  if (what == "transmitter") {
    bench_.transmitter(flag_member(r, "on", true));
    return done();
  }
  if (what == "work") {
    const auto remedy = from_word<Remedy>(text_member(r, "work"));
    return remedy ? done_or(bench_.work(*remedy, r)) : refused("unknown work");
  }
  if (what == "inspect") {
    const auto seen = bench_.loom().inspect(text_member(r, "lead"));
    return seen ? *seen : refused(seen.error().text());
  }
  if (what == "mend") return done_or(bench_.loom().mend(text_member(r, "lead")));
  if (what == "look") {
    const Bench::Sight sight = bench_.look();
    Json surfaces = Json::object();
    for (const auto& [surface, deflection] : sight.deflection) surfaces[surface.word()] = deflection;
    return {{"ok", true},
            {"surfaces", surfaces},
            {"roll_deg", sight.pose_deg[0]},
            {"pitch_deg", sight.pose_deg[1]},
            {"yaw_deg", sight.pose_deg[2]},
            {"lamp", sight.lamp},
            {"servos_powered", sight.servos_powered},
            {"usb", bench_.supply().usb},
            {"battery", bench_.supply().battery},
            {"destroyed", bench_.loom().destroyed()}};
  }
  return refused("unknown request \"" + what.substr(0, 40) + "\"");
}

}  // namespace rigging::twin
