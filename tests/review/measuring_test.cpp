#include "power/measuring.h"

#include <gtest/gtest.h>

#include "base/find.h"
#include "bench_rig.h"
#include "fit/edits.h"
#include "fit/to_get.h"
#include "home/edits.h"
#include "wiring/edits.h"

namespace rigging {
namespace {

const Snag* unmeasured(const Review& r) {
  return find_in(r.snags, [](const Snag& s) { return s.code == "HOME-15"; });
}

/// A rig of this class with motor, speed controller and battery, wired as the plan has it.
Rig driven(const std::string& controller) {
  Rig rig = fresh_at_1200_g(controller.c_str(),
                            shipped().controller(controller)->surfaces.drives.empty() || controller != "fixed_wing"
                                ? AirframeKind::two_ailerons
                                : AirframeKind::flying_wing);
  for (const char* kind : {"battery_3s_2200", "esc_40_switching", "motor_2814"})
    rig = add_part(rig, shipped(), kind)->rig;
  return plan_all(rig, shipped())->rig;
}

// A return or alarm at a voltage needs something that measures the battery (common practice), on every class.
TEST(Measuring, AThresholdThatNothingMeasuresIsSaidAndMended) {
  for (const ControllerClass& c : shipped().controllers) {
    Rig rig = driven(c.id);
    EXPECT_EQ(unmeasured(review(rig, shipped())), nullptr) << c.id << ": no threshold, no snag";
    rig.home.turn_home_v = 10.5;
    if (battery_measured(rig, shipped())) {
      // The plan laid the lead by itself: its own battery socket, or a soldered alarm.
      EXPECT_EQ(unmeasured(review(rig, shipped())), nullptr) << c.id;
      for (Lead& l : rig.leads)
        for (LeadEnd* end : {&l.from, &l.to})
          if (const Terminal* t = terminal_of(rig, shipped(), *end);
              t && end->part == "controller" && (t->kind == TerminalKind::battery_in || t->net == "battery"))
            end->socket = "gone";
    }
    const Review r = review(rig, shipped());
    const Snag* s = unmeasured(r);
    ASSERT_TRUE(s) << c.id;
    EXPECT_EQ(s->fix.has_value(), can_measure_battery(c)) << c.id;
    if (!s->fix) continue;
    const Rig mended = fixed_by(*s->fix, rig);
    EXPECT_TRUE(battery_measured(mended, shipped())) << c.id;
    EXPECT_EQ(unmeasured(review(mended, shipped())), nullptr) << c.id;
  }
}

TEST(ToGetList, AYLeadIsOneLeadAndABatteryThatFeedsTwoIsBranched) {
  Rig rig = fresh_at_1200_g("fixed_mini", AirframeKind::aileron_y_lead);
  for (const char* kind :
       {"battery_3s_2200", "esc_40_isolated", "motor_2814", "regulator_5v_3a", "servo_9g_digital", "servo_9g_digital"})
    if (auto edit = add_part(rig, shipped(), kind)) rig = edit->rig;
  int servos = 0;
  for (Part& p : rig.parts)
    if (shipped().part(p.kind)->group == PartGroup::servo)
      p.surface = SurfaceName(*surface_from_name(servos++ ? "aileron_right" : "aileron_left"));
  rig = plan_all(rig, shipped())->rig;
  const Review r = review(rig, shipped());
  int y = 0, branched = 0, both = 0;
  for (const ToGet& t : r.reports.fit().to_get) {
    y += t.what.starts_with("Y-lead") ? t.count : 0;
    both += t.what.starts_with("Y-lead") && t.why.find(" and ") != std::string::npos;
    branched += t.what.starts_with("Branched battery lead") ? t.count : 0;
  }
  EXPECT_EQ(y, 1);
  EXPECT_EQ(both, 1);
  EXPECT_EQ(branched, 1);
}

}  // namespace
}  // namespace rigging
