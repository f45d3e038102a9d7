#include "settings/home_settings.h"

#include <cmath>
#include <sstream>

#include "base/find.h"
#include "base/json.h"
#include "base/number.h"
#include "rig/ranges.h"

namespace rigging {
namespace {

/// A member of the plan for home under a name of its own. Absent on the board: as a new rig has it.
Setting of_home(const char* name, const char* spoken, const char* member, std::vector<std::string> words = {},
                std::string yes = {}, std::string no = {}) {
  const Member* m = Described<Home>::members().named(member);
  static const Home standard;
  return {.name = name,
          .of = SettingOf::board,
          .spoken = spoken,
          .yes = std::move(yes),
          .no = std::move(no),
          .span = m->span,
          .words = std::move(words),
          .usual = m->kind->fact(m->in(&standard)),
          .always = false,
          .get = [m](const Rig& rig, const std::string&) -> Value { return m->kind->fact(m->in(&rig.home)); },
          .set =
              [m](Rig& rig, const std::string&, const Value& v) {
                const Home usual;
                Json value;
                if (const auto* flag = std::get_if<bool>(&v)) value = *flag;
                if (const auto* number = std::get_if<double>(&v)) value = *number;
                if (const auto* text = std::get_if<std::string>(&v)) value = *text;
                if (value.is_null()) value = Json::parse(m->kind->write(m->in(&usual)).dump());
                std::optional<Error> error;
                m->kind->read(value, m->name, m->span, error, m->in(&rig.home));
              }};
}

/// A list as one text, absent where it is empty.
template <class List>
Setting of_list(const char* name, const char* spoken, std::string (*text_of)(const List&),
                std::optional<List> (*of_text)(const std::string&), const List& (*in)(const Rig&), List& (*to)(Rig&),
                std::string (*say)(const List&)) {
  return {.name = name,
          .of = SettingOf::board,
          .spoken = spoken,
          .always = false,
          .get = [=](const Rig& rig, const std::string&) -> Value {
            return in(rig).empty() ? Value{} : Value(text_of(in(rig)));
          },
          .set =
              [=](Rig& rig, const std::string&, const Value& v) {
                const auto* text = std::get_if<std::string>(&v);
                to(rig) = text ? of_text(*text).value_or(List{}) : List{};
              },
          .say = [=](const Value& v) { return say(of_text(std::get<std::string>(v)).value_or(List{})); },
          .fits = [=](const std::string& text) { return of_text(text).has_value(); }};
}

constexpr std::size_t most_entries = 64;

/// The entries between semicolons, each as its words; nothing where there are too many or an empty one.
std::optional<std::vector<std::vector<std::string>>> entries_of(const std::string& text) {
  std::vector<std::vector<std::string>> all;
  std::istringstream entries(text);
  for (std::string entry; std::getline(entries, entry, ';');) {
    std::istringstream in(entry);
    std::vector<std::string> words;
    for (std::string w; in >> w;) words.push_back(w);
    if (words.empty() || all.size() >= most_entries) return std::nullopt;
    all.push_back(std::move(words));
  }
  return all.empty() ? std::nullopt : std::optional(all);
}

template <class T, class Say>
std::string listed(const std::vector<T>& list, const char* between, Say say) {
  std::string all;
  for (const T& one : list) all += (all.empty() ? "" : between) + say(one);
  return all;
}

std::string plain(double v) { return number_text(v, 3); }

std::string shown_text(const std::vector<GogglesLine>& shows) {
  return listed(shows, "; ", [](GogglesLine s) { return std::string(word(s)); });
}
std::optional<std::vector<GogglesLine>> shown_of(const std::string& text) {
  const auto entries = entries_of(text);
  if (!entries) return std::nullopt;
  std::vector<GogglesLine> all;
  for (const auto& words : *entries) {
    const auto s = words.size() == 1 ? from_word<GogglesLine>(words[0]) : std::nullopt;
    if (!s) return std::nullopt;
    all.push_back(*s);
  }
  return all;
}

std::string say_modes(const std::vector<ModeChoice>& modes) {
  return listed(modes, ", ", [](const ModeChoice& m) {
    return m.mode + " on channel " + std::to_string(m.channel) + " from " + plain(m.from_us) + " to " + plain(m.to_us) +
           " µs";
  });
}
std::string say_triggers(const std::vector<TriggerChoice>& triggers) { return listed(triggers, ", ", trigger_words); }
std::string say_shown(const std::vector<GogglesLine>& shows) {
  return listed(shows, ", ", [](GogglesLine s) { return spoken(word(s)); });
}

}  // namespace

std::string modes_text(const std::vector<ModeChoice>& modes) {
  return listed(modes, "; ", [](const ModeChoice& m) {
    return m.mode + " " + std::to_string(m.channel) + " " + plain(m.from_us) + " " + plain(m.to_us);
  });
}

std::optional<std::vector<ModeChoice>> modes_of(const std::string& text) {
  const auto entries = entries_of(text);
  if (!entries) return std::nullopt;
  std::vector<ModeChoice> all;
  for (const auto& words : *entries) {
    if (words.size() != 4) return std::nullopt;
    const auto channel = number_of(words[1]), from = number_of(words[2]), to = number_of(words[3]);
    if (!channel || !from || !to || *channel != std::floor(*channel) || *channel < 1 || *channel > 32)
      return std::nullopt;
    for (const double us : {*from, *to})
      if (us < range::read_us.least || us > range::read_us.most) return std::nullopt;
    all.push_back({static_cast<int>(*channel), *from, *to, words[0], {}});
  }
  return all;
}

std::string triggers_text(const std::vector<TriggerChoice>& triggers) {
  return listed(triggers, "; ", [](const TriggerChoice& t) {
    return std::string(word(t.on)) + " " + std::string(word(t.does)) + (t.at ? " " + plain(*t.at) : std::string());
  });
}

std::optional<std::vector<TriggerChoice>> triggers_of(const std::string& text) {
  const auto entries = entries_of(text);
  if (!entries) return std::nullopt;
  std::vector<TriggerChoice> all;
  for (const auto& words : *entries) {
    if (words.size() < 2 || words.size() > 3) return std::nullopt;
    const auto on = from_word<HomeTrigger>(words[0]);
    const auto does = from_word<TriggerAction>(words[1]);
    const auto at = words.size() == 3 ? number_of(words[2]) : std::nullopt;
    if (!on || !does || (words.size() == 3 && !(at && *at >= 0 && *at <= 50000))) return std::nullopt;
    TriggerChoice t;
    t.on = *on, t.does = *does, t.at = at;
    all.push_back(t);
  }
  return all;
}

std::string trigger_words(const TriggerChoice& t) {
  return spoken(word(t.on)) +
         (t.at ? " at " + plain(*t.at) + (t.on == HomeTrigger::long_loss ? " s" : " m") : std::string()) + ": " +
         spoken(word(t.does));
}

std::vector<Setting> home_settings() {
  using Modes = std::vector<ModeChoice>;
  using Triggers = std::vector<TriggerChoice>;
  using Shows = std::vector<GogglesLine>;
  return {
      of_list<Modes>(
          "modes", "modes", modes_text, modes_of, [](const Rig& r) -> const Modes& { return r.modes; },
          [](Rig& r) -> Modes& { return r.modes; }, say_modes),
      of_home("on_loss", "when the link goes", "on_loss", all_words<LossAction>()),
      of_home("loss_hold_s", "wait when the link goes", "hold_s"),
      of_home("climb_first", "climb before the way home", "climb_first", {}, "first", "on the way"),
      of_home("return_height_m", "height of the way home", "height_m"),
      of_home("circle_radius_m", "radius of the circle", "circle_radius_m"),
      of_home("on_arrival", "once it is home", "on_arrival", all_words<OnArrival>()),
      of_home("turn_home_v", "turns home at", "warn_v"),
      of_list<Triggers>(
          "triggers", "what else makes it act", triggers_text, triggers_of,
          [](const Rig& r) -> const Triggers& { return r.home.triggers; },
          [](Rig& r) -> Triggers& { return r.home.triggers; }, say_triggers),
      of_home("cruise_throttle", "throttle at cruise", "cruise_throttle"),
      of_home("adds_throttle", "throttle stick in modes that fly by themselves", "adds_throttle", {}, "adds",
              "does nothing"),
      of_home("landing_throttle", "throttle while landing", "landing_throttle"),
      of_home("opens_tow", "tow release when the link goes", "opens_tow", {}, "opens", "stays latched"),
      of_home("sounds_when_lost", "alarm when lost", "sounds_when_lost", {}, "sounds", "silent"),
      of_home("arming_checks", "checks before arming", "arming_checks", {}, "on", "off"),
      of_list<Shows>(
          "goggles", "in the goggles", shown_text, shown_of, [](const Rig& r) -> const Shows& { return r.home.shows; },
          [](Rig& r) -> Shows& { return r.home.shows; }, say_shown),
      of_home("clear_page", "page without anything over the picture", "clear_page", {}, "there", "none")};
}

}  // namespace rigging
