#include "base/file.h"

#include <fcntl.h>
#include <poll.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <random>

#include "base/fingerprint.h"

namespace rigging {
namespace {

/// Closes what it holds.
class Descriptor {
 public:
  explicit Descriptor(int fd) : fd_(fd) {}
  ~Descriptor() { close(); }
  Descriptor(const Descriptor&) = delete;
  Descriptor& operator=(const Descriptor&) = delete;
  operator int() const { return fd_; }
  void close() {
    if (fd_ >= 0) ::close(fd_);
    fd_ = -1;
  }

 private:
  int fd_;
};

/// Waits until a pipe has something to say. False when it has not within two seconds.
bool speaks(int fd) {
  pollfd wait{fd, POLLIN, 0};
  int ready = 0;
  do ready = ::poll(&wait, 1, 2000);
  while (ready < 0 && errno == EINTR);
  return ready != 0;
}

}  // namespace

Result<std::string> read_file(const std::filesystem::path& path, std::size_t limit_bytes) {
  const auto refused = [&](int error) {
    return failure(path.string(), std::strerror(error), "a file that can be read");
  };
  // A pipe would be waited for already while it is opened.
  const Descriptor file(::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK));
  struct stat what {};
  if (file < 0 || ::fstat(file, &what) != 0) return refused(errno);
  if (S_ISDIR(what.st_mode)) return failure(path.string(), "this is a folder", "a file");
  std::string content;
  char block[1 << 16];
  for (;;) {
    if (!S_ISREG(what.st_mode) && !speaks(file))
      return failure(path.string(), "is no ordinary file, and nothing comes from it", "a file");
    const ssize_t n = ::read(file, block, sizeof block);
    if (n < 0 && (errno == EINTR || errno == EAGAIN)) continue;
    if (n < 0) return refused(errno);
    if (n == 0) return content;
    content.append(block, static_cast<std::size_t>(n));
    if (content.size() > limit_bytes)
      return failure(path.string(), "the file is too large", "at most " + std::to_string(limit_bytes >> 20) + " MiB");
  }
}

namespace {

/// Where a link, or a chain of them, leads in the end, whether there is a file yet or not.
std::filesystem::path followed(std::filesystem::path path) {
  for (int links = 0; links < 16; ++links) {
    std::error_code ec;
    if (!std::filesystem::is_symlink(path, ec)) break;
    const auto to = std::filesystem::read_symlink(path, ec);
    if (ec) break;
    path = to.is_absolute() ? to : path.parent_path() / to;
  }
  return path;
}

std::filesystem::path folder_of(const std::filesystem::path& target) {
  const auto folder = target.parent_path();
  return folder.empty() ? "." : folder;
}

// A file on its way is named by a draw and a digest of it: ".rigging-half-" or ".rigging-whole-", 16 digits, "-", 16
// digits. Nothing that somebody else named has the digest right, so that what is swept is our own.
constexpr std::string_view half_written = ".rigging-half-", whole_text = ".rigging-whole-";
constexpr std::size_t digits = 16;

/// Of a half-written file the digest is of the draw alone, of a whole text of the file's name as well.
std::string name_on_the_way(std::string_view kind, const std::string& draw, const std::string& of) {
  return std::string(kind) + draw + "-" + Fingerprint().add("rigging").add(draw).add(of).text();
}

bool is_on_the_way(const std::string& name, std::string_view kind, const std::string& of) {
  return name.size() == kind.size() + 2 * digits + 1 && name.starts_with(kind) &&
         name == name_on_the_way(kind, name.substr(kind.size(), digits), of);
}

std::string drawn() {
  std::random_device device;
  return Fingerprint().add(std::to_string(device())).add(std::to_string(device())).text();
}

template <class Visit>
void each_file_in(const std::filesystem::path& folder, Visit&& visit) {
  std::error_code ec;
  for (std::filesystem::directory_iterator it(folder, ec), end; !ec && it != end; it.increment(ec)) visit(it->path());
}

/// What a run that was killed while it wrote left in the folder, when that is ten minutes before `fresh` was made.
void sweep(const std::filesystem::path& folder, const std::filesystem::path& fresh) {
  struct stat now {};
  if (::stat(fresh.c_str(), &now) != 0) return;
  each_file_in(folder, [&](const std::filesystem::path& path) {
    struct stat then {};
    if (is_on_the_way(path.filename().string(), half_written, {}) && ::lstat(path.c_str(), &then) == 0 &&
        S_ISREG(then.st_mode) && now.st_mtime - then.st_mtime > 600)
      ::unlink(path.c_str());
  });
}

bool write_all(int fd, std::string_view content) {
  while (!content.empty()) {
    const ssize_t n = ::write(fd, content.data(), content.size());
    if (n < 0 && errno == EINTR) continue;
    if (n < 0) return false;
    content.remove_prefix(static_cast<std::size_t>(n));
  }
  return ::fsync(fd) == 0;
}

}  // namespace

