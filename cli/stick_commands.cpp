#include <algorithm>
#include <deque>
#include <iostream>
#include <memory>

#include "base/file.h"
#include "base/json.h"
#include "base/number.h"
#include "command.h"
#include "opened.h"
#include "signal/capture.h"
#include "sticks/setup.h"
#include "sticks/sticks.h"

namespace rigging::cli {
namespace {

Json reach_json(const Reach& r) { return {{"low_us", r.low_us}, {"centre_us", r.centre_us}, {"high_us", r.high_us}}; }

Json dial_json(const DialIn& d) {
  return {{"turn_round", d.turn_round},
          {"sub_trim_us", d.sub_trim_us},
          {"travel_low_percent", d.travel_low_percent},
          {"travel_high_percent", d.travel_high_percent},
          {"lands", reach_json(d.lands)},
          {"limits", d.limits}};
}

const char* state_word(ChannelLine::State s) {
  return s == ChannelLine::State::lands    ? "lands"
         : s == ChannelLine::State::usable ? "usable"
         : s == ChannelLine::State::off    ? "off"
                                           : "unread";
}

void sticks(const Opened& o, Session& session) {
  const SticksReport r = analyze_sticks(o.rig, o.catalogue);
  const Transmitter& t = o.rig.radio.transmitter;
  Json json{{"signal", r.signal ? Json(name_of(*r.signal)) : Json()},
            {"all_read", r.all_read},
            {"all_land", r.all_land},
            {"free_channels", r.free_channels},
            {"channels", Json::array()},
            {"switches", Json::array()},
            {"budget", Json::array()},
            {"on_loss", Json::array()},
            {"authority", r.authority}};
  for (const ChannelLine& l : r.channels) {
    Json line{{"channel", l.channel.number},
              {"function", name_of(l.channel.function)},
              {"state", state_word(l.state)},
              {"verdict", l.verdict},
              {"wanted", reach_json(l.wanted)},
              {"exempt", l.exempt},
              {"read", nullptr},
              {"dial_in", nullptr}};
    if (l.read) line["read"] = reach_json({*l.channel.low_us, *l.channel.centre_us, *l.channel.high_us});
    if (l.dial) line["dial_in"] = dial_json(*l.dial);
    json["channels"].push_back(line);
    if (session.json) continue;
    std::cout << "channel " << l.channel.number << "  " << function_label(l.channel.function)
              << (l.verdict.empty() ? "" : ": " + l.verdict) << '\n';
    if (l.dial)
      std::cout << "    dial in: sub-trim " << shown_sub_trim(t, l.dial->sub_trim_us) << ", travel low "
                << shown_travel(t, l.dial->travel_low_percent) << ", high "
                << shown_travel(t, l.dial->travel_high_percent) << '\n';
    if (l.dial)
      for (const std::string& limit : l.dial->limits) std::cout << "    " << limit << '\n';
  }
  for (const SwitchLine& s : r.switches) {
    Json line{{"channel", s.channel},
              {"function", name_of(s.function)},
              {"measured", s.measured},
              {"positions", Json::array()}};
    for (const SwitchPosition& p : s.positions)
      line["positions"].push_back({{"pulse_us", p.pulse_us}, {"mode", p.mode}, {"guard_us", p.guard_us}});
    json["switches"].push_back(line);
  }
  for (const BudgetLine& b : r.budget) {
    json["budget"].push_back(
        {{"function", name_of(b.function)}, {"channel", b.channel}, {"needed", b.needed}, {"words", b.words}});
    if (!session.json && b.channel == 0)
      std::cout << "no channel for " << name_of(b.function) << ": " << b.words << '\n';
  }
  for (const LossLine& l : r.losses) {
    json["on_loss"].push_back({{"behaviour", name_of(l.behaviour)},
                               {"possible", l.possible},
                               {"noticed", l.noticed},
                               {"chosen", l.chosen},
                               {"words", l.words}});
    if (!session.json && l.chosen) std::cout << "on loss: " << l.words << '\n';
  }
  if (session.json) return session.print(json);
  std::cout << r.free_channels << " of " << t.channels << " channels free\n";
  for (const std::string& a : r.authority) std::cout << a << '\n';
}

void decode_capture(const std::string& file, const std::optional<Signal>& signal, bool every_frame, Session& session) {
  const auto content = read_file(file, std::size_t{512} << 20);
  if (!content) return session.refuse(content.error());
  const auto capture = read_capture(*content, file, signal);
  if (!capture) return session.refuse(capture.error());
  const Decoded d = decode(*capture);
  if (d.frames.empty())
    return session.refuse(
        {file, "no whole frame of " + label_of(name_of(d.signal)) + " is in it", "a capture of that signal"});
  const std::deque<ChannelFrame> frames(d.frames.begin(), d.frames.end());
  const Reception heard = reception(frames);
  Json json{{"signal", name_of(d.signal)},  {"timed", d.timed},
            {"frames", d.tally.frames},     {"lost", d.tally.lost},
            {"failsafe", d.tally.failsafe}, {"damaged", d.tally.damaged},
            {"skipped", d.tally.skipped},   {"resyncs", d.tally.resyncs},
            {"frames_per_s", nullptr},      {"longest_gap_us", nullptr},
            {"channels", Json::array()}};
  if (d.timed) {
    json["frames_per_s"] = heard.frames_per_s;
    json["longest_gap_us"] = heard.longest_gap_us;
  }
  const auto all = habits(frames);
  for (const ChannelHabit& h : all)
    json["channels"].push_back({{"channel", h.channel},
                                {"least_us", h.least_us},
                                {"most_us", h.most_us},
                                {"last_us", h.last_us},
                                {"noise_us", h.noise_us},
                                {"moved", h.moved},
                                {"drift_us", h.drift_us},
                                {"words", h.words}});
  if (every_frame) {
    json["every_frame"] = Json::array();
    for (const ChannelFrame& f : d.frames)
      json["every_frame"].push_back(
          {{"t_us", f.t_us},
           {"pulse_us", std::vector<float>(f.pulse_us.begin(), f.pulse_us.begin() + f.channels)},
           {"lost", f.lost},
           {"failsafe", f.failsafe}});
  }
  session.status = d.tally.failsafe > 0 ? found_wrong : good;
  if (session.json) return session.print(json);
  std::cout << label_of(name_of(d.signal)) << ": " << d.tally.frames << " frames";
  if (d.timed)
    std::cout << ", " << number_text(heard.frames_per_s, 1) << " a second, longest gap "
              << number_text(heard.longest_gap_us / 1000, 1) << " ms";
  std::cout << "\n"
            << d.tally.lost << " lost, " << d.tally.failsafe << " with the link gone, " << d.tally.damaged
            << " damaged, " << d.tally.skipped << " bytes or edges in no frame, place found again " << d.tally.resyncs
            << " times\n";
  for (const ChannelHabit& h : all)
    std::cout << "  channel " << h.channel << ": " << number_text(h.least_us, 1) << " to " << number_text(h.most_us, 1)
              << " µs" << (h.words.empty() ? "" : ", " + h.words) << '\n';
}

}  // namespace

void add_stick_commands(CLI::App& app, Session& session) {
  add_rig_command(app, session, "sticks", "What was read of each channel and what to dial in",
                  [&session](const Opened& o) { sticks(o, session); });
  struct Options {
    std::string file, signal;
    bool every_frame = false;
  };
  auto options = std::make_shared<Options>();
  auto* d = app.add_subcommand("decode", "Channels out of a capture of a receiver's wire");
  d->add_option("FILE", options->file, "Capture (docs/receiver-signals.md)")->required();
  d->add_option("--signal", options->signal, choice_of<Signal>() + "; found out when absent");
  d->add_flag("--every-frame", options->every_frame, "Each frame in the JSON answer");
  add_json_flag(*d, session);
  d->callback([&session, options] {
    const auto signal = from_name<Signal>(options->signal);
    if (!options->signal.empty() && !signal)
      return session.refuse({"--signal", "unknown word \"" + options->signal + "\"", choice_of<Signal>()});
    decode_capture(options->file, signal, options->every_frame, session);
  });
}

}  // namespace rigging::cli
