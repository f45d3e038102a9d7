#include "catalogue/catalogue.h"

#include <algorithm>
#include <set>

#include "base/find.h"
#include "base/schema.h"

namespace rigging {

template <class F>
void describe(F& f, Terminal& t) {
  f.required("id", t.id);
  f.required("label", t.label);
  f.required("kind", t.kind);
  f.optional("also", t.also);
  f.optional("net", t.net);
  std::optional<double> group = t.timer_group == 0 ? std::nullopt : std::optional<double>(t.timer_group);
  f.number("timer_group", group, {1, 32});
  t.timer_group = static_cast<int>(group.value_or(0));
  f.optional("emulated", t.emulated);
  f.number_or("most_baud", t.most_baud, 0, {1200, 1e7});
  f.optional("serves", t.serves);
  f.optional("side", t.side);
  f.number_or("x_mm", t.x_mm, 0, {0, 500});
  f.number_or("y_mm", t.y_mm, 0, {0, 500});
  f.rest(t.extra);
}

template <class F>
void describe(F& f, Feed& d) {
  f.required("from", d.from);
  f.required("to", d.to);
  f.required("kind", d.kind);
  f.number_or("volts", d.volts, 0, {0, 60});
  f.number_or("amps", d.amps, 0, {0, 500});
  f.number_or("least_in_v", d.least_in_v, 0, {0, 100});
  f.number_or("most_in_v", d.most_in_v, 60, {0, 100});
  f.number_or("k_per_w", d.k_per_w, 0, {0, 500});
  f.number_or("most_junction_c", d.most_junction_c, 125, {40, 250});
  f.rest(d.extra);
}

template <class F>
void describe(F& f, Load& l) {
  constexpr Span amps{0, 500}, volts{0, 100};
  f.required("net", l.net);
  f.number("idle_a", l.idle_a, amps);
  f.number("typical_a", l.typical_a, amps);
  f.number("most_a", l.most_a, amps);
  f.number("least_v", l.least_v, volts);
  f.number("most_v", l.most_v, volts);
  f.rest(l.extra);
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
  f.number_or("height_mm", c.height_mm, ControllerClass{}.height_mm, {1, 200});
  f.number_or("mass_kg", c.mass_kg, ControllerClass{}.mass_kg, {0.0005, 2});
  f.required("outputs", c.outputs);
  f.optional("ports", c.ports);
  f.optional("pads", c.pads);
  f.optional("feeds", c.feeds);
  f.optional("loads", c.loads);
  f.optional("minus_edge", c.minus_edge);
  f.optional("motor_bypasses", c.motor_bypasses);
  f.optional("has_compass", c.has_compass);
  f.optional("has_barometer", c.has_barometer);
  f.optional("learns_ends", c.learns_ends);
  f.optional("sets_centre", c.sets_centre);
  f.optional("sets_ends", c.sets_ends);
  f.optional("gesture_needs_full_ends", c.gesture_needs_full_ends);
  f.number_or("travel_percent", c.travel_percent, 100, {50, 200});
  f.number_or("reads_full", c.reads_full, 0, {0, 10000});
  f.optional("pitch_back_falls", c.pitch_back_falls);
  f.optional("notices", c.notices);
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
void describe(F& f, ServoFigures& v) {
  f.required("digital", v.digital);
  f.number("seconds_per_60deg", v.seconds_per_60deg, {0.01, 5});
  f.number("torque_nm", v.torque_nm, {0.005, 20});
  f.number("dead_band_us", v.dead_band_us, {0, 50});
  f.number("most_rate_hz", v.most_rate_hz, {20, 1000});
  f.rest(v.extra);
}

template <class F>
void describe(F& f, BatteryFigures& v) {
  constexpr Span cell_v{1, 5};
  f.integer("cells", v.cells, {1, 14});
  f.number("capacity_ah", v.capacity_ah, {0.05, 100});
  f.number("amps", v.amps, {0.1, 1000});
  f.number("cell_milliohm", v.cell_milliohm, {0.1, 500});
  f.number_or("full_cell_v", v.full_cell_v, BatteryFigures{}.full_cell_v, cell_v);
  f.number_or("nominal_cell_v", v.nominal_cell_v, BatteryFigures{}.nominal_cell_v, cell_v);
  f.number_or("empty_cell_v", v.empty_cell_v, BatteryFigures{}.empty_cell_v, cell_v);
  f.rest(v.extra);
}

template <class F>
void describe(F& f, DriveFigures& v) {
  f.number("amps", v.amps, {0.5, 1000});
  f.integer("least_cells", v.least_cells, {1, 14});
  f.integer("most_cells", v.most_cells, {1, 14});
  f.rest(v.extra);
}

template <class F>
void describe(F& f, MotorFigures& v) {
  f.number("rpm_per_v", v.rpm_per_v, {20, 50000});
  f.number("ohm", v.ohm, {0.0005, 20});
  f.number("no_load_a", v.no_load_a, {0, 50});
  f.number("amps", v.amps, {0.2, 1000});
  f.rest(v.extra);
}

template <class F>
void describe(F& f, PropellerFigures& v) {
  f.number("diameter_m", v.diameter_m, {0.02, 2});
  f.number("pitch_m", v.pitch_m, {0.01, 2});
  f.optional("left_handed", v.left_handed);
  f.rest(v.extra);
}

template <class F>
void describe(F& f, SerialFigures& v) {
  f.number("baud", v.baud, {1200, 4e6});
  f.rest(v.extra);
}

template <class F>
void describe(F& f, LeadFigures& v) {
  f.required("kind", v.kind);
  f.number("awg", v.awg, {0, 40});
  f.number("length_m", v.length_m, {0.01, 20});
  f.rest(v.extra);
}

template <class F>
void describe(F& f, PartKind& p) {
  constexpr Span size_mm{0.5, 2000};
  f.required("id", p.id);
  f.required("name", p.name);
  f.required("group", p.group);
  f.number("mass_kg", p.mass_kg, {0, 100});
  f.number("length_mm", p.length_mm, size_mm);
  f.number("width_mm", p.width_mm, size_mm);
  f.number("height_mm", p.height_mm, size_mm);
  f.required("basis", p.basis);
  f.optional("terminals", p.terminals);
  f.optional("feeds", p.feeds);
  f.optional("loads", p.loads);
  f.optional("servo", p.servo);
  f.optional("battery", p.battery);
  f.optional("drive", p.drive);
  f.optional("motor", p.motor);
  f.optional("propeller", p.propeller);
  f.optional("serial", p.serial);
  f.optional("lead", p.lead);
  f.optional("needs_sky", p.needs_sky);
  f.optional("magnetic_sensor", p.magnetic_sensor);
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
  return find_in(cures, [&](const Cure& c) { return c.remedy == remedy; });
}

const ModeAnswer* ControllerClass::mode(Mode wanted) const {
  return find_in(modes, [&](const ModeAnswer& m) { return m.mode == wanted; });
}

const Terminal* ControllerClass::socket(const std::string& socket_id) const {
  return find_in(outputs, [&](const Terminal& t) { return t.id == socket_id; });
}

const Terminal* ControllerClass::terminal(const std::string& terminal_id) const {
  for (const auto* list : {&outputs, &ports, &pads})
    for (const Terminal& t : *list)
      if (t.id == terminal_id) return &t;
  return nullptr;
}

std::vector<const Terminal*> ControllerClass::terminals() const {
  std::vector<const Terminal*> all;
  for (const auto* list : {&outputs, &ports, &pads})
    for (const Terminal& t : *list) all.push_back(&t);
  return all;
}

const Terminal* PartKind::terminal(const std::string& terminal_id) const {
  return find_in(terminals, [&](const Terminal& t) { return t.id == terminal_id; });
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
  return find_in(controllers, [&](const ControllerClass& c) { return c.id == id; });
}

const PartKind* Catalogue::part(const std::string& id) const {
  return find_in(parts, [&](const PartKind& p) { return p.id == id; });
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

namespace {

/// Terminals, feeds and loads of a part or a board.
Result<void> electrics_fit(const std::vector<const Terminal*>& terminals, const std::vector<Feed>& feeds,
                           const std::vector<Load>& loads, const std::string& where) {
  std::set<std::string> ids, nets;
  for (const Terminal* t : terminals) {
    if (t->id.empty() || !ids.insert(t->id).second)
      return failure(where, "terminal \"" + t->id + "\" is there twice or has no name",
                     "terminals with names that differ");
    if (!t->net.empty()) nets.insert(t->net);
  }
  for (const Feed& f : feeds) {
    nets.insert(f.to);
    if (f.from == f.to) return failure(where, "a feed leads from \"" + f.from + "\" to itself", "two nets");
    if (!(f.least_in_v < f.most_in_v))
      return failure(where, "the input window of a feed is empty", "least_in_v < most_in_v");
    if ((f.kind == FeedKind::linear || f.kind == FeedKind::switching) && (f.volts <= 0 || f.amps <= 0))
      return failure(where, "a regulator without volts or amps", "both above zero");
  }
  for (const Feed& f : feeds)
    if (!nets.count(f.from))
      return failure(where, "a feed comes from net \"" + f.from + "\", on which nothing is",
                     "the net of a terminal or another feed");
  for (const Load& l : loads) {
    if (!nets.count(l.net))
      return failure(where, "a load sits on net \"" + l.net + "\", on which nothing is",
                     "the net of a terminal or a feed");
    if (!(l.idle_a <= l.typical_a && l.typical_a <= l.most_a))
      return failure(where, "a load's currents are out of order", "idle_a ≤ typical_a ≤ most_a");
    if (!(l.least_v < l.most_v)) return failure(where, "a load's voltage window is empty", "least_v < most_v");
  }
  return {};
}

Result<CatalogueFile> read_parts_file(const std::filesystem::path& file) {
  const auto json = read_json_file(file);
  if (!json) return tl::make_unexpected(json.error());
  auto read = read_fields<CatalogueFile>(*json, file.string());
  if (!read) return read;
  if (read->format != "parts") return failure(file.string() + ": /format", "is \"" + read->format + "\"", "\"parts\"");
  for (const ControllerClass& c : read->controllers) {
    const std::string where = file.string() + ": controller \"" + c.id + "\"";
    if (c.outputs.empty() || c.modes.empty())
      return failure(where, "has no outputs or no modes", "at least one of each");
    for (const Terminal& t : c.outputs)
      if (t.kind != TerminalKind::output || t.timer_group == 0)
        return failure(where, "output \"" + t.id + "\" is no output of a timer group", "kind output and a timer_group");
    if (auto ok = electrics_fit(c.terminals(), c.feeds, c.loads, where); !ok) return tl::make_unexpected(ok.error());
  }
  for (const PartKind& p : read->parts)
    if (auto ok = consistent(p, file.string() + ": part \"" + p.id + "\""); !ok) return tl::make_unexpected(ok.error());
  return read;
}

}  // namespace

Result<void> consistent(const PartKind& p, const std::string& where) {
  if (p.id.empty()) return failure(where, "has no id", "a name of small letters, digits and _");
  const auto needs = [&](PartGroup group, bool has, const char* what) -> Result<void> {
    if (p.group == group && !has)
      return failure(where, "a " + spoken(word(group)) + " without \"" + what + "\"", "its figures");
    return {};
  };
  if (auto r = needs(PartGroup::servo, p.servo.has_value(), "servo"); !r) return r;
  if (auto r = needs(PartGroup::battery, p.battery.has_value(), "battery"); !r) return r;
  if (auto r = needs(PartGroup::motor, p.motor.has_value(), "motor"); !r) return r;
  if (auto r = needs(PartGroup::propeller, p.propeller.has_value(), "propeller"); !r) return r;
  if (auto r = needs(PartGroup::speed_controller, p.drive.has_value(), "drive"); !r) return r;
  if (auto r = needs(PartGroup::lead, p.lead.has_value(), "lead"); !r) return r;
  if (p.drive && p.drive->least_cells > p.drive->most_cells)
    return failure(where, "least_cells is above most_cells", "least_cells ≤ most_cells");
  if (p.battery &&
      !(p.battery->empty_cell_v < p.battery->nominal_cell_v && p.battery->nominal_cell_v < p.battery->full_cell_v))
    return failure(where, "the cell voltages are out of order", "empty < nominal < full");
  std::vector<const Terminal*> terminals;
  for (const Terminal& t : p.terminals) terminals.push_back(&t);
  return electrics_fit(terminals, p.feeds, p.loads, where);
}

Result<void> add_own_parts(Catalogue& catalogue, const std::filesystem::path& file) {
  auto read = read_parts_file(file);
  if (!read) return tl::make_unexpected(read.error());
  Catalogue grown = catalogue;
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
  if (auto earth = MagneticModel::load(folder.parent_path() / "magnetic" / "wmm2025.csv"))
    catalogue.earth = std::move(*earth);
  return catalogue;
}

Result<void> save_own_part(const std::filesystem::path& file, const PartKind& kind) {
  if (auto ok = consistent(kind, kind.id); !ok) return ok;
  CatalogueFile all;
  all.extra = Json::object();
  if (std::filesystem::exists(file)) {
    auto read = read_parts_file(file);
    if (!read) return tl::make_unexpected(read.error());
    all = std::move(*read);
  }
  const auto it = std::find_if(all.parts.begin(), all.parts.end(), [&](const PartKind& p) { return p.id == kind.id; });
  if (it == all.parts.end())
    all.parts.push_back(kind);
  else
    *it = kind;
  return write_file_atomically(file, write_fields(all).dump(1) + "\n");
}

OrderedJson parts_schema() {
  OrderedJson schema = schema_of<CatalogueFile>(
      "Parts, version 1",
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
