#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "surfaces/surfaces.h"

namespace rigging {
namespace {

/// −1 or +1: the way a positive command moves the surface on an aircraft built right; flaps go down.
int required(Surface s, MixCommand c) {
  switch (c) {
    case MixCommand::roll: return required_direction(s, Axis::roll);
    case MixCommand::pitch: return required_direction(s, Axis::pitch);
    case MixCommand::yaw: return required_direction(s, Axis::yaw);
    case MixCommand::flap: return s.kind == SurfaceKind::flaperon ? -1 : 0;
  }
  return 0;
}

double moved(const Rig& rig, const Output& o, Surface s, double share) {
  return deflection_deg(rig, o, s, share) - deflection_deg(rig, o, s, 0);
}

double degrees_for(const Rig& rig, const Output& o, Surface s, MixCommand c, double weight) {
  const double one = std::abs(moved(rig, o, s, weight));
  return c == MixCommand::flap ? one : (one + std::abs(moved(rig, o, s, -weight))) / 2;
}

void give(const Rig& rig, Output& o, Surface s, MixCommand c, double size) {
  double& weight = o.mix.*weight_of(c);
  const bool wrong = weight == 0 && moved(rig, o, s, 0.1) * required(s, c) < 0;
  weight = weight < 0 || wrong ? -size : size;
}

/// The output of the same surface on the other side, where each side has its own; null without.
Output* other_half(Rig& rig, const Output& o, Surface s) {
  if (s.side == Side::single) return nullptr;
  const Output* twin = rig.output_of({s.kind, s.side == Side::left ? Side::right : Side::left});
  return twin && twin->id != o.id && twin->surfaces.size() == 1 ? rig.output(twin->id) : nullptr;
}

}  // namespace

double Mix::*weight_of(MixCommand c) {
  switch (c) {
    case MixCommand::roll: return &Mix::roll;
    case MixCommand::pitch: return &Mix::pitch;
    case MixCommand::yaw: return &Mix::yaw;
    case MixCommand::flap: break;
  }
  return &Mix::flap;
}

double throw_for(const Rig& rig, const Output& o, Surface s, MixCommand c) {
  return degrees_for(rig, o, s, c, o.mix.*weight_of(c));
}

Result<Rig> with_throw(Rig rig, Surface s, MixCommand c, double degrees) {
  const std::string where = "mix of the " + s.label();
  const Output* found = rig.output_of(s);
  if (!found || s.kind == SurfaceKind::motor || found->mix.throttle != 0)
    return failure(where, "no servo output drives it", "a surface with an output");
  Output* o = rig.output(found->id);
  if (required(s, c) == 0)
    return failure(where, "it can't serve " + std::string(name_of(c)), "a command that this surface answers");
  const double most = degrees_for(rig, *o, s, c, 1);
  if (!(degrees >= 0 && degrees <= most + 0.05))
    return failure(where, number_text(degrees, 1) + "° for full " + std::string(name_of(c)),
                   "0 to " + number_text(most, 1) + "°, all that its ends and linkage give");
  double low = 0, high = 1;
  for (int i = 0; i < 40; ++i) {
    const double middle = (low + high) / 2;
    (degrees_for(rig, *o, s, c, middle) < degrees ? low : high) = middle;
  }
  // A tenth of a percent is finer than any servo.
  const double size = degrees == 0 ? 0 : std::round(high * 1000) / 1000;
  give(rig, *o, s, c, size);
  if (Output* twin = other_half(rig, *o, s)) give(rig, *twin, twin->surfaces.front(), c, size);
  return rig;
}

Result<Rig> with_share(Rig rig, const std::string& output, MixCommand c, double weight) {
  Output* o = rig.output(output);
  if (!o) return failure(output, "is no output of this rig", "the id of an output");
  double& here = o->mix.*weight_of(c);
  if (o->surfaces.size() == 1)
    if (Output* twin = other_half(rig, *o, o->surfaces.front())) {
      double& there = twin->mix.*weight_of(c);
      const bool alike =
          here == 0 ? required(o->surfaces.front(), c) == required(twin->surfaces.front(), c) : here * there > 0;
      if (std::abs(std::abs(here) - std::abs(there)) < 0.005) there = alike ? weight : -weight;
    }
  here = weight;
  return rig;
}

}  // namespace rigging
