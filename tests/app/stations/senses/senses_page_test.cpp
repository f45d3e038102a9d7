#include <gtest/gtest.h>

#include <QLabel>

#include "bench_builder.h"
#include "drawing/aircraft_view.h"
#include "senses/sense_checks.h"
#include "stations/senses/gore_map.h"
#include "stations/senses/senses_page.h"

namespace rigging::app {
namespace {

/// On the simulated bench, at the station, with USB in.
bool at_senses(Builder& b, const char* rig, bool poor) {
  if (!b.open(rig, Station::senses)) return false;
  if (poor)
    b.window.start_troubled_bench(5, {.poor_senses = true});
  else if (!b.click(QStringLiteral("bench_start")))
    return false;
  return b.wait([&] { return b.window.bench().hands_connected(); }) && b.click(QStringLiteral("supply_usb")) &&
         b.wait([&] { return b.window.bench().controller_answers(); });
}

/// Lets the hands hold what the card asks for, until it asks no more. `taken`: how many poses it has.
template <class Taken, class Done>
bool hold_as_asked(Builder& b, const char* hold, Taken&& taken, Done&& done, int most) {
  for (int i = 0; i < most && !done(); ++i) {
    const std::size_t before = taken();
    if (!b.wait([&] { return b.can_click(QLatin1String(hold)); }) || !b.click(QLatin1String(hold))) return false;
    // Taken by itself: nobody presses a key while holding the model.
    if (!b.wait([&] { return done() || taken() > before; }, 12000)) return false;
  }
  return done();
}

const SensesPage& page_of(Builder& b) { return *b.window.findChild<SensesPage*>(); }

CheckStatus status(Builder& b, const CheckId& id) { return *find_check(b.window.document().review().checks, id); }

TEST(SensesPage, ABoardThatSitsTurnedIsFoundByHoldingTheModel) {
  Builder b({QStringLiteral("board_turned:arrow_right_top_up")}, 0);
  ASSERT_TRUE(at_senses(b, "hedgerow", false));
  ASSERT_TRUE(b.click(QStringLiteral("rotation_begin")));
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("rotation_todo"))->text().contains(QStringLiteral("level")));
  ASSERT_TRUE(hold_as_asked(
      b, "rotation_hold", [&] { return page_of(b).procedure<RotationProcedure>(SensesPage::rotation).poses().size(); },
      [&] { return b.can_click(QStringLiteral("rotation_set")); }, 6));
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("rotation_says"))->text().contains(QStringLiteral("to the right")));
  EXPECT_FALSE(b.can_click(QStringLiteral("record_rotation"))) << "it is told otherwise";
  ASSERT_TRUE(b.click(QStringLiteral("rotation_set")));
  EXPECT_EQ(b.window.document().rig().sensing.board.name(), "arrow_right_top_up");
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("write_rotation")); }));
  ASSERT_TRUE(b.click(QStringLiteral("write_rotation")));
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("record_rotation")); }));
  ASSERT_TRUE(b.click(QStringLiteral("record_rotation")));
  EXPECT_EQ(status(b, rotation_known).state, ProofState::fresh);
  // Stale when the board is turned, and only then.
  b.edit([](Rig& r) { r.outputs[0].mix.roll *= 0.9; });
  EXPECT_EQ(status(b, rotation_known).state, ProofState::fresh);
  b.edit([](Rig& r) { r.place("controller")->turn = TurnName(*turn_from_name("arrow_left_top_up")); });
  EXPECT_EQ(status(b, rotation_known).state, ProofState::stale);
}

TEST(SensesPage, APoorAccelerometerIsCalibratedByFollowingTheCard) {
  Builder b({}, 0);
  ASSERT_TRUE(at_senses(b, "hedgerow", true));
  ASSERT_TRUE(b.click(QStringLiteral("side_accelerometer")));
  ASSERT_TRUE(b.click(QStringLiteral("accel_begin")));
  const auto& kept = [&]() -> const std::optional<SensorCorrection>& {
    return b.window.document().rig().sensing.accelerometer;
  };
  ASSERT_TRUE(hold_as_asked(
      b, "accel_hold",
      [&] { return page_of(b).procedure<AccelerometerProcedure>(SensesPage::accelerometer).poses().size(); },
      [&] { return kept().has_value(); }, 24));
  // Seed 5: what it says is what the twin has, as far as noise lets it; a correct one reads gravity anywhere.
  const auto& p = page_of(b).procedure<AccelerometerProcedure>(SensesPage::accelerometer);
  ASSERT_TRUE(p.found());
  EXPECT_EQ(p.found()->verdict, Verdict::good);
  for (const StillPose& s : p.poses()) EXPECT_NEAR(p.found()->corrected(s.mean).norm(), 9.80665, 0.03);
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("write_accelerometer")); }));
  ASSERT_TRUE(b.click(QStringLiteral("write_accelerometer")));
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("record_accelerometer")); }));
  ASSERT_TRUE(b.click(QStringLiteral("record_accelerometer")));
  EXPECT_EQ(status(b, accelerometer_calibrated).state, ProofState::fresh);
}

TEST(SensesPage, ACompassAmongIronIsCalibratedByTurningTheModel) {
  Builder b({}, 0);
  ASSERT_TRUE(at_senses(b, "hedgerow", true));
  ASSERT_TRUE(b.click(QStringLiteral("side_compass")));
  ASSERT_TRUE(b.click(QStringLiteral("compass_begin")));
  // A hand that turns the model through everything, as the map fills.
  const auto& p = page_of(b).procedure<CompassProcedure>(SensesPage::compass);
  for (int k = 0; k < 14 && p.running(); ++k) {
    // Rolled over and back, with the nose at another height each time.
    b.window.bench().ask(hands::Hold{k % 2 ? -179.0 : 179.0, 75.0 - 12.5 * k, 0});
    b.wait([&] { return !p.running(); }, 8200);
  }
  ASSERT_TRUE(p.found()) << b.find<QLabel>(QStringLiteral("compass_remark"))->text().toStdString();
  ASSERT_TRUE(b.window.document().rig().sensing.compass) << p.found()->why.front();
  EXPECT_FALSE(b.find<GoreMap>(QStringLiteral("gore_map"))->accessibleDescription().startsWith(QStringLiteral("0 ")));
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("write_compass")); }));
  ASSERT_TRUE(b.click(QStringLiteral("write_compass")));
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("record_compass")); }));
  ASSERT_TRUE(b.click(QStringLiteral("record_compass")));
  EXPECT_EQ(status(b, compass_calibrated).state, ProofState::fresh);
  // Leads with current laid elsewhere: another field.
  b.edit([](Rig& r) { r.lead("esc_battery")->apart = true; });
  EXPECT_EQ(status(b, compass_calibrated).state, ProofState::stale);
}

TEST(SensesPage, AClassThatShowsNothingIsToldHow) {
  Builder b({}, 0);
  ASSERT_TRUE(b.open("heath", Station::senses));
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("rotation_todo"))->text().contains(QStringLiteral("does not show")));
  EXPECT_FALSE(b.can_click(QStringLiteral("rotation_begin")));
  EXPECT_EQ(find_check(b.window.document().review().checks, rotation_known), nullptr);
}

}  // namespace
}  // namespace rigging::app
