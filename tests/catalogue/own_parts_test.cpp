#include <gtest/gtest.h>

#include <unistd.h>
#include <fstream>

#include "bench_rig.h"

namespace rigging {
namespace {

/// The class as a file of version 2 had it: every ability side by side.
Json flat(Json c) {
  for (const char* group : {"sticks", "surfaces", "senses", "feel", "proof"}) {
    const Json abilities = c.value(group, Json::object());
    c.erase(group);
    for (const auto& [name, value] : abilities.items()) c[name] = value;
  }
  return c;
}

TEST(OwnParts, AbilitiesThatStandSideBySideFindTheirStation) {
  const auto file = std::filesystem::temp_directory_path() / ("rigging_" + std::to_string(::getpid()) + ".parts.json");
  const Json shipped_file =
      *read_json_file(std::filesystem::path(RIGGING_SOURCE_DIR) / "data/catalogue/controllers.json");
  for (const int version : {1, 2}) {
    Json own{{"format", "parts"}, {"version", version}, {"controllers", Json::array()}};
    for (const Json& c : shipped_file["controllers"]) {
      own["controllers"].push_back(flat(c));
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
      EXPECT_EQ(mine->settings.size(), c.settings.size()) << c.id;
      ++compared;
    }
    EXPECT_EQ(compared, 7);
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

}  // namespace
}  // namespace rigging
