#include <algorithm>
#include <cmath>

#include "base/find.h"
#include "base/number.h"
#include "review/rules.h"
#include "sticks/setup.h"

namespace rigging {
namespace {

using F = ChannelFunction;

Snag snag(std::string_view code, Severity severity, std::string subject, std::string what, std::string why,
          std::string remedy) {
  return make_snag(Station::sticks, code, severity, std::move(subject), std::move(what), std::move(why),
                   std::move(remedy));
}

std::string subject_of(const Channel& c) { return "channel " + std::to_string(c.number); }
std::string name_of(const Channel& c) {
  return capital(spoken_function(c.function)) + " (channel " + std::to_string(c.number) + ")";
}

bool steers(F f) { return f == F::roll || f == F::pitch || f == F::yaw; }
bool is_stick(F f) { return steers(f) || f == F::throttle; }

void transmitter_reversed(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  if (!in.controller || in.controller->stick_direction_in_transmitter) return;
  for (const Channel& c : in.rig.radio.channels)
    if (c.reversed && (c.function == ChannelFunction::roll || c.function == ChannelFunction::pitch ||
                       c.function == ChannelFunction::yaw)) {
      Snag n = make_snag(Station::sticks, code, Severity::worth_knowing, "channel " + std::to_string(c.number),
                         "The transmitter reverses " + std::string(word(c.function)),
                         "Right only if the controller then receives right, nose up and right as rising; correcting an "
                         "output's direction here hides a wrong correction.",
                         "Read the channel in the controller before deciding.");
      snags.push_back(std::move(n));
    }
}

void channel_missing(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  if (in.rig.radio.channels.empty()) return;
  for (const CheckStatus& c : in.reports.checks) {
    if (c.check.kind != CheckKind::stick) continue;
    const bool found =
        std::any_of(in.rig.radio.channels.begin(), in.rig.radio.channels.end(),
                    [&](const Channel& channel) { return word(channel.function) == word(c.check.axis); });
    if (!found)
      snags.push_back(make_snag(Station::sticks, code, Severity::fix_first, std::string(word(c.check.axis)),
                                "No channel carries " + std::string(word(c.check.axis)),
                                "The controller can't hear the stick.", "Assign a channel."));
  }
}

/// Classes that take directions, mixes and trims for themselves want a plain transmitter.
bool wants_plain(const Inspection& in) { return in.controller && !in.controller->stick_direction_in_transmitter; }

void transmitter_mixes(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  if (!wants_plain(in) || !in.rig.radio.transmitter.mixes) return;
  Snag n =
      snag(code, Severity::grounds, "transmitter", "The transmitter mixes channels, and so does the controller",
           "A stick would reach a surface twice, and the stabilizer would correct another way than the stick steers.",
           "Switch every mix off in the transmitter.");
  n.fix = Fix{"It is switched off", [](const Rig& rig) {
                Rig r = rig;
                r.radio.transmitter.mixes = false;
                return r;
              }};
  snags.push_back(std::move(n));
}

void much_sub_trim(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  constexpr double most_us = 60;  // common practice: beyond it the gimbal or the trim lever is meant
  if (!wants_plain(in)) return;
  for (const Channel& c : in.rig.radio.channels)
    if (steers(c.function) && std::abs(c.sub_trim_us) > most_us)
      snags.push_back(
          snag(code, Severity::fix_first, subject_of(c),
               name_of(c) + " has " + number_text(c.sub_trim_us, 0) + " µs of sub-trim",
               "Sub-trim is there to centre the pulse; a surface is centred by its linkage and output.",
               "Put the trim lever in the middle, centre the surface at its output, and listen to the sticks again."));
}

void does_not_land(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  std::string names, first;
  int count = 0;
  for (const ChannelLine& l : in.reports.sticks.channels) {
    if (l.state != ChannelLine::State::off || l.exempt || l.wrong_way) continue;
    if (count++ == 0) first = subject_of(l.channel);
    names += (names.empty() ? "" : ", ") + std::string(word(l.channel.function)) + " " +
             l.verdict.substr(0, l.verdict.find(" off"));
  }
  if (count > 0)
    snags.push_back(snag(code, Severity::fix_first, first,
                         (count == 1 ? "One stick lands beside where it should: "
                                     : std::to_string(count) + " sticks land beside where they should: ") +
                             names,
                         "Short ends take from full command; an end beyond its mark is cut off; a centre beside its "
                         "mark steers all the time.",
                         "Dial in what the sticks station shows, then listen again."));
}

void wrong_way(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  for (const ChannelLine& l : in.reports.sticks.channels)
    if (l.wrong_way) {
      const bool throttle = l.channel.function == F::throttle;
      snags.push_back(snag(
          code, throttle ? Severity::grounds : Severity::fix_first, subject_of(l.channel),
          name_of(l.channel) + " reads the wrong way round",
          throttle ? "A closed stick would be full throttle." : "The controller hears the opposite of what is meant.",
          "Turn this channel's direction round in the transmitter, then listen again."));
    }
}

void reaches_its_limit(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  for (const ChannelLine& l : in.reports.sticks.channels)
    if (l.dial && !l.dial->limits.empty())
      snags.push_back(snag(code, Severity::worth_knowing, subject_of(l.channel),
                           name_of(l.channel) + ": " + l.dial->limits.front(),
                           "Not every transmitter reaches every end.",
                           in.controller && in.controller->learns_ends
                               ? "Let the controller learn the ends as they are."
                               : "Use another stick or channel, or live with the ends as they are."));
}

void gesture_needs_ends(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  if (!in.controller || !in.controller->gesture_needs_full_ends) return;
  for (const ChannelLine& l : in.reports.sticks.channels)
    if (l.read && l.stick &&
        (*l.channel.low_us > 1000 + lands_usably_us || *l.channel.high_us < 2000 - lands_usably_us))
      snags.push_back(snag(code, Severity::fix_first, subject_of(l.channel),
                           name_of(l.channel) + " reaches " + number_text(*l.channel.low_us, 0) + " to " +
                               number_text(*l.channel.high_us, 0) +
                               " µs: the stick gesture of this class will not count",
                           "It stores its level only when both ends are really reached.",
                           "Dial in the travel that the sticks station shows."));
}

void tight_position(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  for (const SwitchLine& s : in.reports.sticks.switches)
    for (const SwitchPosition& p : s.positions) {
      if (!s.measured || p.mode.empty() || p.guard_us >= least_guard_us) continue;
      Snag n = snag(code, Severity::fix_first, "channel " + std::to_string(s.channel),
                    "A switch position lands " + number_text(p.guard_us, 0) + " µs from a mode boundary (" +
                        number_text(p.pulse_us, 0) + " µs, " + p.mode + ")",
                    "A little warmth, and it is another mode.", "Put the boundaries half way between the positions.");
      n.fix = Fix{"Boundaries half way between the positions",
                  [channel = s.channel](const Rig& rig) { return with_even_boundaries(rig, channel); }};
      snags.push_back(std::move(n));
      break;
    }
}

void manual_out_of_reach(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  if (in.rig.modes.empty()) return;
  const ModeChoice* manual = find_in(in.rig.modes, [](const ModeChoice& m) { return m.mode == "manual"; });
  if (!manual) {
    snags.push_back(snag(code, Severity::fix_first, "modes", "No switch position gives manual",
                         "Manual is the way out when a correction works the wrong way.",
                         "Give manual an end of the mode switch."));
    return;
  }
  const Channel* c = find_in(in.rig.radio.channels, [&](const Channel& x) { return x.number == manual->channel; });
  const bool many =
      c && c->control &&
      (*c->control == Control::multi_position || *c->control == Control::rotary || *c->control == Control::slider);
  if (many && manual->from_us > 1100 && manual->to_us < 1900)
    snags.push_back(snag(
        code, Severity::fix_first, "modes", "Manual lies in the middle of a " + spoken(word(*c->control)) + " control",
        "It has to be found without looking, in one movement.", "Put manual at an end, or on a switch of its own."));
}

void hidden_loss(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  for (const LossLine& l : in.reports.sticks.losses)
    if (l.chosen && !l.noticed && in.controller) {
      const bool hold = l.behaviour == OnLoss::hold;
      snags.push_back(
          snag(code, hold && !in.controller->notices.empty() ? Severity::grounds : Severity::fix_first, "receiver",
               hold ? "On loss the receiver repeats its last values" : "The controller can't notice a loss of the link",
               hold ? "Nobody would notice that the link is gone, and the throttle would stay where it was." : l.words,
               "Store another loss behaviour in the receiver, after binding: silence, a flag, or throttle closed and a "
               "mode that levels."));
    }
}

void budget(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  if (in.reports.sticks.free_channels >= 0) return;
  snags.push_back(snag(
      code, Severity::fix_first, "transmitter",
      "The plan uses " + std::to_string(-in.reports.sticks.free_channels) + " more channels than this transmitter has",
      "What has no channel can't be worked.", "Let functions share a switch, or fix one on or off in the controller."));
}

void limited_stick(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  for (const std::string& words : in.reports.sticks.authority)
    snags.push_back(snag(code, Severity::worth_knowing, "transmitter", words,
                         "Rates limit the stick, not the stabilizer.",
                         "Start on middle rates; know that a correction can be stronger than the stick."));
}

void gestures(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  if (!in.rig.radio.transmitter.gestures_change_settings) return;
  Snag n = snag(code, Severity::fix_first, "transmitter", "Stick gestures that change settings are on",
                "A gesture made in flight changes a setting in flight.", "Switch them off once the set-up is done.");
  n.fix = Fix{"They are off", [](const Rig& rig) {
                Rig r = rig;
                r.radio.transmitter.gestures_change_settings = false;
                return r;
              }};
  snags.push_back(std::move(n));
}

void one_memory(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  const auto& others = in.rig.radio.transmitter.also_serves;
  if (others.empty()) return;
  std::string names;
  for (const std::string& o : others) names += (names.empty() ? "" : ", ") + o;
  snags.push_back(snag(code, Severity::worth_knowing, "transmitter", "This transmitter memory also serves " + names,
                       "What is changed in it touches all of them.",
                       "Keep it plain, or copy it for this model first; look at the others after a change."));
}

void safe_at_power_up(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  const Channel* arm = in.rig.channel(F::arm);
  if (arm && arm->fixed_us && *arm->fixed_us > 1700)
    snags.push_back(snag(code, Severity::grounds, subject_of(*arm), "Arming is fixed on",
                         "The motor would be live as soon as the battery is in.",
                         "Put arming on a switch that is safe at power-up."));
  for (const ChannelLine& l : in.reports.sticks.channels)
    if (l.channel.function == F::throttle && l.read && !l.channel.inverted && *l.channel.low_us > 1060)
      snags.push_back(snag(code, Severity::fix_first, subject_of(l.channel),
                           "A closed throttle reads " + number_text(*l.channel.low_us, 0) + " µs",
                           "Controllers refuse to arm, or the motor creeps, when closed is not low.",
                           "Dial in the travel that the sticks station shows."));
}

void two_on_one_function(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  for (const Channel& c : in.rig.radio.channels)
    for (const Channel& d : in.rig.radio.channels)
      if (c.number < d.number && c.function == d.function && is_stick(c.function))
        snags.push_back(snag(code, Severity::fix_first, subject_of(d),
                             "Channels " + std::to_string(c.number) + " and " + std::to_string(d.number) +
                                 " both carry " + std::string(word(c.function)),
                             "The controller takes one of them.", "Listen to the sticks, or free one of them."));
}

void poor_gimbal(const Inspection& in, std::string_view code, std::vector<Snag>& snags) {
  for (const Channel& c : in.rig.radio.channels) {
    if (!is_stick(c.function)) continue;
    if (c.noise_us.value_or(0) > noisy_us)
      snags.push_back(snag(code, Severity::fix_first, subject_of(c),
                           name_of(c) + " jitters by " + number_text(*c.noise_us, 1) + " µs at rest",
                           "The surface trembles with it, and the servo wears.",
                           "Clean or replace the gimbal's sensor; look at the transmitter's supply."));
    if (c.function != F::throttle && c.centre_spread_us.value_or(0) > worn_us)
      snags.push_back(snag(code, Severity::fix_first, subject_of(c),
                           name_of(c) + " comes back to centres " + number_text(*c.centre_spread_us, 1) + " µs apart",
                           "No sub-trim cures a worn gimbal.", "Replace its spring or bearing."));
  }
}

}  // namespace

const std::vector<Rule>& sticks_rules() {
  static const std::vector<Rule> rules{{"STICKS-01", transmitter_reversed}, {"STICKS-02", channel_missing},
                                       {"STICKS-03", transmitter_mixes},    {"STICKS-04", much_sub_trim},
                                       {"STICKS-05", does_not_land},        {"STICKS-06", wrong_way},
                                       {"STICKS-07", reaches_its_limit},    {"STICKS-08", gesture_needs_ends},
                                       {"STICKS-09", tight_position},       {"STICKS-10", manual_out_of_reach},
                                       {"STICKS-11", hidden_loss},          {"STICKS-12", budget},
                                       {"STICKS-13", limited_stick},        {"STICKS-14", gestures},
                                       {"STICKS-15", one_memory},           {"STICKS-16", safe_at_power_up},
                                       {"STICKS-17", two_on_one_function},  {"STICKS-18", poor_gimbal}};
  return rules;
}

}  // namespace rigging
