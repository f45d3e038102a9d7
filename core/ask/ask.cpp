#include "ask/ask.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <set>

#include "airframe/edits.h"
#include "ask/topics.h"
#include "base/json.h"
#include "base/units.h"
#include "catalogue/part_words.h"
#include "fit/edits.h"
#include "language/tokens.h"
#include "language/typed.h"
#include "language/typed_value.h"
#include "surfaces/edits.h"
#include "wiring/wiring.h"

namespace rigging {
namespace {

bool like(const std::string& a, const std::string& b) {
  const std::string &few = a.size() < b.size() ? a : b, &many = a.size() < b.size() ? b : a;
  return a == b || (few.size() >= 3 && many.starts_with(few) && many.size() - few.size() <= 4);
}

bool said(const std::vector<std::string>& words, const std::string& one) {
  return std::any_of(words.begin(), words.end(), [&](const std::string& w) { return like(w, one); });
}

/// How well the words say a name: 0 unless all of the name's words, or all of the asked ones, are found in the other.
double names(const std::vector<std::string>& asked, const std::vector<std::string>& name) {
  if (asked.empty() || name.empty()) return 0;
  const auto both = std::count_if(name.begin(), name.end(), [&](const std::string& n) { return said(asked, n); });
  const auto back = std::count_if(asked.begin(), asked.end(), [&](const std::string& a) { return said(name, a); });
  const double of_name = static_cast<double>(both) / static_cast<double>(name.size()),
               of_asked = static_cast<double>(back) / static_cast<double>(asked.size());
  return of_name < 1 && of_asked < 1 ? 0 : of_name + of_asked;
}

class Asker {
 public:
  Asker(const AskedOf& of, std::string_view words)
      : of_(of), text_(words), words_(telling_words(words)), split_(cut_number(words)) {
    numberless_ = telling_words(split_.words);
  }

  std::vector<Interpretation> all() {
    measures();
    moves();
    reversals();
    adds();
    removes();
    copies();
    wheres();
    figures();
    topics();
    std::stable_sort(found_.begin(), found_.end(),
                     [](const Interpretation& a, const Interpretation& b) { return a.fit > b.fit; });
    // A figure that a topic says too stands once.
    std::vector<Interpretation> once;
    for (Interpretation& a : found_)
      if (std::none_of(once.begin(), once.end(), [&](const Interpretation& o) { return o.text == a.text; }))
        once.push_back(std::move(a));
    found_ = std::move(once);
    if (found_.size() > 8) found_.resize(8);
    return std::move(found_);
  }

 private:
  void add(Interpretation a) {
    if (a.fit > 0) found_.push_back(std::move(a));
  }
  void add_edit(double fit, Result<Edit> edit, Station station, const std::string& subject) {
    Interpretation a;
    a.fit = fit;
    a.station = station;
    a.subject = subject;
    if (edit) {
      a.text = edit->label;
      a.edit = std::move(*edit);
    } else {
      a.text = "Not possible: " + edit.error().text();
    }
    add(std::move(a));
  }
  bool verb(std::initializer_list<const char*> verbs) const {
    return std::any_of(verbs.begin(), verbs.end(),
                       [&](const char* v) { return std::find(words_.begin(), words_.end(), v) != words_.end(); });
  }
  /// The words without verbs that say nothing of what is meant.
  std::vector<std::string> objects(const std::vector<std::string>& words,
                                   std::initializer_list<const char*> verbs) const {
    std::vector<std::string> rest = words;
    std::erase_if(rest, [&](const std::string& w) { return std::find(verbs.begin(), verbs.end(), w) != verbs.end(); });
    return rest;
  }

  /// "set span 1.5 m", "flying mass 1.2 kg", "make the reserve 30 %".
  void measures() {
    if (split_.number.empty()) return;
    const auto what = objects(numberless_, {"set", "make", "change", "put", "weighs", "enter", "measured"});
    const auto look = [&](const Members& members, const std::string& section, Station station) {
      for (const Member& m : members.list) {
        if (!*m.label || (m.type != &number_type() && m.type != &optional_number_type())) continue;
        const double fit = names(what, telling_words(m.label));
        if (fit < 1.5) continue;
        const auto value = typed_value(m, split_.number);
        if (!value) {
          add({"Not possible: " + value.error().text(), fit, {}, station, section, AskedView::none});
          continue;
        }
        add_edit(2 + fit,
                 section == "airframe" ? measure(of_.rig, m.name, *value)
                                       : set_value(of_.rig, section + "/" + m.name, Json(*value)),
                 station, section);
      }
    };
    look(Described<Airframe>::members(), "airframe", Station::airframe);
    look(Described<Fit>::members(), "fit", Station::fit);
    look(Described<Power>::members(), "power", Station::power);
    look(Described<Home>::members(), "home", Station::home);
  }

