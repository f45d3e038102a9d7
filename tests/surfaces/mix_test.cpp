#include <gtest/gtest.h>

#include <cmath>

#include "airframe/kinds.h"
#include "base/json.h"
#include "base/number.h"
#include "bench_rig.h"
#include "surfaces/air_loads.h"

namespace rigging {
namespace {

Rig of_kind(AirframeKind kind) {
  Rig rig;
  rig.airframe.kind = kind;
  rig.outputs = default_outputs(kind);
  return rig;
}

Command sticks(double roll, double pitch, double yaw = 0) {
  Command c;
  c.roll = roll;
  c.pitch = pitch;
  c.yaw = yaw;
  return c;
}

TEST(Saturation, NothingIsAskedForMoreThanItHasAndTheFirstCommandStays) {
  Rig rig = of_kind(AirframeKind::flying_wing);
  for (Output& o : rig.outputs)
    if (!o.surfaces.empty())
      for (const Axis axis : {Axis::roll, Axis::pitch}) o.mix.of(axis) = std::copysign(0.8, o.mix.of(axis));
  for (double roll = -1; roll <= 1; roll += 0.25)
    for (double pitch = -1; pitch <= 1; pitch += 0.25)
      for (const Saturation s : {Saturation::all_shrink, Saturation::roll_first, Saturation::pitch_first}) {
        const Command c = shared(rig.outputs, sticks(roll, pitch), s);
        for (const Output& o : rig.outputs)
          if (!o.surfaces.empty()) EXPECT_LE(std::abs(mixed(o, c).asked), 1 + 1e-9);
        if (s == Saturation::roll_first) EXPECT_EQ(c.roll, roll);
        if (s == Saturation::pitch_first) EXPECT_EQ(c.pitch, pitch);
        if (s == Saturation::all_shrink && pitch != 0)
          EXPECT_NEAR(c.roll * pitch, c.pitch * roll, 1e-12) << "the ratio stays";
        if (std::abs(roll) + std::abs(pitch) <= 1.25) EXPECT_EQ(c.pitch, pitch) << "no more than needed";
      }
  // By hand: full roll takes 0.8, so that 0.2 of 0.8 is left for pitch: a quarter.
  EXPECT_NEAR(shared(rig.outputs, sticks(1, 1), Saturation::roll_first).pitch, 0.25, 1e-12);
  EXPECT_NEAR(shared(rig.outputs, sticks(1, 1), Saturation::all_shrink).roll, 1 / 1.6, 1e-12);
  EXPECT_EQ(shared(rig.outputs, sticks(1, 1), Saturation::each_stops).pitch, 1);
}

TEST(SticksFor, BringEveryServoOutputOfEveryKindWhereItIsWanted) {
  for (const AirframeKind kind :
       {AirframeKind::two_ailerons, AirframeKind::flying_wing, AirframeKind::v_tail, AirframeKind::inverted_v_tail,
        AirframeKind::canard, AirframeKind::tailerons, AirframeKind::flaperons, AirframeKind::rudder_only})
    for (const bool reversed : {false, true})
      for (const double less_down : {0.0, 0.4}) {
        Rig rig = with_differential(of_kind(kind), less_down);
        for (Output& o : rig.outputs) {
          if (o.mix.throttle != 0) continue;
          o.reversed = reversed;
          for (const double level : {-1.0, -0.5, 0.0, 0.5, 1.0}) {
            const double within = level * stick_reach(o);
            const auto c = sticks_for(rig, o, within);
            if (!c) {
              // Only the side that differential shortens may be out of reach.
              EXPECT_GT(less_down, 0) << o.id << ": " << c.error().text();
              continue;
            }
            EXPECT_NEAR(mixed(o, *c).pulse_us, output_pulse_us(o, within), 1) << o.id << " at " << within;
            for (const double stick : {c->roll, c->pitch, c->yaw}) EXPECT_LE(std::abs(stick), 1);
            EXPECT_EQ(c->throttle, 0) << "nobody opens the throttle for a gauge";
          }
        }
      }
}

TEST(SticksFor, UseAsFewSticksAsWillDoAndSaySo) {
  const Rig wing = of_kind(AirframeKind::flying_wing);
  const Output& left = wing.outputs[0];
  // Half weights: one full stick brings it half way, both together to the end.
  EXPECT_EQ(sticks_label(*sticks_for(wing, left, 0)), "Let go of the sticks");
  const Command half = *sticks_for(wing, left, 0.5);
  EXPECT_EQ(std::abs(half.roll) + std::abs(half.pitch), 1) << "one stick";
  EXPECT_EQ(sticks_label(*sticks_for(wing, left, 1)), "Hold the roll stick full left and the pitch stick full back");
  EXPECT_EQ(sticks_label(sticks(0, -0.254, 1)), "Hold the pitch stick 25 % forward and the yaw stick full right");
  Rig weak = wing;
  weak.outputs[0].mix.roll = weak.outputs[0].mix.pitch = 0.3;
  EXPECT_NEAR(stick_reach(weak.outputs[0]), 0.6, 1e-12);
  const auto beyond = sticks_for(weak, weak.outputs[0], 1);
  ASSERT_FALSE(beyond);
  EXPECT_NE(beyond.error().text().find("full sticks give 1800 µs"), std::string::npos) << beyond.error().text();
  const Output* motor = nullptr;
  for (const Output& o : wing.outputs)
    if (o.mix.throttle != 0) motor = &o;
  ASSERT_TRUE(motor);
  EXPECT_FALSE(sticks_for(wing, *motor, 1)) << "a motor is never run up for a reading";
}

TEST(ControlMargin, IsWhatTheSticksLeave) {
  const Rig rig = of_kind(AirframeKind::flying_wing);
  const ControlMargin room = control_margin(rig);
  const int mid = ControlMargin::steps / 2;
  EXPECT_NEAR(room.at(mid, mid), 1, 1e-12) << "half weights: everything together is just full";
  EXPECT_NEAR(room.at(ControlMargin::steps, mid), 0.5, 1e-12);
  EXPECT_NEAR(room.at(ControlMargin::steps, ControlMargin::steps), 0, 1e-12);
  EXPECT_NEAR(room.at(0, ControlMargin::steps), 0, 1e-12);
}

TEST(Differential, TakesFromTheSideThatGoesDown) {
  Rig rig = with_differential(of_kind(AirframeKind::two_ailerons), 0.4);
  EXPECT_EQ(differential_of(rig), 0.4);
  for (const double roll : {1.0, -1.0})
    for (const auto& [surface, deg] : intended_deflections(rig, sticks(roll, 0))) {
      if (surface.kind != SurfaceKind::aileron) continue;
      const bool up = (surface.side == Side::right) == (roll > 0);
      EXPECT_NEAR(deg, up ? 25 : -15, 1e-9) << surface.name();
    }
  for (Output& o : rig.outputs) o.reversed = true;
  for (const auto& [surface, deg] : intended_deflections(rig, sticks(1, 0)))
    if (surface.name() == "aileron_left") EXPECT_NEAR(deg, -15, 1e-9) << "reversing the output changes neither";
  EXPECT_EQ(differential_of(with_differential(rig, 0)), 0);
}

// One output, two servos: the same pulse must lift one aileron and lower the other, each through its own linkage.
TEST(YLead, EachSideOfItHasItsOwnSense) {
  Rig rig;
  Output o;
  o.id = "out_1";
  const Surface left = *surface_from_name("aileron_left"), right = *surface_from_name("aileron_right");
  o.surfaces = {SurfaceName(left), SurfaceName(right)};
  o.mix.roll = 1;
  rig.outputs = {o};
  for (const bool reversed : {false, true})
    for (const bool measured : {false, true}) {
      rig.outputs[0].reversed = reversed;
      rig.linkages.clear();
      if (measured)
        for (const Surface s : {left, right}) {
          Linkage l = linkage_of(rig, s);
          rig.linkages.push_back(l);
        }
      for (const auto& [surface, deg] : intended_deflections(rig, sticks(1, 0))) {
        EXPECT_GT(deg * (surface == right ? 1 : -1), 10)
            << surface.name() << (measured ? " with" : " without") << " a linkage";
      }
      if (!measured) continue;
      // Read as it should move, neither side asks for a reversal; read the other way round, each does.
      for (const Surface s : {left, right})
        for (const int way : {1, -1}) {
          Linkage l = linkage_of(rig, s);
          const double sign = way * rising_lifts(rig.outputs[0], s);
          l.readings = {{1000, -30 * sign, {}}, {1500, 0, {}}, {2000, 30 * sign, {}}};
          const auto c = centre(l, rig.outputs[0]);
          ASSERT_TRUE(c) << c.error().text();
          // The output can be turned round for one side only; the other is mended at its rod, and no pulse is set for
          // it.
          EXPECT_EQ(c->reverse, way < 0 && s == left) << s.name();
          EXPECT_EQ(!c->limits.empty() && c->limits.front().find("other side of the arm") != std::string::npos,
                    way < 0 && s == right)
              << s.name();
          if (s == right) EXPECT_EQ(c->high_us, 2000);
        }
      EXPECT_EQ(rising_lifts(rig.outputs[0], left), -rising_lifts(rig.outputs[0], right));
    }
}

TEST(Wishes, DegreesBecomeWeightsOnBothHalves) {
  Rig rig = demo("hedgerow");
  for (const double deg : {0.0, 5.0, 20.0, 30.0}) {
    const auto wished = with_throw(rig, *surface_from_name("flaperon_left"), MixCommand::roll, deg);
    ASSERT_TRUE(wished) << wished.error().text();
    const Output &left = *wished->output("out_1"), &right = *wished->output("out_2");
    EXPECT_NEAR(throw_for(*wished, left, left.surfaces[0], MixCommand::roll), deg, 0.04);
    EXPECT_EQ(left.mix.roll, -right.mix.roll) << "signs stay";
    EXPECT_EQ(left.mix.flap, rig.output("out_1")->mix.flap) << "the rest stays";
    // What the report says of it, found without the wish.
    const SurfacesReport report = analyze_surfaces(*wished);
    const SurfaceAnswer& a = *report.answer(left.surfaces[0]);
    EXPECT_NEAR((std::abs(a.positive_deg[0]) + std::abs(a.negative_deg[0])) / 2, deg, 0.04);
  }
  const auto droop = with_throw(rig, *surface_from_name("flaperon_right"), MixCommand::flap, 15);
  ASSERT_TRUE(droop);
  const double down = deflection_deg(*droop, *droop->output("out_2"), *surface_from_name("flaperon_right"),
                                     droop->output("out_2")->mix.flap);
  EXPECT_NEAR(down, -15, 0.1) << "flaps go down";
}

TEST(Wishes, AWeightThatWasZeroGetsTheRightSign) {
  for (const AirframeKind kind :
       {AirframeKind::two_ailerons, AirframeKind::flying_wing, AirframeKind::v_tail, AirframeKind::inverted_v_tail,
        AirframeKind::canard, AirframeKind::tailerons, AirframeKind::rudder_only}) {
    const Rig usual = of_kind(kind);
    for (const Output& o : usual.outputs)
      for (const auto& [axis, command] :
           {std::pair{Axis::roll, MixCommand::roll}, {Axis::pitch, MixCommand::pitch}, {Axis::yaw, MixCommand::yaw}}) {
        if (o.surfaces.empty() || o.surfaces[0].kind == SurfaceKind::motor || o.mix.of(axis) == 0) continue;
        Rig bare = usual;
        for (Output& b : bare.outputs) b.mix.of(axis) = 0;
        const auto wished = with_throw(bare, o.surfaces[0], command, 8);
        ASSERT_TRUE(wished) << wished.error().text();
        // The sign that the kind comes with is the right one.
        for (const Output& w : wished->outputs)
          if (w.mix.of(axis) != 0)
            EXPECT_GT(w.mix.of(axis) * usual.output(w.id)->mix.of(axis), 0) << w.id << " " << name_of(axis);
      }
  }
}

TEST(Wishes, AShareTakesTheOtherHalfAlongUnlessTheyWereMeantToDiffer) {
  for (const AirframeKind kind :
       {AirframeKind::two_ailerons, AirframeKind::flying_wing, AirframeKind::v_tail, AirframeKind::inverted_v_tail}) {
    const Rig usual = of_kind(kind);
    for (const Output& o : usual.outputs)
      for (const auto& [axis, command] :
           {std::pair{Axis::roll, MixCommand::roll}, {Axis::pitch, MixCommand::pitch}, {Axis::yaw, MixCommand::yaw}}) {
        if (o.surfaces.size() != 1 || o.mix.of(axis) == 0) continue;
        const auto shared = with_share(usual, o.id, command, 0.2);
        ASSERT_TRUE(shared) << shared.error().text();
        // Down to nothing and up again: the halves still know how they stand to each other.
        const auto again = with_share(*with_share(usual, o.id, command, 0), o.id, command, 0.2);
        ASSERT_TRUE(again) << again.error().text();
        EXPECT_EQ(*again, *shared) << o.id;
        for (const Output& w : shared->outputs) {
          const double before = usual.output(w.id)->mix.of(axis);
          const bool half = w.surfaces.size() == 1 && !o.surfaces.empty() && w.surfaces[0].kind == o.surfaces[0].kind;
          EXPECT_DOUBLE_EQ(w.mix.of(axis), half ? before * o.mix.of(axis) > 0 ? 0.2 : -0.2 : before) << w.id;
        }
      }
  }
  Rig differ = of_kind(AirframeKind::flying_wing);
  Output& right = *differ.output(differ.output_of(*surface_from_name("elevon_right"))->id);
  right.mix.roll *= 0.8;
  const double kept = right.mix.roll;
  const auto one = with_share(differ, differ.output_of(*surface_from_name("elevon_left"))->id, MixCommand::roll, 0.3);
  ASSERT_TRUE(one);
  EXPECT_EQ(one->output(right.id)->mix.roll, kept);
  EXPECT_FALSE(with_share(differ, "out_99", MixCommand::roll, 0.3));
}

TEST(Wishes, WhatCanNotBeIsRefused) {
  const Rig rig = demo("hedgerow");
  const Surface left = *surface_from_name("flaperon_left");
  EXPECT_NE(with_throw(rig, left, MixCommand::roll, 40).error().expected.find("0 to 32"), std::string::npos)
      << with_throw(rig, left, MixCommand::roll, 40).error().text();
  EXPECT_FALSE(with_throw(rig, left, MixCommand::roll, -1));
  EXPECT_FALSE(with_throw(rig, left, MixCommand::roll, std::nan("")));
  EXPECT_FALSE(with_throw(rig, left, MixCommand::yaw, 5)) << "flaperons do not yaw";
  EXPECT_FALSE(with_throw(rig, *surface_from_name("rudder"), MixCommand::yaw, 5)) << "there is none";
  EXPECT_FALSE(with_throw(rig, *surface_from_name("inverted_v_left"), MixCommand::flap, 5));
  EXPECT_FALSE(with_throw(of_kind(AirframeKind::flying_wing), *surface_from_name("motor_left"), MixCommand::yaw, 5));
}

TEST(MixWords, SayItInDegrees) {
  const auto words = [](AirframeKind kind) {
    std::string all;
    for (const std::string& w : analyze_surfaces(of_kind(kind)).mix) all += w + "\n";
    return all;
  };
  EXPECT_EQ(words(AirframeKind::flying_wing),
            "Elevons: 12.5° for full pitch, 12.5° for full roll, a ratio of 1 to 1; their travel allows 25°\n25° of "
            "travel is "
            "assumed: no linkage is measured\n");
  Rig half = demo("hedgerow");
  half.linkages.pop_back();
  EXPECT_EQ(analyze_surfaces(half).mix.back(),
            "25° of travel is assumed for the right inverted V-tail half: no linkage is measured");
  EXPECT_EQ(analyze_surfaces(demo("hedgerow")).mix.back().find("assumed"), std::string::npos);
  // Halves with different linkages: what is said of a pair is said of both.
  Rig uneven = demo("hedgerow");
  for (Linkage& l : uneven.linkages)
    if (l.surface == *surface_from_name("flaperon_left") || l.surface == *surface_from_name("inverted_v_right"))
      l.servo_travel_deg *= 0.7;
  int said = 0;
  for (const std::string& w : analyze_surfaces(uneven).mix) {
    if (w.find("not alike") == std::string::npos) continue;
    ++said;
    const SurfacesReport r = analyze_surfaces(uneven);
    const bool flaperons = w.find("Flaperons") == 0;
    const SurfaceAnswer& a = *r.answer(*surface_from_name(flaperons ? "flaperon_left" : "inverted_v_right"));
    const double odd = flaperons ? -a.negative_deg[0] : a.positive_deg[1];
    EXPECT_NE(w.find(number_text(std::abs(odd), 1) + "°"), std::string::npos) << w;
  }
  EXPECT_EQ(said, 2);
  for (const std::string& w : analyze_surfaces(demo("hedgerow")).mix)
    EXPECT_EQ(w.find("not alike"), std::string::npos) << w;
  EXPECT_NE(words(AirframeKind::tailerons).find("Roll gets "), std::string::npos) << words(AirframeKind::tailerons);
  EXPECT_NE(words(AirframeKind::canard)
                .find("Canard, on its own output: 25° down for full nose up, 25° up for full nose down"),
            std::string::npos)
      << words(AirframeKind::canard);
  EXPECT_NE(words(AirframeKind::twin_differential).find("Motors: full yaw takes"), std::string::npos);
  EXPECT_NE(words(AirframeKind::flaperons).find("Full flap: "), std::string::npos) << words(AirframeKind::flaperons);
}

TEST(Loads, GrowWithTheSquareOfSpeedAndBlowBackIsWhereTorqueMeets) {
  Rig rig = demo("hedgerow");
  const auto loads_of = [](const Rig& r) {
    return analyze_loads(r, shipped(), analyze_airframe(r), analyze_surfaces(r));
  };
  const auto loads = loads_of(rig);
  ASSERT_EQ(loads.size(), 4u);
  for (const ServoLoad& l : loads) {
    EXPECT_FALSE(l.servo.empty());
    const double k = l.fast.speed_m_s / l.cruise.speed_m_s;
    EXPECT_NEAR(l.fast.hinge_high_nm, l.cruise.hinge_high_nm * k * k, 1e-9);
    EXPECT_NEAR(l.fast.hinge_high_nm / l.fast.hinge_low_nm, 1.2 / 0.5, 1e-9);
    EXPECT_LT(l.cruise.share_high, 1) << l.verdict;
  }
  rig.airframe.dive_m_s = 140;
  for (const ServoLoad& l : loads_of(rig)) {
    ASSERT_TRUE(l.dive.blown_back_deg) << l.verdict;
    EXPECT_LT(*l.dive.blown_back_deg, l.full_deg);
    EXPECT_GT(*l.dive.blown_back_deg, 0);
    EXPECT_NE(l.verdict.find("blown back"), std::string::npos);
  }
  rig.airframe.mass_kg.reset();
  EXPECT_TRUE(loads_of(rig).empty()) << "no speed, no load";
}

TEST(Shapes, SurfacesAreAsBigAsTheyAreDrawn) {
  Rig rig = of_kind(AirframeKind::flying_wing);
  rig.airframe.root_chord_m = rig.airframe.tip_chord_m = 0.2;
  rig.airframe.span_m = 1;
  rig.airframe.dihedral_deg = 0;
  const auto shape = shape_of(rig, *surface_from_name("elevon_left"));
  ASSERT_TRUE(shape);
  // From 18 to 95 % of the half span, a quarter of the chord.
  EXPECT_NEAR(shape->chord_m, 0.05, 1e-12);
  EXPECT_NEAR(shape->area_m2, 0.77 * 0.5 * 0.05, 1e-12);
}

}  // namespace
}  // namespace rigging
