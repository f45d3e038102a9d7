#include "flight/aeroplane.h"

#include <Eigen/Geometry>
#include <algorithm>
#include <cmath>

#include "airframe/drag.h"
#include "airframe/lattice.h"
#include "base/angle.h"
#include "base/number.h"
#include "surfaces/air_loads.h"

namespace rigging {
namespace {

constexpr double lattice_error = 0.12;  ///< share, of what the lattice says of small wings (low Reynolds numbers take)
constexpr double tail_air = 0.92;       ///< dynamic pressure at the tail, share (common practice)
constexpr double flap_flow = 0.8, flap_flow_least = 0.6,
                 flap_flow_most = 0.95;  ///< of thin aerofoil theory, gaps and thick boundary layers (common practice)
constexpr double whole_least = 0.85, whole_most = 1.05;  ///< of an all-moving surface
constexpr double fin_error = 0.25;                       ///< sidewash and slow air (common practice)
constexpr double endplate = 1.55;  ///< aspect ratio of a fin on a body counts so much more (Nelson, from memory)
constexpr double munk = 0.9;       ///< of a body about as slender as ours
constexpr int strips = 16;

Banded band(double v, double share) {
  const double d = std::abs(v) * share;
  return {v, v - d, v + d};
}
Banded operator+(const Banded& a, const Banded& b) { return {a.value + b.value, a.least + b.least, a.most + b.most}; }

/// A fin, or one of two at the tips.
struct Fin {
  double area_m2 = 0, slope = 0;
  Point at = {0, 0, 0};  ///< where its force works, from the balance point
  std::optional<Surface> surface;
  double rudder_share = 0;  ///< of its area that the rudder's strips cover
};

/// Fins of the drawing, by the side they stand on.
std::vector<Fin> fins_of(const AirframeReport& airframe, const Point& about) {
  struct Pieces {
    double area = 0, low = 1e9, high = -1e9, front = -1e9;
    Point first = {0, 0, 0};
    std::optional<Surface> surface;
    double moving = 0;
  };
  std::vector<std::pair<int, Pieces>> sides;
  for (const Panel& p : airframe.panels) {
    if (p.part != Panel::Part::fin) continue;
    Point middle = Point::Zero();
    for (const Point& c : p.corners) middle += c / static_cast<double>(p.corners.size());
    const int side = std::abs(middle.y()) < 1e-6 ? 0 : middle.y() > 0 ? 1 : -1;
    auto found = std::find_if(sides.begin(), sides.end(), [side](const auto& s) { return s.first == side; });
    if (found == sides.end()) found = sides.insert(sides.end(), {side, {}});
    Pieces& f = found->second;
    const double area = area_of(p.corners);
    f.area += area;
    f.first += area * middle;
    for (const Point& c : p.corners) {
      f.low = std::min(f.low, c.z()), f.high = std::max(f.high, c.z());
      f.front = std::max(f.front, c.x());
    }
    if (p.surface) f.surface = p.surface, f.moving += area;
  }
  std::vector<Fin> all;
  for (const auto& [side, f] : sides) {
    const double height = f.high - f.low;
    if (f.area <= 0 || height <= 0) continue;
    Fin fin;
    fin.area_m2 = f.area;
    fin.slope = helmbold_slope((side == 0 ? endplate : 1) * height * height / f.area);
    // A quarter of the chord ahead of the middle of its area.
    fin.at = f.first / f.area + Point(0.25 * f.area / height, 0, 0) - about;
    fin.surface = f.surface;
    fin.rudder_share = f.moving / f.area;
    all.push_back(fin);
  }
  return all;
}

/// The lattice of wing, tail and foreplane, with what motions and flaps do to it.
class Sums {
 public:
  Sums(const Planform& planform, const Point& about)
      : about_(about), lattice_(surfaces_of(planform), strips), tail_(planform.tail ? 1 : 0) {}

