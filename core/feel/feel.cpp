#include "feel/feel.h"

#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "earth/gravity.h"
#include "flight/engine.h"

namespace rigging {
namespace {

constexpr double least_with_throttle = 0.5;            ///< how far a correction is scaled with the throttle
constexpr double least_follow = 0.3, most_follow = 2;  ///< how far a correction is scaled with the airspeed

/// The rate at which the surfaces' push and the damping agree.
double full_rate(const Aeroplane& a, const AxisControl& c, Axis axis, double m_s) {
  const RatePlant p = plant_of(a, c, axis, m_s);
  return p.a0 * p.c0 > 0 ? p.steady() * c.throw_rad / rad : 0;
}

}  // namespace

double AxisFeel::stick_rate_deg_s(const Aeroplane& aeroplane, double m_s, bool manual) const {
  const RatePlant p = plant_of(aeroplane, control, axis, m_s);
  if (p.a0 * p.c0 <= 0) return 0;
  const double per_rad = p.steady();
  return per_rad * control.throw_rad * (manual ? 1 : stick_share / (1 + gain_s * per_rad)) / rad;
}

namespace {

/// Turning upward at a rate q asks for a load of 1 + V·q/g: what the wing can carry at this speed is the end of it.
double stall_rate(const Aeroplane& a, double m_s) {
  const double load = (m_s / a.stall_m_s) * (m_s / a.stall_m_s);
  return std::max(0.0, load - 1) * standard_gravity / m_s / rad;
}

/// The speed at which a falling curve meets the gain; the first one.
std::optional<double> meets(const std::vector<MarginPoint>& curve, double MarginPoint::*edge, double gain,
                            const std::function<double(double)>& follows) {
  for (std::size_t i = 0; i < curve.size(); ++i) {
    const auto over = [&](const MarginPoint& p) { return p.*edge > 0 ? gain * follows(p.m_s) - p.*edge : -1; };
    const double here = over(curve[i]);
    if (here < 0) continue;
    if (i == 0) return curve[0].m_s;
    const double before = over(curve[i - 1]);
    return curve[i - 1].m_s + (curve[i].m_s - curve[i - 1].m_s) * (before / (before - here));
  }
  return {};
}

}  // namespace

MarginPoint margin_at(const std::vector<MarginPoint>& curve, double m_s) {
  if (curve.empty()) return {};
  if (m_s <= curve.front().m_s) return curve.front();
  for (std::size_t i = 1; i < curve.size(); ++i) {
    const MarginPoint &a = curve[i - 1], &b = curve[i];
    if (m_s > b.m_s) continue;
    const double t = (m_s - a.m_s) / (b.m_s - a.m_s);
    const auto between = [t](double x, double y) { return x + t * (y - x); };
    return {m_s,
            between(a.shakes_s, b.shakes_s),
            between(a.shakes_least_s, b.shakes_least_s),
            between(a.shakes_most_s, b.shakes_most_s),
            between(a.hz, b.hz),
            between(a.calm_s, b.calm_s)};
  }
  return curve.back();
}

double follows_speed(const ControllerClass& controller, double m_s, double cruise_m_s) {
  if (controller.feel.follows != GainFollows::airspeed || m_s <= 0) return 1;
  return std::clamp(cruise_m_s * cruise_m_s / (m_s * m_s), least_follow, most_follow);
}

double follows_throttle(const ControllerClass& controller, double throttle, double cruise_throttle) {
  if (controller.feel.follows != GainFollows::throttle || cruise_throttle >= 1) return 1;
  return 1 - (1 - least_with_throttle) * std::clamp((throttle - cruise_throttle) / (1 - cruise_throttle), 0.0, 1.0);
}

FeelReport analyze_feel(const Reports& reports) {
  FeelReport r;
  const Rig& rig = reports.rig();
  const Catalogue& catalogue = reports.catalogue();
  const AirframeReport& airframe = reports.airframe();
  const SurfacesReport& surfaces = reports.surfaces();
  const ControllerClass* c = reports.controller();
  if (!c) {
    r.missing = "Choose a controller at station airframe first: its gains are what is set here.";
    return r;
  }
  const auto plane = aeroplane_of(rig, catalogue, airframe, reports.fit().balance);
  if (!plane) {
    r.missing = capital(plane.error().what) + ". Needed: " + plane.error().expected + ".";
    return r;
  }
  r.aeroplane = *plane;
  if (const auto speeds = speeds_of(rig, airframe)) r.fast_m_s = speeds->fast;
  r.cruise_throttle =
      FlightModel(*plane, drag_of(rig.airframe, plane->cruise_m_s), engine_of(reports, *plane)).cruise_throttle();
  const auto controls = axis_controls(*plane, surfaces);
  const GainScale scale(*c, rig.feel.half_share);
  const auto follows = [&](double m_s) { return follows_speed(*c, m_s, plane->cruise_m_s); };
  const bool levels = c->mode(Mode::level) != nullptr;
  for (const Axis axis : all_axes) {
    AxisFeel& a = r.axes[static_cast<std::size_t>(index_of(axis))];
    a.axis = axis;
    a.control = controls[static_cast<std::size_t>(index_of(axis))];
    if (a.control.throw_rad <= 0) {
      a.why_not = a.control.by_motors ? "Only the motors steer it: how fast they answer is not known here."
                                      : "No surface serves it.";
      continue;
    }
    if (plant_of(*plane, a.control, axis, plane->cruise_m_s).b0 <= 0) {
      a.why_not = "As planned its surfaces turn the aircraft the wrong way, or not at all: look at station surfaces.";
      continue;
    }
    a.path = signal_path(rig, catalogue, *c, surfaces, a.control, axis);
    const LearnedGain* learnt = rig.feel.learnt(axis);
    a.rate = margins_over_speed(*plane, a.control, axis, a.path, learnt);
    if (levels && axis != Axis::yaw)
      a.level = margins_over_speed(*plane, a.control, axis, a.path, learnt, {.levels = true});
    const AxisGain* set = rig.feel.gain(axis);
    if (scale.settable() && set) a.place = set->rate;
    if (a.place || !scale.settable()) {
      a.gain_s = a.path.full_gain_s * scale.effect(a.place.value_or(1));
      a.shakes_from_m_s = meets(a.stricter(), &MarginPoint::shakes_s, a.gain_s, follows);
      a.may_shake_from_m_s = meets(a.stricter(), &MarginPoint::shakes_least_s, a.gain_s, follows);
    }
    const MarginPoint fast = margin_at(a.stricter(), r.fast_m_s);
    const double at_fast = a.path.full_gain_s * follows(r.fast_m_s);
    a.calm_gain_s = fast.calm_s / follows(r.fast_m_s), a.shakes_gain_s = fast.shakes_s / follows(r.fast_m_s);
    a.shakes_hz = fast.hz;
    if (at_fast > 0) {
      a.calm_place = scale.place_for(fast.calm_s / at_fast);
    }
    if (const AxisGain* g = rig.feel.gain(axis); c->feel.sets_stick)
      a.stick_share = g && g->stick ? *g->stick : c->feel.stick_share;
    a.full_rate_deg_s = full_rate(*plane, a.control, axis, plane->cruise_m_s);
    if (axis == Axis::pitch) a.stall_rate_deg_s = stall_rate(*plane, plane->cruise_m_s);
  }
  return r;
}

}  // namespace rigging
