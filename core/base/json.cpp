#include "base/json.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <fstream>
#include <set>

namespace rigging {
namespace {

std::string place_in(std::string_view text, const std::string& name, std::size_t byte) {
  const std::size_t end = std::min(byte == 0 ? 0 : byte - 1, text.size());
  const auto line = 1 + std::count(text.begin(), text.begin() + static_cast<std::ptrdiff_t>(end), '\n');
  const std::size_t last = end == 0 ? std::string_view::npos : text.substr(0, end).rfind('\n');
  const std::size_t column = last == std::string_view::npos ? end + 1 : end - last;
  return name + ":" + std::to_string(line) + ":" + std::to_string(column);
}

}  // namespace

Result<Json> parse_json(std::string_view text, const std::string& name) {
  constexpr int deepest = 64;
  std::vector<std::set<std::string>> members;
  std::string refused;
  const auto watch = [&](int depth, Json::parse_event_t event, Json& value) {
    if (depth > deepest && refused.empty()) refused = "nested more than 64 levels deep";
    if (event == Json::parse_event_t::object_start) {
      members.emplace_back();
    } else if (event == Json::parse_event_t::object_end) {
      members.pop_back();
    } else if (event == Json::parse_event_t::key && refused.empty()) {
      if (!members.back().insert(value.get<std::string>()).second)
        refused = "member \"" + value.get<std::string>() + "\" is given twice in one object";
    }
    return true;
  };
  try {
    Json value = Json::parse(text.begin(), text.end(), watch);
    if (!refused.empty()) return failure(name, refused, "each member once, at most 64 levels");
    return value;
  } catch (const Json::parse_error& error) {
    return failure(place_in(text, name, error.byte), "this is not JSON", "a JSON value");
  } catch (const Json::out_of_range&) {
    return failure(name, "a number is too large", "numbers that fit a double");
  }
}

Result<std::string> read_file(const std::filesystem::path& path, std::size_t limit_bytes) {
  std::error_code ec;
  if (std::filesystem::is_directory(path, ec)) return failure(path.string(), "this is a folder", "a file");
  std::ifstream in(path, std::ios::binary);
  if (!in) return failure(path.string(), std::strerror(errno), "a file that can be read");
  std::string content;
  char block[1 << 16];
  while (in.read(block, sizeof block) || in.gcount() > 0) {
    content.append(block, static_cast<std::size_t>(in.gcount()));
    if (content.size() > limit_bytes)
      return failure(path.string(), "the file is too large", "at most " + std::to_string(limit_bytes >> 20) + " MiB");
  }
  return content;
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

constexpr std::string_view half_written = ".rigging-";

/// What a run that was killed while it wrote left beside the file, when that is ten minutes before `fresh` was made.
void sweep(const std::filesystem::path& folder, const std::string& fresh) {
  struct stat now {};
  if (::stat(fresh.c_str(), &now) != 0) return;
  std::error_code ec;
  for (std::filesystem::directory_iterator it(folder, ec), end; !ec && it != end; it.increment(ec)) {
    const std::string name = it->path().filename().string();
    struct stat then {};
    if (name.size() == half_written.size() + 6 && name.starts_with(half_written) &&
        ::stat(it->path().c_str(), &then) == 0 && now.st_mtime - then.st_mtime > 600)
      ::unlink(it->path().c_str());
  }
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
  const auto refused = [&](int error) -> Result<void> {
    return failure(path.string(), std::string("could not be written: ") + std::strerror(error),
                   "a folder that can be written");
  };
  const auto target = followed(path);
  struct stat now {};
  const bool there = ::stat(target.c_str(), &now) == 0;
  // A file that its owner has protected is not replaced behind his back, even where the folder would allow it. The
  // permission bits count, also for those to whom the system lets everything pass.
  if (there && ((now.st_mode & 0222) == 0 || ::access(target.c_str(), W_OK) != 0))
    return failure(path.string(), "is write-protected", "another name, or a file that may be written");
  auto folder = target.parent_path();
  if (folder.empty()) folder = ".";
  std::string pattern = (folder / (std::string(half_written) + "XXXXXX")).string();
  const int fd = ::mkstemp(pattern.data());
  if (fd < 0) return refused(errno);
  sweep(folder, pattern);
  ::fchmod(fd, there ? now.st_mode & 0777 : 0644);
  bool good = write_all(fd, content);
  int error = errno;
  ::close(fd);
  if (good && there && now.st_nlink > 1) {
    // Other names lead to the same file: it is written where it is. The fresh copy stays beside it until that is done.
    const int same = ::open(target.c_str(), O_WRONLY | O_TRUNC);
    good = same >= 0 && write_all(same, content);
    error = errno;
    if (same >= 0) ::close(same);
    if (good) ::unlink(pattern.c_str());
    return good ? Result<void>{} : refused(error);
  }
  if (good && ::rename(pattern.c_str(), target.c_str()) != 0) {
    good = false;
    error = errno;
  }
  if (good) return {};
  ::unlink(pattern.c_str());
  return refused(error);
}

namespace {
const Json* member(const Json& object, const char* name) {
  if (!object.is_object()) return nullptr;
  const auto it = object.find(name);
  return it == object.end() ? nullptr : &*it;
}
}  // namespace

void rename_member(Json& object, const char* was, const char* is) {
  if (!object.is_object() || !object.contains(was) || object.contains(is)) return;
  object[is] = std::move(object[was]);
  object.erase(was);
}

std::string text_member(const Json& object, const char* name, std::string fallback) {
  const Json* m = member(object, name);
  return m && m->is_string() ? m->get<std::string>() : fallback;
}

double number_member(const Json& object, const char* name, double fallback) {
  const Json* m = member(object, name);
  return m && m->is_number() ? m->get<double>() : fallback;
}

bool flag_member(const Json& object, const char* name, bool fallback) {
  const Json* m = member(object, name);
  return m && m->is_boolean() ? m->get<bool>() : fallback;
}

std::vector<std::string> texts_member(const Json& object, const char* name) {
  std::vector<std::string> texts;
  if (const Json* m = member(object, name); m && m->is_array())
    for (const Json& item : *m)
      if (item.is_string()) texts.push_back(item.get<std::string>());
  return texts;
}

Result<Json> read_json_file(const std::filesystem::path& path) {
  return read_file(path).and_then([&](const std::string& text) { return parse_json(text, path.string()); });
}

}  // namespace rigging
