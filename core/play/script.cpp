#include "play/script.h"

#include <sstream>

#include "base/cases.h"
#include "base/find.h"
#include "base/json.h"
#include "base/number.h"
#include "rig/rig_file.h"

namespace rigging {
namespace {

std::vector<std::string> words_of(const std::string& line) {
  std::istringstream in(line.substr(0, line.find('#')));
  std::vector<std::string> words;
  for (std::string w; in >> w;) words.push_back(w);
  return words;
}

/// "elevon_left=up" in two.
std::pair<std::string, std::string> halves(const std::string& word) {
  const auto at = word.find('=');
  return {word.substr(0, at), at == std::string::npos ? "" : word.substr(at + 1)};
}

}  // namespace

ProcedurePlayer::ProcedurePlayer(Rig rig, const Catalogue& catalogue, const ProcedureEntry& entry, std::string at)
    : rig_(std::move(rig)), catalogue_(catalogue), procedure_(entry.make()), at_(std::move(at)) {
  LineOutcome heard;
  tell(SceneChanged{}, heard);
}

void ProcedurePlayer::tell(const Event& event, LineOutcome& heard) {
  if (std::holds_alternative<SceneChanged>(event)) {
    checks_ = check_statuses(rig_, catalogue_);
    reports_.emplace(rig_, catalogue_);
  }
  const auto scene = [&] {
    return Scene{rig_,       catalogue_, catalogue_.controller(rig_.controller.kind),
                 &*reports_, checks_,    "every check stands",
                 bench_};
  };
  carry_out(procedure_->hear(event, scene()), heard);
  Card now = procedure_->card(scene());
  heard.card_changed = heard.card_changed || !(now == card_);
  card_ = std::move(now);
}

void ProcedurePlayer::carry_out(const Orders& orders, LineOutcome& heard) {
  for (const Order& o : orders)
    std::visit(
        Cases{
            [&](const ApplyEdit& c) {
              if (const auto ok = can_be_kept(c.edit.rig); !ok) {
                heard.done.push_back("Not done: " + ok.error().text());
                return;
              }
              rig_ = c.edit.rig;
              heard.done.push_back(c.edit.label);
              tell(SceneChanged{}, heard);
            },
            [&](const Record& r) {
              if (auto proven = with_proof(rig_, catalogue_, r.check, at_, true)) {
                rig_ = std::move(*proven);
                heard.done.push_back("Recorded: " + r.check.text());
              } else {
                heard.done.push_back("Not recorded: " + proven.error().text());
              }
              tell(SceneChanged{}, heard);
            },
            [&](const WriteBoard&) { heard.done.emplace_back("Write the rig to the controller"); },
            [&](const DriveOutput& d) { heard.done.push_back("Drive " + d.socket + " to " + number_text(d.level, 3)); },
            [&](const ReleaseOutputs&) { heard.done.emplace_back("Release the outputs"); },
            [&](const AskHands& a) {
              heard.done.push_back("Hands: " + hands::request_name(a.request) + " " + hands::body_of(a.request).dump());
            },
            [&](const Say& s) { heard.done.push_back(s.words); },
            [&](const GoTo& g) { heard.done.push_back("Go to station " + std::string(name_of(g.station))); },
            [&](const ShowHandCards& h) {
              for (const HandCard& card : h.cards) heard.done.push_back("Hand card: " + card.title);
            }},
        o);
}

Result<Event> ProcedurePlayer::pressed(const std::vector<std::string>& words, const std::string& where) const {
  const std::string id = words.size() > 1 ? words[1] : "";
  const Action* a = card_.action(id);
  std::string offered;
  for (const Action& x : card_.actions)
    if (x.enabled) offered += (offered.empty() ? "" : ", ") + x.id;
  if (!a) return failure(where, "the card offers no \"" + id + "\" now", offered);
  if (!a->enabled) return failure(where, "\"" + id + "\" can't be chosen now", offered);
  if (a->needs_look) return failure(where, "\"" + id + "\" goes with what was seen", "look THING=WORD …");
  Pressed event{id, 0, {}, {}};
  if (!card_.number) return event;
  std::string units;
  for (const auto& u : card_.number->units) units += (units.empty() ? "" : " or ") + u.id;
  const auto value = words.size() > 2 ? number_of(words[2]) : std::nullopt;
  if (words.size() == 2) return event;  // not every action beside a number takes it
  if (!value || *value < card_.number->least || *value > card_.number->most)
    return failure(where, "\"" + words[2] + "\" is no such number",
                   number_text(card_.number->least, 3) + " to " + number_text(card_.number->most, 3));
  event.number = *value;
  event.unit = words.size() > 3 ? words[3] : card_.number->units.front().id;
  if (!find_in(card_.number->units, [&](const NumberAsked::Unit& u) { return u.id == event.unit; }))
    return failure(where, "\"" + event.unit + "\" is no unit of it", units);
  return event;
}

Result<Event> ProcedurePlayer::looked(const std::vector<std::string>& words, const std::string& where) const {
  const Action* a = find_in(card_.actions, [](const Action& x) { return x.needs_look; });
  if (!a) return failure(where, "nothing is to be noted now", "a card that asks what was seen");
  Looked event{a->id, {}};
  for (std::size_t i = 1; i < words.size(); ++i) {
    const auto [id, text] = halves(words[i]);
    const LookRow* row = find_in(card_.looks, [&, name = id](const LookRow& r) { return r.id == name; });
    std::string rows, choices;
    for (const LookRow& r : card_.looks) rows += (rows.empty() ? "" : ", ") + r.id;
    if (!row) return failure(where, "\"" + id + "\" is not asked for", rows);
    for (const auto& [value, word] : row->choices) {
      choices += (choices.empty() ? "" : ", ") + word;
      if (text == word) event.seen[id] = value;
    }
    if (!event.seen.count(id)) return failure(where, "\"" + text + "\" is no way to see " + id, choices);
  }
  if (event.seen.empty()) return failure(where, "nothing was seen", "look THING=WORD …");
  return event;
}

Result<Event> ProcedurePlayer::frame(const std::vector<std::string>& words, const std::string& where) const {
  ChannelFrame f;
  f.t_us = now_s_ * 1e6;
  for (std::size_t i = 1; i < words.size(); ++i) {
    if (words[i] == "lost" || words[i] == "failsafe") {
      (words[i] == "lost" ? f.lost : f.failsafe) = true;
      continue;
    }
    const auto us = number_of(words[i]);
    if (!us || *us < 500 || *us > 2500 || f.channels >= most_channels)
      return failure(where, "\"" + words[i] + "\" is no pulse", "up to 16 numbers of 500 to 2500 µs, lost, failsafe");
    f.pulse_us[f.channels++] = static_cast<float>(*us);
  }
  return FramesHeard{{f}};
}

Result<void> ProcedurePlayer::set_bench(const std::vector<std::string>& words, const std::string& where) {
  const std::pair<const char*, bool BenchState::*> flags[] = {
      {"controller", &BenchState::controller}, {"read", &BenchState::read},   {"differs", &BenchState::differs},
      {"writing", &BenchState::writing},       {"hands", &BenchState::hands}, {"usb", &BenchState::usb},
      {"battery", &BenchState::battery},       {"hears", &BenchState::hears}};
  for (std::size_t i = 1; i < words.size(); ++i) {
    const auto [name, value] = halves(words[i]);
    const auto* flag =
        std::find_if(std::begin(flags), std::end(flags), [&, asked = name](const auto& f) { return asked == f.first; });
    if (flag == std::end(flags) || (value != "yes" && value != "no"))
      return failure(where, "\"" + words[i] + "\" is not understood",
                     "controller, read, differs, writing, hands, usb, battery or hears, =yes or =no");
    bench_.*flag->second = value == "yes";
  }
  return {};
}

Result<Event> ProcedurePlayer::event_of(const std::string& line, const std::string& where) {
  const std::vector<std::string> words = words_of(line);
  const std::string& what = words.front();
  const auto number = [&](std::size_t i) { return i < words.size() ? number_of(words[i]) : std::nullopt; };
  if (what == "time") {
    const auto s = number(1);
    if (!s || *s < now_s_ || *s > 1e6)
      return failure(where, "time must not run backward", number_text(now_s_, 3) + " or more seconds");
    now_s_ = *s;
    return Time{*s};
  }
  if (what == "choose" && words.size() == 2) return Pressed{"choose", 0, {}, words[1]};
  if (what == "press") return pressed(words, where);
  if (what == "look") return looked(words, where);
  if (what == "frame") return frame(words, where);
  if (what == "channels") {
    ChannelsHeard heard;
    for (std::size_t i = 1; i < words.size(); ++i) {
      const auto [name, value] = halves(words[i]);
      const auto us = number_of(value);
      if (!us) return failure(where, "\"" + words[i] + "\" is not understood", "NAME=PULSE, such as roll=1700");
      heard.us[name] = *us;
    }
    return heard;
  }
  if (what == "stands") {
    SurfacesSeen seen;
    for (std::size_t i = 1; i < words.size(); ++i) {
      const auto [name, value] = halves(words[i]);
      const auto surface = surface_from_name(name);
      const auto deg = number_of(value);
      if (!surface || !deg)
        return failure(where, "\"" + words[i] + "\" is not understood", "SURFACE=DEGREES, such as rudder=-3.5");
      seen.deg[*surface] = *deg;
    }
    return seen;
  }
  if (what == "motion") {
    std::array<double, 10> v{};
    const std::size_t count = words.size() - 1;
    for (std::size_t i = 0; i < std::min(count, v.size()); ++i) {
      const auto value = number(i + 1);
      if (!value || std::abs(*value) > 1e9) return failure(where, "\"" + words[i + 1] + "\" is no number", "a reading");
      v[i] = *value;
    }
    if (count != 7 && count != 10)
      return failure(where, std::to_string(count) + " numbers are no reading",
                     "time, force x y z in m/s², rate x y z in °/s, and field x y z in µT or none");
    MotionSample s{v[0], {v[1], v[2], v[3]}, {v[4], v[5], v[6]}, {}};
    if (count == 10) s.field_ut = Point(v[7], v[8], v[9]);
    return MotionHeard{{s}};
  }
  if (what == "found") {
    SensorsFound found;
    for (std::size_t i = 1; i < words.size(); ++i) {
      const auto [name, value] = halves(words[i]);
      const auto sensor = from_name<Sensor>(name);
      const auto state = from_name<SensorState>(value);
      if (!sensor || !state)
        return failure(where, "\"" + words[i] + "\" is not understood",
                       "SENSOR=STATE of " + choice_of<Sensor>() + " and " + choice_of<SensorState>());
      found.states[*sensor] = *state;
    }
    return found;
  }
  if (what == "state") {
    StateTold told;
    told.can_arm = true;
    for (std::size_t i = 1; i < words.size(); ++i) {
      const auto [name, value] = halves(words[i]);
      if (name == "mode") {
        told.mode = value;
      } else if (name == "lost") {
        told.link_lost = true, told.on_loss = value;
      } else if (name == "refuses") {
        const std::size_t colon = value.find(':');
        const auto why = from_name<ArmingRefusal>(value.substr(0, colon));
        if (!why)
          return failure(where, "\"" + words[i] + "\" is not understood", "refuses=" + choice_of<ArmingRefusal>());
        told.refuses.push_back({*why, colon == std::string::npos ? std::string() : value.substr(colon + 1)});
      } else {
        return failure(where, "\"" + words[i] + "\" is not understood",
                       "mode=MODE, lost=waits or lost=ACTION, refuses=WHY or refuses=WHY:SENSOR");
      }
    }
    return told;
  }
  if (what == "bench") {
    if (const auto ok = set_bench(words, where); !ok) return tl::make_unexpected(ok.error());
    return SceneChanged{};
  }
  return failure(where, "\"" + what + "\" is not understood",
                 "time, choose, press, look, frame, channels, stands, motion, found, state or bench");
}

Result<ProcedurePlayer::LineOutcome> ProcedurePlayer::play(const std::string& line, const std::string& where) {
  LineOutcome heard;
  if (words_of(line).empty()) return heard;
  const auto event = event_of(line, where);
  if (!event) return tl::make_unexpected(event.error());
  tell(*event, heard);
  return heard;
}

std::string card_text(const Card& card) {
  std::string text;
  const auto add = [&](const std::string& line, const char* before = "") {
    if (!line.empty()) text += before + line + "\n";
  };
  add(card.title);
  add(card.todo, "> ");
  add(card.caution, "! ");
  add(card.remark, "  ");
  add(card.picture.words, "  ");
  add(card.says, "= ");
  for (const Line& l : card.lines) add(l.words, "  ");
  std::string actions;
  for (const Action& a : card.actions)
    if (a.enabled) actions += (actions.empty() ? "" : ", ") + a.id;
  add(actions, "  can: ");
  return text;
}

Json card_to_json(const Card& card) {
  Json json{{"subject", card.subject}, {"title", card.title},      {"todo", card.todo},      {"remark", card.remark},
            {"caution", card.caution}, {"says", card.says},        {"lines", Json::array()}, {"note", card.note},
            {"busy", card.busy},       {"actions", Json::array()}, {"looks", Json::array()}};
  for (const Line& l : card.lines) json["lines"].push_back(l.words);
  for (const Action& a : card.actions)
    json["actions"].push_back({{"action", a.id}, {"label", a.label}, {"enabled", a.enabled}});
  for (const LookRow& r : card.looks) {
    Json row{{"thing", r.id}, {"ways", Json::array()}};
    for (const auto& [value, word] : r.choices) row["ways"].push_back({{"value", value}, {"word", word}});
    json["looks"].push_back(std::move(row));
  }
  if (card.picture.pulse_us) json["pulse_us"] = *card.picture.pulse_us;
  if (card.picture.stick) json["stick"] = {{"function", name_of(*card.picture.stick)}, {"side", card.picture.side}};
  return json;
}

}  // namespace rigging
