#include "sticks/edits.h"

#include <algorithm>
#include <cmath>

#include "base/find.h"
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

Edit with_transmitter_screen(const Rig& rig, const std::vector<Channel>& settings) {
  Edit e{rig, "Transmitter settings read from its screen"};
  std::vector<Channel>& channels = e.rig.radio.channels;
  for (const Channel& s : settings) {
    Channel* c = find_in(channels, [&](const Channel& x) { return x.number == s.number; });
    if (!c) {
      if (s.sub_trim_us == 0 && s.travel_low_percent == 100 && s.travel_high_percent == 100 && !s.reversed) continue;
      c = &channels.emplace_back();
      c->number = s.number;
    }
    c->reversed = s.reversed;
    c->sub_trim_us = s.sub_trim_us;
    c->travel_low_percent = s.travel_low_percent;
    c->travel_high_percent = s.travel_high_percent;
  }
  std::sort(channels.begin(), channels.end(), [](const Channel& a, const Channel& b) { return a.number < b.number; });
  return e;
}

Edit with_positions(const Rig& rig, int channel, const std::vector<double>& positions_us) {
  Edit e{rig, "Positions of channel " + std::to_string(channel) + " read"};
  Channel* c = find_in(e.rig.radio.channels, [&](const Channel& x) { return x.number == channel; });
  if (!c) {
    c = &e.rig.radio.channels.emplace_back();
    c->number = channel;
  }
  c->positions_us.clear();
  for (const double us : positions_us) c->positions_us.push_back(std::round(us * 10) / 10);
  c->control = positions_us.size() == 2   ? Control::two_position
               : positions_us.size() == 3 ? Control::three_position
               : positions_us.size() > 6  ? Control::slider
                                          : Control::multi_position;
  return e;
}

std::vector<EditEntry> sticks_edits() {
  return {{"learn-ends",
           "The controller takes the ends that were read for its own",
           {},
           [](const Rig& rig, const Catalogue&, const std::vector<std::string>&) { return learn_ends(rig); }}};
}

}  // namespace rigging
