#include <gtest/gtest.h>

#include "airframe/kinds.h"
#include "base/find.h"
#include "bench_rig.h"
#include "fit/edits.h"
#include "review/review.h"
#include "wiring/plan.h"

namespace rigging {
namespace {

const ToGet* to_get(const FitReport& fit, const char* words) {
  return find_in(fit.to_get, [&](const ToGet& t) { return t.what.find(words) != std::string::npos; });
}

FitReport fit_of(const Rig& rig) { return review(rig, shipped()).reports.fit(); }

TEST(Holding, AHolderAndAPlateWeighWhatTheirMeasuresSay) {
  Rig rig = demo("hedgerow");
  const auto mass = [&] { return fit_of(rig).balance.total.value; };
  const double tape = mass();
  Mounting* board = rig.mounting("controller");
  board->fixing = Fixing::holder;
  const ControllerClass& c = *shipped().controller("full_controller");
  // By hand: (L·W + 2·(L + W)·0.6·H) · 1.2 mm · 1240 kg/m³.
  const double l = c.length_mm / 1000, w = c.width_mm / 1000, h = c.height_mm / 1000;
  EXPECT_NEAR(mass() - tape, (l * w + 2 * (l + w) * 0.6 * h) * 0.0012 * 1240, 1e-6);
  board->fixing = Fixing::plate;
  EXPECT_NEAR(mass() - tape, l * w * 0.0015 * 680 + 0.002, 1e-6);
}

TEST(Holding, AnotherFixingHasToBeLookedAtAgain) {
  Rig rig = demo("hedgerow");
  Mounting board = *rig.mounting("controller");
  board.fixing = Fixing::plate;
  const auto edit = put_part(rig, shipped(), board);
  ASSERT_TRUE(edit);
  EXPECT_EQ(edit->label, "controller: held by plate");
  const auto& ticks = edit->rig.fit.confirmed;
  EXPECT_EQ(std::find(ticks.begin(), ticks.end(), "firm_base"), ticks.end());
  const auto all = confirmations(edit->rig, shipped());
  EXPECT_NE(find_in(all, [](const Confirmation& c) { return c.word == "firm_base"; })->text.find("screwed"),
            std::string::npos);
  EXPECT_TRUE(find_in(all, [](const Confirmation& c) { return c.word == "battery_plug"; }));
}

TEST(Holding, ASecondBayIsARoomOfItsOwn) {
  Rig rig = demo("hedgerow");
  // Under the wing: its middle 6 cm below the fuselage's.
  rig.fit.second_bay = Bay{0.30, 0.10, 0.05, 0.03, 0.06, 0, {}};
  Mounting* video = rig.mounting("video");
  video->x_m = -0.35;
  video->y_m = 0;
  video->z_m = 0.06;
  const auto out = [&] {
    for (const Clash& c : find_clashes(rig, shipped()))
      if (c.part == "video" && c.words.find("second bay") != std::string::npos) return c.words;
    return std::string();
  };
  EXPECT_EQ(out(), "");
  video->y_m = 0.02;
  EXPECT_NE(out().find("sticks out of the second bay"), std::string::npos);
}

TEST(ToGet, KnowsGenderAdaptersAndWhatAPartBringsItself) {
  Rig rig = demo("hedgerow");
  FitReport fit = fit_of(rig);
  const ToGet* receiver = to_get(fit, "Plug-to-plug");
  ASSERT_TRUE(receiver) << "receiver to board: sockets at both ends";
  EXPECT_NE(receiver->what.find("sleeves at both ends"), std::string::npos);
  EXPECT_FALSE(to_get(fit, "Adapter"));
  rig.part("battery")->plug = "plug_two_pin_90";
  fit = fit_of(rig);
  const ToGet* adapter = to_get(fit, "Adapter: pins of “two-pin plug, 90 A”");
  ASSERT_TRUE(adapter);
  EXPECT_NE(adapter->what.find("sleeves of “two-pin plug, 60 A” toward the module"), std::string::npos)
      << adapter->what;
  // A servo near by needs nothing, one far out an extension of the rest.
  for (Lead& l : rig.leads)
    if (l.id == "servo_flaperon_left")
      l.length_m = 0.2;
    else if (l.id == "servo_flaperon_right")
      l.length_m = 0.5;
  fit = fit_of(rig);
  const auto for_servo = [&](const char* side) {
    return find_in(fit.to_get, [&](const ToGet& t) { return t.why.find(side) != std::string::npos; });
  };
  EXPECT_FALSE(for_servo("left flaperon")) << for_servo("left flaperon")->what;
  ASSERT_TRUE(for_servo("right flaperon"));
  EXPECT_EQ(for_servo("right flaperon")->what, "Servo extension, 300 mm: pins at one end, sleeves at the other");
}

TEST(SecondBattery, FeedsTheRegulatorAndNotTheMotor) {
  Rig rig = fresh_rig("two batteries", AirframeKind::flying_wing, "full_controller");
  add_part(rig, "small", "battery_2s_850");  // the order in which they were listed does not matter
  add_part(rig, "drive", "battery_4s_2200");
  add_part(rig, "regulator", "regulator_5v_3a");
  add_part(rig, "esc", "esc_30_plain");
  add_part(rig, "motor", "motor_2212");
  const Plan plan = plan_wiring(rig, shipped());
  const auto joined = [&](const char* a, const char* b) {
    return std::any_of(plan.rig.leads.begin(), plan.rig.leads.end(),
                       [&](const Lead& l) { return far_end(l, a) && far_end(l, a)->part == b; });
  };
  EXPECT_TRUE(joined("regulator", "small"));
  EXPECT_FALSE(joined("regulator", "drive"));
  EXPECT_TRUE(joined("esc", "drive"));
  const PowerReport power = review(plan.rig, shipped()).reports.power();
  EXPECT_EQ(power.battery, "drive");
  ASSERT_TRUE(power.source("small") && power.source("drive"));
  EXPECT_LT(power.source("small")->worst_a(), 2) << "the motor draws nothing from it";
}

TEST(LowVoltage, A33VoltPartGoesToItsOwnPadOrIsSaid) {
  Rig rig = fresh_rig("3.3 V", AirframeKind::flying_wing, "small_controller");
  add_part(rig, "battery", "battery_3s_1300");
  add_part(rig, "compass", "compass_3v3");
  add_part(rig, "camera", "camera_small");
  const Plan small = plan_wiring(rig, shipped());
  const auto on = [](const Plan& p, const char* part) {
    for (const Lead& l : p.rig.leads)
      if (const LeadEnd* far = far_end(l, part, "power")) return far->socket;
    return std::string();
  };
  EXPECT_EQ(on(small, "compass"), "three_1");
  EXPECT_NE(on(small, "camera"), "three_1") << "five volts for what needs five";
  rig.controller.kind = "full_controller";
  const Plan middle = plan_wiring(rig, shipped());
  for (const Obstacle& o : middle.obstacles) {
    if (o.subject != "compass") continue;
    EXPECT_EQ(o.what.find("Regulator, 5 V"), std::string::npos) << "five volts destroy it: " << o.what;
  }
  EXPECT_EQ(on(middle, "compass"), "");
  EXPECT_TRUE(
      find_in(middle.obstacles, [](const Obstacle& o) { return o.subject == "compass" && o.code == "POWER-13"; }));
}

}  // namespace
}  // namespace rigging
