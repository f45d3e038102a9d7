#include "settings/home_settings.h"

#include "base/fields.h"
#include "base/json.h"
#include "base/number.h"

namespace rigging {
namespace {

constexpr std::size_t most_rows = 64;

Json json_of(const Value& value) {
  return std::visit(
      [](const auto& v) -> Json {
        if constexpr (std::is_same_v<std::decay_t<decltype(v)>, std::monostate>)
          return nullptr;
        else
          return v;
      },
      value);
}

SettingValue setting_value(const Value& value) {
  return std::visit([](const auto& v) -> SettingValue { return v; }, value);
}

/// A member of the plan for home, under the name that it has there. Absent on the board: as a new rig has it.
Setting of_home(const char* name, const char* label, SettingKind kind, std::vector<std::string> words = {},
                std::string yes = {}, std::string no = {}) {
  const Member* m = Described<Home>::members().named(name);
  static const Home standard;
  return {.name = name,
          .of = SettingOf::board,
          .kind = kind,
          .label = label,
          .yes = std::move(yes),
          .no = std::move(no),
          .span = m->span,
          .words = std::move(words),
          .usual = setting_value(m->type->value(m->in(&standard))),
          .always = false,
          .get = [m](const Rig& rig, const std::string&) { return setting_value(m->type->value(m->in(&rig.home))); },
          .set =
              [m](Rig& rig, const std::string&, const SettingValue& v) {
                Json value;
                if (const auto* flag = std::get_if<bool>(&v)) value = *flag;
                if (const auto* number = std::get_if<double>(&v)) value = *number;
                if (const auto* text = std::get_if<std::string>(&v)) value = *text;
                if (value.is_null()) value = Json::parse(m->type->write(m->in(&standard)).dump());
                std::optional<Error> error;
                m->type->read(value, m->name, m->span, error, m->in(&rig.home));
              }};
}

/// A struct as a row: its members but for those that are absent.
template <class T>
SettingRow row_of(const T& item) {
  SettingRow row;
  for (const Member& m : Described<T>::members().list)
    if (Value v = m.type->value(m.in(&item)); !std::holds_alternative<std::monostate>(v))
      row.emplace(m.name, std::move(v));
  return row;
}

template <class T>
Result<T> item_of(const SettingRow& row) {
  Json json = Json::object();
  for (const auto& [name, value] : row) json[name] = json_of(value);
  if (auto error = unknown_member(json, "", Described<T>::members())) return tl::make_unexpected(std::move(*error));
  std::optional<Error> error;
  T item;
  read_members(json, "", error, Described<T>::members(), &item);
  if (error) return tl::make_unexpected(std::move(*error));
  return item;
}

/// A word as a row.
template <>
SettingRow row_of(const GogglesLine& line) {
  return {{"", std::string(name_of(line))}};
}
template <>
Result<GogglesLine> item_of(const SettingRow& row) {
  const auto* text = row.size() == 1 && row.count("") ? std::get_if<std::string>(&row.at("")) : nullptr;
  if (const auto line = text ? from_name<GogglesLine>(*text) : std::nullopt) return *line;
  return failure("", "is no line of the goggles", choice_of<GogglesLine>());
}

std::string misfit_of(const ModeChoice& m) { return m.from_us < m.to_us ? "" : "from_us < to_us"; }
std::string misfit_of(const TriggerChoice&) { return {}; }
std::string misfit_of(GogglesLine) { return {}; }

template <class T>
std::string list_misfit(const SettingValue& value) {
  const auto* list = std::get_if<SettingList>(&value);
  if (!list || list->size() > most_rows) return "a list of at most " + std::to_string(most_rows);
  for (const SettingRow& row : *list) {
    const auto item = item_of<T>(row);
    if (!item) return item.error().expected;
    if (std::string expected = misfit_of(*item); !expected.empty()) return expected;
  }
  return {};
}

/// Empty where it is no list of this kind.
template <class T>
std::vector<T> items_of(const SettingValue& value) {
  std::vector<T> items;
  if (const auto* list = std::get_if<SettingList>(&value))
    for (const SettingRow& row : *list)
      if (auto item = item_of<T>(row)) items.push_back(std::move(*item));
  return items;
}

/// A list of the rig; absent where it is empty.
template <class T, class In>
Setting of_list(const char* name, const char* label, In in, std::string (*words)(const T&)) {
  return {.name = name,
          .of = SettingOf::board,
          .kind = SettingKind::list,
          .label = label,
          .always = false,
          .get = [in](const Rig& rig, const std::string&) -> SettingValue {
            SettingList list;
            for (const T& item : in(rig)) list.push_back(row_of(item));
            return list.empty() ? SettingValue{} : SettingValue(std::move(list));
          },
          .set = [in](Rig& rig, const std::string&, const SettingValue& v) { in(rig) = items_of<T>(v); },
          .say =
              [words](const SettingValue& v) {
                std::string all;
                for (const T& item : items_of<T>(v)) all += (all.empty() ? "" : ", ") + words(item);
                return all;
              },
          .misfit = list_misfit<T>};
}

std::string plain(double v) { return number_text(v, 3); }

std::string mode_words(const ModeChoice& m) {
  return m.mode + " on channel " + std::to_string(m.channel) + " from " + plain(m.from_us) + " to " + plain(m.to_us) +
         " µs";
}
std::string line_words(const GogglesLine& line) { return label_of(name_of(line)); }

}  // namespace

std::string trigger_words(const TriggerChoice& t) {
  return label_of(name_of(t.on)) +
         (t.at ? " at " + plain(*t.at) + (t.on == HomeTrigger::long_loss ? " s" : " m") : std::string()) + ": " +
         label_of(name_of(t.does));
}

std::vector<Setting> home_settings() {
  using K = SettingKind;
  return {
      of_list<ModeChoice>(
          "modes", "modes", [](auto& r) -> auto& { return r.modes; }, mode_words),
      of_home("on_loss", "when the link goes", K::choice, all_names<LossAction>()),
      of_home("loss_hold_s", "wait when the link goes", K::number),
      of_home("climb_first", "climb before the way home", K::flag, {}, "first", "on the way"),
      of_home("return_height_m", "height of the way home", K::number),
      of_home("circle_radius_m", "radius of the circle", K::number),
      of_home("on_arrival", "once it is home", K::choice, all_names<OnArrival>()),
      of_home("turn_home_v", "turns home at", K::number),
      of_list<TriggerChoice>(
          "triggers", "what else makes it act", [](auto& r) -> auto& { return r.home.triggers; }, trigger_words),
      of_home("cruise_throttle", "throttle at cruise", K::number),
      of_home("adds_throttle", "throttle stick in modes that fly by themselves", K::flag, {}, "adds", "does nothing"),
      of_home("landing_throttle", "throttle while landing", K::number),
      of_home("opens_tow", "tow release when the link goes", K::flag, {}, "opens", "stays latched"),
      of_home("sounds_when_lost", "alarm when lost", K::flag, {}, "sounds", "silent"),
      of_home("checks_before_arming", "checks before arming", K::flag, {}, "on", "off"),
      of_list<GogglesLine>(
          "goggles", "in the goggles", [](auto& r) -> auto& { return r.home.goggles; }, line_words),
      of_home("clear_page", "page without anything over the picture", K::flag, {}, "there", "none")};
}

}  // namespace rigging
