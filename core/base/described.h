#pragma once

#include <cstddef>
#include <memory>
#include <optional>
#include <string>
#include <type_traits>
#include <variant>
#include <vector>

#include "base/json_fwd.h"
#include "base/result.h"
#include "base/unknown_members.h"
#include "base/words.h"

/// One description of a struct, written once in the struct's source file, serves reading, writing, the schema of the
/// file and the boxes of forms. In the header, behind the struct:
///
///     template <>
///     const Members& Described<Place>::members();
///
/// and in the source file:
///
///     template <>
///     const Members& Described<Place>::members() {
///       static const Members all = Describe<Place>()
///           .needed("part", &Place::part)
///           .needed("x_m", &Place::x_m, {-20, 20}, "along the fuselage")
///           .member("roll_deg", &Place::roll_deg, {-20, 20}, "roll")
///           .rest(&Place::extra);
///       return all;
///     }
///
/// `needed` must be in the file and is always written; a `member` that is absent keeps its default and is written when
/// it differs from it. Numbers have a range, both ends included, in the unit of the name's ending.
namespace rigging {

/// Allowed values, both ends included, in the unit of the member's name.
struct Span {
  double least = 0;
  double most = 0;
};

struct Members;

/// One value of a document as data: nothing, yes or no, a number, a text.
using Value = std::variant<std::monostate, bool, double, std::string>;

/// How members of one type are read, written, compared and told of in a schema.
class TypeInfo {
 public:
  virtual ~TypeInfo() = default;
  /// Sets `error` when the value does not fit; `where` is its place in the file.
  virtual void read(const Json& json, const std::string& where, Span span, std::optional<Error>& error,
                    void* value) const = 0;
  virtual OrderedJson write(const void* value) const = 0;
  virtual OrderedJson schema(Span span) const = 0;
  virtual bool equal(const void* a, const void* b) const = 0;
  /// A single value; nothing for lists of structs and structs.
  virtual Value value(const void*) const { return {}; }
  /// Of a struct, else null.
  virtual const Members* members() const { return nullptr; }
  /// Of a list, else null; then its entries.
  virtual const TypeInfo* item_type() const { return nullptr; }
  virtual std::size_t size(const void*) const { return 0; }
  virtual const void* item(const void*, std::size_t) const { return nullptr; }
  /// Of what may be absent, else null; then what is there, or null.
  virtual const TypeInfo* present_type() const { return nullptr; }
  virtual const void* present(const void*) const { return nullptr; }
};

/// What a text holds at most, letters; a list where its description says nothing else; and what is kept of members that
/// this version does not know. More than any aircraft needs, and little enough that nothing accepted takes seconds.
inline constexpr std::size_t most_letters = 2000, most_entries = 100, most_unknown_members = 300,
                             most_unknown_entries = 5000, most_unknown_bytes = 8000;

/// What is known of one member.
struct Member {
  const char* name = "";
  const TypeInfo* type = nullptr;
  std::ptrdiff_t offset = 0;
  bool needed = false;
  Span span{};                      ///< of numbers
  const char* label = "";           ///< "span", "root chord"; empty when nobody is asked for it
  std::size_t most = most_entries;  ///< entries of a list

  const void* in(const void* object) const { return static_cast<const char*>(object) + offset; }
  void* in(void* object) const { return static_cast<char*>(object) + offset; }
};

/// What is known of a struct.
struct Members {
  std::vector<Member> list;
  std::shared_ptr<const void> standard;           ///< a default-constructed one
  std::optional<std::ptrdiff_t> unknown_members;  ///< where members of other versions are kept

  const Member* named(const std::string& name) const;
  const Member* at(std::ptrdiff_t offset) const;
};

template <class T>
struct Described {
  static const Members& members();
};

/// The kinds of which there is one.
const TypeInfo& number_type();
const TypeInfo& optional_number_type();
const TypeInfo& whole_number_type();
const TypeInfo& numbers_type();
const TypeInfo& flag_type();
const TypeInfo& text_type();

/// What a type made of others must know of its type.
struct EnumType {
  std::vector<std::string_view> words;
  std::size_t (*index)(const void*);
  void (*set)(void*, std::size_t);
};
struct NamedType {
  std::string (*to_text)(const void*);
  bool (*from_text)(void*, const std::string&);
  std::string expected;
  std::vector<std::string> choices;
};
struct ListType {
  std::size_t (*size)(const void*);
  const void* (*item)(const void*, std::size_t);
  void (*clear)(void*);
  void* (*add)(void*);
  bool (*equal)(const void*, const void*);
};
struct OptionalType {
  const void* (*item)(const void*);  ///< null when absent
  void* (*make)(void*);
  bool (*equal)(const void*, const void*);
};
struct StructType {
  const Members& (*members)();
  bool (*equal)(const void*, const void*);
};
std::unique_ptr<const TypeInfo> make_type(EnumType type);
std::unique_ptr<const TypeInfo> make_type(NamedType type);
std::unique_ptr<const TypeInfo> make_type(ListType type, const TypeInfo& item);
std::unique_ptr<const TypeInfo> make_type(OptionalType type, const TypeInfo& item);
std::unique_ptr<const TypeInfo> make_type(StructType type);

template <class T>
struct TypeOf {
  static bool equal(const void* a, const void* b) { return *static_cast<const T*>(a) == *static_cast<const T*>(b); }

