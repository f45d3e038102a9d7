#include "ask/deeds.h"

#include <algorithm>
#include <cmath>
#include <functional>

#include "airframe/edits.h"
#include "ask/exchanges.h"
#include "ask/finder.h"
#include "ask/output_deeds.h"
#include "ask/part_deeds.h"
#include "ask/things.h"
#include "base/json.h"
#include "base/number.h"
#include "base/units.h"
#include "feel/edits.h"
#include "fit/edits.h"
#include "fit/fit.h"
#include "home/edits.h"
#include "language/typed.h"
#include "language/typed_value.h"
#include "power/network.h"
#include "rig/path.h"
#include "sticks/edits.h"
#include "sticks/sticks.h"

namespace rigging {
namespace {

constexpr double part_of_a_name = 1, all_of_a_name = 2;

class Deeds : public Finder {
 public:
  using Finder::Finder;

  void find() {
    if (in_.asks()) return;
    measures();
    named();
    weights();
    by_so_much();
    find_part_deeds(of_, in_, found_);
    find_output_deeds(of_, in_, found_);
    find_exchange(of_, in_, found_);
    homes();
    mends();
    kinds();
    boards();
  }

 private:
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

  /// "call it Magpie", "rename the aircraft to Long Magpie".
  void named() {
    for (const std::string_view verb :
         {"call ", "name ", "rename ", "change the name ", "change its name ", "set the name ", "change name "}) {
      if (!in_.text.starts_with(verb)) continue;
      std::size_t at = verb.size();
      const auto past = [&](std::string_view word) {
        if (in_.text.compare(at, word.size(), word) == 0) at += word.size();
      };
      for (const std::string_view word :
           {"it ", "this ", "the ", "my ", "model ", "aircraft ", "plane ", "rig ", "to "})
        past(word);
      const std::string name = in_.spoken.substr(at);
      // "name the parts" asks for something else.
      if (at == verb.size() || name.empty() || part_named(of_, meant_words(name))) return;
      return found_.deed(5, set_value(of_.rig, "name", Json(name)), Station::airframe, "airframe");
    }
  }

  /// "the battery weighs 210 g", "it weighs 1.4 kg".
  void weights() {
    // "the motor is 95 g" says the same.
    const bool in_grams = in_.has({"is", "make", "set"}) && !in_.has({"wing", "span", "throw"}) &&
                          in_.split.number.find_first_of("gozlb") != std::string::npos &&
                          typed_number(in_.split.number, "g").has_value();
    if (in_.split.number.empty() || (!said(in_.words, "weigh") && !in_grams) || in_.has({"heavier", "lighter"})) return;
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

  /// "make it 100 g heavier", "the battery is 20 g lighter".
  void by_so_much() {
    const bool lighter = in_.has({"lighter"});
    if (in_.split.number.empty() || (!lighter && !in_.has({"heavier"}))) return;
    const auto kg = typed_number(in_.split.number, shown("kg").unit);
    const auto what = without(in_.numberless, {"make", "set", "heavier", "lighter", "now", "aircraft", "weigh"});
    double fit = 0;
    const Part* p = what.empty() ? nullptr : part_named(of_, what, &fit);
    if (!what.empty() && (!p || fit < part_of_a_name)) return;
    const Station station = p ? Station::fit : Station::airframe;
    const std::string subject = p ? p->id : "airframe";
    if (!kg) return found_.refusal(5, kg.error().text(), station, subject);
    const std::optional<double> now = p ? mass_of(*p, of_.catalogue) : of_.rig.airframe.mass_kg;
    if (!now) return found_.refusal(5, "what it weighs now is not known", station, subject);
    const double value = of_fifteen_figures(*now + (lighter ? -1 : 1) * *kg / shown("kg").factor);
    if (value <= 0) return found_.refusal(5, "it weighs " + mass_text(*now) + " in all", station, subject);
    found_.deed(
        5,
        p ? set_value(of_.rig, path_of({"parts", p->id, "mass_kg"}), Json(value)) : measure(of_.rig, "mass_kg", value),
        station, subject);
  }

  /// What it can do by itself when the link is gone; true while that is not worked out.
  bool can_do(LossAction action) const {
    const auto& late = of_.deferred;
    if (!late || !late->home.missing.empty()) return true;
    const auto& can = late->home.choices;
    return std::find(can.begin(), can.end(), action) != can.end();
  }

  std::string cannot(LossAction action) const {
    if (!of_.deferred->home.can_act) return "this controller does nothing by itself when the link is gone";
    return "with what is fitted it can't " + label_of(name_of(action)) +
           " by itself: a place needs a satellite receiver";
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
      if (action && !can_do(*action)) return found_.refusal(5, cannot(*action), Station::home);
      if (action) {
        Home home = of_.rig.home;
        home.on_loss = *action;
        found_.deed(5, set_home(of_.rig, home, "When the link is lost: " + label_of(name_of(*action))), Station::home);
      }
    }
    if (in_.has({"land", "lands"}) && (in_.has({"home", "back"}) || said(in_.words, "return")) &&
        in_.begins({"make", "let", "land", "have", "set", "it"}) && in_.split.number.empty()) {
      if (!can_do(LossAction::come_home)) return found_.refusal(5, cannot(LossAction::come_home), Station::home);
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
    if (in_.begins({"make", "it", "its", "this", "change", "set"}) && in_.split.number.empty())
      for (const auto& [kind, word] : Names<AirframeKind>::list)
        // "make the tail a V-tail"; of a V-tail the tail is the kind.
        if (const auto what = without(in_.words, {"make", "change", "set", "into", "aircraft", "airframe", "s"});
            std::max(names(what, label_of(word)), names(without(what, {"tail"}), label_of(word))) >= all_of_a_name)
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
    if (said(in_.words, "board") && in_.has({"turn", "rotate", "mount", "put", "board", "arrow"})) {
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
      if (const auto degrees = typed_number(in_.split.number, "°"); degrees && !in_.split.number.empty() &&
                                                                    in_.has({"turn", "turned", "rotate", "rotated"}) &&
                                                                    turn.arrow.axis != 2 && !told) {
        const bool right = in_.has({"right", "clockwise"}), left = in_.has({"left", "anticlockwise"});
        constexpr double quarter = 90, half = 180;
        if (*degrees == half) {
          turn.arrow.sign = -turn.arrow.sign, told = true;
        } else if (*degrees == quarter && right != left) {
          // Seen from above: nose, right, tail, left.
          const int sign = turn.arrow.axis == 0 ? turn.arrow.sign : -turn.arrow.sign;
          turn.arrow = {1 - turn.arrow.axis, right ? sign : -sign}, told = true;
        } else {
          return found_.refusal(5, "by quarter turns, and to which side: “turn the board 90° to the right”, or 180°",
                                Station::fit, "controller");
        }
      }
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
};

}  // namespace

void find_deeds(const AskedOf& of, const Sentence& sentence, Found& found) { Deeds(of, sentence, found).find(); }

}  // namespace rigging
