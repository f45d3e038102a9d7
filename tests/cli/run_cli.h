#pragma once

#include <gtest/gtest.h>
#include <sys/wait.h>
#include <unistd.h>

#include <filesystem>
#include <fstream>
#include <sstream>

#include "places.h"

/// Runs the command line as its users do.
namespace rigging {

inline const std::filesystem::path source(in_source(""));

struct Ran {
  int status = -1;
  std::string out, err;
};

inline Ran run(const std::string& arguments) {
  const auto error_file = std::filesystem::temp_directory_path() / ("rigging_cli_err_" + std::to_string(::getpid()));
  FILE* pipe = ::popen((program("rigging-cli") + " " + arguments + " 2>" + error_file.string()).c_str(), "r");
  Ran ran;
  char block[4096];
  for (std::size_t n; (n = std::fread(block, 1, sizeof block, pipe)) > 0;) ran.out.append(block, n);
  ran.status = WEXITSTATUS(::pclose(pipe));
  std::stringstream err;
  err << std::ifstream(error_file).rdbuf();
  ran.err = err.str();
  std::filesystem::remove(error_file);
  return ran;
}

class Folder {
 public:
  Folder() : path_(std::filesystem::temp_directory_path() / ("rigging_cli_" + std::to_string(::getpid()))) {
    std::filesystem::create_directories(path_);
  }
  ~Folder() { std::filesystem::remove_all(path_); }
  std::string file(const std::string& name, const std::string& content) const {
    std::ofstream(path_ / name) << content;
    return (path_ / name).string();
  }
  std::string operator/(const std::string& name) const { return (path_ / name).string(); }

 private:
  std::filesystem::path path_;
};

inline const std::string demo = (source / "data/demo/hedgerow.rig.json").string();

}  // namespace rigging
