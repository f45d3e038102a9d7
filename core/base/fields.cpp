#include "base/fields.h"

#include <algorithm>
#include <cmath>

#include "base/json.h"
#include "base/number.h"
#include "base/wrapped.h"

namespace rigging {
namespace {

void fail(std::optional<Error>& error, const std::string& where, const Json& value, const std::string& expected) {
  if (!error) error = Error{where.empty() ? "/" : where, "is " + in_short(value), expected};
}

bool within(const Json& json, Span span) {
  return json.is_number() && json.get<double>() >= span.least && json.get<double>() <= span.most;
}

std::string range_words(Span span, int places) {
  return number_text(span.least, places) + " to " + number_text(span.most, places);
}

OrderedJson range_schema(const char* type, Span span) {
  return {{"type", type}, {"minimum", span.least}, {"maximum", span.most}};
}

template <class T>
const T& as(const void* value) {
  return *static_cast<const T*>(value);
}
template <class T>
T& as(void* value) {
  return *static_cast<T*>(value);
}

template <class T>
class PlainTypeInfo : public TypeInfo {
 public:
  OrderedJson write(const void* value) const override { return as<T>(value); }
  bool equal(const void* a, const void* b) const override { return as<T>(a) == as<T>(b); }
};

class NumberTypeInfo : public PlainTypeInfo<double> {
 public:
  void read(const Json& json, const std::string& where, Span span, std::optional<Error>& error,
            void* value) const override {
    if (!within(json, span)) return fail(error, where, json, "a number from " + range_words(span, 6));
    as<double>(value) = json.get<double>();
  }
  OrderedJson schema(Span span) const override { return range_schema("number", span); }
  Value value(const void* value) const override { return as<double>(value); }
};

class WholeNumberTypeInfo : public PlainTypeInfo<int> {
 public:
  void read(const Json& json, const std::string& where, Span span, std::optional<Error>& error,
            void* value) const override {
    // "8.0" is whole, too: other programs write every number with a point.
    if (!within(json, span) || json.get<double>() != std::floor(json.get<double>()))
      return fail(error, where, json, "a whole number from " + range_words(span, 0));
    as<int>(value) = static_cast<int>(json.get<double>());
  }
  OrderedJson schema(Span span) const override { return range_schema("integer", span); }
  Value value(const void* value) const override { return static_cast<double>(as<int>(value)); }
};

class NumbersTypeInfo : public PlainTypeInfo<std::vector<double>> {
 public:
  void read(const Json& json, const std::string& where, Span span, std::optional<Error>& error,
            void* value) const override {
    if (!json.is_array()) return fail(error, where, json, "a list of numbers");
    auto& list = as<std::vector<double>>(value);
    list.clear();
    for (std::size_t i = 0; i < json.size() && !error; ++i)
      number_type().read(json[i], where + "/" + std::to_string(i), span, error, &list.emplace_back());
  }
  OrderedJson schema(Span span) const override { return {{"type", "array"}, {"items", range_schema("number", span)}}; }
};

class FlagTypeInfo : public PlainTypeInfo<bool> {
 public:
  void read(const Json& json, const std::string& where, Span, std::optional<Error>& error, void* value) const override {
    if (!json.is_boolean()) return fail(error, where, json, "true or false");
    as<bool>(value) = json.get<bool>();
  }
  OrderedJson schema(Span) const override { return {{"type", "boolean"}}; }
  Value value(const void* value) const override { return as<bool>(value); }
};

class TextTypeInfo : public PlainTypeInfo<std::string> {
 public:
  void read(const Json& json, const std::string& where, Span, std::optional<Error>& error, void* value) const override {
    if (!json.is_string()) return fail(error, where, json, "text");
    const auto& text = json.get_ref<const std::string&>();
    if (letters(text) > most_letters)
      return fail(error, where, json, "text of at most " + std::to_string(most_letters) + " letters");
    as<std::string>(value) = text;
  }
  OrderedJson schema(Span) const override { return {{"type", "string"}, {"maxLength", most_letters}}; }
  Value value(const void* value) const override { return as<std::string>(value); }
};

class EnumTypeInfo : public TypeInfo {
 public:
  explicit EnumTypeInfo(EnumType type) : type_(std::move(type)) {}
  void read(const Json& json, const std::string& where, Span, std::optional<Error>& error, void* value) const override {
    const auto found = json.is_string()
                           ? std::find(type_.words.begin(), type_.words.end(), json.get_ref<const std::string&>())
                           : type_.words.end();
    if (found == type_.words.end()) return fail(error, where, json, choice_of(type_.words));
    type_.set(value, static_cast<std::size_t>(found - type_.words.begin()));
  }
  OrderedJson write(const void* value) const override { return type_.words[type_.index(value)]; }
  OrderedJson schema(Span) const override { return {{"enum", type_.words}}; }
  Value value(const void* value) const override { return std::string(type_.words[type_.index(value)]); }
  bool equal(const void* a, const void* b) const override { return type_.index(a) == type_.index(b); }

