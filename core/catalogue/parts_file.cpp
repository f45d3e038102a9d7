#include <algorithm>
#include <array>

#include "base/fields.h"
#include "base/file.h"
#include "catalogue/catalogue.h"

/// Parts files of every version: read, brought up, completed, and the builder's own written.
namespace rigging {
namespace {

constexpr int parts_version = 5;

}  // namespace

struct CatalogueFile {
  std::string format = "parts";
  int version = parts_version;
  std::vector<RemedySteps> shared_remedies;
  std::vector<HandStep> shared_steps;
  std::vector<PartKind> parts;
  std::vector<ControllerClass> controllers;
  UnknownMembers unknown_members;
};

template <>
const Members& Described<CatalogueFile>::members() {
  static const Members all = Describe<CatalogueFile>()
                                 .needed("format", &CatalogueFile::format)
                                 .needed("version", &CatalogueFile::version, {1, parts_version})
                                 .member("shared_remedies", &CatalogueFile::shared_remedies)
                                 .member("shared_steps", &CatalogueFile::shared_steps)
                                 .member("parts", &CatalogueFile::parts)
                                 .at_most(1000)
                                 .member("controllers", &CatalogueFile::controllers)
                                 .rest(&CatalogueFile::unknown_members);
  return all;
}

namespace {

template <class T>
Result<void> add_all(std::vector<T>& list, std::vector<T>&& more, const std::string& where) {
  for (T& item : more) {
    if (std::any_of(list.begin(), list.end(), [&](const T& known) { return known.id == item.id; }))
      return failure(where, "\"" + item.id + "\" is in the catalogue already", "an id of its own");
    list.push_back(std::move(item));
  }
  return {};
}

/// Version 1 had a flag each for an output's centre and its ends.
void from_version_1(Json& c) {
  const char* by = flag_member(c, "link", false) ? "link" : "computer";
  const auto ways = [&](const char* flag, std::initializer_list<const char*> names) {
    if (flag_member(c, flag, false))
      for (const char* name : names) c["settings"].push_back({{"what", name}, {"by", by}});
    c.erase(flag);
  };
  ways("sets_centre", {"centre_us"});
  ways("sets_ends", {"low_us", "high_us"});
}

/// Up to version 2 abilities stood side by side; now each station has a group of them.
void from_version_2(Json& c) {
  const std::pair<const char*, std::vector<const char*>> groups[] = {
      {"sticks",
       {"reads_channels", "reads_full", "learns_ends", "travel_percent", "pitch_back_falls", "throttle_opens_falls",
        "gesture_needs_full_ends", "stick_direction_in_transmitter", "notices", "arming"}},
      {"surfaces", {"drives_one_output", "motor_bypasses"}},
      {"senses",
       {"axis_sensing_reversible", "can_be_turned", "either_face", "half_turn_by_switches", "has_compass",
        "has_barometer", "level"}},
      {"feel", {"gains"}},
      {"proof", {"modes", "bench_mode", "rudder_into_bank", "lamps"}}};
  for (const auto& [group, names] : groups)
    for (const char* name : names)
      if (const auto it = c.find(name); it != c.end()) {
        c[group][name] = *it;
        c.erase(name);
      }
}

/// Up to version 3 the throttle either went through a class or never did.
void from_version_3(Json& c) {
  const auto surfaces = c.find("surfaces");
  if (surfaces == c.end() || !surfaces->is_object()) return;
  if (flag_member(*surfaces, "motor_bypasses", false)) (*surfaces)["motor"] = name_of(MotorPath::receiver);
  surfaces->erase("motor_bypasses");
}

/// Up to version 4 remedies were cures, and the passed-through channel had another name.
void from_version_4(Json& c) {
  rename_member(c, "cures", "remedies");
  const auto settings = c.find("settings");
  if (settings == c.end() || !settings->is_array()) return;
  for (Json& s : *settings)
    if (text_member(s, "what") == "passes") s["what"] = "passthrough_channel";
}

void bring_up(Json& json) {
  if (!json.is_object()) return;
  const double version = number_member(json, "version", 0);
  if (version < 1 || version >= parts_version) return;
  json["version"] = parts_version;
  rename_member(json, "shared_cures", "shared_remedies");
  const auto classes = json.find("controllers");
  if (classes == json.end() || !classes->is_array()) return;
  for (Json& c : *classes) {
    if (!c.is_object()) continue;
    if (version < 2) from_version_1(c);
    if (version < 3) from_version_2(c);
    if (version < 4) from_version_3(c);
    from_version_4(c);
  }
}

/// A class can cure by a setting what it can set, and by hand what hands can do on any model.
void complete(ControllerClass& c, const SharedByAll& shared) {
  constexpr std::pair<Remedy, const char*> by_setting[] = {{Remedy::reverse_output, "reversed"},
                                                           {Remedy::reverse_function, "functions"},
                                                           {Remedy::flip_mix, "mix"},
                                                           {Remedy::flip_gyro, "sensing"},
                                                           {Remedy::turn_board, "board"}};
  for (const auto& [remedy, what] : by_setting)
    if (const SettingWay* w = c.way(what); w && !c.steps_for(remedy))
      c.remedies.push_back({remedy, w->by == SetBy::link, w->steps, {}});
  for (const RemedySteps& remedy_steps : shared.remedies)
    if (!c.steps_for(remedy_steps.remedy)) c.remedies.push_back(remedy_steps);
  const auto has = [&](const HandStep& s) {
    return std::any_of(c.steps.begin(), c.steps.end(), [&](const HandStep& own) { return own.id == s.id; });
  };
  for (auto s = shared.steps.rbegin(); s != shared.steps.rend(); ++s)
    if (!has(*s)) c.steps.insert(c.steps.begin(), *s);
}

Result<CatalogueFile> read_parts_file(const std::filesystem::path& file) {
  auto json = read_json_file(file);
  if (!json) return tl::make_unexpected(json.error());
  // Many times what a builder's own list has, and little enough to be read at once.
  constexpr std::pair<const char*, std::size_t> limits[] = {
      {"parts", 1000}, {"controllers", 100}, {"shared_remedies", 100}, {"shared_cures", 100}};
  for (const auto& [list, most] : limits)
    if (json->is_object() && json->contains(list) && (*json)[list].size() > most)
      return failure(file.string() + ": /" + list, "has " + std::to_string((*json)[list].size()) + " entries",
                     "at most " + std::to_string(most));
  bring_up(*json);
  auto read = read_fields<CatalogueFile>(*json, file.string());
  if (!read) return read;
  if (read->format != "parts") return failure(file.string() + ": /format", "is \"" + read->format + "\"", "\"parts\"");
  for (const ControllerClass& c : read->controllers) {
    if (auto ok = consistent(c, file.string() + ": controller \"" + c.id + "\""); !ok)
      return tl::make_unexpected(ok.error());
  }
  for (const PartKind& p : read->parts)
    if (auto ok = consistent(p, file.string() + ": part \"" + p.id + "\""); !ok) return tl::make_unexpected(ok.error());
  return read;
}

}  // namespace

Result<void> add_own_parts(Catalogue& catalogue, const std::filesystem::path& file) {
  // A pipe that stands there would be waited for without end.
  if (std::error_code unknown;
      std::filesystem::exists(file, unknown) && !std::filesystem::is_regular_file(file, unknown))
    return failure(file.string(), "is no file", "a file with own parts, or none of that name");
  auto read = read_parts_file(file);
  if (!read) return tl::make_unexpected(read.error());
  Catalogue grown = catalogue;
  for (RemedySteps& remedy_steps : read->shared_remedies) grown.shared.remedies.push_back(std::move(remedy_steps));
  for (HandStep& step : read->shared_steps) grown.shared.steps.push_back(std::move(step));
  if (auto ok = add_all(grown.controllers, std::move(read->controllers), file.string()); !ok) return ok;
  if (auto ok = add_all(grown.parts, std::move(read->parts), file.string()); !ok) return ok;
  for (ControllerClass& c : grown.controllers) complete(c, grown.shared);
  catalogue = std::move(grown);
  return {};
}

Result<Catalogue> load_catalogue(const std::filesystem::path& folder) {
  std::vector<std::filesystem::path> files;
  std::error_code ec;
  for (const auto& entry : std::filesystem::directory_iterator(folder, ec))
    if (entry.path().extension() == ".json") files.push_back(entry.path());
  if (files.empty()) return failure(folder.string(), "holds no catalogue files", "the folder data/catalogue");
  std::sort(files.begin(), files.end());
  Catalogue catalogue;
  for (const auto& file : files)
    if (auto ok = add_own_parts(catalogue, file); !ok) return tl::make_unexpected(ok.error());
  if (auto earth = MagneticModel::load(folder.parent_path() / "magnetic" / "wmm2025.csv"))
    catalogue.earth = std::move(*earth);
  return catalogue;
}

namespace {

/// Only what can be read again.
Result<void> write_parts_file(const std::filesystem::path& file, const CatalogueFile& all) {
  if (auto ok = in_range(all, file.string()); !ok) return ok;
  return write_file_atomically(file, write_fields(all).dump(1) + "\n");
}

/// Puts an entry into the builder's own file, in the place of one with the same id.
template <class T>
Result<void> keep_in(const std::filesystem::path& file, std::vector<T> CatalogueFile::*list, const T& entry) {
  if (auto ok = consistent(entry, entry.id); !ok) return ok;
  CatalogueFile all;
  if (std::error_code unknown; std::filesystem::exists(file, unknown)) {
    auto read = read_parts_file(file);
    if (!read) return tl::make_unexpected(read.error());
    all = std::move(*read);
  }
  std::vector<T>& entries = all.*list;
  const auto it = std::find_if(entries.begin(), entries.end(), [&](const T& e) { return e.id == entry.id; });
  if (it == entries.end())
    entries.push_back(entry);
  else
    *it = entry;
  return write_parts_file(file, all);
}

/// What `to` lacks of `from`; nothing may have the same name and be another.
template <class T>
Result<void> carry(const std::vector<T>& from, std::vector<T>& to, const char* what, const std::string& where) {
  for (const T& entry : from) {
    const auto there = std::find_if(to.begin(), to.end(), [&](const T& e) { return e.id == entry.id; });
    if (there == to.end())
      to.push_back(entry);
    else if (!(*there == entry))
      return failure(where, "has another " + std::string(what) + " \"" + entry.id + "\" than this rig uses",
                     "another name or folder for the rig");
  }
  return {};
}

}  // namespace

Result<void> carry_own_parts(const std::filesystem::path& from, const std::filesystem::path& to) {
  std::error_code unknown;
  if (from == to || !std::filesystem::exists(from, unknown)) return {};
  auto ours = read_parts_file(from);
  if (!ours) return tl::make_unexpected(ours.error());
  CatalogueFile all;
  if (std::filesystem::exists(to, unknown)) {
    auto theirs = read_parts_file(to);
    if (!theirs) return tl::make_unexpected(theirs.error());
    all = std::move(*theirs);
  }
  if (auto ok = carry(ours->parts, all.parts, "part", to.string()); !ok) return ok;
  if (auto ok = carry(ours->controllers, all.controllers, "board", to.string()); !ok) return ok;
  const auto add_missing = [](auto& list, const auto& more) {
    for (const auto& entry : more)
      if (std::find(list.begin(), list.end(), entry) == list.end()) list.push_back(entry);
  };
  add_missing(all.shared_remedies, ours->shared_remedies);
  add_missing(all.shared_steps, ours->shared_steps);
  if (all.unknown_members.empty()) all.unknown_members = ours->unknown_members;
  return write_parts_file(to, all);
}

Result<void> save_own_part(const std::filesystem::path& file, const PartKind& kind) {
  return keep_in(file, &CatalogueFile::parts, kind);
}

ControllerClass bare(ControllerClass own, const SharedByAll& shared) {
  // What `complete` would add again.
  ControllerClass completed = own;
  completed.remedies.clear();
  complete(completed, shared);
  const auto in = [](const auto& list, const auto& x) { return std::find(list.begin(), list.end(), x) != list.end(); };
  std::erase_if(own.remedies, [&](const RemedySteps& c) { return in(completed.remedies, c); });
  std::erase_if(own.steps, [&](const HandStep& s) { return in(shared.steps, s); });
  return own;
}

Result<void> save_own_class(const std::filesystem::path& file, const ControllerClass& own, const SharedByAll& shared) {
  const ControllerClass kept = bare(own, shared);
  if (auto ok = in_range(kept, own.id); !ok) return ok;
  return keep_in(file, &CatalogueFile::controllers, kept);
}

Result<std::vector<ControllerClass>> classes_in(const std::filesystem::path& file) {
  auto read = read_parts_file(file);
  if (!read) return tl::make_unexpected(read.error());
  if (read->controllers.empty()) return failure(file.string() + ": /controllers", "holds no board", "at least one");
  return std::move(read->controllers);
}

ControllerClass own_class(const ControllerClass& nearest, std::string id, std::string name) {
  ControllerClass own = nearest;
  own.id = std::move(id);
  own.name = std::move(name);
  return own;
}

OrderedJson parts_schema() {
  OrderedJson schema = schema_of(
      Described<CatalogueFile>::members(), "Parts, version " + std::to_string(parts_version),
      "Kinds of parts and classes of controllers. Units are in the names; members that are not listed are kept.");
  schema["properties"]["format"] = {{"enum", {"parts"}}};
  return schema;
}

std::filesystem::path own_parts_path(const std::filesystem::path& rig_file) {
  std::string name = rig_file.filename().string();
  for (const std::string ending : {".rig.json", ".json"})
    if (name.size() > ending.size() && name.ends_with(ending)) {
      name.resize(name.size() - ending.size());
      break;
    }
  return rig_file.parent_path() / (name + ".parts.json");
}

}  // namespace rigging
