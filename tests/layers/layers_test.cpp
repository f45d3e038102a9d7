#include <gtest/gtest.h>

#include <algorithm>
#include <filesystem>
#include <fstream>
#include <map>
#include <regex>
#include <set>
#include <sstream>

#include "places.h"

namespace {

const std::filesystem::path source(rigging::in_source(""));
using Ranks = std::map<std::string, int>;

/// Folders of core/, lowest first. Stations stand in their working order; checks are below those that bring some;
/// direction is shared by those above it; surfaces stands below power, which adds up what the servos draw in the air;
/// fit looks at the currents of power, because they disturb the compass; feel and home fly the aeroplane of flight.
const Ranks core_ranks{
    {"base", 0},  {"earth", 0}, {"language", 1}, {"rig", 1},       {"catalogue", 2}, {"settings", 3}, {"signal", 3},
    {"hands", 3}, {"edit", 3},  {"checks", 3},   {"direction", 4}, {"procedure", 5}, {"airframe", 6}, {"surfaces", 7},
    {"power", 8}, {"fit", 9},   {"wiring", 10},  {"sticks", 11},   {"reports", 12},  {"senses", 13},  {"flight", 14},
    {"feel", 15}, {"home", 16}, {"proof", 17},   {"logbook", 18},  {"review", 19},   {"link", 20},    {"begin", 20},
    {"ask", 20},  {"play", 20}, {"sheets", 21}};

/// Folders of app/. Look knows colours and type and nothing of aircraft; the shell holds everything together.
const Ranks app_ranks{{"look", 0},  {"time", 0},     {"document", 1}, {"drawing", 1},
                      {"bench", 2}, {"stations", 3}, {"shell", 4}};

std::string first_folder(const std::string& path) { return path.substr(0, path.find('/')); }

std::vector<std::filesystem::path> code_in(const std::filesystem::path& folder) {
  std::vector<std::filesystem::path> files;
  for (const auto& entry : std::filesystem::recursive_directory_iterator(folder))
    if (entry.path().extension() == ".h" || entry.path().extension() == ".cpp") files.push_back(entry.path());
  return files;
}

std::vector<std::string> includes_of(const std::filesystem::path& file) {
  static const std::regex include("^\\s*#\\s*include\\s*[<\"]([^>\"]+)[>\"]");
  std::vector<std::string> all;
  std::ifstream in(file);
  for (std::string line; std::getline(in, line);)
    if (std::smatch match; std::regex_search(line, match, include)) all.push_back(match[1]);
  return all;
}

bool is_qt(const std::string& include) {
  return include.starts_with("Qt") ||
         (include.size() > 1 && include[0] == 'Q' && std::isupper(static_cast<unsigned char>(include[1])));
}

/// Reads every include below `tree`; folders there have a rank, and what is included from the same tree must not rank
/// higher.
int run_downward(const char* tree, const Ranks& ranks) {
  int read = 0;
  for (const auto& file : code_in(source / tree)) {
    const std::string inside = std::filesystem::relative(file, source / tree).string();
    if (inside.find('/') == std::string::npos) continue;  // a program's main file stands above all
    const std::string folder = first_folder(inside);
    EXPECT_TRUE(ranks.count(folder)) << "no place in the layers for " << tree << "/" << folder;
    if (!ranks.count(folder)) continue;
    ++read;
    for (const std::string& what : includes_of(file))
      if (std::filesystem::exists(source / tree / what))
        EXPECT_LE(ranks.at(first_folder(what)), ranks.at(folder)) << file << " looks upward to " << what;
  }
  return read;
}

TEST(Layers, CoreRunsDownwardAndKnowsNoInterface) {
  EXPECT_GT(run_downward("core", core_ranks), 100);
  for (const auto& file : code_in(source / "core"))
    for (const std::string& what : includes_of(file)) {
      EXPECT_FALSE(is_qt(what)) << file << " includes Qt: " << what;
      EXPECT_FALSE(what.starts_with("sys/socket") || what == "chrono") << file << ": core has no sockets and no clock";
      for (const char* outer : {"twin", "cli", "app", "shell", "stations", "bench", "document"})
        EXPECT_FALSE(first_folder(what) == outer && !std::filesystem::exists(source / "core" / what))
            << file << " looks outward to " << what;
    }
}

TEST(Layers, TheApplicationRunsDownward) {
  EXPECT_GT(run_downward("app", app_ranks), 60);
  for (const auto& file : code_in(source / "app" / "look"))
    for (const std::string& what : includes_of(file))
      EXPECT_FALSE(what.starts_with("review/") || what.starts_with("rig/")) << file << " knows of aircraft: " << what;
}

/// Names come from files, links and hands. A label shows them as they are: marks come in by one type alone.
TEST(Layers, MarksComeIntoLabelsByOneDoorAlone) {
  int read = 0;
  for (const auto& file : code_in(source / "app")) {
    const std::string name = file.filename().string();
    if (name.starts_with("html.") || name.starts_with("plain_text.")) continue;
    std::ifstream in(file);
    for (std::string line; std::getline(in, line);) {
      ++read;
      for (const char* mark : {"setTextFormat(", "toHtmlEscaped", "fromRichText", "QToolTip::showText"})
        EXPECT_EQ(line.find(mark), std::string::npos) << file << ": " << line;
      EXPECT_TRUE(line.find("setHtml(") == std::string::npos || line.find(".marked()") != std::string::npos)
          << file << ": " << line;
    }
  }
  EXPECT_GT(read, 10000);
}

TEST(Layers, TheShellKnowsNoStation) {
  for (const auto& file : code_in(source / "app" / "shell")) {
    if (file.filename() == "screenshots.cpp") continue;  // walks through the demo, page by page
    for (const std::string& what : includes_of(file))
      EXPECT_FALSE(what.starts_with("stations/") && std::count(what.begin(), what.end(), '/') > 1)
          << file << " names a station: " << what;
  }
}

TEST(Layers, TwinAndCommandLineKnowNoInterface) {
  for (const char* folder : {"twin", "cli"})
    for (const auto& file : code_in(source / folder))
      for (const std::string& what : includes_of(file)) EXPECT_FALSE(is_qt(what)) << file << ": " << what;
}

/// What each target links, by its CMakeLists.
std::map<std::string, std::set<std::string>> links() {
  std::map<std::string, std::set<std::string>> all;
  const std::regex call("target_link_libraries\\(([^)]*)\\)");
  for (const char* folder : {"core", "paper", "twin", "cli", "app"}) {
    std::ifstream in(source / folder / "CMakeLists.txt");
    std::stringstream text;
    text << in.rdbuf();
    const std::string content = text.str();
    for (auto i = std::sregex_iterator(content.begin(), content.end(), call); i != std::sregex_iterator(); ++i) {
      std::istringstream words((*i)[1].str());
      std::string target, word;
      words >> target;
      while (words >> word)
        if (word != "PUBLIC" && word != "PRIVATE" && word != "INTERFACE") all[target].insert(word);
    }
  }
  return all;
}

TEST(Layers, LinksRunDownward) {
  const auto all = links();
  const auto reaches = [&](const std::string& from) {
    std::set<std::string> seen;
    std::vector<std::string> open{from};
    while (!open.empty()) {
      const std::string target = open.back();
      open.pop_back();
      if (const auto it = all.find(target); it != all.end())
        for (const std::string& next : it->second)
          if (seen.insert(next).second) open.push_back(next);
    }
    return seen;
  };
  for (const char* target : {"rigging_core", "rigging_twin", "rigging-twin", "rigging_cli", "rigging-cli"}) {
    ASSERT_TRUE(all.count(target)) << target;
    for (const std::string& library : reaches(target)) {
      EXPECT_FALSE(library.starts_with("Qt6")) << target << " pulls in " << library;
      EXPECT_FALSE(library == "rigging_app" || library == "rigging_paper") << target << " pulls in " << library;
      for (const char* only_tests : {"GTest", "benchmark", "valijson"})
        EXPECT_FALSE(library.starts_with(only_tests)) << target << " pulls in " << library;
    }
  }
  EXPECT_FALSE(reaches("rigging_core").count("CLI11::CLI11"));
  EXPECT_FALSE(reaches("rigging_app").count("rigging_twin")) << "the application knows the twin only over its links";
  EXPECT_TRUE(reaches("rigging").count("rigging_core"));
}

TEST(Layers, TestsMirrorTheFolders) {
  for (const auto& entry : std::filesystem::directory_iterator(source / "tests")) {
    if (!entry.is_directory()) continue;
    const std::string name = entry.path().filename().string();
    const bool mirrors =
        std::filesystem::is_directory(source / "core" / name) || std::filesystem::is_directory(source / name);
    // What is checked against outside sources, and what is said of all code at once, mirror nothing.
    EXPECT_TRUE(mirrors || name == "reference" || name == "layers" || name == "doors")
        << "tests/" << name << " mirrors no folder";
  }
  for (const auto& file : code_in(source / "tests" / "app")) {
    const std::string inside = std::filesystem::relative(file.parent_path(), source / "tests" / "app").string();
    if (inside != ".")
      EXPECT_TRUE(std::filesystem::is_directory(source / "app" / inside))
          << "tests/app/" << inside << " mirrors no folder";
  }
}

}  // namespace
