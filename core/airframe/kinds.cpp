#include "airframe/kinds.h"

#include <algorithm>
#include <set>

namespace rigging {
namespace {

using K = SurfaceKind;
constexpr Surface left(K kind) { return {kind, Side::left}; }
constexpr Surface right(K kind) { return {kind, Side::right}; }
constexpr Surface one(K kind) { return {kind, Side::single}; }

std::vector<AirframeFacts> make_kinds() {
  using A = AirframeKind;
  const Surface al = left(K::aileron), ar = right(K::aileron), el = one(K::elevator), ru = one(K::rudder);
  const Surface vl = left(K::vtail), vr = right(K::vtail), il = left(K::inverted_v), ir = right(K::inverted_v);
  const Surface wl = left(K::elevon), wr = right(K::elevon), tl = left(K::taileron), tr = right(K::taileron),
                ca = one(K::canard);
  const Surface fl = left(K::flaperon), fr = right(K::flaperon), ml = left(K::motor), mr = right(K::motor);
  return {
      {A::aileron_y_lead,
       "Conventional, ailerons on a Y-lead",
       "Two aileron servos share one output.",
       {al, ar, el, ru}},
      {A::two_ailerons,
       "Conventional, two aileron outputs",
       "Each aileron has its own output: differential is possible.",
       {al, ar, el, ru}},
      {A::aileron_elevator,
       "Ailerons and elevator, no rudder",
       "Two aileron outputs and an elevator; nothing answers yaw, unless two motors steer.",
       {al, ar, el}},
      {A::rudder_only, "Rudder and elevator only", "No ailerons: the rudder answers the roll command too.", {el, ru}},
      {A::v_tail, "V-tail", "Ailerons, and two tail halves that mix pitch and yaw.", {al, ar, vl, vr}},
      {A::inverted_v_tail,
       "Inverted V-tail",
       "Ailerons, and an upside-down V whose yaw mixing is the other way round.",
       {al, ar, il, ir}},
      {A::flying_wing, "Flying wing", "Elevons mix roll and pitch; no rudder.", {wl, wr}},
      {A::flying_wing_rudders,
       "Flying wing with fin rudders",
       "Elevons and a rudder in each fin.",
       {wl, wr, left(K::rudder), right(K::rudder)}},
      {A::canard,
       "Canard",
       "Ailerons on the wing, pitch on the foreplane, whose trailing edge goes down for nose up.",
       {al, ar, ca, ru}},
      {A::canard_delta, "Canard delta", "Elevons on the delta, helped in pitch by a foreplane.", {wl, wr, ca, ru}},
      {A::tailerons, "Tailerons", "Ailerons, and tail halves that roll as well as pitch.", {al, ar, tl, tr, ru}},
      {A::tailerons_canards,
       "Tailerons with canards",
       "Ailerons, tail halves that also roll, and canards on a pure elevator output.",
       {al, ar, tl, tr, ca, ru}},
      {A::flaperons, "Flaperons", "Ailerons that droop as flaps.", {fl, fr, el, ru}},
      {A::flaperons_inverted_v_tail,
       "Twin boom, inverted V-tail",
       "Pusher: flaperons, and two booms joined by an inverted V.",
       {fl, fr, il, ir}},
      {A::twin_differential,
       "Twin motors, differential thrust",
       "Two motors steer instead of a rudder: right yaw speeds the left motor up.",
       {al, ar, el, ml, mr}},
      {A::motor_glider, "Motor glider", "Long wing, ailerons, tail and a folding propeller.", {al, ar, el, ru}},
      {A::towed_glider, "Towed glider", "No motor: the motor output works the tow release.", {al, ar, el, ru}},
  };
}

Mix mix_for(Surface s, AirframeKind kind) {
  const auto share = [&](Axis axis) -> double {
    const int direction = required_direction(s, axis);
    switch (s.kind) {
      case K::taileron: return direction * (axis == Axis::roll ? 0.25 : 0.75);
      case K::elevon:
      case K::vtail:
      case K::inverted_v: return direction * 0.5;
      case K::rudder: return axis == Axis::yaw ? direction : kind == AirframeKind::rudder_only ? direction * 0.8 : 0;
      case K::flaperon: return direction * 0.7;
      case K::motor: return direction * 0.2;
      default: return direction;
    }
  };
  Mix m;
  for (const Axis axis : all_axes) m.of(axis) = share(axis);
  if (kind == AirframeKind::rudder_only && s.kind == K::rudder) m.yaw = 0.2;
  if (s.kind == K::flaperon) m.flap = -0.3;
  if (s.kind == K::motor) m.throttle = 1;
  if (kind == AirframeKind::canard_delta && s.kind == K::canard) m.pitch = -0.6;
  return m;
}

}  // namespace

const AirframeFacts& facts_of(AirframeKind kind) {
  static const std::vector<AirframeFacts> kinds = make_kinds();
  return *std::find_if(kinds.begin(), kinds.end(), [&](const AirframeFacts& f) { return f.kind == kind; });
}

bool has_two_motors(const Airframe& a) {
  return a.kind == AirframeKind::twin_differential || (a.motors != Motors::one && a.kind != AirframeKind::towed_glider);
}

bool can_join_ailerons(AirframeKind kind) {
  const auto& all = facts_of(kind).surfaces;
  return std::find(all.begin(), all.end(), left(K::aileron)) != all.end();
}
bool joins_ailerons(const Airframe& a) {
  return a.kind == AirframeKind::aileron_y_lead || (a.ailerons_joined && can_join_ailerons(a.kind));
}

std::vector<Surface> surfaces_of(const Airframe& a) {
  std::vector<Surface> all = facts_of(a.kind).surfaces;
  if (has_two_motors(a) && a.kind != AirframeKind::twin_differential)
    for (const Side side : {Side::left, Side::right}) all.push_back({K::motor, side});
  return all;
}

std::vector<Output> default_outputs(const Airframe& airframe) {
  const AirframeKind kind = airframe.kind;
  const bool steering = kind == AirframeKind::twin_differential || airframe.motors == Motors::two_steering;
  std::vector<Output> outputs;
  const auto add = [&]() -> Output& {
    Output o;
    o.id = "out_" + std::to_string(outputs.size() + 1);
    o.socket = "slot_" + std::to_string(outputs.size() + 1);
    return outputs.emplace_back(std::move(o));
  };
  for (const Surface s : surfaces_of(airframe)) {
    // On one lead the servos themselves turn opposite ways: the weight is that of the right side.
    if (s == right(K::aileron) && joins_ailerons(airframe)) {
      outputs.back().surfaces.emplace_back(s);
      outputs.back().mix = mix_for(s, kind);
      continue;
    }
    Output& o = add();
    o.surfaces.emplace_back(s);
    o.mix = mix_for(s, kind);
    if (s.kind == K::motor && !steering) o.mix.yaw = 0;
  }
  if (!has_two_motors(airframe)) add().mix.throttle = 1;  // motor, or tow release on a towed glider
  return outputs;
}

Rig fresh_rig(std::string name, AirframeKind kind, std::string controller) {
  Rig rig;
  rig.name = std::move(name);
  rig.airframe.kind = kind;
  rig.controller.kind = std::move(controller);
  rig.outputs = default_outputs(kind);
  for (const ChannelFunction f : {ChannelFunction::roll, ChannelFunction::pitch, ChannelFunction::throttle,
                                  ChannelFunction::yaw, ChannelFunction::mode}) {
    Channel channel;
    channel.number = static_cast<int>(rig.radio.channels.size()) + 1;
    channel.function = f;
    rig.radio.channels.push_back(channel);
  }
  return rig;
}

namespace {

/// Gives the rig the outputs of an airframe.
Rig fitted_to(Rig rig, const Airframe& airframe) {
  std::vector<Output> wanted = default_outputs(airframe);
  std::vector<Output> old = std::move(rig.outputs);
  const auto same = [](const Output& a, const Output& b) {
    return a.surfaces == b.surfaces && (a.surfaces.empty() ? (a.mix.throttle != 0) == (b.mix.throttle != 0) : true);
  };
  std::vector<Output> kept, spare;
  for (const Output& o : old)
    if (o.passthrough_channel == 0)
      (std::any_of(wanted.begin(), wanted.end(), [&](const Output& w) { return same(w, o); }) ? kept : spare)
          .push_back(o);

  std::vector<Output> result;
  std::set<std::string> ids, sockets;
  // What only passes a channel through has nothing to do with the airframe.
  const auto passes = [](const Output& o) { return o.passthrough_channel > 0; };
  for (const Output& o : old)
    if (passes(o)) {
      ids.insert(o.id);
      sockets.insert(o.socket);
    }
  for (const Output& o : kept) {
    ids.insert(o.id);
    sockets.insert(o.socket);
  }
  for (Output& w : wanted) {
    const auto it = std::find_if(kept.begin(), kept.end(), [&](const Output& o) { return same(w, o); });
    if (it != kept.end()) {
      result.push_back(*it);
      continue;
    }
    w.id.clear();
    w.socket.clear();
    if (!spare.empty()) {
      w.id = spare.front().id;
      w.socket = spare.front().socket;
      w.rate_hz = spare.front().rate_hz;
      spare.erase(spare.begin());
    }
    for (int n = 1; w.id.empty() || (ids.count(w.id) && w.socket.empty()); ++n) w.id = "out_" + std::to_string(n);
    for (int n = 1; w.socket.empty(); ++n) {
      const std::string free = "slot_" + std::to_string(n);
      const bool spoken_for = sockets.count(free) || std::any_of(spare.begin(), spare.end(),
                                                                 [&](const Output& o) { return o.socket == free; });
      if (!spoken_for) w.socket = free;
    }
    ids.insert(w.id);
    sockets.insert(w.socket);
    result.push_back(w);
  }
  std::copy_if(old.begin(), old.end(), std::back_inserter(result), passes);
  rig.airframe = airframe;
  rig.outputs = std::move(result);
  std::erase_if(rig.linkages, [&](const Linkage& l) { return rig.output_of(l.surface) == nullptr; });
  return rig;
}

}  // namespace

Rig with_joined_ailerons(Rig rig, bool joined) {
  Airframe airframe = rig.airframe;
  airframe.ailerons_joined = joined;
  return fitted_to(std::move(rig), airframe);
}

Rig with_kind(Rig rig, AirframeKind kind) {
  Airframe airframe = rig.airframe;
  airframe.kind = kind;
  return fitted_to(std::move(rig), airframe);
}

Rig with_motors(Rig rig, Motors motors) {
  Airframe airframe = rig.airframe;
  airframe.motors = motors;
  rig = fitted_to(std::move(rig), airframe);
  for (const Output& usual : default_outputs(airframe))
    for (Output& o : rig.outputs)
      if (!o.surfaces.empty() && o.surfaces == usual.surfaces && o.surfaces.front().kind == K::motor &&
          (o.mix.yaw != 0) != (usual.mix.yaw != 0))
        o.mix.yaw = usual.mix.yaw;
  return rig;
}

}  // namespace rigging
