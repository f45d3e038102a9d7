#include "base/file.h"

#include <gtest/gtest.h>
#include <sys/resource.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

#include <chrono>
#include <csignal>
#include <fstream>
#include <set>

namespace rigging {
namespace {

class Folder {
 public:
  Folder() {
    std::string name = (std::filesystem::temp_directory_path() / "rigging_file_XXXXXX").string();
    path_ = ::mkdtemp(name.data());
  }
  ~Folder() { std::filesystem::remove_all(path_); }
  std::filesystem::path operator/(const std::string& name) const { return path_ / name; }
  std::set<std::string> names() const {
    std::set<std::string> all;
    for (const auto& entry : std::filesystem::directory_iterator(path_)) all.insert(entry.path().filename().string());
    return all;
  }

 private:
  std::filesystem::path path_;
};

void age(const std::filesystem::path& path) {
  std::filesystem::last_write_time(path, std::filesystem::last_write_time(path) - std::chrono::hours(1));
}

/// What a write leaves that is stopped while it writes `target`: a limit on the size of files stands for the kill.
void killed_while_writing(const std::filesystem::path& target, std::size_t after_bytes, std::size_t of_bytes) {
  const pid_t child = ::fork();
  if (child == 0) {
    const rlimit small{after_bytes, after_bytes};
    ::setrlimit(RLIMIT_FSIZE, &small);  // the signal of it ends the process in the middle of the write
    (void)write_file_atomically(target, std::string(of_bytes, 'n'));
    ::_exit(0);
  }
  int status = 0;
  ::waitpid(child, &status, 0);
  EXPECT_TRUE(WIFSIGNALED(status)) << "it was to be killed";
}

TEST(Files, AreReadWithinBounds) {
  const auto path = std::filesystem::temp_directory_path() / "rigging_files_test";
  ASSERT_TRUE(write_file_atomically(path, std::string(1000, 'x')));
  EXPECT_EQ(read_file(path)->size(), 1000u);
  const auto refused = read_file(path, 10);
  ASSERT_FALSE(refused);
  EXPECT_NE(refused.error().what.find("too large"), std::string::npos);
  // A link is followed, not replaced.
  const auto link = std::filesystem::temp_directory_path() / "rigging_files_link";
  std::filesystem::remove(link);
  std::filesystem::create_symlink(path, link);
  ASSERT_TRUE(write_file_atomically(link, "through the link"));
  EXPECT_TRUE(std::filesystem::is_symlink(link));
  EXPECT_EQ(*read_file(path), "through the link");
  // Rights stay as they were.
  std::filesystem::permissions(path, std::filesystem::perms::owner_read | std::filesystem::perms::owner_write);
  // Another name of the same file goes on leading to it; a link that leads nowhere yet makes its file.
  const auto twin = path.parent_path() / "twin", ahead = path.parent_path() / "ahead",
             later = path.parent_path() / "later";
  std::filesystem::create_hard_link(path, twin);
  ASSERT_TRUE(write_file_atomically(path, "for both names"));
  EXPECT_EQ(*read_file(twin), "for both names");
  std::filesystem::remove(twin);
  std::filesystem::create_symlink("later", ahead);
  ASSERT_TRUE(write_file_atomically(ahead, "made"));
  EXPECT_EQ(*read_file(later), "made");
  EXPECT_TRUE(std::filesystem::is_symlink(ahead));
  std::filesystem::remove(ahead);
  std::filesystem::remove(later);
  // Protected by its owner, it is not replaced.
  const auto kept = path.parent_path() / "kept";
  ASSERT_TRUE(write_file_atomically(kept, "mine"));
  std::filesystem::permissions(kept, std::filesystem::perms::owner_read);
  const auto over = write_file_atomically(kept, "theirs");
  ASSERT_FALSE(over);
  EXPECT_NE(over.error().what.find("write-protected"), std::string::npos);
  EXPECT_EQ(*read_file(kept), "mine");
  std::filesystem::remove(kept);
  ASSERT_TRUE(write_file_atomically(path, "again"));
  EXPECT_EQ(std::filesystem::status(path).permissions() & std::filesystem::perms::mask,
            std::filesystem::perms::owner_read | std::filesystem::perms::owner_write);
  std::filesystem::remove(link);
  std::filesystem::remove(path);
}

// A disk that is full in the middle of a write: said, and the old file is whole. A limit on the size of files stands
// for the disk, in a process of its own.
TEST(Files, AFullDiskLeavesTheOldFileWhole) {
  const auto folder = std::filesystem::temp_directory_path() / ("rigging_full_" + std::to_string(::getpid()));
  std::filesystem::create_directory(folder);
  const auto file = folder / "kept";
  ASSERT_TRUE(write_file_atomically(file, "old"));
  const pid_t child = ::fork();
  if (child == 0) {
    ::signal(SIGXFSZ, SIG_IGN);
    const rlimit small{4096, 4096};
    ::setrlimit(RLIMIT_FSIZE, &small);
    const auto ok = write_file_atomically(file, std::string(100000, 'n'));
    ::_exit(ok ? 1 : ok.error().what.empty() ? 2 : 0);
  }
  int status = 0;
  ::waitpid(child, &status, 0);
  EXPECT_TRUE(WIFEXITED(status) && WEXITSTATUS(status) == 0) << status;
  EXPECT_EQ(*read_file(file, 1 << 20), "old");
  const auto entries = std::filesystem::directory_iterator(folder);
  EXPECT_EQ(std::distance(begin(entries), end(entries)), 1) << "nothing half written is left";
  std::filesystem::remove_all(folder);
}

/// Only what Rigging itself left half written is swept, and only when nobody can be at it any more. Whatever else
/// begins with the same letters is somebody's own.
TEST(Files, TheSweepTakesNothingThatIsSomebodysOwn) {
  const Folder folder;
  for (const char* own : {".rigging-backup", ".rigging-DEADxx", ".rigging-half-", ".rigging-half-0123456789abcdef",
                          ".rigging-half-0123456789abcdef-0123456789abcdef"}) {
    std::ofstream(folder / own) << "mine";
    age(folder / own);
  }
  const auto before = folder.names();
  ASSERT_TRUE(write_file_atomically(folder / "rig", "text"));
  auto with_rig = before;
  with_rig.insert("rig");
  EXPECT_EQ(folder.names(), with_rig);
  killed_while_writing(folder / "rig", 4096, 100000);
  ASSERT_EQ(folder.names().size(), with_rig.size() + 1) << "one is left half written";
  ASSERT_TRUE(write_file_atomically(folder / "rig", "text"));
  EXPECT_EQ(folder.names().size(), with_rig.size() + 1) << "it is fresh: somebody may be writing it";
  for (const auto& name : folder.names())
    if (!with_rig.count(name)) age(folder / name);
  ASSERT_TRUE(write_file_atomically(folder / "rig", "text"));
  EXPECT_EQ(folder.names(), with_rig);
}

/// A file with two names is written where it is. Killed in the middle it may be cut: the whole text stands beside it,
/// is found by the name that was saved and no other, and no sweep takes it.
TEST(Files, AnInterruptedWriteInPlaceLeavesItsWholeTextToBeFound) {
  const Folder folder;
  ASSERT_TRUE(write_file_atomically(folder / "rig", "old"));
  std::filesystem::create_hard_link(folder / "rig", folder / "other");
  EXPECT_FALSE(interrupted_write(folder / "rig"));
  const std::string whole(8 << 20, 'n');
  const auto left = [&] {
    for (const auto& name : folder.names())
      if (name.starts_with(".rigging-whole-")) return true;
    return false;
  };
  // A child that was too fast has left nothing, or a text that stands in the file already; another one then.
  for (int tries = 0; tries < 200 && !interrupted_write(folder / "rig"); ++tries) {
    for (const auto& name : folder.names())
      if (name.starts_with(".rigging-")) std::filesystem::remove(folder / name);
    ASSERT_TRUE(write_file_atomically(folder / "rig", "old"));
    const pid_t child = ::fork();
    if (child == 0) {
      (void)write_file_atomically(folder / "rig", whole);
      ::_exit(0);
    }
    while (!left() && ::waitpid(child, nullptr, WNOHANG) == 0) {}
    ::kill(child, SIGKILL);
    ::waitpid(child, nullptr, 0);
  }
  const auto found = interrupted_write(folder / "rig");
  ASSERT_TRUE(found);
  EXPECT_EQ(read_file(*found)->size(), whole.size());
  EXPECT_FALSE(interrupted_write(folder / "other"));
  age(*found);
  ASSERT_TRUE(write_file_atomically(folder / "beside", "text"));
  EXPECT_EQ(interrupted_write(folder / "rig"), found);
}

/// What the umask takes away of a new file stays away.
TEST(Files, ANewFileHasWhatTheUmaskLeaves) {
  const Folder folder;
  const mode_t was = ::umask(077);
  ASSERT_TRUE(write_file_atomically(folder / "mine", "text"));
  ::umask(was);
  EXPECT_EQ(std::filesystem::status(folder / "mine").permissions(),
            std::filesystem::perms::owner_read | std::filesystem::perms::owner_write);
}

/// A pipe in the place of a file is not waited for without end.
TEST(Files, APipeThatSaysNothingIsRefusedAndOneThatSpeaksIsRead) {
  const Folder folder;
  const auto pipe = folder / "pipe";
  ASSERT_EQ(::mkfifo(pipe.c_str(), 0600), 0);
  EXPECT_FALSE(read_file(pipe));
  EXPECT_FALSE(write_file_atomically(pipe, "text"));
  const pid_t child = ::fork();
  if (child == 0) {
    std::ofstream(pipe) << "spoken";
    ::_exit(0);
  }
  const auto read = read_file(pipe);
  ASSERT_TRUE(read) << read.error().text();
  EXPECT_EQ(*read, "spoken");
  ::waitpid(child, nullptr, 0);
}

}  // namespace
}  // namespace rigging
