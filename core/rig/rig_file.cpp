#include "rig/rig_file.h"

#include <algorithm>
#include <set>

#include "base/find.h"
#include "base/schema.h"
#include "rig/output_fields.h"

namespace rigging {

namespace {

// Generous limits: they catch a wrong unit or a slip of the finger, not an unusual model.
constexpr Span metres{0.01, 20}, degrees{-89, 89}, small_deg{-20, 20}, share{-0.5, 0.8}, place_m{-20, 20},
    weight{-2, 2}, speed_m_s{3, 150}, read_us{500, 2500}, percent{0, 200}, hole_m{0.001, 1};

}  // namespace

// Found by argument-dependent lookup from the readers and writers of base/fields.h.
template <class F>
void describe(F& f, Airframe& a) {
  f.required("kind", a.kind);
  f.number("span_m", a.span_m, {0.1, 20});
  f.number("root_chord_m", a.root_chord_m, metres);
  f.number("tip_chord_m", a.tip_chord_m, metres);
  f.number("sweep_deg", a.sweep_deg, {-60, 75});
  f.number("dihedral_deg", a.dihedral_deg, {-30, 45});
  f.number("length_m", a.length_m, {0.1, 20});
  f.number("wing_at_m", a.wing_at_m, {0, 20});
  f.number("tail_span_m", a.tail_span_m, metres);
  f.number("tail_chord_m", a.tail_chord_m, metres);
  f.number("fin_height_m", a.fin_height_m, metres);
  f.number("fin_chord_m", a.fin_chord_m, metres);
  f.number("surface_chord", a.surface_chord, {0.05, 1});
  f.number("v_angle_deg", a.v_angle_deg, {5, 80});
  f.number("mass_kg", a.mass_kg, {0.02, 150});
  f.number("fast_m_s", a.fast_m_s, speed_m_s);
  f.number("dive_m_s", a.dive_m_s, speed_m_s);
  f.rest(a.extra);
}

template <class F>
void describe(F& f, ControllerFit& c) {
  f.required("kind", c.kind);
  f.optional("firmware", c.firmware);
  f.required("mounted", c.mounted);
  f.rest(c.extra);
}

template <class F>
void describe(F& f, Part& p) {
  f.required("id", p.id);
  f.required("kind", p.kind);
  f.optional("label", p.label);
  f.optional("surface", p.surface);
  f.rest(p.extra);
}

template <class F>
void describe(F& f, Place& p) {
  f.required("part", p.part);
  f.number("x_m", p.x_m, place_m);
  f.number("y_m", p.y_m, place_m);
  f.number("z_m", p.z_m, place_m);
  f.optional("turn", p.turn);
  f.number_or("roll_deg", p.roll_deg, 0, small_deg);
  f.number_or("pitch_deg", p.pitch_deg, 0, small_deg);
  f.number_or("yaw_deg", p.yaw_deg, 0, small_deg);
  f.rest(p.extra);
}

template <class F>
void describe(F& f, LeadEnd& e) {
  f.required("part", e.part);
  f.required("socket", e.socket);
  f.rest(e.extra);
}

template <class F>
void describe(F& f, Lead& l) {
  f.required("id", l.id);
  f.required("from", l.from);
  f.required("to", l.to);
  f.optional("kind", l.kind);
  f.number("length_m", l.length_m, {0.005, 20});
  f.number("gauge_awg", l.gauge_awg, {0, 40});
  f.optional("plus_removed", l.plus_removed);
  f.optional("plug_turned", l.plug_turned);
  f.optional("pair_turned", l.pair_turned);
  f.optional("apart", l.apart);
  f.optional("fixed", l.fixed);
  f.rest(l.extra);
}

template <class F>
void describe(F& f, Channel& c) {
  f.integer("number", c.number, {1, 32});
  f.required("function", c.function);
  f.optional("control", c.control);
  f.optional("reversed", c.reversed);
  f.number("sub_trim_us", c.sub_trim_us, {-500, 500});
  f.number("travel_low_percent", c.travel_low_percent, percent);
  f.number("travel_high_percent", c.travel_high_percent, percent);
  f.number_or("rate_percent", c.rate_percent, 100, percent);
  f.number("fixed_us", c.fixed_us, read_us);
  f.number("low_us", c.low_us, read_us);
  f.number("centre_us", c.centre_us, read_us);
  f.number("high_us", c.high_us, read_us);
  f.optional("inverted", c.inverted);
  f.optional("learned", c.learned);
  f.number("noise_us", c.noise_us, {0, 500});
  f.number("centre_spread_us", c.centre_spread_us, {0, 1000});
  f.numbers("positions_us", c.positions_us, read_us);
  f.rest(c.extra);
}

template <class F>
void describe(F& f, Transmitter& t) {
  f.optional("counts", t.counts);
  f.number_or("full_us", t.full_us, 500, {100, 1000});
  f.number_or("step_percent", t.step_percent, 0.1, {0.01, 10});
  f.number_or("sub_trim_step_us", t.sub_trim_step_us, 0.5, {0.01, 20});
  f.number_or("most_travel_percent", t.most_travel_percent, 150, {50, 200});
  f.number_or("most_sub_trim_us", t.most_sub_trim_us, 150, {0, 500});
  double channels = t.channels;
  f.number_or("channels", channels, 8, {1, 32});
  t.channels = static_cast<int>(channels);
  f.flag_or("mixes", t.mixes, false);
  f.flag_or("gestures_change_settings", t.gestures_change_settings, false);
  f.optional("also_serves", t.also_serves);
  f.rest(t.extra);
}

template <class F>
void describe(F& f, Radio& r) {
  f.required("channels", r.channels);
  f.optional("transmitter", r.transmitter);
  f.optional("on_loss", r.on_loss);
  f.rest(r.extra);
}

template <class F>
void describe(F& f, Mix& m) {
  const auto part = [&](const char* name, double& value) {
    std::optional<double> given = value == 0 ? std::nullopt : std::optional(value);
    f.number(name, given, weight);
    value = given.value_or(0);
  };
  part("roll", m.roll);
  part("pitch", m.pitch);
  part("yaw", m.yaw);
  part("throttle", m.throttle);
  part("flap", m.flap);
  f.number_or("roll_differential", m.roll_differential, 0, {-1, 1});
  f.rest(m.extra);
}

template <class F>
void describe(F& f, Output& o) {
  f.required("id", o.id);
  f.optional("socket", o.socket);
  f.optional("surfaces", o.surfaces);
  f.required("mix", o.mix);
  describe_travel(f, o);
  f.optional("fixed", o.fixed);
  f.rest(o.extra);
}

template <class F>
void describe(F& f, ThrowReading& t) {
  f.number("pulse_us", t.pulse_us, read_us);
  f.number("up_deg", t.up_deg, {-120, 120});
  f.rest(t.extra);
}

template <class F>
void describe(F& f, Linkage& l) {
  constexpr Span throw_deg{0, 85};
  f.required("surface", l.surface);
  f.number("arm_m", l.arm_m, hole_m);
  f.number("rod_m", l.rod_m, {0.001, 10});
  f.number("horn_m", l.horn_m, hole_m);
  f.number("servo_travel_deg", l.servo_travel_deg, {5, 120});
  f.number_or("arm_deg", l.arm_deg, 0, degrees);
  f.number_or("horn_deg", l.horn_deg, 0, degrees);
  f.number_or("drop_m", l.drop_m, 0, {-1, 1});
  f.number("base_m", l.base_m, {0.001, 10});
  f.flag_or("push_lifts", l.push_lifts, true);
  f.flag_or("crossed", l.crossed, false);
  f.numbers("arm_holes_m", l.arm_holes_m, hole_m);
  f.numbers("horn_holes_m", l.horn_holes_m, hole_m);
  f.number_or("clevis_pitch_m", l.clevis_pitch_m, 0.0004, {0.0001, 0.005});
  f.number_or("spline_tooth_deg", l.spline_tooth_deg, 14.4, {1, 90});
  f.number("chord_m", l.chord_m, {0.005, 5});
  f.number("want_up_deg", l.want_up_deg, throw_deg);
  f.number("want_down_deg", l.want_down_deg, throw_deg);
  f.number("play_m", l.play_m, {0, 0.1});
  f.optional("readings", l.readings);
  f.rest(l.extra);
}

template <class F>
void describe(F& f, Sensing& s) {
  f.required("board", s.board);
  f.optional("roll_reversed", s.roll_reversed);
  f.optional("pitch_reversed", s.pitch_reversed);
  f.optional("yaw_reversed", s.yaw_reversed);
  f.number("level_nose_up_deg", s.level_nose_up_deg, degrees);
  f.rest(s.extra);
}

template <class F>
void describe(F& f, Gain& g) {
  f.required("name", g.name);
  f.number("value", g.value, {-1e6, 1e6});
  f.optional("unit", g.unit);
  f.rest(g.extra);
}

template <class F>
void describe(F& f, ModeChoice& m) {
  f.integer("channel", m.channel, {1, 32});
  f.number("from_us", m.from_us, {500, 2500});
  f.number("to_us", m.to_us, {500, 2500});
  f.required("mode", m.mode);
  f.rest(m.extra);
}

template <class F>
void describe(F& f, Home& h) {
  f.optional("on_loss", h.on_loss);
  f.number("height_m", h.height_m, {0, 5000});
  f.rest(h.extra);
}

template <class F>
void describe(F& f, Bay& b) {
  f.number("at_m", b.at_m, {0, 20});
  f.number("length_m", b.length_m, metres);
  f.number("width_m", b.width_m, metres);
  f.number("height_m", b.height_m, metres);
  f.rest(b.extra);
}

template <class F>
void describe(F& f, Fit& v) {
  f.number("frame_mass_kg", v.frame_mass_kg, {0.005, 150});
  f.number_or("frame_at_m", v.frame_at_m, Fit{}.frame_at_m, {0, 20});
  f.number_or("frame_side_m", v.frame_side_m, 0, {-5, 5});
  f.optional("bay", v.bay);
  f.number_or("static_margin", v.static_margin, Fit{}.static_margin, share);
  f.number_or("first_flight_forward", v.first_flight_forward, Fit{}.first_flight_forward, share);
  f.number("latitude_deg", v.latitude_deg, {-90, 90});
  f.number("longitude_deg", v.longitude_deg, {-180, 360});
  f.number_or("altitude_km", v.altitude_km, 0, {-1, 10});
  f.optional("date", v.date);
  f.optional("confirmed", v.confirmed);
  f.rest(v.extra);
}

template <class F>
void describe(F& f, Power& p) {
  f.number("static_a", p.static_a, {0, 1000});
  f.number("static_thrust_n", p.static_thrust_n, {0, 5000});
  f.number("cruise_a", p.cruise_a, {0, 1000});
  f.number_or("ambient_c", p.ambient_c, Power{}.ambient_c, {-40, 60});
  f.number_or("reserve_share", p.reserve_share, Power{}.reserve_share, {0, 0.9});
  f.optional("pusher", p.pusher);
  f.flag_or("propeller_faces_flight", p.propeller_faces_flight, true);
  f.number("clearance_m", p.clearance_m, {-1, 10});
  f.rest(p.extra);
}

template <class F>
void describe(F& f, Proof& p) {
  f.required("check", p.check);
  f.required("at", p.at);
  f.required("fingerprint", p.fingerprint);
  f.optional("provisional", p.provisional);
  f.optional("simulated", p.simulated);
  f.optional("note", p.note);
  f.rest(p.extra);
}

template <class F>
void describe(F& f, LooseEnd& l) {
  f.required("id", l.id);
  f.required("text", l.text);
  f.optional("since", l.since);
  f.rest(l.extra);
}

template <class F>
void describe(F& f, LogEntry& l) {
  f.required("at", l.at);
  f.required("text", l.text);
  f.rest(l.extra);
}

/// The envelope of the file, around the rig's sections.
struct RigFile {
  std::string format = "rig";
  int version = rig_version;
  Rig rig;
};

template <class F>
void describe(F& f, RigFile& file) {
  Rig& r = file.rig;
  f.required("format", file.format);
  f.integer("version", file.version, {1, rig_version});
  f.required("name", r.name);
  f.optional("note", r.note);
  f.required("airframe", r.airframe);
  f.required("controller", r.controller);
  f.optional("parts", r.parts);
  f.optional("places", r.places);
  f.optional("leads", r.leads);
  f.optional("fit", r.fit);
  f.optional("power", r.power);
  f.optional("radio", r.radio);
  f.optional("outputs", r.outputs);
  f.optional("sharing", r.sharing);
  f.optional("linkages", r.linkages);
  f.optional("sensing", r.sensing);
  f.optional("gains", r.gains);
  f.optional("modes", r.modes);
  f.optional("home", r.home);
  f.optional("proofs", r.proofs);
  f.optional("loose_ends", r.loose_ends);
  f.optional("log", r.log);
  f.rest(r.extra);
}

namespace {

/// Brings an older file up to this version, one step at a time. Version 1 is the first, so that there is no step yet.
Result<Json> migrated(Json json, const std::string& file) {
  const auto found = json.is_object() ? json.find("format") : json.end();
  if (!json.is_object() || found == json.end() || *found != "rig")
    return failure(file + ": /format", "this is not a rig file", "an object with \"format\": \"rig\"");
  const auto version = json.find("version");
  if (version != json.end() && version->is_number_integer() && version->get<double>() > rig_version)
    return failure(file + ": /version", "is " + version->dump() + ", written by a newer Rigging",
                   "a version up to " + std::to_string(rig_version));
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
  if (auto r = unique(rig.linkages, "linkages", [](const Linkage& l) { return l.surface.word(); }); !r) return r;
  if (auto r = unique(rig.loose_ends, "loose_ends", [](const LooseEnd& l) { return l.id; }); !r) return r;
  if (auto r = unique(rig.radio.channels, "radio/channels", [](const Channel& c) { return std::to_string(c.number); });
      !r)
    return r;
  if (auto r = unique(rig.places, "places", [](const Place& l) { return l.part; }); !r) return r;
  for (std::size_t i = 0; i < rig.parts.size(); ++i)
    if (rig.parts[i].id == "controller" || rig.parts[i].id.empty())
      return failure(file + ": /parts/" + std::to_string(i) + "/id", "is \"" + rig.parts[i].id + "\"",
                     "a name; \"controller\" is the board itself");
  const auto known = [&](const std::string& part) { return part == "controller" || rig.part(part); };
  for (std::size_t i = 0; i < rig.places.size(); ++i)
    if (!known(rig.places[i].part))
      return failure(file + ": /places/" + std::to_string(i) + "/part",
                     "\"" + rig.places[i].part + "\" is no part of this rig", "the id of a part, or controller");
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
        return failure(where + "/surfaces", "\"" + s.word() + "\" hangs on two outputs", "every surface once");
    if (!(o.low_us < o.centre_us && o.centre_us < o.high_us) && !(o.surfaces.empty() && o.low_us < o.high_us))
      return failure(where, "the ends do not enclose the centre", "low_us < centre_us < high_us");
  }
  for (std::size_t i = 0; i < rig.modes.size(); ++i)
    if (!(rig.modes[i].from_us < rig.modes[i].to_us))
      return failure(file + ": /modes/" + std::to_string(i), "from_us is not below to_us", "from_us < to_us");
  return {};
}

}  // namespace

