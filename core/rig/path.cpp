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
  list = spoken(list);
  if (list.size() > 1 && list.back() == 's') list.pop_back();
  return list;
}

}  // namespace

std::string entry_name(const TypeInfo& list, const void* item) {
  const Members* members = list.item_type()->members();
  if (!members || members->list.empty()) return {};
  const Member& first = members->list.front();
  const Value name = first.kind->fact(first.in(item));
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
  const TypeInfo* kind = &TypeOf<Rig>::get();
  const void* value = &rig;
  for (const std::string& step : steps_of(place)) {
    if (const TypeInfo* inside = kind->present_type()) {
      value = kind->present(value);
      if (!value) return {};
      kind = inside;
    }
    if (const Members* members = kind->members()) {
      const Member* m = members->named(step);
      if (!m) return {};
      kind = m->kind;
      value = m->in(value);
    } else if (kind->item_type()) {
      value = entry(*kind, value, step);
      if (!value) return {};
      kind = kind->item_type();
    } else {
      return {};
    }
  }
  return kind->fact(value);
}

Dependencies values_at(const Rig& rig, const std::vector<std::string>& places) {
  Dependencies all;
  for (const std::string& place : places) all.emplace(place, value_at(rig, place));
  return all;
}

std::string place_words(const std::string& place) {
  const auto steps = steps_of(place);
  std::string words;
  const TypeInfo* kind = &TypeOf<Rig>::get();
  for (std::size_t i = 0; kind && i < steps.size(); ++i) {
    if (const TypeInfo* inside = kind->present_type()) kind = inside;
    const Member* m = kind->members() ? kind->members()->named(steps[i]) : nullptr;
    if (!m) return place;
    kind = m->kind;
    if (kind->item_type() && i + 1 < steps.size()) {
      words += (words.empty() ? "" : ", ") + singular(steps[i]) + " " + steps[i + 1];
      kind = kind->item_type();
      ++i;
    } else if (i + 1 == steps.size() || i == 0) {
      // A section that only holds a list is not named.
      if (i == 0 && steps.size() > 2 && kind->members()) continue;
      std::string name = *m->spoken ? m->spoken : spoken(steps[i]);
      words += (words.empty() ? "" : ", ") + name;
    }
  }
  return words;
}

std::string value_words(const std::string& place, const Value& fact) {
  if (const auto* yes = std::get_if<bool>(&fact)) return *yes ? "yes" : "no";
  if (const auto* text = std::get_if<std::string>(&fact)) return text->empty() ? "none" : *text;
  if (const auto* number = std::get_if<double>(&fact)) {
    const auto unit = unit_of_name(steps_of(place).back());
    const Shown s = shown(unit);
    return number_text(*number * s.factor, s.factor == 1 ? 6 : s.places + 1) +
           (unit.empty() ? "" : (unit == "°" || unit == "%" ? "" : " ") + std::string(s.unit));
  }
  return "nothing";
}

}  // namespace rigging
