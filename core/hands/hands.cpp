#include "hands/hands.h"

#include <algorithm>
#include <cmath>

#include "base/clean_text.h"
#include "base/json.h"

namespace rigging::hands {
namespace {

double ranged(const Json& body, const char* name, double least, double most, double usual = 0) {
  const double value = number_member(body, name, usual);
  return std::isfinite(value) ? std::clamp(value, least, most) : usual;
}

Json channel_json(const Channel& c) {
  return {{"channel", c.number},
          {"reversed", c.reversed},
          {"sub_trim_us", c.sub_trim_us},
          {"travel_low_percent", c.travel_low_percent},
          {"travel_high_percent", c.travel_high_percent}};
}

Channel channel_of(const Json& body) {
  Channel c;
  c.number = static_cast<int>(ranged(body, "channel", 0, 99));
  c.reversed = flag_member(body, "reversed", false);
  c.sub_trim_us = ranged(body, "sub_trim_us", -500, 500);
  c.travel_low_percent = ranged(body, "travel_low_percent", 0, 200, 100);
  c.travel_high_percent = ranged(body, "travel_high_percent", 0, 200, 100);
  return c;
}

struct Form {
  std::string name;
  Json body = Json::object();
};

struct Writer {
  Form operator()(const Supply& r) const { return {"supply", {{"usb", r.usb}, {"battery", r.battery}}}; }
  Form operator()(const Stick& r) const {
    return {"stick", {{"axis", r.axis ? name_of(*r.axis) : "throttle"}, {"position", r.position}}};
  }
  Form operator()(const Hold& r) const {
    return {"hold", {{"roll_deg", r.roll_deg}, {"pitch_deg", r.pitch_deg}, {"yaw_deg", r.yaw_deg}}};
  }
  Form operator()(const Flick& r) const { return {"flick", {{"axis", name_of(r.axis)}, {"sense", r.sense}}}; }
  Form operator()(const ChooseMode& r) const { return {"mode", {{"mode", name_of(r.mode)}}}; }
  Form operator()(const SwitchTransmitter& r) const { return {"transmitter", {{"on", r.on}}}; }
  Form operator()(const TurnControl& r) const {
    return {"control", {{"channel", r.channel}, {"position", r.position}}};
  }
  Form operator()(const PressButton&) const { return {"press_button"}; }
  Form operator()(const ReadTransmitter&) const { return {"read_transmitter"}; }
  Form operator()(const Dial& r) const { return {"dial", channel_json(r.channel)}; }
  Form operator()(const Clevis& r) const { return {"clevis", {{"surface", r.surface.name()}, {"turns", r.turns}}}; }
  Form operator()(const Tooth& r) const { return {"tooth", {{"surface", r.surface.name()}, {"teeth", r.teeth}}}; }
  Form operator()(const SetOutput& r) const {
    return {"set_output",
            {{"output", r.output.id},
             {"reversed", r.output.reversed},
             {"low_us", r.output.low_us},
             {"centre_us", r.output.centre_us},
             {"high_us", r.output.high_us}}};
  }
  Form operator()(const Inspect& r) const { return {"inspect", {{"lead", r.lead}}}; }
  Form operator()(const Mend& r) const { return {"mend", {{"lead", r.lead}}}; }
  Form operator()(const Work& r) const {
    Json body{{"work", name_of(r.remedy)}};
    if (r.outputs.size() == 1) body["output"] = r.outputs[0];
    if (r.outputs.size() > 1) body["outputs"] = r.outputs;
    if (r.axes.size() == 1) body["axis"] = name_of(r.axes[0]);
    if (r.axes.size() > 1)
      for (const Axis a : r.axes) body["axes"].push_back(name_of(a));
    if (r.surface) body["surface"] = r.surface->name();
    return {"work", std::move(body)};
  }
  Form operator()(const PassTime& r) const { return {"pass_time", {{"s", r.s}}}; }
  Form operator()(const PushTube& r) const { return {"push_tube", {{"pressure_pa", r.pressure_pa}}}; }
  Form operator()(const TurnGain& r) const {
    Json body{{"axis", name_of(r.gain.axis)}};
    if (r.gain.rate) body["rate"] = *r.gain.rate;
    if (r.gain.level) body["level"] = *r.gain.level;
    return {"turn_gain", std::move(body)};
  }
  Form operator()(const Fly& r) const {
    const FlightPlan& p = r.plan;
    Json moves = Json::array();
    for (const StickMove& m : p.sticks)
      moves.push_back({{"axis", name_of(m.axis)}, {"from_s", m.from_s}, {"to_s", m.to_s}, {"position", m.at}});
    return {"fly",
            {{"mode", name_of(p.mode)},
             {"seconds", p.seconds},
             {"airspeed_m_s", p.m_s},
             {"height_m", p.height_m},
             {"nose_down_deg", p.nose_down_deg},
             {"wind_m_s", p.wind_m_s},
             {"seed", p.seed},
             {"hands", p.pilot},
             {"thrown", p.thrown},
             {"throw_m_s", p.throw_m_s},
             {"north_m", p.north_m},
             {"east_m", p.east_m},
             {"heading_deg", p.heading_deg},
             {"steady_wind_m_s", p.steady_wind_m_s},
             {"steady_from_deg", p.steady_from_deg},
             {"wind_exponent", p.wind_exponent},
             {"left_mah", p.left_mah},
             {"link_lost_s", p.link_lost_s ? Json(*p.link_lost_s) : Json()},
             {"sticks", moves}}};
  }
  Form operator()(const ReadFlight& r) const { return {"read_flight", {{"from", r.from}}}; }
  Form operator()(const Look&) const { return {"look"}; }
};

FlightPlan plan_of(const Json& b, Mode mode) {
  FlightPlan p;
  p.mode = mode;
  const double lost_s = ranged(b, "link_lost_s", -1, longest_rehearsal_s, -1);
  if (lost_s >= 0) p.link_lost_s = lost_s;
  p.seconds = ranged(b, "seconds", 0.1, p.rehearses() ? longest_rehearsal_s : longest_flight_s, p.seconds);
  p.north_m = ranged(b, "north_m", -20000, 20000, 0);
  p.east_m = ranged(b, "east_m", -20000, 20000, 0);
  p.heading_deg = ranged(b, "heading_deg", -360, 360, 0);
  p.steady_wind_m_s = ranged(b, "steady_wind_m_s", 0, 40, 0);
  p.steady_from_deg = ranged(b, "steady_from_deg", -360, 360, p.steady_from_deg);
  p.wind_exponent = ranged(b, "wind_exponent", 0, 0.5, 0);
  p.left_mah = ranged(b, "left_mah", 0, 1e6, 0);
  p.m_s = ranged(b, "airspeed_m_s", 0, 100, p.m_s);
  p.height_m = ranged(b, "height_m", 1, 1000, p.height_m);
  p.nose_down_deg = ranged(b, "nose_down_deg", 0, 80);
  p.wind_m_s = ranged(b, "wind_m_s", 0, 30);
  p.seed = static_cast<std::uint32_t>(ranged(b, "seed", 0, 4e9, 1));
  p.pilot = flag_member(b, "hands", true);
  p.thrown = flag_member(b, "thrown", false);
  p.throw_m_s = ranged(b, "throw_m_s", 1, 20, p.throw_m_s);
  if (const auto it = b.find("sticks"); it != b.end() && it->is_array())
    for (const Json& j : *it)
      if (const auto axis = from_name<Axis>(text_member(j, "axis")); axis && p.sticks.size() < 100)
        p.sticks.push_back(
            {ranged(j, "from_s", 0, 120), ranged(j, "to_s", 0, 120), *axis, ranged(j, "position", -1, 1)});
  return p;
}

Result<Surface> surface_member(const Json& body) {
  const auto surface = surface_from_name(text_member(body, "surface"));
  if (!surface) return failure("hands", "which surface?", "the word of a surface");
  return *surface;
}

}  // namespace

std::string request_name(const Request& request) { return std::visit(Writer{}, request).name; }
Json body_of(const Request& request) { return std::visit(Writer{}, request).body; }

Result<Request> request_of(const std::string& name, const Json& b) {
  const auto axis = from_name<Axis>(text_member(b, "axis"));
  if (name == "supply") return Supply{flag_member(b, "usb", false), flag_member(b, "battery", false)};
  if (name == "stick") {
    if (text_member(b, "axis") == "throttle") return Stick{std::nullopt, ranged(b, "position", 0, 1)};
    if (!axis) return failure("hands", "which stick?", choice_of<Axis>() + " or throttle");
    return Stick{axis, ranged(b, "position", -1, 1)};
  }
  if (name == "hold")
    return Hold{ranged(b, "roll_deg", -180, 180), ranged(b, "pitch_deg", -90, 90), ranged(b, "yaw_deg", -180, 180)};
  if (name == "flick") {
    if (!axis) return failure("hands", "which axis?", choice_of<Axis>());
    return Flick{*axis, ranged(b, "sense", -1, 1) < 0 ? -1 : 1};
  }
  if (name == "mode") {
    const auto mode = from_name<Mode>(text_member(b, "mode"));
    if (!mode) return failure("hands", "this class has no such mode", choice_of<Mode>());
    return ChooseMode{*mode};
  }
  if (name == "transmitter") return SwitchTransmitter{flag_member(b, "on", true)};
  if (name == "control")
    return TurnControl{static_cast<int>(ranged(b, "channel", 1, 16, 1)), ranged(b, "position", -1, 1)};
  if (name == "press_button") return PressButton{};
  if (name == "read_transmitter") return ReadTransmitter{};
  if (name == "dial") return Dial{channel_of(b)};
  if (name == "set_output") {
    SetOutput r;
    r.output.id = text_member(b, "output");
    r.output.reversed = flag_member(b, "reversed", false);
    r.output.low_us = ranged(b, "low_us", 500, 2500);
    r.output.centre_us = ranged(b, "centre_us", 500, 2500);
    r.output.high_us = ranged(b, "high_us", 500, 2500);
    return r;
  }
  if (name == "clevis" || name == "tooth") {
    const auto surface = surface_member(b);
    if (!surface) return tl::make_unexpected(surface.error());
    if (name == "clevis") return Clevis{*surface, ranged(b, "turns", -50, 50)};
    return Tooth{*surface, static_cast<int>(ranged(b, "teeth", -12, 12))};
  }
  if (name == "inspect") return Inspect{text_member(b, "lead")};
  if (name == "mend") return Mend{text_member(b, "lead")};
  if (name == "pass_time") return PassTime{ranged(b, "s", 0, 1)};
  if (name == "push_tube") return PushTube{ranged(b, "pressure_pa", -2000, 2000)};
  if (name == "turn_gain") {
    if (!axis) return failure("hands", "which axis?", choice_of<Axis>());
    TurnGain r;
    r.gain.axis = *axis;
    if (b.contains("rate")) r.gain.rate = ranged(b, "rate", 0, 1);
    if (b.contains("level")) r.gain.level = ranged(b, "level", 0, 1);
    return r;
  }
  if (name == "fly") {
    const auto mode = from_name<Mode>(text_member(b, "mode"));
    if (!mode) return failure("hands", "fly in which mode?", choice_of<Mode>());
    return Fly{plan_of(b, *mode)};
  }
  if (name == "read_flight") return ReadFlight{static_cast<std::size_t>(ranged(b, "from", 0, 1e9))};
  if (name == "look") return Look{};
  if (name == "work") {
    const auto remedy = from_name<Remedy>(text_member(b, "work"));
    if (!remedy) return failure("hands", "unknown work", choice_of<Remedy>());
    Work r;
    r.remedy = *remedy;
    r.outputs = texts_member(b, "outputs");
    if (const std::string one = text_member(b, "output"); !one.empty()) r.outputs = {one};
    for (const std::string& a : texts_member(b, "axes"))
      if (const auto known = from_name<Axis>(a)) r.axes.push_back(*known);
    if (axis) r.axes = {*axis};
    r.surface = surface_from_name(text_member(b, "surface"));
    return r;
  }
  return failure("hands", "unknown request \"" + clean_text(name, 40) + "\"", "one that docs/twin.md describes");
}

Json to_json(const FlightPiece& p) { return {{"ok", true}, {"from", p.from}, {"size", p.size}, {"text", p.text}}; }

FlightPiece piece_of(const Json& body) {
  return {static_cast<std::size_t>(ranged(body, "from", 0, 1e9)),
          static_cast<std::size_t>(ranged(body, "size", 0, 1e9)), text_member(body, "text")};
}

Json to_json(const Sight& s) {
  Json surfaces = Json::object();
  for (const auto& [surface, deflection] : s.deflections) surfaces[surface.name()] = deflection;
  return {{"ok", true},
          {"surfaces", surfaces},
          {"roll_deg", s.roll_deg},
          {"pitch_deg", s.pitch_deg},
          {"yaw_deg", s.yaw_deg},
          {"lamp", s.lamp},
          {"servos_powered", s.servos_powered},
          {"usb", s.usb},
          {"battery", s.battery},
          {"destroyed", s.destroyed}};
}

Sight sight_of(const Json& body) {
  Sight s;
  if (const auto it = body.find("surfaces"); it != body.end() && it->is_object())
    for (const auto& [name, value] : it->items())
      if (const auto surface = surface_from_name(name); surface && value.is_number())
        s.deflections[*surface] = value.get<double>();
  s.roll_deg = number_member(body, "roll_deg", 0);
  s.pitch_deg = number_member(body, "pitch_deg", 0);
  s.yaw_deg = number_member(body, "yaw_deg", 0);
  s.lamp = text_member(body, "lamp");
  s.servos_powered = flag_member(body, "servos_powered", false);
  s.usb = flag_member(body, "usb", false);
  s.battery = flag_member(body, "battery", false);
  s.destroyed = texts_member(body, "destroyed");
  return s;
}

Json to_json(const std::vector<Channel>& settings) {
  Json channels = Json::array();
  for (const Channel& c : settings) channels.push_back(channel_json(c));
  return {{"ok", true}, {"channels", channels}};
}

std::vector<Channel> settings_of(const Json& body) {
  std::vector<Channel> settings;
  if (const auto it = body.find("channels"); it != body.end() && it->is_array())
    for (const Json& j : *it)
      if (const Channel c = channel_of(j); c.number >= 1 && c.number <= 32) settings.push_back(c);
  return settings;
}

}  // namespace rigging::hands
