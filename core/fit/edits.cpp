#include "fit/edits.h"

#include <algorithm>

#include "airframe/kinds.h"
#include "base/find.h"
#include "fit/fit.h"

namespace rigging {

Result<Edit> add_part(const Rig& rig, const Catalogue& catalogue, const std::string& kind) {
  const PartKind* k = catalogue.part(kind);
  if (!k) return failure(kind, "is no kind of part that is known", "an id of the catalogue");
  Edit edit{rig, "Added: " + k->name};
  Part part;
  part.kind = kind;
  part.id = word(k->group);
  for (int n = 2; rig.part(part.id); ++n) part.id = std::string(word(k->group)) + "_" + std::to_string(n);
  if (k->group == PartGroup::servo)
    for (const Surface s : facts_of(rig.airframe.kind).surfaces)
      if (s.kind != SurfaceKind::motor && std::none_of(rig.parts.begin(), rig.parts.end(), [&](const Part& p) {
            return p.surface && static_cast<const Surface&>(*p.surface) == s;
          })) {
        part.surface = SurfaceName(s);
        break;
      }
  Place place;
  place.part = part.id;
  place.x_m = -0.3 * rig.airframe.length_m;
  edit.rig.parts.push_back(part);
  edit.rig.places.push_back(place);
  return edit;
}

Result<Edit> remove_part(const Rig& rig, const Catalogue& catalogue, const std::string& id) {
  if (!rig.part(id)) return failure(id, "is no part of this rig", "the id of a part");
  Edit edit{rig, "Removed: " + part_name(rig, catalogue, id) + ", with its leads"};
  std::erase_if(edit.rig.parts, [&](const Part& p) { return p.id == id; });
  std::erase_if(edit.rig.places, [&](const Place& p) { return p.part == id; });
  std::erase_if(edit.rig.leads, [&](const Lead& l) { return l.from.part == id || l.to.part == id; });
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

std::vector<EditEntry> fit_edits() {
  return {{"add-part",
           "A part of a kind of the catalogue, with a place to be moved from",
           {"KIND"},
           [](const Rig& rig, const Catalogue& c, const std::vector<std::string>& given) {
             return add_part(rig, c, given[0]);
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
           }}};
}

}  // namespace rigging
