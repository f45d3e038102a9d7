#include "senses/inventory.h"

#include <gtest/gtest.h>

#include "bench_rig.h"
#include "review/review.h"

namespace rigging {
namespace {

Rig reported(std::initializer_list<std::pair<Sensor, SensorState>> states) {
  Rig rig = demo("hedgerow");
  for (const auto& [sensor, state] : states) {
    ReportedSensor r;
    r.sensor = sensor;
    r.state = state;
    rig.sensing.reported.push_back(r);
  }
  return rig;
}

Finding finding(const Rig& rig, Sensor sensor) {
  for (const InventoryLine& line : inventory_of(rig, shipped()))
    if (line.sensor == sensor) return line.finding;
  ADD_FAILURE() << name_of(sensor) << " is not in the inventory";
  return Finding::not_asked;
}

const Snag* snag_about(const Review& review, Sensor sensor) {
  for (const Snag& s : review.snags)
    if (s.code == "SENSES-04" && s.subject == "found." + std::string(name_of(sensor))) return &s;
  return nullptr;
}

TEST(Inventory, WhatIsFittedMissingSickAndUnexpectedIsToldApart) {
  using S = Sensor;
  const Rig rig = reported({{S::gyro, SensorState::works},
                            {S::compass, SensorState::missing},
                            {S::satellites, SensorState::sick},
                            {S::airspeed, SensorState::works}});
  EXPECT_EQ(finding(rig, S::gyro), Finding::as_planned);
  EXPECT_EQ(finding(rig, S::accelerometer), Finding::missing) << "asked, and it did not speak of one";
  EXPECT_EQ(finding(demo("hedgerow"), S::accelerometer), Finding::not_asked);
  EXPECT_EQ(finding(rig, S::compass), Finding::missing);
  EXPECT_EQ(finding(rig, S::satellites), Finding::sick);
  EXPECT_EQ(finding(rig, S::airspeed), Finding::not_planned);
  const Review seen = review(rig, shipped());
  ASSERT_TRUE(snag_about(seen, S::satellites));
  EXPECT_EQ(snag_about(seen, S::satellites)->severity, Severity::grounds);
  EXPECT_EQ(snag_about(seen, S::compass)->severity, Severity::fix_first);
  EXPECT_EQ(snag_about(seen, S::airspeed)->severity, Severity::worth_knowing);
  EXPECT_FALSE(snag_about(seen, S::gyro));
}

TEST(Inventory, ASettingLeftOverFromAnotherModelIsASnagWithAFix) {
  Rig rig = demo("hedgerow");
  rig.sensing.uses_airspeed = true;
  EXPECT_EQ(finding(rig, Sensor::airspeed), Finding::left_over);
  const Review seen = review(rig, shipped());
  const Snag* snag = snag_about(seen, Sensor::airspeed);
  ASSERT_TRUE(snag && snag->fix);
  const Rig mended = fixed_by(*snag->fix, rig);
  EXPECT_EQ(mended.sensing.uses_airspeed, std::optional(false));
  EXPECT_FALSE(snag_about(review(mended, shipped()), Sensor::airspeed));

  Rig idle = demo("hedgerow");
  idle.sensing.uses_compass = false;
  const Review idle_review = review(idle, shipped());
  const Snag* unused = snag_about(idle_review, Sensor::compass);
  ASSERT_TRUE(unused && unused->fix);
  EXPECT_EQ(fixed_by(*unused->fix, idle).sensing.uses_compass, std::optional(true));
}

TEST(Inventory, ABoardThatLooksForWhatIsNotThereIsLeftOverToo) {
  const Rig rig = reported({{Sensor::airspeed, SensorState::missing}});
  EXPECT_EQ(finding(rig, Sensor::airspeed), Finding::left_over);
  const Review seen = review(rig, shipped());
  const Snag* snag = snag_about(seen, Sensor::airspeed);
  ASSERT_TRUE(snag && snag->fix);
  EXPECT_FALSE(snag_about(review(fixed_by(*snag->fix, rig), shipped()), Sensor::airspeed));
}

}  // namespace
}  // namespace rigging
