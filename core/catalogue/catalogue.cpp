#include "catalogue/catalogue.h"

#include <algorithm>
#include <array>
#include <set>

#include "base/fields.h"
#include "base/find.h"
#include "base/number.h"

namespace rigging {
namespace {

constexpr int parts_version = 4;
constexpr Span amps{0, 500}, volts{0, 100}, cell_v{1, 5}, size_mm{0.5, 2000};

}  // namespace

template <>
const Members& Described<Terminal>::members() {
  static const Members all = Describe<Terminal>()
                                 .needed("id", &Terminal::id)
                                 .needed("label", &Terminal::label)
                                 .needed("kind", &Terminal::kind)
                                 .member("also", &Terminal::also)
                                 .member("net", &Terminal::net)
                                 .member("timer_group", &Terminal::timer_group, {1, 32})
                                 .member("emulated", &Terminal::emulated)
                                 .member("most_baud", &Terminal::most_baud, {1200, 1e7})
                                 .member("serves", &Terminal::serves)
                                 .member("side", &Terminal::side)
                                 .member("x_mm", &Terminal::x_mm, {0, 500})
                                 .member("y_mm", &Terminal::y_mm, {0, 500})
                                 .rest(&Terminal::extra);
  return all;
}

template <>
const Members& Described<Feed>::members() {
  static const Members all = Describe<Feed>()
                                 .needed("from", &Feed::from)
                                 .needed("to", &Feed::to)
                                 .needed("kind", &Feed::kind)
                                 .member("volts", &Feed::volts, {0, 60})
                                 .member("amps", &Feed::amps, {0, 500})
                                 .member("least_in_v", &Feed::least_in_v, {0, 100})
                                 .member("most_in_v", &Feed::most_in_v, {0, 100})
                                 .member("k_per_w", &Feed::k_per_w, {0, 500})
                                 .member("most_junction_c", &Feed::most_junction_c, {40, 250})
                                 .rest(&Feed::extra);
  return all;
}

template <>
const Members& Described<Load>::members() {
  static const Members all = Describe<Load>()
                                 .needed("net", &Load::net)
                                 .needed("idle_a", &Load::idle_a, amps)
                                 .needed("typical_a", &Load::typical_a, amps)
                                 .needed("most_a", &Load::most_a, amps)
                                 .needed("least_v", &Load::least_v, volts)
                                 .needed("most_v", &Load::most_v, volts)
                                 .rest(&Load::extra);
  return all;
}

template <>
const Members& Described<Cure>::members() {
  static const Members all = Describe<Cure>()
                                 .needed("remedy", &Cure::remedy)
                                 .member("over_link", &Cure::over_link)
                                 .member("steps", &Cure::steps)
                                 .rest(&Cure::extra);
  return all;
}

template <>
const Members& Described<SettingWay>::members() {
  static const Members all = Describe<SettingWay>()
                                 .needed("what", &SettingWay::what)
                                 .needed("by", &SettingWay::by)
                                 .member("steps", &SettingWay::steps)
                                 .rest(&SettingWay::extra);
  return all;
}

template <>
const Members& Described<ModeAnswer>::members() {
  static const Members all = Describe<ModeAnswer>()
                                 .needed("mode", &ModeAnswer::mode)
                                 .needed("answer", &ModeAnswer::answer)
                                 .member("from_deg", &ModeAnswer::from_deg, {0, 90})
                                 .member("motor_unlocked", &ModeAnswer::motor_unlocked)
                                 .member("note", &ModeAnswer::note)
                                 .rest(&ModeAnswer::extra);
  return all;
}

template <>
const Members& Described<Lamp>::members() {
  static const Members all = Describe<Lamp>()
                                 .needed("sign", &Lamp::sign)
                                 .needed("meaning", &Lamp::meaning)
                                 .member("tells", &Lamp::tells)
                                 .rest(&Lamp::extra);
  return all;
}

template <>
const Members& Described<SticksAbilities>::members() {
  static const Members all =
      Describe<SticksAbilities>()
          .member("reads_channels", &SticksAbilities::reads_channels)
          .member("reads_full", &SticksAbilities::reads_full, {0, 10000})
          .member("learns_ends", &SticksAbilities::learns_ends)
          .member("travel_percent", &SticksAbilities::travel_percent, {50, 200})
          .member("pitch_back_falls", &SticksAbilities::pitch_back_falls)
          .member("throttle_opens_falls", &SticksAbilities::throttle_opens_falls)
          .member("gesture_needs_full_ends", &SticksAbilities::gesture_needs_full_ends)
          .member("stick_direction_in_transmitter", &SticksAbilities::stick_direction_in_transmitter)
          .member("notices", &SticksAbilities::notices)
          .member("arming", &SticksAbilities::arming)
          .member("arms_by", &SticksAbilities::arms_by)
          .member("safety_button", &SticksAbilities::safety_button)
          .member("mode_channel", &SticksAbilities::mode_channel, {0, 32})
          .member("unlock_channel", &SticksAbilities::unlock_channel, {0, 32})
          .rest(&SticksAbilities::extra);
  return all;
}

template <>
const Members& Described<SurfacesAbilities>::members() {
  static const Members all = Describe<SurfacesAbilities>()
                                 .member("drives_one_output", &SurfacesAbilities::drives_one_output)
                                 .member("motor", &SurfacesAbilities::motor)
                                 .member("drives", &SurfacesAbilities::drives)
                                 .member("y_lead_in_either", &SurfacesAbilities::y_lead_in_either)
                                 .rest(&SurfacesAbilities::extra);
  return all;
}

template <>
const Members& Described<SensesAbilities>::members() {
  static const Members all = Describe<SensesAbilities>()
                                 .member("axis_sensing_reversible", &SensesAbilities::axis_sensing_reversible)
                                 .member("can_be_turned", &SensesAbilities::can_be_turned)
                                 .member("either_face", &SensesAbilities::either_face)
                                 .member("half_turn_by_switches", &SensesAbilities::half_turn_by_switches)
                                 .member("has_compass", &SensesAbilities::has_compass)
                                 .member("has_barometer", &SensesAbilities::has_barometer)
                                 .member("isolated", &SensesAbilities::isolated)
                                 .member("spare", &SensesAbilities::spare)
                                 .member("heated", &SensesAbilities::heated)
                                 .member("power_up", &SensesAbilities::power_up)
                                 .member("level", &SensesAbilities::level)
                                 .rest(&SensesAbilities::extra);
  return all;
}

template <>
const Members& Described<FeelAbilities>::members() {
  static const Members all = Describe<FeelAbilities>()
                                 .member("gains", &FeelAbilities::gains)
                                 .member("dials", &FeelAbilities::dials)
                                 .member("gain_is_travel", &FeelAbilities::gain_is_travel)
                                 .rest(&FeelAbilities::extra);
  return all;
}

template <>
const Members& Described<ProofAbilities>::members() {
  static const Members all = Describe<ProofAbilities>()
                                 .needed("modes", &ProofAbilities::modes)
                                 .needed("bench_mode", &ProofAbilities::bench_mode)
                                 .member("rudder_into_bank", &ProofAbilities::rudder_into_bank)
                                 .member("lamps", &ProofAbilities::lamps)
                                 .rest(&ProofAbilities::extra);
  return all;
}

template <>
const Members& Described<ControllerClass>::members() {
  static const Members all = Describe<ControllerClass>()
                                 .needed("id", &ControllerClass::id)
                                 .needed("name", &ControllerClass::name)
                                 .needed("summary", &ControllerClass::summary)
                                 .needed("family", &ControllerClass::family)
                                 .member("link", &ControllerClass::link)
                                 .needed("width_mm", &ControllerClass::width_mm, {5, 500})
                                 .needed("length_mm", &ControllerClass::length_mm, {5, 500})
                                 .member("height_mm", &ControllerClass::height_mm, {1, 200})
                                 .member("mass_kg", &ControllerClass::mass_kg, {0.0005, 2})
                                 .needed("inputs", &ControllerClass::inputs)
                                 .needed("outputs", &ControllerClass::outputs)
                                 .member("ports", &ControllerClass::ports)
                                 .member("pads", &ControllerClass::pads)
                                 .member("feeds", &ControllerClass::feeds)
                                 .member("loads", &ControllerClass::loads)
                                 .member("minus_edge", &ControllerClass::minus_edge)
                                 .member("settings", &ControllerClass::settings)
                                 .member("cures", &ControllerClass::cures)
                                 .member("sticks", &ControllerClass::sticks)
                                 .member("surfaces", &ControllerClass::surfaces)
                                 .member("senses", &ControllerClass::senses)
                                 .member("feel", &ControllerClass::feel)
                                 .needed("proof", &ControllerClass::proof)
                                 .rest(&ControllerClass::extra);
  return all;
}

template <>
const Members& Described<ServoFigures>::members() {
  static const Members all = Describe<ServoFigures>()
                                 .needed("digital", &ServoFigures::digital)
                                 .needed("seconds_per_60deg", &ServoFigures::seconds_per_60deg, {0.01, 5})
                                 .needed("torque_nm", &ServoFigures::torque_nm, {0.005, 20})
                                 .needed("dead_band_us", &ServoFigures::dead_band_us, {0, 50})
                                 .needed("most_rate_hz", &ServoFigures::most_rate_hz, {20, 1000})
                                 .rest(&ServoFigures::extra);
  return all;
}

template <>
const Members& Described<BatteryFigures>::members() {
  static const Members all = Describe<BatteryFigures>()
                                 .needed("cells", &BatteryFigures::cells, {1, 14})
                                 .needed("capacity_ah", &BatteryFigures::capacity_ah, {0.05, 100})
                                 .needed("amps", &BatteryFigures::amps, {0.1, 1000})
                                 .needed("cell_milliohm", &BatteryFigures::cell_milliohm, {0.1, 500})
                                 .member("full_cell_v", &BatteryFigures::full_cell_v, cell_v)
                                 .member("nominal_cell_v", &BatteryFigures::nominal_cell_v, cell_v)
                                 .member("empty_cell_v", &BatteryFigures::empty_cell_v, cell_v)
                                 .rest(&BatteryFigures::extra);
  return all;
}

template <>
const Members& Described<DriveFigures>::members() {
  static const Members all = Describe<DriveFigures>()
                                 .needed("amps", &DriveFigures::amps, {0.5, 1000})
                                 .needed("least_cells", &DriveFigures::least_cells, {1, 14})
                                 .needed("most_cells", &DriveFigures::most_cells, {1, 14})
                                 .rest(&DriveFigures::extra);
  return all;
}

template <>
const Members& Described<MotorFigures>::members() {
  static const Members all = Describe<MotorFigures>()
                                 .needed("rpm_per_v", &MotorFigures::rpm_per_v, {20, 50000})
                                 .needed("ohm", &MotorFigures::ohm, {0.0005, 20})
                                 .needed("no_load_a", &MotorFigures::no_load_a, {0, 50})
                                 .needed("amps", &MotorFigures::amps, {0.2, 1000})
                                 .rest(&MotorFigures::extra);
  return all;
}

template <>
const Members& Described<PropellerFigures>::members() {
  static const Members all = Describe<PropellerFigures>()
                                 .needed("diameter_m", &PropellerFigures::diameter_m, {0.02, 2})
                                 .needed("pitch_m", &PropellerFigures::pitch_m, {0.01, 2})
                                 .member("blades", &PropellerFigures::blades, {2, 6})
                                 .member("slow_fly", &PropellerFigures::slow_fly)
                                 .member("left_handed", &PropellerFigures::left_handed)
                                 .rest(&PropellerFigures::extra);
  return all;
}

template <>
const Members& Described<SerialFigures>::members() {
  static const Members all =
      Describe<SerialFigures>().needed("baud", &SerialFigures::baud, {1200, 4e6}).rest(&SerialFigures::extra);
  return all;
}

template <>
const Members& Described<LeadFigures>::members() {
  static const Members all = Describe<LeadFigures>()
                                 .needed("kind", &LeadFigures::kind)
                                 .needed("awg", &LeadFigures::awg, {0, 40})
                                 .needed("length_m", &LeadFigures::length_m, {0.01, 20})
                                 .rest(&LeadFigures::extra);
  return all;
}

template <>
const Members& Described<PartKind>::members() {
  static const Members all = Describe<PartKind>()
                                 .needed("id", &PartKind::id)
                                 .needed("name", &PartKind::name)
                                 .needed("group", &PartKind::group)
                                 .member("mass_kg", &PartKind::mass_kg, {0, 100})
                                 .member("length_mm", &PartKind::length_mm, size_mm)
                                 .member("width_mm", &PartKind::width_mm, size_mm)
                                 .member("height_mm", &PartKind::height_mm, size_mm)
                                 .needed("basis", &PartKind::basis)
                                 .member("terminals", &PartKind::terminals)
                                 .member("feeds", &PartKind::feeds)
                                 .member("loads", &PartKind::loads)
                                 .member("servo", &PartKind::servo)
                                 .member("battery", &PartKind::battery)
                                 .member("drive", &PartKind::drive)
                                 .member("motor", &PartKind::motor)
                                 .member("propeller", &PartKind::propeller)
                                 .member("serial", &PartKind::serial)
                                 .member("lead", &PartKind::lead)
                                 .member("needs_sky", &PartKind::needs_sky)
                                 .member("magnetic_sensor", &PartKind::magnetic_sensor)
                                 .rest(&PartKind::extra);
  return all;
}

struct CatalogueFile {
  std::string format = "parts";
  int version = parts_version;
  std::vector<Cure> shared_cures;
  std::vector<PartKind> parts;
  std::vector<ControllerClass> controllers;
  Extra extra;
};

template <>
const Members& Described<CatalogueFile>::members() {
  static const Members all = Describe<CatalogueFile>()
                                 .needed("format", &CatalogueFile::format)
                                 .needed("version", &CatalogueFile::version, {1, parts_version})
                                 .member("shared_cures", &CatalogueFile::shared_cures)
                                 .member("parts", &CatalogueFile::parts)
                                 .member("controllers", &CatalogueFile::controllers)
                                 .rest(&CatalogueFile::extra);
  return all;
}

const SettingWay* ControllerClass::way(const std::string& what) const {
  return find_in(settings, [&](const SettingWay& w) { return w.what == what; });
}

const Cure* ControllerClass::cure(Remedy remedy) const {
  return find_in(cures, [&](const Cure& c) { return c.remedy == remedy; });
}

const ModeAnswer* ControllerClass::mode(Mode wanted) const {
  return find_in(proof.modes, [&](const ModeAnswer& m) { return m.mode == wanted; });
}

const Lamp* ControllerClass::lamp(LampTells tells) const {
  return find_in(proof.lamps, [&](const Lamp& l) { return l.tells == tells; });
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
  if (flag_member(*surfaces, "motor_bypasses", false)) (*surfaces)["motor"] = word(MotorPath::receiver);
  surfaces->erase("motor_bypasses");
}

void bring_up(Json& json) {
  if (!json.is_object()) return;
  const double version = number_member(json, "version", 0);
  if (version < 1 || version >= parts_version) return;
  json["version"] = parts_version;
  const auto classes = json.find("controllers");
  if (classes == json.end() || !classes->is_array()) return;
  for (Json& c : *classes) {
    if (!c.is_object()) continue;
    if (version < 2) from_version_1(c);
    if (version < 3) from_version_2(c);
    from_version_3(c);
  }
}

/// A class can cure by a setting what it can set, and by hand what hands can do on any model.
void complete(ControllerClass& c, const std::vector<Cure>& shared) {
  constexpr std::pair<Remedy, const char*> by_setting[] = {{Remedy::reverse_output, "reversed"},
                                                           {Remedy::reverse_function, "functions"},
                                                           {Remedy::flip_mix, "mix"},
                                                           {Remedy::flip_gyro, "sensing"},
                                                           {Remedy::turn_board, "board"}};
  for (const auto& [remedy, what] : by_setting)
    if (const SettingWay* w = c.way(what); w && !c.cure(remedy))
      c.cures.push_back({remedy, w->by == SetBy::link, w->steps, {}});
  for (const Cure& cure : shared)
    if (!c.cure(cure.remedy)) c.cures.push_back(cure);
}

Result<CatalogueFile> read_parts_file(const std::filesystem::path& file) {
  auto json = read_json_file(file);
  if (!json) return tl::make_unexpected(json.error());
  // Many times what a builder's own list has, and little enough to be read at once.
  constexpr std::pair<const char*, std::size_t> limits[] = {{"parts", 1000}, {"controllers", 100}, {"cures", 100}};
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

Result<void> consistent(const ControllerClass& c, const std::string& where) {
  if (c.id.empty()) return failure(where, "has no id", "a name of small letters, digits and _");
  if (c.outputs.empty() || c.proof.modes.empty())
    return failure(where, "has no outputs or no modes", "at least one of each");
  for (const Terminal& t : c.outputs)
    if (t.kind != TerminalKind::output || t.timer_group == 0)
      return failure(where, "output \"" + t.id + "\" is no output of a timer group", "kind output and a timer_group");
  // Many times what boards have.
  constexpr std::size_t most_entries = 64;
  for (const auto& [list, count] : {std::pair{"outputs", c.outputs.size()},
                                    {"ports", c.ports.size()},
                                    {"pads", c.pads.size()},
                                    {"feeds", c.feeds.size()},
                                    {"loads", c.loads.size()},
                                    {"settings", c.settings.size()},
                                    {"lamps", c.proof.lamps.size()}})
    if (count > most_entries)
      return failure(where + ": " + list, "has " + std::to_string(count) + " entries",
                     "at most " + std::to_string(most_entries));
  constexpr std::array<std::string_view, 5> edges{"", "nose", "tail", "left", "right"};
  for (const Terminal* t : c.terminals()) {
    if (std::find(edges.begin(), edges.end(), t->side) == edges.end())
      return failure(where + ": " + t->id, "\"" + t->side + "\" is no edge", "nose, tail, left, right, or nothing");
    if (t->x_mm > c.width_mm || t->y_mm > c.length_mm)
      return failure(where + ": " + t->id, "lies beside the board",
                     "x_mm up to " + number_text(c.width_mm, 1) + " and y_mm up to " + number_text(c.length_mm, 1));
  }
  if (!c.mode(c.proof.bench_mode))
    return failure(where, "is looked at in a mode that it does not have", "bench_mode among its modes");
  return electrics_fit(c.terminals(), c.feeds, c.loads, where);
}

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
  for (Cure& cure : read->shared_cures) grown.shared_cures.push_back(std::move(cure));
  if (auto ok = add_all(grown.controllers, std::move(read->controllers), file.string()); !ok) return ok;
  if (auto ok = add_all(grown.parts, std::move(read->parts), file.string()); !ok) return ok;
  for (ControllerClass& c : grown.controllers) complete(c, grown.shared_cures);
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
  return write_file_atomically(file, write_fields(all).dump(1) + "\n");
}

}  // namespace

Result<void> save_own_part(const std::filesystem::path& file, const PartKind& kind) {
  return keep_in(file, &CatalogueFile::parts, kind);
}

Result<void> save_own_class(const std::filesystem::path& file, const ControllerClass& own,
                            const std::vector<Cure>& shared) {
  ControllerClass bare = own;
  // What `complete` would add again.
  ControllerClass completed = own;
  completed.cures.clear();
  complete(completed, shared);
  std::erase_if(bare.cures, [&](const Cure& c) {
    return std::find(completed.cures.begin(), completed.cures.end(), c) != completed.cures.end();
  });
  if (auto ok = in_range(bare, own.id); !ok) return ok;
  return keep_in(file, &CatalogueFile::controllers, bare);
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
