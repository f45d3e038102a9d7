#include "senses/air_procedures.h"

#include <gtest/gtest.h>

#include "base/number.h"
#include "senses/board_in_hand.h"
#include "senses/sentence.h"

namespace rigging {
namespace {

/// One position, `off_m` north of the same place.
std::string fix(int second, double off_m, int satellites, double hdop) {
  const std::string north = std::to_string(92600 + static_cast<int>(off_m / 1852 * 1e5));
  const auto two = [](int n) { return (n < 10 ? "0" : "") + std::to_string(n); };
  return sentence("GNGGA,1200" + two(second % 60) + ".00,5025." + north + ",N,00807.40000,E,1," + two(satellites) +
                  "," + number_text(hdop, 1) + ",230.0,M,47.0,M,,");
}

TEST(SkyProcedure, AStandingReceiverEndsByItselfAndSaysWhereItFlies) {
  Held<SkyProcedure> h;
  h.press("sky_begin");
  for (int i = 0; i < 200 && h.procedure.running(); ++i, h.t += 1) {
    h.tell(Time{h.t});
    h.tell(MotionHeard{{}, {}, fix(i, h.hands.normal(0.8), 12, 0.9)});
  }
  EXPECT_FALSE(h.procedure.running());
  EXPECT_EQ(h.procedure.standing().verdict, Verdict::good) << h.procedure.standing().why;
  const Card card = h.procedure.card(h.scene());
  EXPECT_TRUE(card.action("record_fix"));
  ASSERT_TRUE(card.action("sky_field"));
  h.press("sky_field");
  EXPECT_NEAR(h.rig.fit.latitude_deg.value_or(0), 50 + 25.926 / 60, 1e-4);
  EXPECT_NEAR(h.rig.fit.longitude_deg.value_or(0), 8 + 7.4 / 60, 1e-5);
  EXPECT_NEAR(h.rig.fit.altitude_km, 0.23, 1e-9);
}

TEST(SkyProcedure, NothingGarbageAndNoFixAreToldApart) {
  Held<SkyProcedure> h;
  h.press("sky_begin");
  h.tell(Time{4});
  EXPECT_TRUE(says(h.procedure.card(h.scene()), "crossed"));
  std::string garbage;
  for (int i = 0; i < 400; ++i) garbage.push_back(static_cast<char>(0x80 + i % 100));
  h.tell(MotionHeard{{}, {}, garbage});
  EXPECT_TRUE(says(h.procedure.card(h.scene()), "baud")) << h.procedure.card(h.scene()).remark;
  h.press("sky_begin");
  for (int i = 0; i < 10; ++i) h.tell(MotionHeard{{}, {}, sentence("GNGGA,120000.00,,,,,0,00,99.9,,M,,M,,")});
  EXPECT_TRUE(says(h.procedure.card(h.scene()), "No fix yet"));
  EXPECT_FALSE(h.procedure.card(h.scene()).action("sky_enough")->enabled);
}

TEST(SkyProcedure, AFewSatellitesAreNoGoodHome) {
  Held<SkyProcedure> h;
  h.press("sky_begin");
  for (int i = 0; i < 120; ++i) h.tell(MotionHeard{{}, {}, fix(i, h.hands.normal(12), 5, 3.8)});
  EXPECT_TRUE(h.procedure.running());
  h.press("sky_enough");
  EXPECT_FALSE(h.procedure.card(h.scene()).action("record_fix"));
  EXPECT_TRUE(says(h.procedure.card(h.scene()), "Not yet"));
}

TEST(AirProcedure, CoverPushLetGo) {
  Held<AirProcedure> h;
  add_part(h.rig, "pitot", "airspeed_sensor");
  h.press("air_begin");
  std::vector<std::string> asked;
  for (int i = 0; i < 230 && h.procedure.running(); ++i, h.t += 0.1) {
    const std::string todo = h.procedure.card(h.scene()).todo;
    if (asked.empty() || asked.back() != todo) asked.push_back(todo);
    const double push = h.t > 6 && h.t < 17 ? 380 : 0;
    SlowReading s;
    s.t_s = h.t;
    s.pressure_pa = 98600 + h.hands.normal(2);
    s.pitot_pa = 1 + push + h.hands.normal(0.5);
    h.tell(MotionHeard{{}, {s}, {}});
  }
  ASSERT_GE(asked.size(), 3u);
  EXPECT_NE(asked[asked.size() - 2].find("push"), std::string::npos);
  EXPECT_NE(asked.back().find("Let go"), std::string::npos);
  const Card card = h.procedure.card(h.scene());
  EXPECT_EQ(card.says, "Sound.");
  EXPECT_TRUE(says(card, "The hoses are right"));
}

TEST(MotorProcedure, ShakingAndTheMotorsFieldAreFoundAndTakenOff) {
  Held<MotorProcedure> h;
  h.press("motor_begin");
  for (int i = 0; i < 2300 && h.procedure.running(); ++i, h.t += 0.01) {
    const double amps = 0.5 + 1.5 * std::floor(h.t / 4.5);
    SlowReading s;
    s.t_s = h.t;
    s.current_a = amps;
    MotionSample m = sample(h.t, Point(0, 0, -9.8) + h.hands.vector(0.3), {0, 0, 0});
    m.force_m_s2.y() += 2 * std::sin(2 * pi * 31 * h.t);
    m.field_ut = Point(20, 0, 43) + amps * Point(0.05, 0, 0.02) + h.hands.vector(0.3);
    h.tell(MotionHeard{{m}, {s}, {}});
  }
  ASSERT_TRUE(h.procedure.vibration() && h.procedure.interference());
  ASSERT_FALSE(h.procedure.vibration()->peaks.empty());
  EXPECT_NEAR(h.procedure.vibration()->peaks[0].hz, 31, 1);
  EXPECT_NEAR(h.procedure.interference()->per_a.x(), 0.05, 0.02);
  EXPECT_TRUE(h.procedure.interference()->estimate);
  ASSERT_TRUE(h.procedure.card(h.scene()).action("motor_take_off"));
  h.press("motor_take_off");
  ASSERT_TRUE(h.rig.sensing.motor_field);
  EXPECT_NEAR(h.rig.sensing.motor_field->x_ut_per_a, 0.05, 0.02);
}

TEST(CompassProcedure, AnArrowThatIsNotAsPlannedIsFoundByTheSameTurning) {
  Held<CompassProcedure> h;
  const Turn really = *turn_from_name("arrow_tail_top_up");
  h.rig.mounting("gps")->turn = TurnName(Turn{});
  h.rig.fit.latitude_deg = 50.4;
  h.rig.fit.longitude_deg = 8.1;
  const double dip = 66 * rad;
  const Point earth = 48.6 * Point(std::cos(dip), 0, std::sin(dip));
  h.press("compass_begin");
  const Eigen::Matrix3d board = alignment_matrix(h.rig.mounting("controller")->turn);
  for (int i = 0; i < 5000 && h.procedure.running(); ++i, h.t += 0.02) {
    const Eigen::Matrix3d attitude = about(h.hands.direction(), h.hands.between(-180, 180));
    MotionSample m = sample(h.t, board.transpose() * (attitude.transpose() * Point(0, 0, -9.80665)), {30, 30, 0});
    m.field_ut =
        alignment_matrix(really).transpose() * (attitude.transpose() * earth) + Point(8, -4, 3) + h.hands.vector(0.3);
    h.tell(MotionHeard{{m}});
  }
  ASSERT_FALSE(h.procedure.running());
  ASSERT_TRUE(h.procedure.sits() && h.procedure.sits()->turn)
      << (h.procedure.sits() ? h.procedure.sits()->why : "not found");
  EXPECT_EQ(h.procedure.sits()->turn->name(), really.name());
  const Card card = h.procedure.card(h.scene());
  EXPECT_TRUE(says(card, "flies in circles"));
  EXPECT_TRUE(says(card, "declination"));
  EXPECT_TRUE(says(card, "It should dip by"));
  ASSERT_TRUE(card.action("compass_turn"));
  h.press("compass_turn");
  EXPECT_EQ(h.rig.mounting("gps")->turn.name(), really.name());
  EXPECT_TRUE(says(h.procedure.card(h.scene()), "as the rig has it"));
}

}  // namespace
}  // namespace rigging
