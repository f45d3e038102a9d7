#include "senses/sense_checks.h"

#include <gtest/gtest.h>

#include "bench_rig.h"
#include "senses/recording.h"

namespace rigging {
namespace {

using Change = void (*)(Rig&);

/// Every check of this station, what of the rig it rests on, and what it does not.
struct Rests {
  CheckId check;
  std::vector<Change> on, not_on;
};

void turn_board(Rig& r) { r.mounting("controller")->turn = TurnName(*turn_from_name("arrow_tail_top_up")); }
void move_board(Rig& r) { r.mounting("controller")->x_m += 0.05; }
void other_class(Rig& r) { r.controller.kind = "large_controller"; }
void firmware(Rig& r) { r.controller.firmware = "99"; }
void move_gps(Rig& r) { r.mounting("gps")->x_m += 0.05; }
void turn_gps(Rig& r) { r.mounting("gps")->turn = TurnName(*turn_from_name("arrow_tail_top_up")); }
void leads_apart(Rig& r) { r.lead("esc_battery")->apart = !r.lead("esc_battery")->apart; }
void mass(Rig& r) { r.airframe.mass_kg = *r.airframe.mass_kg * 1.2; }
void level(Rig& r) { r.sensing.level_nose_up_deg = 4; }
void gain(Rig& r) { r.outputs[0].mix.roll *= 0.9; }
void accelerometer(Rig& r) { r.sensing.accelerometer->offset_x += 0.1; }
void compass(Rig& r) { r.sensing.compass->offset_x += 1; }
void gps_baud(Rig& r) {
  for (Part& p : r.parts)
    if (p.id == "gps") p.baud = 9600;
}

TEST(SenseChecks, AreStaleWhenAndOnlyWhenWhatTheyRestOnChanged) {
  const Rig rig = measured(demo("hedgerow"));
  const std::vector<Rests> all{
      {gyro_still, {other_class, firmware}, {turn_board, move_board, move_gps, leads_apart, mass, level, gain}},
      {rotation_known, {other_class, turn_board}, {move_board, move_gps, leads_apart, mass, level, gain, firmware}},
      {accelerometer_calibrated, {other_class, accelerometer}, {turn_board, move_board, move_gps, mass, gain, compass}},
      {level_told, {turn_board, mass, level}, {move_board, move_gps, leads_apart, gain, compass, firmware}},
      {compass_calibrated, {move_gps, turn_gps, leads_apart, compass}, {move_board, turn_board, mass, gain, level}},
      {fix_seen, {move_gps, gps_baud}, {move_board, turn_board, leads_apart, mass, gain, level, compass}}};
  for (const Rests& r : all) {
    ASSERT_TRUE(status_of(rig, r.check).stands()) << r.check.text();
    for (std::size_t i = 0; i < r.on.size(); ++i) {
      Rig changed = rig;
      r.on[i](changed);
      const auto checks = check_statuses(changed, shipped());
      const CheckStatus* s = find_check(checks, r.check);
      EXPECT_TRUE(!s || s->state == ProofState::stale) << r.check.text() << ", change " << i;
    }
    for (std::size_t i = 0; i < r.not_on.size(); ++i) {
      Rig changed = rig;
      r.not_on[i](changed);
      EXPECT_TRUE(status_of(changed, r.check).stands())
          << r.check.text() << ", other change " << i << ": " << status_of(changed, r.check).because();
    }
  }
}

TEST(SenseChecks, AClassWithoutReadingsHasCardsWithItsLamp) {
  for (const ControllerClass& c : shipped().controllers) {
    Rig rig = demo("hedgerow");
    rig.controller.kind = c.id;
    const auto checks = check_statuses(rig, shipped());
    EXPECT_EQ(find_check(checks, gyro_still) != nullptr, c.senses.shows_motion) << c.id;
    EXPECT_EQ(find_check(checks, wakes_still) != nullptr,
              !c.senses.shows_motion && c.senses.power_up != PowerUp::anyhow)
        << c.id;
    EXPECT_EQ(find_check(checks, level_stored) != nullptr,
              !c.senses.shows_motion && c.mode(Mode::level) && c.senses.stores_level)
        << c.id;
    if (!find_check(checks, wakes_still)) continue;
    const CheckCard card = card_of({rig, shipped()}, wakes_still);
    if (const Lamp* lamp = c.lamp(LampTells::fault))
      EXPECT_NE(card.expected.find(lamp->sign), std::string::npos) << c.id;
    if (const Lamp* lamp = c.lamp(LampTells::ready))
      EXPECT_NE(card.expected.find(lamp->sign), std::string::npos) << c.id;
    EXPECT_EQ(card.todo.find("flies level") != std::string::npos, c.senses.power_up == PowerUp::still_and_level)
        << c.id;
    if (!find_check(checks, level_stored)) continue;
    EXPECT_NE(card_of({rig, shipped()}, level_stored).todo.find(c.with_leaflet(c.senses.level)), std::string::npos)
        << c.id;
  }
}

TEST(BoardLog, IsReadWithAndWithoutFieldAndCurrent) {
  const auto plain = parse_board_log("t_s,ax,ay,az\n0,0,0,-9.8\n0.01,0,0,-9.7\n", "log");
  ASSERT_TRUE(plain);
  EXPECT_EQ(plain->samples.size(), 2u);
  EXPECT_FALSE(plain->samples[0].field_ut);
  EXPECT_TRUE(plain->slow.empty());
  const auto whole = parse_board_log("t_s,ax,ay,az,mx,my,mz,current_a\n0,0,0,-9.8,20,1,43,3.5\n", "log");
  ASSERT_TRUE(whole);
  EXPECT_EQ(*whole->slow[0].current_a, 3.5);
  EXPECT_EQ(whole->samples[0].field_ut->z(), 43);
  EXPECT_FALSE(parse_board_log("t_s,ax,ay,az,mx\n0,0,0,-9.8,20\n", "log")) << "half a field";
  EXPECT_FALSE(parse_board_log("t_s,ax\n0,0\n", "log"));
}

}  // namespace
}  // namespace rigging
