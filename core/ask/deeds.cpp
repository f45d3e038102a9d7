#include "ask/deeds.h"

#include <algorithm>
#include <cmath>
#include <functional>

#include "airframe/edits.h"
#include "airframe/planform.h"
#include "ask/exchanges.h"
#include "ask/things.h"
#include "base/json.h"
#include "base/number.h"
#include "base/units.h"
#include "catalogue/part_words.h"
#include "feel/edits.h"
#include "feel/gain_scale.h"
#include "fit/edits.h"
#include "home/edits.h"
#include "language/typed.h"
#include "language/typed_value.h"
#include "power/network.h"
#include "rig/path.h"
#include "sticks/edits.h"
#include "sticks/sticks.h"
#include "surfaces/edits.h"
#include "wiring/edits.h"

namespace rigging {
namespace {

constexpr double part_of_a_name = 1, all_of_a_name = 2;

class Deeds {
 public:
  Deeds(const AskedOf& of, const Sentence& sentence, Found& found) : of_(of), in_(sentence), found_(found) {}

  void find() {
    if (in_.asks()) return;
    measures();
    weights();
    moves();
    puts();
    reversals();
    swaps();
    plugs();
    find_exchange(of_, in_, found_);
    adds();
    removes();
    copies();
    gains();
    differentials();
    leads();
    pulses();
    throws();
    homes();
    mends();
    kinds();
    boards();
  }

 private:
  bool verb(std::initializer_list<std::string_view> verbs) const { return in_.has(verbs); }
  std::string name_of_part(const std::string& id) const { return capital(part_name(of_.rig, of_.catalogue, id)); }

  /// "25 %" of what counts from 0 to 1; nothing else.
  std::optional<Result<double>> percent_of(const Member& m) const {
    if (m.span.most > 1 || in_.split.number.find('%') == std::string::npos) return {};
    const auto percent = typed_number(in_.split.number, "%");
    return percent ? Result<double>(of_fifteen_figures(*percent / 100)) : percent;
  }

  /// "set span 1.5 m", "flying mass 1.2 kg", "make the reserve 30 %".
  void measures() {
    if (in_.split.number.empty()) return;
    auto what = without(in_.numberless, {"set", "make", "change", "put", "enter", "measured", "now", "not", "instead"});
    std::erase_if(what, [](const std::string& w) { return is_digit(w.front()); });
    std::optional<std::function<void()>> refused;
    const std::size_t before = found_.all.size();
    const auto look = [&](const Members& members, const std::string& section, Station station) {
      for (const Member& m : members.list) {
        if (!*m.label || (m.type != &number_type() && m.type != &optional_number_type())) continue;
        // Another name counts when nothing else is said beside it: a tail 60 cm behind the wing is no wing of 60 cm.
        const double by_other_name = names_otherwise(what, section, m.name);
        const double fit = std::max(names(what, m.label), by_other_name >= all_of_a_name ? by_other_name : 0);
        if (fit < 1.5) continue;
        const auto percent = percent_of(m);
        const auto value = percent ? *percent : typed_value(m, in_.split.number);
        if (!value) {
          // Another measure of such a name may take the unit.
          if (!refused)
            refused = [this, fit, why = value.error().text(), station, section] {
              found_.refusal(fit, why, station, section);
            };
          continue;
        }
        found_.deed(2 + fit,
                    section == "airframe" ? measure(of_.rig, m.name, *value)
                                          : set_value(of_.rig, path_of({section, m.name}), Json(*value)),
                    station, section);
      }
    };
    look(Described<Airframe>::members(), "airframe", Station::airframe);
    look(Described<Fit>::members(), "fit", Station::fit);
    look(Described<Power>::members(), "power", Station::power);
    look(Described<Home>::members(), "home", Station::home);
    if (refused && found_.all.size() == before) (*refused)();
  }

