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
bool at_senses(Builder& b, const char* rig, bool poor, const QStringList& faults = {}) {
  if (!b.open(rig, Station::senses)) return false;
  if (poor || !faults.isEmpty())
    b.window.start_troubled_bench(5, {.poor_senses = poor, .sense_faults = faults});
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
  b.edit([](Rig& r) { r.mounting("controller")->turn = TurnName(*turn_from_name("arrow_left_top_up")); });
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
    b.let_pass(8200, [&] { return !p.running(); });
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

TEST(SensesPage, ABumpAtPowerUpIsReadAndCuredByAStillStart) {
  Builder b({}, 0);
  ASSERT_TRUE(at_senses(b, "hedgerow", false, {QStringLiteral("bumped")}));
  ASSERT_TRUE(b.click(QStringLiteral("side_still")));
  ASSERT_TRUE(b.click(QStringLiteral("gyro_begin")));
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("gyro_replug")); }, 25000));
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("gyro_lines"))->text().contains(QStringLiteral("moved while it looked")));
  EXPECT_FALSE(b.can_click(QStringLiteral("record_gyro")));
  ASSERT_TRUE(b.click(QStringLiteral("gyro_replug")));
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("gyro_begin")); }));
  ASSERT_TRUE(b.click(QStringLiteral("gyro_begin")));
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("record_gyro")); }, 25000));
  ASSERT_TRUE(b.click(QStringLiteral("record_gyro")));
  EXPECT_EQ(status(b, gyro_still).state, ProofState::fresh);
  // Another version of the firmware starts anew; the mixer has nothing to do with it.
  b.edit([](Rig& r) { r.outputs[0].mix.roll *= 0.9; });
  EXPECT_EQ(status(b, gyro_still).state, ProofState::fresh);
  b.edit([](Rig& r) { r.controller.firmware = "9.9"; });
  EXPECT_EQ(status(b, gyro_still).state, ProofState::stale);
}

TEST(SensesPage, ASensorLeftOverIsSwitchedOffOnTheBoard) {
  Builder b({}, 0);
  ASSERT_TRUE(at_senses(b, "hedgerow", false, {QStringLiteral("left_over_airspeed")}));
  ASSERT_TRUE(b.click(QStringLiteral("side_found")));
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("found_without_airspeed")); }));
  ASSERT_TRUE(b.click(QStringLiteral("found_without_airspeed")));
  EXPECT_EQ(b.window.document().rig().sensing.uses_airspeed, std::optional(false));
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("write_found")); }));
  ASSERT_TRUE(b.click(QStringLiteral("write_found")));
  ASSERT_TRUE(
      b.wait([&] { return !b.window.bench().found().count(Sensor::airspeed) && !b.window.bench().found().empty(); }));
}

TEST(SensesPage, LevelIsSetWrittenRecordedAndGoesStaleWithTheMass) {
  Builder b({}, 0);
  ASSERT_TRUE(at_senses(b, "hedgerow", false));
  ASSERT_TRUE(b.click(QStringLiteral("side_level")));
  ASSERT_TRUE(b.click(QStringLiteral("level_take")));
  ASSERT_TRUE(b.window.document().rig().sensing.level_nose_up_deg);
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("write_level")); }));
  ASSERT_TRUE(b.click(QStringLiteral("write_level")));
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("record_level")); }));
  ASSERT_TRUE(b.click(QStringLiteral("record_level")));
  EXPECT_EQ(status(b, level_told).state, ProofState::fresh);
  b.edit([](Rig& r) { r.airframe.fin_height_m *= 1.1; });
  EXPECT_EQ(status(b, level_told).state, ProofState::fresh);
  b.edit([](Rig& r) { r.airframe.mass_kg = *r.airframe.mass_kg + 0.2; });
  EXPECT_EQ(status(b, level_told).state, ProofState::stale);
}

TEST(SensesPage, AMassThatDoesNotFitIsSaidAndNothingIsThrownAway) {
  Builder b({}, 0);
  ASSERT_TRUE(b.open("hedgerow", Station::senses));
  ASSERT_TRUE(b.click(QStringLiteral("side_level")));
  const double before = *b.window.document().rig().airframe.mass_kg;
  const auto type = [](QWidget& sheet, const char* name, const char* text) {
    auto* line = sheet.findChild<QDoubleSpinBox*>(QLatin1String(name))->findChild<QLineEdit*>();
    line->selectAll();
    line->insert(QLatin1String(text));
  };
  b.in_sheet([&](QWidget& sheet) {
    const auto take = [&] { sheet.findChild<QAbstractButton*>(QStringLiteral("take"))->click(); };
    auto* refusal = sheet.findChild<QLabel*>(QStringLiteral("refusal"));
    type(sheet, "mass", "0,9");  // grams are asked for
    take();
    EXPECT_TRUE(sheet.isVisible());
    EXPECT_TRUE(refusal->isVisible() && refusal->text().contains(QStringLiteral("0.9")))
        << refusal->text().toStdString();
    EXPECT_EQ(*b.window.document().rig().airframe.mass_kg, before);
    // Typed again, it is taken at once.
    type(sheet, "mass", "0,9");
    type(sheet, "mass", "1950");
    type(sheet, "incidence", "1,5");
    take();
  });
  ASSERT_TRUE(b.click(QStringLiteral("wing_and_cruise")));
  EXPECT_NEAR(*b.window.document().rig().airframe.mass_kg, 1.95, 1e-9);
  EXPECT_NEAR(b.window.document().rig().airframe.incidence_deg, 1.5, 1e-9);
}

TEST(SensesPage, TheSatelliteReceiverOfTheBoardMakesAHome) {
  Builder b({}, 0);
  ASSERT_TRUE(at_senses(b, "hedgerow", false));
  ASSERT_TRUE(b.click(QStringLiteral("side_sky")));
  ASSERT_TRUE(b.click(QStringLiteral("sky_begin")));
  // On USB alone this board leaves its receiver dark.
  ASSERT_TRUE(b.wait(
      [&] { return b.find<QLabel>(QStringLiteral("sky_remark"))->text().contains(QStringLiteral("USB alone")); }));
  ASSERT_TRUE(b.click(QStringLiteral("supply_battery")));
  const auto& p = page_of(b).procedure<SkyProcedure>(SensesPage::sky);
  ASSERT_TRUE(b.wait([&] { return p.standing().fixes >= 5; }, 40000));
  ASSERT_TRUE(b.click(QStringLiteral("sky_enough")));
  ASSERT_TRUE(b.click(QStringLiteral("sky_field")));
  EXPECT_NEAR(b.window.document().rig().fit.latitude_deg.value_or(0), 50.4321, 1e-3);
}

TEST(SensesPage, AMotorThatRunsShowsItsShakingAndItsField) {
  Builder b({}, 0);
  ASSERT_TRUE(at_senses(b, "hedgerow", false));
  ASSERT_TRUE(b.click(QStringLiteral("supply_battery")));
  ASSERT_TRUE(b.click(QStringLiteral("side_motor")));
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("motor_run")); }));
  ASSERT_TRUE(b.click(QStringLiteral("motor_run")));
  const auto& p = page_of(b).procedure<MotorProcedure>(SensesPage::motor);
  ASSERT_TRUE(b.wait([&] { return p.vibration().has_value(); }, 40000));
  ASSERT_TRUE(p.interference());
  EXPECT_GT(p.interference()->most_a, 3);
  EXPECT_TRUE(p.interference()->estimate);
  EXPECT_GT(p.vibration()->rms, 0.2);
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
