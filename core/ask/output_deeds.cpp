#include "ask/output_deeds.h"

#include <algorithm>
#include <cmath>

#include "ask/finder.h"
#include "ask/things.h"
#include "base/json.h"
#include "base/number.h"
#include "base/units.h"
#include "feel/edits.h"
#include "feel/gain_scale.h"
#include "language/typed.h"
#include "rig/path.h"
#include "surfaces/edits.h"
#include "wiring/edits.h"

namespace rigging {
namespace {

class OutputDeeds : public Finder {
 public:
  using Finder::Finder;

  void find() {
    reversals();
    swaps();
    plugs();
    gains();
    differentials();
    leads();
    pulses();
    throws();
  }

 private:
  /// "reverse the left flaperon", "reverse output 3".
  void reversals() {
    const bool sense = in_.has({"direction", "sense"});
    if (in_.asks() || (!verb({"reverse", "invert", "flip", "turn"}) && !(sense && verb({"switch", "change", "swap"}))))
      return;
    const bool plain = in_.begins({"reverse", "invert", "flip"}) || sense;
    const auto what = without(in_.words, {"reverse", "invert", "flip", "turn", "servo", "output", "around", "direction",
                                          "sense", "switch", "change", "swap"});
    for (const Output& o : of_.rig.outputs) {
      double fit = 0;
      for (const Surface s : o.surfaces) fit = std::max(fit, names(what, s.label()));
      if (what.size() == 1 && what.front() == o.id.substr(o.id.find_last_of('_') + 1)) fit = 1.5;
      if (fit < 1) continue;
      found_.deed(3 + fit, reverse(of_.rig, o.id), Station::surfaces,
                  o.surfaces.empty() ? o.id : o.surfaces.front().name());
    }
    // "reverse the left aileron" where it is a flaperon.
    if (found_.all.empty() && plain)
      if (const auto surfaces = surfaces_named(of_, in_); surfaces.size() == 1)
        if (const Output* o = of_.rig.output_of(surfaces.front()); o && o->surfaces.size() == 1)
          return found_.deed(4.5, reverse(of_.rig, o->id), Station::surfaces, surfaces.front().name());
    // "reverse the elevator" of a wing that has none: which of its commands is meant is for the looks to find.
    if (what.size() == 1 && plain)
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
    if (!verb({"swap", "exchange", "switch"}) || in_.has({"direction", "sense"})) return;
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
    // "by 10 %" counts from where it stands.
    if (in_.has({"by"}) && down != up && place) {
      const bool percent = scale.words(0.5).find('%') != std::string::npos;
      if (!now || !now->rate || !percent)
        return found_.refusal(5,
                              "say to what: " + ("the gain on " + axis_name) +
                                  (now && now->rate ? " is " + scale.words(*now->rate) : " is not written down yet"),
                              Station::feel, axis_name);
      const double sum = std::clamp(*now->rate + (down ? -1 : 1) * *place, 0.0, 1.0);
      return found_.deed(5, set_gain(of_.rig, of_.catalogue, *axis, scale.rounded_down(sum)), Station::feel, axis_name);
    }
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
};

}  // namespace

void find_output_deeds(const AskedOf& of, const Sentence& sentence, Found& found) {
  OutputDeeds(of, sentence, found).find();
}

}  // namespace rigging
