#include <gtest/gtest.h>

#include "airframe/kinds.h"
#include "breaks.h"

// Most of these rules are common practice, so that there is no source to check them against.
namespace rigging {
namespace {

using F = ChannelFunction;

const Break breaks[] = {
    {"sticks read and landing", "hedgerow", [](Rig& r) { read_sticks(r); }, {}},
    {"transmitter mixes", "hedgerow", [](Rig& r) { r.radio.transmitter.mixes = true; }, {"STICKS-03"}},
    {"inline units may have it", "heath", [](Rig& r) { r.radio.transmitter.mixes = true; }, {}},
    {"much sub-trim", "hedgerow", [](Rig& r) { r.channel(F::roll)->sub_trim_us = 80; }, {"STICKS-04"}},
    {"inline sub-trim",
     "heath",
     [](Rig& r) {
       if (Channel* c = r.channel(F::pitch)) c->sub_trim_us = 80;
     },
     {}},
    {"an end too short",
     "hedgerow",
     [](Rig& r) {
       read_sticks(r);
       r.channel(F::roll)->high_us = 1900;
     },
     {"STICKS-05"}},
    {"a few microseconds are nothing",
     "hedgerow",
     [](Rig& r) {
       read_sticks(r);
       r.channel(F::roll)->high_us = 1993;
     },
     {}},
    {"learned ends",
     "hedgerow",
     [](Rig& r) {
       read_sticks(r, 1050, 1500, 1950);
       for (Channel& c : r.radio.channels) c.learned = true;
     },
     {}},
    {"a gain need not land",
     "hedgerow",
     [](Rig& r) {
       Channel c;
       c.number = 6;
       c.function = F::gain;
       c.low_us = 1200;
       c.centre_us = 1400;
       c.high_us = 1600;
       r.radio.channels.push_back(c);
     },
     {}},
    {"reads the wrong way",
     "hedgerow",
     [](Rig& r) {
       read_sticks(r);
       r.channel(F::yaw)->inverted = true;
     },
     {"STICKS-06"}},
    {"throttle the wrong way",
     "hedgerow",
     [](Rig& r) {
       read_sticks(r);
       r.channel(F::throttle)->inverted = true;
     },
     {"STICKS-06"}},
    {"travel at its limit",
     "hedgerow",
     [](Rig& r) {
       read_sticks(r);
       r.channel(F::roll)->low_us = 1400;
       r.channel(F::roll)->travel_low_percent = 100;
     },
     {"STICKS-05", "STICKS-07"}},
    {"gesture without ends",
     "hedgerow",
     [](Rig& r) {
       r.controller.kind = "fixed_mini";
       r.parts.clear();
       r.leads.clear();
       r.mountings.clear();
       r.outputs.pop_back();
       read_sticks(r, 1020, 1500, 1980);
     },
     {"STICKS-05", "STICKS-06", "STICKS-08", "STICKS-08", "STICKS-08", "STICKS-08", "STICKS-19"}},
    {"a position on a boundary",
     "hedgerow",
     [](Rig& r) {
       r.channel(F::mode)->positions_us = {1010, 1310, 1990};
     },
     {"STICKS-09"}},
    {"no manual",
     "hedgerow",
     [](Rig& r) {
       for (ModeChoice& m : r.modes)
         if (m.mode == "manual") m.mode = "level";
     },
     {"STICKS-10"}},
    {"manual amid a rotary control",
     "hedgerow",
     [](Rig& r) {
       r.channel(F::mode)->control = Control::rotary;
       std::swap(r.modes[0].mode, r.modes[1].mode);
     },
     {"STICKS-10"}},
    {"the receiver holds", "hedgerow", [](Rig& r) { r.radio.on_loss = OnLoss::hold; }, {"STICKS-11"}},
    {"a preset hides it, too", "hedgerow", [](Rig& r) { r.radio.on_loss = OnLoss::preset; }, {"STICKS-11"}},
    {"a flag is noticed", "hedgerow", [](Rig& r) { r.radio.on_loss = OnLoss::flag; }, {}},
    {"too few channels", "hedgerow", [](Rig& r) { r.radio.transmitter.channels = 4; }, {"STICKS-12"}},
    {"low rates", "hedgerow", [](Rig& r) { r.channel(F::roll)->rate_percent = 60; }, {"STICKS-13"}},
    {"gestures on", "hedgerow", [](Rig& r) { r.radio.transmitter.gestures_change_settings = true; }, {"STICKS-14"}},
    {"one memory for two", "hedgerow", [](Rig& r) { r.radio.transmitter.also_serves = {"Delta"}; }, {"STICKS-15"}},
    {"armed from the start",
     "hedgerow",
     [](Rig& r) {
       Channel c;
       c.number = 7;
       c.function = F::arm;
       c.fixed_us = 2000;
       r.radio.channels.push_back(c);
     },
     {"STICKS-16"}},
    {"closed is not low",
     "hedgerow",
     [](Rig& r) {
       read_sticks(r);
       r.channel(F::throttle)->low_us = 1100;
     },
     {"STICKS-05", "STICKS-16"}},
    {"two channels for roll",
     "hedgerow",
     [](Rig& r) {
       Channel c;
       c.number = 8;
       c.function = F::roll;
       r.radio.channels.push_back(c);
     },
     {"STICKS-17"}},
    {"jitter and wear",
     "hedgerow",
     [](Rig& r) {
       r.channel(F::roll)->noise_us = 6;
       r.channel(F::pitch)->centre_spread_us = 12;
     },
     {"STICKS-18", "STICKS-18"}},
    {"a rod that binds", "hedgerow", [](Rig& r) { r.linkages[0].servo_travel_deg = 100; }, {"SURFACES-11"}},
    {"a rod that is no rod", "hedgerow", [](Rig& r) { r.linkages[0].base_m = 0.5; }, {"SURFACES-11"}},
    {"unequal throws",
     "hedgerow",
     [](Rig& r) {
       read_surface(r, "flaperon_left", -20, 0, 20);
       read_surface(r, "flaperon_right", 25, 0, -20);
     },
     {"SURFACES-12"}},
    {"not flush", "hedgerow", [](Rig& r) { read_surface(r, "flaperon_left", -20, 2, 20); }, {"SURFACES-13"}},
    {"too fast for the servo",
     "hedgerow",
     [](Rig& r) { r.airframe.fast_m_s = 60; },
     {"SURFACES-14", "SURFACES-14", "SURFACES-14", "SURFACES-14"}},
    {"play", "hedgerow", [](Rig& r) { r.linkages[1].play_m = 0.002; }, {"SURFACES-15"}},
    {"ends that the class can't set", "delta", [](Rig& r) { r.outputs[0].high_us = 1900; }, {"SURFACES-18"}},
    {"a centre that the class sets", "delta", [](Rig& r) { r.outputs[0].centre_us = 1520; }, {}},
    {"ends and a centre beyond the plain ones",
     "delta",
     [](Rig& r) {
       r.outputs[0].centre_us = 2050;
       r.outputs[0].high_us = 2100;
     },
     {"SURFACES-18"}},
    {"no centre on an inline unit",
     "heath",
     [](Rig& r) {
       r.outputs[0].centre_us = 1520;
       r.outputs[0].low_us = 1100;
     },
     {"SURFACES-18"}},
    {"one side that flaps lift", "hedgerow", [](Rig& r) { r.outputs[1].mix.flap *= -1; }, {"SURFACES-19"}},
    {"ends beyond the servo", "hedgerow", [](Rig& r) { r.outputs[0].high_us = 2200; }, {"SURFACES-16"}},
};

class BreakSticksOrSurfaces : public ::testing::TestWithParam<Break> {};
TEST_P(BreakSticksOrSurfaces, GetsExactlyTheSnagsItDeserves) {
  Rig rig = good(GetParam().of);
  GetParam().damage(rig);
  Set found;
  for (const std::string& code : codes(rig))
    if (code.starts_with("STICKS") || code.starts_with("SURFACES-1")) found.insert(code);
  EXPECT_EQ(found, GetParam().deserved);
}
INSTANTIATE_TEST_SUITE_P(Ways, BreakSticksOrSurfaces, ::testing::ValuesIn(breaks), [](const auto& i) {
  std::string name;
  for (const char c : std::string(i.param.name)) name += std::isalnum(static_cast<unsigned char>(c)) ? c : '_';
  return name;
});

// Common practice: a board that mixes only what its variant is made for, and one that listens on fixed channels.
TEST(ClassRules, ABoardIsMadeForItsOwnSurfacesAndChannels) {
  const auto found = [](const Rig& rig) {
    Set codes;
    const Review r = review(rig, shipped());
    for (const Snag& s : r.snags)
      if (s.code == "SURFACES-21" || s.code == "STICKS-19" || s.code == "WIRING-34") codes.insert(s.code);
    return codes;
  };
  EXPECT_EQ(found(fresh_rig("mine", AirframeKind::flying_wing, "fixed_wing")), Set{"STICKS-19"})
      << "nothing unlocks the motor yet";
  EXPECT_EQ(found(fresh_rig("mine", AirframeKind::flying_wing, "fixed_mini")).count("SURFACES-21"), 1u);
  EXPECT_EQ(found(fresh_rig("mine", AirframeKind::two_ailerons, "fixed_wing")).count("SURFACES-21"), 3u)
      << "ailerons, elevator and rudder";
  Rig v = fresh_rig("mine", AirframeKind::two_ailerons, "gesture_board");
  v.outputs = default_outputs(AirframeKind::two_ailerons);
  for (Output& o : v.outputs)
    o.socket = o.surfaces.empty()                        ? "slot_1"
               : o.surfaces[0].name() == "aileron_left"  ? "slot_2"
               : o.surfaces[0].name() == "aileron_right" ? "slot_3"
               : o.surfaces[0].name() == "elevator"      ? "slot_5"
                                                         : "slot_4";
  EXPECT_EQ(found(v), (Set{"WIRING-34", "WIRING-34"})) << "elevator and rudder are exchanged";
  Rig fixed = fresh_rig("mine", AirframeKind::flying_wing, "fixed_wing");
  fixed.radio.channels.clear();
  for (const auto& [number, function] : {std::pair{5, ChannelFunction::gain}, {6, ChannelFunction::mode}}) {
    Channel c;
    c.number = number;
    c.function = function;
    fixed.radio.channels.push_back(c);
  }
  EXPECT_EQ(found(fixed), (Set{"STICKS-19", "STICKS-19"}));
  for (int round = 0; round < 2; ++round) {
    const Review r = review(fixed, shipped());
    for (const Snag& s : r.snags)
      if (s.code == "STICKS-19") {
        fixed = fixed_by(*s.fix, fixed);
        break;
      }
  }
  EXPECT_EQ(found(fixed), Set{});
  EXPECT_EQ(fixed.channel(ChannelFunction::mode)->number, 5);
  EXPECT_EQ(fixed.channel(ChannelFunction::gain)->number, 6) << "what stood there changes places";
  EXPECT_EQ(fixed.channel(ChannelFunction::arm)->number, 7);
}

TEST(SticksRules, FixesTakeTheirSnagAway) {
  int fixed = 0;
  std::set<std::string> repaired;
  for (const Break& b : breaks) {
    Rig rig = good(b.of);
    b.damage(rig);
    for (const Snag& s : review(rig, shipped()).snags) {
      if (!s.fix || (s.station != Station::sticks && !s.code.starts_with("SURFACES-1"))) continue;
      const Rig mended = fixed_by(*s.fix, rig);
      const Set before = codes(rig), after = codes(mended);
      for (const Output& o : mended.outputs) EXPECT_TRUE(o.low_us < o.centre_us && o.centre_us < o.high_us) << b.name;
      EXPECT_LT(after.count(s.code), before.count(s.code)) << b.name;
      repaired.insert(s.code);
      ++fixed;
    }
  }
  EXPECT_GE(fixed, 3);
  EXPECT_TRUE(repaired.count("SURFACES-18"));
}

TEST(SticksRules, AReadingThatAgesIsAnOpenMatter) {
  Rig rig = good("hedgerow");
  read_sticks(rig);
  rig = proven(rig, sticks_calibrated);
  rig = proven(rig, loss_noticed);
  const auto stale = [](const Rig& r) {
    const Review all = review(r, shipped());
    return std::count_if(all.snags.begin(), all.snags.end(), [](const Snag& s) { return s.code == "PROOF-06"; });
  };
  EXPECT_EQ(stale(rig), 0);
  EXPECT_EQ(review(rig, shipped()).stations[static_cast<std::size_t>(Station::sticks)], StationState::proven);
  rig.channel(F::roll)->travel_low_percent = 96;
  EXPECT_EQ(stale(rig), 1);
  rig.radio.on_loss = OnLoss::no_pulses;
  EXPECT_EQ(stale(rig), 2);
  // Weights of the mix are no part of it.
  rig = good("hedgerow");
  read_sticks(rig);
  rig = proven(rig, sticks_calibrated);
  rig.outputs[0].mix.roll *= 0.9;
  EXPECT_EQ(stale(rig), 0);
  // What does not land can't be recorded.
  Rig off = good("hedgerow");
  EXPECT_EQ(proven(off, sticks_calibrated), off);
}

TEST(SurfacesRules, AClassOfFunctionsTurnsNoOutputRoundByItself) {
  Rig rig = fresh_rig("pair", AirframeKind::two_ailerons, "gesture_board");
  const auto said = [&] {
    int n = 0;
    for (const Snag& s : review(rig, shipped()).snags) n += s.code == "SURFACES-18";
    return n;
  };
  EXPECT_EQ(said(), 0);
  rig.outputs[1].reversed = true;
  EXPECT_EQ(said(), 1);
  rig.outputs[0].reversed = true;
  EXPECT_EQ(said(), 0) << "both ailerons: that is the roll function";
  rig.controller.kind = "full_controller";
  rig.outputs[0].reversed = false;
  EXPECT_EQ(said(), 0);
}

}  // namespace
}  // namespace rigging
