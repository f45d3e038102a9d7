#include "ask/questions.h"

#include <algorithm>
#include <cmath>

#include "airframe/airframe.h"
#include "ask/exchanges.h"
#include "ask/part_answers.h"
#include "ask/sayings.h"
#include "ask/things.h"
#include "ask/what_if.h"
#include "base/number.h"
#include "base/units.h"
#include "direction/direction_checks.h"
#include "feel/gain_scale.h"
#include "language/typed.h"
#include "language/typed_value.h"
#include "power/drive_choice.h"
#include "power/network.h"
#include "rig/path.h"
#include "sticks/sticks.h"
#include "wiring/wiring.h"

namespace rigging {
namespace {

std::string joined(const std::vector<std::string>& all, const char* between = "; ") {
  std::string text;
  for (const std::string& s : all) text += (text.empty() ? "" : between) + s;
  return text;
}

constexpr double least_of_a_figure = 1.3, whole_name = 2;

class Answers {
 public:
  Answers(const AskedOf& of, const Sentence& sentence, Found& found) : of_(of), in_(sentence), found_(found) {}

  void find() {
    wheres();
    leads();
    weights();
    figures();
    const std::size_t before = found_.all.size();
    find_other_drive(of_, in_, found_);
    if (found_.all.size() == before) find_what_if(of_, in_, found_);
    limits();
    find_part_answers(of_, in_, found_);
    home_from();
    mixes();
    switches();
    heavier();
    if (!in_.split.number.empty()) return;
    find_suits(of_, in_, found_);
    speaks();
    sizes();
    states();
    should_move();
    of_board();
    missing_surface();
    values();
    fitted();
    directions();
    supplies();
    channels();
    gains();
    sums();
  }

 private:
  std::string name_of_part(const std::string& id) const { return capital(part_name(of_.rig, of_.catalogue, id)); }
  const std::vector<HarnessRow>& loom() const { return of_.review.reports.wiring().harness; }
  const ControllerClass* board() const { return of_.review.reports.controller(); }
  std::string socket_label(const std::string& socket) const {
    const Terminal* t = board() ? board()->terminal(socket) : nullptr;
    return t && !t->label.empty() ? t->label : socket;
  }

  /// "where does the receiver go", "which socket is the elevator in", "what is plugged into output 3".
  void wheres() {
    if ((!in_.begins({"where", "what", "which", "whats"}) &&
         !(in_.begins({"is", "are"}) && in_.has({"plugged", "connected"}))) ||
        !in_.has({"where", "plugged", "plug", "socket", "connected", "pin", "port", "output"}))
      return;
    const auto numbered = outputs_numbered(of_, in_);
    if (numbered.size() == 1 && in_.has({"output", "out"})) {
      const Output& o = *numbered.front();
      std::vector<std::string> on;
      for (const Surface s : o.surfaces) on.push_back(s.label());
      found_.answer(5,
                    capital(o.id.substr(0, o.id.find_last_of('_')) == "out" ? "output " + o.id.substr(4) : o.id) +
                        ": " + (on.empty() ? o.mix.throttle != 0 ? "the motor" : "no surface" : joined(on, " and ")) +
                        ", in socket " + socket_label(o.socket),
                    Station::wiring, o.id);
      return;
    }
    const auto what = without(in_.words, {"plugged", "plug", "socket", "connected", "lead", "sit", "goes", "pin",
                                          "port", "output", "use", "whats"});
    double fit = 0;
    const Part* p = part_named(of_, what, &fit);
    if (p && fit >= 1) {
      // A battery goes where the balance comes right.
      const PartKind* k = of_.catalogue.part(p->kind);
      const Balance& balance = of_.review.reports.fit().balance;
      if (k && k->group == PartGroup::battery && balance.complete &&
          !in_.has({"plugged", "plug", "socket", "connected", "pin", "port", "voltage", "lead", "leads"}))
        found_.answer(5.2, balance.to_wanted.words, Station::fit, "balance");
      std::vector<std::string> ends;
      for (const HarnessRow& row : loom()) {
        const Lead* l = of_.rig.lead(row.lead);
        if (!l || (l->from.part != p->id && l->to.part != p->id)) continue;
        const bool from = l->from.part == p->id;
        ends.push_back((from ? row.from_socket : row.to_socket) + " to " + (from ? row.to : row.from) + " " +
                       (from ? row.to_socket : row.from_socket));
      }
      const std::string name = name_of_part(p->id);
      found_.answer(3 + fit, name + ": " + (ends.empty() ? "not connected yet" : joined(ends)), Station::wiring, p->id);
      if (const Mounting* place = of_.rig.mounting(p->id))
        found_.answer(2.9 + fit,
                      name + " sits " + length_text(-place->x_m) + " behind the nose" +
                          (std::abs(place->y_m) < 0.001 ? ""
                                                        : ", " + length_text(std::abs(place->y_m)) +
                                                              (place->y_m > 0 ? " right" : " left") + " of the middle"),
                      Station::fit, p->id);
      if (fit >= 1.5) return;
    }
    std::vector<std::string> sockets;
    for (const Surface s : surfaces_named(of_, in_))
      if (const Output* o = of_.rig.output_of(s)) sockets.push_back(s.label() + " in " + socket_label(o->socket));
    if (!sockets.empty()) found_.answer(5, capital(joined(sockets)), Station::wiring);
  }