 private:
  EnumType type_;
};

class NamedTypeInfo : public TypeInfo {
 public:
  explicit NamedTypeInfo(NamedType type) : type_(std::move(type)) {}
  void read(const Json& json, const std::string& where, Span, std::optional<Error>& error, void* value) const override {
    if (!json.is_string() || !type_.from_text(value, json.get_ref<const std::string&>()))
      fail(error, where, json, type_.expected);
  }
  OrderedJson write(const void* value) const override { return type_.to_text(value); }
  OrderedJson schema(Span) const override { return {{"enum", type_.choices}}; }
  Value value(const void* value) const override { return type_.to_text(value); }
  bool equal(const void* a, const void* b) const override { return type_.to_text(a) == type_.to_text(b); }

 private:
  NamedType type_;
};

class ListTypeInfo : public TypeInfo {
 public:
  ListTypeInfo(ListType type, const TypeInfo& item) : type_(type), item_(item) {}
  void read(const Json& json, const std::string& where, Span span, std::optional<Error>& error,
            void* value) const override {
    if (!json.is_array()) return fail(error, where, json, "a list");
    type_.clear(value);
    for (std::size_t i = 0; i < json.size() && !error; ++i)
      item_.read(json[i], where + "/" + std::to_string(i), span, error, type_.add(value));
  }
  OrderedJson write(const void* value) const override {
    OrderedJson json = OrderedJson::array();
    for (std::size_t i = 0; i < type_.size(value); ++i) json.push_back(item_.write(type_.item(value, i)));
    return json;
  }
  OrderedJson schema(Span span) const override { return {{"type", "array"}, {"items", item_.schema(span)}}; }
  Value value(const void* value) const override {
    if (item_.members()) return {};
    std::string text;
    for (std::size_t i = 0; i < size(value); ++i)
      if (const Value one = item_.value(item(value, i)); const auto* word = std::get_if<std::string>(&one))
        text += (text.empty() ? "" : " ") + *word;
    return text;
  }
  const TypeInfo* item_type() const override { return &item_; }
  std::size_t size(const void* value) const override { return type_.size(value); }
  const void* item(const void* value, std::size_t i) const override { return type_.item(value, i); }
  bool equal(const void* a, const void* b) const override { return type_.equal(a, b); }

 private:
  ListType type_;
  const TypeInfo& item_;
};

class OptionalTypeInfo : public TypeInfo {
 public:
  OptionalTypeInfo(OptionalType type, const TypeInfo& item) : type_(type), item_(item) {}
  void read(const Json& json, const std::string& where, Span span, std::optional<Error>& error,
            void* value) const override {
    item_.read(json, where, span, error, type_.make(value));
  }
  OrderedJson write(const void* value) const override {
    const void* item = type_.item(value);
    return item ? item_.write(item) : OrderedJson();
  }
  OrderedJson schema(Span span) const override { return item_.schema(span); }
  Value value(const void* value) const override {
    const void* item = type_.item(value);
    return item ? item_.value(item) : Value{};
  }
  bool equal(const void* a, const void* b) const override { return type_.equal(a, b); }
  const TypeInfo* present_type() const override { return &item_; }
  const void* present(const void* value) const override { return type_.item(value); }

