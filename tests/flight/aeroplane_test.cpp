#include "flight/aeroplane.h"

#include <gtest/gtest.h>

#include "airframe/kinds.h"
#include "airframe/planform.h"
#include "base/angle.h"
#include "bench_rig.h"
#include "flight/axis_plant.h"
#include "flight/control_effect.h"
#include "review/review.h"

namespace rigging {
namespace {

Result<Aeroplane> plane_of(const Rig& rig) {
  const Review r = review(rig, shipped());
  return aeroplane_of(rig, shipped(), r.reports.airframe(), r.reports.fit().balance);
}

Rig of_kind(AirframeKind kind) {
  Rig rig = fresh_rig("A", kind, "full_controller");
  rig.airframe.mass_kg = 1.4;
  return rig;
}

TEST(Aeroplane, EveryKindAnswersItsCommandsTheRightWayAndDampsItself) {
  for (const auto& [kind, name] : Names<AirframeKind>::list) {
    const Rig rig = of_kind(kind);
    const auto a = plane_of(rig);
    ASSERT_TRUE(a) << name << ": " << a.error().text();
    const Stability& s = a->stability;
    EXPECT_LT(s.roll_p.value, -0.15) << name;
    EXPECT_LT(s.pitch_q.value, -0.3) << name;
    EXPECT_LT(s.yaw_r.value, 0) << name;
    EXPECT_GT(s.lift_alpha.value, 2) << name;
    EXPECT_LT(s.lift_alpha.value, 2 * pi) << name;
    EXPECT_LT(s.pitch_alpha.value, 0) << name << ": it balances where it was wanted";
    EXPECT_LT(s.roll_beta.value, 0.02) << name;
    for (const Axis axis : all_axes) {
      const AxisControl c = axis_controls(*a, analyze_surfaces(rig))[static_cast<std::size_t>(index_of(axis))];
      if (c.throw_rad <= 0) continue;
      EXPECT_GT(plant_of(*a, c, axis, a->cruise_m_s).b0, 0) << name << ' ' << name_of(axis);
      if (!c.roll_by_rudder) EXPECT_GT(c.effect, 0) << name << ' ' << name_of(axis);
      EXPECT_LT(c.least, 1);
      EXPECT_GT(c.most, 1);
    }
  }
}

// The moments follow from where the surface stands and which way its edge moves: they must turn the aircraft the way
// that is required of each surface, which is written down elsewhere.
TEST(Effects, TurnTheAircraftTheRequiredWay) {
  int looked = 0;
  for (const auto& [kind, word] : Names<AirframeKind>::list) {
    const Rig rig = of_kind(kind);
    const auto a = plane_of(rig);
    ASSERT_TRUE(a) << word;
    for (const Effect& e : effects_of(*a, analyze_surfaces(rig)))
      for (const Output& o : rig.outputs)
        for (const Surface s : o.surfaces)
          for (const Axis axis : all_axes) {
            if (!(s == e.surface) || o.mix.of(axis) == 0 || required_direction(s, axis) == 0) continue;
            // A rudder that rolls an aeroplane does so by way of the dihedral, not by its own lever.
            if (s.kind == SurfaceKind::rudder && axis == Axis::roll) continue;
            const auto i = static_cast<std::size_t>(index_of(axis));
            EXPECT_GT(e.m3_per_deg[i] * required_direction(s, axis), 0)
                << word << " " << s.name() << " " << rigging::name_of(axis);
            ++looked;
          }
  }
  EXPECT_GT(looked, 40);
}

TEST(Aeroplane, WhatIsSymmetricFliesStraight) {
  const auto a = plane_of(of_kind(AirframeKind::two_ailerons));
  ASSERT_TRUE(a);
  const ControlEffect* elevator = a->control({SurfaceKind::elevator, Side::single});
  ASSERT_TRUE(elevator);
  EXPECT_GT(elevator->pitch, 0.3);
  EXPECT_NEAR(elevator->roll, 0, 1e-12);
  EXPECT_NEAR(elevator->yaw, 0, 1e-12);
  const ControlEffect *left = a->control({SurfaceKind::aileron, Side::left}),
                      *right = a->control({SurfaceKind::aileron, Side::right});
  ASSERT_TRUE(left && right);
  EXPECT_NEAR(left->roll, -right->roll, 1e-12);
  EXPECT_NEAR(left->pitch, right->pitch, 1e-12);
  const ControlEffect* rudder = a->control({SurfaceKind::rudder, Side::single});
  ASSERT_TRUE(rudder);
  EXPECT_GT(rudder->yaw, 0) << "edge to the right, nose to the right";
  EXPECT_LT(rudder->side, 0);
}

TEST(Aeroplane, ALongerTailDampsWithTheSquareOfItsLever) {
  Rig rig = of_kind(AirframeKind::two_ailerons);
  const auto near = plane_of(rig);
  const double before = *rig.airframe.mass_kg;
  rig.airframe.length_m += 0.5;
  const auto far = plane_of(rig);
  ASSERT_TRUE(near && far);
  EXPECT_EQ(*rig.airframe.mass_kg, before);
  const auto lever = [](const Rig& r, const Aeroplane& a) {
    return planform_of(r.airframe).tail->quarter_chord_m() - a.balance_m;
  };
  Rig short_one = rig;
  short_one.airframe.length_m -= 0.5;
  const double ratio = lever(rig, *far) / lever(short_one, *near);
  // The wing's own part stays: a little less than the square.
  EXPECT_NEAR(far->stability.pitch_q.value / near->stability.pitch_q.value, ratio * ratio, 0.25 * ratio * ratio);
  const double cm = [](const Aeroplane& a) {
    return a.control({SurfaceKind::elevator, Side::single})->pitch;
  }(*far) / near->control({SurfaceKind::elevator, Side::single})->pitch;
  EXPECT_NEAR(cm, ratio, 0.1 * ratio);
}

// McCormick, Aerodynamics, Aeronautics and Flight Mechanics (from memory): Cmq of the tail alone is −2·a·V·l/c.
TEST(Aeroplane, PitchDampingIsAboutThatOfTheTail) {
  const Rig rig = of_kind(AirframeKind::two_ailerons);
  const auto a = plane_of(rig);
  ASSERT_TRUE(a);
  const HalfSurface tail = *planform_of(rig.airframe).tail;
  const double ratio = tail.span_m() * tail.span_m() / tail.area_m2();
  const double slope = 2 * pi * ratio / (2 + std::sqrt(ratio * ratio + 4)),
               lever = tail.quarter_chord_m() - a->balance_m;
  const double of_tail =
      -2 * 0.92 * slope * tail.area_m2() * lever * lever / (a->wing_area_m2 * a->mean_chord_m * a->mean_chord_m);
  EXPECT_LT(a->stability.pitch_q.value, of_tail) << "the wing damps as well";
  EXPECT_GT(a->stability.pitch_q.value, 1.5 * of_tail);
}

TEST(Aeroplane, InertiaOfAWeightAtTheTipIsItsOwn) {
  Rig rig = demo("hedgerow");
  const auto before = plane_of(rig);
  Part ballast;
  ballast.id = "ballast";
  ballast.kind = "camera";
  ballast.mass_kg = 0.1;
  rig.parts.push_back(ballast);
  Mounting at;
  at.part = "ballast";
  at.x_m = -before->balance_m, at.y_m = 0.8;
  rig.mountings.push_back(at);
  const auto with = plane_of(rig);
  ASSERT_TRUE(before && with);
  // Its mass is part of the flying mass, which stays: the frame counts for less.
  EXPECT_NEAR(with->inertia.roll.value - before->inertia.roll.value, 0.1 * 0.8 * 0.8, 0.02);
  EXPECT_NEAR(with->inertia.pitch.value, before->inertia.pitch.value, 0.01);
}

/// Steiner's theorem, for the frame alone: the leads and what holds the parts have places of their own.
TEST(Aeroplane, InertiaFollowsTheFrameToWhereItBalances) {
  const Rig rig = demo("hedgerow");
  const auto inertia = [&](double frame_at_m, double& frame_kg) {
    Rig moved = rig;
    moved.fit.frame_at_m = frame_at_m;
    const Review r = review(moved, shipped());
    frame_kg = 1.6;
    for (const MassItem& i : r.reports.fit().balance.items)
      if (!i.airframe) frame_kg -= i.mass_kg;
    return inertia_of(moved, shipped(), r.reports.airframe(), r.reports.fit().balance, 1.6, Point(-0.5, 0, 0));
  };
  double kg = 0;
  const Inertia at_it = inertia(0.5, kg), behind = inertia(0.7, kg);
  EXPECT_GT(kg, 0.3);
  EXPECT_NEAR(behind.pitch.value - at_it.pitch.value, kg * 0.2 * 0.2, 1e-6);
  EXPECT_NEAR(behind.yaw.value - at_it.yaw.value, kg * 0.2 * 0.2, 1e-6);
  EXPECT_NEAR(behind.roll.value, at_it.roll.value, 1e-9);
}

TEST(Aeroplane, ImpossibleOnesGetAClearAnswer) {
  Rig rig = of_kind(AirframeKind::two_ailerons);
  rig.airframe.mass_kg.reset();
  const auto no_mass = plane_of(rig);
  ASSERT_FALSE(no_mass);
  EXPECT_NE(no_mass.error().text().find("flying mass"), std::string::npos);
  rig.airframe.mass_kg = 1.4;
  rig.airframe.root_chord_m = rig.airframe.tip_chord_m = 0;
  EXPECT_FALSE(plane_of(rig));
}

TEST(AxisPlant, PowerGoesWithTheSquareOfTheSpeedAndDampingWithTheSpeed) {
  const Rig rig = demo("hedgerow");
  const auto a = plane_of(rig);
  ASSERT_TRUE(a);
  const AxisControl c = axis_controls(*a, analyze_surfaces(rig))[0];
  const RatePlant slow = plant_of(*a, c, Axis::roll, 10), fast = plant_of(*a, c, Axis::roll, 20);
  EXPECT_NEAR(fast.b0 / slow.b0, 4, 1e-9);
  EXPECT_NEAR(fast.a0 / slow.a0, 2, 1e-9);
}

TEST(AxisPlant, BalanceBehindTheNeutralPointDiverges) {
  Rig rig = of_kind(AirframeKind::two_ailerons);
  const auto a = plane_of(rig);
  ASSERT_TRUE(a);
  Aeroplane tail_heavy = *a;
  tail_heavy.stability.pitch_alpha.value = 0.8;
  const AxisControl c = axis_controls(*a, analyze_surfaces(rig))[1];
  EXPECT_GT(plant_of(*a, c, Axis::pitch, 12).a0, 0);
  EXPECT_LT(plant_of(tail_heavy, c, Axis::pitch, 12).a0, 0);
}

}  // namespace
}  // namespace rigging