  std::string lead_words(std::size_t at) const {
    const HarnessRow& r = loom()[at];
    return "Lead " + std::to_string(at + 1) + ": " + r.from + " " + r.from_socket + " to " + r.to + " " + r.to_socket +
           ", " + length_text(r.length_m) + (r.remarks.empty() ? "" : "; " + r.remarks);
  }

  /// "show me lead 7", "which lead is longest", "how long is the lead to the elevator servo", "red wire out?".
  void leads() {
    if (!said(in_.words, "lead") && !in_.has({"wire", "wires", "cable"})) return;
    if (loom().empty()) return found_.answer(2, "No leads are planned yet", Station::wiring);
    if (const auto at = in_.split.number.empty() ? std::nullopt : number_of(in_.split.number)) {
      if (*at != std::floor(*at)) return;
      if (*at < 1 || *at > static_cast<double>(loom().size()))
        return found_.answer(5, "There are " + std::to_string(loom().size()) + " leads", Station::wiring);
      const auto row = static_cast<std::size_t>(*at) - 1;
      return found_.answer(5, lead_words(row), Station::wiring, loom()[row].lead);
    }
    if (in_.has_row({"how", "many"}))
      return found_.answer(5, std::to_string(loom().size()) + " leads", Station::wiring);
    if (in_.has({"longest", "shortest"})) {
      const bool longest = in_.has({"longest"});
      std::size_t best = 0;
      for (std::size_t i = 1; i < loom().size(); ++i)
        if (longest == (loom()[i].length_m > loom()[best].length_m)) best = i;
      return found_.answer(5, lead_words(best), Station::wiring, loom()[best].lead);
    }
    if (in_.has({"red"}) && in_.has({"out", "which", "pull", "remove", "come", "comes", "cut", "where"})) {
      std::vector<std::string> out;
      for (std::size_t i = 0; i < loom().size(); ++i)
        if (const Lead* l = of_.rig.lead(loom()[i].lead); l && l->plus_removed) out.push_back(lead_words(i));
      return found_.answer(
          5, out.empty() ? "No lead of the plan has its red wire out" : "The red wire is out of: " + joined(out),
          Station::wiring);
    }
    const auto what = without(in_.words, {"lead", "long", "length"});
    double fit = 0;
    std::vector<std::string> ids;
    for (const Surface s : surfaces_named(of_, in_))
      for (const Part& p : of_.rig.parts)
        if (p.surface && static_cast<const Surface&>(*p.surface) == s) ids.push_back(p.id);
    if (ids.empty())
      if (const Part* p = part_named(of_, what, &fit); p && fit >= 1) ids.push_back(p->id);
    std::vector<std::string> of;
    std::string first;
    for (std::size_t i = 0; i < loom().size(); ++i)
      if (const Lead* l = of_.rig.lead(loom()[i].lead))
        if (std::any_of(ids.begin(), ids.end(), [&](const std::string& id) { return far_end(*l, id) != nullptr; })) {
          of.push_back(lead_words(i));
          if (first.empty()) first = l->id;
        }
    if (!of.empty() && in_.has({"long", "length", "show", "which"}))
      found_.answer(4.5, joined(of), Station::wiring, first);
  }

  /// "how much does the battery weigh".
  void weights() {
    if (!said(in_.words, "weigh") || !in_.asks()) return;
    double fit = 0;
    const Part* p = part_named(of_, without(in_.words, {"weigh"}), &fit);
    if (!p || fit < 1) return;
    const PartKind* k = of_.catalogue.part(p->kind);
    const std::optional<double> kg = p->mass_kg ? p->mass_kg : k ? k->mass_kg : std::nullopt;
    found_.answer(5,
                  name_of_part(p->id) + (kg ? ": " + mass_text(*kg) + (p->mass_kg ? ", weighed" : ", by its kind")
                                            : ": its weight is not known"),
                  Station::fit, p->id);
  }

  /// Every number of the reports by its own name.
  void figures() {
    // "my board" is no number.
    if (!in_.split.number.empty() || in_.words == std::vector<std::string>{"board"}) return;
    // What is listed is no aircraft while its bare airframe is not weighed.
    const bool whole = of_.review.reports.fit().balance.complete;
    for (const auto& [list, station] : {std::pair{of_.review.reports.airframe().figures(), Station::airframe},
                                        {of_.review.reports.fit().figures(), Station::fit},
                                        {of_.review.reports.power().figures(), Station::power}})
      for (const Figure& f : list)
        // One word of a long name is not its name.
        if (const double fit = names(in_.words, f.name);
            fit >= (in_.words.size() == 1 ? whole_name : least_of_a_figure) &&
            (whole || f.name != of_.review.reports.fit().balance.total.name))
          found_.answer(1 + fit, f.name + ": " + figure_text(f), station);
  }