  /// The part that the words name best; null for none.
  const Part* part(const std::vector<std::string>& words, double* how_well = nullptr) const {
    const Part* best = nullptr;
    double fit = 0;
    for (const Part& p : of_.rig.parts) {
      std::vector<std::string> name = telling_words(part_name(of_.rig, of_.catalogue, p.id));
      const PartKind* k = of_.catalogue.part(p.kind);
      double own = names(words, name);
      if (k)
        own = std::max({own, names(words, telling_words(label_of(name_of(k->group)))),
                        names(words, telling_words(k->name)) - 0.2});
      for (const char* gps : {"gps", "satellites"})
        if (k && k->group == PartGroup::satellite_receiver && said(words, gps)) own = std::max(own, 1.6);
      if (own > fit) fit = own, best = &p;
    }
    if (how_well) *how_well = fit;
    return best;
  }

  /// "move the battery 20 mm back".
  void moves() {
    if (!verb({"move", "shift", "slide", "push"}) || split_.number.empty()) return;
    const auto distance = typed_number(split_.number, shown("m").unit);
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
      if (way.isZero() && std::find(words_.begin(), words_.end(), word) != words_.end()) way = to;
    const auto what = objects(numberless_, {"move", "shift", "slide", "push", "back", "backward", "aft", "rearward",
                                            "forward", "ahead", "front", "down", "up"});
    double fit = 0;
    const bool board = said(what, "board") || said(what, "controller");
    const Part* p = part(what, &fit);
    if ((!p && !board) || way.isZero() || !distance) return;
    const std::string id = board && fit < 1.5 ? "controller" : p->id;
    const Mounting* now = of_.rig.mounting(id);
    Mounting place = now ? *now : Mounting{};
    place.part = id;
    const Point step = way * *distance / shown("m").factor;
    place.x_m += step.x(), place.y_m += step.y(), place.z_m += step.z();
    auto edit = put_part(of_.rig, of_.catalogue, place);
    if (edit)
      edit->label = capital(part_name(of_.rig, of_.catalogue, id)) + ": " + length_text(step.norm()) +
                    (way.x() < 0   ? " back"
                     : way.x() > 0 ? " forward"
                     : way.y() > 0 ? " to the right"
                     : way.y() < 0 ? " to the left"
                     : way.z() > 0 ? " down"
                                   : " up");
    add_edit(5, std::move(edit), Station::fit, id);
  }

  /// "reverse the left flaperon", "reverse output 3".
  void reversals() {
    if (!verb({"reverse", "invert", "flip", "turn"})) return;
    const auto what = objects(words_, {"reverse", "invert", "flip", "turn", "servo", "output", "around", "direction"});
    for (const Output& o : of_.rig.outputs) {
      double fit = 0;
      for (const Surface s : o.surfaces) fit = std::max(fit, names(what, telling_words(s.label())));
      if (what.size() == 1 && what.front() == o.id.substr(o.id.find_last_of('_') + 1)) fit = 1.5;
      if (fit < 1) continue;
      add_edit(3 + fit, reverse(of_.rig, o.id), Station::surfaces,
               o.surfaces.empty() ? o.id : o.surfaces.front().name());
    }
  }

  /// "add a satellite receiver with compass".
  void adds() {
    if (!verb({"add", "fit", "install", "new"})) return;
    std::string rest;
    for (const std::string& w : words_of(text_))
      if (w != "add" && w != "fit" && w != "install" && w != "new") rest += w + " ";
    const auto said = parts_in_words(of_.catalogue, rest);
    if (said.size() != 1 || !said.front().kind || !said.front().remark.empty()) return;
    Result<Edit> edit = Edit{of_.rig, {}};
    for (int i = 0; i < said.front().count && edit; ++i)
      edit = add_part(edit->rig, of_.catalogue, said.front().kind->id);
    if (edit)
      edit->label = "Add: " + (said.front().count > 1 ? std::to_string(said.front().count) + " × " : "") +
                    said.front().kind->name;
    add_edit(4, std::move(edit), Station::fit, {});
  }

  /// "mirror the left servo", "another camera".
  void copies() {
    const bool mirror = verb({"mirror"}), another = verb({"duplicate", "copy", "another"});
    if (!mirror && !another) return;
    double fit = 0;
    const Part* p = part(objects(words_, {"mirror", "duplicate", "copy", "another", "other", "side"}), &fit);
    if (!p || fit < 1) return;
    add_edit(3 + fit,
             mirror ? mirror_part(of_.rig, of_.catalogue, p->id) : duplicate_part(of_.rig, of_.catalogue, p->id),
             Station::fit, p->id);
  }

  /// "take the camera out".
  void removes() {
    if (!verb({"remove", "delete", "take"})) return;
    double fit = 0;
    const auto what = objects(words_, {"remove", "delete", "take", "out", "away", "off"});
    if (const Part* p = part(what, &fit); p && fit >= 1)
      add_edit(3 + fit, remove_part(of_.rig, of_.catalogue, p->id), Station::fit, {});
  }