  /// "the battery weighs 210 g", "it weighs 1.4 kg".
  void weights() {
    // "the motor is 95 g" says the same.
    const bool in_grams = in_.has({"is", "make", "set"}) && !in_.has({"wing", "span", "throw"}) &&
                          in_.split.number.find_first_of("gozlb") != std::string::npos &&
                          typed_number(in_.split.number, "g").has_value();
    if (in_.split.number.empty() || (!said(in_.words, "weigh") && !in_grams)) return;
    const auto kg = typed_number(in_.split.number, shown("kg").unit);
    const auto what =
        without(in_.numberless, {"weigh", "set", "make", "change", "flying", "now", "really", "aircraft"});
    if (in_.has({"airframe", "frame"}) || (in_.has({"empty"}) && !said(in_.words, "battery"))) {
      if (!kg) return found_.refusal(5, kg.error().text(), Station::fit, "airframe");
      return found_.deed(
          5, set_value(of_.rig, path_of({"fit", "frame_mass_kg"}), Json(of_fifteen_figures(*kg / shown("kg").factor))),
          Station::fit, "airframe");
    }
    double fit = 0;
    const Part* p = part_named(of_, what, &fit);
    if (!what.empty() && (!p || fit < part_of_a_name)) return;
    const Station station = what.empty() ? Station::airframe : Station::fit;
    const std::string subject = what.empty() ? "airframe" : p->id;
    if (!kg) return found_.refusal(5, kg.error().text(), station, subject);
    const double value = of_fifteen_figures(*kg / shown("kg").factor);
    found_.deed(5,
                what.empty() ? measure(of_.rig, "mass_kg", value)
                             : set_value(of_.rig, path_of({"parts", p->id, "mass_kg"}), Json(value)),
                station, subject);
  }

  /// "move the battery 20 mm back".
  void moves() {
    // "gps 2 cm to the left" leaves the verb out.
    const bool told_short = in_.has_row({"to", "the", "left"}) || in_.has_row({"to", "the", "right"}) ||
                            (in_.words.size() <= 4 && in_.has({"forward", "back", "aft", "up", "down"}));
    if ((!verb({"move", "shift", "slide", "push"}) && !told_short) || in_.split.number.empty() ||
        in_.has({"throw", "trim", "gain", "height"}))
      return;
    const auto distance = typed_number(in_.split.number, shown("m").unit);
    Point way = Point::Zero();
    for (const auto& [word, to] : {std::pair{"back", Point(-1, 0, 0)},
                                   {"backward", Point(-1, 0, 0)},
                                   {"aft", Point(-1, 0, 0)},
                                   {"rearward", Point(-1, 0, 0)},
                                   {"forward", Point(1, 0, 0)},
                                   {"ahead", Point(1, 0, 0)},
                                   {"front", Point(1, 0, 0)},
                                   {"down", Point(0, 0, 1)},
                                   {"up", Point(0, 0, -1)},
                                   {"right", Point(0, 1, 0)},
                                   {"left", Point(0, -1, 0)}})
      // Left and right may name the part: "move the left servo 20 mm back".
      if (way.isZero() && in_.has({word})) way = to;
    const auto what = without(in_.numberless, {"move", "shift", "slide", "push", "back", "backward", "aft", "rearward",
                                               "forward", "ahead", "front", "down", "up"});
    double fit = 0;
    const bool board = said(what, "board");
    const Part* p = part_named(of_, what, &fit);
    if ((!p && !board) || way.isZero() || !distance) return;
    const std::string id = board && fit < 1.5 ? "controller" : p->id;
    const Mounting* now = of_.rig.mounting(id);
    Mounting place = now ? *now : Mounting{};
    place.part = id;
    const Point step = way * *distance / shown("m").factor;
    place.x_m += step.x(), place.y_m += step.y(), place.z_m += step.z();
    auto edit = put_part(of_.rig, of_.catalogue, place);
    if (edit)
      edit->label = name_of_part(id) + ": " + length_text(step.norm()) +
                    (way.x() < 0   ? " back"
                     : way.x() > 0 ? " forward"
                     : way.y() > 0 ? " to the right"
                     : way.y() < 0 ? " to the left"
                     : way.z() > 0 ? " down"
                                   : " up");
    found_.deed(5, std::move(edit), Station::fit, id);
  }