  /// "what is the span", "how long is the fuselage".
  void values() {
    const auto asked = without(in_.words, {"aircraft", "right", "exact"});
    const auto look = [&](const Members& members, const std::string& section, Station station) {
      for (const Member& m : members.list) {
        if (!*m.label || (m.type != &number_type() && m.type != &optional_number_type())) continue;
        const double fit = std::max(names(asked, m.label), names_otherwise(asked, section, m.name));
        if (fit < 1.9) continue;
        const Value v = value_at(of_.rig, path_of({section, m.name}));
        const double* number = std::get_if<double>(&v);
        found_.answer(0.9 + fit, capital(m.label) + ": " + (number ? value_text(m, *number) : "not known yet"), station,
                      section);
      }
    };
    look(Described<Airframe>::members(), "airframe", Station::airframe);
    look(Described<Fit>::members(), "fit", Station::fit);
    look(Described<Power>::members(), "power", Station::power);
    look(Described<Home>::members(), "home", Station::home);
  }

  /// "what motor do I have", "how many servos are there", "how big is my battery".
  void fitted() {
    const bool many = in_.has_row({"how", "many"});
    if (!in_.asks() || in_.has({"where", "why", "when", "should", "suits", "best"})) return;
    const auto what = without(in_.words, {"fitted", "have", "use", "used", "kind", "big", "size", "cell", "capacity",
                                          "large", "got", "type", "sort", "mah"});
    for (const PartKind& k : of_.catalogue.parts) {
      const auto group = meant_words(label_of(name_of(k.group)));
      if (what.size() != group.size() || names(what, group) < 2) continue;
      const auto all = parts_of(of_, k.group);
      const std::string group_name = label_of(name_of(k.group));
      if (many && !in_.has({"cells", "cell"}))
        return found_.answer(4, all.empty() ? "No " + group_name + " yet" : counted(all.size(), group_name),
                             Station::fit);
      // One that sits inside another part counts as well.
      if (all.empty() && k.group == PartGroup::compass) return;
      if (all.empty()) return found_.answer(3, "No " + group_name + " yet", Station::fit);
      std::vector<std::string> names_of_all;
      for (const Part* p : all)
        if (const PartKind* own = of_.catalogue.part(p->kind)) names_of_all.push_back(own->name);
      names_of_all.erase(std::unique(names_of_all.begin(), names_of_all.end()), names_of_all.end());
      return found_.answer(4, capital(group_name) + ": " + joined(names_of_all), Station::fit, all.front()->id);
    }
    if (what == std::vector<std::string>{"board"} && board())
      found_.answer(4, "Controller: " + board()->name, Station::airframe, "controller");
  }
  static std::string counted(std::size_t n, const std::string& what) {
    return std::to_string(n) + " " + what + (n == 1 ? "" : "s");
  }

  struct Turning {
    Axis axis;
    bool positive;
  };
  /// What a stick is told to do, or what is done to the model.
  std::optional<Turning> turning(bool disturbance) const {
    const bool right = in_.has({"right"}), left = in_.has({"left"});
    const auto axis = axis_named(in_);
    if (disturbance) {
      if (in_.has({"nose"})) {
        if (in_.has({"down", "drop", "drops", "lower"})) return Turning{Axis::pitch, false};
        if (in_.has({"up", "lift", "lifts", "lifted", "raise", "raised"}) && !left && !right)
          return Turning{Axis::pitch, true};
        if (left != right) return Turning{Axis::yaw, right};
      }
      if (in_.has({"tail"}) && in_.has({"lift", "lifts", "lifted", "raise", "raised", "up"}))
        return Turning{Axis::pitch, false};
      if (in_.has({"wing"}) && left != right && in_.has({"lift", "lifts", "lifted", "raise", "raised", "up"}))
        return Turning{Axis::roll, left};
      if (in_.has({"wing"}) && left != right && in_.has({"drop", "drops", "lower", "down"}))
        return Turning{Axis::roll, right};
      if (in_.has({"swing", "swings", "swung", "yaw"}) && left != right) return Turning{Axis::yaw, right};
      if (in_.has({"tilt", "tilts", "tilted", "bank", "banks", "banked", "roll", "lean", "leans"}) && left != right)
        return Turning{Axis::roll, right};
      return {};
    }
    if (in_.has({"pull", "back"}) || (axis == Axis::pitch && in_.has({"up"}))) return Turning{Axis::pitch, true};
    if (in_.has({"forward"}) || (axis == Axis::pitch && in_.has({"down"})) || (in_.has({"push"}) && !left && !right))
      return Turning{Axis::pitch, false};
    if (left == right) return {};
    return Turning{axis && *axis != Axis::pitch ? *axis : Axis::roll, right};
  }