  static const TypeInfo& get() {
    if constexpr (std::is_same_v<T, double>) {
      return number_type();
    } else if constexpr (std::is_same_v<T, int>) {
      return whole_number_type();
    } else if constexpr (std::is_same_v<T, bool>) {
      return flag_type();
    } else if constexpr (std::is_same_v<T, std::string>) {
      return text_type();
    } else if constexpr (std::is_enum_v<T>) {
      static const auto type = [] {
        EnumType t{{},
                   [](const void* value) {
                     std::size_t i = 0;
                     while (i < Names<T>::list.size() && Names<T>::list[i].first != *static_cast<const T*>(value)) ++i;
                     return i;
                   },
                   [](void* value, std::size_t i) { *static_cast<T*>(value) = Names<T>::list[i].first; }};
        for (const auto& [value, word] : Names<T>::list) t.words.push_back(word);
        return make_type(std::move(t));
      }();
      return *type;
    } else if constexpr (requires { T::choices(); }) {
      static const auto type = make_type(
          NamedType{[](const void* value) { return static_cast<const T*>(value)->to_text(); },
                    [](void* value, const std::string& text) { return static_cast<T*>(value)->from_text(text); },
                    T::expected(), T::choices()});
      return *type;
    } else {
      static const auto type = make_type(StructType{&Described<T>::members, &equal});
      return *type;
    }
  }
};
template <>
struct TypeOf<std::optional<double>> {
  static const TypeInfo& get() { return optional_number_type(); }
};
template <>
struct TypeOf<std::vector<double>> {
  static const TypeInfo& get() { return numbers_type(); }
};
template <class T>
struct TypeOf<std::vector<T>> {
  using List = std::vector<T>;
  static const TypeInfo& get() {
    static const auto type = make_type(
        ListType{
            [](const void* list) { return static_cast<const List*>(list)->size(); },
            [](const void* list, std::size_t i) -> const void* { return &(*static_cast<const List*>(list))[i]; },
            [](void* list) { static_cast<List*>(list)->clear(); },
            [](void* list) -> void* { return &static_cast<List*>(list)->emplace_back(); },
            [](const void* a, const void* b) { return *static_cast<const List*>(a) == *static_cast<const List*>(b); }},
        TypeOf<T>::get());
    return *type;
  }
};
template <class T>
struct TypeOf<std::optional<T>> {
  using Optional = std::optional<T>;
  static const TypeInfo& get() {
    static const auto type =
        make_type(OptionalType{[](const void* value) -> const void* {
                                 const auto& o = *static_cast<const Optional*>(value);
                                 return o ? &*o : nullptr;
                               },
                               [](void* value) -> void* { return &static_cast<Optional*>(value)->emplace(); },
                               [](const void* a, const void* b) {
                                 return *static_cast<const Optional*>(a) == *static_cast<const Optional*>(b);
                               }},
                  TypeOf<T>::get());
    return *type;
  }
};

/// Writes a description down.
template <class T>
class Describe {
 public:
  Describe() : standard_(std::make_shared<const T>()) { all_.standard = standard_; }

  template <class M>
  Describe& needed(const char* name, M T::*member, Span span = {}, const char* label = "") {
    return add(name, member, true, span, label);
  }
  template <class M>
  Describe& member(const char* name, M T::*member, Span span = {}, const char* label = "") {
    return add(name, member, false, span, label);
  }
  /// The list described last may have this many entries.
  Describe& at_most(std::size_t entries) {
    all_.list.back().most = entries;
    return *this;
  }
  Members rest(UnknownMembers T::*extra) {
    all_.unknown_members = offset(extra);
    return std::move(all_);
  }
  /// Of a struct that keeps nothing it does not know.
  Members done() { return std::move(all_); }

 private:
  template <class M>
  std::ptrdiff_t offset(M T::*member) const {
    return reinterpret_cast<const char*>(&((*standard_).*member)) - reinterpret_cast<const char*>(standard_.get());
  }
  template <class M>
  Describe& add(const char* name, M T::*member, bool needed, Span span, const char* label) {
    all_.list.push_back({name, &TypeOf<M>::get(), offset(member), needed, span, label, most_entries});
    return *this;
  }

  std::shared_ptr<const T> standard_;
  Members all_;
};

/// What is known of a member: `member_of(&Airframe::span_m)`. Asking for one that is not described is a fault of the
/// program.
template <class T, class M>
const Member& member_of(M T::*member) {
  const Members& all = Described<T>::members();
  const auto* object = static_cast<const T*>(all.standard.get());
  const Member* found =
      all.at(reinterpret_cast<const char*>(&(object->*member)) - reinterpret_cast<const char*>(object));
  if (!found) std::abort();
  return *found;
}

}  // namespace rigging
