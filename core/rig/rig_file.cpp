#include "rig/rig_file.h"

#include <algorithm>
#include <cstring>
#include <set>

#include "base/fields.h"

namespace rigging {

template <>
const Members& Described<Rig>::members() {
  static const Members all = Describe<Rig>()
                                 .needed("name", &Rig::name)
                                 .member("note", &Rig::note)
                                 .needed("airframe", &Rig::airframe)
                                 .needed("controller", &Rig::controller)
                                 .member("parts", &Rig::parts)
                                 .member("places", &Rig::mountings)
                                 .member("leads", &Rig::leads)
                                 .member("fit", &Rig::fit)
                                 .member("power", &Rig::power)
                                 .member("radio", &Rig::radio)
                                 .member("ports", &Rig::ports)
                                 .member("outputs", &Rig::outputs)
                                 .member("saturation", &Rig::saturation)
                                 .member("linkages", &Rig::linkages)
                                 .member("release", &Rig::release)
                                 .member("sensing", &Rig::sensing)
                                 .member("feel", &Rig::feel)
                                 .member("modes", &Rig::modes)
                                 .member("home", &Rig::home)
                                 .member("proofs", &Rig::proofs)
                                 .member("loose_ends", &Rig::loose_ends)
                                 .member("log", &Rig::log)
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
constexpr Renamed renamed[] = {{"", "sharing", "saturation"},           {"outputs", "passes", "passthrough_channel"},
                               {"home", "hold_s", "loss_hold_s"},       {"home", "height_m", "return_height_m"},
                               {"home", "warn_v", "turn_home_v"},       {"home", "shows", "goggles"},
                               {"radio", "heard_as", "receiver_signal"}};

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
  json.erase("format");
  json.erase(copy_of);
  json.erase(copy_before);
  json.erase("version");
  return json;
}

/// Far more than any aircraft has, and little enough that nothing which is accepted takes seconds.
constexpr std::size_t longest_text = 2000, longest_list = 100;
constexpr std::pair<const char*, std::size_t> longest_lists[] = {
    {"parts", 300}, {"places", 300},  {"leads", 600},      {"outputs", 32},
    {"log", 5000},  {"proofs", 1000}, {"arm_holes_m", 40}, {"horn_holes_m", 40}};

/// Walked before anything is read: what is too much is refused with its place.
std::optional<Error> beyond_limits(const Json& json, const std::string& where, const std::string& name) {
  if (json.is_string()) {
    if (json.get_ref<const std::string&>().size() <= longest_text) return std::nullopt;
    return Error{where, "is a text of " + std::to_string(json.get_ref<const std::string&>().size()) + " bytes",
                 "at most " + std::to_string(longest_text)};
  }
  if (json.is_array()) {
    std::size_t most = longest_list;
    for (const auto& [list, length] : longest_lists)
      if (name == list) most = length;
    if (json.size() > most)
      return Error{where, "has " + std::to_string(json.size()) + " entries", "at most " + std::to_string(most)};
  }
  if (!json.is_structured()) return std::nullopt;
  std::size_t i = 0;
  for (auto it = json.begin(); it != json.end(); ++it, ++i) {
    const std::string key = json.is_object() ? it.key() : std::to_string(i);
    if (key.size() > longest_text)
      return Error{where, "has a member with a name of " + std::to_string(key.size()) + " bytes",
                   "at most " + std::to_string(longest_text)};
    if (auto error = beyond_limits(*it, where + "/" + key, key)) return error;
  }
  return std::nullopt;
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

Result<Rig> rig_from_json(const Json& json, const std::string& file) {
  if (auto error = beyond_limits(json, file + ": ", "")) return tl::make_unexpected(std::move(*error));
  auto current = unwrapped(json, file);
  if (!current) return tl::make_unexpected(current.error());
  auto rig = read_fields<Rig>(*current, file);
  if (!rig) return rig;
  if (auto ok = consistent(*rig, file); !ok) return tl::make_unexpected(ok.error());
  return rig;
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
  return write_file_atomically(path, rig_text(rig));
}

Result<RigCopy> load_copy(const std::filesystem::path& path) {
  const auto json = read_json_file(path);
  if (!json) return tl::make_unexpected(json.error());
  auto rig = rig_from_json(*json, path.string());
  if (!rig) return tl::make_unexpected(rig.error());
  return RigCopy{std::move(*rig), text_member(*json, copy_of), text_member(*json, copy_before)};
}

Result<void> save_copy(const RigCopy& copy, const std::filesystem::path& path) {
  OrderedJson json = rig_to_json(copy.rig);
  json[copy_of] = copy.of;
  if (!copy.before.empty()) json[copy_before] = copy.before;
  return write_file_atomically(path, json.dump(2, ' ', false, OrderedJson::error_handler_t::replace) + "\n");
}

}  // namespace rigging
