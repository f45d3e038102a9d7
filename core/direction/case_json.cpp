#include <algorithm>
#include <cmath>
#include <set>

#include "base/json.h"
#include "direction/case.h"
#include "direction/reason.h"

namespace rigging::direction {
namespace {

/// Thrown inside this file only: keeps a reader of nested JSON free of plumbing.
struct Refusal {
  Error error;
};

[[noreturn]] void refuse(const std::string& where, const std::string& what, const std::string& expected) {
  throw Refusal{{where, what, expected}};
}

const Json& member(const Json& object, const std::string& path, const std::string& name, const std::string& expected) {
  const auto it = object.find(name);
  if (it == object.end()) refuse(path, "\"" + name + "\" is missing", expected);
  return *it;
}

void only_members(const Json& object, const std::string& path, std::initializer_list<const char*> known) {
  if (!object.is_object()) refuse(path, "is " + in_short(object), "an object");
  for (const auto& [name, value] : object.items()) {
    if (std::find(known.begin(), known.end(), name) != known.end()) continue;
    std::string expected;
    for (const char* k : known) expected += (expected.empty() ? "" : ", ") + std::string(k);
    refuse(path, "unknown member \"" + name + "\"", expected);
  }
}

std::string text_of(const Json& value, const std::string& path, const std::string& expected) {
  if (!value.is_string()) refuse(path, "is " + in_short(value), expected);
  return value.get<std::string>();
}

template <class E>
E word_of(const Json& value, const std::string& path) {
  const std::string text = text_of(value, path, choice_of<E>());
  const auto found = from_name<E>(text);
  if (!found) refuse(path, "unknown word \"" + text + "\"", choice_of<E>());
  return *found;
}

Surface surface_of(const Json& value, const std::string& path) {
  static const std::string expected = [] {
    std::string all;
    for (const Surface& s : all_surfaces()) all += (all.empty() ? "" : ", ") + s.name();
    return all;
  }();
  const std::string text = text_of(value, path, expected);
  const auto found = surface_from_name(text);
  if (!found) refuse(path, "unknown surface \"" + text + "\"", expected);
  return *found;
}

class Reader {
 public:
  explicit Reader(std::string name) : name_(std::move(name)) {}

  Case read(const Json& json) {
    const std::string top = name_ + ": /";
    if (!json.is_object()) refuse(top, "is " + in_short(json), "an object with outputs and observations");
    Case c;
    read_outputs(member(json, top, "outputs", "a list of outputs"), c);
    if (const auto it = json.find("can"); it != json.end()) c.can = read_can(*it);
    if (const auto it = json.find("observations"); it != json.end()) {
      const std::string path = name_ + ": /observations";
      list(*it, path, 256);
      for (std::size_t i = 0; i < it->size(); ++i)
        c.observations.push_back(read_observation((*it)[i], path + "/" + std::to_string(i), c));
    }
    if (const auto it = json.find("may_ask"); it != json.end() && !it->is_null()) c.may_ask = read_may_ask(*it, c);
    return c;
  }

 private:
  static void list(const Json& value, const std::string& path, std::size_t most) {
    if (!value.is_array()) refuse(path, "is " + in_short(value), "a list");
    if (value.size() > most)
      refuse(path, "has " + std::to_string(value.size()) + " entries", "at most " + std::to_string(most));
  }

  void read_outputs(const Json& value, Case& c) {
    const std::string base = name_ + ": /outputs";
    list(value, base, most_outputs);
    if (value.empty()) refuse(base, "is empty", "at least one output");
    std::set<std::string> ids;
    std::set<Surface> taken;
    for (std::size_t i = 0; i < value.size(); ++i) {
      const std::string path = base + "/" + std::to_string(i);
      const Json& json = value[i];
      only_members(json, path, {"id", "surface", "surfaces", "mix", "reversed", "note"});
      CaseOutput output;
      output.id = text_of(member(json, path, "id", "a name"), path + "/id", "a name");
      if (output.id.empty()) refuse(path + "/id", "is empty", "a name");
      if (!ids.insert(output.id).second) refuse(path + "/id", "\"" + output.id + "\" is used twice", "ids that differ");
      if (json.contains("surface") == json.contains("surfaces"))
        refuse(path, json.contains("surface") ? "has both \"surface\" and \"surfaces\"" : "names no surface",
               "one of \"surface\" and \"surfaces\"");
      if (json.contains("surface")) {
        output.surfaces.push_back(surface_of(json["surface"], path + "/surface"));
      } else {
        const Json& surfaces = json["surfaces"];
        list(surfaces, path + "/surfaces", 4);
        if (surfaces.empty()) refuse(path + "/surfaces", "is empty", "one to four surfaces");
        for (std::size_t k = 0; k < surfaces.size(); ++k)
          output.surfaces.push_back(surface_of(surfaces[k], path + "/surfaces/" + std::to_string(k)));
      }
      for (const Surface s : output.surfaces)
        if (!taken.insert(s).second) refuse(path, "surface \"" + s.name() + "\" appears twice", "every surface once");
      if (const auto it = json.find("reversed"); it != json.end()) {
        if (!it->is_boolean()) refuse(path + "/reversed", "is " + in_short(*it), "true or false");
        output.reversed = it->get<bool>();
      }
      read_mix(member(json, path, "mix", "weights per axis"), path + "/mix", output);
      c.outputs.push_back(std::move(output));
    }
  }

