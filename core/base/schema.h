#pragma once

#include "base/fields.h"

namespace rigging {

/// Turns the description of a struct into a JSON Schema (draft 7), so that schema and reader can't drift apart.
class FieldSchema {
 public:
  OrderedJson properties = OrderedJson::object();
  OrderedJson needed = OrderedJson::array();

  template <class T>
  void required(const char* name, const T&) {
    needed.push_back(name);
    properties[name] = of<T>();
    if (std::string_view(name) == "id") properties[name]["minLength"] = 1;
  }
  template <class T>
  void optional(const char* name, const T&) {
    properties[name] = of<T>();
  }
  void number(const char* name, double, Span span) {
    needed.push_back(name);
    properties[name] = within("number", span);
  }
  void number(const char* name, const std::optional<double>&, Span span) { properties[name] = within("number", span); }
  void number_or(const char* name, double, double fallback, Span span) {
    properties[name] = within("number", span);
    properties[name]["default"] = fallback;
  }
  void numbers(const char* name, const std::vector<double>&, Span span) {
    properties[name] = {{"type", "array"}, {"items", within("number", span)}};
  }
  void flag_or(const char* name, bool, bool fallback) {
    properties[name] = {{"type", "boolean"}, {"default", fallback}};
  }
  void integer(const char* name, int, Span span) {
    needed.push_back(name);
    properties[name] = within("integer", span);
  }
  void rest(const Json&) {}

  template <class T>
  static OrderedJson of() {
    if constexpr (std::is_same_v<T, bool>) {
      return {{"type", "boolean"}};
    } else if constexpr (std::is_same_v<T, std::string>) {
      return {{"type", "string"}};
    } else if constexpr (std::is_same_v<T, Json>) {
      return OrderedJson::object();
    } else if constexpr (is_worded<T>) {
      OrderedJson words = OrderedJson::array();
      for (const auto& [value, word] : Words<T>::list) words.push_back(word);
      return {{"enum", words}};
    } else {
      return composite(static_cast<T*>(nullptr));
    }
  }

 private:
  static OrderedJson within(const char* type, Span span) {
    return {{"type", type}, {"minimum", span.least}, {"maximum", span.most}};
  }
  template <class T>
  static OrderedJson composite(std::optional<T>*) {
    return of<T>();
  }
  template <class T>
  static OrderedJson composite(std::vector<T>*) {
    return {{"type", "array"}, {"items", of<T>()}};
  }
  template <class T>
  static OrderedJson composite(T*) {
    if constexpr (requires { T::choices(); }) {
      return {{"enum", T::choices()}};
    } else {
      FieldSchema inner;
      T value{};
      describe(inner, value);
      OrderedJson json{{"type", "object"}};
      if (!inner.needed.empty()) json["required"] = inner.needed;
      json["properties"] = inner.properties;
      return json;
    }
  }
};

/// The whole schema of a file.
template <class T>
OrderedJson schema_of(const char* title, const char* description) {
  OrderedJson json{
      {"$schema", "http://json-schema.org/draft-07/schema#"}, {"title", title}, {"description", description}};
  json.update(FieldSchema::of<T>());
  return json;
}

}  // namespace rigging
