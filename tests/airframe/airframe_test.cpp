#include "airframe/airframe.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>
#include <set>

#include "airframe/kinds.h"
#include "bench_rig.h"
#include "direction/from_rig.h"
#include "direction/reason.h"
#include "review/review.h"
#include "surfaces/surfaces.h"

namespace rigging {
namespace {

TEST(Airframe, FiguresOfATaperedWingByHand) {
  Rig rig;
  rig.airframe.span_m = 2;
  rig.airframe.root_chord_m = 0.3;
  rig.airframe.tip_chord_m = 0.15;
  rig.airframe.mass_kg = 2.25;
  const AirframeReport r = analyze_airframe(rig);
  EXPECT_NEAR(r.wing_area.value, 0.45, 1e-12);
  // Taper 0.5: 2/3 · 0.3 · 1.75 / 1.5.
  EXPECT_NEAR(r.mean_chord.value, 0.2 * 1.75 / 1.5, 1e-12);
  EXPECT_NEAR(r.wing_loading->value, 5.0, 1e-12);
  // √(2 · 5 kg/m² · 9.80665 / (1.225 · 1.1)).
  EXPECT_NEAR(r.stall_speed->value, 8.5306, 1e-3);
  EXPECT_LT(*r.stall_speed->least, r.stall_speed->value);
  EXPECT_LT(r.stall_speed->value, *r.stall_speed->most);
  rig.airframe.mass_kg.reset();
  EXPECT_FALSE(analyze_airframe(rig).stall_speed);
}

TEST(Airframe, ATailMovesTheNeutralPointBackAndACanardForward) {
  Rig rig;
  const auto neutral = [&](AirframeKind kind) {
    rig.airframe.kind = kind;
    return analyze_airframe(rig).neutral_point.value;
  };
  EXPECT_GT(neutral(AirframeKind::two_ailerons), neutral(AirframeKind::flying_wing));
  EXPECT_LT(neutral(AirframeKind::canard), neutral(AirframeKind::flying_wing));
}

class EveryKind : public testing::TestWithParam<int> {
 protected:
  AirframeKind kind() const { return Names<AirframeKind>::list[static_cast<std::size_t>(GetParam())].first; }
  Rig rig() const {
    Rig r;
    r.airframe.kind = kind();
    r.outputs = default_outputs(kind());
    return r;
  }
};
INSTANTIATE_TEST_SUITE_P(Kinds, EveryKind, testing::Range(0, 17));

TEST_P(EveryKind, DrivesEverySurfaceOnceAndMixesNothingItCantServe) {
  const Rig r = rig();
  for (const Surface s : facts_of(kind()).surfaces) EXPECT_TRUE(r.output_of(s)) << s.name();
  for (const Output& o : r.outputs)
    for (const Surface s : o.surfaces)
      for (const Axis axis : all_axes)
        if (o.mix.of(axis) != 0) EXPECT_NE(required_direction(s, axis), 0) << s.name();
}

TEST_P(EveryKind, DefaultMixCanBeBuiltRight) {
  // The reasoner finds no fault on an aircraft of which nothing is known to be wrong.
  const ControllerClass all;
  direction::Case c = direction::case_from_rig(rig(), all);
  c.can = {};
  const auto answer = direction::reason(c);
  ASSERT_EQ(answer.explanations.size(), 1u) << "signs that can't all be right";
  EXPECT_TRUE(answer.explanations[0].faults.empty());
}

TEST_P(EveryKind, DeflectedPanelsGoWhereTheWordsSay) {
  const auto panels = aircraft_panels(rig().airframe);
  std::set<Surface> drawn;
  for (const Panel& p : panels) {
    if (!p.surface || p.surface->kind == SurfaceKind::motor) continue;
    drawn.insert(*p.surface);
    const auto moved = deflected(p, 15);
    // The last two corners are the trailing edge.
    const Point before = mix(p.corners[2], p.corners[3], 0.5), after = mix(moved[2], moved[3], 0.5);
    if (p.surface->kind == SurfaceKind::rudder)
      EXPECT_GT(after.y(), before.y()) << p.surface->name();
    else
      EXPECT_LT(after.z(), before.z()) << p.surface->name();
    // Common practice, one look that serves every fin: on right yaw the edge moves partly to the right.
    if (const int yaw = required_direction(*p.surface, Axis::yaw)) {
      const auto turned = deflected(p, 15.0 * yaw);
      EXPECT_GT(mix(turned[2], turned[3], 0.5).y(), before.y()) << p.surface->name();
    }
  }
  for (const Surface s : facts_of(kind()).surfaces)
    if (s.kind != SurfaceKind::motor) EXPECT_TRUE(drawn.count(s)) << s.name() << " is not drawn";
}

TEST_P(EveryKind, CanBecomeAnyOtherKindWithoutLosingSockets) {
  for (const auto& [other, name] : Names<AirframeKind>::list) {
    Rig r = rig();
    r.outputs[0].reversed = true;
    const Rig changed = with_kind(r, other);
    std::set<std::string> ids, sockets;
    for (const Output& o : changed.outputs) {
      EXPECT_TRUE(ids.insert(o.id).second) << o.id << " twice in " << name;
      EXPECT_TRUE(sockets.insert(o.socket).second) << o.socket << " twice in " << name;
    }
    for (const Surface s : facts_of(other).surfaces) EXPECT_TRUE(changed.output_of(s)) << name;
    const Output* same = changed.output_of(r.outputs[0].surfaces.front());
    if (same && same->surfaces == r.outputs[0].surfaces) EXPECT_TRUE(same->reversed) << "what stays keeps its setting";
  }
}

TEST(Mixing, PulsesByHand) {
  Output o;
  o.low_us = 1100;
  o.centre_us = 1520;
  o.high_us = 1900;
  o.mix.roll = 0.5;
  o.mix.pitch = -0.75;
  Command c;
  c.roll = 1;
  EXPECT_NEAR(mixed(o, c).pulse_us, 1520 + 0.5 * 380, 1e-9);
  c.pitch = 1;
  EXPECT_NEAR(mixed(o, c).pulse_us, 1520 - 0.25 * 420, 1e-9);
  c.roll = -1;
  EXPECT_TRUE(mixed(o, c).saturated);
  EXPECT_NEAR(mixed(o, c).pulse_us, 1100, 1e-9);
  o.reversed = true;
  EXPECT_NEAR(mixed(o, c).pulse_us, 1900, 1e-9);
  Output motor;
  motor.mix.throttle = 1;
  motor.mix.yaw = 0.2;
  Command t;
  EXPECT_NEAR(mixed(motor, t).pulse_us, 1000, 1e-9);
  t.throttle = 0.5;
  t.yaw = 1;
  EXPECT_NEAR(mixed(motor, t).pulse_us, 1700, 1e-9);
  t.yaw = -1;
  t.throttle = 0;
  EXPECT_TRUE(mixed(motor, t).saturated) << "slower than closed";
}

TEST(Mixing, SaturatedShareOfTheStickSquare) {
  Rig rig;
  rig.airframe.kind = AirframeKind::flying_wing;
  rig.outputs = default_outputs(AirframeKind::flying_wing);
  EXPECT_EQ(analyze_surfaces(rig).saturated_share, 0);
  for (Output& o : rig.outputs)
    for (const Axis axis : {Axis::roll, Axis::pitch}) o.mix.of(axis) *= 2;
  // With full weights the free region is the diamond |roll| + |pitch| ≤ 1: half of the square.
  EXPECT_NEAR(analyze_surfaces(rig).saturated_share, 0.5, 1e-12);
  // With 0.8 and 0.6, four triangles of (0.8 + 0.6 − 1)² / (2 · 0.8 · 0.6) each, of a square of four.
  for (Output& o : rig.outputs)
    if (o.mix.throttle == 0) o.mix.roll *= 0.8 / std::abs(o.mix.roll), o.mix.pitch *= 0.6 / std::abs(o.mix.pitch);
  EXPECT_NEAR(analyze_surfaces(rig).saturated_share, 4 * 0.4 * 0.4 / (2 * 0.8 * 0.6) / 4, 1e-12);
  // Any mix, differential, flap and yaw among them, by a million sticks at random.
  std::mt19937 random(2);
  const auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
  for (int k = 0; k < 5; ++k) {
    for (Output& o : rig.outputs)
      if (o.mix.throttle == 0) {
        o.mix.roll = between(-1, 1), o.mix.pitch = between(-1, 1), o.mix.yaw = between(-0.5, 0.5);
        o.mix.flap = between(-0.3, 0.3), o.mix.roll_differential = between(-0.8, 0.8);
      }
    Command held;
    held.yaw = between(-1, 1), held.flap = between(0, 1);
    int saturated = 0;
    constexpr int tried = 200000;
    for (int i = 0; i < tried; ++i) {
      Command c = held;
      c.roll = between(-1, 1), c.pitch = between(-1, 1);
      bool beyond = false;
      for (const Output& o : rig.outputs)
        if (o.mix.throttle == 0) beyond = beyond || mixed(o, c).saturated;
      saturated += beyond;
    }
    EXPECT_NEAR(saturated_share(rig, held), static_cast<double>(saturated) / tried, 0.004) << k;
  }
}

/// Common practice: two motors go with any tail or wing, and may steer beside a rudder or instead of one. Right yaw
/// speeds the left motor up.
TEST(Motors, TwoGoWithAnyAirframe) {
  int combined = 0;
  for (const auto& [kind, name] : Names<AirframeKind>::list)
    for (const Motors motors : {Motors::two, Motors::two_steering}) {
      Airframe a;
      a.kind = kind;
      a.motors = motors;
      const auto outputs = default_outputs(a);
      const auto motor_of = [&](const std::vector<Output>& all, Side side) -> const Output* {
        for (const Output& o : all)
          for (const Surface s : o.surfaces)
            if (s == Surface{SurfaceKind::motor, side}) return &o;
        return nullptr;
      };
      const Output *left = motor_of(outputs, Side::left), *right = motor_of(outputs, Side::right);
      if (kind == AirframeKind::towed_glider) {
        EXPECT_FALSE(left) << "it has none";
        continue;
      }
      ASSERT_TRUE(left && right) << name;
      EXPECT_EQ(left->mix.throttle, 1);
      const bool steers = motors == Motors::two_steering || kind == AirframeKind::twin_differential;
      EXPECT_EQ(left->mix.yaw > 0, steers) << name;
      EXPECT_EQ(right->mix.yaw < 0, steers) << name;
      EXPECT_EQ(std::count_if(outputs.begin(), outputs.end(), [](const Output& o) { return o.mix.throttle != 0; }), 2)
          << name;
      if (kind == AirframeKind::twin_differential) continue;
      // From one motor to two and back, on the same sockets.
      Rig rig = fresh_rig("mine", kind, "large_controller");
      const std::string socket = rig.outputs.back().socket;
      const Rig twin = with_motors(rig, motors);
      EXPECT_EQ(motor_of(twin.outputs, Side::left)->socket, socket) << name;
      EXPECT_EQ(with_kind(with_kind(twin, AirframeKind::canard), kind).airframe.motors, motors);
      const auto serious = [](const Rig& r) {
        std::string codes;
        const Review all = review(r, shipped());
        for (const Snag& s : all.snags)
          if (s.severity != Severity::worth_knowing && s.station != Station::proof) codes += s.code + " ";
        return codes;
      };
      EXPECT_EQ(serious(twin), serious(rig)) << name << ": nothing about it is new";
      Rig steered = with_motors(twin, Motors::two_steering);
      EXPECT_GT(motor_of(steered.outputs, Side::left)->mix.yaw, 0);
      steered.outputs.front().reversed = true;
      const Rig plain = with_motors(steered, Motors::two);
      EXPECT_EQ(motor_of(plain.outputs, Side::left)->mix.yaw, 0);
      EXPECT_TRUE(plain.outputs.front().reversed) << "what was set of the rest stays";
      EXPECT_EQ(with_motors(plain, Motors::one).outputs.size(), rig.outputs.size()) << name;
      const auto panels = analyze_airframe(twin).panels;
      for (const Side side : {Side::left, Side::right})
        EXPECT_TRUE(std::any_of(panels.begin(), panels.end(),
                                [&](const Panel& p) {
                                  return p.surface == Surface{SurfaceKind::motor, side};
                                }))
            << name << ": they are drawn";
      ++combined;
    }
  EXPECT_EQ(combined, 30);
}

}  // namespace
}  // namespace rigging