  /// "which way should the ailerons go when I push right", "what should the tail do when I lift the nose".
  void directions() {
    // "the elevator goes down when I pull": told, not asked.
    if (!in_.asks() &&
        (surfaces_named(of_, in_).empty() || !in_.has({"pull", "push", "stick"}) || !in_.has({"when", "if"})))
      return;
    const bool disturbance =
        in_.has({"tilt", "tilts", "tilted", "lift", "lifts", "lifted", "bank", "banks", "banked", "swing", "swings",
                 "swung", "raise", "raised", "drop", "drops", "lower", "lean", "leans"});
    const bool which = in_.has_row({"which", "way"}) || in_.has_row({"what", "should"}) ||
                       in_.has_row({"what", "happens"}) || in_.has_row({"what", "does"}) ||
                       in_.has_row({"how", "should"}) || in_.has_row({"should", "the"}) || in_.begins({"why"});
    if ((in_.asks() && !which) ||
        (!disturbance && !in_.has({"stick", "push", "pull", "right", "left", "up", "down", "back", "forward"})))
      return;
    const auto turned = turning(disturbance);
    if (!turned) return;
    std::vector<Surface> named = surfaces_named(of_, in_);
    std::vector<std::string> moves;
    for (const AxisAnswer& a : of_.review.reports.airframe().answers) {
      if (a.axis != turned->axis || a.direction == 0) continue;
      if (!named.empty() && std::find(named.begin(), named.end(), a.surface) == named.end()) continue;
      // The correction fights what was done to the model.
      const int sign = (turned->positive ? 1 : -1) * (disturbance ? -1 : 1);
      if (disturbance && a.surface.kind == SurfaceKind::motor && turned->axis != Axis::yaw) continue;
      moves.push_back(a.surface.label() + " " + motion_label(a.surface, a.direction * sign));
    }
    const std::string axis(name_of(turned->axis));
    const std::string sense(sense_word(turned->axis, turned->positive));
    const std::string done = disturbance ? turned->axis == Axis::roll  ? "Held banked to the " + sense
                                           : turned->axis == Axis::yaw ? "Nose swung to the " + sense
                                                                       : "Nose " + sense
                             : turned->axis == Axis::pitch
                                 ? std::string("Pitch stick ") + (turned->positive ? "back" : "forward")
                                 : capital(axis) + " stick to the " + sense;
    if (moves.empty())
      return found_.answer(5, done + ": nothing of what was named answers " + axis + " on this aircraft",
                           Station::proof);
    std::string how;
    if (disturbance && board())
      for (const ModeAnswer& m : board()->proof.modes)
        if (in_.has({name_of(m.mode)})) how = ". In " + std::string(name_of(m.mode)) + ": " + answer_words(m);
    if (!in_.asks()) how += ". The checks of station proof find what goes another way";
    found_.answer(5.5, done + ": " + joined(moves) + how, Station::proof,
                  (disturbance ? "correction." : "stick.") + axis);
  }

  /// "is the receiver getting power": in each state of the supply.
  void fed() {
    if (!in_.asks() || in_.has({"rail"}) ||
        !in_.has({"power", "powered", "fed", "supply", "supplied", "live", "volts", "voltage"}))
      return;
    double fit = 0;
    const Part* p = part_named(of_,
                               without(in_.words, {"power", "powered", "fed", "supply", "supplied", "live", "gett",
                                                   "get", "enough", "volt", "voltage"}),
                               &fit);
    const ConsumerReport* c = p && fit >= 1 ? of_.review.reports.power().consumer(p->id) : nullptr;
    if (!c) return;
    const auto state = [&](SupplyState s) { return c->powered[static_cast<std::size_t>(s)] ? "fed" : "dark"; };
    const bool battery = c->powered[static_cast<std::size_t>(SupplyState::battery)];
    found_.answer(4.5,
                  capital(c->name) + " on USB alone: " + state(SupplyState::usb) +
                      "; with the battery in: " + state(SupplyState::battery) +
                      (battery ? ", at worst " + number_text(c->worst_v, 1) + " V of " + number_text(c->least_v, 1) +
                                     " V that it needs"
                               : std::string()),
                  Station::power, p->id);
  }

