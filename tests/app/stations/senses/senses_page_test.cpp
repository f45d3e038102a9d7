#include <gtest/gtest.h>

#include <QLabel>

#include "bench_builder.h"
#include "drawing/aircraft_view.h"
#include "look/literals.h"
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
  else if (!b.click(u"bench_start"_s))
    return false;
  return b.wait([&] { return b.window.bench().hands_connected(); }) && b.click(u"supply_usb"_s) &&
         b.wait([&] { return b.window.bench().controller_answers(); });
}

/// Lets the hands hold what the card asks for, until it asks no more. `taken`: how many poses it has.
template <class Taken, class Done>
bool hold_as_asked(Builder& b, const char* hold, Taken&& taken, Done&& done, int most) {
  for (int i = 0; i < most && !done(); ++i) {
    const std::size_t before = taken();
    if (!b.wait([&] { return done() || b.can_click(QLatin1String(hold)); })) return false;
    if (done()) break;
    if (!b.click(QLatin1String(hold))) return false;
    // Taken by itself: nobody presses a key while holding the model.
    if (!b.wait([&] { return done() || taken() > before; }, 12000)) return false;
  }
  return done();
}

const SensesPage& page_of(Builder& b) { return *b.window.findChild<SensesPage*>(); }

CheckStatus status(Builder& b, const CheckId& id) { return *find_check(b.window.document().review().checks, id); }

TEST(SensesPage, ABoardThatSitsTurnedIsFoundByHoldingTheModel) {
  Builder b({u"board_turned:arrow_right_top_up"_s}, 0);
  ASSERT_TRUE(at_senses(b, "hedgerow", false));
  ASSERT_TRUE(b.click(u"rotation_begin"_s));
  EXPECT_TRUE(b.find<QLabel>(u"rotation_todo"_s)->text().contains(u"level"_s));
  ASSERT_TRUE(hold_as_asked(
      b, "rotation_hold", [&] { return page_of(b).procedure<RotationProcedure>(SensesPage::rotation).poses().size(); },
      [&] { return b.can_click(u"rotation_set"_s); }, 6));
  EXPECT_TRUE(b.find<QLabel>(u"rotation_says"_s)->text().contains(u"to the right"_s));
  EXPECT_FALSE(b.can_click(u"record_rotation"_s)) << "it is told otherwise";
  ASSERT_TRUE(b.click(u"rotation_set"_s));
  EXPECT_EQ(b.window.document().rig().sensing.board.name(), "arrow_right_top_up");
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"write_rotation"_s); }));
  ASSERT_TRUE(b.click(u"write_rotation"_s));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"record_rotation"_s); }));
  ASSERT_TRUE(b.click(u"record_rotation"_s));
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
  ASSERT_TRUE(b.click(u"side_accelerometer"_s));
  ASSERT_TRUE(b.click(u"accel_begin"_s));
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
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"write_accelerometer"_s); }));
  ASSERT_TRUE(b.click(u"write_accelerometer"_s));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"record_accelerometer"_s); }));
  ASSERT_TRUE(b.click(u"record_accelerometer"_s));
  EXPECT_EQ(status(b, accelerometer_calibrated).state, ProofState::fresh);
}

TEST(SensesPage, ACompassAmongIronIsCalibratedByTurningTheModel) {
  Builder b({}, 0);
  ASSERT_TRUE(at_senses(b, "hedgerow", true));
  ASSERT_TRUE(b.click(u"side_compass"_s));
  ASSERT_TRUE(b.click(u"compass_begin"_s));
  // A hand that turns the model through everything, as the map fills.
  const auto& p = page_of(b).procedure<CompassProcedure>(SensesPage::compass);
  ASSERT_TRUE(b.click(u"compass_hands"_s)) << "simulated hands turn it";
  b.let_pass(130000, [&] { return !p.running(); });
  ASSERT_TRUE(p.found()) << b.find<QLabel>(u"compass_remark"_s)->text().toStdString();
  ASSERT_TRUE(b.window.document().rig().sensing.compass) << p.found()->why.front();
  EXPECT_FALSE(b.find<GoreMap>(u"gore_map"_s)->accessibleDescription().startsWith(u"0 "_s));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"write_compass"_s); }));
  ASSERT_TRUE(b.click(u"write_compass"_s));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"record_compass"_s); }));
  ASSERT_TRUE(b.click(u"record_compass"_s));
  EXPECT_EQ(status(b, compass_calibrated).state, ProofState::fresh);
  // Leads with current laid elsewhere: another field.
  b.edit([](Rig& r) { r.lead("esc_battery")->apart = true; });
  EXPECT_EQ(status(b, compass_calibrated).state, ProofState::stale);
}

TEST(SensesPage, ABumpAtPowerUpIsReadAndCuredByAStillStart) {
  Builder b({}, 0);
  ASSERT_TRUE(at_senses(b, "hedgerow", false, {u"bumped"_s}));
  ASSERT_TRUE(b.click(u"side_still"_s));
  ASSERT_TRUE(b.click(u"gyro_begin"_s));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"gyro_replug"_s); }, 25000));
  EXPECT_TRUE(b.find<QLabel>(u"gyro_lines"_s)->text().contains(u"moved while it looked"_s));
  EXPECT_FALSE(b.can_click(u"record_gyro"_s));
  ASSERT_TRUE(b.click(u"gyro_replug"_s));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"gyro_begin"_s); }));
  ASSERT_TRUE(b.click(u"gyro_begin"_s));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"record_gyro"_s); }, 25000));
  ASSERT_TRUE(b.click(u"record_gyro"_s));
  EXPECT_EQ(status(b, gyro_still).state, ProofState::fresh);
  // Another version of the firmware starts anew; the mixer has nothing to do with it.
  b.edit([](Rig& r) { r.outputs[0].mix.roll *= 0.9; });
  EXPECT_EQ(status(b, gyro_still).state, ProofState::fresh);
  b.edit([](Rig& r) { r.controller.firmware = "9.9"; });
  EXPECT_EQ(status(b, gyro_still).state, ProofState::stale);
}

