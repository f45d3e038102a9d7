#include "link/image.h"

#include <algorithm>
#include <set>

#include "base/find.h"
#include "base/fingerprint.h"
#include "base/json.h"
#include "base/number.h"
#include "link/cbor.h"
#include "link/protocol_1.h"
#include "surfaces/trim.h"

namespace rigging::link {
namespace {

/// Settings of outputs and channels go over the link as lists of maps, one for each, with its key; those of the board
/// stand beside the lists.
struct Group {
  SettingOf of;
  const char *list, *key, *label;
  bool needed;  ///< the list is there even when it is empty
};
constexpr Group groups[] = {{SettingOf::output, "outputs", "socket", "output ", true},
                            {SettingOf::port, "ports", "socket", "port ", false},
                            {SettingOf::channel, "channels", "number", "channel ", true}};
constexpr Group board_group{SettingOf::board, "", "", "", false};

const Group& group_of(SettingOf of) {
  for (const Group& g : groups)
    if (g.of == of) return g;
  return board_group;
}

/// Sockets by their names, channels by their numbers.
bool before(SettingOf of, const std::string& a, const std::string& b) {
  if (of == SettingOf::channel && a.size() != b.size()) return a.size() < b.size();
  return a < b;
}

template <class V>
Json to_json(const V& value) {
  return std::visit(
      [](const auto& v) -> Json {
        using T = std::decay_t<decltype(v)>;
        if constexpr (std::is_same_v<T, std::monostate>) {
          return nullptr;
        } else if constexpr (std::is_same_v<T, SettingList>) {
          Json list = Json::array();
          for (const SettingRow& row : v) {
            Json one = Json::object();
            for (const auto& [name, member] : row) one[name] = to_json(member);
            list.push_back(row.size() == 1 && row.count("") ? one[""] : std::move(one));
          }
          return list;
        } else {
          return v;
        }
      },
      value);
}

template <class V>
std::optional<V> scalar(const Json& json) {
  if (json.is_boolean()) return V(json.get<bool>());
  if (json.is_number()) return V(json.get<double>());
  if (json.is_string()) return V(json.get<std::string>());
  return std::nullopt;
}

std::optional<SettingValue> to_value(const Json& json) {
  if (!json.is_array()) return scalar<SettingValue>(json);
  SettingList list;
  for (const Json& one : json) {
    SettingRow& row = list.emplace_back();
    if (!one.is_object()) {
      const auto word = scalar<Value>(one);
      if (!word) return std::nullopt;
      row.emplace("", *word);
      continue;
    }
    for (const auto& [name, member] : one.items()) {
      const auto value = scalar<Value>(member);
      if (!value) return std::nullopt;
      row.emplace(name, *value);
    }
  }
  return list.empty() ? SettingValue{} : SettingValue(std::move(list));
}

/// Members of one map into values; `skip` is its key.
Result<void> take(const Json& json, const std::string& where, SettingOf of, const std::string& subject,
                  const std::string& skip, Image& image) {
  for (const Setting& s : settings())
    if (s.of == of && s.always && !json.contains(s.name))
      return failure(where, "\"" + s.name + "\" is missing", "this member");
  for (const auto& [name, member] : json.items()) {
    const bool list =
        std::any_of(std::begin(groups), std::end(groups), [&, &n = name](auto& g) { return n == g.list; });
    if (name == skip || (of == SettingOf::board && list)) continue;
    const Setting* s = setting_named(of, name);
    const auto value = to_value(member);
    if (!s) {  // of a newer version: kept, as far as it is a value
      if (value) image.values[{of, subject, name}] = *value;
      continue;
    }
    if (const std::string expected = value ? misfit(*s, *value) : "a value"; !expected.empty())
      return failure(where + "/" + name, "is " + in_short(member), expected);
    if (s->always || (*value != s->usual && !std::holds_alternative<std::monostate>(*value)))
      image.values[{of, subject, name}] = *value;
  }
  return {};
}

}  // namespace

bool Image::has(SettingOf of, const std::string& subject) const {
  const auto it = values.lower_bound({of, subject, ""});
  return it != values.end() && it->first.of == of && it->first.subject == subject;
}

std::vector<std::string> Image::subjects(SettingOf of) const {
  std::vector<std::string> all;
  for (const auto& [id, value] : values)
    if (id.of == of && (all.empty() || all.back() != id.subject)) all.push_back(id.subject);
  std::sort(all.begin(), all.end(), [&](const std::string& a, const std::string& b) { return before(of, a, b); });
  return all;
}

SettingValue Image::value(const SettingId& id) const {
  if (const auto it = values.find(id); it != values.end()) return it->second;
  const Setting* s = setting_named(id.of, id.name);
  return s ? s->usual : SettingValue{};
}

Image image_of(const Rig& rig) {
  Image image;
  const auto add = [&](const Setting& s, const std::string& subject) {
    SettingValue value = s.get(rig, subject);
    if (s.always || value != s.usual) image.values.emplace(SettingId{s.of, subject, s.name}, std::move(value));
  };
  for (const Setting& s : settings()) switch (s.of) {
      case SettingOf::board: add(s, ""); break;
      case SettingOf::output:
        for (const Output& o : rig.outputs)
          if (!o.socket.empty()) add(s, o.socket);
        break;
      case SettingOf::port:
        for (const Port& p : rig.ports) add(s, p.socket);
        break;
      case SettingOf::channel:
        for (const Channel& c : rig.radio.channels) add(s, std::to_string(c.number));
        break;
    }
  return image;
}

Image with_gains(Image board, const Image& planned) {
  for (const auto& [id, value] : planned.values)
    if (const Setting* s = setting_named(id.of, id.name);
        s && (s->group == SettingGroup::gains || s->group == SettingGroup::limits))
      board.values[id] = value;
  return board;
}

Rig configured(const Image& image) {
  Rig rig;
  for (const std::string& socket : image.subjects(SettingOf::output)) {
    Output& o = rig.outputs.emplace_back();
    o.id = o.socket = socket;
  }
  for (const std::string& socket : image.subjects(SettingOf::port)) rig.ports.emplace_back().socket = socket;
  for (const std::string& number : image.subjects(SettingOf::channel))
    rig.radio.channels.emplace_back().number = static_cast<int>(number_of(number).value_or(0));
  for (const Setting* s : settings_in_order())
    for (const std::string& subject : image.subjects(s->of))
      if (const auto it = image.values.find({s->of, subject, s->name}); it != image.values.end())
        s->set(rig, subject, it->second);
  return rig;
}

std::string image_bytes(const Image& image, int protocol) {
  Json json = Json::object();
  for (const Group& g : groups) {
    const std::vector<std::string> subjects = image.subjects(g.of);
    if (!g.needed && subjects.empty()) continue;
    json[g.list] = Json::array();
    for (const std::string& subject : subjects) {
      Json one = Json::object();
      one[g.key] = g.of == SettingOf::channel ? Json(static_cast<int>(number_of(subject).value_or(0))) : Json(subject);
      json[g.list].push_back(std::move(one));
    }
  }
  std::map<std::pair<SettingOf, std::string>, Json*> places;
  for (const Group& g : groups) {
    if (!json.contains(g.list)) continue;
    for (Json& one : json[g.list])
      places[{g.of, g.of == SettingOf::channel ? std::to_string(one[g.key].get<int>())
                                               : one[g.key].get<std::string>()}] = &one;
  }
  for (const auto& [id, value] : image.values)
    (id.of == SettingOf::board ? json : *places.at({id.of, id.subject}))[id.name] = to_json(value);
  // Plain JSON sorts its members, so that the bytes do not depend on the order of the table.
  std::string bytes;
  Json::to_cbor(protocol < 2 ? to_protocol_1(std::move(json)) : json, bytes);
  return bytes;
}

Result<Image> image_from_bytes(std::string_view bytes, const std::string& where) {
  const auto json = parse_cbor(bytes, where).map(from_protocol_1);
  if (!json) return tl::make_unexpected(json.error());
  if (!json->is_object()) return failure(where + ": /", "is " + in_short(*json), "an object");
  Image image;
  for (const Group& g : groups) {
    const std::string place = where + ": /" + g.list;
    if (!json->contains(g.list) && !g.needed) continue;
    if (!json->contains(g.list))
      return failure(where + ": /", "\"" + std::string(g.list) + "\" is missing", "this member");
    const Json& list = (*json)[g.list];
    if (!list.is_array()) return failure(place, "is " + in_short(list), "a list");
    std::set<std::string> met;
    for (std::size_t i = 0; i < list.size(); ++i) {
      const std::string at = place + "/" + std::to_string(i);
      const Json* key = list[i].is_object() && list[i].contains(g.key) ? &list[i][g.key] : nullptr;
      const bool channel = g.of == SettingOf::channel;
      const bool good =
          key && (channel ? key->is_number_integer() && key->get<double>() >= 1 && key->get<double>() <= 32
                          : key->is_string());
      if (!good)
        return failure(at + "/" + g.key, key ? "is " + in_short(*key) : "is missing",
                       channel ? "a whole number from 1 to 32" : "the name of a socket");
      const std::string subject = channel ? std::to_string(key->get<int>()) : key->get<std::string>();
      if (!met.insert(subject).second) return failure(at, g.label + subject + " is there twice", "each once");
      if (auto ok = take(list[i], at, g.of, subject, g.key, image); !ok) return tl::make_unexpected(ok.error());
    }
  }
  if (auto ok = take(*json, where + ": ", SettingOf::board, "", "", image); !ok) return tl::make_unexpected(ok.error());
  const Rig rig = configured(image);
  for (const Output& o : rig.outputs)
    if (!(o.low_us < o.centre_us && o.centre_us < o.high_us))
      return failure(where + ": output " + o.socket, "the ends do not enclose the centre",
                     "low_us < centre_us < high_us");
  return image;
}

std::string image_hash(std::string_view bytes) { return Fingerprint().add(bytes).text(); }

namespace {

/// What is taken over together: an output, a channel, all that the board knows of its sensing, or a setting by itself.
std::string part_of(const SettingId& id) {
  if (id.of != SettingOf::board) return group_of(id.of).label + id.subject;
  const Setting* s = setting_named(id.of, id.name);
  return s && (s->group == SettingGroup::position || s->group == SettingGroup::sensing) ? "sensing" : id.name;
}

std::string difference_words(const SettingId& id, const SettingValue& rig, const SettingValue& board) {
  const Setting* s = setting_named(id.of, id.name);
  if (!s) return label_of(id.name) + ": this version does not know it";
  const std::string here = value_words(*s, board) + " on the board, ", there = value_words(*s, rig) + " in the rig";
  return s->label + " " + here + there;
}

}  // namespace

std::vector<Difference> differences(const Image& rig, const Image& board) {
  std::vector<Difference> all;
  std::vector<std::string> handled;
  // In the order in which a builder looks at them: outputs, what the board knows, channels.
  for (const SettingOf of : {SettingOf::output, SettingOf::port, SettingOf::board, SettingOf::channel}) {
    std::vector<std::string> subjects = rig.subjects(of);
    for (const std::string& s : board.subjects(of))
      if (std::find(subjects.begin(), subjects.end(), s) == subjects.end()) subjects.push_back(s);
    std::sort(subjects.begin(), subjects.end(),
              [&](const std::string& a, const std::string& b) { return before(of, a, b); });
    for (const std::string& subject : subjects) {
      const std::string part = group_of(of).label + subject;
      if (of != SettingOf::board && !board.has(of, subject)) {
        all.push_back({part, "not used on the board, used in the rig", {}});
        continue;
      }
      if (of != SettingOf::board && !rig.has(of, subject)) {
        all.push_back({part, "used on the board, not used in the rig", {}});
        continue;
      }
      std::set<std::string> names;
      for (const Image* image : {&rig, &board})
        for (auto it = image->values.lower_bound({of, subject, ""});
             it != image->values.end() && it->first.of == of && it->first.subject == subject; ++it)
          names.insert(it->first.name);
      const auto add = [&](const std::string& name) {
        const SettingId id{of, subject, name};
        if (!names.erase(name) || rig.value(id) == board.value(id)) return;
        Difference* d = find_in(all, [&](const Difference& x) { return x.part == part_of(id); });
        if (!d) d = &all.emplace_back(Difference{part_of(id), "", {}});
        d->words += (d->words.empty() ? "" : "; ") + difference_words(id, rig.value(id), board.value(id));
        d->settings.push_back(id);
      };
      for (const Setting& s : settings())
        if (s.of == of) add(s.name);
      for (const std::string& name : std::set<std::string>(names)) add(name);
    }
  }
  return all;
}

Rig with_board_parts(Rig rig, const Image& board, const std::vector<std::string>& parts) {
  const Rig before = rig;
  const auto wanted = [&](const std::string& part) {
    return std::find(parts.begin(), parts.end(), part) != parts.end();
  };
  for (const std::string& socket : board.subjects(SettingOf::output))
    if (wanted("output " + socket) && !output_in(rig, socket)) {
      Output added;
      for (int n = 1; added.id.empty() || rig.output(added.id); ++n) added.id = "out_" + std::to_string(n);
      added.socket = socket;
      rig.outputs.push_back(std::move(added));
    }
  for (const std::string& socket : board.subjects(SettingOf::port))
    if (wanted("port " + socket) && !rig.port(socket)) rig.ports.emplace_back().socket = socket;
  std::erase_if(rig.ports,
                [&](const Port& p) { return wanted("port " + p.socket) && !board.has(SettingOf::port, p.socket); });
  std::erase_if(rig.radio.channels, [&](const Channel& c) {
    const std::string number = std::to_string(c.number);
    return wanted("channel " + number) && !board.has(SettingOf::channel, number);
  });
  for (const std::string& number : board.subjects(SettingOf::channel))
    if (wanted("channel " + number) && !channel_of(rig, number))
      rig.radio.channels.emplace_back().number = static_cast<int>(number_of(number).value_or(0));
  for (const Setting* s : settings_in_order()) {
    const auto set = [&](const std::string& subject) {
      const SettingId id{s->of, subject, s->name};
      if (wanted(part_of(id))) s->set(rig, subject, board.value(id));
    };
    if (s->of == SettingOf::board) set("");
    for (const std::string& subject : s->of == SettingOf::board ? std::vector<std::string>{} : board.subjects(s->of))
      set(subject);
  }
  return before.controller.auto_trim ? with_flown_trim(before, std::move(rig)) : rig;
}

}  // namespace rigging::link
