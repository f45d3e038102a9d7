#include "flight/axis_plant.h"

#include <Eigen/Eigenvalues>
#include <algorithm>
#include <cmath>
#include <complex>

#include "base/angle.h"
#include "earth/gravity.h"

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

/// Roll rate for the rudders: sideslip, yaw and roll rate.
RatePlant rolled_by_rudders(const Aeroplane& a, const AxisControl& control, double m_s, const Doubt& d) {
  const Stability& s = a.stability;
  const double q = air_density_kg_m3 / 2 * m_s * m_s, S = a.wing_area_m2, b = a.span_m;
  const double lift = a.mass_kg * standard_gravity / (q * S), rate = b / (2 * m_s) * d.damping;
  const Inertia along = a.inertia.below(a.trim_alpha.value);
  const double ix = along.roll.value, iz = along.yaw.value, ixz = along.xz;
  const double per = q * S * b / (d.inertia * (ix * iz - ixz * ixz));
  // Angular acceleration for coefficients of roll and yaw: each turns about the other axis as well.
  const auto rolls = [&](double roll, double yaw) { return per * (iz * roll + ixz * yaw); };
  const auto turns = [&](double roll, double yaw) { return per * (ixz * roll + ix * yaw); };
  const double slips = q * S / (a.mass_kg * m_s) * s.side_beta.value;
  const double roll_beta = s.roll_beta.value + s.roll_beta_per_lift.value * lift,
               yaw_beta = s.yaw_beta.value * d.stiffness;
  const double roll_p = s.roll_p.value * rate, yaw_p = (s.yaw_p.value + s.yaw_p_per_lift.value * lift) * rate;
  const double roll_r = (s.roll_r.value + s.roll_r_per_lift.value * lift) * rate, yaw_r = s.yaw_r.value * rate;
  const double roll_d = control.effect * d.effect, yaw_d = control.turn * d.effect;
  const double l_beta = rolls(roll_beta, yaw_beta), n_beta = turns(roll_beta, yaw_beta);
  const double l_p = rolls(roll_p, yaw_p), n_p = turns(roll_p, yaw_p);
  const double l_r = rolls(roll_r, yaw_r), n_r = turns(roll_r, yaw_r);
  const double l_d = rolls(roll_d, yaw_d), n_d = turns(roll_d, yaw_d);
  // (sideslip, yaw rate, roll rate)' = matrix · them + (0, n_d, l_d) · rudder.
  Eigen::Matrix3d m;
  m << slips, -1, 0, n_beta, n_r, n_p, l_beta, l_r, l_p;
  RatePlant p;
  // Numerator: l_d times the pair of sideslip and yaw alone, and what sideslip and yaw rate do to the roll.
  p.b2 = l_d;
  p.b1 = -l_d * (slips + n_r) + l_r * n_d;
  p.b0 = l_d * (slips * n_r + n_beta) - n_d * (l_beta + l_r * slips);
  // A cubic has a real root: the one farthest from the others, as a rule the roll's own.
  const auto roots = m.eigenvalues();
  Eigen::Index own = 0;
  for (Eigen::Index i = 1; i < 3; ++i)
    if (std::abs(roots[i].imag()) < std::abs(roots[own].imag()) ||
        (roots[i].imag() == roots[own].imag() && roots[i].real() < roots[own].real()))
      own = i;
  const std::complex<double> one = roots[(own + 1) % 3], other = roots[(own + 2) % 3];
  p.a2 = 1, p.a1 = -(one + other).real(), p.a0 = (one * other).real();
  p.c1 = 1, p.c0 = -roots[own].real();
  return p;
}

}  // namespace

std::array<AxisControl, 3> axis_controls(const Aeroplane& aeroplane, const SurfacesReport& surfaces) {
  std::array<AxisControl, 3> all;
  for (const Axis axis : all_axes) {
    const auto i = static_cast<std::size_t>(index_of(axis));
    AxisControl& c = all[i];
    double sum = 0, moments = 0, least = 0, most = 0, lift = 0, turn = 0, turn_least = 0, turn_most = 0;
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
      const double aside = way * effect->yaw;
      turn += aside, turn_least += aside * effect->least, turn_most += aside * effect->most;
      ailerons = ailerons || answer.surface.kind != SurfaceKind::rudder;
    }
    if (serving == 0) continue;
    c.throw_rad = sum / serving;
    c.effect = moments / c.throw_rad;
    c.lift = lift / c.throw_rad, c.turn = turn / c.throw_rad;
    if (moments != 0) c.least = least / moments, c.most = most / moments;
    c.roll_by_rudder = axis == Axis::roll && !ailerons;
    if (c.roll_by_rudder && turn != 0) c.least = turn_least / turn, c.most = turn_most / turn;
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
  if (control.roll_by_rudder && axis == Axis::roll) return rolled_by_rudders(a, control, m_s, d);
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
    // What the surfaces take from the lift makes the angle of attack grow.
    const double drops = -along * control.lift * d.effect, lead = power - lags * drops;
    return {lead, lead * sinks - (stiff - lags * sinks) * drops, 1, sinks + damps + lags, stiff + damps * sinks};
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
  if (axis == Axis::yaw || control.roll_by_rudder) set(&Doubt::stiffness, factors(s.yaw_beta));
  // The dihedral is as unsure as the rudder.
  const auto dihedral = control.roll_by_rudder ? factors(s.roll_beta) : std::pair(1.0, 1.0);
  set(&Doubt::effect, {control.least * dihedral.first, control.most * dihedral.second});
  set(&Doubt::inertia, factors(inertia_about(a, axis)));
  return band;
}

}  // namespace rigging
