#include "rig/rig_file.h"

#include <algorithm>
#include <array>
#include <cstring>
#include <set>

#include "base/clean_text.h"
#include "base/fields.h"
#include "base/file.h"
#include "base/number.h"
#include "base/wrapped.h"
#include "rig/path.h"
#include "rig/socket_names.h"

namespace rigging {

template <>
const Members& Described<Rig>::members() {
  static const Members all = Describe<Rig>()
                                 .needed("name", &Rig::name)
                                 .member("note", &Rig::note)
                                 .needed("airframe", &Rig::airframe)
                                 .needed("controller", &Rig::controller)
                                 .member("parts", &Rig::parts)
                                 .at_most(300)
                                 .member("places", &Rig::mountings)
                                 .at_most(300)
                                 .member("leads", &Rig::leads)
                                 .at_most(600)
                                 .member("fit", &Rig::fit)
                                 .member("power", &Rig::power)
                                 .member("radio", &Rig::radio)
                                 .member("ports", &Rig::ports)
                                 .member("outputs", &Rig::outputs)
                                 .at_most(32)
                                 .member("saturation", &Rig::saturation)
                                 .member("linkages", &Rig::linkages)
                                 .member("release", &Rig::release)
                                 .member("sensing", &Rig::sensing)
                                 .member("feel", &Rig::feel)
                                 .member("modes", &Rig::modes)
                                 .member("home", &Rig::home)
                                 .member("proofs", &Rig::proofs)
                                 .at_most(1000)
                                 .member("loose_ends", &Rig::loose_ends)
                                 .member("log", &Rig::log)
                                 .at_most(5000)
                                 .rest(&Rig::unknown_members);
  return all;
}

namespace {

// In the envelope of a safety copy.
constexpr const char* copy_of = "recovered_from";
constexpr const char* copy_before = "file_was";

/// Version 1 knew a check by one text, and kept of what a proof depended on a fingerprint and sentences.
void from_version_1(Json& json) {
  const auto proofs = json.find("proofs");
  if (proofs == json.end() || !proofs->is_array()) return;
  for (Json& p : *proofs) {
    if (!p.is_object() || !p.contains("check") || !p["check"].is_string()) continue;
    const std::string text = p["check"].get<std::string>();
    // Families of one had a point in their name; of the others the family ends at it.
    const auto point = text.starts_with("sticks.") || text.starts_with("surfaces.") ? text.npos : text.find('.');
    p["check"] = {{"family", text.substr(0, point)}};
    if (point != text.npos) p["check"]["subject"] = text.substr(point + 1);
    if (p.contains("depends_on")) {
      p["words"] = p["depends_on"];
      p.erase("depends_on");
    }
  }
}

/// Names of version 2, by the sections that have them: what a setting of the board is called is what the file calls it.
/// They are brought up in files of any version that have no other of the new name.
struct Renamed {
  const char *section, *was, *is;
};
constexpr Renamed renamed[] = {{"", "sharing", "saturation"},
                               {"outputs", "passes", "passthrough_channel"},
                               {"home", "hold_s", "loss_hold_s"},
                               {"home", "height_m", "return_height_m"},
                               {"home", "warn_v", "turn_home_v"},
                               {"home", "shows", "goggles"},
                               {"radio", "heard_as", "receiver_signal"},
                               {"home", "arming_checks", "checks_before_arming"}};

/// The path of a value under today's names: `home/warn_v` is `home/turn_home_v`.
std::string current_path(const std::string& path) {
  for (const Renamed& r : renamed) {
    const std::string was = r.was;
    if (!*r.section
            ? path == was
            : path.starts_with(std::string(r.section) + "/") && path.ends_with("/" + was) &&
                  (std::string(r.section) == "outputs" || path.size() == std::strlen(r.section) + 1 + was.size()))
      return path.substr(0, path.size() - was.size()) + r.is;
  }
  return path;
}

void from_version_2(Json& json) {
  for (const Renamed& r : renamed) {
    if (!*r.section) rename_member(json, r.was, r.is);
    const auto section = json.find(r.section);
    if (section == json.end()) continue;
    if (section->is_array())
      for (Json& entry : *section) rename_member(entry, r.was, r.is);
    else
      rename_member(*section, r.was, r.is);
  }
  const auto proofs = json.find("proofs");
  if (proofs == json.end() || !proofs->is_array()) return;
  for (Json& p : *proofs) {
    const auto rests = p.is_object() ? p.find("depends_on") : p.end();
    if (!p.is_object() || rests == p.end() || !rests->is_object()) continue;
    Json now = Json::object();
    for (const auto& [path, value] : rests->items()) now[current_path(path)] = value;
    *rests = std::move(now);
  }
}

/// "power/pusher" of older files said of the drive what the airframe says now; false was no word about it, and true
/// none on a kind that usually has it behind.
void bring_propeller_up(Json& json) {
  const auto power = json.find("power");
  if (power == json.end() || !power->is_object()) return;
  const auto pusher = power->find("pusher");
  if (pusher == power->end() || !pusher->is_boolean()) return;
  constexpr std::array<std::string_view, 6> usually{"flying_wing",  "flying_wing_rudders", "canard",
                                                    "canard_delta", "tailerons_canards",   "flaperons_inverted_v_tail"};
  if (const auto airframe = json.find("airframe");
      pusher->get<bool>() && airframe != json.end() && airframe->is_object() && !airframe->contains("propeller") &&
      std::find(usually.begin(), usually.end(), text_member(*airframe, "kind")) == usually.end())
    (*airframe)["propeller"] = name_of(PropellerSide::pusher);
  power->erase(pusher);
}

/// The rig inside the envelope, brought up to this version one step at a time.
Result<Json> unwrapped(Json json, const std::string& file) {
  if (!json.is_object() || text_member(json, "format") != "rig")
    return failure(file + ": /format", "this is not a rig file", "an object with \"format\": \"rig\"");
  const auto version = json.find("version");
  const std::string known = "a whole number from 1 to " + std::to_string(rig_version);
  if (version == json.end()) return failure(file + ": /", "\"version\" is missing", known);
  if (!version->is_number_integer() || version->get<double>() < 1)
    return failure(file + ": /version", "is " + version->dump(), known);
  if (version->get<double>() > rig_version)
    return failure(file + ": /version", "is " + version->dump() + ", written by a newer Rigging",
                   "a version up to " + std::to_string(rig_version));
  if (version->get<double>() < 2) from_version_1(json);
  from_version_2(json);
  bring_sockets_up(json);
  bring_propeller_up(json);
  json.erase("format");
  json.erase(copy_of);
  json.erase(copy_before);
  json.erase("version");
  return json;
}

Result<void> consistent(const Rig& rig, const std::string& file) {
  const auto unique = [&](const auto& list, const char* section, auto&& id_of) -> Result<void> {
    std::set<std::string> ids;
    for (std::size_t i = 0; i < list.size(); ++i)
      if (!ids.insert(id_of(list[i])).second)
        return failure(file + ": /" + section + "/" + std::to_string(i), "\"" + id_of(list[i]) + "\" is used twice",
                       "entries that differ");
    return {};
  };
  if (auto r = unique(rig.parts, "parts", [](const Part& p) { return p.id; }); !r) return r;
  if (auto r = unique(rig.leads, "leads", [](const Lead& l) { return l.id; }); !r) return r;
  if (auto r = unique(rig.outputs, "outputs", [](const Output& o) { return o.id; }); !r) return r;
  if (auto r = unique(rig.ports, "ports", [](const Port& p) { return p.socket; }); !r) return r;
  if (auto r = unique(rig.linkages, "linkages", [](const Linkage& l) { return l.surface.name(); }); !r) return r;
  if (auto r = unique(rig.loose_ends, "loose_ends", [](const LooseEnd& l) { return l.id; }); !r) return r;
  if (auto r = unique(rig.radio.channels, "radio/channels", [](const Channel& c) { return std::to_string(c.number); });
      !r)
    return r;
  if (auto r = unique(rig.mountings, "places", [](const Mounting& l) { return l.part; }); !r) return r;
  for (std::size_t i = 0; i < rig.parts.size(); ++i)
    if (rig.parts[i].id == "controller" || rig.parts[i].id.empty())
      return failure(file + ": /parts/" + std::to_string(i) + "/id", "is \"" + rig.parts[i].id + "\"",
                     "a name; \"controller\" is the board itself");
  const auto known = [&](const std::string& part) { return part == "controller" || rig.part(part); };
  for (std::size_t i = 0; i < rig.mountings.size(); ++i)
    if (!known(rig.mountings[i].part))
      return failure(file + ": /places/" + std::to_string(i) + "/part",
                     "\"" + rig.mountings[i].part + "\" is no part of this rig", "the id of a part, or controller");
  for (std::size_t i = 0; i < rig.leads.size(); ++i)
    for (const auto& [name, end] : {std::pair{"from", &rig.leads[i].from}, {"to", &rig.leads[i].to}})
      if (!known(end->part))
        return failure(file + ": /leads/" + std::to_string(i) + "/" + name + "/part",
                       "\"" + end->part + "\" is no part of this rig", "the id of a part, or controller");
  std::set<Surface> driven;
  for (std::size_t i = 0; i < rig.outputs.size(); ++i) {
    const Output& o = rig.outputs[i];
    const std::string where = file + ": /outputs/" + std::to_string(i);
    if (o.id.empty()) return failure(where + "/id", "is empty", "a name");
    if (o.surfaces.size() > 4)
      return failure(where + "/surfaces", "has " + std::to_string(o.surfaces.size()) + " entries",
                     "at most four on one lead");
    for (const Surface s : o.surfaces)
      if (!driven.insert(s).second)
        return failure(where + "/surfaces", "\"" + s.name() + "\" hangs on two outputs", "every surface once");
    if (!(o.low_us < o.centre_us && o.centre_us < o.high_us) && !(o.surfaces.empty() && o.low_us < o.high_us))
      return failure(where, "the ends do not enclose the centre", "low_us < centre_us < high_us");
  }
  for (std::size_t i = 0; i < rig.modes.size(); ++i)
    if (!(rig.modes[i].from_us < rig.modes[i].to_us))
      return failure(file + ": /modes/" + std::to_string(i), "from_us is not below to_us", "from_us < to_us");
  return {};
}

}  // namespace

namespace {

/// Of JSON that has the shape of this version.
Result<Rig> rig_from_current(const Json& json, const std::string& file) {
  auto rig = read_fields<Rig>(json, file);
  if (!rig) return rig;
  if (auto ok = consistent(*rig, file); !ok) return tl::make_unexpected(ok.error());
  return rig;
}

/// The value that an error is about, found again in the JSON it came from, with its description.
struct Spot {
  Json* json;
  const TypeInfo* type = nullptr;  ///< null beyond what is described
  const Member* member = nullptr;  ///< whose value it is
  Json* within = nullptr;          ///< the object or list that it stands in
  std::string step;                ///< its name or number there
};

/// The steps of an error's place: what follows the name of the file.
std::vector<std::string> steps_of_error(const Error& error, const std::string& file) {
  const std::size_t begin = file.size() + 2;
  return error.where.size() <= begin + 1 ? std::vector<std::string>{} : steps_of(error.where.substr(begin + 1));
}

Spot spot_of(Json& json, const std::vector<std::string>& steps) {
  Spot spot{&json, &TypeOf<Rig>::get(), nullptr, nullptr, {}};
  for (const std::string& step : steps) {
    Json* next = nullptr;
    if (spot.json->is_object() && spot.json->contains(step)) {
      next = &(*spot.json)[step];
    } else if (spot.json->is_array()) {
      const auto i = number_of(step);
      if (i && *i >= 0 && *i < static_cast<double>(spot.json->size()))
        next = &(*spot.json)[static_cast<std::size_t>(*i)];
    }
    if (!next) break;
    if (const TypeInfo* inside = spot.type ? spot.type->present_type() : nullptr) spot.type = inside;
    const Members* members = spot.type ? spot.type->members() : nullptr;
    spot.member = members ? members->named(step) : nullptr;
    spot.type = spot.member ? spot.member->type : spot.type && spot.json->is_array() ? spot.type->item_type() : nullptr;
    spot.within = spot.json;
    spot.json = next;
    spot.step = step;
  }
  return spot;
}

/// Takes away what stands at the spot, or as much of it as is too much.
void take_away(const Spot& spot) {
  // An output whose ends do not enclose its centre has the usual ones, and keeps all else.
  if (spot.json->is_object() && (spot.json->contains("low_us") || spot.json->contains("high_us"))) {
    Json usual = *spot.json;
    usual["low_us"] = Output{}.low_us, usual["centre_us"] = Output{}.centre_us, usual["high_us"] = Output{}.high_us;
    if (usual != *spot.json) {
      *spot.json = std::move(usual);
      return;
    }
  }
  const std::size_t most = spot.member ? spot.member->most : most_entries;
  if (spot.json->is_string() && letters(spot.json->get_ref<const std::string&>()) > most_letters)
    *spot.json = first_letters(spot.json->get_ref<const std::string&>(), most_letters);
  else if (spot.json->is_array() && spot.json->size() > most)
    spot.json->erase(spot.json->begin() + static_cast<std::ptrdiff_t>(most), spot.json->end());
  else if (!spot.within)
    *spot.json = Json::object();
  else if (spot.within->is_array())
    spot.within->erase(static_cast<std::size_t>(*number_of(spot.step)));
  else
    spot.within->erase(spot.step);
}

}  // namespace

Result<Rig> rig_from_json(const Json& json, const std::string& file) {
  auto current = unwrapped(json, file);
  if (!current) return tl::make_unexpected(current.error());
  return rig_from_current(*current, file);
}

Result<PartOfRig> rig_as_far_as_it_goes(const std::string& text, const std::string& file) {
  constexpr int most_faults = 1000;
  PartOfJson part = parse_json_as_far_as_it_goes(text, file);
  PartOfRig found;
  if (part.error) found.left_out.push_back(std::move(*part.error));
  auto json = unwrapped(std::move(part.read), file);
  if (!json) return tl::make_unexpected(json.error());
  const OrderedJson usual = write_fields(Rig{});
  for (int faults = 0; faults < most_faults; ++faults) {
    for (const Member& m : Described<Rig>::members().list)
      if (m.needed && !json->contains(m.name)) (*json)[m.name] = Json::parse(usual[m.name].dump());
    auto rig = rig_from_current(*json, file);
    if (rig) {
      found.rig = std::move(*rig);
      return found;
    }
    take_away(spot_of(*json, steps_of_error(rig.error(), file)));
    found.left_out.push_back(std::move(rig.error()));
  }
  return failure(file, "has more than " + std::to_string(most_faults) + " faults", "a rig file");
}

Result<void> can_be_kept(const Rig& rig) {
  Json json = Json::parse(rig_text(rig));
  auto error = rig_from_json(json, "rig");
  if (error) return {};
  // Entries by their names, as places have them.
  std::string place;
  const TypeInfo* type = &TypeOf<Rig>::get();
  const Json* at = &json;
  for (const std::string& step : steps_of_error(error.error(), "rig")) {
    if (const TypeInfo* inside = type ? type->present_type() : nullptr) type = inside;
    std::string name = step;
    if (at && at->is_array()) {
      const auto i = static_cast<std::size_t>(number_of(step).value_or(0));
      at = i < at->size() ? &(*at)[i] : nullptr;
      type = type ? type->item_type() : nullptr;
      const Members* members = type ? type->members() : nullptr;
      if (members && at && at->contains(members->list.front().name))
        if (const Json& first = (*at)[members->list.front().name]; first.is_string() || first.is_number())
          name = first.is_string() ? clean_text(first.get<std::string>(), 40) : first.dump();
    } else {
      const Member* m = type && type->members() ? type->members()->named(step) : nullptr;
      type = m ? m->type : nullptr;
      at = at && at->is_object() && at->contains(step) ? &(*at)[step] : nullptr;
    }
    place = place.empty() ? path_of({name}) : place + "/" + path_of({name});
  }
  if (!place.empty()) error.error().where = capital(place_words(place));
  return tl::make_unexpected(std::move(error.error()));
}

OrderedJson rig_schema() {
  OrderedJson schema = schema_of(Described<Rig>::members(), "Rig, version " + std::to_string(rig_version),
                                 "One aircraft. Units are in the names; members that are not listed are kept.");
  schema["required"].insert(schema["required"].begin(), {"format", "version"});
  OrderedJson properties{{"format", {{"enum", {"rig"}}}},
                         {"version", {{"type", "integer"}, {"minimum", 1}, {"maximum", rig_version}}}};
  for (const auto& [name, value] : schema["properties"].items()) properties.push_back({name, value});
  schema["properties"] = std::move(properties);
  // What the checks after reading demand of a lead's surfaces.
  OrderedJson& surfaces = schema["properties"]["outputs"]["items"]["properties"]["surfaces"];
  surfaces["maxItems"] = 4;
  surfaces["uniqueItems"] = true;
  return schema;
}

OrderedJson rig_to_json(const Rig& rig) {
  OrderedJson json{{"format", "rig"}, {"version", rig_version}};
  const OrderedJson members = write_fields(rig);
  for (const auto& [name, value] : members.items()) json.push_back({name, value});
  return json;
}

std::string rig_text(const Rig& rig) {
  return rig_to_json(rig).dump(2, ' ', false, OrderedJson::error_handler_t::replace) + "\n";
}

Result<Rig> load_rig(const std::filesystem::path& path) {
  return read_json_file(path).and_then([&](const Json& json) { return rig_from_json(json, path.string()); });
}

Result<Rig> rig_from_text(const std::string& text, const std::string& file) {
  return parse_json(text, file).and_then([&](const Json& json) { return rig_from_json(json, file); });
}

Result<void> save_rig(const Rig& rig, const std::filesystem::path& path) {
  if (auto ok = can_be_kept(rig); !ok) return ok;
  return write_file_atomically(path, rig_text(rig));
}

Result<RigCopy> load_copy(const std::filesystem::path& path) {
  const auto text = read_file(path);
  if (!text) return tl::make_unexpected(text.error());
  auto part = rig_as_far_as_it_goes(*text, path.string());
  if (!part) return tl::make_unexpected(part.error());
  const Json json = parse_json_as_far_as_it_goes(*text, path.string()).read;
  return RigCopy{std::move(part->rig), text_member(json, copy_of), text_member(json, copy_before),
                 std::move(part->left_out)};
}

Result<void> save_copy(const RigCopy& copy, const std::filesystem::path& path) {
  OrderedJson json = rig_to_json(copy.rig);
  json[copy_of] = copy.of;
  if (!copy.before.empty()) json[copy_before] = copy.before;
  return write_file_atomically(path, json.dump(2, ' ', false, OrderedJson::error_handler_t::replace) + "\n");
}

}  // namespace rigging