  static void read_mix(const Json& json, const std::string& path, CaseOutput& output) {
    if (!json.is_object()) refuse(path, "is " + in_short(json), "an object with weights for roll, pitch and yaw");
    for (const auto& [name, weight] : json.items()) {
      const auto axis = from_name<Axis>(name);
      // A motor's share of the throttle may be told; it says nothing about directions.
      const bool motors = std::all_of(output.surfaces.begin(), output.surfaces.end(),
                                      [](Surface s) { return s.kind == SurfaceKind::motor; });
      if (name == "throttle" && motors && weight.is_number()) continue;
      if (!axis) refuse(path, "unknown axis \"" + name + "\"", choice_of<Axis>());
      if (!weight.is_number() || !std::isfinite(weight.get<double>()))
        refuse(path + "/" + name, "is " + in_short(weight), "a number");
      output.mix[static_cast<std::size_t>(index_of(*axis))] = weight.get<double>();
      for (const Surface s : output.surfaces)
        if (required_direction(s, *axis) == 0)
          refuse(path + "/" + name, "a " + s.label() + " can't serve " + name,
                 "weights only on axes that the surface serves");
    }
  }

  Abilities read_can(const Json& json) const {
    const std::string path = name_ + ": /can";
    list(json, path, 64);
    Abilities can;
    for (std::size_t i = 0; i < json.size(); ++i) can.add(word_of<Remedy>(json[i], path + "/" + std::to_string(i)));
    return can;
  }

  static int output_index(const Json& value, const std::string& path, const Case& c) {
    const std::string id = text_of(value, path, "an output's id");
    for (std::size_t i = 0; i < c.outputs.size(); ++i)
      if (c.outputs[i].id == id) return static_cast<int>(i);
    refuse(path, "there is no output \"" + id + "\"", "one of the case's outputs");
  }

  static int sense_of(const Json& value, const std::string& path, Axis axis) {
    const std::string expected = std::string(sense_word(axis, true)) + " or " + std::string(sense_word(axis, false));
    const std::string text = text_of(value, path, expected);
    if (text == sense_word(axis, true)) return 1;
    if (text == sense_word(axis, false)) return -1;
    refuse(path, "unknown word \"" + text + "\"", expected);
  }

  static Observation read_observation(const Json& json, const std::string& path, const Case& c) {
    only_members(json, path,
                 {"do", "axis", "sense", "mode", "output", "pulse", "saw", "channels", "outputs", "surfaces", "board",
                  "found", "note"});
    Observation o;
    o.act = word_of<Act>(member(json, path, "do", choice_of<Act>()), path + "/do");
    if (o.act == Act::inspect) {
      read_inspected(json, path, c, o);
      return o;
    }
    for (const char* other : {"outputs", "surfaces", "board", "found"})
      if (json.contains(other)) refuse(path + "/" + other, "belongs to \"inspect\" alone", "none");
    if (o.act == Act::drive) {
      o.output = output_index(member(json, path, "output", "an output's id"), path + "/output", c);
      const std::string pulse =
          text_of(member(json, path, "pulse", "rises or falls"), path + "/pulse", "rises or falls");
      if (pulse != "rises" && pulse != "falls")
        refuse(path + "/pulse", "unknown word \"" + pulse + "\"", "rises or falls");
      o.sense = pulse == "rises" ? 1 : -1;
    } else {
      o.axis = word_of<Axis>(member(json, path, "axis", choice_of<Axis>()), path + "/axis");
      o.sense = sense_of(member(json, path, "sense", "the way it was moved"), path + "/sense", o.axis);
    }
    if (const auto it = json.find("mode"); it != json.end())
      o.mode = word_of<Mode>(*it, path + "/mode");
    else if (o.act == Act::tilt)
      refuse(path, "\"mode\" is missing", choice_of<Mode>());
    if (const auto it = json.find("saw"); it != json.end() && !it->is_null()) read_saw(*it, path + "/saw", c, o);
    if (const auto it = json.find("channels"); it != json.end() && !it->is_null())
      read_channels(*it, path + "/channels", o);
    return o;
  }

