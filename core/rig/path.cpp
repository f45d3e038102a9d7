#include "rig/path.h"

#include "base/number.h"
#include "base/units.h"

namespace rigging {
namespace {

/// The entry whose first member says `key`.
const void* entry(const TypeInfo& list, const void* value, const std::string& key) {
  for (std::size_t i = 0; i < list.size(value); ++i) {
    const void* item = list.item(value, i);
    if (const auto name = entry_name(list, item); !name.empty() && name == key) return item;
  }
  return nullptr;
}

std::string singular(std::string list) {
  list = label_of(list);
  if (list.size() > 1 && list.back() == 's') list.pop_back();
  return list;
}

}  // namespace

std::string entry_name(const TypeInfo& list, const void* item) {
  const Members* members = list.item_type()->members();
  if (!members || members->list.empty()) return {};
  const Member& first = members->list.front();
  const Value name = first.type->value(first.in(item));
  if (const auto* text = std::get_if<std::string>(&name)) return *text;
  if (const auto* number = std::get_if<double>(&name)) return number_text(*number, 0);
  return {};
}

std::vector<std::string> steps_of(const std::string& place) {
  std::vector<std::string> steps(1);
  for (std::size_t i = 0; i < place.size(); ++i) {
    if (place[i] == '/')
      steps.emplace_back();
    else if (place[i] == '~' && i + 1 < place.size())
      steps.back() += place[++i] == '1' ? '/' : '~';
    else
      steps.back() += place[i];
  }
  return steps;
}

std::string path_of(std::initializer_list<std::string_view> steps) {
  std::string place;
  for (const std::string_view step : steps) {
    if (!place.empty()) place += '/';
    for (const char c : step) place += c == '~' ? "~0" : c == '/' ? "~1" : std::string(1, c);
  }
  return place;
}

Value value_at(const Rig& rig, const std::string& place) {
  const TypeInfo* type = &TypeOf<Rig>::get();
  const void* value = &rig;
  for (const std::string& step : steps_of(place)) {
    if (const TypeInfo* inside = type->present_type()) {
      value = type->present(value);
      if (!value) return {};
      type = inside;
    }
    if (const Members* members = type->members()) {
      const Member* m = members->named(step);
      if (!m) return {};
      type = m->type;
      value = m->in(value);
    } else if (type->item_type()) {
      value = entry(*type, value, step);
      if (!value) return {};
      type = type->item_type();
    } else {
      return {};
    }
  }
  return type->value(value);
}

Dependencies values_at(const Rig& rig, const std::vector<std::string>& places) {
  Dependencies all;
  for (const std::string& place : places) all.emplace(place, value_at(rig, place));
  return all;
}

std::string place_words(const std::string& place) {
  const auto steps = steps_of(place);
  std::string words;
  const TypeInfo* type = &TypeOf<Rig>::get();
  for (std::size_t i = 0; type && i < steps.size(); ++i) {
    if (const TypeInfo* inside = type->present_type()) type = inside;
    const Member* m = type->members() ? type->members()->named(steps[i]) : nullptr;
    if (!m) return place;
    type = m->type;
    if (type->item_type() && i + 1 < steps.size()) {
      words += (words.empty() ? "" : ", ") + singular(steps[i]) + " " + steps[i + 1];
      type = type->item_type();
      ++i;
    } else if (i + 1 == steps.size() || i == 0) {
      // A section that only holds a list is not named.
      if (i == 0 && steps.size() > 2 && type->members()) continue;
      std::string name = *m->label ? m->label : label_of(steps[i]);
      words += (words.empty() ? "" : ", ") + name;
    }
  }
  return words;
}

std::string value_words(const std::string& place, const Value& value) {
  if (const auto* yes = std::get_if<bool>(&value)) return *yes ? "yes" : "no";
  if (const auto* text = std::get_if<std::string>(&value)) return text->empty() ? "none" : *text;
  if (const auto* number = std::get_if<double>(&value)) {
    const auto steps = steps_of(place);
    const auto unit = unit_of_name(steps.back());
    // Of the field, not of the bench: nobody says a return height in millimetres.
    if (unit == "m" && steps.front() == "home")
      return unit_system() == UnitSystem::metric ? number_text(*number, 3) + " m" : field_text(*number);
    if (steps.back().ends_with("_share")) return number_text(100 * *number, 3) + " %";
    const Shown s = shown(unit);
    // Places are kept in body axes, forward positive, and spoken of as behind the nose.
    const double sign = steps.front() == "places" && steps.back() == "x_m" ? -1 : 1;
    return number_text(sign * *number * s.factor, s.factor == 1 ? 6 : s.places + 1) +
           (unit.empty() ? "" : (unit == "°" || unit == "%" ? "" : " ") + std::string(s.unit));
  }
  return "nothing";
}

}  // namespace rigging