  /// "how fast can it go", "it rolls when I pitch".
  void others() {
    if (in_.has_row({"how", "fast"}) &&
        !in_.has({"land", "shake", "shakes", "servo", "stall", "slow", "climb", "climbs", "turn", "roll", "sink"})) {
      const auto& cruise = of_.review.reports.airframe().cruise_speed;
      std::string text = cruise ? "Cruise " + speed_text(cruise->value) : std::string();
      if (of_.deferred && of_.deferred->feel.missing.empty() && of_.deferred->feel.fast_m_s > 0)
        text += (text.empty() ? "Fastest" : ", fastest") + std::string(" level flight about ") +
                speed_text(of_.deferred->feel.fast_m_s);
      found_.answer(5, text, Station::airframe, "airframe");
    }
    if (!in_.asks() && in_.has({"when", "while"}) && in_.has({"rolls", "banks", "pitches", "yaws", "turns"}) &&
        in_.has({"pitch", "roll", "pull", "push", "elevator", "aileron"}) && !said(in_.words, "throttle"))
      found_.answer(
          3.4,
          "One command moves it on another axis: channels exchanged (sticks), the two halves unequal in throw or "
          "centre, or a lead or weight of one half wrong. The stick checks of station proof tell which",
          Station::proof);
    if (in_.has({"lamp", "light", "led", "blinks", "blinking", "flashing", "flashes", "tones", "beeps"}) && board() &&
        !board()->proof.lamps.empty() && !said(in_.words, "motor")) {
      std::vector<std::string> all;
      for (const Lamp& l : board()->proof.lamps) all.push_back(board()->with_leaflet(l.sign + ": " + l.meaning));
      found_.answer(4, "Signs of this class: " + joined(all), Station::proof);
    }
  }

  /// "why is my receiver dark on USB".
  void supplies() {
    fed();
    others();
    if (!in_.has({"usb"})) return;
    double fit = 0;
    const Part* asked =
        part_named(of_, without(in_.words, {"usb", "dark", "dead", "alone", "off", "light", "work"}), &fit);
    found_.answer(5, say_on_usb_of(of_, fit >= 1 ? asked : nullptr), Station::power);
  }

  /// "how many amps do the servos pull when stalled", "how far down does the elevator go", "what does the mode switch
  /// do".
  void sums() {
    if ((in_.has_row({"left", "to"}) || in_.has_row({"is", "left"}) || in_.has_row({"are", "left"})) &&
        !said(in_.words, "battery"))
      found_.answer(5, say_left_to_do(of_), Station::proof);
    if (!in_.asks()) return;
    const PowerReport& power = of_.review.reports.power();
    if (said(in_.words, "servo") && in_.has({"amps", "current", "ampere", "draw", "pull"}))
      for (const SourceReport& s : power.sources)
        if (s.supplies && !s.battery && power.servo_source_a > 0 && s.rating_a == power.servo_source_a) {
          const auto amps = [&](LoadCase c) { return number_text(s.amps[static_cast<std::size_t>(c)], 1) + " A"; };
          found_.answer(5,
                        "All servos moving: " + amps(LoadCase::all_moving) +
                            "; one of them stalled: " + amps(LoadCase::one_stalled) +
                            "; two: " + amps(LoadCase::two_stalled) + ", all else on that rail with it, of " +
                            number_text(s.rating_a, 1) + " A that " + s.name + " gives",
                        Station::power, s.part);
          break;
        }
    const auto surfaces = surfaces_named(of_, in_);
    if (!surfaces.empty() && in_.has({"far", "throw", "throws", "degrees", "travel"})) {
      std::vector<std::string> all;
      for (const Surface s : surfaces)
        if (const SurfaceAnswer* a = of_.review.reports.surfaces().answer(s); a && s.kind != SurfaceKind::motor) {
          std::vector<std::string> commands;
          for (const auto& [command, word] : Names<MixCommand>::list)
            if (const double deg = a->throw_deg[static_cast<std::size_t>(command)]; deg > 0.05)
              commands.push_back(degrees_text(deg) + " for full " + std::string(word));
          const bool rudder = s.kind == SurfaceKind::rudder;
          all.push_back(s.label() + " " + joined(commands, ", ") + ", at its ends " + degrees_text(a->most_up_deg) +
                        (rudder ? " right and " : " up and ") + degrees_text(a->most_down_deg) +
                        (rudder ? " left" : " down") + (a->in_degrees ? "" : " (without a measured linkage)"));
        }
      found_.answer(4.6, capital(joined(all)), Station::surfaces, surfaces.front().name());
    }
  }

  /// "will it make it home from 800 m".
  void home_from() {
    if (!in_.asks() || (!said(in_.words, "return") && !in_.has({"home", "back"}))) return;
    const auto metres = typed_number(in_.split.number, shown("m").unit);
    if (!metres || in_.split.number.empty() || !of_.deferred || !of_.deferred->home.missing.empty()) return;
    const HomeReport& h = of_.deferred->home;
    // Distances of the field are said in metres, whatever the parts are measured in.
    const double asked = of_fifteen_figures(*metres / shown("m").factor);
    const double surely = h.surely_out_and_back_m;
    found_.answer(5.2,
                  field_text(asked) + (asked <= surely ? ": yes" : ": not surely") + ". In the planned wind of " +
                      speed_text(of_.rig.home.wind_m_s) + " it surely goes out and back " + field_text(surely) +
                      ", whatever side the wind comes from" +
                      (h.can_act ? "" : "; flown by hand: this controller does not come home by itself"),
                  Station::home);
  }