  static void read_inspected(const Json& json, const std::string& path, const Case& c, Observation& o) {
    for (const char* other : {"axis", "sense", "mode", "output", "pulse", "saw", "channels"})
      if (json.contains(other))
        refuse(path + "/" + other, "does not belong to \"inspect\"", "outputs, surfaces or board");
    const std::string found = text_of(member(json, path, "found", "as_planned"), path + "/found", "as_planned");
    if (found != "as_planned") refuse(path + "/found", "unknown word \"" + found + "\"", "as_planned");
    if (const auto it = json.find("outputs"); it != json.end()) {
      list(*it, path + "/outputs", 23);
      for (std::size_t i = 0; i < it->size(); ++i)
        o.leads.push_back(output_index((*it)[i], path + "/outputs/" + std::to_string(i), c));
    }
    if (const auto it = json.find("surfaces"); it != json.end()) {
      list(*it, path + "/surfaces", 23);
      for (std::size_t i = 0; i < it->size(); ++i)
        o.horns.push_back(driven_surface((*it)[i], path + "/surfaces/" + std::to_string(i), c));
    }
    if (const auto it = json.find("board"); it != json.end()) {
      if (!it->is_boolean()) refuse(path + "/board", "is " + in_short(*it), "true or false");
      o.board = it->get<bool>();
    }
    if (o.leads.empty() && o.horns.empty() && !o.board) refuse(path, "says nothing", "outputs, surfaces or board");
  }

  static Surface driven_surface(const Json& name, const std::string& place, const Case& c) {
    const Surface s = surface_of(name, place);
    const bool driven = std::any_of(c.outputs.begin(), c.outputs.end(), [&](const CaseOutput& out) {
      return std::find(out.surfaces.begin(), out.surfaces.end(), s) != out.surfaces.end();
    });
    if (!driven) refuse(place, "no output drives the " + s.label(), "surfaces of this case");
    return s;
  }

  static void read_saw(const Json& json, const std::string& path, const Case& c, Observation& o) {
    if (!json.is_object()) refuse(path, "is " + in_short(json), "an object from surface to what was seen");
    for (const auto& [name, value] : json.items()) {
      const std::string place = path + "/" + name;
      const Surface s = driven_surface(Json(name), place, c);
      const std::string expected =
          std::string(motion_word(s, 1)) + ", " + std::string(motion_word(s, -1)) + " or still";
      const auto motion = motion_from_name(s, text_of(value, place, expected));
      if (!motion) refuse(place, "unknown word " + in_short(value), expected);
      o.saw.push_back({s, *motion});
    }
  }

  static void read_channels(const Json& json, const std::string& path, Observation& o) {
    if (!json.is_object()) refuse(path, "is " + in_short(json), "an object from axis to rises, falls or still");
    for (const auto& [name, value] : json.items()) {
      const Axis axis = word_of<Axis>(Json(name), path + "/" + name);
      const std::string text = text_of(value, path + "/" + name, "rises, falls or still");
      if (text != "rises" && text != "falls" && text != "still")
        refuse(path + "/" + name, "unknown word \"" + text + "\"", "rises, falls or still");
      o.channels[static_cast<std::size_t>(index_of(axis))] = text == "rises" ? 1 : text == "falls" ? -1 : 0;
    }
  }

  std::vector<Question> read_may_ask(const Json& json, const Case& c) const {
    const std::string path = name_ + ": /may_ask";
    list(json, path, 256);
    bool stick = false, channels = false, drive = false, tilt = false;
    std::vector<Question> asked;
    for (std::size_t i = 0; i < json.size(); ++i) {
      const std::string place = path + "/" + std::to_string(i);
      if (json[i].is_object()) {
        Question q{read_observation(json[i], place, c)};
        if (q.observation.act == Act::inspect)
          refuse(place + "/do", "is a look that is not asked for", "stick, drive or tilt");
        // A listed stick may be watched in both ways, unless the entry names one of them.
        q.channels = q.observation.act == Act::stick && (json[i].contains("channels") || !json[i].contains("saw"));
        q.surfaces = q.observation.act != Act::stick || json[i].contains("saw") || !json[i].contains("channels");
        asked.push_back(q);
        continue;
      }
      const std::string expected = "stick, channels, drive, tilt or an observation";
      const std::string kind = text_of(json[i], place, expected);
      (kind == "stick"      ? stick
       : kind == "channels" ? channels
       : kind == "drive"    ? drive
       : kind == "tilt"     ? tilt
                            : (refuse(place, "unknown word \"" + kind + "\"", expected), stick)) = true;
    }
    for (Question q : c.all_questions()) {
      const Act act = q.observation.act;
      q.surfaces = act == Act::stick ? stick : act == Act::drive ? drive : tilt;
      // Who may move a stick may look at the surfaces and read the channels; "channels" alone is for reading only.
      q.channels = act == Act::stick && (channels || stick);
      if (q.surfaces || q.channels) asked.push_back(q);
    }
    return asked;
  }

