#include "fit/usual_places.h"

#include <gtest/gtest.h>

#include "airframe/airframe.h"
#include "bench_rig.h"
#include "fit/edits.h"
#include "fit/fit.h"
#include "power/power.h"

namespace rigging {
namespace {

int overlaps(const Rig& rig) {
  const auto all = find_clashes(rig, shipped());
  return static_cast<int>(std::count_if(all.begin(), all.end(), [](const Clash& c) { return !c.other.empty(); }));
}

Point at(const Rig& rig, const std::string& id) { return point_of(*rig.mounting(id)); }

// Common practice, on every demo rig with all of its places forgotten.
TEST(UsualPlaces, EverythingFindsAPlaceThatItsKindHas) {
  for (const char* name : {"hedgerow", "bramble", "delta", "heath"}) {
    Rig rig = demo(name);
    rig.mountings.clear();
    const auto edit = place_parts(rig, shipped(), false);
    ASSERT_TRUE(edit) << name;
    const Rig& placed = edit->rig;
    EXPECT_EQ(placed.mountings.size(), rig.parts.size() + 1) << name;
    EXPECT_EQ(overlaps(placed), 0) << name;
    const AirframeReport airframe = analyze_airframe(placed);
    const FitReport fit = analyze_fit(placed, shipped(), airframe, analyze_power(placed, shipped()));
    EXPECT_TRUE(fit.balance.complete) << name;
    EXPECT_NEAR(fit.balance.balance_point.value, fit.balance.wanted.value, 0.35 * airframe.mean_chord.value) << name;
    for (const CompassReport& c : fit.compasses) EXPECT_LT(c.error.value, wanted_compass_error_deg) << name;
    for (const auto& [a, b, least] : {std::tuple{PartGroup::satellite_receiver, PartGroup::video_transmitter, 0.1},
                                      {PartGroup::receiver, PartGroup::video_transmitter, 0.08},
                                      {PartGroup::compass, PartGroup::motor, 0.05}})
      for (const Part* p : parts_of(placed, shipped(), a))
        for (const Part* q : parts_of(placed, shipped(), b))
          EXPECT_GE((at(placed, p->id) - at(placed, q->id)).norm(), least) << name << " " << p->id << " " << q->id;
    for (const Part* s : parts_of(placed, shipped(), PartGroup::servo))
      if (s->surface && static_cast<const Surface&>(*s->surface).side != Side::single) {
        const double y = at(placed, s->id).y();
        EXPECT_EQ(y < 0, static_cast<const Surface&>(*s->surface).side == Side::left) << name << " " << s->id;
      }
  }
}

TEST(UsualPlaces, WhatHasAPlaceKeepsIt) {
  Rig rig = demo("hedgerow");
  const auto before = rig.mountings;
  EXPECT_FALSE(place_parts(rig, shipped(), false)) << "all have one";
  std::erase_if(rig.mountings, [](const Mounting& p) { return p.part == "buzzer"; });
  const auto edit = place_parts(rig, shipped(), false);
  ASSERT_TRUE(edit);
  for (const Mounting& p : before)
    if (p.part != "buzzer") EXPECT_EQ(*edit->rig.mounting(p.part), p) << p.part;
  EXPECT_EQ(overlaps(edit->rig), 0);
}

TEST(UsualPlaces, WhatOverlapsMovesApart) {
  Rig rig = demo("hedgerow");
  for (Mounting& p : rig.mountings)
    if (p.part != "motor" && p.part != "propeller" && p.part != "battery") p.x_m = -0.36, p.y_m = 0, p.z_m = 0;
  ASSERT_GT(overlaps(rig), 20);
  const auto edit = spread_out(rig, shipped());
  ASSERT_TRUE(edit);
  EXPECT_EQ(overlaps(edit->rig), 0);
  EXPECT_EQ(*edit->rig.mounting("battery"), *rig.mounting("battery")) << "what is heavy and right stays";
  EXPECT_FALSE(spread_out(edit->rig, shipped())) << "nothing overlaps any more";
}

TEST(UsualPlaces, APartIsMirroredOrMade) {
  const Rig rig = demo("hedgerow");
  // The servo of the other side goes where this one is, mirrored.
  Rig moved = rig;
  moved.mounting("servo_flaperon_left")->x_m = -0.47;
  const auto pair = mirror_part(moved, shipped(), "servo_flaperon_left");
  ASSERT_TRUE(pair);
  EXPECT_EQ(pair->rig.parts.size(), rig.parts.size());
  EXPECT_EQ(pair->rig.mounting("servo_flaperon_right")->x_m, -0.47);
  EXPECT_EQ(pair->rig.mounting("servo_flaperon_right")->y_m, -moved.mounting("servo_flaperon_left")->y_m);
  const auto made = mirror_part(rig, shipped(), "gps");
  ASSERT_TRUE(made);
  EXPECT_EQ(made->rig.parts.size(), rig.parts.size() + 1);
  EXPECT_EQ(made->rig.parts.back().kind, rig.part("gps")->kind);
  EXPECT_FALSE(mirror_part(rig, shipped(), "battery")) << "it sits in the middle";
  EXPECT_FALSE(mirror_part(rig, shipped(), "nobody"));
  const auto twice = duplicate_part(rig, shipped(), "camera");
  ASSERT_TRUE(twice);
  EXPECT_NE(twice->rig.parts.back().id, "camera");
  EXPECT_EQ(twice->rig.parts.back().label, rig.part("camera")->label);
}

}  // namespace
}  // namespace rigging
