#include "sticks/edits.h"

#include "sticks/sticks.h"

namespace rigging {

Result<Edit> learn_ends(const Rig& rig) {
  Edit edit{rig, "The controller learns the ends"};
  int learned = 0;
  for (Channel& c : edit.rig.radio.channels)
    if (c.low_us && c.centre_us && c.high_us && !c.inverted && is_stick(c.function)) c.learned = true, ++learned;
  if (learned == 0) return failure("sticks", "none was read yet", "readings of the sticks");
  return edit;
}

std::vector<EditEntry> sticks_edits() {
  return {{"learn-ends",
           "The controller takes the ends that were read for its own",
           {},
           [](const Rig& rig, const Catalogue&, const std::vector<std::string>&) { return learn_ends(rig); }}};
}

}  // namespace rigging
