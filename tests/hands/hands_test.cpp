#include "hands/hands.h"

#include <gtest/gtest.h>

#include "base/json.h"

namespace rigging::hands {
namespace {

/// One of each kind, with values that a reader that skips a member would lose.
std::vector<Request> one_of_each() {
  Channel c;
  c.number = 3;
  c.reversed = true;
  c.sub_trim_us = -12.5;
  c.travel_low_percent = 91;
  c.travel_high_percent = 108;
  Output o;
  o.id = "out_2";
  o.reversed = true;
  o.low_us = 1020;
  o.centre_us = 1490;
  o.high_us = 1985;
  FlightPlan plan;
  plan.mode = Mode::level;
  plan.seconds = 12.5;
  plan.m_s = 14;
  plan.height_m = 60;
  plan.nose_down_deg = 20;
  plan.wind_m_s = 5.5;
  plan.seed = 77;
  plan.pilot = false;
  plan.thrown = true;
  plan.throw_m_s = 8;
  plan.sticks = tug_at(Axis::yaw);
  const Surface rudder = *surface_from_name("rudder");
  return {Supply{true, false},
          Stick{Axis::pitch, -0.4},
          Stick{std::nullopt, 0.8},
          Hold{12, -30, 170},
          Flick{Axis::yaw, -1},
          ChooseMode{Mode::level},
          SwitchTransmitter{false},
          TurnControl{5, 0.25},
          PressButton{},
          ReadTransmitter{},
          Dial{c},
          Clevis{rudder, -1.5},
          Tooth{rudder, 2},
          SetOutput{o},
          Inspect{"gps"},
          Mend{"gps"},
          Work{Remedy::swap_leads, {"out_1", "out_2"}, {}, {}},
          Work{Remedy::swap_transmitter, {}, {Axis::roll, Axis::yaw}, {}},
          Work{Remedy::flip_mix, {"out_3"}, {Axis::yaw}, {}},
          Work{Remedy::move_linkage, {}, {}, rudder},
          PushTube{400},
          PassTime{0.25},
          TurnGain{{Axis::pitch, 0.25, 0.5, {}}},
          Fly{plan},
          ReadFlight{24576},
          Look{}};
}

TEST(Hands, EveryRequestSurvivesTheWire) {
  std::set<std::size_t> kinds;
  for (const Request& r : one_of_each()) {
    kinds.insert(r.index());
    const auto again = request_of(request_name(r), Json::parse(body_of(r).dump()));
    ASSERT_TRUE(again) << again.error().text();
    EXPECT_EQ(again->index(), r.index()) << request_name(r);
    EXPECT_EQ(body_of(*again), body_of(r)) << request_name(r);
  }
  EXPECT_EQ(kinds.size(), std::variant_size_v<Request>) << "one of each kind";
}

TEST(Hands, WhatMeansNothingIsRefusedAndNumbersAreBroughtIntoRange) {
  for (const auto& [name, body] : {std::pair{"dance", Json::object()},
                                   {"stick", Json{{"axis", "collective"}, {"position", 1}}},
                                   {"flick", Json::object()},
                                   {"mode", Json{{"mode", "sideways"}}},
                                   {"clevis", Json{{"turns", 1}}},
                                   {"work", Json{{"work", "pray"}}}})
    EXPECT_FALSE(request_of(name, body)) << name;
  const auto stick = request_of("stick", {{"axis", "roll"}, {"position", 7}});
  EXPECT_EQ(std::get<Stick>(*stick).position, 1);
  const auto silent = request_of("hold", {{"roll_deg", "much"}, {"yaw_deg", -1e300}});
  EXPECT_EQ(std::get<Hold>(*silent).roll_deg, 0);
  EXPECT_EQ(std::get<Hold>(*silent).yaw_deg, -180);
}

TEST(Hands, AFlightThatIsAskedForIsTheOneThatIsFlown) {
  FlightPlan plan;
  plan.seed = 4000000000u;
  plan.sticks = tug_at(Axis::roll);
  plan.pilot = false;
  const auto again = request_of("fly", Json::parse(body_of(Fly{plan}).dump()));
  ASSERT_TRUE(again);
  const FlightPlan& read = std::get<Fly>(*again).plan;
  EXPECT_EQ(read.seed, plan.seed);
  EXPECT_EQ(read.sticks, plan.sticks);
  EXPECT_FALSE(read.pilot);
  const auto wild = request_of(
      "fly", {{"mode", "rate"}, {"seconds", 1e9}, {"wind_m_s", -4}, {"sticks", {1, "x", nullptr, Json::object()}}});
  ASSERT_TRUE(wild);
  EXPECT_EQ(std::get<Fly>(*wild).plan.seconds, 120);
  EXPECT_EQ(std::get<Fly>(*wild).plan.wind_m_s, 0);
  EXPECT_FALSE(request_of("fly", {{"mode", "sideways"}}));
  const FlightPiece piece{7, 1000, "1,2\n"};
  const FlightPiece back = piece_of(to_json(piece));
  EXPECT_EQ(back.from, 7u);
  EXPECT_EQ(back.size, 1000u);
  EXPECT_EQ(back.text, "1,2\n");
}

TEST(Hands, SightAndScreenSurviveTheWire) {
  Sight s;
  s.deflections = {{*surface_from_name("rudder"), -3.5}, {*surface_from_name("elevator"), 12}};
  s.pitch_deg = -4;
  s.lamp = "slow";
  s.servos_powered = s.battery = true;
  s.destroyed = {"gps"};
  const Sight again = sight_of(to_json(s));
  EXPECT_EQ(again.deflections, s.deflections);
  EXPECT_EQ(again.pitch_deg, -4);
  EXPECT_EQ(again.lamp, "slow");
  EXPECT_TRUE(again.servos_powered && again.battery && !again.usb);
  EXPECT_EQ(again.destroyed, s.destroyed);
  Channel c;
  c.number = 2;
  c.sub_trim_us = 7;
  Channel beyond = c;
  beyond.number = 0;
  const auto settings = settings_of(to_json(std::vector<Channel>{c, beyond}));
  ASSERT_EQ(settings.size(), 1u) << "no channel has the number 0";
  EXPECT_EQ(settings[0].sub_trim_us, 7);
}

}  // namespace
}  // namespace rigging::hands
