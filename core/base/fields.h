#pragma once

#include <algorithm>
#include <cmath>
#include <optional>
#include <string>
#include <type_traits>
#include <vector>

#include "base/json.h"
#include "base/number.h"
#include "base/words.h"

/// One description of a struct serves reading, writing and comparing:
///
///     template <class F> void describe(F& f, Place& p) {
///       f.required("part", p.part);
///       f.number("x_m", p.x_m, {-10, 10});
///       f.rest(p.extra);
///     }
namespace rigging {

/// Allowed values, both ends included, in the unit of the member's name.
struct Span {
  double least;
  double most;
};

template <class T>
inline constexpr bool is_worded = std::is_enum_v<T>;

/// Reads members out of a JSON object. The first error stops everything that follows.
class FieldReader {
 public:
  FieldReader(const Json& object, std::string path, std::optional<Error>& error)
      : object_(object), path_(std::move(path)), error_(error) {
    if (!object.is_object()) fail(path_, object, "an object");
  }

  template <class T>
  void required(const char* name, T& value) {
    if (const Json* json = find(name, true)) read(*json, place(name), value);
  }
  template <class T>
  void optional(const char* name, T& value) {
    if (const Json* json = find(name, false)) read(*json, place(name), value);
  }
  void number(const char* name, double& value, Span span) {
    if (const Json* json = find(name, true)) read_number(*json, place(name), value, span);
  }
  void number(const char* name, std::optional<double>& value, Span span) {
    if (const Json* json = find(name, false)) read_number(*json, place(name), value.emplace(), span);
  }
  /// Absent means `fallback`.
  void number_or(const char* name, double& value, double fallback, Span span) {
    value = fallback;
    if (const Json* json = find(name, false)) read_number(*json, place(name), value, span);
  }
  /// A list of numbers; absent means empty.
  void numbers(const char* name, std::vector<double>& list, Span span) {
    list.clear();
    const Json* json = find(name, false);
    if (!json) return;
    if (!json->is_array()) return fail(place(name), *json, "a list of numbers");
    for (std::size_t i = 0; i < json->size() && !error_; ++i)
      read_number((*json)[i], place(name) + "/" + std::to_string(i), list.emplace_back(), span);
  }
  void flag_or(const char* name, bool& value, bool fallback) {
    value = fallback;
    optional(name, value);
  }
  void integer(const char* name, int& value, Span span) {
    const Json* json = find(name, true);
    if (!json) return;
    if (!json->is_number_integer() || json->get<double>() < span.least || json->get<double>() > span.most)
      return fail(place(name), *json,
                  "a whole number from " + number_text(span.least, 0) + " to " + number_text(span.most, 0));
    value = json->get<int>();
  }
  /// Members that this version does not know are kept, so that nothing written by another one is lost.
  void rest(Json& extra) {
    extra = Json::object();
    if (error_) return;
    for (const auto& [name, value] : object_.items())
      if (std::find(known_.begin(), known_.end(), name) == known_.end()) extra[name] = value;
  }

 private:
  std::string place(const char* name) const { return path_ + "/" + name; }

  const Json* find(const char* name, bool needed) {
    known_.emplace_back(name);
    if (error_) return nullptr;
    const auto it = object_.find(name);
    if (it != object_.end() && !(it->is_null() && !needed)) return &*it;
    if (needed) error_ = Error{path_.empty() ? "/" : path_, "\"" + std::string(name) + "\" is missing", "this member"};
    return nullptr;
  }

  void fail(const std::string& where, const Json& value, const std::string& expected) {
    std::string text = value.dump(-1, ' ', false, Json::error_handler_t::replace);
    if (text.size() > 60) text = text.substr(0, 57) + "…";
    if (!error_) error_ = Error{where.empty() ? "/" : where, "is " + text, expected};
  }

  void read_number(const Json& json, const std::string& where, double& value, Span span) {
    if (!json.is_number() || !(json.get<double>() >= span.least && json.get<double>() <= span.most))
      return fail(where, json, "a number from " + number_text(span.least, 6) + " to " + number_text(span.most, 6));
    value = json.get<double>();
  }