  /// "put the receiver in the wing", "move the camera to the nose".
  void puts() {
    if (!verb({"put", "move", "place", "mount"}) || !in_.split.number.empty() || in_.asks()) return;
    const Airframe& a = of_.rig.airframe;
    const HalfSurface wing = planform_of(a).wing;
    const auto said_place = [&](std::initializer_list<std::string_view> some) { return in_.has(some); };
    const bool under = in_.has({"under", "below", "beneath", "over", "above", "on"});
    double x = 0, y = 0, z = 0;
    std::string where;
    if (said_place({"wing", "wings"})) {
      const bool left = in_.has({"left"});
      // Out of the body and well inside: a third of the half span, in the middle of the chord there.
      const double share = under ? 0 : 1.0 / 3;
      const Point edge = wing.root + share * (wing.tip - wing.root);
      x = edge.x() - 0.5 * (wing.root_chord_m + share * (wing.tip_chord_m - wing.root_chord_m));
      y = (left ? -1 : 1) * edge.y() * (under ? 0 : 1);
      z = edge.z();
      where = under ? "at the wing" : left ? "into the left wing half" : "into the right wing half";
    } else if (said_place({"nose", "front"})) {
      x = -0.15 * a.length_m, where = "into the nose";
    } else if (said_place({"tail", "back", "rear"})) {
      x = -0.8 * a.length_m, where = "toward the tail";
    } else if (said_place({"middle", "centre", "center"})) {
      x = wing.root.x() - 0.5 * wing.root_chord_m, where = "into the middle";
    } else {
      return;
    }
    const auto what = without(
        in_.words, {"put",    "move",  "place", "mount",   "wing", "nose",  "front",  "tail", "back", "rear", "middle",
                    "centre", "under", "below", "beneath", "over", "above", "toward", "half", "left", "right"});
    double fit = 0;
    const Part* p = part_named(of_, what, &fit);
    if ((!p || fit < part_of_a_name) && !said(what, "board")) return;
    const std::string id = p && fit >= part_of_a_name ? p->id : "controller";
    const Mounting* now = of_.rig.mounting(id);
    Mounting place = now ? *now : Mounting{};
    place.part = id;
    const auto rounded = [](double m) { return std::round(1000 * m) / 1000; };
    place.x_m = rounded(x), place.y_m = rounded(y), place.z_m = rounded(z);
    auto edit = put_part(of_.rig, of_.catalogue, place);
    if (edit)
      edit->label = name_of_part(id) + " " + where + ": " + length_text(-place.x_m) + " behind the nose" +
                    (place.y_m == 0 ? std::string()
                                    : ", " + length_text(std::abs(place.y_m)) + (place.y_m < 0 ? " left" : " right") +
                                          " of the middle");
    found_.deed(5, std::move(edit), Station::fit, id);
  }

  /// "reverse the left flaperon", "reverse output 3".
  void reversals() {
    if (!verb({"reverse", "invert", "flip", "turn"})) return;
    const auto what =
        without(in_.words, {"reverse", "invert", "flip", "turn", "servo", "output", "around", "direction"});
    for (const Output& o : of_.rig.outputs) {
      double fit = 0;
      for (const Surface s : o.surfaces) fit = std::max(fit, names(what, s.label()));
      if (what.size() == 1 && what.front() == o.id.substr(o.id.find_last_of('_') + 1)) fit = 1.5;
      if (fit < 1) continue;
      found_.deed(3 + fit, reverse(of_.rig, o.id), Station::surfaces,
                  o.surfaces.empty() ? o.id : o.surfaces.front().name());
    }
    // "reverse the left aileron" where it is a flaperon.
    if (found_.all.empty() && in_.begins({"reverse", "invert", "flip"}))
      if (const auto surfaces = surfaces_named(of_, in_); surfaces.size() == 1)
        if (const Output* o = of_.rig.output_of(surfaces.front()); o && o->surfaces.size() == 1)
          return found_.deed(4.5, reverse(of_.rig, o->id), Station::surfaces, surfaces.front().name());
    // "reverse the elevator" of a wing that has none: which of its commands is meant is for the looks to find.
    if (what.size() == 1 && in_.begins({"reverse", "invert", "flip"}))
      if (const auto axis = axis_named(in_); axis && found_.all.empty()) {
        if (std::none_of(of_.rig.outputs.begin(), of_.rig.outputs.end(),
                         [&](const Output& o) { return o.mix.of(*axis) != 0; }))
          return found_.refusal(4, "nothing on this aircraft answers " + std::string(name_of(*axis)),
                                Station::surfaces);
        found_.deed(4, reverse_axis(of_.rig, *axis), Station::surfaces);
      }
  }

  /// "swap outputs 3 and 4", "exchange the left and the right flaperon".
  void swaps() {
    if (!verb({"swap", "exchange", "switch"})) return;
    std::vector<const Output*> two = outputs_numbered(of_, in_);
    if (two.empty()) {
      std::vector<std::string> ids;
      for (const Surface s : surfaces_named(of_, in_))
        if (const Output* o = of_.rig.output_of(s); o && std::find(two.begin(), two.end(), o) == two.end())
          two.push_back(o);
    }
    if (two.size() != 2 || two[0] == two[1]) return;
    auto edit = plug_output(of_.rig, of_.catalogue, two[0]->id, two[1]->socket);
    if (edit) edit->label = "Exchanged, with their leads: " + edit->label;
    found_.deed(5, std::move(edit), Station::wiring, two[0]->id);
  }

