#pragma once

#include "base/described.h"
#include "base/json.h"

/// Whole values out of JSON and into it, by their description.
namespace rigging {

void read_members(const Json& json, const std::string& where, std::optional<Error>& error, const Members& members,
                  void* object);
OrderedJson write_members(const Members& members, const void* object);
OrderedJson schema_of_members(const Members& members);

template <class T>
Result<T> read_fields(const Json& json, const std::string& file) {
  std::optional<Error> error;
  T value{};
  read_members(json, "", error, Described<T>::members(), &value);
  if (error) return failure(file + ": " + error->where, error->what, error->expected);
  return value;
}

/// The first member, at any depth, that the description does not have. For input that is typed by hand, where a slip
/// must not be passed over.
std::optional<Error> unknown_member(const Json& json, const std::string& where, const Members& members);

/// As `read_fields`, and nothing may stand there that it does not know.
template <class T>
Result<T> read_exactly(const Json& json, const std::string& file) {
  Result<T> value = read_fields<T>(json, file);
  if (!value) return value;
  if (const auto unknown = unknown_member(json, "", Described<T>::members()))
    return failure(file + ": " + unknown->where, unknown->what, unknown->expected);
  return value;
}

/// Members in the order of the description, those of other versions behind them.
template <class T>
OrderedJson write_fields(const T& value) {
  return write_members(Described<T>::members(), &value);
}

/// What a file would be refused for if it held this value: the member that is outside of its range, with its place.
template <class T>
Result<void> in_range(const T& value, const std::string& where) {
  const auto read = read_fields<T>(Json::parse(write_fields(value).dump()), where);
  if (!read) return tl::make_unexpected(read.error());
  return {};
}

/// The whole schema of a file (JSON Schema, draft 7).
OrderedJson schema_of(const Members& members, const std::string& title, const std::string& description);

}  // namespace rigging