  template <class T>
  void read(const Json& json, const std::string& where, T& value) {
    if (error_) return;
    if constexpr (std::is_same_v<T, bool>) {
      if (!json.is_boolean()) return fail(where, json, "true or false");
      value = json.get<bool>();
    } else if constexpr (std::is_same_v<T, std::string>) {
      if (!json.is_string()) return fail(where, json, "text");
      value = json.get<std::string>();
    } else if constexpr (std::is_same_v<T, Json>) {
      value = json;
    } else if constexpr (is_worded<T>) {
      const auto found = json.is_string() ? from_word<T>(json.get_ref<const std::string&>()) : std::nullopt;
      if (!found) return fail(where, json, word_choice<T>());
      value = *found;
    } else {
      read_composite(json, where, value);
    }
  }

  template <class T>
  void read_composite(const Json& json, const std::string& where, std::optional<T>& value) {
    read(json, where, value.emplace());
  }
  template <class T>
  void read_composite(const Json& json, const std::string& where, std::vector<T>& list) {
    if (!json.is_array()) return fail(where, json, "a list");
    list.clear();
    for (std::size_t i = 0; i < json.size() && !error_; ++i)
      read(json[i], where + "/" + std::to_string(i), list.emplace_back());
  }
  template <class T>
  void read_composite(const Json& json, const std::string& where, T& value) {
    if constexpr (requires { value.from_text(std::string()); }) {
      if (!json.is_string() || !value.from_text(json.get<std::string>())) fail(where, json, T::expected());
    } else {
      FieldReader reader(json, where, error_);
      if (!error_) describe(reader, value);
    }
  }

  const Json& object_;
  std::string path_;
  std::optional<Error>& error_;
  std::vector<std::string> known_;
};

/// Writes members in the order of the description; absent optional members and empty lists are left out.
class FieldWriter {
 public:
  OrderedJson object = OrderedJson::object();

  template <class T>
  void required(const char* name, const T& value) {
    object[name] = written(value);
  }
  template <class T>
  void optional(const char* name, const T& value) {
    if (!(value == T{})) object[name] = written(value);
  }
  void number(const char* name, double value, Span) { object[name] = value; }
  void number(const char* name, const std::optional<double>& value, Span) {
    if (value) object[name] = *value;
  }
  void number_or(const char* name, double value, double fallback, Span) {
    if (value != fallback) object[name] = value;
  }
  void numbers(const char* name, const std::vector<double>& list, Span) {
    if (!list.empty()) object[name] = list;
  }
  void flag_or(const char* name, bool value, bool fallback) {
    if (value != fallback) object[name] = value;
  }
  void integer(const char* name, int value, Span) { object[name] = value; }
  void rest(const Json& extra) {
    for (const auto& [name, value] : extra.items()) object[name] = value;
  }

 private:
  template <class T>
  static OrderedJson written(const T& value) {
    if constexpr (std::is_same_v<T, bool> || std::is_same_v<T, std::string> || std::is_same_v<T, Json>) {
      return value;
    } else if constexpr (is_worded<T>) {
      return word(value);
    } else {
      return composite(value);
    }
  }
  template <class T>
  static OrderedJson composite(const std::optional<T>& value) {
    return value ? written(*value) : OrderedJson();
  }
  template <class T>
  static OrderedJson composite(const std::vector<T>& list) {
    OrderedJson json = OrderedJson::array();
    for (const T& item : list) json.push_back(written(item));
    return json;
  }
  template <class T>
  static OrderedJson composite(const T& value) {
    if constexpr (requires { value.to_text(); }) {
      return value.to_text();
    } else {
      FieldWriter writer;
      describe(writer, const_cast<T&>(value));
      return writer.object;
    }
  }
};

template <class T>
Result<T> read_fields(const Json& json, const std::string& file) {
  std::optional<Error> error;
  T value{};
  FieldReader reader(json, "", error);
  if (!error) describe(reader, value);
  if (error) return failure(file + ": " + error->where, error->what, error->expected);
  return value;
}

template <class T>
OrderedJson write_fields(const T& value) {
  FieldWriter writer;
  describe(writer, const_cast<T&>(value));
  return writer.object;
}

}  // namespace rigging
