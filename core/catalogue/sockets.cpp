#include "catalogue/sockets.h"

#include <algorithm>

namespace rigging {

bool socket_takes(const Terminal& socket, const Output& o) {
  if (socket.serves.empty()) return true;
  if (drives_motor(o)) return socket.serves == "throttle";
  return std::any_of(o.surfaces.begin(), o.surfaces.end(), [&](const Surface& s) {
    if (socket.serves == s.name()) return true;
    const auto kept = surface_from_name(socket.serves);
    if (!kept || kept->kind == SurfaceKind::motor) return false;
    if (kept->side != Side::single && s.side != Side::single && s.side != kept->side && o.surfaces.size() == 1)
      return false;
    const bool plain = s.kind == SurfaceKind::aileron || s.kind == SurfaceKind::elevator ||
                       s.kind == SurfaceKind::rudder || s.kind == SurfaceKind::motor;
    if (plain || s.kind == kept->kind) return s.kind == kept->kind;
    switch (kept->kind) {
      case SurfaceKind::aileron: return o.mix.roll != 0;
      case SurfaceKind::elevator: return o.mix.pitch != 0;
      case SurfaceKind::rudder: return o.mix.yaw != 0;
      default: return false;
    }
  });
}

bool drives_motor(const Output& o) {
  if (o.passthrough_channel > 0) return false;
  return o.surfaces.empty() || std::all_of(o.surfaces.begin(), o.surfaces.end(),
                                           [](const Surface& s) { return s.kind == SurfaceKind::motor; });
}

void settle_in_sockets(Rig& rig, const ControllerClass& controller) {
  const auto held = [&](const std::string& socket) {
    return std::any_of(rig.leads.begin(), rig.leads.end(), [&](const Lead& l) {
      return (l.from.part == "controller" && l.from.socket == socket) ||
             (l.to.part == "controller" && l.to.socket == socket);
    });
  };
  const auto bypasses = [&](const Output& o) { return controller.motor_bypasses() && drives_motor(o); };
  for (Output& o : rig.outputs) {
    const Terminal* now = controller.socket(o.socket);
    if (!now || (!held(o.socket) && (!socket_takes(*now, o) || bypasses(o)))) o.socket.clear();
  }
  for (Output& o : rig.outputs) {
    if (!o.socket.empty() || bypasses(o)) continue;
    const auto free = std::find_if(controller.outputs.begin(), controller.outputs.end(), [&](const Terminal& t) {
      return socket_takes(t, o) &&
             std::none_of(rig.outputs.begin(), rig.outputs.end(), [&](const Output& x) { return x.socket == t.id; });
    });
    if (free != controller.outputs.end()) o.socket = free->id;
  }
}

std::vector<int> mode_channels(const Rig& rig, const ControllerClass& controller) {
  std::vector<int> all;
  if (controller.sticks.mode_channel > 0) all.push_back(controller.sticks.mode_channel);
  for (const Channel& c : rig.radio.channels)
    if (c.function == ChannelFunction::mode && c.number != controller.sticks.mode_channel) all.push_back(c.number);
  return all;
}

}  // namespace rigging
