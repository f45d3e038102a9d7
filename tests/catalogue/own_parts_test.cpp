#include <gtest/gtest.h>

#include <sys/stat.h>
#include <unistd.h>
#include <fstream>
#include <set>

#include "bench_rig.h"
#include "places.h"

namespace rigging {
namespace {

/// The class as a file of version 4 had it: remedies were cures, and the passed-through channel had another name.
Json in_old_words(Json c) {
  rename_member(c, "remedies", "cures");
  for (Json& s : c["settings"])
    if (s["what"] == "passthrough_channel") s["what"] = "passes";
  return c;
}

/// The class as a file of version 3 had it: the throttle goes through it or never does.
Json with_a_flag_for_the_motor(Json c) {
  c = in_old_words(std::move(c));
  if (!c.contains("surfaces")) return c;
  Json& surfaces = c["surfaces"];
  if (surfaces.value("motor", "through") == "receiver") surfaces["motor_bypasses"] = true;
  if (surfaces.value("motor", "through") != "either") surfaces.erase("motor");
  return c;
}

/// The class as a file of version 2 had it: the abilities that there were stand side by side.
Json flat(Json c) {
  c = with_a_flag_for_the_motor(std::move(c));
  const std::set<std::string> there_were{"reads_channels",
                                         "reads_full",
                                         "learns_ends",
                                         "travel_percent",
                                         "pitch_back_falls",
                                         "throttle_opens_falls",
                                         "gesture_needs_full_ends",
                                         "stick_direction_in_transmitter",
                                         "notices",
                                         "arming",
                                         "drives_one_output",
                                         "motor_bypasses",
                                         "axis_sensing_reversible",
                                         "can_be_turned",
                                         "either_face",
                                         "half_turn_by_switches",
                                         "has_compass",
                                         "has_barometer",
                                         "level",
                                         "gains",
                                         "modes",
                                         "bench_mode",
                                         "rudder_into_bank",
                                         "lamps"};
  for (const char* group : {"sticks", "surfaces", "senses", "feel", "proof"}) {
    const Json abilities = c.value(group, Json::object());
    for (const auto& [name, value] : abilities.items()) {
      if (!there_were.count(name)) continue;
      c[name] = value;
      c[group].erase(name);
    }
  }
  return c;
}

TEST(OwnParts, AbilitiesThatStandSideBySideFindTheirStation) {
  const auto file = std::filesystem::temp_directory_path() / ("rigging_" + std::to_string(::getpid()) + ".parts.json");
  const Json shipped_file = *read_json_file(in_source("/data/catalogue/controllers.json"));
  for (const int version : {1, 2, 3, 4}) {
    Json own{{"format", "parts"}, {"version", version}, {"controllers", Json::array()}};
    for (const Json& c : shipped_file["controllers"]) {
      own["controllers"].push_back(version < 3   ? flat(c)
                                   : version < 4 ? with_a_flag_for_the_motor(c)
                                                 : in_old_words(c));
      own["controllers"].back()["id"] = "my_" + c["id"].get<std::string>();
    }
    std::ofstream(file) << own.dump();
    Catalogue catalogue = shipped();
    const auto added = add_own_parts(catalogue, file);
    ASSERT_TRUE(added) << added.error().text();
    int compared = 0;
    for (const ControllerClass& c : shipped().controllers) {
      const ControllerClass* mine = catalogue.controller("my_" + c.id);
      ASSERT_TRUE(mine) << c.id;
      EXPECT_TRUE(mine->sticks == c.sticks) << c.id;
      EXPECT_TRUE(mine->surfaces == c.surfaces) << c.id;
      EXPECT_TRUE(mine->senses == c.senses) << c.id;
      EXPECT_TRUE(mine->feel == c.feel) << c.id;
      EXPECT_TRUE(mine->proof == c.proof) << c.id;
      ASSERT_EQ(mine->settings.size(), c.settings.size()) << c.id;
      for (std::size_t i = 0; i < c.settings.size(); ++i) EXPECT_EQ(mine->settings[i].what, c.settings[i].what) << c.id;
      EXPECT_TRUE(mine->remedies == c.remedies) << c.id;
      ++compared;
    }
    EXPECT_EQ(compared, 11);
  }
  std::filesystem::remove(file);
}

TEST(OwnParts, AListWithoutEndIsRefused) {
  const auto file =
      std::filesystem::temp_directory_path() / ("rigging_long_" + std::to_string(::getpid()) + ".parts.json");
  Json own{{"format", "parts"}, {"version", 3}, {"parts", Json::array()}};
  for (int i = 0; i < 20000; ++i)
    own["parts"].push_back(
        {{"id", "p" + std::to_string(i)}, {"name", "Part"}, {"group", "other"}, {"basis", "weighed"}});
  std::ofstream(file) << own.dump();
  Catalogue catalogue = shipped();
  const auto added = add_own_parts(catalogue, file);
  ASSERT_FALSE(added);
  EXPECT_NE(added.error().text().find("/parts: has 20000 entries"), std::string::npos) << added.error().text();
  std::filesystem::remove(file);
}

/// A board of one's own: what every class can is not written into its file, and is there again when it is read.
TEST(OwnBoard, IsKeptPassedOnAndReadAgain) {
  const auto file =
      std::filesystem::temp_directory_path() / ("rigging_own_" + std::to_string(::getpid()) + ".parts.json");
  std::filesystem::remove(file);
  for (const ControllerClass& nearest : shipped().controllers) {
    ControllerClass mine = own_class(nearest, "attic_" + nearest.id, "Attic");
    mine.outputs.front().label = "first";
    ASSERT_TRUE(save_own_class(file, mine, shipped().shared));
    mine.outputs.front().label = "the first";
    ASSERT_TRUE(save_own_class(file, mine, shipped().shared)) << "in the place of the one before";
    const Json written = *read_json_file(file);
    ASSERT_EQ(written["controllers"].size(), 1u);
    for (const Json& remedy_steps : written["controllers"][0].value("remedies", Json::array()))
      EXPECT_NE(remedy_steps["remedy"], "swap_leads") << "what every class can";
    Catalogue catalogue = shipped();
    ASSERT_TRUE(add_own_parts(catalogue, file));
    const ControllerClass* read = catalogue.controller(mine.id);
    ASSERT_TRUE(read);
    EXPECT_TRUE(*read == mine) << nearest.id;
    const auto passed_on = classes_in(file);
    ASSERT_TRUE(passed_on);
    EXPECT_EQ(passed_on->front().id, mine.id);
    std::filesystem::remove(file);
  }
  EXPECT_FALSE(classes_in(file)) << "no file";
  std::ofstream(file) << R"({"format":"parts","version":4,"parts":[]})";
  const auto none = classes_in(file);
  ASSERT_FALSE(none);
  EXPECT_NE(none.error().text().find("holds no board"), std::string::npos) << none.error().text();
  std::filesystem::remove(file);
}

TEST(OwnBoard, WhatDoesNotFitTogetherIsRefusedWithItsPlace) {
  const ControllerClass good = own_class(*shipped().controller("small_controller"), "mine", "Mine");
  ASSERT_TRUE(consistent(good, "mine"));
  const auto refusal = [&](auto&& damage) {
    ControllerClass c = good;
    damage(c);
    const auto ok = consistent(c, "mine");
    return ok ? std::string() : ok.error().text();
  };
  EXPECT_NE(refusal([](ControllerClass& c) { c.outputs[1].id = c.outputs[0].id; }).find("twice"), std::string::npos);
  EXPECT_NE(refusal([](ControllerClass& c) { c.pads[2].x_mm = 99; }).find("esc_b: lies beside the board"),
            std::string::npos);
  EXPECT_NE(refusal([](ControllerClass& c) { c.ports[0].side = "starboard"; }).find("no edge"), std::string::npos);
  EXPECT_NE(refusal([](ControllerClass& c) { c.outputs[0].timer_group = 0; }).find("timer group"), std::string::npos);
  EXPECT_NE(refusal([](ControllerClass& c) { c.feeds[0].from = "nowhere"; }).find("nowhere"), std::string::npos);
  EXPECT_NE(refusal([](ControllerClass& c) { c.proof.modes.resize(2), c.proof.bench_mode = Mode::hold; }).find("mode"),
            std::string::npos);
  EXPECT_NE(refusal([](ControllerClass& c) {
              for (int i = 0; i < 5000; ++i) {
                c.pads.push_back(c.pads.back());
                c.pads.back().id = "pad_" + std::to_string(i);
              }
            }).find("at most 64"),
            std::string::npos);
  EXPECT_NE(refusal([](ControllerClass& c) { c.outputs.clear(); }).find("no outputs"), std::string::npos);
  for (const ControllerClass& c : shipped().controllers) EXPECT_TRUE(consistent(c, c.id)) << c.id;
}

TEST(OwnParts, APipeIsNoFile) {
  const auto folder = std::filesystem::temp_directory_path() / ("rigging-pipe-" + std::to_string(getpid()));
  std::filesystem::create_directories(folder);
  const auto pipe = folder / "model.parts.json";
  ASSERT_EQ(mkfifo(pipe.c_str(), 0600), 0);
  Catalogue catalogue = shipped();
  const auto read = add_own_parts(catalogue, pipe);
  ASSERT_FALSE(read) << "it would be waited for without end";
  EXPECT_NE(read.error().text().find("is no file"), std::string::npos);
  std::filesystem::remove_all(folder);
}

}  // namespace
}  // namespace rigging
