#include "base/json.h"

#include <algorithm>
#include <vector>

#include "base/clean_text.h"
#include "base/file.h"

namespace rigging {
namespace {

std::string place_in(std::string_view text, const std::string& name, std::size_t byte) {
  const std::size_t end = std::min(byte == 0 ? 0 : byte - 1, text.size());
  const auto line = 1 + std::count(text.begin(), text.begin() + static_cast<std::ptrdiff_t>(end), '\n');
  const std::size_t last = end == 0 ? std::string_view::npos : text.substr(0, end).rfind('\n');
  const std::size_t column = last == std::string_view::npos ? end + 1 : end - last;
  return name + ":" + std::to_string(line) + ":" + std::to_string(column);
}

/// Builds the value while it is read, so that limits hold before anything grows.
class Builder final : public nlohmann::json_sax<Json> {
 public:
  Json root;
  std::optional<Error> error;  ///< without a place
  std::size_t error_at = 0;    ///< byte, where the grammar was broken; else 0

  bool null() override { return put(nullptr) != nullptr; }
  bool boolean(bool value) override { return put(value) != nullptr; }
  bool number_integer(number_integer_t value) override { return put(value) != nullptr; }
  bool number_unsigned(number_unsigned_t value) override { return put(value) != nullptr; }
  bool number_float(number_float_t value, const string_t&) override { return put(value) != nullptr; }
  bool string(string_t& value) override { return put(std::move(value)) != nullptr; }
  bool binary(binary_t&) override { return false; }  // JSON text has none
  bool start_object(std::size_t) override { return open(Json::object()); }
  bool start_array(std::size_t) override { return open(Json::array()); }
  bool end_object() override { return close(); }
  bool end_array() override { return close(); }
  bool key(string_t& name) override {
    auto [at, fresh] = open_.back()->get_ref<Json::object_t&>().emplace(std::move(name), nullptr);
    if (!fresh) return refuse("member \"" + at->first + "\" is given twice in one object", "each member once");
    next_ = &at->second;
    return true;
  }
  bool parse_error(std::size_t byte, const std::string&, const nlohmann::detail::exception& what) override {
    error_at = byte;
    // 406 of the library: a number beyond every double.
    return what.id == 406 ? refuse("a number is too large", "numbers that fit a double")
                          : refuse("this is not JSON", "a JSON value");
  }

 private:
  bool refuse(std::string what, std::string expected) {
    error = Error{{}, std::move(what), std::move(expected)};
    return false;
  }
  Json* put(Json value) {
    if (++count_ > most_json_values) {
      refuse("holds too many values", "at most " + std::to_string(most_json_values));
      return nullptr;
    }
    if (open_.empty()) {
      root = std::move(value);
      return &root;
    }
    Json* at = next_;
    if (open_.back()->is_array())
      at = &open_.back()->get_ref<Json::array_t&>().emplace_back(std::move(value));
    else
      *at = std::move(value);
    return at;
  }
  bool open(Json value) {
    if (open_.size() >= deepest_json)
      return refuse("nested too deep", "at most " + std::to_string(deepest_json) + " levels");
    Json* at = put(std::move(value));
    if (at) open_.push_back(at);
    return at;
  }
  bool close() {
    open_.pop_back();
    return true;
  }

  std::vector<Json*> open_;  ///< the objects and arrays that are being read, outermost first
  Json* next_ = nullptr;     ///< the member whose name was read last
  std::size_t count_ = 0;
};

}  // namespace

PartOfJson parse_json_as_far_as_it_goes(std::string_view text, const std::string& name) {
  if (text.size() > most_json_bytes)
    return {{}, Error{name, "the text is too large", "at most " + std::to_string(most_json_bytes >> 20) + " MiB"}};
  Builder builder;
  if (Json::sax_parse(text.begin(), text.end(), &builder)) return {std::move(builder.root), {}};
  Error error = builder.error.value_or(Error{{}, "this is not JSON", "a JSON value"});
  error.where = builder.error_at ? place_in(text, name, builder.error_at) : name;
  return {std::move(builder.root), std::move(error)};
}

Result<Json> parse_json(std::string_view text, const std::string& name) {
  PartOfJson part = parse_json_as_far_as_it_goes(text, name);
  if (part.error) return tl::make_unexpected(std::move(*part.error));
  return std::move(part.read);
}

namespace {
const Json* member(const Json& object, const char* name) {
  if (!object.is_object()) return nullptr;
  const auto it = object.find(name);
  return it == object.end() ? nullptr : &*it;
}
}  // namespace

std::string in_short(const Json& value) {
  return clean_text(value.dump(-1, ' ', false, Json::error_handler_t::replace), 60);
}

void add_member(OrderedJson& object, const std::string& name, OrderedJson value) {
  auto& members = object.get_ref<OrderedJson::object_t&>();
  members.OrderedJson::object_t::Container::emplace_back(name, std::move(value));
}

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