  /// "where does the receiver go", "where is the motor plugged in".
  void wheres() {
    const std::string first = words_of(text_).empty() ? std::string() : words_of(text_).front();
    if (first != "where" && !verb({"plugged", "socket", "connected"})) return;
    const auto what =
        objects(words_, {"plugged", "plug", "socket", "connected", "lead", "sit", "sits", "goes", "pin", "port"});
    double fit = 0;
    const Part* p = part(what, &fit);
    if (!p || fit < 1) return;
    std::string leads;
    for (const HarnessRow& row : of_.review.reports.wiring().harness) {
      const Lead* l = of_.rig.lead(row.lead);
      if (!l || (l->from.part != p->id && l->to.part != p->id)) continue;
      const bool from = l->from.part == p->id;
      leads += (leads.empty() ? "" : "; ") + (from ? row.from_socket : row.to_socket) + " to " +
               (from ? row.to : row.from) + " " + (from ? row.to_socket : row.from_socket);
    }
    const std::string name = capital(part_name(of_.rig, of_.catalogue, p->id));
    add({leads.empty() ? name + ": not connected yet" : name + ": " + leads,
         3 + fit,
         {},
         Station::wiring,
         p->id,
         AskedView::none});
    if (const Mounting* place = of_.rig.mounting(p->id))
      add({name + " sits " + length_text(-place->x_m) + " behind the nose" +
               (std::abs(place->y_m) < 0.001 ? ""
                                             : ", " + length_text(std::abs(place->y_m)) +
                                                   (place->y_m > 0 ? " right" : " left") + " of the middle"),
           2.9 + fit,
           {},
           Station::fit,
           p->id,
           AskedView::none});
  }

  /// Every number of the reports by its own name.
  void figures() {
    if (!split_.number.empty()) return;
    for (const auto& [list, station] : {std::pair{of_.review.reports.airframe().figures(), Station::airframe},
                                        {of_.review.reports.fit().figures(), Station::fit},
                                        {of_.review.reports.power().figures(), Station::power}})
      for (const Figure& f : list)
        if (const double fit = names(words_, telling_words(f.name)); fit >= 1)
          add({f.name + ": " + figure_text(f), 1 + fit, {}, station, {}, AskedView::none});
  }

  void topics() {
    for (const Topic& t : all_topics()) {
      double best = 0;
      for (const std::string& phrase : t.phrases) {
        const auto wanted = telling_words(phrase);
        if (wanted.empty() ||
            !std::all_of(wanted.begin(), wanted.end(), [&](const std::string& w) { return said(words_, w); }))
          continue;
        const auto left = static_cast<double>(
            std::count_if(words_.begin(), words_.end(), [&](const std::string& w) { return !said(wanted, w); }));
        best = std::max(best, 1.5 + 0.9 * static_cast<double>(wanted.size()) - 0.35 * left);
      }
      if (best <= 0) continue;
      std::string text = t.text;
      bool leads = t.view == AskedView::none;
      if (t.say)
        if (const std::string own = t.say(of_); !own.empty()) text = own, leads = false;
      add({std::move(text),
           best,
           {},
           t.view == AskedView::none ? std::optional(t.station) : std::nullopt,
           t.subject,
           t.view,
           leads});
    }
  }

  const AskedOf& of_;
  std::string text_;
  std::vector<std::string> words_;
  CutNumber split_;
  std::vector<std::string> numberless_;
  std::vector<Interpretation> found_;
};

}  // namespace

std::vector<std::string> telling_words(std::string_view text) {
  static const std::set<std::string> small{
      "a",     "an",    "the",    "my",   "is",   "are",   "it",   "its",    "do",    "does",  "did",  "can",  "could",
      "would", "will",  "please", "i",    "me",   "we",    "you",  "of",     "for",   "to",    "in",   "at",   "on",
      "with",  "and",   "or",     "by",   "what", "which", "how",  "where",  "when",  "why",   "who",  "this", "that",
      "these", "those", "be",     "been", "have", "has",   "had",  "should", "there", "go",    "want", "need", "show",
      "tell",  "much",  "many",   "so",   "some", "any",   "from", "as",     "than",  "then",  "s",    "m",    "get",
      "about", "was",   "were",   "into", "if",   "am",    "not",  "don",    "t",     "doesn", "won",  "isn",  "help"};
  std::vector<std::string> words = words_of(text);
  std::erase_if(words, [&](const std::string& w) { return small.count(w) > 0; });
  return words;
}

std::vector<Interpretation> answers(const AskedOf& of, std::string_view words) {
  if (words.size() > 300 || telling_words(words).empty()) return {};
  return Asker(of, words).all();
}

}  // namespace rigging
