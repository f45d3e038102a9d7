#include "fit/edits.h"

#include <algorithm>
#include <cmath>

#include "airframe/kinds.h"
#include "base/fields.h"
#include "base/find.h"
#include "base/number.h"
#include "earth/magnetic_model.h"
#include "fit/fit.h"
#include "fit/room.h"
#include "fit/swing.h"
#include "fit/usual_places.h"
#include "language/typed.h"
#include "power/network.h"

namespace rigging {

std::string free_part_id(const Rig& rig, const std::string& stem) {
  std::string id = stem;
  for (int n = 2; rig.part(id); ++n) id = stem + "_" + std::to_string(n);
  return id;
}

Result<Edit> add_part(const Rig& rig, const Catalogue& catalogue, const std::string& kind) {
  const PartKind* k = catalogue.part(kind);
  if (!k) return failure(kind, "is no kind of part that is known", "an id of the catalogue");
  Edit edit{rig, "Added: " + k->name};
  Part part;
  part.kind = kind;
  part.id = free_part_id(rig, std::string(name_of(k->group)));
  if (k->group == PartGroup::servo)
    for (const Surface s : surfaces_of(rig.airframe))
      if (s.kind != SurfaceKind::motor && std::none_of(rig.parts.begin(), rig.parts.end(), [&](const Part& p) {
            return p.surface && static_cast<const Surface&>(*p.surface) == s;
          })) {
        part.surface = SurfaceName(s);
        break;
      }
  Mounting place;
  place.part = part.id;
  place.x_m = -0.3 * rig.airframe.length_m;
  edit.rig.parts.push_back(part);
  edit.rig.mountings.push_back(place);
  // Where nothing is yet: parts on one spot would all be snags of each other.
  std::vector<PartRoom> taken;
  if (const auto room = room_of(rig, catalogue, "controller")) taken.push_back(*room);
  for (const Part& p : rig.parts)
    if (const auto room = room_of(rig, catalogue, p.id)) taken.push_back(*room);
  const auto in_the_way = [&] {
    const auto own = room_of(edit.rig, catalogue, part.id);
    return own && std::any_of(taken.begin(), taken.end(),
                              [&](const PartRoom& r) { return own->overlap(r) > least_overlap_m; });
  };
  double& x = edit.rig.mountings.back().x_m;
  for (x = std::round(1000 * x) / 1000; in_the_way() && x > -rig.airframe.length_m;)
    x = std::round(1000 * x - 10) / 1000;
  return edit;
}

Result<Edit> duplicate_part(const Rig& rig, const Catalogue& catalogue, const std::string& id) {
  const Part* of = rig.part(id);
  if (!of) return failure(id, "is no part of this rig", "the id of a part");
  auto edit = add_part(rig, catalogue, of->kind);
  if (!edit) return edit;
  Part& made = edit->rig.parts.back();
  made.label = of->label, made.mass_kg = of->mass_kg, made.says = of->says, made.baud = of->baud;
  made.plug = of->plug, made.motor_plug = of->motor_plug;
  edit->label = "Another " + small(part_name(rig, catalogue, id));
  return edit;
}

Result<Edit> mirror_part(const Rig& rig, const Catalogue& catalogue, const std::string& id) {
  const Part* of = rig.part(id);
  if (!of) return failure(id, "is no part of this rig", "the id of a part");
  const Mounting* place = rig.mounting(id);
  if (!place) return failure(part_name(rig, catalogue, id), "has no place yet", "a place on one side");
  if (std::abs(place->y_m) < 0.0005)
    return failure(part_name(rig, catalogue, id), "sits in the middle", "a part on one side");
  std::optional<Surface> there;
  if (of->surface) {
    there = *of->surface;
    there->side = there->side == Side::left ? Side::right : there->side == Side::right ? Side::left : Side::single;
  }
  const Part* twin =
      there ? find_in(rig.parts,
                      [&](const Part& p) { return p.surface && static_cast<const Surface&>(*p.surface) == *there; })
            : nullptr;
  Result<Edit> edit = twin && twin->id != id ? Edit{rig, {}} : duplicate_part(rig, catalogue, id);
  if (!edit) return edit;
  const std::string other = twin && twin->id != id ? twin->id : edit->rig.parts.back().id;
  Mounting mirrored = *place;
  mirrored.part = other;
  mirrored.y_m = -place->y_m;
  mirrored.roll_deg = -place->roll_deg, mirrored.yaw_deg = -place->yaw_deg;
  if (Mounting* now = edit->rig.mounting(other))
    *now = mirrored;
  else
    edit->rig.mountings.push_back(mirrored);
  if (there && there->side != Side::single && !twin) edit->rig.part(other)->surface = SurfaceName(*there);
  edit->label = capital(part_name(rig, catalogue, id)) + ": mirrored to the " + (mirrored.y_m < 0 ? "left" : "right");
  return edit;
}

Result<Edit> remove_part(const Rig& rig, const Catalogue& catalogue, const std::string& id) {
  if (!rig.part(id)) return failure(id, "is no part of this rig", "the id of a part");
  Edit edit{rig, "Removed: " + part_name(rig, catalogue, id) + ", with its leads"};
  std::erase_if(edit.rig.parts, [&](const Part& p) { return p.id == id; });
  std::erase_if(edit.rig.mountings, [&](const Mounting& p) { return p.part == id; });
  std::erase_if(edit.rig.leads, [&](const Lead& l) { return l.from.part == id || l.to.part == id; });
  return edit;
}

Result<Edit> exchange_part(const Rig& rig, const Catalogue& catalogue, const std::string& id, const std::string& kind) {
  const Part* of = rig.part(id);
  if (!of) return failure(id, "is no part of this rig", "the id of a part");
  const PartKind *now = catalogue.part(of->kind), *then = catalogue.part(kind);
  if (!then) return failure(kind, "is no kind of part that is known", "an id of the catalogue");
  const std::string name = part_name(rig, catalogue, id);
  if (now && now->group != then->group)
    return failure(name, then->name + " is no " + label_of(name_of(now->group)), "one of the same group");
  if (of->kind == kind) return failure(name, "is " + then->name + " already", "another kind");
  for (const Lead& l : rig.leads)
    for (const LeadEnd* end : {&l.from, &l.to})
      if (end->part == id && !then->terminal(end->socket))
        return failure(name, then->name + " has no \"" + end->socket + "\", where a lead of it ends",
                       "one with the same plugs; or take this one out and add the other");
  Edit edit{rig, capital(name) + ": " + then->name + " in its place"};
  Part& part = *edit.rig.part(id);
  part.kind = kind;
  part.mass_kg.reset();
  return edit;
}

Result<Edit> confirm(const Rig& rig, const Catalogue& catalogue, const std::string& word, bool seen) {
  const auto all = confirmations(rig, catalogue);
  const auto* c = find_in(all, [&](const Confirmation& x) { return x.word == word; });
  if (!c) return failure(word, "is nothing to look at on this rig", "a word that `fit --json` lists under confirm");
  Edit edit{rig, (seen ? "Looked: " : "No longer confirmed: ") + c->text};
  std::erase(edit.rig.fit.confirmed, word);
  if (seen) edit.rig.fit.confirmed.push_back(word);
  return edit;
}

Result<Edit> put_part(const Rig& rig, const Catalogue& catalogue, const Mounting& place) {
  if (place.part != "controller" && !rig.part(place.part))
    return failure(place.part, "is no part of this rig", "the id of a part, or controller");
  if (const auto ok = in_range(place, "places/" + place.part); !ok) return tl::make_unexpected(ok.error());
  Edit edit{rig, {}};
  Mounting* p = edit.rig.mounting(place.part);
  const Mounting before = p ? *p : Mounting{};
  if (!p) p = &edit.rig.mountings.emplace_back();
  *p = place;
  const std::string name = part_name(rig, catalogue, place.part);
  if (place.fixing != before.fixing) {
    edit.label = name + ": held by " + label_of(name_of(place.fixing));
    // What was looked at was something else.
    if (place.part == "controller") std::erase(edit.rig.fit.confirmed, "firm_base");
    return edit;
  }
  edit.label = name + (!(before.turn == place.turn) ? " turned: " + place.turn.label()
                       : before.roll_deg != place.roll_deg || before.pitch_deg != place.pitch_deg ||
                               before.yaw_deg != place.yaw_deg
                           ? ": how it sits"
                           : " moved");
  return edit;
}

Result<Edit> work_surface(const Rig& rig, const Catalogue& catalogue, const std::string& part,
                          std::optional<Surface> surface) {
  Edit edit{rig, {}};
  Part* p = edit.rig.part(part);
  if (!p) return failure(part, "is no part of this rig", "the id of a servo");
  p->surface = surface ? std::optional<SurfaceName>(*surface) : std::nullopt;
  edit.label = part_name(rig, catalogue, part) + " works " + (surface ? "the " + surface->label() : "nothing");
  return edit;
}

Result<Edit> measure_fit(const Rig& rig, const Fit& fit) {
  if (!fit.date.empty() && !decimal_year(fit.date))
    return failure("fit/date", "\"" + fit.date + "\" is no date", "year-month-day, such as 2026-11-23");
  if (const auto ok = in_range(fit, "fit"); !ok) return tl::make_unexpected(ok.error());
  Edit edit{rig, "Bay and place"};
  edit.rig.fit = fit;
  return edit;
}

namespace {

Result<Edit> place_edit(const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) {
  Mounting place;
  if (const Mounting* known = rig.mounting(given[0])) place = *known;
  place.part = given[0];
  const auto behind = number_of(given[1]), right = number_of(given[2]), below = number_of(given[3]);
  if (!behind || !right || !below) return failure("place", "one of the three is no number", "metres");
  place.x_m = -*behind;
  place.y_m = *right;
  place.z_m = *below;
  return put_part(rig, c, place);
}

Result<Edit> turn_edit(const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) {
  Mounting place;
  if (const Mounting* known = rig.mounting(given[0])) place = *known;
  place.part = given[0];
  const auto turn = turn_from_name(given[1]);
  if (!turn) return failure("turn", "\"" + given[1] + "\" is no turn", "none or arrow_A_top_B");
  place.turn = TurnName(*turn);
  return put_part(rig, c, place);
}

Result<Edit> works_edit(const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) {
  const auto surface = surface_from_name(given[1]);
  if (!surface && given[1] != "nothing")
    return failure("works", "\"" + given[1] + "\" is no surface", "the word of a surface, or nothing");
  return work_surface(rig, c, given[0], surface);
}

}  // namespace

std::vector<EditEntry> fit_edits() {
  return {
      {"swing",
       "A swing test: metres between the strings, their length, seconds of one swing to and fro",
       {"roll|pitch|yaw", "APART", "LENGTH", "PERIOD"},
       [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) -> Result<Edit> {
         const auto axis = from_name<Axis>(given[0]);
         if (!axis) return failure("swing", "\"" + given[0] + "\" is no axis", choice_of<Axis>());
         const auto apart = typed_number(given[1], "m"), length = typed_number(given[2], "m"),
                    period = typed_number(given[3], "s");
         for (const auto* n : {&apart, &length, &period})
           if (!*n) return tl::make_unexpected(n->error());
         return take_swing(rig, c, *axis, *apart, *length, *period);
       }},
      {"held-by",
       "What holds a part, or the controller, where it sits",
       {"PART", "FIXING"},
       [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) -> Result<Edit> {
         Mounting place;
         if (const Mounting* known = rig.mounting(given[0])) place = *known;
         place.part = given[0];
         const auto fixing = from_name<Fixing>(given[1]);
         if (!fixing) return failure(given[1], "holds nothing", choice_of<Fixing>());
         place.fixing = *fixing;
         return put_part(rig, c, place);
       }},
      {"add-part",
       "A part of a kind of the catalogue, with a place to be moved from",
       {"KIND"},
       [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) {
         return add_part(rig, c, given[0]);
       }},
      {"duplicate-part",
       "Another of the same kind, beside it",
       {"PART"},
       [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) {
         return duplicate_part(rig, c, given[0]);
       }},
      {"mirror-part",
       "The same on the other side",
       {"PART"},
       [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) {
         return mirror_part(rig, c, given[0]);
       }},
      {"exchange-part",
       "Another kind in the place of a part, with its leads",
       {"PART", "KIND"},
       [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) {
         return exchange_part(rig, c, given[0], given[1]);
       }},
      {"remove-part",
       "A part with its place and its leads",
       {"PART"},
       [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) {
         return remove_part(rig, c, given[0]);
       }},
      {"confirm",
       "Something that only the builder can see was looked at",
       {"WORD"},
       [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) {
         return confirm(rig, c, given[0], true);
       }},
      {"place",
       "Where the middle of a part sits: metres behind the nose, right of the middle, below it",
       {"PART", "BEHIND", "RIGHT", "BELOW"},
       place_edit},
      {"turn", "How a part sits", {"PART", "TURN"}, turn_edit},
      {"place-all",
       "Every part where its kind usually sits",
       {},
       [](const Rig& rig, const Catalogue& c, const std::vector<std::string>&) { return place_parts(rig, c, true); }},
      {"spread-out",
       "What overlaps moves apart",
       {},
       [](const Rig& rig, const Catalogue& c, const std::vector<std::string>&) { return spread_out(rig, c); }},
      {"works", "Which surface a servo works", {"PART", "SURFACE"}, works_edit}};
}

}  // namespace rigging