  /// "put the rudder on output 5".
  void plugs() {
    if (!verb({"put", "move", "change", "plug", "connect"}) || !in_.has({"output", "socket", "out"})) return;
    const auto surfaces = surfaces_named(of_, in_);
    const auto number = typed_number(in_.split.number, "");
    const ControllerClass* c = of_.catalogue.controller(of_.rig.controller.kind);
    if (surfaces.size() != 1 || !number || in_.split.number.empty() || !c) return;
    const Output* o = of_.rig.output_of(surfaces.front());
    if (!o) return;
    std::vector<const Terminal*> sockets;
    for (const Terminal* t : c->terminals())
      if (c->socket(t->id)) sockets.push_back(t);
    if (*number < 1 || *number > static_cast<double>(sockets.size()) || *number != std::floor(*number))
      return found_.refusal(5, "this board has " + std::to_string(sockets.size()) + " outputs", Station::wiring);
    found_.deed(5.3, plug_output(of_.rig, of_.catalogue, o->id, sockets[static_cast<std::size_t>(*number) - 1]->id),
                Station::wiring, o->id);
  }

  /// "add a satellite receiver with compass".
  void adds() {
    if (!verb({"add", "fit", "install", "new"})) return;
    std::string rest;
    for (const std::string& w : in_.all)
      if (w != "add" && w != "fit" && w != "install" && w != "new" && w != "second") rest += w + " ";
    const auto said_parts = parts_in_words(of_.catalogue, rest);
    if (said_parts.size() != 1 || !said_parts.front().kind || !said_parts.front().remark.empty()) return;
    const SaidPart& part = said_parts.front();
    Result<Edit> edit = Edit{of_.rig, {}};
    for (int i = 0; i < part.count && edit; ++i) edit = add_part(edit->rig, of_.catalogue, part.kind->id);
    if (edit) edit->label = "Add: " + (part.count > 1 ? std::to_string(part.count) + " × " : "") + part.kind->name;
    found_.deed(4, std::move(edit), Station::fit);
  }

  /// "mirror the left servo", "another camera".
  void copies() {
    const bool mirror = verb({"mirror"}), another = verb({"duplicate", "copy", "another"});
    if (!mirror && !another) return;
    double fit = 0;
    const Part* p =
        part_named(of_, without(in_.words, {"mirror", "duplicate", "copy", "another", "other", "side"}), &fit);
    if (!p || fit < part_of_a_name) return;
    found_.deed(3 + fit,
                mirror ? mirror_part(of_.rig, of_.catalogue, p->id) : duplicate_part(of_.rig, of_.catalogue, p->id),
                Station::fit, p->id);
  }

  /// "take the camera out".
  void removes() {
    if (!verb({"remove", "delete", "take"})) return;
    double fit = 0;
    const auto what = without(in_.words, {"remove", "delete", "take", "out", "away", "off"});
    if (const Part* p = part_named(of_, what, &fit); p && fit >= part_of_a_name)
      return found_.deed(3 + fit, remove_part(of_.rig, of_.catalogue, p->id), Station::fit);
    for (const auto& [group, word] : Names<PartGroup>::list)
      if (names(what, label_of(word)) >= 2)
        found_.refusal(4, "there is no " + label_of(word) + " in this rig", Station::fit);
  }

