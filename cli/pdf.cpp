#include "pdf.h"

#include <fcntl.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include <csignal>
#include <cstdio>

#include "base/data_folder.h"

extern char** environ;

namespace rigging::cli {
namespace {

bool pour(int into, std::string_view bytes) {
  while (!bytes.empty()) {
    const ssize_t n = ::write(into, bytes.data(), bytes.size());
    if (n < 0 && errno == EINTR) continue;
    if (n <= 0) return false;
    bytes.remove_prefix(static_cast<std::size_t>(n));
  }
  return true;
}

}  // namespace

Result<void> write_pdf(const std::vector<std::string>& svgs, const std::filesystem::path& file) {
  const std::string program = program_beside("rigging-paper").string();
  // What begins with a dash would be an option.
  const std::string target = (file.is_absolute() ? file : "." / file).string();
  const auto missing = [&](const char* why) {
    return failure(program, std::string("could not be started: ") + why, "the program rigging-paper beside this one");
  };
  int pipe_ends[2];
  if (::pipe2(pipe_ends, O_CLOEXEC) != 0) return missing("no pipe");
  posix_spawn_file_actions_t actions;
  ::posix_spawn_file_actions_init(&actions);
  ::posix_spawn_file_actions_adddup2(&actions, pipe_ends[0], STDIN_FILENO);
  const char* argv[] = {"rigging-paper", target.c_str(), nullptr};
  pid_t child = 0;
  const int failed = ::posix_spawnp(&child, program.c_str(), &actions, nullptr, const_cast<char**>(argv), environ);
  ::posix_spawn_file_actions_destroy(&actions);
  ::close(pipe_ends[0]);
  if (failed != 0) {
    ::close(pipe_ends[1]);
    return missing("it is not there");
  }
  // A program that dies while it is fed is told of by its exit status, not by a signal.
  const auto former = std::signal(SIGPIPE, SIG_IGN);
  bool poured = true;
  for (const std::string& svg : svgs) poured = poured && pour(pipe_ends[1], svg) && pour(pipe_ends[1], {"\0", 1});
  ::close(pipe_ends[1]);
  int status = 0;
  while (::waitpid(child, &status, 0) < 0 && errno == EINTR) {}
  std::signal(SIGPIPE, former);
  if (poured && WIFEXITED(status) && WEXITSTATUS(status) == 0) return {};
  return failure(target, "could not be written as PDF", "a folder that can be written, and the program rigging-paper");
}

}  // namespace rigging::cli
