#include "catalogue/part_words.h"

#include <gtest/gtest.h>

#include "bench_rig.h"

namespace rigging {
namespace {

// What builders say, in their words, units and orders.
TEST(PartWords, PartsGoByManyNames) {
  for (const auto& [said, id] : {std::pair{"camera", "camera_small"},
                                 {"200 mW video", "video_200"},
                                 {"vtx 200mW", "video_200"},
                                 {"0.2 W video transmitter", "video_200"},
                                 {"satellite with compass", "satellite_compass"},
                                 {"GPS with compass", "satellite_compass"},
                                 {"gps", "satellite_plain"},
                                 {"5 V 3 A regulator", "regulator_5v_3a"},
                                 {"5V 3A", "regulator_5v_3a"},
                                 {"6v 5a bec", "regulator_6v_5a"},
                                 {"9 x 6", "propeller_9x6"},
                                 {"9×6", "propeller_9x6"},
                                 {"9 × 6\"", "propeller_9x6"},
                                 {"9x6 inch prop", "propeller_9x6"},
                                 {"propeller 10x4,7", "propeller_10x5_slow"},
                                 {"left handed 9x6", "propeller_9x6_left"},
                                 {"three blades 8x6", "propeller_8x6_three"},
                                 {"3s 2200", "battery_3s_2200"},
                                 {"2200 mAh 3S lipo", "battery_3s_2200"},
                                 {"battery, 4 cells", "battery_4s_2200"},
                                 {"Li-Ion 3s 3500", "battery_3s_3500_cylindrical"},
                                 {"1000kv motor", "motor_2212"},
                                 {"motor 2212", "motor_2212"},
                                 {"30A esc", "esc_30_switching"},
                                 {"esc 40 A opto", "esc_40_isolated"},
                                 {"nine gram servo", "servo_9g_analogue"},
                                 {"12 g metal servo", "servo_12g_metal"},
                                 {"two-way receiver", "receiver_two_way"},
                                 {"8 channel pulse receiver", "receiver_pulse"},
                                 {"pitot", "airspeed_sensor"},
                                 {"a buzzer", "buzzer"},
                                 {"lights", "lights_strip"},
                                 {"power module", "power_module"},
                                 {"camera switch", "camera_switch"}}) {
    // The comma of "battery, 4 cells" parts a list, and not what is looked for.
    const auto found = find_kinds(shipped(), said);
    ASSERT_FALSE(found.empty()) << said;
    EXPECT_EQ(found.front().kind->id, id) << said;
    EXPECT_TRUE(found.front().exact) << said;
  }
}

TEST(PartWords, AListIsTakenApart) {
  const auto parts =
      parts_in_words(shipped(), "2 cameras, 200 mW video and a buzzer; two 9g servos\n3 x 12 g servo + 10x4,7");
  ASSERT_EQ(parts.size(), 6u);
  const int counts[] = {2, 1, 1, 2, 3, 1};
  for (std::size_t i = 0; i < parts.size(); ++i) {
    EXPECT_EQ(parts[i].count, counts[i]) << parts[i].said;
    ASSERT_TRUE(parts[i].kind) << parts[i].said;
    EXPECT_EQ(parts[i].remark, "") << parts[i].said;
  }
  EXPECT_EQ(parts[5].kind->id, "propeller_10x5_slow");
}

TEST(PartWords, WhatDiffersIsSaid) {
  const auto near = parts_in_words(shipped(), "video 250 mW");
  ASSERT_TRUE(near.at(0).kind);
  EXPECT_EQ(near[0].kind->id, "video_200");
  EXPECT_NE(near[0].remark.find("nearest"), std::string::npos);
  // Another number of cells is another battery, however near its charge; a number without a unit is none with one.
  const auto pack = parts_in_words(shipped(), "4S 3000 mAh");
  EXPECT_EQ(shipped().part(pack.at(0).kind->id)->battery->cells, 4);
  EXPECT_NE(pack[0].remark.find("nearest"), std::string::npos);
  EXPECT_FALSE(find_kinds(shipped(), "battery 3000 mAh").front().exact);
  // What is said of other kinds alone is not understood, in whatever order it stands; the rest is.
  for (const char* words : {"analogue camera", "camera analogue"}) {
    const auto camera = parts_in_words(shipped(), words);
    ASSERT_TRUE(camera.at(0).kind) << words;
    EXPECT_EQ(camera[0].kind->group, PartGroup::camera) << words;
    EXPECT_NE(camera[0].remark.find("not understood: analogue"), std::string::npos) << camera[0].remark;
  }
  const auto strange = parts_in_words(shipped(), "flux capacitor, purple camera, , 5");
  ASSERT_EQ(strange.size(), 3u);
  EXPECT_FALSE(strange[0].kind);
  EXPECT_NE(strange[0].remark, "");
  ASSERT_TRUE(strange[1].kind);
  EXPECT_NE(strange[1].remark.find("purple"), std::string::npos);
  EXPECT_FALSE(strange[2].kind) << "a small number alone could be anything's";
}

TEST(PartWords, EveryKindIsFoundByItsOwnName) {
  for (const PartKind& k : shipped().parts) {
    if (k.group == PartGroup::lead) continue;
    const auto found = find_kinds(shipped(), k.name);
    ASSERT_FALSE(found.empty()) << k.name;
    EXPECT_EQ(found.front().kind->id, k.id) << k.name;
  }
  EXPECT_EQ(find_kinds(shipped(), "").size(),
            static_cast<std::size_t>(std::count_if(shipped().parts.begin(), shipped().parts.end(),
                                                   [](const PartKind& k) { return k.group != PartGroup::lead; })));
}

}  // namespace
}  // namespace rigging