  /// "turn the roll gain down to 6", "raise the pitch gain a bit".
  void gains() {
    // "turn down pitch" says nothing else that could be turned.
    const bool turned =
        in_.begins({"turn"}) && in_.has({"down", "up"}) && in_.words.size() <= 4 && in_.has({"roll", "pitch", "yaw"});
    if (!said(in_.words, "gain") && !turned) return;
    const auto axis = axis_named(in_);
    const ControllerClass* c = of_.catalogue.controller(of_.rig.controller.kind);
    if (!c) return;
    if (!axis && in_.has({"all", "every"})) {
      std::string words = in_.split.number;
      if (in_.has({"zero", "off"})) words = "0";
      if (words.empty()) return;
      Result<Edit> edit = Edit{of_.rig, {}};
      std::string label;
      for (const Axis each : all_axes)
        if (edit) {
          edit = set_gain_in_words(edit->rig, of_.catalogue, each, words);
          if (edit) label += (label.empty() ? "" : "; ") + edit->label;
        }
      if (edit) edit->label = label;
      return found_.deed(5, std::move(edit), Station::feel);
    }
    if (!axis) return;
    const GainScale scale(*c, of_.rig.feel.half_share);
    const AxisGain* now = of_.rig.feel.gain(*axis);
    const bool down = verb({"down", "lower", "less", "reduce", "decrease"}),
               up = verb({"up", "raise", "more", "increase", "higher"});
    const std::string axis_name(name_of(*axis));
    if (in_.split.number.empty()) {
      if (scale.settable() && in_.has({"off", "zero", "nothing"}))
        return found_.deed(5, set_gain(of_.rig, of_.catalogue, *axis, 0), Station::feel, axis_name);
      if (down == up) return;
      if (!scale.settable())
        return found_.refusal(4, c->name + " sets no gain: the linkage does", Station::feel, axis_name);
      if (!now || !now->rate)
        return found_.refusal(4, "the gain on " + axis_name + " is not written down yet: say to what", Station::feel,
                              axis_name);
      const double place = std::clamp(*now->rate + (down ? -1 : 1) * std::max(scale.step(), 0.05), 0.0, 1.0);
      return found_.deed(4, set_gain(of_.rig, of_.catalogue, *axis, scale.rounded_down(place)), Station::feel,
                         axis_name);
    }
    const auto place = scale.settable() ? scale.read(in_.split.number) : Result<double>(0.0);
    if (now && now->rate && place && down != up && (down ? *place > *now->rate : *place < *now->rate))
      return found_.refusal(4,
                            "the gain on " + axis_name + " is " + scale.words(*now->rate) +
                                " now: " + scale.words(*place) + " would be " + (down ? "up" : "down"),
                            Station::feel, axis_name);
    found_.deed(5, set_gain_in_words(of_.rig, of_.catalogue, *axis, in_.split.number), Station::feel, axis_name);
  }

  /// "more differential", "differential 30 %".
  void differentials() {
    if (!said(in_.words, "differential")) return;
    constexpr double step = 0.1;
    if (in_.begins({"no", "without", "remove"}) && in_.split.number.empty())
      return found_.deed(5, set_differential(of_.rig, 0), Station::surfaces);
    const bool less = verb({"less", "reduce", "lower", "decrease"}), more = verb({"more", "increase", "raise"});
    if (in_.split.number.empty()) {
      if (less == more) return;
      const double now = differential_of(of_.rig);
      if (less && now <= 0) return found_.refusal(5, "there is no differential to take away", Station::surfaces);
      return found_.deed(
          5, set_differential(of_.rig, std::clamp(std::round(100 * (now + (less ? -step : step))) / 100, 0.0, 1.0)),
          Station::surfaces);
    }
    const auto percent = typed_number(in_.split.number, "%");
    if (!percent) return found_.refusal(5, percent.error().text(), Station::surfaces);
    found_.deed(5, set_differential(of_.rig, of_fifteen_figures(*percent / 100)), Station::surfaces);
  }

  /// "set lead 3 to 200 mm", "servo rate 50 Hz".
  void leads() {
    const auto& loom = of_.review.reports.wiring().harness;
    if (in_.words.size() >= 2 && said(in_.words, "lead") && verb({"set", "make", "cut", "shorten", "lengthen"})) {
      std::optional<double> number, metres;
      for (std::size_t i = 0; i + 1 < in_.all.size(); ++i)
        if (in_.all[i] == "lead") number = number_of(in_.all[i + 1]);
      if (const std::size_t to = in_.text.rfind(" to "); to != std::string::npos)
        if (const auto said_length = typed_number(in_.text.substr(to + 4), shown("m").unit))
          metres = of_fifteen_figures(*said_length / shown("m").factor);
      if (!number || !metres) return;
      if (*number < 1 || *number > static_cast<double>(loom.size()) || *number != std::floor(*number))
        return found_.refusal(5.5, "there are " + std::to_string(loom.size()) + " leads", Station::wiring);
      const std::string& id = loom[static_cast<std::size_t>(*number) - 1].lead;
      auto edit = set_value(of_.rig, path_of({"leads", id, "length_m"}), Json(*metres));
      if (edit) edit->label = "Lead " + number_text(*number, 0) + ": " + length_text(*metres);
      return found_.deed(5.5, std::move(edit), Station::wiring, id);
    }
    const auto hz = typed_number(in_.split.number, "Hz");
    if (hz && !in_.split.number.empty() && in_.has({"hz", "hertz"}) && said(in_.words, "servo")) {
      Result<Edit> edit = Edit{of_.rig, {}};
      for (const Output& o : of_.rig.outputs)
        if (edit && !o.surfaces.empty() && o.surfaces.front().kind != SurfaceKind::motor)
          edit = limit_rate(edit->rig, of_.catalogue, o.id, *hz);
      if (edit) edit->label = "Servo outputs: " + number_text(*hz, 0) + " Hz";
      found_.deed(5.5, std::move(edit), Station::wiring);
    }
  }

