#include "proof/edits.h"

#include "base/find.h"

namespace rigging {

Result<Edit> close_loose_end(const Rig& rig, const std::string& id) {
  const LooseEnd* end = find_in(rig.loose_ends, [&](const LooseEnd& x) { return x.id == id; });
  if (!end) return failure(id, "is no loose end of this rig", "one that `check` lists");
  Edit edit{rig, "Put back: " + end->text};
  std::erase_if(edit.rig.loose_ends, [&](const LooseEnd& x) { return x.id == id; });
  return edit;
}

std::vector<EditEntry> proof_edits() {
  return {{"close-loose-end",
           "A loose end is put back as it should be",
           {"ID"},
           [](const Rig& rig, const Catalogue&, const std::vector<std::string>& given) {
             return close_loose_end(rig, given[0]);
           }}};
}

}  // namespace rigging
