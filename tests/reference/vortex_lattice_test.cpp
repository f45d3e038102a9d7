#include <gtest/gtest.h>

#include <Eigen/Dense>
#include <cmath>
#include <functional>
#include <numbers>
#include <random>

#include "airframe/airframe.h"
#include "airframe/kinds.h"
#include "airframe/planform.h"
#include "bench_rig.h"
#include "flight/aeroplane.h"
#include "review/review.h"

// Source: J. Katz and A. Plotkin, Low-Speed Aerodynamics, 2nd ed., ch. 12: horseshoe vortices, the line vortex segment
// of its equation 10.115 (VORTXL), both halves of the aircraft written out, wakes as segments of two hundred spans. It
// shares no code with the program; what a kind's sizes are is the program's own business (planform.h).
namespace rigging {
namespace {

using V = Eigen::Vector3d;

struct Cell {
  V a, b, control, normal;
};

V segment(const V& p, const V& from, const V& to) {
  const V r1 = p - from, r2 = p - to, r0 = to - from, c = r1.cross(r2);
  const double square = c.squaredNorm();
  if (square < 1e-14 || r1.norm() < 1e-9 || r2.norm() < 1e-9) return V::Zero();
  return c / (4 * std::numbers::pi * square) * r0.dot(r1.normalized() - r2.normalized());
}

struct Wing {
  V root, tip;  // leading edge, x aft, y right, z up
  double root_chord, tip_chord;
};

/// A whole aircraft, both halves and fins, in cells. Axes x aft, y right, z up.
class Reference {
 public:
  Reference(const std::vector<Wing>& wings, int strips, int rows) {
    // Strips that every surface shares, so that a wake runs between control points.
    std::vector<double> cuts{0}, tips;
    double widest = 0;
    for (const Wing& w : wings) widest = std::max(widest, w.tip.y());
    for (const Wing& w : wings) tips.push_back(w.tip.y());
    std::sort(tips.begin(), tips.end());
    for (const double tip : tips) {
      const double start = cuts.back();
      if (tip - start < 1e-6) continue;
      const int n = std::max(2, static_cast<int>(std::ceil(strips * (tip - start) / widest)));
      for (int i = 1; i <= n; ++i) cuts.push_back(start + (tip - start) * i / n);
    }
    for (const Wing& w : wings) {
      const bool fin = std::abs(w.tip.y() - w.root.y()) < 1e-9;
      std::vector<double> shares;
      if (fin)
        for (int i = 0; i <= 5; ++i) shares.push_back(i / 5.0);
      else
        for (const double cut : cuts)
          if (cut < w.tip.y() + 1e-6) shares.push_back(cut / w.tip.y());
      for (const int side : {1, -1}) {
        if (fin && w.root.y() < 1e-9 && side < 0) continue;
        for (std::size_t i = 0; i + 1 < shares.size(); ++i)
          for (int row = 0; row < rows; ++row) {
            const auto at = [&](double t, double share) {
              const double chord = w.root_chord + (w.tip_chord - w.root_chord) * t;
              V p = w.root + t * (w.tip - w.root) + V(chord * share, 0, 0);
              p.y() *= side;
              return p;
            };
            double t1 = shares[i], t2 = shares[i + 1];
            const double middle = (t1 + t2) / 2;
            if (side < 0) std::swap(t1, t2);  // always from left to right
            const double quarter = (row + 0.25) / rows, three = (row + 0.75) / rows;
            V across = at(t2, quarter) - at(t1, quarter);
            across.x() = 0;
            cells_.push_back(
                {at(t1, quarter), at(t2, quarter), at(middle, three), V(1, 0, 0).cross(across).normalized()});
          }
      }
    }
    const auto n = static_cast<Eigen::Index>(cells_.size());
    Eigen::MatrixXd a(n, n);
    const V far(400 * widest, 0, 0);
    for (Eigen::Index i = 0; i < n; ++i)
      for (Eigen::Index k = 0; k < n; ++k) {
        const Cell &c = cells_[static_cast<std::size_t>(i)], &s = cells_[static_cast<std::size_t>(k)];
        a(i, k) =
            (segment(c.control, s.a + far, s.a) + segment(c.control, s.a, s.b) + segment(c.control, s.b, s.b + far))
                .dot(c.normal);
      }
    solver_.compute(a);
  }

