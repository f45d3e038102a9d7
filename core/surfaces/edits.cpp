#include "surfaces/edits.h"

namespace rigging {
namespace {

/// "left flaperon (out_1)", "motor (out_5)".
std::string spoken_output(const Output& o) {
  std::string name;
  for (const Surface s : o.surfaces) name += (name.empty() ? "" : " and ") + s.spoken();
  return (name.empty() ? "motor" : name) + " (" + o.id + ")";
}

}  // namespace

Result<Edit> reverse(const Rig& rig, const std::string& output) {
  Edit edit{rig, ""};
  Output* o = edit.rig.output(output);
  if (!o) return failure(output, "is no output of this rig", "the id of an output");
  o->reversed = !o->reversed;
  edit.label = "Reverse " + spoken_output(*o);
  return edit;
}

Result<Edit> flip_weight(const Rig& rig, const std::string& output, Axis axis) {
  Edit edit{rig, ""};
  Output* o = edit.rig.output(output);
  if (!o) return failure(output, "is no output of this rig", "the id of an output");
  if (o->mix.of(axis) == 0)
    return failure(output, "has no " + std::string(word(axis)) + " weight", "an axis that it mixes");
  o->mix.of(axis) *= -1;
  edit.label = "Flip the " + std::string(word(axis)) + " weight of " + spoken_output(*o);
  return edit;
}

std::vector<EditEntry> surfaces_edits() {
  return {
      {"reverse",
       "Turn an output round, with every command on it",
       {"OUTPUT"},
       [](const Rig& rig, const Catalogue&, const std::vector<std::string>& given) { return reverse(rig, given[0]); }},
      {"flip",
       "Change the sign of one command's weight",
       {"OUTPUT", "AXIS"},
       [](const Rig& rig, const Catalogue&, const std::vector<std::string>& given) -> Result<Edit> {
         const auto axis = from_word<Axis>(given[1]);
         if (!axis) return failure(given[1], "is no axis", word_choice<Axis>());
         return flip_weight(rig, given[0], *axis);
       }}};
}

}  // namespace rigging