  /// "set output 1 centre to 1520", "limit output 3 to 1900".
  void pulses() {
    if (in_.split.number.empty() || !in_.has({"centre", "center", "limit", "end", "ends", "pulse"})) return;
    const auto us = typed_number(in_.split.number, "µs");
    std::vector<const Output*> outputs = outputs_numbered(of_, Sentence(in_.split.words));
    for (const Surface s : surfaces_named(of_, in_))
      if (const Output* o = of_.rig.output_of(s)) outputs.push_back(o);
    constexpr double least_us = 500, most_us = 2500, middle_us = 1500;
    // "output 1 centre to 1520": the first number is the output's.
    std::optional<double> wanted;
    if (us) wanted = *us;
    for (const std::string& w : in_.all)
      if (const auto n = number_of(w); n && *n >= least_us && *n <= most_us) wanted = n;
    if (outputs.empty())
      for (const Output* o : outputs_numbered(of_, in_)) outputs.push_back(o);
    if (outputs.size() != 1 || !wanted || *wanted < least_us || *wanted > most_us) return;
    const char* member = in_.has({"centre", "center"}) ? "centre_us" : *wanted < middle_us ? "low_us" : "high_us";
    found_.deed(5.2, set_value(of_.rig, path_of({"outputs", outputs.front()->id, member}), Json(*wanted)),
                Station::surfaces, outputs.front()->id);
  }

  /// "elevator throw 12 degrees".
  void throws() {
    if (in_.split.number.empty() || !in_.has({"throw", "throws", "degrees", "deflection", "move", "moves"})) return;
    const auto surfaces = surfaces_named(of_, in_);
    const auto axis = axis_named(in_);
    if (surfaces.empty()) return;
    const auto degrees = typed_number(in_.split.number, "°");
    if (!degrees) return;
    const Surface s = surfaces.front();
    MixCommand command = MixCommand::roll;
    if (axis == Axis::pitch || s.kind == SurfaceKind::elevator || s.kind == SurfaceKind::canard)
      command = MixCommand::pitch;
    if (axis == Axis::yaw || s.kind == SurfaceKind::rudder) command = MixCommand::yaw;
    auto edit = set_throw(of_.rig, s, command, *degrees);
    found_.deed(5, std::move(edit), Station::surfaces, s.name());
  }

  /// "return at 60 metres", "come home when the link is lost", "warn at 3.5 V a cell", "make it a pusher".
  void homes() {
    const bool lost = said(in_.words, "lost") || said(in_.words, "failsafe");
    if (lost && in_.split.number.empty() &&
        in_.begins({"come", "return", "fly", "circle", "glide", "set", "make", "let", "if", "when", "stop", "cut"})) {
      std::optional<LossAction> action;
      if (said(in_.words, "return")) action = LossAction::come_home;
      if (in_.has({"circle", "loiter"})) action = LossAction::circle;
      if (in_.has({"glide"}) || in_.has_row({"motor", "off"}) || (in_.has({"stop", "cut"}) && said(in_.words, "motor")))
        action = LossAction::glide;
      const auto& late = of_.deferred;
      if (action && late && late->home.missing.empty() &&
          std::find(late->home.choices.begin(), late->home.choices.end(), *action) == late->home.choices.end())
        return found_.refusal(5,
                              late->home.can_act ? "with what is fitted it can't " + label_of(name_of(*action)) +
                                                       " by itself: a place needs a satellite receiver"
                                                 : "this controller does nothing by itself when the link is gone",
                              Station::home);
      if (action) {
        Home home = of_.rig.home;
        home.on_loss = *action;
        found_.deed(5, set_home(of_.rig, home, "When the link is lost: " + label_of(name_of(*action))), Station::home);
      }
    }
    if (in_.has({"land", "lands"}) && (in_.has({"home", "back"}) || said(in_.words, "return")) &&
        in_.begins({"make", "let", "land", "have", "set", "it"}) && in_.split.number.empty()) {
      Home home = of_.rig.home;
      home.on_arrival = OnArrival::land;
      found_.deed(5, set_home(of_.rig, home, "On arrival it lands"), Station::home);
    }
    if (in_.split.number.empty()) return;
    const auto battery = parts_of(of_, PartGroup::battery);
    const auto set = [&](const char* member, double value) {
      found_.deed(5, set_value(of_.rig, path_of({"home", member}), Json(value)), Station::home);
    };
    if (const auto volts = typed_number(in_.split.number, "V");
        volts && ((in_.has({"warn", "return", "home", "land", "turn"}) &&
                   in_.split.number.find_first_of("vV") != std::string::npos) ||
                  (in_.has({"low"}) && in_.has({"voltage", "battery"}) && said(in_.all, "set")))) {
      const PartKind* k = battery.size() == 1 ? of_.catalogue.part(battery.front()->kind) : nullptr;
      const bool each = in_.has({"cell", "cells"});
      if (each && (!k || !k->battery))
        return found_.refusal(5, "how many cells the battery has is not known", Station::fit);
      return set("turn_home_v", of_fifteen_figures(*volts * (each ? k->battery->cells : 1)));
    }
    if (said(in_.words, "fence"))
      if (const auto metres = typed_number(in_.split.number, shown("m").unit)) {
        const auto it = std::find_if(of_.rig.home.triggers.begin(), of_.rig.home.triggers.end(),
                                     [](const TriggerChoice& t) { return t.on == HomeTrigger::fence; });
        const TriggerAction does = it == of_.rig.home.triggers.end() ? TriggerAction::warn : it->does;
        const double at = of_fifteen_figures(*metres / shown("m").factor);
        auto edit = set_trigger(of_.rig, HomeTrigger::fence, does, at);
        if (edit) edit->label = "At a fence of " + field_text(at) + ": " + label_of(name_of(does));
        found_.deed(5.5, std::move(edit), Station::home);
      }
    if (const Member* m = Described<Home>::members().named("return_height_m");
        m && said(in_.words, "return") && in_.begins({"return", "come", "fly"}))
      if (const auto height = typed_value(*m, in_.split.number)) set("return_height_m", *height);
  }