  /// Force and moment about `about`, over dynamic pressure, in air that moves past a place as told.
  std::pair<V, V> loads(const std::function<V(const V&)>& air, const V& about) const {
    const auto n = static_cast<Eigen::Index>(cells_.size());
    Eigen::VectorXd b(n);
    for (Eigen::Index i = 0; i < n; ++i) {
      const Cell& c = cells_[static_cast<std::size_t>(i)];
      b(i) = -air(c.control).dot(c.normal);
    }
    const Eigen::VectorXd strength = solver_.solve(b);
    V force = V::Zero(), moment = V::Zero();
    for (Eigen::Index i = 0; i < n; ++i) {
      const Cell& c = cells_[static_cast<std::size_t>(i)];
      const V f = 2 * strength(i) * V(1, 0, 0).cross(c.b - c.a);
      force += f;
      moment += ((c.a + c.b) / 2 - about).cross(f);
    }
    return {force, moment};
  }

 private:
  std::vector<Cell> cells_;
  Eigen::PartialPivLU<Eigen::MatrixXd> solver_;
};

/// Aft of the nose; lift slope per radian on `area`.
struct Found {
  double neutral = 0, slope = 0;
};

Found solve_lattice(const std::vector<Wing>& wings, double area, int strips, int rows) {
  const auto [force, moment] = Reference(wings, strips, rows).loads([](const V&) { return V(0, 0, 1); }, V::Zero());
  return {-moment.y() / force.z(), std::abs(force.z()) / area};
}

std::vector<Wing> wings_of(const Airframe& a) {
  std::vector<Wing> all;
  const Planform p = planform_of(a);
  const auto add = [&](const HalfSurface& h) {
    all.push_back(
        {{-h.root.x(), h.root.y(), -h.root.z()}, {-h.tip.x(), h.tip.y(), -h.tip.z()}, h.root_chord_m, h.tip_chord_m});
  };
  add(p.wing);
  if (p.tail) add(*p.tail);
  if (p.foreplane) add(*p.foreplane);
  if (p.fin) add(*p.fin);
  return all;
}

TEST(VortexLattice, TheReferenceMeetsTheTextbookLimits) {
  // Helmbold's formula is for elliptic wings; rectangular ones of aspect ratio 4 to 16 lose up to 6 % of its lift
  // slope. The neutral point of a long straight wing is at a quarter of its chord, of a short one slightly ahead.
  for (const double ratio : {4.0, 8.0, 16.0}) {
    const Found f = solve_lattice({{{0, 0, 0}, {0, ratio / 2, 0}, 1, 1}}, ratio, 24, 4);
    const double helmbold = 2 * std::numbers::pi * ratio / (2 + std::sqrt(ratio * ratio + 4));
    EXPECT_NEAR(f.slope / helmbold, 0.96, 0.025) << ratio;
    EXPECT_NEAR(f.neutral, 0.25, 0.07 / ratio) << ratio;
  }
}

TEST(VortexLattice, NeutralPointOfEveryKind) {
  for (const auto& [kind, name] : Names<AirframeKind>::list)
    for (const double sweep : {0.0, 25.0}) {
      Rig rig;
      rig.airframe.kind = kind;
      rig.airframe.sweep_deg = sweep;
      const AirframeReport r = analyze_airframe(rig);
      const Found f = solve_lattice(wings_of(rig.airframe), r.wing_area.value, 18, 4);
      EXPECT_NEAR(r.neutral_point.value, f.neutral, 0.015 * r.mean_chord.value) << name << ' ' << sweep;
      EXPECT_NEAR(r.lift_slope_per_rad / f.slope, 1, 0.03) << name;
      EXPECT_LE(*r.neutral_point.least, f.neutral) << name;
      EXPECT_GE(*r.neutral_point.most, f.neutral) << name;
    }
}

/// Of every kind in turn, drawn at random.
class RandomAircraft {
 public:
  explicit RandomAircraft(unsigned seed) : random_(seed) {}

