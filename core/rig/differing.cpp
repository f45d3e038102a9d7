#include "rig/differing.h"

#include "base/json.h"
#include "rig/path.h"
#include "rig/rig_file.h"

namespace rigging {
namespace {

/// A list's entries by the name that a place gives them; by their number where several share one.
std::vector<std::pair<std::string, const void*>> entries(const TypeInfo& list, const void* value) {
  std::vector<std::pair<std::string, const void*>> all;
  for (std::size_t i = 0; value && i < list.size(value); ++i) {
    const void* item = list.item(value, i);
    std::string name = entry_name(list, item);
    const auto same = [&](const auto& e) { return e.first == name; };
    if (name.empty() || std::any_of(all.begin(), all.end(), same)) name += "#" + std::to_string(i + 1);
    all.emplace_back(std::move(name), item);
  }
  return all;
}

class Comparison {
 public:
  std::vector<Differing> found;

  void compare(const TypeInfo& type, const void* a, const void* b, const std::string& place) {
    if (a && b && type.equal(a, b)) return;
    if (const TypeInfo* inside = type.present_type()) {
      const void *in_a = a ? type.present(a) : nullptr, *in_b = b ? type.present(b) : nullptr;
      if (in_a && in_b) return compare(*inside, in_a, in_b, place);
      return say(type, in_a ? a : nullptr, in_b ? b : nullptr, place);
    }
    if (!a || !b) return say(type, a, b, place);
    const auto below = [&](const std::string& step) { return place.empty() ? step : place + "/" + step; };
    if (const Members* members = type.members()) {
      for (const Member& m : members->list) compare(*m.type, m.in(a), m.in(b), below(m.name));
    } else if (type.item_type() && type.item_type()->members()) {
      const auto theirs = entries(type, a), mine = entries(type, b);
      const auto in = [](const auto& list, const std::string& name) -> const void* {
        for (const auto& [n, item] : list)
          if (n == name) return item;
        return nullptr;
      };
      for (const auto& [name, item] : theirs) compare(*type.item_type(), item, in(mine, name), below(path_of({name})));
      for (const auto& [name, item] : mine)
        if (!in(theirs, name)) compare(*type.item_type(), nullptr, item, below(path_of({name})));
    } else {
      say(type, a, b, place);
    }
  }

 private:
  void say(const TypeInfo& type, const void* a, const void* b, const std::string& place) {
    const auto words = [&](const void* value) -> std::string {
      if (!value) return "not there";
      if (type.members() || (type.item_type() && type.item_type()->members())) return "there";
      const Value fact = type.value(value);
      return std::holds_alternative<std::monostate>(fact) ? type.write(value).dump() : value_words(place, fact);
    };
    found.push_back({place_words(place), words(a), words(b)});
  }
};

}  // namespace

std::vector<std::string> differing_members(const Rig& a, const Rig& b) {
  std::vector<std::string> places;
  const auto compare = [&](auto& self, const OrderedJson& x, const OrderedJson& y, const std::string& path) -> void {
    if (x == y) return;
    if (x.is_object() && y.is_object()) {
      for (const auto& [name, value] : x.items())
        if (y.contains(name))
          self(self, value, y[name], path + "/" + name);
        else
          places.push_back(path + "/" + name);
      for (const auto& [name, value] : y.items())
        if (!x.contains(name)) places.push_back(path + "/" + name);
    } else if (x.is_array() && y.is_array() && x.size() == y.size()) {
      for (std::size_t i = 0; i < x.size(); ++i) self(self, x[i], y[i], path + "/" + std::to_string(i));
    } else {
      places.push_back(path);
    }
  };
  compare(compare, rig_to_json(a), rig_to_json(b), "");
  return places;
}

std::vector<Differing> differing_words(const Rig& a, const Rig& b) {
  Comparison comparison;
  comparison.compare(TypeOf<Rig>::get(), &a, &b, "");
  if (comparison.found.empty() && !(a == b))
    comparison.found.push_back({"members of another version", "differ", "differ"});
  return comparison.found;
}

}  // namespace rigging
