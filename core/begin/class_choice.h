#pragma once

#include <string>
#include <vector>

#include "catalogue/catalogue.h"

/// Choosing a class: all of them side by side, for this aircraft.
namespace rigging {

struct ClassChoice {
  std::string id, name;
  bool now = false;     ///< the rig is on it
  bool drives = false;  ///< it moves every surface of this airframe as it comes
  bool fits = true;     ///< where the board sits now
  std::string surfaces, room, senses;
  std::vector<std::string> lost;  ///< of what the rig plans now
  std::vector<std::string> work;  ///< what changing to it, and setting it, costs
  bool operator==(const ClassChoice&) const = default;
};

/// Every class of the catalogue, in its order. Each is planned on this rig: tens of milliseconds each.
std::vector<ClassChoice> class_choices(const Rig& rig, const Catalogue& catalogue);

}  // namespace rigging