 private:
  OptionalType type_;
  const TypeInfo& item_;
};

class StructTypeInfo : public TypeInfo {
 public:
  explicit StructTypeInfo(StructType type) : type_(type) {}
  void read(const Json& json, const std::string& where, Span, std::optional<Error>& error, void* value) const override {
    read_members(json, where, error, type_.members(), value);
  }
  OrderedJson write(const void* value) const override { return write_members(type_.members(), value); }
  OrderedJson schema(Span) const override { return schema_of_members(type_.members()); }
  const Members* members() const override { return &type_.members(); }
  bool equal(const void* a, const void* b) const override { return type_.equal(a, b); }

 private:
  StructType type_;
};

template <class T>
const TypeInfo& one() {
  static const T type;
  return type;
}

}  // namespace

const TypeInfo& number_type() { return one<NumberTypeInfo>(); }
const TypeInfo& whole_number_type() { return one<WholeNumberTypeInfo>(); }
const TypeInfo& numbers_type() { return one<NumbersTypeInfo>(); }
const TypeInfo& flag_type() { return one<FlagTypeInfo>(); }
const TypeInfo& text_type() { return one<TextTypeInfo>(); }
const TypeInfo& optional_number_type() {
  using Optional = std::optional<double>;
  static const OptionalTypeInfo type(
      OptionalType{[](const void* value) -> const void* {
                     const auto& o = as<Optional>(value);
                     return o ? &*o : nullptr;
                   },
                   [](void* value) -> void* { return &as<Optional>(value).emplace(); },
                   [](const void* a, const void* b) { return as<Optional>(a) == as<Optional>(b); }},
      number_type());
  return type;
}
std::unique_ptr<const TypeInfo> make_type(EnumType type) { return std::make_unique<EnumTypeInfo>(std::move(type)); }
std::unique_ptr<const TypeInfo> make_type(NamedType type) { return std::make_unique<NamedTypeInfo>(std::move(type)); }
std::unique_ptr<const TypeInfo> make_type(ListType type, const TypeInfo& item) {
  return std::make_unique<ListTypeInfo>(type, item);
}
std::unique_ptr<const TypeInfo> make_type(OptionalType type, const TypeInfo& item) {
  return std::make_unique<OptionalTypeInfo>(type, item);
}
std::unique_ptr<const TypeInfo> make_type(StructType type) { return std::make_unique<StructTypeInfo>(type); }

const Member* Members::named(const std::string& name) const {
  for (const Member& m : list)
    if (name == m.name) return &m;
  return nullptr;
}

const Member* Members::at(std::ptrdiff_t offset) const {
  for (const Member& m : list)
    if (m.offset == offset) return &m;
  return nullptr;
}

namespace {

/// What this version does not know is kept as it is, within limits.
std::optional<Error> beyond_limits(const Json& json, const std::string& where) {
  const auto too_much = [&](const char* what, std::size_t n, const char* of, std::size_t most) {
    return Error{where, what + std::to_string(n) + of, "at most " + std::to_string(most)};
  };
  if (json.is_string()) {
    const std::size_t bytes = json.get_ref<const std::string&>().size();
    if (bytes > most_unknown_bytes) return too_much("is a text of ", bytes, " bytes", most_unknown_bytes);
  }
  if (json.is_array() && json.size() > most_unknown_entries)
    return too_much("has ", json.size(), " entries", most_unknown_entries);
  if (json.is_object() && json.size() > most_unknown_members)
    return too_much("has ", json.size(), " members", most_unknown_members);
  if (!json.is_structured()) return std::nullopt;
  std::size_t i = 0;
  for (auto it = json.begin(); it != json.end(); ++it, ++i) {
    const std::string name = json.is_object() ? it.key() : std::to_string(i);
    if (name.size() > most_unknown_bytes)
      return too_much("has a member with a name of ", name.size(), " bytes", most_unknown_bytes);
    if (auto error = beyond_limits(*it, where + "/" + name)) return error;
  }
  return std::nullopt;
}

}  // namespace

void read_members(const Json& json, const std::string& where, std::optional<Error>& error, const Members& members,
                  void* object) {
  if (!json.is_object()) return fail(error, where, json, "an object");
  for (const Member& m : members.list) {
    if (error) return;
    const auto it = json.find(m.name);
    if (it == json.end() || (it->is_null() && !m.needed)) {
      if (m.needed)
        error = Error{where.empty() ? "/" : where, "\"" + std::string(m.name) + "\" is missing", "this member"};
      continue;
    }
    const std::string inside = where + "/" + m.name;
    if (it->is_array() && it->size() > m.most) {
      error = Error{inside, "has " + std::to_string(it->size()) + " entries", "at most " + std::to_string(m.most)};
      return;
    }
    m.type->read(*it, inside, m.span, error, m.in(object));
  }
  if (error || !members.unknown_members) return;
  Json unknown = Json::object();
  for (const auto& [name, value] : json.items())
    if (!members.named(name)) unknown[name] = value;
  if (unknown.size() > most_unknown_members) {
    error = Error{where + "/" + unknown.begin().key(),
                  "is one of " + std::to_string(unknown.size()) + " members that are not known",
                  "at most " + std::to_string(most_unknown_members)};
    return;
  }
  if ((error = beyond_limits(unknown, where))) return;
  as<UnknownMembers>(static_cast<void*>(static_cast<char*>(object) + *members.unknown_members)) =
      UnknownMembers(std::move(unknown));
}

std::optional<Error> unknown_member(const Json& json, const std::string& where, const Members& members) {
  for (const auto& [name, value] : json.items()) {
    const Member* m = members.named(name);
    if (!m) {
      std::string known;
      for (const Member& each : members.list) known += (known.empty() ? "" : ", ") + std::string(each.name);
      return Error{where.empty() ? "/" : where, "unknown member \"" + name + "\"", known};
    }
    const TypeInfo* type = m->type->present_type() ? m->type->present_type() : m->type;
    if (type->members() && value.is_object())
      if (auto found = unknown_member(value, where + "/" + name, *type->members())) return found;
  }
  return {};
}

OrderedJson write_members(const Members& members, const void* object) {
  OrderedJson json = OrderedJson::object();
  for (const Member& m : members.list)
    if (m.needed || !m.type->equal(m.in(object), m.in(members.standard.get())))
      add_member(json, m.name, m.type->write(m.in(object)));
  if (members.unknown_members)
    for (const auto& [name, value] :
         as<UnknownMembers>(static_cast<const void*>(static_cast<const char*>(object) + *members.unknown_members))
             .members()
             .items())
      add_member(json, name, value);
  return json;
}

OrderedJson schema_of_members(const Members& members) {
  OrderedJson needed = OrderedJson::array(), properties = OrderedJson::object();
  for (const Member& m : members.list) {
    OrderedJson one = m.type->schema(m.span);
    if (one.contains("type") && one["type"] == "array") one["maxItems"] = m.most;
    if (m.needed) {
      needed.push_back(m.name);
      if (std::string_view(m.name) == "id") one["minLength"] = 1;
    } else if (const OrderedJson usual = m.type->write(m.in(members.standard.get()));
               usual.is_boolean() ||
               (usual.is_number() && usual.get<double>() >= m.span.least && usual.get<double>() <= m.span.most)) {
      one["default"] = usual;
    }
    properties[m.name] = std::move(one);
  }
  OrderedJson json{{"type", "object"}};
  if (!needed.empty()) json["required"] = needed;
  json["properties"] = properties;
  return json;
}

OrderedJson schema_of(const Members& members, const std::string& title, const std::string& description) {
  OrderedJson json{
      {"$schema", "http://json-schema.org/draft-07/schema#"}, {"title", title}, {"description", description}};
  json.update(schema_of_members(members));
  return json;
}

}  // namespace rigging