  /// "can this servo take 7.4 volts", "what voltage does the receiver need".
  void limits() {
    if (!in_.asks() || !in_.has({"volt", "volts", "voltage", "v"}) ||
        !in_.has({"take", "stand", "bear", "bears", "need", "needs", "allowed", "most", "run", "maximum", "max"}))
      return;
    const auto what = without(in_.numberless, {"take", "stand", "bear", "bears", "need", "allowed", "most", "run",
                                               "maximum", "max", "volt", "voltage", "v"});
    double fit = 0;
    const Part* p = part_named(of_, what, &fit);
    if (!p || fit < 1) return;
    for (const ConsumerReport& c : of_.review.reports.power().consumers)
      if (c.part == p->id && c.most_v > 0) {
        const auto asked = typed_number(in_.split.number, "V");
        const bool given = asked && !in_.split.number.empty();
        return found_.answer(5.3,
                             (given ? *asked > c.most_v    ? "No: "
                                      : *asked < c.least_v ? "Too little: "
                                                           : "Yes: "
                                    : "") +
                                 c.name + " takes " + number_text(c.least_v, 1) + " to " + number_text(c.most_v, 1) +
                                 " V; with the battery in it sees up to " + number_text(c.rest_v, 1) + " V",
                             Station::power, p->id);
      }
  }

  /// "what size is the wing", "is the tail big enough".
  void sizes() {
    if (!in_.asks() || !in_.has({"size", "big", "large", "dimensions", "sizes"})) return;
    const AirframeReport& report = of_.review.reports.airframe();
    const Airframe& a = of_.rig.airframe;
    if (said(in_.words, "wing"))
      found_.answer(4.2,
                    "Wing: span " + length_text(a.span_m) + ", mean chord " + figure_text(report.mean_chord) +
                        ", area " + figure_text(report.wing_area) +
                        (report.wing_loading ? ", loading " + figure_text(*report.wing_loading) : std::string()),
                    Station::airframe, "airframe");
    if (said(in_.words, "tail") && a.tail_span_m > 0)
      found_.answer(4.2,
                    "Tail: span " + length_text(a.tail_span_m) + ", chord " + length_text(a.tail_chord_m) +
                        ". Whether it is enough shows in the static margin: " +
                        figure_text(of_.review.reports.fit().balance.static_margin),
                    Station::fit, "balance");
  }

  /// "what is the mix of output 2", "what pulse does the left aileron get".
  void mixes() {
    if (!in_.asks() || !in_.has({"mix", "pulse", "centre", "ends"})) return;
    std::vector<const Output*> outputs = outputs_numbered(of_, in_);
    for (const Surface s : surfaces_named(of_, in_))
      if (const Output* o = of_.rig.output_of(s)) outputs.push_back(o);
    std::vector<std::string> all;
    for (const Output* o : outputs) {
      std::string text;
      const Mix& mix = o->mix;
      for (const auto& [word, weight] : {std::pair{"roll", mix.roll},
                                         {"pitch", mix.pitch},
                                         {"yaw", mix.yaw},
                                         {"throttle", mix.throttle},
                                         {"flap", mix.flap}})
        if (weight != 0)
          text += (text.empty() ? "" : ", ") + std::string(word) + " " + number_text(100 * weight, 0) + " %";
      all.push_back("output " + o->id.substr(o->id.find_last_of('_') + 1) + ": " + (text.empty() ? "no mix" : text) +
                    "; centre " + number_text(o->centre_us, 0) + ", ends " + number_text(o->low_us, 0) + " and " +
                    number_text(o->high_us, 0) + " µs" + (o->reversed ? ", reversed" : ""));
    }
    if (!all.empty()) found_.answer(5.4, capital(joined(all)), Station::surfaces, outputs.front()->id);
  }

  /// "what does the mode switch do", "which mode is on position 1", "what is on channel 8".
  void switches() {
    if (!in_.asks()) return;
    if (said(in_.words, "mode") && (in_.has({"switch", "switches"}) || in_.has_row({"which", "modes"})) &&
        !said(in_.words, "channel")) {
      std::vector<std::string> all;
      for (const ModeChoice& m : of_.rig.modes)
        all.push_back("channel " + std::to_string(m.channel) + " at " + number_text(m.from_us, 0) + "–" +
                      number_text(m.to_us, 0) + " µs " + m.mode);
      if (!all.empty()) found_.answer(4.2, capital(joined(all)), Station::home);
    }
    if (!said(in_.words, "channel") || in_.split.number.empty()) return;
    const auto number = number_of(in_.split.number);
    for (const Channel& c : of_.rig.radio.channels)
      if (number && *number == c.number)
        return found_.answer(5, "Channel " + std::to_string(c.number) + ": " + function_label(c.function),
                             Station::sticks);
    if (number && in_.has({"what", "which"}) && *number >= 1)
      found_.answer(4, "Nothing is on channel " + number_text(*number, 0) + " in this rig", Station::sticks);
  }

