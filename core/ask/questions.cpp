#include "ask/questions.h"

#include <algorithm>
#include <cmath>

#include "airframe/airframe.h"
#include "ask/exchanges.h"
#include "ask/finder.h"
#include "ask/movements.h"
#include "ask/part_answers.h"
#include "ask/sayings.h"
#include "ask/set_answers.h"
#include "ask/things.h"
#include "ask/what_if.h"
#include "base/number.h"
#include "base/units.h"
#include "fit/fit.h"
#include "language/typed.h"
#include "language/typed_value.h"
#include "power/network.h"
#include "rig/path.h"
#include "wiring/wiring.h"

namespace rigging {
namespace {

constexpr double least_of_a_figure = 1.3, whole_name = 2;

class Answers : public Finder {
 public:
  using Finder::Finder;

  void find() {
    wheres();
    leads();
    weights();
    figures();
    const std::size_t before = found_.all.size();
    find_other_drive(of_, in_, found_);
    if (found_.all.size() == before) find_what_if(of_, in_, found_);
    find_part_answers(of_, in_, found_);
    home_from();
    heavier();
    find_set_answers(of_, in_, found_);
    find_movements(of_, in_, found_);
    if (!in_.split.number.empty()) return;
    find_suits(of_, in_, found_);
    sizes();
    values();
    fitted();
    missing_surface();
  }

 private:
  const std::vector<HarnessRow>& loom() const { return of_.review.reports.wiring().harness; }

  /// "where does the receiver go", "which socket is the elevator in", "what is plugged into output 3".
  void wheres() {
    if ((!in_.begins({"where", "what", "which", "whats"}) &&
         !(in_.begins({"is", "are"}) && in_.has({"plugged", "connected"}))) ||
        !in_.has({"where", "plugged", "plug", "socket", "connected", "pin", "port", "output", "uart", "serial"}))
      return;
    const auto numbered = outputs_numbered(of_, in_);
    if (numbered.size() == 1 && in_.has({"output", "out"})) {
      const Output& o = *numbered.front();
      std::vector<std::string> on;
      for (const Surface s : o.surfaces) on.push_back(s.label());
      found_.answer(5,
                    capital(o.id.substr(0, o.id.find_last_of('_')) == "out" ? "output " + o.id.substr(4) : o.id) +
                        ": " + (on.empty() ? o.mix.throttle != 0 ? "the motor" : "no surface" : in_a_row(on, " and ")) +
                        ", in socket " + socket_label(of_, o.socket),
                    Station::wiring, o.id);
      return;
    }
    const auto what = without(in_.words, {"plugged", "plug", "socket", "connected", "lead", "sit", "goes", "pin",
                                          "port", "output", "use", "whats", "uart", "serial"});
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
      found_.answer(3 + fit, name + ": " + (ends.empty() ? "not connected yet" : in_a_row(ends)), Station::wiring,
                    p->id);
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
      if (const Output* o = of_.rig.output_of(s)) sockets.push_back(s.label() + " in " + socket_label(of_, o->socket));
    if (!sockets.empty()) found_.answer(5, capital(in_a_row(sockets)), Station::wiring);
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
          5, out.empty() ? "No lead of the plan has its red wire out" : "The red wire is out of: " + in_a_row(out),
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
    if (!of.empty() && in_.has({"long", "length", "show", "which", "enough"}))
      found_.answer(4.5, in_a_row(of), Station::wiring, first);
  }

  /// "how much does the battery weigh".
  void weights() {
    if (!said(in_.words, "weigh") || !in_.asks()) return;
    double fit = 0;
    const Part* p = part_named(of_, without(in_.words, {"weigh"}), &fit);
    if (!p || fit < 1) return;
    const std::optional<double> kg = mass_of(*p, of_.catalogue);
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
        // What was worked out is not said to be unknown.
        if (!number && std::any_of(found_.all.begin(), found_.all.end(), [&](const Interpretation& a) {
              return a.text.starts_with(capital(m.label) + ": ");
            }))
          continue;
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
      return found_.answer(4, capital(group_name) + ": " + in_a_row(names_of_all), Station::fit, all.front()->id);
    }
    if (what == std::vector<std::string>{"board"} && board())
      found_.answer(4, "Controller: " + board()->name, Station::airframe, "controller");
  }
  static std::string counted(std::size_t n, const std::string& what) {
    return std::to_string(n) + " " + what + (n == 1 ? "" : "s");
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

  /// "is 1.2 kg too heavy".
  void heavier() {
    const auto kg = typed_number(in_.split.number, shown("kg").unit);
    const AirframeReport& a = of_.review.reports.airframe();
    const bool carries = in_.has({"lift", "carry", "carries", "lifts", "extra", "heavier"});
    if (!in_.asks() || !kg || in_.split.number.empty() ||
        !(carries || in_.has({"heavy", "weigh", "weighs", "weight", "mass"})) || !a.stall_speed ||
        !of_.rig.airframe.mass_kg)
      return;
    const double mass = *kg / shown("kg").factor + (carries ? *of_.rig.airframe.mass_kg : 0);
    if (mass <= 0) return;
    // At the same lift coefficient the speed goes with the root of the mass.
    const double times = std::sqrt(mass / *of_.rig.airframe.mass_kg);
    found_.answer(5,
                  "At " + mass_text(mass) + " it stalls at about " + speed_text(times * a.stall_speed->value) +
                      " (at " + mass_text(*of_.rig.airframe.mass_kg) + ": " + speed_text(a.stall_speed->value) +
                      "); take-off and landing are as much faster" +
                      (carries ? ", and the balance point is to be found again" : ""),
                  Station::airframe, "airframe");
  }

  /// A surface that this aircraft does not have.
  void missing_surface() {
    if (!found_.all.empty() || !surfaces_named(of_, in_).empty()) return;
    for (const char* kind : {"rudder", "aileron", "elevator", "canard", "flaperon", "elevon"})
      if (said(in_.words, kind))
        return found_.answer(1.2, std::string("There is no ") + kind + " on this aircraft", Station::airframe);
  }
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