  Rig next() {
    const int i = drawn_++;
    const AirframeKind kind = Names<AirframeKind>::list[static_cast<std::size_t>(i % 16)].first;
    Rig rig = fresh_rig("A", kind, "full_controller");
    Airframe& a = rig.airframe;
    a.span_m = within(0.6, 3);
    a.root_chord_m = a.span_m * within(0.1, 0.3);
    a.tip_chord_m = a.root_chord_m * within(0.4, 1);
    a.sweep_deg = within(-5, 40);
    a.dihedral_deg = within(0, 6);
    a.length_m = a.span_m * within(0.6, 1);
    a.wing_at_m = a.length_m * within(0.2, 0.45);
    a.tail_span_m = a.span_m * within(0.25, 0.45);
    a.tail_chord_m = a.root_chord_m * within(0.4, 0.8);
    a.v_angle_deg = within(25, 45);
    a.fin_height_m = a.span_m * within(0.07, 0.18), a.fin_chord_m = a.root_chord_m * within(0.4, 0.9);
    if (i % 3 == 0) {
      a.tail_tip_chord_m = a.tail_chord_m * within(0.5, 1);
      a.tail_at_m = a.length_m - a.tail_chord_m * within(1, 1.2);
      a.foreplane_span_m = a.span_m * within(0.2, 0.4);
      a.foreplane_chord_m = a.root_chord_m * within(0.3, 0.7);
      a.foreplane_at_m = a.length_m * within(0, 0.1);
    }
    if (i % 4 == 0) a.v_span = VSpan::along_panels;
    // A tail that stands in the wing is no aircraft: then the body is longer.
    const Planform shape = planform_of(a);
    const auto behind = [](const HalfSurface& h) {
      return std::max(-h.root.x() + h.root_chord_m, -h.tip.x() + h.tip_chord_m);
    };
    if (shape.tail) {
      const double gap = -shape.tail->root.x() - behind(shape.wing) - 0.5 * a.root_chord_m;
      if (gap < 0) {
        a.length_m -= gap;
        if (a.tail_at_m) *a.tail_at_m -= gap;
      }
    }
    // Nor is one whose foreplane does.
    if (shape.foreplane) {
      const double gap = a.wing_at_m - behind(*shape.foreplane) - 0.3 * a.root_chord_m;
      if (gap < 0) {
        a.wing_at_m -= gap, a.length_m -= gap;
        if (a.tail_at_m) *a.tail_at_m -= gap;
      }
    }
    a.mass_kg = within(4, 10) * std::pow(shape.wing.area_m2(), 1.5);
    return rig;
  }

