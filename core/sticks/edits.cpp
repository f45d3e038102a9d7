#include "sticks/edits.h"

#include <algorithm>
#include <cmath>

#include "base/fields.h"
#include "base/find.h"
#include "base/number.h"
#include "catalogue/sockets.h"
#include "sticks/sticks.h"

namespace rigging {
namespace {

void sort_by_number(std::vector<Channel>& channels) {
  std::sort(channels.begin(), channels.end(), [](const Channel& a, const Channel& b) { return a.number < b.number; });
}

Result<Edit> channel_edit(const Rig& rig, const Catalogue&, const std::vector<std::string>& given) {
  const auto number = number_of(given[0]);
  const auto function = from_name<ChannelFunction>(given[1]);
  if (!number || *number != std::floor(*number))
    return failure("channel", "\"" + given[0] + "\" is no number", "1 to 32");
  if (!function) return failure("channel", "\"" + given[1] + "\" is no function", choice_of<ChannelFunction>());
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
                ? capital(name) + " is the " + function_label(channel.function)
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

Rig with_switch_channels(Rig rig, const Catalogue& catalogue) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c) return rig;
  int wanted = 0;
  for (const ModeChoice& m : c->home.fixed_modes) wanted = std::max(wanted, m.channel);
  std::vector<int> has = mode_channels(rig, *c);
  while (!has.empty() && static_cast<int>(has.size()) < wanted) {
    Channel more;
    more.function = ChannelFunction::mode;
    while (std::any_of(rig.radio.channels.begin(), rig.radio.channels.end(),
                       [&](const Channel& x) { return x.number == more.number; }))
      ++more.number;
    more.with_channel = has.front();
    if (Channel* first = find_in(rig.radio.channels, [&](const Channel& x) { return x.number == has.front(); });
        first && !first->control)
      first->control = Control::three_position;
    has.push_back(more.number);
    rig.radio.channels.push_back(std::move(more));
  }
  return rig;
}

Edit channel_serves(const Rig& rig, int number, ChannelFunction function) {
  Edit edit{rig, "Channel " + std::to_string(number) + ": " + label_of(name_of(function))};
  auto& channels = edit.rig.radio.channels;
  const auto at = [&](auto&& is) { return std::find_if(channels.begin(), channels.end(), is); };
  const auto here = at([&](const Channel& c) { return c.number == number; });
  const auto there = at([&](const Channel& c) { return c.function == function; });
  if (here != channels.end() && there != channels.end()) {
    std::swap(here->number, there->number);
  } else if (there != channels.end()) {
    there->number = number;
  } else if (here != channels.end()) {
    here->function = function;
  } else {
    Channel c;
    c.number = number;
    c.function = function;
    channels.push_back(c);
  }
  std::sort(channels.begin(), channels.end(), [](const Channel& a, const Channel& b) { return a.number < b.number; });
  return edit;
}

Edit even_boundaries(const Rig& rig, int channel) {
  return {with_even_boundaries(rig, channel), "Boundaries half way between the positions"};
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

double us_from(ReadOn where, const ControllerClass& controller, const Transmitter& transmitter, double shown) {
  if (where == ReadOn::board) return us_from_page(controller, shown);
  return 1500 + shown * transmitter.full_us / 100;
}

double shown_from(ReadOn where, const ControllerClass& controller, const Transmitter& transmitter, double pulse_us) {
  if (where == ReadOn::board) return page_from_us(controller, pulse_us);
  return (pulse_us - 1500) * 100 / transmitter.full_us;
}

TypedReading typed_reading(const Rig& rig, const Channel& c, const ControllerClass& controller, ReadOn where) {
  const auto shown = [&](const std::optional<double>& us) {
    return us ? std::optional(shown_from(where, controller, rig.radio.transmitter, *us)) : std::nullopt;
  };
  return {c.function, shown(c.low_us), shown(c.centre_us), shown(c.high_us), c.inverted};
}

TypedPositions typed_positions(const Rig& rig, const Channel& c, const ControllerClass& controller, ReadOn where) {
  TypedPositions typed{c.number, {}};
  for (const double us : c.positions_us)
    typed.positions +=
        (typed.positions.empty() ? "" : " ") + number_text(shown_from(where, controller, rig.radio.transmitter, us), 1);
  return typed;
}

Span typed_range(const Rig& rig, const ControllerClass& controller, ReadOn where) {
  const Span us = member_of(&Channel::low_us).span;
  const Transmitter& t = rig.radio.transmitter;
  return {std::ceil(shown_from(where, controller, t, us.least)), std::floor(shown_from(where, controller, t, us.most))};
}

namespace {

Result<std::vector<double>> positions_from(const TypedPositions& typed, const Rig& rig,
                                           const ControllerClass& controller, ReadOn where) {
  constexpr std::size_t most_positions = 12;
  const std::string place = "channel " + std::to_string(typed.channel);
  const Span span = typed_range(rig, controller, where);
  const std::string expected =
      "numbers from " + number_text(span.least, 0) + " to " + number_text(span.most, 0) + " with spaces between";
  std::vector<double> all;
  std::string text = typed.positions;
  for (char& c : text)
    if (c == ';' || c == '/') c = ' ';
  for (std::size_t at = 0; at < text.size();) {
    if (text[at] == ' ') {
      ++at;
      continue;
    }
    const std::size_t end = std::min(text.find(' ', at), text.size());
    const std::string one = text.substr(at, end - at);
    const auto number = number_of(one);
    if (!number) return failure(place, "\"" + one + "\" is no number", expected);
    if (*number < span.least || *number > span.most) return failure(place, one + " is no pulse", expected);
    all.push_back(us_from(where, controller, rig.radio.transmitter, *number));
    at = end;
  }
  if (all.size() > most_positions)
    return failure(place, "has " + std::to_string(all.size()) + " positions", "at most 12");
  std::sort(all.begin(), all.end());
  return all;
}

}  // namespace

Result<Edit> type_readings(const Rig& rig, const Catalogue& catalogue, const std::vector<TypedReading>& readings,
                           ReadOn where, const std::vector<TypedPositions>& positions) {
  const ControllerClass* controller = catalogue.controller(rig.controller.kind);
  if (!controller) return failure("sticks", "the controller's class is not known", "a class of the catalogue");
  Edit e{rig, "Readings typed"};
  const auto us = [&](double shown) { return us_from(where, *controller, rig.radio.transmitter, shown); };
  for (const TypedReading& r : readings) {
    Channel* c = e.rig.channel(r.function);
    if (!c) return failure("sticks", "no channel is the " + function_label(r.function), "a channel for it");
    const bool throttle = r.function == ChannelFunction::throttle;
    if (!r.low && !r.high && (throttle || !r.centre)) continue;
    if (!r.low || !r.high || (!throttle && !r.centre))
      return failure(capital(function_label(r.function)), "was read in part",
                     throttle ? "closed and open" : "lower end, let go and upper end");
    c->low_us = us(*r.low);
    c->high_us = us(*r.high);
    c->centre_us = throttle ? (*c->low_us + *c->high_us) / 2 : us(*r.centre);
    c->inverted = r.inverted;
    c->learned = false;
    const auto ok = dial_in(*c, rig.radio.transmitter, {}, r.inverted);
    if (!ok)
      return failure(capital(function_label(r.function)) + ", " + ok.error().where, ok.error().what,
                     ok.error().expected);
    if (const auto fits = in_range(*c, function_label(r.function)); !fits) return tl::make_unexpected(fits.error());
  }
  for (const TypedPositions& typed : positions) {
    const auto at = positions_from(typed, rig, *controller, where);
    if (!at) return tl::make_unexpected(at.error());
    const Channel* c = find_in(e.rig.radio.channels, [&](const Channel& x) { return x.number == typed.channel; });
    if (at->empty() || (c && c->positions_us == *at)) continue;
    e.rig = with_positions(e.rig, typed.channel, *at).rig;
  }
  return e;
}

Result<Edit> describe_transmitter(const Rig& rig, const Transmitter& transmitter,
                                  const std::map<ChannelFunction, double>& rates_percent) {
  if (const auto ok = in_range(transmitter, "radio/transmitter"); !ok) return tl::make_unexpected(ok.error());
  Edit e{rig, "The transmitter described"};
  e.rig.radio.transmitter = transmitter;
  for (const auto& [function, percent] : rates_percent)
    if (Channel* c = e.rig.channel(function)) {
      c->rate_percent = percent;
      if (const auto ok = in_range(*c, function_label(function)); !ok) return tl::make_unexpected(ok.error());
    }
  return e;
}

namespace {

Result<Edit> reading_edit(const Rig& rig, const Catalogue& catalogue, const std::vector<std::string>& given) {
  const auto function = from_name<ChannelFunction>(given[0]);
  if (!function || !is_stick(*function))
    return failure("reading", "\"" + given[0] + "\" is no stick", "roll, pitch, yaw or throttle");
  const auto low = number_of(given[1]), centre = number_of(given[2]), high = number_of(given[3]);
  if (!low || !centre || !high) return failure("reading", "one of the three is no number", "low, centre and high");
  return type_readings(rig, catalogue,
                       {{*function, std::min(*low, *high), *centre, std::max(*low, *high), *low > *high}});
}

}  // namespace

std::vector<EditEntry> sticks_edits() {
  return {{"learn-ends",
           "The controller takes the ends that were read for its own",
           {},
           [](const Rig& rig, const Catalogue&, const std::vector<std::string>&) { return learn_ends(rig); }},
          {"reading",
           "What was read of a stick: lower end, let go, upper end, as the board's page shows it or in µs",
           {"STICK", "LOW", "CENTRE", "HIGH"},
           reading_edit},
          {"channel", "What a channel is for", {"NUMBER", "FUNCTION"}, channel_edit}};
}

}  // namespace rigging
