#include "wiring/routing.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "base/number.h"

namespace rigging {
namespace {

/// A half that the radio system mixes.
bool is_mixed(const Output& o) {
  int commands = 0;
  for (const Axis axis : all_axes) commands += o.mix.of(axis) != 0;
  return commands > 1 && o.passthrough_channel == 0;
}

std::optional<ChannelFunction> function_of(const Output& o) {
  if (o.surfaces.empty()) return o.mix.throttle != 0 ? std::optional(ChannelFunction::throttle) : std::nullopt;
  if (o.mix.throttle != 0) return ChannelFunction::throttle;
  if (o.mix.roll != 0) return ChannelFunction::roll;
  if (o.mix.pitch != 0) return ChannelFunction::pitch;
  if (o.mix.yaw != 0) return ChannelFunction::yaw;
  return std::nullopt;
}

std::string what_hangs(const Output& o) {
  if (o.surfaces.empty()) return o.passthrough_channel > 0 ? "passed through" : "motor";
  std::string all;
  for (const Surface s : o.surfaces) all += (all.empty() ? "" : " and ") + s.label();
  return all;
}

}  // namespace

Routing routing_of(const Rig& rig, const Catalogue& catalogue) {
  Routing r;
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c || !c->surfaces.routes_channels) return r;
  std::set<int> taken;
  for (const Channel& x : rig.radio.channels) taken.insert(x.number);
  std::map<std::string, std::vector<std::string>> in_socket;
  bool pitch_used = false, mixes_pitch = false;
  for (const Output& o : rig.outputs) {
    RouteLine line;
    line.output = o.id, line.socket = o.socket;
    const Terminal* t = c->socket(o.socket);
    line.label = t ? t->label : o.socket.empty() ? "the receiver's throttle, direct" : o.socket;
    line.what = what_hangs(o);
    if (!o.socket.empty()) in_socket[o.socket].push_back(line.what);
    if (o.passthrough_channel > 0) {
      line.channel = o.passthrough_channel;
      line.words = "as it is";
    } else if (is_mixed(o)) {
      mixes_pitch = mixes_pitch || o.mix.pitch != 0;
      line.extra = true;
      for (line.channel = 1; taken.count(line.channel);) ++line.channel;
      taken.insert(line.channel);
      line.words = "a channel of its own; its number is what the menu shows";
      if (line.channel > rig.radio.transmitter.channels)
        r.clashes.push_back(capital(line.what) + " wants channel " + std::to_string(line.channel) +
                            ", and the transmitter has " + std::to_string(rig.radio.transmitter.channels) + ".");
    } else if (const auto f = function_of(o)) {
      const Channel* x = rig.channel(*f);
      pitch_used = pitch_used || *f == ChannelFunction::pitch;
      line.channel = x ? x->number : 0;
      line.words = std::string(label_of(name_of(*f)));
      if (!x) r.clashes.push_back("No channel carries " + line.words + " for " + line.what + ".");
    }
    r.lines.push_back(std::move(line));
  }
  for (const auto& [socket, what] : in_socket)
    if (what.size() > 1) {
      const Terminal* t = c->socket(socket);
      std::string all;
      for (const std::string& w : what) all += (all.empty() ? "" : " and ") + w;
      r.clashes.push_back(capital(t ? t->label : socket) + " is given to " + all + ": a socket carries one channel.");
    }
  const Channel* pitch = rig.channel(ChannelFunction::pitch);
  if (pitch && mixes_pitch && !pitch_used) {
    r.freed = pitch->number;
    r.freed_words = "Channel " + std::to_string(pitch->number) +
                    ", the plain elevator's, is free at the sockets: route it to none of the tail halves' sockets. A "
                    "canard may take it as a plain elevator, or leave it unused; the stick stays on it.";
  }
  const Output* aileron = rig.output_of({SurfaceKind::aileron, Side::left});
  const Output* half = rig.output_of({SurfaceKind::taileron, Side::left});
  if (aileron && half && aileron->mix.roll != 0) r.roll_percent = 100 * std::abs(half->mix.roll / aileron->mix.roll);
  return r;
}

}  // namespace rigging
