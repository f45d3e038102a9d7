#include "flight/axis_plant.h"

#include <algorithm>
#include <cmath>

#include "base/angle.h"

namespace rigging {
namespace {

const Banded& inertia_about(const Aeroplane& a, Axis axis) {
  return axis == Axis::roll ? a.inertia.roll : axis == Axis::pitch ? a.inertia.pitch : a.inertia.yaw;
}

double moment(const ControlEffect& c, Axis axis) {
  return axis == Axis::roll ? c.roll : axis == Axis::pitch ? c.pitch : c.yaw;
}

/// A band as factors around its middle; none around nothing.
std::pair<double, double> factors(const Banded& e) {
  if (e.value == 0) return {1, 1};
  const double a = e.least / e.value, b = e.most / e.value;
  return {std::min(a, b), std::max(a, b)};
}

}  // namespace

std::array<AxisControl, 3> axis_controls(const Aeroplane& aeroplane, const SurfacesReport& surfaces) {
  std::array<AxisControl, 3> all;
  for (const Axis axis : all_axes) {
    const auto i = static_cast<std::size_t>(index_of(axis));
    AxisControl& c = all[i];
    double sum = 0, moments = 0, least = 0, most = 0, lift = 0;
    int serving = 0;
    bool ailerons = false;
    for (const SurfaceAnswer& answer : surfaces.answers) {
      if (answer.surface.kind == SurfaceKind::motor) {
        c.by_motors = c.by_motors || answer.share[i] != 0;
        continue;
      }
      const ControlEffect* effect = aeroplane.control(answer.surface);
      const double way = (answer.positive_deg[i] - answer.negative_deg[i]) / 2 * rad;
      if (!effect || way == 0) continue;
      sum += std::abs(way), ++serving;
      const double own = way * moment(*effect, axis);
      moments += own, least += own * effect->least, most += own * effect->most;
      lift += way * effect->lift;
      ailerons = ailerons || answer.surface.kind != SurfaceKind::rudder;
    }
    if (serving == 0) continue;
    c.throw_rad = sum / serving;
    c.effect = moments / c.throw_rad;
    c.lift = lift / c.throw_rad;
    if (moments != 0) c.least = least / moments, c.most = most / moments;
    c.roll_by_rudder = axis == Axis::roll && !ailerons;
  }
  return all;
}

Aeroplane doubted(Aeroplane a, const Doubt& d) {
  Stability& s = a.stability;
  for (Banded* b : {&s.roll_p, &s.pitch_q, &s.yaw_r}) b->value *= d.damping;
  for (Banded* b : {&s.pitch_alpha, &s.yaw_beta}) b->value *= d.stiffness;
  for (Banded* b : {&a.inertia.roll, &a.inertia.pitch, &a.inertia.yaw}) b->value *= d.inertia;
  for (ControlEffect& c : a.controls)
    for (double* e : {&c.lift, &c.side, &c.roll, &c.pitch, &c.yaw}) *e *= d.effect;
  return a;
}

RatePlant plant_of(const Aeroplane& a, const AxisControl& control, Axis axis, double m_s, const Doubt& d) {
  const Stability& s = a.stability;
  const double q = air_density_kg_m3 / 2 * m_s * m_s, S = a.wing_area_m2, b = a.span_m, c = a.mean_chord_m;
  const double inertia = inertia_about(a, axis).value * d.inertia;
  const double length = axis == Axis::pitch ? c : b;
  const double turns = q * S * length / inertia;           // angular acceleration per moment coefficient
  const double rate = length / (2 * m_s);                  // rate coefficient per rad/s
  const double power = turns * control.effect * d.effect;  // per radian of the surfaces
  if (axis == Axis::roll) return RatePlant::roll(turns * s.roll_p.value * rate * d.damping, power);
  const double along = q * S / (a.mass_kg * m_s);
  if (axis == Axis::pitch) {
    const double sinks = along * s.lift_alpha.value;  // 1/s, by which the angle of attack falls
    const double damps = -turns * s.pitch_q.value * rate * d.damping;
    const double lags = -turns * s.pitch_alpha_dot.value * rate * d.damping;
    const double stiff = -turns * s.pitch_alpha.value * d.stiffness;
    return {power, power * sinks, 1, sinks + damps + lags, stiff + damps * sinks};
  }
  const double slips = -along * s.side_beta.value;
  const double damps = -turns * s.yaw_r.value * rate * d.damping;
  const double stiff = turns * s.yaw_beta.value * d.stiffness;
  return {power, power * slips, 1, slips + damps, stiff + damps * slips};
}

DoubtBand doubts_of(const Aeroplane& a, const AxisControl& control, Axis axis) {
  const Stability& s = a.stability;
  DoubtBand band;
  const auto set = [&band](double Doubt::*which, std::pair<double, double> f) {
    band.least.*which = f.first, band.most.*which = f.second;
  };
  set(&Doubt::damping, factors(axis == Axis::roll ? s.roll_p : axis == Axis::pitch ? s.pitch_q : s.yaw_r));
  if (axis == Axis::pitch) set(&Doubt::stiffness, factors(s.pitch_alpha));
  if (axis == Axis::yaw) set(&Doubt::stiffness, factors(s.yaw_beta));
  set(&Doubt::effect, {control.least, control.most});
  set(&Doubt::inertia, factors(inertia_about(a, axis)));
  return band;
}

}  // namespace rigging
