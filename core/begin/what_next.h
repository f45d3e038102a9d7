#pragma once

#include "review/review.h"

namespace rigging {

/// One of the few things to do next, with where it is done.
struct NextThing {
  std::string what, why;
  Station station = Station::airframe;
  std::string subject;  ///< as `StationPage::go_to` takes it; empty for the station itself
  std::string button;   ///< what the key says
};

/// Three things to do next on a rig that has just begun, the first one first: what grounds it, what is only guessed or
/// missing, then the plug list and the bench.
std::vector<NextThing> what_next(const Rig& rig, const Catalogue& catalogue, const Review& review);

}  // namespace rigging
