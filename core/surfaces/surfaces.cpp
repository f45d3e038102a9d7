#include "surfaces/surfaces.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace rigging {
namespace {

constexpr double assumed_travel_deg = 25;

const Linkage* linkage_of(const Rig& rig, Surface s) {
  for (const Linkage& l : rig.linkages)
    if (l.surface == s) return &l;
  return nullptr;
}

/// The servo's sense is right on an aircraft built right: what counts is the way the mix asks for, seen from the surface.
int built_right(const Output& o, Surface s) {
  for (const Axis axis : all_axes)
    if (o.mix.of(axis) != 0 && required_direction(s, axis) != 0) return o.mix.of(axis) * required_direction(s, axis) > 0 ? 1 : -1;
  return 1;
}

}  // namespace

OutputState mixed(const Output& o, const Command& c) {
  OutputState state{o.id, 0, 0, false};
  state.asked = o.mix.roll * c.roll + o.mix.pitch * c.pitch + o.mix.yaw * c.yaw + o.mix.throttle * c.throttle + o.mix.flap * c.flap;
  const bool thrust = o.mix.throttle != 0;
  const double least = thrust ? 0 : -1;
  const double kept = std::clamp(state.asked, least, 1.0);
  state.saturated = std::abs(kept - state.asked) > 1e-9;
  if (thrust) {
    state.pulse_us = o.reversed ? o.high_us - kept * (o.high_us - o.low_us) : o.low_us + kept * (o.high_us - o.low_us);
  } else {
    const double way = o.reversed ? -kept : kept;
    state.pulse_us = o.centre_us + way * (way > 0 ? o.high_us - o.centre_us : o.centre_us - o.low_us);
  }
  return state;
}

double full_deflection_deg(const Linkage& l) {
  const double deg = 180 / std::numbers::pi;
  const double share = std::clamp(l.arm_m / l.horn_m * std::sin(l.servo_travel_deg / deg), -1.0, 1.0);
  return std::asin(share) * deg;
}

SurfacesReport analyze_surfaces(const Rig& rig) {
  SurfacesReport report;
  for (const Output& o : rig.outputs)
    for (const Surface s : o.surfaces) {
      SurfaceAnswer a;
      a.surface = s;
      a.output = o.id;
      const int sense = built_right(o, s);
      const Linkage* linkage = linkage_of(rig, s);
      a.in_degrees = linkage != nullptr;
      for (const Axis axis : all_axes) {
        const auto i = static_cast<std::size_t>(index_of(axis));
        a.share[i] = sense * o.mix.of(axis);
        a.deflection_deg[i] = linkage ? std::clamp(a.share[i], -1.0, 1.0) * full_deflection_deg(*linkage) : 0;
        a.worst_sum += std::abs(o.mix.of(axis));
      }
      report.answers.push_back(a);
    }
  constexpr int steps = 40;
  int saturated = 0;
  for (int i = 0; i <= steps; ++i)
    for (int k = 0; k <= steps; ++k) {
      Command c;
      c.roll = 2.0 * i / steps - 1;
      c.pitch = 2.0 * k / steps - 1;
      saturated += std::any_of(rig.outputs.begin(), rig.outputs.end(), [&](const Output& o) { return !o.surfaces.empty() && o.mix.throttle == 0 && mixed(o, c).saturated; });
    }
  report.saturated_share = static_cast<double>(saturated) / ((steps + 1) * (steps + 1));
  return report;
}

std::vector<std::pair<Surface, double>> intended_deflections(const Rig& rig, const Command& command) {
  std::vector<std::pair<Surface, double>> all;
  for (const Output& o : rig.outputs)
    for (const Surface s : o.surfaces) {
      const Linkage* linkage = linkage_of(rig, s);
      const double full = s.kind == SurfaceKind::motor ? 1 : linkage ? full_deflection_deg(*linkage) : assumed_travel_deg;
      const double asked = mixed(o, command).asked - (s.kind == SurfaceKind::motor ? o.mix.throttle * command.throttle : 0);
      all.emplace_back(s, built_right(o, s) * std::clamp(asked, -1.0, 1.0) * full);
    }
  return all;
}

}  // namespace rigging
