#include "base/file.h"
#include "base/json.h"
#include "surfaces/surface_checks.h"

#include <gtest/gtest.h>

#include <functional>
#include <set>

#include "base/find.h"
#include "bench_rig.h"
#include "link/image.h"

namespace rigging {
namespace {

/// Every surface of the demo read flush and alike.
Rig all_read() {
  Rig rig = demo("hedgerow");
  rig.controller.mounted = true;
  for (const char* s : {"flaperon_left", "flaperon_right", "inverted_v_left", "inverted_v_right"})
    read_surface(rig, s, -20, 0.2, 20);
  return rig;
}

TEST(Measured, WhatWasReadIsFoundAgainOnlyWhereItBelongs) {
  Rig rig = all_read();
  const Surface left = *surface_from_name("flaperon_left");
  const auto throws = read_throws(rig, left);
  ASSERT_TRUE(throws);
  EXPECT_EQ(throws->up_deg, 20);
  EXPECT_EQ(throws->down_deg, 20);
  EXPECT_EQ(throws->neutral_deg, 0.2);
  rig.output("out_1")->high_us = 1950;
  EXPECT_FALSE(read_throws(rig, left)) << "the end has moved since";
  EXPECT_FALSE(read_throws(rig, *surface_from_name("rudder"))) << "there is none";
}

TEST(Measured, CentredAsksForEverySurfaceWithinHalfADegree) {
  Rig rig = all_read();
  EXPECT_TRUE(status_of(rig, surfaces_centred).holds);
  EXPECT_TRUE(status_of(rig, throws_equal).holds);
  read_surface(rig, "inverted_v_left", -20, 0.6, 20);
  EXPECT_EQ(status_of(rig, surfaces_centred).why_not, "the left inverted V-tail half stands 0.6° off neutral");
  rig.linkage(*surface_from_name("inverted_v_left"))->readings.clear();
  EXPECT_NE(status_of(rig, surfaces_centred).why_not.find("was not read"), std::string::npos);
  EXPECT_FALSE(status_of(Rig{}, surfaces_centred).holds) << "an aircraft without surfaces proves nothing";
}

TEST(Measured, ThrowsMustBeAlikeAndAsWished) {
  Rig rig = all_read();
  read_surface(rig, "flaperon_right", -18.5, 0, 20);
  EXPECT_NE(status_of(rig, throws_equal).why_not.find("differ"), std::string::npos);
  rig = all_read();
  rig.linkage(*surface_from_name("flaperon_left"))->want_up_deg = 24;
  EXPECT_EQ(status_of(rig, throws_equal).why_not, "the left flaperon goes 20° up instead of 24°");
  rig.linkage(*surface_from_name("flaperon_left"))->want_up_deg = 20.4;
  EXPECT_TRUE(status_of(rig, throws_equal).holds);
  rig.linkage(*surface_from_name("flaperon_left"))->want_down_deg = 12;
  EXPECT_NE(status_of(rig, throws_equal).why_not.find("down instead of 12°"), std::string::npos);
}

TEST(Measured, ProofsAgeByWhatTheyRestOnAndByNothingElse) {
  const Rig rig = all_read();
  const Rig centred = proven(rig, surfaces_centred, "2026-11-20T12:00:00Z", true),
            throws = proven(rig, throws_equal, "2026-11-20T12:00:00Z", true);
  EXPECT_EQ(status_of(centred, surfaces_centred).state, ProofState::fresh);
  EXPECT_TRUE(centred.proofs.back().simulated);
  const auto after = [&](Rig changed, const CheckId& check, const std::function<void(Rig&)>& change) {
    change(changed);
    return status_of(changed, check).state;
  };
  const auto ends = [](Rig& r) { r.output("out_1")->high_us = 1950; };
  const auto middle = [](Rig& r) { r.output("out_1")->centre_us = 1510; };
  const auto arm = [](Rig& r) { r.linkages[0].arm_m = 0.010; };
  const auto weight = [](Rig& r) { r.output("out_1")->mix.roll *= 0.8; };
  const auto servo = [](Rig& r) {
    for (Part& p : r.parts)
      if (p.surface && p.surface->name() == "flaperon_left") p.kind = "servo_9g_analogue";
  };
  EXPECT_EQ(after(centred, surfaces_centred, ends), ProofState::fresh) << "an end is no centre";
  EXPECT_EQ(after(throws, throws_equal, ends), ProofState::stale);
  EXPECT_EQ(after(centred, surfaces_centred, middle), ProofState::stale);
  EXPECT_EQ(after(centred, surfaces_centred, arm), ProofState::stale);
  EXPECT_EQ(after(centred, surfaces_centred, servo), ProofState::stale);
  EXPECT_EQ(after(centred, surfaces_centred, weight), ProofState::fresh);
  EXPECT_EQ(after(throws, throws_equal, weight), ProofState::fresh);
  Rig loose = rig;
  loose.controller.mounted = false;
  EXPECT_EQ(status_of(proven(loose, surfaces_centred), surfaces_centred).state, ProofState::provisional);
  Rig off = rig;
  read_surface(off, "flaperon_left", -20, 3, 20);
  EXPECT_EQ(proven(off, surfaces_centred), off) << "what does not hold is not recorded";
}

TEST(LearnedEnds, TravelWithTheConfigurationAndBack) {
  Rig rig = demo("hedgerow");
  Channel& roll = *rig.channel(ChannelFunction::roll);
  roll.low_us = 1043.5;
  roll.centre_us = 1502;
  roll.high_us = 1961;
  rig.saturation = Saturation::roll_first;
  rig.outputs[0].mix.roll_differential = -0.3;
  const link::Image plain = link::image_of(rig);
  EXPECT_EQ(plain.value({SettingOf::channel, "1", "low_us"}), SettingValue{}) << "read, but not learned";
  roll.learned = true;
  const link::Image image = link::image_of(rig);
  const auto back = link::image_from_bytes(link::image_bytes(image), "image");
  ASSERT_TRUE(back) << back.error().text();
  EXPECT_EQ(*back, image);
  const Rig held = link::configured(*back);
  EXPECT_EQ(held.radio.channels[0].high_us, 1961);
  EXPECT_EQ(held.saturation, Saturation::roll_first);
  EXPECT_EQ(held.outputs[0].mix.roll_differential, -0.3);
  // What differs is said part by part, and can be taken over.
  const auto differing = link::differences(link::image_of(demo("hedgerow")), image);
  std::set<std::string> parts;
  for (const auto& d : differing) parts.insert(d.part);
  EXPECT_EQ(parts, (std::set<std::string>{"output slot_1", "channel 1", "saturation"}));
  const Rig taken = link::with_board_parts(demo("hedgerow"), image, {"channel 1", "saturation", "output slot_1"});
  EXPECT_TRUE(link::differences(link::image_of(taken), image).empty());
  EXPECT_TRUE(taken.channel(ChannelFunction::roll)->learned);
}

TEST(RigFile, WhatSticksAndSurfacesKnowIsKeptAndChecked) {
  Rig rig = demo("hedgerow");
  Channel& c = *rig.channel(ChannelFunction::mode);
  c.control = Control::three_position;
  c.positions_us = {1001.5, 1500, 1999};
  c.rate_percent = 70;
  rig.radio.transmitter.counts = TravelUnit::us;
  rig.radio.transmitter.also_serves = {"Heath"};
  rig.radio.on_loss = OnLoss::preset;
  Linkage& l = rig.linkages[0];
  l.arm_holes_m = {0.008, 0.011};
  l.base_m = 0.09;
  l.want_up_deg = 18;
  l.push_lifts = false;
  l.readings = {{1500, -0.4, {}}};
  const auto folder = std::filesystem::temp_directory_path() / "rigging_measured";
  std::filesystem::create_directories(folder);
  const std::string file = (folder / "a.rig.json").string();
  ASSERT_TRUE(save_rig(rig, file));
  const auto again = load_rig(file);
  ASSERT_TRUE(again) << again.error().text();
  EXPECT_EQ(*again, rig);

  const auto refused = [&](const std::function<void(Json&)>& damage) {
    Json json = *read_json_file(file);
    damage(json);
    EXPECT_TRUE(write_file_atomically(folder / "b.rig.json", json.dump()));
    const auto bad = load_rig((folder / "b.rig.json").string());
    return bad ? std::string("taken") : bad.error().text();
  };
  EXPECT_NE(refused([](Json& j) {
              j["radio"]["channels"][4]["positions_us"] = {1500, "x"};
            }).find("/radio/channels/4/positions_us/1"),
            std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["radio"]["channels"][4]["positions_us"] = 1500; }).find("a list of numbers"),
            std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["radio"]["channels"][4]["control"] = "lever"; }).find("three_position"),
            std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["radio"]["on_loss"] = "panic"; }).find("no_pulses"), std::string::npos);
  EXPECT_NE(refused([](Json& j) {
              j["linkages"][0]["readings"][0]["pulse_us"] = 3000;
            }).find("/linkages/0/readings/0/pulse_us"),
            std::string::npos);
  EXPECT_NE(refused([](Json& j) { j["linkages"][0]["arm_holes_m"] = {8}; }).find("/linkages/0/arm_holes_m/0"),
            std::string::npos)
      << "millimetres typed for metres";
  EXPECT_NE(refused([](Json& j) { j["saturation"] = "mine"; }).find("each_stops"), std::string::npos);
  std::filesystem::remove_all(folder);
}

}  // namespace
}  // namespace rigging