  std::string name_;
};

void add_place(Json& json, const Fault& f, const Case& c) {
  const auto id = [&](int output) { return c.outputs[static_cast<std::size_t>(output)].id; };
  switch (f.kind) {
    case FaultKind::output_reversed:
    case FaultKind::output_dead: json["output"] = id(f.output); break;
    case FaultKind::leads_swapped: json["outputs"] = {id(f.output), id(f.other_output)}; break;
    case FaultKind::mix_sign_wrong:
      json["output"] = id(f.output);
      json["axis"] = name_of(f.axis);
      break;
    case FaultKind::transmitter_reversed:
    case FaultKind::gyro_reversed:
    case FaultKind::function_reversed: json["axis"] = name_of(f.axis); break;
    case FaultKind::transmitter_swapped: json["axes"] = {name_of(f.axis), name_of(f.other_axis)}; break;
    case FaultKind::board_turned: json["rotation"] = f.turn.name(); break;
    case FaultKind::linkage_opposed: json["surface"] = f.surface.name(); break;
  }
}

}  // namespace

Result<Case> case_from_json(const Json& json, const std::string& name) {
  try {
    return Reader(name).read(json);
  } catch (const Refusal& refusal) {
    return tl::make_unexpected(refusal.error);
  }
}

Json fault_to_json(const Fault& fault, const Case& c) {
  Json json{{"kind", name_of(fault.kind)}};
  add_place(json, fault, c);
  return json;
}

Json remedy_to_json(const Fault& fault, const Case& c) {
  Json json{{"do", name_of(remedy_of(fault.kind))}};
  add_place(json, fault, c);
  return json;
}

Json observation_to_json(const Observation& o, const Case& c) {
  Json json{{"do", name_of(o.act)}};
  if (o.act == Act::inspect) {
    for (const int i : o.leads) json["outputs"].push_back(c.outputs[static_cast<std::size_t>(i)].id);
    for (const Surface s : o.horns) json["surfaces"].push_back(s.name());
    if (o.board) json["board"] = true;
    json["found"] = "as_planned";
    return json;
  }
  if (o.act == Act::drive) {
    json["output"] = c.outputs[static_cast<std::size_t>(o.output)].id;
    json["pulse"] = o.sense > 0 ? "rises" : "falls";
  } else {
    json["axis"] = name_of(o.axis);
    json["sense"] = sense_word(o.axis, o.sense > 0);
    json["mode"] = name_of(o.mode);
  }
  if (!o.saw.empty()) {
    json["saw"] = Json::object();
    for (const Seen& s : o.saw) json["saw"][s.surface.name()] = motion_word(s.surface, s.motion);
  }
  for (const Axis axis : all_axes)
    if (const auto value = o.channels[static_cast<std::size_t>(index_of(axis))])
      json["channels"][std::string(name_of(axis))] = *value > 0 ? "rises" : *value < 0 ? "falls" : "still";
  return json;
}

Json answer_to_json(const Diagnosis& answer, const Case& c) {
  Json json{{"explanations", Json::array()},
            {"settled", answer.settled},
            {"equivalent", answer.equivalent},
            {"next_observation", nullptr},
            {"contradictions", answer.contradictions}};
  for (const Explanation& e : answer.explanations) {
    Json faults = Json::array(), remedies = Json::array();
    for (const Fault& f : e.faults) {
      faults.push_back(fault_to_json(f, c));
      remedies.push_back(remedy_to_json(f, c));
    }
    json["explanations"].push_back({{"faults", std::move(faults)},
                                    {"remedies", std::move(remedies)},
                                    {"cost", std::round(e.cost * 1000) / 1000},
                                    {"text", explanation_text(e, c)}});
  }
  if (answer.next) {
    json["next_observation"] = observation_to_json(answer.next->observation, c);
    // A stick without a mode is a look at the channels, as in the case format.
    if (!answer.next->surfaces) json["next_observation"].erase("mode");
  }
  return json;
}

std::string explanation_text(const Explanation& e, const Case& c) {
  if (e.faults.empty()) return "Everything seen is as it should be.";
  std::string wrong, right;
  for (const Fault& f : e.faults) {
    wrong += (wrong.empty() ? "" : "; ") + fault_text(f, c);
    right += (right.empty() ? "" : "; then ") + remedy_text(f, c);
  }
  return capital(wrong) + ". Remedy: " + right + ".";
}

}  // namespace rigging::direction
