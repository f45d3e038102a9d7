#pragma once

#include <filesystem>
#include <nlohmann/json.hpp>
#include <optional>
#include <string_view>

#include "base/json_fwd.h"
#include "base/result.h"

namespace rigging {

/// What a text may hold at most. Far more than any aircraft needs, and little enough to be read in a moment.
inline constexpr std::size_t most_json_bytes = std::size_t{16} << 20, most_json_values = 500'000;
inline constexpr int deepest_json = 64;

/// Reads JSON text in one pass, in a time that grows with its length. On failure `where` is "name:line:column". Refuses
/// what is beyond the limits above, a repeated member name and numbers that no double can hold.
Result<Json> parse_json(std::string_view text, const std::string& name);

/// As much of a damaged text as stands before its damage, with what is wrong there.
struct PartOfJson {
  Json read;
  std::optional<Error> error;  ///< none when all of it was read
};
PartOfJson parse_json_as_far_as_it_goes(std::string_view text, const std::string& name);

/// For messages: on one line, at most 60 bytes.
std::string in_short(const Json& value);

/// One more member behind the others, which must not be there yet. What the library has for it looks through all of
/// them first.
void add_member(OrderedJson& object, const std::string& name, OrderedJson value);

/// The member `was` under the name `is`, unless there is one of that name.
void rename_member(Json& object, const char* was, const char* is);

/// Members read leniently: the fallback when absent or of another type. For data whose shape nobody has vouched for.
std::string text_member(const Json& object, const char* name, std::string fallback = {});
double number_member(const Json& object, const char* name, double fallback);
bool flag_member(const Json& object, const char* name, bool fallback);
std::vector<std::string> texts_member(const Json& object, const char* name);

Result<Json> read_json_file(const std::filesystem::path& path);

}  // namespace rigging