  /// "fix the first snag", "fix it".
  void mends() {
    if (!in_.begins({"fix", "mend", "solve", "repair"}) || in_.words.size() > 4) return;
    for (const Snag& s : of_.review.snags)
      if (s.fix) return found_.deed(4.5, s.fix->edit(of_.rig, of_.catalogue), s.station, s.subject);
    if (!of_.review.snags.empty())
      found_.refusal(
          4.5, "no snag has a remedy that can be made without a choice; the first: " + of_.review.snags.front().remedy,
          of_.review.snags.front().station, of_.review.snags.front().subject);
  }

  /// "make it a V-tail", "no rudder", "less elevator", "put the mode on channel 6".
  void kinds() {
    if (in_.begins({"make", "it", "its", "this"}) && in_.split.number.empty())
      for (const auto& [kind, word] : Names<AirframeKind>::list)
        if (names(without(in_.words, {"make", "into", "aircraft", "s"}), label_of(word)) >= all_of_a_name)
          found_.deed(5, change_kind(of_.rig, of_.catalogue, kind), Station::airframe);
    if (said(in_.words, "rudder") && in_.words.size() <= 2 &&
        (in_.begins({"no", "without"}) || in_.has_row({"no", "rudder"}))) {
      const AirframeKind now = of_.rig.airframe.kind;
      if (now == AirframeKind::two_ailerons || now == AirframeKind::aileron_y_lead)
        found_.deed(5, change_kind(of_.rig, of_.catalogue, AirframeKind::aileron_elevator), Station::airframe);
      else if (now == AirframeKind::flying_wing_rudders)
        found_.deed(5, change_kind(of_.rig, of_.catalogue, AirframeKind::flying_wing), Station::airframe);
      else
        found_.refusal(
            4,
            of_.rig.output_of(Surface{SurfaceKind::rudder, Side::single})
                ? "a " + label_of(name_of(now)) + " without its rudder is another kind: choose it at airframe"
                : "there is no rudder on this aircraft",
            Station::airframe);
    }
    if (in_.split.number.empty() && in_.has({"less", "more"}) && !said(in_.words, "gain") && !said(in_.words, "expo"))
      if (const auto surfaces = surfaces_named(of_, in_); !surfaces.empty() && in_.words.size() <= 3)
        found_.refusal(
            3,
            "by how much? Say it as “" + surfaces.front().label() +
                " throw 12 degrees”. By the holes of the linkage the correction follows, by the mix, too; by "
                "the transmitter's rates the stick alone",
            Station::surfaces, surfaces.front().name());
    const auto number = typed_number(in_.split.number, "");
    if (in_.has({"channel"}) && number && *number == std::floor(*number) && verb({"set", "put", "move", "use", "on"})) {
      const auto what = without(in_.numberless, {"channel", "set", "put", "move", "use", "switch", "on"});
      for (const auto& [function, word] : Names<ChannelFunction>::list)
        if (names(what, label_of(word)) >= all_of_a_name || names(what, function_label(function)) >= all_of_a_name) {
          const int most = of_.rig.radio.transmitter.channels;
          if (*number < 1 || *number > std::max(most, 1))
            return found_.refusal(5, "this transmitter has " + std::to_string(most) + " channels", Station::sticks);
          return found_.deed(5, channel_serves(of_.rig, static_cast<int>(*number), function), Station::sticks);
        }
    }
  }