const Output* Rig::output(const std::string& id) const {
  for (const Output& o : outputs)
    if (o.id == id) return &o;
  return nullptr;
}

Output* Rig::output(const std::string& id) { return const_cast<Output*>(std::as_const(*this).output(id)); }

const Part* Rig::part(const std::string& id) const {
  return find_in(parts, [&](const Part& p) { return p.id == id; });
}

const Place* Rig::place(const std::string& part_id) const {
  return find_in(places, [&](const Place& p) { return p.part == part_id; });
}

Place* Rig::place(const std::string& part_id) {
  return find_in(places, [&](const Place& p) { return p.part == part_id; });
}

const Lead* Rig::lead(const std::string& id) const {
  return find_in(leads, [&](const Lead& l) { return l.id == id; });
}

Lead* Rig::lead(const std::string& id) {
  return find_in(leads, [&](const Lead& l) { return l.id == id; });
}

const Linkage* Rig::linkage(Surface s) const {
  return find_in(linkages, [&](const Linkage& l) { return l.surface == s; });
}

Linkage* Rig::linkage(Surface s) {
  return find_in(linkages, [&](const Linkage& l) { return l.surface == s; });
}

const Channel* Rig::channel(ChannelFunction function) const {
  return find_in(radio.channels, [&](const Channel& c) { return c.function == function; });
}