TEST(SensesPage, ASensorLeftOverIsSwitchedOffOnTheBoard) {
  Builder b({}, 0);
  ASSERT_TRUE(at_senses(b, "hedgerow", false, {u"left_over_airspeed"_s}));
  ASSERT_TRUE(b.click(u"side_found"_s));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"found_without_airspeed"_s); }));
  ASSERT_TRUE(b.click(u"found_without_airspeed"_s));
  EXPECT_EQ(b.window.document().rig().sensing.uses_airspeed, std::optional(false));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"write_found"_s); }));
  ASSERT_TRUE(b.click(u"write_found"_s));
  ASSERT_TRUE(
      b.wait([&] { return !b.window.bench().found().count(Sensor::airspeed) && !b.window.bench().found().empty(); }));
}

TEST(SensesPage, LevelIsSetWrittenRecordedAndGoesStaleWithTheMass) {
  Builder b({}, 0);
  ASSERT_TRUE(at_senses(b, "hedgerow", false));
  ASSERT_TRUE(b.click(u"side_level"_s));
  ASSERT_TRUE(b.click(u"level_take"_s));
  ASSERT_TRUE(b.window.document().rig().sensing.level_nose_up_deg);
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"write_level"_s); }));
  ASSERT_TRUE(b.click(u"write_level"_s));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"record_level"_s); }));
  ASSERT_TRUE(b.click(u"record_level"_s));
  EXPECT_EQ(status(b, level_told).state, ProofState::fresh);
  b.edit([](Rig& r) { r.airframe.fin_height_m *= 1.1; });
  EXPECT_EQ(status(b, level_told).state, ProofState::fresh);
  b.edit([](Rig& r) { r.airframe.mass_kg = *r.airframe.mass_kg + 0.2; });
  EXPECT_EQ(status(b, level_told).state, ProofState::stale);
}

TEST(SensesPage, AMassThatDoesNotFitIsSaidAndNothingIsThrownAway) {
  Builder b({}, 0);
  ASSERT_TRUE(b.open("hedgerow", Station::senses));
  ASSERT_TRUE(b.click(u"side_level"_s));
  const double before = *b.window.document().rig().airframe.mass_kg;
  const auto type = [](QWidget& sheet, const char* name, const char* text) {
    auto* line = sheet.findChild<QDoubleSpinBox*>(QLatin1String(name))->findChild<QLineEdit*>();
    line->selectAll();
    line->insert(QLatin1String(text));
  };
  b.in_sheet([&](QWidget& sheet) {
    const auto take = [&] { sheet.findChild<QAbstractButton*>(u"take"_s)->click(); };
    auto* refusal = sheet.findChild<QLabel*>(u"refusal"_s);
    type(sheet, "mass", "0,9");  // grams are asked for
    take();
    EXPECT_TRUE(sheet.isVisible());
    EXPECT_TRUE(refusal->isVisible() && refusal->text().contains(u"0.9"_s)) << refusal->text().toStdString();
    EXPECT_EQ(*b.window.document().rig().airframe.mass_kg, before);
    // Typed again, it is taken at once.
    type(sheet, "mass", "0,9");
    type(sheet, "mass", "1950");
    type(sheet, "incidence", "1,5");
    take();
  });
  ASSERT_TRUE(b.click(u"wing_and_cruise"_s));
  EXPECT_NEAR(*b.window.document().rig().airframe.mass_kg, 1.95, 1e-9);
  EXPECT_NEAR(b.window.document().rig().airframe.incidence_deg, 1.5, 1e-9);
}

TEST(SensesPage, TheSatelliteReceiverOfTheBoardMakesAHome) {
  Builder b({}, 0);
  ASSERT_TRUE(at_senses(b, "hedgerow", false));
  ASSERT_TRUE(b.click(u"side_sky"_s));
  ASSERT_TRUE(b.click(u"sky_begin"_s));
  // On USB alone this board leaves its receiver dark.
  ASSERT_TRUE(b.wait([&] { return b.find<QLabel>(u"sky_remark"_s)->text().contains(u"USB alone"_s); }));
  ASSERT_TRUE(b.click(u"supply_battery"_s));
  const auto& p = page_of(b).procedure<SkyProcedure>(SensesPage::sky);
  ASSERT_TRUE(b.wait([&] { return p.standing().fixes >= 5 && b.can_click(u"sky_enough"_s); }, 40000));
  ASSERT_TRUE(b.click(u"sky_enough"_s));
  ASSERT_TRUE(b.click(u"sky_field"_s));
  EXPECT_NEAR(b.window.document().rig().fit.latitude_deg.value_or(0), 50.4321, 1e-3);
}

TEST(SensesPage, AMotorThatRunsShowsItsShakingAndItsField) {
  Builder b({}, 0);
  ASSERT_TRUE(at_senses(b, "hedgerow", false));
  ASSERT_TRUE(b.click(u"supply_battery"_s));
  ASSERT_TRUE(b.click(u"side_motor"_s));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"motor_run"_s); }));
  ASSERT_TRUE(b.click(u"motor_run"_s));
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
  EXPECT_TRUE(b.find<QLabel>(u"rotation_todo"_s)->text().contains(u"does not show"_s));
  EXPECT_FALSE(b.can_click(u"rotation_begin"_s));
  EXPECT_EQ(find_check(b.window.document().review().checks, rotation_known), nullptr);
}

}  // namespace
}  // namespace rigging::app
