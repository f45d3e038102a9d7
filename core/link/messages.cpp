#include "link/messages.h"

#include <limits>

#include <cmath>

#include "base/clean_text.h"

namespace rigging::link {
namespace {

constexpr std::size_t longest_text = 40;  // of what a board says of itself

template <class Value>
void take_map(const Json& body, const char* name, std::map<std::string, Value>& into) {
  const auto it = body.find(name);
  if (it == body.end() || !it->is_object()) return;
  for (const auto& [key, value] : it->items()) {
    if constexpr (std::is_same_v<Value, bool>) {
      if (value.is_boolean()) into[key] = value.template get<bool>();
    } else {
      if (value.is_number()) into[key] = value.template get<double>();
    }
  }
}

}  // namespace

Json binary(std::string_view bytes) { return Json::binary(std::vector<std::uint8_t>(bytes.begin(), bytes.end())); }

std::optional<std::string> bytes_member(const Json& body, const char* name) {
  const auto it = body.is_object() ? body.find(name) : body.end();
  if (it == body.end() || !it->is_binary()) return std::nullopt;
  const auto& data = it->get_binary();
  return std::string(data.begin(), data.end());
}

Json to_json(const HelloReply& r) {
  return {{"ok", true},
          {"protocol", r.protocol},
          {"kind", r.kind},
          {"firmware", r.firmware},
          {"simulated", r.simulated},
          {"damaged_frames", r.damaged_frames},
          {"settings", r.settings}};
}

Json to_json(const ChannelsReply& r) { return {{"ok", true}, {"channels", r.us}, {"dark", r.unpowered}}; }

Json to_json(const SensorsReply& r) {
  Json found = Json::object();
  for (const auto& [sensor, state] : r.found) found[std::string(name_of(sensor))] = name_of(state);
  return {{"ok", true},
          {"roll_deg_s", r.rate_deg_s[0]},
          {"pitch_deg_s", r.rate_deg_s[1]},
          {"yaw_deg_s", r.rate_deg_s[2]},
          {"battery_v", r.battery_v},
          {"ports", r.ports},
          {"found", std::move(found)}};
}

Json to_json(const StateReply& r) {
  Json json{{"ok", true},
            {"mode", r.mode},
            {"link_lost", r.link_lost},
            {"on_loss", r.on_loss},
            {"battery_low", r.battery_low},
            {"can_arm", r.can_arm},
            {"satellites", r.satellites},
            {"refuses", Json::array()}};
  for (const StateReply::Refusal& x : r.refuses) {
    Json one{{"why", name_of(x.why)}};
    if (!x.of.empty()) one["of"] = x.of;
    json["refuses"].push_back(std::move(one));
  }
  return json;
}

Json to_json(const MotionReply& r) {
  Json json{{"ok", true}, {"samples", Json::array()}};
  for (const MotionSample& s : r.samples) {
    Json row{s.t_s,           s.force_m_s2.x(), s.force_m_s2.y(), s.force_m_s2.z(), s.rate_deg_s.x(), s.rate_deg_s.y(),
             s.rate_deg_s.z()};
    if (s.field_ut)
      for (const double v : {s.field_ut->x(), s.field_ut->y(), s.field_ut->z()}) row.push_back(v);
    json["samples"].push_back(std::move(row));
  }
  if (!r.slow.empty()) {
    const auto or_null = [](const std::optional<double>& v) { return v ? Json(*v) : Json(); };
    for (const SlowReading& s : r.slow)
      json["slow"].push_back(
          {s.t_s, s.temperature_c, or_null(s.pressure_pa), or_null(s.pitot_pa), or_null(s.current_a)});
  }
  if (!r.satellite_bytes.empty()) json["satellites"] = binary(r.satellite_bytes);
  return json;
}

Json to_json(const ReceiverReply& r) {
  Json json{{"ok", true},
            {"signal", name_of(r.signal)},
            {"dark", r.unpowered},
            {"chunks", Json::array()},
            {"edges", Json::array()}};
  for (const auto& [t_us, bytes] : r.chunks) json["chunks"].push_back({{"t_us", t_us}, {"bytes", binary(bytes)}});
  for (const Edge& e : r.edges) json["edges"].push_back({e.t_us, e.high, e.line});
  return json;
}

Json to_json(const ImageReply& r) { return {{"ok", true}, {"image", binary(r.bytes)}, {"hash", r.hash}}; }

Result<HelloReply> hello_reply(const Json& body) {
  HelloReply r;
  const double protocol = number_member(body, "protocol", 0);
  if (!(protocol >= 1 && protocol <= protocol_version))
    return failure("link", "the controller speaks no protocol that is known here",
                   "protocol 1 to " + std::to_string(protocol_version));
  r.protocol = static_cast<int>(protocol);
  r.kind = clean_text(text_member(body, "kind"), longest_text);
  r.firmware = clean_text(text_member(body, "firmware"), longest_text);
  r.simulated = flag_member(body, "simulated", false);
  r.damaged_frames = static_cast<int>(std::clamp(number_member(body, "damaged_frames", 0), 0.0, 1e9));
  r.settings = flag_member(body, "settings", true);
  return r;
}

Result<ChannelsReply> channels_reply(const Json& body) {
  ChannelsReply r;
  take_map(body, "channels", r.us);
  r.unpowered = flag_member(body, "dark", false);
  return r;
}

Result<SensorsReply> sensors_reply(const Json& body) {
  SensorsReply r;
  r.rate_deg_s = {number_member(body, "roll_deg_s", 0), number_member(body, "pitch_deg_s", 0),
                  number_member(body, "yaw_deg_s", 0)};
  r.battery_v = number_member(body, "battery_v", 0);
  take_map(body, "ports", r.ports);
  if (const auto found = body.find("found"); found != body.end() && found->is_object())
    for (const auto& [name, value] : found->items()) {
      const auto sensor = from_name<Sensor>(name);
      const auto state = value.is_string() ? from_name<SensorState>(value.get<std::string>()) : std::nullopt;
      if (sensor && state) r.found[*sensor] = *state;
    }
  return r;
}

Result<StateReply> state_reply(const Json& body) {
  StateReply r;
  const auto flag = [&](const char* name) {
    const auto it = body.find(name);
    return it != body.end() && it->is_boolean() && it->get<bool>();
  };
  r.mode = clean_text(text_member(body, "mode"), longest_text);
  r.on_loss = clean_text(text_member(body, "on_loss"), longest_text);
  r.link_lost = flag("link_lost"), r.battery_low = flag("battery_low"), r.can_arm = flag("can_arm");
  r.satellites = static_cast<int>(std::clamp(number_member(body, "satellites", 0), 0.0, 99.0));
  const auto list = body.find("refuses");
  if (list == body.end() || !list->is_array())
    return failure("link", "the reply holds no reasons", "a list under \"refuses\", which may be empty");
  for (const Json& one : *list) {
    if (r.refuses.size() == most_refusals) break;
    if (const auto why = from_name<ArmingRefusal>(text_member(one, "why")))
      r.refuses.push_back({*why, clean_text(text_member(one, "of"), longest_text)});
  }
  return r;
}

Result<MotionReply> motion_reply(const Json& body) {
  MotionReply r;
  const auto it = body.find("samples");
  if (it == body.end() || !it->is_array())
    return failure("link", "the reply holds no readings", "rows under \"samples\"");
  for (const Json& row : *it) {
    if (r.samples.size() == most_motion_samples) break;
    if (!row.is_array() || (row.size() != 7 && row.size() != 10)) continue;
    std::array<double, 10> v{};
    bool good = true;
    for (std::size_t i = 0; i < row.size(); ++i) {
      v[i] = row[i].is_number() ? row[i].get<double>() : std::numeric_limits<double>::quiet_NaN();
      good = good && std::abs(v[i]) < 1e9;
    }
    if (!good) continue;
    MotionSample s{v[0], {v[1], v[2], v[3]}, {v[4], v[5], v[6]}, {}};
    if (row.size() == 10) s.field_ut = Point(v[7], v[8], v[9]);
    r.samples.push_back(s);
  }
  if (const auto slow = body.find("slow"); slow != body.end() && slow->is_array())
    for (const Json& row : *slow) {
      if (r.slow.size() == most_slow_readings) break;
      if (!row.is_array() || row.size() != 5) continue;
      const auto number = [&](std::size_t i) -> std::optional<double> {
        if (!row[i].is_number()) return std::nullopt;
        const double v = row[i].get<double>();
        return std::abs(v) < 1e9 ? std::optional(v) : std::nullopt;
      };
      if (!number(0) || !number(1)) continue;
      r.slow.push_back({*number(0), *number(1), number(2), number(3), number(4)});
    }
  if (auto bytes = bytes_member(body, "satellites")) r.satellite_bytes = bytes->substr(0, most_satellite_bytes);
  return r;
}

Result<ReceiverReply> receiver_reply(const Json& body) {
  ReceiverReply r;
  const auto signal = from_name<Signal>(text_member(body, "signal"));
  if (!signal) return failure("link", "the receiver's signal is of an unknown kind", choice_of<Signal>());
  r.signal = *signal;
  r.unpowered = flag_member(body, "dark", true);
  if (const auto it = body.find("chunks"); it != body.end() && it->is_array())
    for (const Json& chunk : *it)
      if (auto bytes = bytes_member(chunk, "bytes"))
        if (const double t = number_member(chunk, "t_us", 0); std::abs(t) < latest_us)
          r.chunks.emplace_back(t, std::move(*bytes));
  if (const auto it = body.find("edges"); it != body.end() && it->is_array())
    for (const Json& e : *it)
      if (e.is_array() && e.size() == 3 && e[0].is_number() && e[1].is_boolean() && e[2].is_number_integer() &&
          std::abs(e[0].get<double>()) < latest_us && e[2].get<double>() >= 0 &&
          e[2].get<double>() < static_cast<double>(most_channels))
        r.edges.push_back({e[0].get<double>(), e[1].get<bool>(), static_cast<std::uint8_t>(e[2].get<int>())});
  return r;
}

}  // namespace rigging::link