  /// "is the accelerometer calibrated", "are the sticks proven".
  void states() {
    if (!in_.begins({"is", "are", "was", "were", "did", "have", "has"}) ||
        !in_.has({"calibrated", "proven", "done", "checked", "tested", "looked", "check", "test", "calibrate"}))
      return;
    const auto what = without(in_.words, {"calibrated", "proven", "done", "checked", "tested", "looked", "check",
                                          "test", "calibrate", "already", "yet"});
    if (what.empty()) return;
    const CheckStatus* best = nullptr;
    double fit = 0;
    for (const CheckStatus& c : of_.review.checks)
      for (const std::string& name :
           {c.title, c.family ? c.family->name : std::string(), c.id.family + " " + c.id.subject})
        if (const double own = names(what, name); own > fit) fit = own, best = &c;
    if (!best || fit < 1) return;
    found_.answer(
        5,
        best->title + ": " +
            (best->state == ProofState::none          ? "not proven yet"
             : best->state == ProofState::stale       ? "stale" + (best->because.empty() ? "" : ", " + best->because)
             : best->state == ProofState::provisional ? "provisional, until the board is mounted"
                                                      : "proven"),
        best->family ? best->family->station : Station::proof, best->id.subject);
  }

  /// "is 1.2 kg too heavy".
  void heavier() {
    const auto kg = typed_number(in_.split.number, shown("kg").unit);
    const AirframeReport& a = of_.review.reports.airframe();
    if (!in_.asks() || !kg || in_.split.number.empty() || !in_.has({"heavy", "weigh", "weighs", "weight", "mass"}) ||
        !a.stall_speed || !of_.rig.airframe.mass_kg)
      return;
    const double mass = *kg / shown("kg").factor;
    if (mass <= 0) return;
    // At the same lift coefficient the speed goes with the root of the mass.
    const double times = std::sqrt(mass / *of_.rig.airframe.mass_kg);
    found_.answer(5,
                  "At " + mass_text(mass) + " it stalls at about " + speed_text(times * a.stall_speed->value) +
                      " (at " + mass_text(*of_.rig.airframe.mass_kg) + ": " + speed_text(a.stall_speed->value) +
                      "); take-off and landing are as much faster",
                  Station::airframe, "airframe");
  }

  /// "does this board have a compass", "how is my board mounted".
  void of_board() {
    if (!said(in_.words, "board") || !in_.asks() || !board()) return;
    const SensesAbilities& s = board()->senses;
    if (in_.has({"mounted", "mount", "turned", "sits", "way"})) {
      const Mounting* place = of_.rig.mounting("controller");
      if (place)
        found_.answer(4.3,
                      "It sits " + place->turn.label() + ", " + length_text(-place->x_m) + " behind the nose" +
                          (of_.rig.controller.mounted ? ", mounted" : ", still loose"),
                      Station::fit, "controller");
    }
    if (in_.has({"compass", "barometer", "gps", "sensors"}))
      found_.answer(4.3,
                    board()->name + (s.has_compass ? " has a compass" : " has no compass of its own") +
                        (s.has_barometer ? ", has a barometer" : ", no barometer") +
                        "; a compass may sit in a satellite receiver, too",
                    Station::senses);
  }

  /// A surface that this aircraft does not have.
  void missing_surface() {
    if (!found_.all.empty() || !surfaces_named(of_, in_).empty()) return;
    for (const char* kind : {"rudder", "aileron", "elevator", "canard", "flaperon", "elevon"})
      if (said(in_.words, kind))
        return found_.answer(1.2, std::string("There is no ") + kind + " on this aircraft", Station::airframe);
  }

  /// "the rudder moves when I roll": whether it should.
  void should_move() {
    if (in_.asks() || !in_.has({"when", "on", "with", "while"}) || !in_.has({"moves", "move", "goes", "answers"}))
      return;
    const auto surfaces = surfaces_named(of_, in_);
    if (surfaces.empty()) return;
    for (const Axis axis : all_axes) {
      if (!in_.has({name_of(axis)})) continue;
      const std::string stick = std::string(name_of(axis)) + " stick";
      for (const AxisAnswer& a : of_.review.reports.airframe().answers)
        if (a.axis == axis && a.direction != 0 && a.surface == surfaces.front())
          return found_.answer(4.6,
                               "So it should: on this aircraft " + a.surface.label() + " answers the " + stick +
                                   " (to the right, or back: " + motion_label(a.surface, a.direction) + ")",
                               Station::proof, "stick." + std::string(name_of(axis)));
      return found_.answer(4.6,
                           "It should not: nothing mixes " + std::string(name_of(axis)) + " into " +
                               surfaces.front().label() +
                               ". Channels exchanged (sticks), leads exchanged, or a weight in the mix",
                           Station::proof, "stick." + std::string(name_of(axis)));
    }
  }

