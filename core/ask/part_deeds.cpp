#include "ask/part_deeds.h"

#include <cmath>

#include "airframe/planform.h"
#include "ask/finder.h"
#include "ask/things.h"
#include "base/number.h"
#include "base/units.h"
#include "catalogue/part_words.h"
#include "fit/edits.h"
#include "language/typed.h"
#include "power/network.h"

namespace rigging {
namespace {

constexpr double least_of_a_part = 1;

class PartDeeds : public Finder {
 public:
  using Finder::Finder;

  void find() {
    moves();
    puts();
    adds();
    copies();
    removes();
  }

 private:
  /// "move the battery 20 mm back".
  void moves() {
    // "gps 2 cm to the left" leaves the verb out.
    const bool told_short = in_.has_row({"to", "the", "left"}) || in_.has_row({"to", "the", "right"}) ||
                            (verb({"put", "bring", "set"}) && in_.has({"further", "farther", "more"})) ||
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
    const auto what =
        without(in_.numberless, {"move", "shift", "slide", "push", "back", "backward", "aft", "rearward", "forward",
                                 "ahead", "front", "down", "up", "put", "bring", "set", "further", "farther", "more"});
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
    if ((!p || fit < least_of_a_part) && !said(what, "board")) return;
    const std::string id = p && fit >= least_of_a_part ? p->id : "controller";
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
    if (!p || fit < least_of_a_part) return;
    found_.deed(3 + fit,
                mirror ? mirror_part(of_.rig, of_.catalogue, p->id) : duplicate_part(of_.rig, of_.catalogue, p->id),
                Station::fit, p->id);
  }

  /// "take the camera out".
  void removes() {
    if (!verb({"remove", "delete", "take"})) return;
    double fit = 0;
    const auto what = without(in_.words, {"remove", "delete", "take", "out", "away", "off"});
    if (const Part* p = part_named(of_, what, &fit); p && fit >= least_of_a_part)
      return found_.deed(3 + fit, remove_part(of_.rig, of_.catalogue, p->id), Station::fit);
    for (const auto& [group, word] : Names<PartGroup>::list)
      if (names(what, label_of(word)) >= 2)
        found_.refusal(4, "there is no " + label_of(word) + " in this rig", Station::fit);
  }
};

}  // namespace

void find_part_deeds(const AskedOf& of, const Sentence& sentence, Found& found) {
  PartDeeds(of, sentence, found).find();
}

}  // namespace rigging
