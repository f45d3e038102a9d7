#include "edit/edit.h"

#include "base/fields.h"
#include "base/find.h"
#include "base/json.h"
#include "base/number.h"
#include "rig/path.h"
#include "rig/rig_file.h"

namespace rigging {
namespace {

std::string names_in(const Members& members) {
  std::string text;
  for (const Member& m : members.list) text += (text.empty() ? "" : ", ") + std::string(m.name);
  return text;
}

/// The value's place in the rig as JSON; an error when there is none.
Result<Json*> find_place(Json& json, const std::string& place) {
  const TypeInfo* type = &TypeOf<Rig>::get();
  Json* at = &json;
  for (const std::string& step : steps_of(place)) {
    if (const TypeInfo* inside = type->present_type()) {
      type = inside;
      // What is set inside of it makes it be there, with the usual values beside.
      if (const Members* m = inside->members(); m && at->is_null())
        *at = Json::parse(write_members(*m, m->standard.get()).dump());
    }
    if (const Members* members = type->members()) {
      const Member* m = members->named(step);
      if (!m) return failure(place, "there is no \"" + step + "\"", "one of " + names_in(*members));
      type = m->type;
      at = &(*at)[step];
      // A section that stands as usual is not written: what is set inside of it finds the usual values beside.
      if (const Members* within = type->members(); within && at->is_null())
        *at = Json::parse(write_members(*within, within->standard.get()).dump());
    } else if (const TypeInfo* item = type->item_type(); item && item->members() && at->is_array()) {
      const char* key = item->members()->list.front().name;
      Json* found = find_in(*at, [&](const Json& entry) {
        const Json& name = entry[key];
        return name.is_string() ? name == step : name.is_number() && number_text(name.get<double>(), 0) == step;
      });
      if (!found) return failure(place, "there is no \"" + step + "\"", "the " + std::string(key) + " of an entry");
      type = item;
      at = found;
    } else {
      return failure(place, "nothing is inside of it", "a single value");
    }
  }
  if (const TypeInfo* inside = type->present_type(); inside && inside->members()) type = inside;
  if (type->members() || (type->item_type() && type->item_type()->members()))
    return failure(place, "is no single value", "a place inside of it");
  return at;
}

Result<Edit> set_edit(const Rig& rig, const Catalogue&, const std::vector<std::string>& given) {
  return set_value_in_words(rig, given[0], given[1]);
}

}  // namespace

Result<Edit> set_values(const Rig& rig, const std::vector<std::pair<std::string, Json>>& values) {
  Json json = Json::parse(rig_text(rig));
  for (const auto& [place, value] : values) {
    if (place.empty()) return failure("the place", "is empty", "one such as airframe/span_m");
    auto at = find_place(json, place);
    if (!at) return tl::make_unexpected(at.error());
    **at = value;
  }
  auto changed = rig_from_json(json, "rig");
  if (!changed) return tl::make_unexpected(changed.error());
  // What was typed is no guess any more.
  constexpr std::string_view airframe = "airframe/";
  for (const auto& [place, value] : values)
    if (place.starts_with(airframe)) std::erase(changed->airframe.guessed, place.substr(airframe.size()));
  const std::string& first = values.front().first;
  const std::string label = capital(place_words(first)) + ": " + value_words(first, value_at(*changed, first));
  return Edit{std::move(*changed), label};
}

Result<Edit> set_value(const Rig& rig, const std::string& place, const Json& value) {
  return set_values(rig, {{place, value}});
}

Result<Edit> set_value_in_words(const Rig& rig, const std::string& place, const std::string& words) {
  std::vector<Json> tries;
  if (words == "nothing") tries.emplace_back(nullptr);
  if (const auto number = number_of(words)) tries.emplace_back(*number);
  if (words == "yes" || words == "true") tries.emplace_back(true);
  if (words == "no" || words == "false") tries.emplace_back(false);
  tries.emplace_back(words);
  Result<Edit> made = set_value(rig, place, tries.front());
  for (std::size_t i = 1; i < tries.size() && !made; ++i)
    if (auto other = set_value(rig, place, tries[i])) made = std::move(other);
  return made;
}

std::vector<EditEntry> general_edits() {
  return {{"set",
           "Set any single value by its place, such as airframe/span_m or outputs/out_1/reversed",
           {"PLACE", "VALUE"},
           set_edit}};
}

}  // namespace rigging