Channel* Rig::channel(ChannelFunction function) {
  return find_in(radio.channels, [&](const Channel& c) { return c.function == function; });
}

const Output* Rig::output_of(Surface surface) const {
  for (const Output& o : outputs)
    for (const Surface s : o.surfaces)
      if (s == surface) return &o;
  return nullptr;
}

Result<Rig> rig_from_json(const Json& json, const std::string& file) {
  auto current = migrated(json, file);
  if (!current) return tl::make_unexpected(current.error());
  auto read = read_fields<RigFile>(*current, file);
  if (!read) return tl::make_unexpected(read.error());
  if (auto ok = consistent(read->rig, file); !ok) return tl::make_unexpected(ok.error());
  return std::move(read->rig);
}

OrderedJson rig_schema() {
  OrderedJson schema = schema_of<RigFile>(
      "Rig, version 1", "One aircraft. Units are in the names; members that are not listed are kept.");
  schema["properties"]["format"] = {{"enum", {"rig"}}};
  // What the checks after reading demand of a lead's surfaces.
  OrderedJson& surfaces = schema["properties"]["outputs"]["items"]["properties"]["surfaces"];
  surfaces["maxItems"] = 4;
  surfaces["uniqueItems"] = true;
  return schema;
}

OrderedJson rig_to_json(const Rig& rig) {
  RigFile file;
  file.rig = rig;
  return write_fields(file);
}

