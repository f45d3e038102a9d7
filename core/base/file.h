#pragma once

#include <cstddef>
#include <filesystem>
#include <optional>
#include <string>
#include <string_view>

#include "base/result.h"

namespace rigging {

/// Whole file as bytes. Refused: a folder, more than `limit_bytes`, a pipe from which nothing comes for two seconds.
Result<std::string> read_file(const std::filesystem::path& path, std::size_t limit_bytes = 64u << 20);

/// Writes beside the file, flushes to the disk and renames over it: a reader, or a machine that stops at any moment,
/// finds the old content or the new one. Only a file that has other names as well (hard links) is written where it is;
/// until that is done the whole new text stands beside it, see `interrupted_write`. A new file gets what the umask
/// leaves of read and write for all.
Result<void> write_file_atomically(const std::filesystem::path& path, std::string_view content);

/// What a write of this file in its place was about to say, where it was stopped in the middle. Nothing when none was.
std::optional<std::filesystem::path> interrupted_write(const std::filesystem::path& path);

}  // namespace rigging