Result<void> write_file_atomically(const std::filesystem::path& path, std::string_view content) {
  const auto target = followed(path);
  const auto folder = folder_of(target);
  const auto refused = [&](int error) -> Result<void> {
    return failure(path.string(), std::string("could not be written: ") + std::strerror(error),
                   "a folder that can be written");
  };
  struct stat now {};
  const bool there = ::stat(target.c_str(), &now) == 0;
  if (there && !S_ISREG(now.st_mode)) return failure(path.string(), "is no ordinary file", "a file");
  // A file that its owner has protected is not replaced behind his back, even where the folder would allow it. The
  // permission bits count, also for those to whom the system lets everything pass.
  if (there && ((now.st_mode & 0222) == 0 || ::access(target.c_str(), W_OK) != 0))
    return failure(path.string(), "is write-protected", "another name, or a file that may be written");
  // Other names lead to the same file: it is written where it is, with the whole text beside it until that is done.
  const bool in_place = there && now.st_nlink > 1;
  const std::string draw = drawn();
  auto fresh = folder / name_on_the_way(half_written, draw, {});
  Descriptor fd(::open(fresh.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC, 0666));
  if (fd < 0) return refused(errno);
  sweep(folder, fresh);
  if (there) ::fchmod(fd, now.st_mode & 0777);
  const auto gone = [&]() -> Result<void> {
    const int error = errno;
    ::unlink(fresh.c_str());
    return refused(error);
  };
  if (!write_all(fd, content)) return gone();
  fd.close();
  const auto next = in_place ? folder / name_on_the_way(whole_text, draw, target.filename().string()) : target;
  if (::rename(fresh.c_str(), next.c_str()) != 0) return gone();
  if (!in_place) return {};
  fresh = next;
  const Descriptor same(::open(target.c_str(), O_WRONLY | O_TRUNC | O_CLOEXEC));
  if (same < 0) return gone();
  // From here on the old text is gone: what is beside it stays when this fails.
  if (!write_all(same, content)) return refused(errno);
  ::unlink(fresh.c_str());
  return {};
}

std::optional<std::filesystem::path> interrupted_write(const std::filesystem::path& path) {
  const auto target = followed(path);
  std::optional<std::filesystem::path> found;
  std::filesystem::file_time_type newest{};
  each_file_in(folder_of(target), [&](const std::filesystem::path& left) {
    if (!is_on_the_way(left.filename().string(), whole_text, target.filename().string())) return;
    std::error_code ec;
    const auto when = std::filesystem::last_write_time(left, ec);
    if (ec || !std::filesystem::is_regular_file(std::filesystem::symlink_status(left, ec)) || (found && when < newest))
      return;
    found = left;
    newest = when;
  });
  // Stopped when all was written, or written again since: nothing is missing.
  if (found)
    if (const auto whole = read_file(*found), now = read_file(target); whole && now && *whole == *now)
      return std::nullopt;
  return found;
}

}  // namespace rigging