 private:
  double within(double a, double b) { return std::uniform_real_distribution<double>(a, b)(random_); }
  std::mt19937 random_;
  int drawn_ = 0;
};

TEST(VortexLattice, TheBandHoldsOnAHundredRandomAircraft) {
  RandomAircraft random(11);
  for (int i = 0; i < 100; ++i) {
    const Rig rig = random.next();
    const AirframeReport r = analyze_airframe(rig);
    const Found f = solve_lattice(wings_of(rig.airframe), r.wing_area.value, 16, 4);
    EXPECT_NEAR(r.neutral_point.value, f.neutral, 0.015 * r.mean_chord.value) << i << ' ' << name_of(rig.airframe.kind);
    EXPECT_LE(*r.neutral_point.least, f.neutral) << i;
    EXPECT_GE(*r.neutral_point.most, f.neutral) << i;
    // The body and slow air at the tail only ever move it forward.
    EXPECT_GT(r.neutral_point.value - *r.neutral_point.least, *r.neutral_point.most - r.neutral_point.value - 1e-12);
  }
}

// The reference in sideslip, rolling, pitching and turning: forces and moments by Kutta and Joukowski, coefficients as
// Nelson defines them. What the body takes from the weathercock (Munk, with the drawing's own volume) is no business of
// a lattice, nor what drag adds to the damping in yaw.
TEST(VortexLattice, EveryDerivativeOfTwoHundredRandomAircraft) {
  RandomAircraft random(5);
  for (int i = 0; i < 208; ++i) {
    const Rig rig = random.next();
    const auto a = aeroplane_of(rig, shipped(), analyze_airframe(rig), review(rig, shipped()).reports.fit().balance);
    ASSERT_TRUE(a) << a.error().text();
    const Reference lattice(wings_of(rig.airframe), 20, 4);
    const V about(a->balance_m, 0, 0);
    const double S = a->wing_area_m2, b = a->span_m, c = a->mean_chord_m;
    const auto turning = [&](const V& spin) {
      return lattice.loads([&, spin](const V& p) -> V { return -spin.cross(p - about); }, about);
    };
    const auto slip = lattice.loads([](const V&) { return V(0, -1, 0); }, about);
    const auto up = lattice.loads([](const V&) { return V(0, 0, 1); }, about);
    const auto roll = turning(V(-2 / b, 0, 0)), pitch = turning(V(0, 2 / c, 0)), turn = turning(V(0, 0, -2 / b));
    const Stability& s = a->stability;
    const auto check = [&](const char* name, const Banded& mine, double theirs) {
      EXPECT_LE(std::min(mine.least, mine.most), theirs + 1e-3)
          << i << ' ' << name_of(rig.airframe.kind) << ' ' << name;
      EXPECT_GE(std::max(mine.least, mine.most), theirs - 1e-3)
          << i << ' ' << name_of(rig.airframe.kind) << ' ' << name;
    };
    check("CLα", s.lift_alpha, up.first.z() / S);
    check("CLq", s.lift_q, pitch.first.z() / S);
    check("Cmα", s.pitch_alpha, up.second.y() / (S * c));
    check("Cmq", s.pitch_q, pitch.second.y() / (S * c));
    for (const auto& [name, mine, loads] : {std::tuple{"β", std::array{s.side_beta, s.roll_beta, s.yaw_beta}, slip},
                                            {"p", std::array{s.side_p, s.roll_p, s.yaw_p}, roll},
                                            {"r", std::array{s.side_r, s.roll_r, s.yaw_r}, turn}}) {
      const bool munk = name == std::string("β");
      const double body = munk ? 2 * 0.9 * body_of(rig.airframe).volume_m3() / (S * b) : 0;
      check((std::string("CY") + name).c_str(), mine[0], loads.first.y() / S);
      check((std::string("Cl") + name).c_str(), mine[1], -loads.second.x() / (S * b));
      check((std::string("Cn") + name).c_str(), mine[2], -loads.second.z() / (S * b) - body);
    }
  }
}

// By hand: a V of 0.4 m along its panels at 30° is 0.4 · cos 30° = 0.3464 m as seen from above; a foreplane of 0.5 m
// with 0.1 m and 0.06 m of chord has 0.04 m².
TEST(VortexLattice, SizesAreThoseOfThePlan) {
  Airframe a;
  a.kind = AirframeKind::v_tail;
  a.v_angle_deg = 30;
  a.tail_span_m = 0.4;
  EXPECT_NEAR(planform_of(a).tail->span_m(), 0.4, 1e-12);
  a.v_span = VSpan::along_panels;
  EXPECT_NEAR(planform_of(a).tail->span_m(), 0.34641, 1e-5);
  a.kind = AirframeKind::tailerons_canards;
  a.foreplane_span_m = 0.5;
  a.foreplane_chord_m = 0.1;
  a.foreplane_tip_chord_m = 0.06;
  const Planform p = planform_of(a);
  ASSERT_TRUE(p.tail && p.foreplane);
  EXPECT_NEAR(p.foreplane->area_m2(), 0.04, 1e-12);
  EXPECT_EQ(p.guessed, (std::vector<std::string>{"tail_at_m", "tail_tip_chord_m", "foreplane_at_m"}));
  // A foreplane moves the neutral point forward, a canard without a tail most of all.
  Rig rig;
  rig.airframe = a;
  const double with = analyze_airframe(rig).neutral_point.value;
  rig.airframe.kind = AirframeKind::tailerons;
  EXPECT_LT(with, analyze_airframe(rig).neutral_point.value - 0.02 * analyze_airframe(rig).mean_chord.value);
}

}  // namespace
}  // namespace rigging
