#include "flight/dynamics.h"

#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "earth/gravity.h"

namespace rigging {
namespace {

constexpr double stall_width = 0.06;  ///< rad, half of the way on which it goes over to a plate
constexpr double slow_m_s = 0.5;      ///< below it angles of the air mean nothing

struct Vec {
  double x, y, z;
};

/// From body to earth axes.
struct Attitude {
  double xx, xy, xz, yx, yy, yz, zx, zy, zz;

  explicit Attitude(const Motion& m) {
    const double a = m.q0, i = m.q1, j = m.q2, k = m.q3;
    xx = 1 - 2 * (j * j + k * k), xy = 2 * (i * j - k * a), xz = 2 * (i * k + j * a);
    yx = 2 * (i * j + k * a), yy = 1 - 2 * (i * i + k * k), yz = 2 * (j * k - i * a);
    zx = 2 * (i * k - j * a), zy = 2 * (j * k + i * a), zz = 1 - 2 * (i * i + j * j);
  }
  Vec to_earth(const Vec& b) const {
    return {xx * b.x + xy * b.y + xz * b.z, yx * b.x + yy * b.y + yz * b.z, zx * b.x + zy * b.y + zz * b.z};
  }
  Vec to_body(const Vec& e) const {
    return {xx * e.x + yx * e.y + zx * e.z, xy * e.x + yy * e.y + zy * e.z, xz * e.x + yz * e.y + zz * e.z};
  }
};

/// From 0 at −1 to 1 at 1, smoothly.
double smooth_step(double x) {
  if (x <= -1) return 0;
  if (x >= 1) return 1;
  const double t = (x + 1) / 2;
  return t * t * (3 - 2 * t);
}

Motion moved(const Motion& m, const Motion& d, double h) {
  return {m.north + h * d.north, m.east + h * d.east, m.down + h * d.down, m.u + h * d.u,   m.v + h * d.v,
          m.w + h * d.w,         m.q0 + h * d.q0,     m.q1 + h * d.q1,     m.q2 + h * d.q2, m.q3 + h * d.q3,
          m.p + h * d.p,         m.q + h * d.q,       m.r + h * d.r};
}

}  // namespace

double Motion::bank() const { return std::atan2(2 * (q0 * q1 + q2 * q3), 1 - 2 * (q1 * q1 + q2 * q2)); }
double Motion::nose_up() const { return std::asin(std::clamp(2 * (q0 * q2 - q3 * q1), -1.0, 1.0)); }
double Motion::climb_m_s() const {
  return -(2 * (q1 * q3 - q0 * q2) * u + 2 * (q2 * q3 + q0 * q1) * v + (q0 * q0 - q1 * q1 - q2 * q2 + q3 * q3) * w);
}
double Motion::heading() const { return std::atan2(2 * (q0 * q3 + q1 * q2), 1 - 2 * (q2 * q2 + q3 * q3)); }

Motion Motion::straight(double m_s, double height_m, double bank_rad, double nose_up_rad, double heading_rad) {
  Motion m;
  m.down = -height_m;
  m.u = m_s;
  const double cr = std::cos(bank_rad / 2), sr = std::sin(bank_rad / 2), cp = std::cos(nose_up_rad / 2),
               sp = std::sin(nose_up_rad / 2), cy = std::cos(heading_rad / 2), sy = std::sin(heading_rad / 2);
  m.q0 = cr * cp * cy + sr * sp * sy;
  m.q1 = sr * cp * cy - cr * sp * sy;
  m.q2 = cr * sp * cy + sr * cp * sy;
  m.q3 = cr * cp * sy - sr * sp * cy;
  return m;
}

FlightModel::FlightModel(const Aeroplane& a, const Drag& drag, const Engine& engine) : aeroplane_(a), engine_(engine) {
  const Stability& s = a.stability;
  inverse_mass_ = 1 / a.mass_kg;
  const Inertia along = a.inertia.below(a.trim_alpha.value);
  ix_ = along.roll.value, iy_ = along.pitch.value, iz_ = along.yaw.value, ixz_ = along.xz;
  // A product of inertia that no body can have would turn mass into nothing.
  ixz_ = std::clamp(ixz_, -0.9 * std::sqrt(ix_ * iz_), 0.9 * std::sqrt(ix_ * iz_));
  gamma_ = 1 / (ix_ * iz_ - ixz_ * ixz_);
  lift_alpha_ = s.lift_alpha.value, lift_q_ = s.lift_q.value;
  drag_zero_ = drag.parasite_m2 / a.wing_area_m2;
  drag_lift_ = drag.induced_per_m2 * a.wing_area_m2;
  pitch_alpha_ = s.pitch_alpha.value;
  pitch_q_ = s.pitch_q.value;
  const double q = air_density_kg_m3 / 2 * a.cruise_m_s * a.cruise_m_s;
  const double lift = a.mass_kg * standard_gravity / (q * a.wing_area_m2);
  // The body's x axis is where the air comes from at cruise.
  lift_zero_ = lift;
  // Its top is rounded: the middle of the change lies beyond it.
  stall_alpha_ = (a.highest_lift - lift) / lift_alpha_ + 0.6 * stall_width;
  blunt_ = 1 / stall_width;
  zero_lift_alpha_ = lift_zero_ / lift_alpha_;
  zero_sin_ = std::sin(zero_lift_alpha_), zero_cos_ = std::cos(zero_lift_alpha_);
  cruise_throttle_ = level_at(a.cruise_m_s).throttle;
}

LevelFlight FlightModel::level_at(double m_s) const {
  const Aeroplane& a = aeroplane_;
  LevelFlight level;
  const double pressure = air_density_kg_m3 / 2 * m_s * m_s * a.wing_area_m2;
  const double lift = a.mass_kg * standard_gravity / pressure;
  if (m_s != a.cruise_m_s) {
    double low = -zero_lift_alpha_, high = stall_alpha_ - 0.6 * stall_width;
    level.carried = lift_coefficient(high) >= lift;
    for (int i = 0; i < 50; ++i) {
      const double middle = (low + high) / 2;
      (lift_coefficient(middle) < lift ? low : high) = middle;
    }
    level.alpha = high;
    level.pitch = -pitch_alpha_ * std::sin(level.alpha);
  }
  const double wanted = pressure * drag_coefficient(level.alpha);
  double low = 0, high = engine_.static_n > 0 ? 1 : 0;
  level.pulled = engine_.thrust_n(high, m_s) >= wanted;
  for (int i = 0; i < 50; ++i) {
    const double middle = (low + high) / 2;
    (engine_.thrust_n(middle, m_s) < wanted ? low : high) = middle;
  }
  level.throttle = high;
  return level;
}

FlightModel::Polar FlightModel::polar(double alpha, double sine, double cosine) const {
  const double lift = lift_zero_ + lift_alpha_ * alpha, drag = drag_zero_ + drag_lift_ * lift * lift;
  // 0 while it flies, 1 where it is a plate, on either side.
  const double stalled = smooth_step(blunt_ * (alpha - stall_alpha_)) +
                         smooth_step(blunt_ * (-alpha - stall_alpha_ - 2 * zero_lift_alpha_));
  if (stalled <= 0) return {lift, drag};
  const double si = sine * zero_cos_ + cosine * zero_sin_, co = cosine * zero_cos_ - sine * zero_sin_;
  const double plate = 2 * std::abs(si) * si;
  return {(1 - stalled) * lift + stalled * plate * co,
          drag_zero_ + (1 - stalled) * drag_lift_ * lift * lift + stalled * plate * si};
}

double FlightModel::lift_coefficient(double alpha) const { return polar(alpha, std::sin(alpha), std::cos(alpha)).lift; }
double FlightModel::drag_coefficient(double alpha) const { return polar(alpha, std::sin(alpha), std::cos(alpha)).drag; }

double Engine::thrust_n(double throttle, double airspeed) const {
  const double full = throttle * throttle * static_n;
  const double free = free_m_s * std::max(0.2, throttle);
  const double share = airspeed / free;
  return full * std::max(0.0, 1 - share * share);
}

Incidence FlightModel::incidence(const Motion& m, const Air& air) const {
  const Vec wind = Attitude(m).to_body({air.north, air.east, air.down});
  const double u = m.u - wind.x - air.u, v = m.v - wind.y - air.v, w = m.w - wind.z - air.w;
  const double speed = std::sqrt(u * u + v * v + w * w);
  if (speed < slow_m_s) return {0, 0, speed};
  return {std::atan2(w, u), std::asin(std::clamp(v / speed, -1.0, 1.0)), speed};
}

Motion FlightModel::rates(const Motion& m, const Deflection& d, double throttle, const Air& air) const {
  const Aeroplane& a = aeroplane_;
  const Stability& s = a.stability;
  const Attitude attitude(m);
  const Vec wind = attitude.to_body({air.north, air.east, air.down});
  const double ua = m.u - wind.x - air.u, va = m.v - wind.y - air.v, wa = m.w - wind.z - air.w;
  const double flat = ua * ua + wa * wa, airspeed = std::sqrt(flat + va * va);
  const bool moves = airspeed > slow_m_s;
  const double along = std::sqrt(flat), ca = along > 0 ? ua / along : 1, sa = along > 0 ? wa / along : 0;
  const double alpha = moves ? std::atan2(wa, ua) : 0;
  const double slip = moves ? va / airspeed : 0;
  // The arc sine, to a millionth where it is small.
  const double beta =
      std::abs(slip) < 0.2 ? slip * (1 + slip * slip * (1.0 / 6 + slip * slip * 0.075)) : std::asin(slip);
  const double pressure = air_density_kg_m3 / 2 * airspeed * airspeed * a.wing_area_m2;
  const double over_speed = 0.5 / std::max(airspeed, slow_m_s);
  const double p = (m.p - air.p) * a.span_m * over_speed, q = (m.q - air.q) * a.mean_chord_m * over_speed,
               r = (m.r - air.r) * a.span_m * over_speed;

  const Polar still = polar(alpha, sa, ca);
  const double extra = lift_q_ * q + d.lift, lift = still.lift + extra;
  const double drag = still.drag + drag_lift_ * extra * (2 * still.lift + extra);
  const double side = s.side_beta.value * beta + s.side_p.value * p + s.side_r.value * r + d.side;
  const double fx = pressure * (-drag * ca + lift * sa) + engine_.thrust_n(throttle, std::max(0.0, ua));
  const double fy = pressure * side, fz = pressure * (-drag * sa - lift * ca);

  const double roll = pressure * a.span_m *
                      ((s.roll_beta.value + s.roll_beta_per_lift.value * still.lift) * beta + s.roll_p.value * p +
                       (s.roll_r.value + s.roll_r_per_lift.value * still.lift) * r + d.roll);
  const double yaw =
      pressure * a.span_m *
      (s.yaw_beta.value * beta + (s.yaw_p.value + s.yaw_p_per_lift.value * still.lift) * p + s.yaw_r.value * r + d.yaw);

  Motion c;
  const Vec ground = attitude.to_earth({m.u, m.v, m.w}), weight = attitude.to_body({0, 0, standard_gravity});
  c.north = ground.x, c.east = ground.y, c.down = ground.z;
  c.u = fx * inverse_mass_ + weight.x + m.r * m.v - m.q * m.w;
  c.v = fy * inverse_mass_ + weight.y + m.p * m.w - m.r * m.u;
  c.w = fz * inverse_mass_ + weight.z + m.q * m.u - m.p * m.v;
  // The downwash reaches the tail later: what counts is how fast the angle of attack changes, through the air, which in
  // a steady wind moves along.
  const double du = fx * inverse_mass_ + weight.x + m.r * va - m.q * wa,
               dw = fz * inverse_mass_ + weight.z + m.q * ua - m.p * va;
  const double alpha_rate = moves ? (dw * ua - du * wa) / std::max(flat, slow_m_s * slow_m_s) : 0;
  // Beyond the stall the stiffness is that of an arrow, not of a line.
  const double pitch =
      pressure * a.mean_chord_m *
      (pitch_alpha_ * sa + pitch_q_ * q + s.pitch_alpha_dot.value * alpha_rate * a.mean_chord_m * over_speed + d.pitch);
  c.q0 = 0.5 * (-m.q1 * m.p - m.q2 * m.q - m.q3 * m.r);
  c.q1 = 0.5 * (m.q0 * m.p + m.q2 * m.r - m.q3 * m.q);
  c.q2 = 0.5 * (m.q0 * m.q - m.q1 * m.r + m.q3 * m.p);
  c.q3 = 0.5 * (m.q0 * m.r + m.q1 * m.q - m.q2 * m.p);
  // Euler's equations with the product of inertia (Etkin, Dynamics of Flight, ch. 4).
  const double hx = ix_ * m.p - ixz_ * m.r, hy = iy_ * m.q, hz = iz_ * m.r - ixz_ * m.p;
  const double mx = roll - (m.q * hz - m.r * hy), my = pitch - (m.r * hx - m.p * hz), mz = yaw - (m.p * hy - m.q * hx);
  c.p = (iz_ * mx + ixz_ * mz) * gamma_;
  c.q = my / iy_;
  c.r = (ix_ * mz + ixz_ * mx) * gamma_;
  return c;
}

void FlightModel::step(Motion& m, const Deflection& surfaces, double throttle, const Air& air, double dt) const {
  const Motion a = rates(m, surfaces, throttle, air);
  const Motion b = rates(moved(m, a, dt / 2), surfaces, throttle, air);
  const Motion c = rates(moved(m, b, dt / 2), surfaces, throttle, air);
  const Motion d = rates(moved(m, c, dt), surfaces, throttle, air);
  Motion next = moved(m, a, dt / 6);
  next = moved(next, b, dt / 3);
  next = moved(next, c, dt / 3);
  m = moved(next, d, dt / 6);
  // The length drifts by rounding alone: one step of Newton's is enough.
  const double scale = 1.5 - 0.5 * (m.q0 * m.q0 + m.q1 * m.q1 + m.q2 * m.q2 + m.q3 * m.q3);
  m.q0 *= scale, m.q1 *= scale, m.q2 *= scale, m.q3 *= scale;
}

double FlightModel::energy(const Motion& m) const {
  return 0.5 * aeroplane_.mass_kg * (m.u * m.u + m.v * m.v + m.w * m.w) +
         0.5 * (ix_ * m.p * m.p + iy_ * m.q * m.q + iz_ * m.r * m.r) - ixz_ * m.p * m.r +
         aeroplane_.mass_kg * standard_gravity * m.height();
}

}  // namespace rigging
