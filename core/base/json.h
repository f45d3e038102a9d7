#pragma once

#include <filesystem>
#include <nlohmann/json.hpp>
#include <string_view>

#include "base/json_fwd.h"
#include "base/result.h"

namespace rigging {

/// Reads JSON text. On failure `where` is "name:line:column". Refuses a repeated member name,
/// more than 64 levels and numbers that no double can hold, which the grammar alone would let pass.
Result<Json> parse_json(std::string_view text, const std::string& name);

/// Whole file as bytes. Files over `limit_bytes` are refused.
Result<std::string> read_file(const std::filesystem::path& path, std::size_t limit_bytes = 64u << 20);

/// Writes beside the file, flushes to the disk and renames over it: a reader, or a machine that stops at any
/// moment, finds the old content or the new one.
Result<void> write_file_atomically(const std::filesystem::path& path, std::string_view content);

/// The member `was` under the name `is`, unless there is one of that name.
void rename_member(Json& object, const char* was, const char* is);

/// Members read leniently: the fallback when absent or of another type. For data whose shape nobody has vouched for.
std::string text_member(const Json& object, const char* name, std::string fallback = {});
double number_member(const Json& object, const char* name, double fallback);
bool flag_member(const Json& object, const char* name, bool fallback);
std::vector<std::string> texts_member(const Json& object, const char* name);

Result<Json> read_json_file(const std::filesystem::path& path);

}  // namespace rigging