std::string rig_text(const Rig& rig) {
  return rig_to_json(rig).dump(2, ' ', false, OrderedJson::error_handler_t::replace) + "\n";
}

Result<Rig> load_rig(const std::filesystem::path& path) {
  return read_json_file(path).and_then([&](const Json& json) { return rig_from_json(json, path.string()); });
}

Result<void> save_rig(const Rig& rig, const std::filesystem::path& path) {
  return write_file_atomically(path, rig_text(rig));
}

std::vector<std::string> differing_members(const Rig& a, const Rig& b) {
  std::vector<std::string> places;
  const auto compare = [&](auto& self, const OrderedJson& x, const OrderedJson& y, const std::string& path) -> void {
    if (x == y) return;
    if (x.is_object() && y.is_object()) {
      for (const auto& [name, value] : x.items())
        if (y.contains(name))
          self(self, value, y[name], path + "/" + name);
        else
          places.push_back(path + "/" + name);
      for (const auto& [name, value] : y.items())
        if (!x.contains(name)) places.push_back(path + "/" + name);
    } else if (x.is_array() && y.is_array() && x.size() == y.size()) {
      for (std::size_t i = 0; i < x.size(); ++i) self(self, x[i], y[i], path + "/" + std::to_string(i));
    } else {
      places.push_back(path);
    }
  };
  compare(compare, rig_to_json(a), rig_to_json(b), "");
  return places;
}

}  // namespace rigging