  /// "make it a pusher", "turn the board upside down", "I have 12 channels", "use the inline unit".
  void boards() {
    for (const auto& [word, pusher] : {std::pair{"pusher", true}, {"tractor", false}})
      if (said(in_.words, word) && in_.words.size() <= 3 && of_.rig.airframe.kind != AirframeKind::towed_glider)
        found_.deed(5, turn_propeller(of_.rig, pusher ? PropellerSide::pusher : PropellerSide::tractor),
                    Station::airframe);
    if (in_.has({"ailerons", "aileron"}) && (in_.has_row({"y", "lead"}) || in_.has({"ylead"})))
      found_.deed(5, join_ailerons(of_.rig, of_.catalogue, true), Station::airframe);
    if (in_.begins({"make", "it", "two"}) && in_.words.size() <= 3 &&
        (in_.has({"twin"}) || in_.has_row({"two", "motors"})))
      found_.deed(5, change_motors(of_.rig, of_.catalogue, Motors::two), Station::airframe);
    for (const auto& [word, member] : {std::pair{"bank", "bank_limit_deg"}, {"nose", "nose_limit_deg"}})
      if (in_.has({word}) && in_.has({"limit"}))
        if (const auto deg = typed_number(in_.split.number, "°"); deg && !in_.split.number.empty())
          found_.deed(5, set_value(of_.rig, path_of({"feel", member}), Json(*deg)), Station::feel);
    if (in_.has_row({"direct", "stick"}) || in_.has_row({"feed", "forward"}) || in_.has({"feedforward"}))
      if (const auto percent = typed_number(in_.split.number, "%"); percent && !in_.split.number.empty())
        for (const Axis axis : all_axes)
          if (said(in_.words, std::string(name_of(axis))))
            found_.deed(5, set_direct_stick(of_.rig, of_.catalogue, axis, *percent / 100), Station::feel,
                        std::string(name_of(axis)));
    if (in_.has({"channels"}) && in_.has({"have", "has", "transmitter"}))
      if (const auto count = typed_number(in_.split.number, "");
          count && !in_.split.number.empty() && *count == std::floor(*count))
        found_.deed(5,
                    set_value(of_.rig, path_of({"radio", "transmitter", "channels"}), Json(static_cast<int>(*count))),
                    Station::sticks);
    if (said(in_.words, "board") && in_.has({"turn", "mount", "put", "board", "arrow"})) {
      Mounting place = of_.rig.mounting("controller") ? *of_.rig.mounting("controller") : Mounting{};
      place.part = "controller";
      Turn turn = place.turn;
      bool told = false;
      if (said(in_.words, "upsidedown")) turn.top = {2, -turn.top.sign}, told = turn.top.axis == 2;
      if (said(in_.words, "arrow"))
        for (const auto& [word, axis, sign] : {std::tuple{"nose", 0, 1},
                                               {"forward", 0, 1},
                                               {"tail", 0, -1},
                                               {"back", 0, -1},
                                               {"right", 1, 1},
                                               {"left", 1, -1}})
          if (in_.has({word}) && turn.top.axis == 2) turn.arrow = {axis, sign}, told = true;
      if (in_.has({"around", "round"}) && turn.arrow.axis != 2) turn.arrow.sign = -turn.arrow.sign, told = true;
      if (told) {
        place.turn = turn;
        found_.deed(5, put_part(of_.rig, of_.catalogue, place), Station::fit, "controller");
      }
    }
    if (verb({"use", "change", "take"}))
      for (const ControllerClass& c : of_.catalogue.controllers) {
        const auto what = without(in_.words, {"use", "change", "take", "instead", "board"});
        if (const double fit = std::max(names(what, c.name), names(what, label_of(c.id))); fit >= 1.5)
          found_.deed(2 + fit, change_class(of_.rig, of_.catalogue, c.id), Station::airframe, "controller");
      }
  }

  const AskedOf& of_;
  const Sentence& in_;
  Found& found_;
};

}  // namespace

void find_deeds(const AskedOf& of, const Sentence& sentence, Found& found) { Deeds(of, sentence, found).find(); }

}  // namespace rigging
