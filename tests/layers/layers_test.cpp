#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>
#include <map>
#include <regex>

namespace {

const std::filesystem::path source(RIGGING_SOURCE_DIR);

/// Folders of core/, lowest first. Stations stand in their working order; direction is shared by those above it;
/// surfaces stands below power, which adds up what the servos draw in the air; fit looks at the currents of power,
/// because they disturb the compass.
const std::map<std::string, int> rank{{"base", 0},      {"earth", 0},    {"rig", 1},      {"catalogue", 2},
                                      {"direction", 3}, {"airframe", 4}, {"surfaces", 5}, {"power", 6},
                                      {"fit", 7},       {"wiring", 8},   {"sticks", 9},   {"senses", 10},
                                      {"feel", 11},     {"home", 12},    {"proof", 13},   {"logbook", 14},
                                      {"flight", 15},   {"review", 16},  {"link", 17},    {"sheets", 18}};

std::string first_folder(const std::string& include) { return include.substr(0, include.find('/')); }

TEST(Layers, IncludesRunDownwardAndCoreKnowsNoInterface) {
  const std::regex include("^\\s*#\\s*include\\s*[<\"]([^>\"]+)[>\"]");
  int read = 0;
  for (const auto& entry : std::filesystem::recursive_directory_iterator(source / "core")) {
    if (entry.path().extension() != ".h" && entry.path().extension() != ".cpp") continue;
    ++read;
    const std::string folder = first_folder(std::filesystem::relative(entry.path(), source / "core").string());
    ASSERT_TRUE(rank.count(folder)) << "no place in the layers for core/" << folder;
    std::ifstream in(entry.path());
    for (std::string line; std::getline(in, line);) {
      std::smatch match;
      if (!std::regex_search(line, match, include)) continue;
      const std::string what = match[1], other = first_folder(what);
      EXPECT_FALSE(what.size() > 1 && what[0] == 'Q' && std::isupper(static_cast<unsigned char>(what[1])))
          << entry.path() << " includes Qt: " << what;
      EXPECT_FALSE(what.starts_with("Qt")) << entry.path() << " includes Qt: " << what;
      EXPECT_FALSE(what.starts_with("sys/socket") || what == "chrono")
          << entry.path() << ": core has no sockets and no clock";
      if (rank.count(other) && what.find('/') != std::string::npos)
        EXPECT_LE(rank.at(other), rank.at(folder)) << entry.path() << " looks upward to " << what;
      for (const char* outer : {"twin", "cli", "app", "shell", "stations", "bench", "document"})
        EXPECT_NE(other, outer) << entry.path() << " looks outward to " << what;
    }
  }
  EXPECT_GT(read, 40);
}

TEST(Layers, TwinAndCommandLineKnowNoInterface) {
  const std::regex qt("^\\s*#\\s*include\\s*[<\"]Q[A-Z]");
  for (const char* folder : {"twin", "cli"})
    for (const auto& entry : std::filesystem::recursive_directory_iterator(source / folder)) {
      std::ifstream in(entry.path());
      for (std::string line; std::getline(in, line);)
        EXPECT_FALSE(std::regex_search(line, qt)) << entry.path() << ": " << line;
    }
}

}  // namespace
