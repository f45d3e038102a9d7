#include "catalogue/catalogue.h"

#include <algorithm>

#include "base/fields.h"

namespace rigging {

template <class F>
void describe(F& f, OutputSocket& o) {
  f.required("id", o.id);
  f.required("label", o.label);
  f.integer("timer_group", o.timer_group, {1, 32});
  f.number("x_mm", o.x_mm, {0, 500});
  f.number("y_mm", o.y_mm, {0, 500});
  f.rest(o.extra);
}

template <class F>
void describe(F& f, rigging::Port& p) {
  f.required("id", p.id);
  f.required("label", p.label);
  f.required("kind", p.kind);
  f.number("x_mm", p.x_mm, {0, 500});
  f.number("y_mm", p.y_mm, {0, 500});
  f.rest(p.extra);
}

template <class F>
void describe(F& f, Cure& c) {
  f.required("remedy", c.remedy);
  f.optional("over_link", c.over_link);
  f.optional("steps", c.steps);
  f.rest(c.extra);
}

template <class F>
void describe(F& f, ModeAnswer& m) {
  f.required("mode", m.mode);
  f.required("answer", m.answer);
  std::optional<double> from = m.from_deg == 0 ? std::nullopt : std::optional(m.from_deg);
  f.number("from_deg", from, {0, 90});
  m.from_deg = from.value_or(0);
  f.optional("note", m.note);
  f.rest(m.extra);
}

template <class F>
void describe(F& f, Lamp& l) {
  f.required("sign", l.sign);
  f.required("meaning", l.meaning);
  f.rest(l.extra);
}

template <class F>
void describe(F& f, ControllerClass& c) {
  f.required("id", c.id);
  f.required("name", c.name);
  f.required("summary", c.summary);
  f.required("family", c.family);
  f.optional("link", c.link);
  f.optional("reads_channels", c.reads_channels);
  f.optional("drives_one_output", c.drives_one_output);
  f.optional("axis_sensing_reversible", c.axis_sensing_reversible);
  f.optional("stick_direction_in_transmitter", c.stick_direction_in_transmitter);
  f.optional("can_be_turned", c.can_be_turned);
  f.number("width_mm", c.width_mm, {5, 500});
  f.number("length_mm", c.length_mm, {5, 500});
  f.required("inputs", c.inputs);
  f.required("outputs", c.outputs);
  f.optional("ports", c.ports);
  f.required("cures", c.cures);
  f.required("modes", c.modes);
  f.required("bench_mode", c.bench_mode);
  f.optional("rudder_into_bank", c.rudder_into_bank);
  f.required("gains", c.gains);
  f.required("level", c.level);
  f.required("arming", c.arming);
  f.optional("lamps", c.lamps);
  f.rest(c.extra);
}

template <class F>
void describe(F& f, PartKind& p) {
  f.required("id", p.id);
  f.required("name", p.name);
  f.required("group", p.group);
  f.number("mass_kg", p.mass_kg, {0, 100});
  f.required("basis", p.basis);
  f.rest(p.extra);
}

struct CatalogueFile {
  std::string format = "parts";
  int version = 1;
  std::vector<PartKind> parts;
  std::vector<ControllerClass> controllers;
  Json extra;
};

template <class F>
void describe(F& f, CatalogueFile& c) {
  f.required("format", c.format);
  f.integer("version", c.version, {1, 1});
  f.optional("parts", c.parts);
  f.optional("controllers", c.controllers);
  f.rest(c.extra);
}

const Cure* ControllerClass::cure(Remedy remedy) const {
  const auto it = std::find_if(cures.begin(), cures.end(), [&](const Cure& c) { return c.remedy == remedy; });
  return it == cures.end() ? nullptr : &*it;
}

const ModeAnswer* ControllerClass::mode(Mode wanted) const {
  const auto it = std::find_if(modes.begin(), modes.end(), [&](const ModeAnswer& m) { return m.mode == wanted; });
  return it == modes.end() ? nullptr : &*it;
}

const OutputSocket* ControllerClass::socket(const std::string& socket_id) const {
  const auto it = std::find_if(outputs.begin(), outputs.end(), [&](const OutputSocket& o) { return o.id == socket_id; });
  return it == outputs.end() ? nullptr : &*it;
}

Abilities ControllerClass::abilities() const {
  Abilities can;
  // What hands can do on any model, and what any transmitter offers.
  for (const Remedy r : {Remedy::swap_leads, Remedy::check_output, Remedy::move_linkage, Remedy::reverse_transmitter,
                         Remedy::swap_transmitter, Remedy::turn_board})
    can.add(r);
  for (const Cure& c : cures) can.add(c.remedy);
  return can;
}

const ControllerClass* Catalogue::controller(const std::string& id) const {
  const auto it = std::find_if(controllers.begin(), controllers.end(), [&](const ControllerClass& c) { return c.id == id; });
  return it == controllers.end() ? nullptr : &*it;
}

const PartKind* Catalogue::part(const std::string& id) const {
  const auto it = std::find_if(parts.begin(), parts.end(), [&](const PartKind& p) { return p.id == id; });
  return it == parts.end() ? nullptr : &*it;
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

}  // namespace

Result<void> add_own_parts(Catalogue& catalogue, const std::filesystem::path& file) {
  const auto json = read_json_file(file);
  if (!json) return tl::make_unexpected(json.error());
  auto read = read_fields<CatalogueFile>(*json, file.string());
  if (!read) return tl::make_unexpected(read.error());
  if (read->format != "parts") return failure(file.string() + ": /format", "is \"" + read->format + "\"", "\"parts\"");
  Catalogue grown = catalogue;
  for (const ControllerClass& c : read->controllers)
    if (c.outputs.empty() || c.modes.empty())
      return failure(file.string() + ": controller \"" + c.id + "\"", "has no outputs or no modes", "at least one of each");
  if (auto ok = add_all(grown.controllers, std::move(read->controllers), file.string()); !ok) return ok;
  if (auto ok = add_all(grown.parts, std::move(read->parts), file.string()); !ok) return ok;
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
  return catalogue;
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
