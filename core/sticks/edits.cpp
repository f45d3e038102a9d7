#include "sticks/edits.h"

#include <algorithm>
#include <cmath>

#include "base/find.h"
#include "base/number.h"
#include "sticks/sticks.h"

namespace rigging {
namespace {

void sort_by_number(std::vector<Channel>& channels) {
  std::sort(channels.begin(), channels.end(), [](const Channel& a, const Channel& b) { return a.number < b.number; });
}

Result<Edit> channel_edit(const Rig& rig, const Catalogue&, const std::vector<std::string>& given) {
  const auto number = number_of(given[0]);
  const auto function = from_word<ChannelFunction>(given[1]);
  if (!number || *number != std::floor(*number))
    return failure("channel", "\"" + given[0] + "\" is no number", "1 to 32");
  if (!function) return failure("channel", "\"" + given[1] + "\" is no function", word_choice<ChannelFunction>());
  Channel channel;
  for (const Channel& c : rig.radio.channels)
    if (c.number == *number) channel = c;
  channel.number = static_cast<int>(std::clamp(*number, -1.0, 99.0));
  channel.function = *function;
  return put_channel(rig, channel);
}

}  // namespace

Result<Edit> learn_ends(const Rig& rig) {
  Edit edit{rig, "The controller learns the ends"};
  int learned = 0;
  for (Channel& c : edit.rig.radio.channels)
    if (c.low_us && c.centre_us && c.high_us && !c.inverted && is_stick(c.function)) c.learned = true, ++learned;
  if (learned == 0) return failure("sticks", "none was read yet", "readings of the sticks");
  return edit;
}

Result<Edit> put_channel(const Rig& rig, const Channel& channel) {
  if (channel.number < 1 || channel.number > 32)
    return failure("radio/channels", "there is no channel " + std::to_string(channel.number), "1 to 32");
  Edit e{rig, {}};
  std::vector<Channel>& channels = e.rig.radio.channels;
  Channel* c = find_in(channels, [&](const Channel& x) { return x.number == channel.number; });
  const Channel before = c ? *c : Channel{};
  if (!c) c = &channels.emplace_back();
  *c = channel;
  sort_by_number(channels);
  const std::string name = "channel " + std::to_string(channel.number);
  e.label = before.function != channel.function || before.number == 0
                ? capital(name) + " is the " + spoken_function(channel.function)
            : before.control != channel.control                         ? "Control of " + name
            : before.reversed != channel.reversed                       ? "Direction of " + name
            : before.sub_trim_us != channel.sub_trim_us                 ? "Sub-trim of " + name
            : before.travel_low_percent != channel.travel_low_percent   ? "Low travel of " + name
            : before.travel_high_percent != channel.travel_high_percent ? "High travel of " + name
                                                                        : capital(name) + " changed";
  return e;
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
  sort_by_number(channels);
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
           [](const Rig& rig, const Catalogue&, const std::vector<std::string>&) { return learn_ends(rig); }},
          {"channel", "What a channel is for", {"NUMBER", "FUNCTION"}, channel_edit}};
}

}  // namespace rigging