  /// "what baud does the receiver use", "at which rate do the servos run".
  void speaks() {
    if (!in_.asks()) return;
    if (in_.has({"baud"})) {
      double fit = 0;
      const Part* p = part_named(of_, without(in_.words, {"baud", "use", "rate", "run", "speak"}), &fit);
      if (p && fit >= 1)
        for (const Lead& l : of_.rig.leads)
          for (const LeadEnd* end : {&l.from, &l.to})
            for (const Port& port : of_.rig.ports)
              if ((l.from.part == p->id || l.to.part == p->id) && end->part == "controller" &&
                  end->socket == port.socket)
                return found_.answer(
                    5,
                    socket_label(port.socket) + ", where " + part_name(of_.rig, of_.catalogue, p->id) +
                        " is, is told " +
                        (port.baud ? number_text(*port.baud, 0) + " baud" : "no baud: it finds its own"),
                    Station::wiring, p->id);
    }
    if (in_.has({"pulse", "hz", "hertz"}) && in_.has({"rate", "fast", "often", "hz", "hertz"})) {
      std::vector<std::string> all;
      for (const Output& o : of_.rig.outputs)
        for (const Surface s : o.surfaces) all.push_back(s.label() + " " + number_text(o.rate_hz, 0) + " Hz");
      if (!all.empty()) found_.answer(5.2, "Pulses: " + joined(all, ", "), Station::wiring);
    }
  }

  /// "which channel is the mode switch on".
  void channels() {
    if ((!said(in_.words, "channel") && !in_.has_row({"which", "switch"})) || !in_.has({"which", "what"})) return;
    for (const Channel& c : of_.rig.radio.channels) {
      const double fit =
          std::max(names(without(in_.words, {"channel", "switch", "stick"}), function_label(c.function)),
                   names(without(in_.words, {"channel", "switch", "stick"}), label_of(name_of(c.function))));
      if (fit >= 1.5)
        found_.answer(3 + fit, capital(function_label(c.function)) + ": channel " + std::to_string(c.number),
                      Station::sticks);
    }
  }

  /// "what is the roll gain", "what are the first gains", "how do I set the roll gain".
  void gains() {
    if (!said(in_.words, "gain") || !in_.asks() || !board()) return;
    const auto axis = axis_named(in_);
    const GainScale scale(*board(), of_.rig.feel.half_share);
    if (in_.has({"first", "start", "begin", "maiden"}) && !in_.has({"shakes", "shake"}))
      if (const std::string first = say_first_gains(of_); !first.empty()) return found_.answer(5, first, Station::feel);
    if (in_.has({"set", "change", "adjust"}) && in_.has({"how", "where"}))
      return found_.answer(4.5, "Gains: " + board()->feel.gains, Station::feel);
    std::vector<std::string> all;
    for (const Axis a : all_axes)
      if (!axis || a == *axis) {
        const AxisGain* g = of_.rig.feel.gain(a);
        all.push_back(std::string(name_of(a)) + " " +
                      (!scale.settable() ? "by the linkage alone"
                       : !g || !g->rate  ? "not written down yet"
                                         : scale.words(*g->rate)));
      }
    found_.answer(3.2 + (axis ? 0.6 : 0), "Gains: " + joined(all, ", "), Station::feel,
                  axis ? std::string(name_of(*axis)) : "");
  }

  const AskedOf& of_;
  const Sentence& in_;
  Found& found_;
};

}  // namespace

void find_answers(const AskedOf& of, const Sentence& sentence, Found& found) { Answers(of, sentence, found).find(); }

void find_meanings(const AskedOf& of, const Sentence& sentence, Found& found) {
  if (!of.terms) return;
  const bool asked = sentence.has({"mean", "means", "meaning", "explain", "define", "difference", "called"});
  const bool what = sentence.begins({"what", "whats"});
  if (!asked && !what) return;
  // "my stall speed" asks for the number, "a stall" for what it is.
  const bool own = sentence.has({"my", "our", "do", "does"}) || sentence.has_row({"is", "the"});
  std::vector<std::string> words = without(sentence.words, {"mean", "means", "meaning", "explain", "define",
                                                            "difference", "between", "called", "word", "whats"});
  // "what's": a letter that is left over.
  std::erase(words, "s");
  std::vector<std::pair<double, std::string>> told;
  for (const Term& t : *of.terms) {
    double best = 0;
    for (const std::string& w : t.words) {
      best = std::max(best, names(words, w));
      // "rate and level" are the modes of these names.
      constexpr std::string_view mode = " mode";
      if (w.ends_with(mode) && said(words, w.substr(0, w.size() - mode.size()))) best = std::max(best, 1.0);
    }
    const std::string meaning = capital(t.words.front()) + ": " + t.meaning;
    if (sentence.has({"difference"}) && best >= 1)
      told.emplace_back(best, meaning);
    else if (best >= 2 || (asked && best >= 1.4))
      found.answer((asked ? 4.5 : own ? 1.5 : 2.6) + best / 2, meaning);
  }
  if (told.size() >= 2) {
    std::stable_sort(told.begin(), told.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    found.answer(5, told[0].second + " " + told[1].second);
  }
}

}  // namespace rigging