  using Through = std::function<double(const Lattice::Panel&)>;
  /// Force and moment on all of it, slow air at the tail counted.
  AirLoad of(Lattice::Left left, const Through& through) const {
    std::vector<double> air;
    for (const Lattice::Panel& p : lattice_.panels()) air.push_back(through(p));
    const std::vector<AirLoad> loads = lattice_.loads(air, left, about_);
    AirLoad all;
    for (std::size_t i = 0; i < loads.size(); ++i) {
      const double share = is_tail(i) ? tail_air : 1;
      all.force += share * loads[i].force;
      all.moment += share * loads[i].moment;
    }
    return all;
  }
  bool is_tail(std::size_t surface) const { return tail_ > 0 && surface == tail_; }
  Point from_balance(const Lattice::Panel& p) const { return p.control - about_; }
  const Lattice& lattice() const { return lattice_; }

 private:
  static std::vector<LatticeSurface> surfaces_of(const Planform& p) {
    std::vector<LatticeSurface> all{{p.wing, 4}};
    if (p.tail) all.push_back({*p.tail, 3});
    if (p.foreplane) all.push_back({*p.foreplane, 3});
    return all;
  }
  Point about_;
  Lattice lattice_;
  std::size_t tail_;
};

struct Sizes {
  double area = 0, span = 0, chord = 0;
};

/// Where a hinged surface lies on the lattice, right half.
struct Flap {
  std::size_t on = 0;
  double from_y = 0, to_y = 0;
  double share = 0.25;  ///< of the chord
};

std::optional<Flap> flap_of(const Rig& rig, const AirframeReport& airframe, const Planform& planform, Surface surface) {
  if (surface.kind == SurfaceKind::rudder || surface.kind == SurfaceKind::motor) return {};
  const auto shape = shape_of(rig, surface);
  if (!shape) return {};
  Flap f;
  f.from_y = 1e9, f.to_y = 0;
  for (const rigging::Panel& p : airframe.panels) {
    if (!p.surface || *p.surface != surface) continue;
    for (const Point& c : p.corners) {
      f.from_y = std::min(f.from_y, std::abs(c.y()));
      f.to_y = std::max(f.to_y, std::abs(c.y()));
    }
    f.on = p.part == rigging::Panel::Part::wing ? 0 : surface.kind == SurfaceKind::canard ? (planform.tail ? 2 : 1) : 1;
  }
  f.share = shape->all_moving ? 1 : shape->share;
  if (f.to_y <= f.from_y) return {};
  return f;
}

/// Share of the panel's width that the flap covers.
double covered(const Lattice::Panel& p, const Flap& f) {
  const double a = std::min(p.left.y(), p.right.y()), b = std::max(p.left.y(), p.right.y());
  return std::clamp((std::min(b, f.to_y) - std::max(a, f.from_y)) / (b - a), 0.0, 1.0);
}

ControlEffect effect_of_flap(const Sums& sums, const Sizes& size, Surface surface, const Flap& f) {
  const double works = f.share >= 1 ? 1 : flap_effectiveness(f.share) * flap_flow;
  const auto through = [&](const Lattice::Panel& p) { return p.surface == f.on ? -works * covered(p, f) : 0; };
  ControlEffect e;
  e.surface = surface;
  e.least = f.share >= 1 ? whole_least : flap_flow_least / flap_flow;
  e.most = f.share >= 1 ? whole_most : flap_flow_most / flap_flow;
  // The right one alone is half of both alike and half of both against each other; the left one its mirror image.
  const double half = surface.side == Side::single ? 1 : 0.5;
  const AirLoad both = sums.of(Lattice::Left::the_same, through);
  e.lift = -2 * half * both.force.z() / size.area;
  e.pitch = 2 * half * both.moment.y() / (size.area * size.chord);
  // The flap's own moment about the quarter chord, nose up for an edge that goes up (Glauert: ½ sin θ (1 − cos θ) per
  // radian and chord squared).
  if (f.share < 1) {
    const double theta = std::acos(2 * f.share - 1);
    const double own = 0.5 * std::sin(theta) * (1 - std::cos(theta)) * flap_flow;
    double squares = 0;
    for (const Lattice::Panel& p : sums.lattice().panels())
      if (p.surface == f.on) squares += 2 * covered(p, f) * p.width_m * p.chord_m * p.chord_m / (f.on == 0 ? 4 : 3);
    e.pitch += half * own * squares / (size.area * size.chord);
  }
  if (surface.side != Side::single) {
    const AirLoad opposite = sums.of(Lattice::Left::the_opposite, through);
    const double sign = surface.side == Side::right ? half : -half;
    e.roll = 2 * sign * opposite.moment.x() / (size.area * size.span);
    e.yaw = 2 * sign * opposite.moment.z() / (size.area * size.span);
    e.side = 2 * sign * opposite.force.y() / size.area;
  }
  return e;
}

ControlEffect effect_of_rudder(const std::vector<Fin>& fins, const Sizes& size, Surface surface, double share) {
  ControlEffect e;
  e.surface = surface;
  e.least = flap_flow_least / flap_flow, e.most = flap_flow_most / flap_flow;
  for (const Fin& f : fins) {
    if (!f.surface || *f.surface != surface) continue;
    // The hinged strip is `share` of the chord: its area over that is the part of the fin that it works on.
    const double worked = std::min(1.0, f.rudder_share / share) * f.area_m2;
    // An edge to the right pushes to the left.
    const Point force(0, -worked * f.slope * flap_effectiveness(share) * flap_flow * tail_air, 0);
    const Point moment = f.at.cross(force);
    e.side += force.y() / size.area;
    e.roll += moment.x() / (size.area * size.span);
    e.yaw += moment.z() / (size.area * size.span);
  }
  return e;
}

Stability stability_of(const Sums& sums, const Planform& planform, const std::vector<Fin>& fins,
                       const AirframeReport& airframe, const BodySize& body, const Sizes& size, double balance_m) {
  using Left = Lattice::Left;
  Stability s;
  const double S = size.area, b = size.span, c = size.chord;
  const auto normal = [](const Lattice::Panel& p) { return p.normal; };

  // Angle of attack: the neutral point's own band counts.
  s.lift_alpha = band(airframe.lift_slope_per_rad, lattice_error);
  const Figure& np = airframe.neutral_point;
  const auto stiff = [&](double at) { return -airframe.lift_slope_per_rad * (at - balance_m) / c; };
  s.pitch_alpha = {stiff(np.value), stiff(np.most.value_or(np.value)), stiff(np.least.value_or(np.value))};

  // A rate counts as rate·c/2V: the rate itself is 2V/c of it.
  const AirLoad pitching =
      sums.of(Left::the_same, [&](const auto& p) { return sums.from_balance(p).x() * normal(p).z() * 2 / c; });
  s.lift_q = band(-2 * pitching.force.z() / S, lattice_error);
  s.pitch_q = band(2 * pitching.moment.y() / (S * c), lattice_error + 0.08);
  // The downwash arrives later by the way from wing to tail. What the wing takes from the tail's lift is how much of
  // the angle of attack its downwash eats.
  s.pitch_alpha_dot = {0, 0, 0};
  if (planform.tail) {
    const auto rising = [](const Lattice::Panel& p) { return -p.normal.z(); };
    std::vector<double> air;
    for (const auto& p : sums.lattice().panels()) air.push_back(rising(p));
    const double with = -sums.lattice().loads(air, Left::the_same, Point::Zero())[1].force.z();
    const Lattice alone({{*planform.tail, 3}}, strips);
    air.clear();
    for (const auto& p : alone.panels()) air.push_back(rising(p));
    const double by_itself = -alone.loads(air, Left::the_same, Point::Zero())[0].force.z();
    const double eaten = by_itself > 0 ? std::clamp(1 - with / by_itself, 0.0, 1.0) : 0;
    const double arm = planform.tail->quarter_chord_m() - balance_m,
                 way = planform.tail->quarter_chord_m() - planform.wing.quarter_chord_m();
    s.pitch_alpha_dot = band(-2 * tail_air * 2 * by_itself / S * eaten * arm * way / (c * c), 0.3);
  }

  // Sideslip to the right: air from the right.
  const AirLoad slipping = sums.of(Left::the_opposite, [&](const auto& p) { return -normal(p).y(); });
  const AirLoad rolling = sums.of(Left::the_opposite, [&](const auto& p) {
    const Point r = sums.from_balance(p);
    return (r.z() * normal(p).y() - r.y() * normal(p).z()) * 2 / b;
  });
  const AirLoad turning =
      sums.of(Left::the_opposite, [&](const auto& p) { return -sums.from_balance(p).x() * normal(p).y() * 2 / b; });
  const auto side = [&](const AirLoad& l) { return 2 * l.force.y() / S; };
  const auto roll = [&](const AirLoad& l) { return 2 * l.moment.x() / (S * b); };
  const auto yaw = [&](const AirLoad& l) { return 2 * l.moment.z() / (S * b); };
  s.side_beta = band(side(slipping), lattice_error), s.roll_beta = band(roll(slipping), 0.2);
  s.yaw_beta = band(yaw(slipping), lattice_error);
  s.side_p = band(side(rolling), lattice_error), s.roll_p = band(roll(rolling), lattice_error);
  s.yaw_p = band(yaw(rolling), 0.3);
  s.side_r = band(side(turning), lattice_error), s.roll_r = band(roll(turning), 0.3);
  s.yaw_r = band(yaw(turning), lattice_error);
  for (const Fin& f : fins) {
    // Sideslip that the fin sees for each: itself, and what rolling and turning move it to the side.
    const auto add = [&](double slip, Banded& to_side, Banded& to_roll, Banded& to_yaw) {
      const Point force(0, -f.area_m2 * f.slope * tail_air * slip, 0);
      const Point moment = f.at.cross(force);
      to_side = to_side + band(force.y() / S, fin_error);
      to_roll = to_roll + band(moment.x() / (S * b), fin_error);
      to_yaw = to_yaw + band(moment.z() / (S * b), fin_error);
    };
    add(1, s.side_beta, s.roll_beta, s.yaw_beta);
    add(-f.at.z() * 2 / b, s.side_p, s.roll_p, s.yaw_p);
    add(f.at.x() * 2 / b, s.side_r, s.roll_r, s.yaw_r);
  }
  s.yaw_beta = s.yaw_beta + band(-2 * munk * body.volume_m3() / (S * b), 0.5);

  // With lift: a swept wing into the wind carries more on that side (simple sweep theory, lift at 4/3π of the half
  // span); a turning one on the faster side, a rolling one leans its lift (Nelson, table 3.5, from memory).
  const HalfSurface& w = planform.wing;
  const double back = -(w.tip.x() - w.root.x()) + (w.tip_chord_m - w.root_chord_m) / 4;
  const double sweep = back / std::max(1e-6, std::abs(w.tip.y() - w.root.y()));
  s.roll_beta_per_lift = band(-4 / (3 * pi) * sweep, 0.4);
  s.roll_r_per_lift = band(0.25, 0.3);
  s.yaw_p_per_lift = band(-0.125, 0.4);
  return s;
}

}  // namespace

const ControlEffect* Aeroplane::control(Surface surface) const {
  for (const ControlEffect& c : controls)
    if (c.surface == surface) return &c;
  return nullptr;
}

Result<Aeroplane> aeroplane_of(const Rig& rig, const Catalogue& catalogue, const AirframeReport& airframe,
                               const Balance& balance) {
  const std::string place = "airframe";
  const double mass = rig.airframe.mass_kg.value_or(balance.complete ? balance.total.value : 0);
  if (mass <= 0)
    return failure(place, "the flying mass is not known",
                   "the flying mass at station airframe, or frame and parts weighed at station fit");
  const Planform planform = planform_of(rig.airframe);
  Aeroplane a;
  a.mass_kg = mass;
  a.wing_area_m2 = airframe.wing_area.value;
  a.span_m = rig.airframe.span_m;
  a.mean_chord_m = airframe.mean_chord.value;
  if (a.wing_area_m2 <= 0 || a.mean_chord_m <= 0) return failure(place, "the wing has no area", "a span and chords");
  a.balance_assumed = !balance.complete;
  a.balance_m = balance.likely_m();
  const Point about(-a.balance_m, 0, 0);
  a.inertia = inertia_of(rig, catalogue, airframe, balance, mass, about);
  if (!(a.inertia.roll.value > 0 && a.inertia.pitch.value > 0 && a.inertia.yaw.value > 0))
    return failure(place, "the aircraft has no extent to turn", "its frame weighed at fit, or its parts placed");
  const auto stall = stall_speed(rig.airframe), cruise = cruise_speed(rig.airframe);
  if (const auto speeds = speeds_of(rig, airframe)) a.cruise_m_s = speeds->cruise, a.dive_m_s = speeds->dive;
  if (stall) a.stall_m_s = stall->value;
  if (!(a.cruise_m_s > 0) || !(a.stall_m_s > 0))
    return failure(place, "the flying mass is not known", "the flying mass at station airframe");

  const Sums sums(planform, about);
  const Sizes size{a.wing_area_m2, a.span_m, a.mean_chord_m};
  const std::vector<Fin> fins = fins_of(airframe, about);
  a.stability = stability_of(sums, planform, fins, airframe, body_of(rig.airframe), size, a.balance_m);
  for (const Output& o : rig.outputs)
    for (const Surface surface : o.surfaces) {
      if (surface.kind == SurfaceKind::motor || a.control(surface)) continue;
      if (surface.kind == SurfaceKind::rudder) {
        const auto shape = shape_of(rig, surface);
        if (shape) a.controls.push_back(effect_of_rudder(fins, size, surface, shape->share));
      } else if (const auto flap = flap_of(rig, airframe, planform, surface)) {
        a.controls.push_back(effect_of_flap(sums, size, surface, *flap));
      }
    }
  return a;
}

std::vector<Figure> Aeroplane::figures() const {
  std::vector<Figure> all;
  const auto add = [&all](const char* name, const Banded& e, const char* unit, const char* formula,
                          const char* source) {
    all.push_back({name, e.value, unit, std::min(e.least, e.most), std::max(e.least, e.most), formula, source});
  };
  const char* parts = "parts as boxes where they sit, the frame as plates spread over its drawing";
  add("Inertia about the roll axis", inertia.roll, "kg·m²", parts, "mechanics; band from memory");
  add("Inertia about the pitch axis", inertia.pitch, "kg·m²", parts, "mechanics; band from memory");
  add("Inertia about the yaw axis", inertia.yaw, "kg·m²", parts, "mechanics; band from memory");
  const char* lattice = "vortex lattice (Katz and Plotkin, Low-Speed Aerodynamics, ch. 12)";
  const char* fins = "vortex lattice and fins by Helmbold; body after Munk (NACA report 184)";
  const Stability& s = stability;
  add("Lift slope CLα", s.lift_alpha, "/rad", "lift of all surfaces over the wing's area", lattice);
  add("Pitch stiffness Cmα", s.pitch_alpha, "/rad", "−CLα · (neutral point − balance point) / mean chord",
      "definition; band of the neutral point");
  add("Pitch damping Cmq", s.pitch_q, "", "surfaces moved up and down by the pitching, per q·c/2V", lattice);
  add("Cmα̇", s.pitch_alpha_dot, "", "−2 · tail volume · lift slope · downwash slope · way to the tail / c",
      "Nelson, Flight Stability and Automatic Control, ch. 3");
  add("Side force CYβ", s.side_beta, "/rad", "surfaces with a dihedral, and fins", fins);
  add("Dihedral effect Clβ", s.roll_beta, "/rad", "surfaces with a dihedral, and fins; sweep adds with lift", fins);
  add("Weathercock Cnβ", s.yaw_beta, "/rad", "fins and V behind the balance point, less the body", fins);
  add("Roll damping Clp", s.roll_p, "", "wing and tail moved up and down by the rolling, per p·b/2V", fins);
  add("Yaw damping Cnr", s.yaw_r, "", "fins and V moved to the side by the turning, per r·b/2V", fins);
  for (const ControlEffect& c : controls) {
    const auto effect = [&](const char* on, double v) {
      if (std::abs(v) < 1e-4) return;
      const std::string name = capital(c.surface.label()) + ", " + on;
      all.push_back({name, v, "/rad", std::min(v * c.least, v * c.most), std::max(v * c.least, v * c.most),
                     "its strips at an added incidence of τ · 0.8, edge up (rudder: right) positive",
                     "vortex lattice; thin aerofoil theory (Glauert); 0.8 for real flow, common practice"});
    };
    effect("roll", c.roll);
    effect("pitch", c.pitch);
    effect("yaw", c.yaw);
  }
  return all;
}

}  // namespace rigging
