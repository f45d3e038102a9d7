#pragma once

#include "catalogue/catalogue.h"

/// Where the stabilizer lives inside the radio system: each socket is told which channel it carries.
namespace rigging {

struct RouteLine {
  std::string output, socket;  ///< of the rig; the socket is empty while none is chosen
  std::string label;           ///< of the socket, as printed
  std::string what;            ///< what hangs there: "left tail half"
  int channel = 0;
  bool extra = false;  ///< a mixed half: a channel of its own that the radio system makes beside the sticks'
  std::string words;   ///< "the first free one; its number is what the menu shows"
  bool operator==(const RouteLine&) const = default;
};

struct Routing {
  std::vector<RouteLine> lines;  ///< in the order of the outputs
  std::vector<std::string> clashes;
  int freed = 0;            ///< the plain pitch channel, where nothing hangs on it any more; 0: it is in use
  std::string freed_words;  ///< what it may be used for
  /// Of a taileron: percentage of the ailerons' command that its halves get, as planned.
  std::optional<double> roll_percent;
  bool operator==(const Routing&) const = default;
};

/// Empty for a class that routes nothing. A mixed half (V, elevon, taileron) gets the lowest number that no channel of
/// the rig has; what is plain keeps the channel of its command. A canard may take the pitch channel that they free.
Routing routing_of(const Rig& rig, const Catalogue& catalogue);

}  // namespace rigging
