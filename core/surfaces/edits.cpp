#include "surfaces/edits.h"

#include <cmath>

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

Edit throws_read(const Rig& rig, Surface surface, std::vector<ThrowReading> readings) {
  Linkage l = linkage_of(rig, surface);
  l.readings = std::move(readings);
  return {with_linkage(rig, l), "Throws of the " + surface.spoken() + " read"};
}

Edit arm_and_rod_set(const Rig& rig, Surface surface, const Centring& done) {
  return {with_linkage(rig, worked_over(linkage_of(rig, surface), done)),
          "Arm and rod of the " + surface.spoken() + " set"};
}

Edit centre_and_ends_set(const Rig& rig, Surface surface, const Centring& wanted) {
  Edit e{rig, "Centre and ends of the " + surface.spoken()};
  Output* o = e.rig.output(rig.output_of(surface)->id);
  if (wanted.reverse) o->reversed = !o->reversed;
  o->low_us = std::round(wanted.low_us);
  o->centre_us = std::round(wanted.centre_us);
  o->high_us = std::round(wanted.high_us);
  if (Linkage* l = e.rig.linkage(surface)) *l = worked_over(*l, Centring{});
  return e;
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
