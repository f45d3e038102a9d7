#include <algorithm>
#include <cmath>

#include "base/find.h"
#include "base/number.h"
#include "direction/direction_checks.h"
#include "review/rules.h"
#include "sticks/edits.h"
#include "sticks/setup.h"
#include "wiring/ports.h"
#include "wiring/wiring.h"

namespace rigging {
namespace rules::sticks {
namespace {

using F = ChannelFunction;

std::string subject_of(const Channel& c) { return "channel " + std::to_string(c.number); }
std::string name_of(const Channel& c) {
  return capital(function_label(c.function)) + " (channel " + std::to_string(c.number) + ")";
}

bool steers(F f) { return f == F::roll || f == F::pitch || f == F::yaw; }

void transmitter_reversed(const Inspection& in, Findings& found) {
  if (!in.controller || in.controller->sticks.stick_direction_in_transmitter) return;
  for (const Channel& c : in.rig.radio.channels)
    if (c.reversed && (c.function == ChannelFunction::roll || c.function == ChannelFunction::pitch ||
                       c.function == ChannelFunction::yaw)) {
      found.add(Severity::worth_knowing, "channel " + std::to_string(c.number),
                "The transmitter reverses " + std::string(name_of(c.function)),
                "Right only if the controller then receives right, nose up and right as rising; correcting an "
                "output's direction here hides a wrong correction.",
                "Read the channel in the controller before deciding.");
    }
}

void channel_missing(const Inspection& in, Findings& found) {
  if (in.rig.radio.channels.empty()) return;
  for (const CheckStatus& c : in.checks) {
    if (c.id.family != stick_family) continue;
    const bool carried = std::any_of(in.rig.radio.channels.begin(), in.rig.radio.channels.end(),
                                     [&](const Channel& channel) { return name_of(channel.function) == c.id.subject; });
    if (!carried)
      found.add(Severity::fix_first, c.id.subject, "No channel carries " + c.id.subject,
                "The controller can't hear the stick.", "Assign a channel.");
  }
}

/// Classes that take directions, mixes and trims for themselves want a plain transmitter.
bool wants_plain(const Inspection& in) {
  return in.controller && !in.controller->sticks.stick_direction_in_transmitter;
}

void transmitter_mixes(const Inspection& in, Findings& found) {
  if (!wants_plain(in) || !in.rig.radio.transmitter.mixes) return;
  Snag& n = found.add(
      Severity::grounds, "transmitter", "The transmitter mixes channels, and so does the controller",
      "A stick would reach a surface twice, and the stabilizer would correct another way than the stick steers.",
      "Switch every mix off in the transmitter.");
  n.fix = sets("It is switched off", {{"radio/transmitter/mixes", false}});
}

void much_sub_trim(const Inspection& in, Findings& found) {
  constexpr double most_us = 60;  // common practice: beyond it the gimbal or the trim lever is meant
  if (!wants_plain(in)) return;
  for (const Channel& c : in.rig.radio.channels)
    if (steers(c.function) && std::abs(c.sub_trim_us) > most_us)
      found.add(Severity::fix_first, subject_of(c),
                name_of(c) + " has " + number_text(c.sub_trim_us, 0) + " µs of sub-trim",
                "Sub-trim is there to centre the pulse; a surface is centred by its linkage and output.",
                "Put the trim lever in the middle, centre the surface at its output, and listen to the sticks again.");
}

void does_not_land(const Inspection& in, Findings& found) {
  std::string names, first;
  int count = 0;
  for (const ChannelLine& l : in.reports.sticks().channels) {
    if (l.state != ChannelLine::State::off || l.exempt || l.wrong_way) continue;
    if (count++ == 0) first = subject_of(l.channel);
    names += (names.empty() ? "" : ", ") + std::string(name_of(l.channel.function)) + " " +
             l.verdict.substr(0, l.verdict.find(" off"));
  }
  if (count > 0)
    found.add(Severity::fix_first, first,
              (count == 1 ? "One stick lands beside where it should: "
                          : std::to_string(count) + " sticks land beside where they should: ") +
                  names,
              "Short ends take from full command; an end beyond its mark is cut off; a centre beside its "
              "mark steers all the time.",
              "Dial in what the sticks station shows, then listen again.");
}

void wrong_way(const Inspection& in, Findings& found) {
  for (const ChannelLine& l : in.reports.sticks().channels)
    if (l.wrong_way) {
      const bool throttle = l.channel.function == F::throttle;
      found.add(throttle ? Severity::grounds : Severity::fix_first, subject_of(l.channel),
                name_of(l.channel) + " reads the wrong way round",
                throttle ? "A closed stick would be full throttle with this class."
                         : "The controller hears the opposite of what is meant.",
                "Turn this channel's direction round in the transmitter, then listen again.");
    }
}

void reaches_its_limit(const Inspection& in, Findings& found) {
  for (const ChannelLine& l : in.reports.sticks().channels)
    if (l.dial && !l.dial->limits.empty())
      found.add(Severity::worth_knowing, subject_of(l.channel), name_of(l.channel) + ": " + l.dial->limits.front(),
                "Not every transmitter reaches every end.",
                in.controller && in.controller->sticks.learns_ends
                    ? "Let the controller learn the ends as they are."
                    : "Use another stick or channel, or live with the ends as they are.");
}

void gesture_needs_ends(const Inspection& in, Findings& found) {
  if (!in.controller || !in.controller->sticks.gesture_needs_full_ends) return;
  for (const ChannelLine& l : in.reports.sticks().channels)
    if (l.read && l.stick &&
        (*l.channel.low_us > 1000 + lands_usably_us || *l.channel.high_us < 2000 - lands_usably_us))
      found.add(Severity::fix_first, subject_of(l.channel),
                name_of(l.channel) + " reaches " + number_text(*l.channel.low_us, 0) + " to " +
                    number_text(*l.channel.high_us, 0) + " µs: the stick gesture of this class will not count",
                "It stores its level only when both ends are really reached.",
                "Dial in the travel that the sticks station shows.");
}

void tight_position(const Inspection& in, Findings& found) {
  for (const SwitchLine& s : in.reports.sticks().switches)
    for (const SwitchPosition& p : s.positions) {
      if (!s.measured || p.mode.empty() || p.guard_us >= least_guard_us) continue;
      Snag& n =
          found.add(Severity::fix_first, "channel " + std::to_string(s.channel),
                    "A switch position lands " + number_text(p.guard_us, 0) + " µs from a mode boundary (" +
                        number_text(p.pulse_us, 0) + " µs, " + p.mode + ")",
                    "A little warmth, and it is another mode.", "Put the boundaries half way between the positions.");
      n.fix = Fix{"Boundaries half way between the positions",
                  [channel = s.channel](const Rig& rig, const Catalogue&) { return even_boundaries(rig, channel); }};
      break;
    }
}

void manual_out_of_reach(const Inspection& in, Findings& found) {
  if (in.rig.modes.empty()) return;
  const ModeChoice* manual = find_in(in.rig.modes, [](const ModeChoice& m) { return m.mode == "manual"; });
  if (!manual) {
    found.add(Severity::fix_first, "modes", "No switch position gives manual",
              "Manual is the way out when a correction works the wrong way.", "Give manual an end of the mode switch.");
    return;
  }
  const Channel* c = find_in(in.rig.radio.channels, [&](const Channel& x) { return x.number == manual->channel; });
  const bool many =
      c && c->control &&
      (*c->control == Control::multi_position || *c->control == Control::rotary || *c->control == Control::slider);
  if (many && manual->from_us > 1100 && manual->to_us < 1900)
    found.add(
        Severity::fix_first, "modes", "Manual lies in the middle of a " + label_of(name_of(*c->control)) + " control",
        "It has to be found without looking, in one movement.", "Put manual at an end, or on a switch of its own.");
}

void hidden_loss(const Inspection& in, Findings& found) {
  for (const LossLine& l : in.reports.sticks().losses)
    if (l.chosen && !l.noticed && in.controller) {
      const bool hold = l.behaviour == OnLoss::hold;
      found.add(
          hold && !in.controller->sticks.notices.empty() ? Severity::grounds : Severity::fix_first, "receiver",
          hold ? "On loss the receiver repeats its last values" : "The controller can't notice a loss of the link",
          hold ? "Nobody would notice that the link is gone, and the throttle would stay where it was." : l.words,
          "Store another loss behaviour in the receiver, after binding: silence, a flag, or throttle closed and a "
          "mode that levels.");
    }
}

void budget(const Inspection& in, Findings& found) {
  if (in.reports.sticks().free_channels >= 0) return;
  found.add(Severity::fix_first, "transmitter",
            "The plan uses " + std::to_string(-in.reports.sticks().free_channels) +
                " more channels than this transmitter has",
            "What has no channel can't be worked.",
            "Let functions share a switch, or fix one on or off in the controller.");
}

void limited_stick(const Inspection& in, Findings& found) {
  for (const std::string& words : in.reports.sticks().authority)
    found.add(Severity::worth_knowing, "transmitter", words, "Rates limit the stick, not the stabilizer.",
              "Start on middle rates; know that a correction can be stronger than the stick.");
}

void gestures(const Inspection& in, Findings& found) {
  if (!in.rig.radio.transmitter.gestures_change_settings) return;
  Snag& n =
      found.add(Severity::fix_first, "transmitter", "Stick gestures that change settings are on",
                "A gesture made in flight changes a setting in flight.", "Switch them off once the set-up is done.");
  n.fix = sets("They are off", {{"radio/transmitter/gestures_change_settings", false}});
}

void one_memory(const Inspection& in, Findings& found) {
  const auto& others = in.rig.radio.transmitter.also_serves;
  if (others.empty()) return;
  std::string names;
  for (const std::string& o : others) names += (names.empty() ? "" : ", ") + o;
  found.add(Severity::worth_knowing, "transmitter", "This transmitter memory also serves " + names,
            "What is changed in it touches all of them.",
            "Keep it plain, or copy it for this model first; look at the others after a change.");
}

void safe_at_power_up(const Inspection& in, Findings& found) {
  const Channel* arm = in.rig.channel(F::arm);
  if (arm && arm->fixed_us && *arm->fixed_us > 1700)
    found.add(Severity::grounds, subject_of(*arm), "Arming is fixed on",
              "The motor would be live as soon as the battery is in.",
              "Put arming on a switch that is safe at power-up.");
  const bool closed_is_high = in.controller && in.controller->sticks.throttle_opens_falls;
  for (const ChannelLine& l : in.reports.sticks().channels)
    if (l.channel.function == F::throttle && l.read && !l.wrong_way &&
        (closed_is_high ? *l.channel.high_us < 1940 : *l.channel.low_us > 1060))
      found.add(
          Severity::fix_first, subject_of(l.channel),
          "A closed throttle reads " + number_text(closed_is_high ? *l.channel.high_us : *l.channel.low_us, 0) + " µs",
          "Controllers refuse to arm, or the motor creeps, when closed is not " +
              std::string(closed_is_high ? "high, as this class wants it." : "low."),
          "Dial in the travel that the sticks station shows.");
}

void two_on_one_function(const Inspection& in, Findings& found) {
  for (const Channel& c : in.rig.radio.channels)
    for (const Channel& d : in.rig.radio.channels)
      if (c.number < d.number && c.function == d.function && is_stick(c.function))
        found.add(Severity::fix_first, subject_of(d),
                  "Channels " + std::to_string(c.number) + " and " + std::to_string(d.number) + " both carry " +
                      std::string(name_of(c.function)),
                  "The controller takes one of them.", "Listen to the sticks, or free one of them.");
}

void poor_gimbal(const Inspection& in, Findings& found) {
  for (const Channel& c : in.rig.radio.channels) {
    if (!is_stick(c.function)) continue;
    if (c.noise_us.value_or(0) > noisy_us)
      found.add(Severity::fix_first, subject_of(c),
                name_of(c) + " jitters by " + number_text(*c.noise_us, 1) + " µs at rest",
                "The surface trembles with it, and the servo wears.",
                "Clean or replace the gimbal's sensor; look at the transmitter's supply.");
    if (c.function != F::throttle && c.centre_spread_us.value_or(0) > worn_us)
      found.add(Severity::fix_first, subject_of(c),
                name_of(c) + " comes back to centres " + number_text(*c.centre_spread_us, 1) + " µs apart",
                "No sub-trim cures a worn gimbal.", "Replace its spring or bearing.");
  }
}

void fixed_channel(const Inspection& in, Findings& found) {
  if (!in.controller || in.rig.radio.channels.empty()) return;
  const std::tuple<int, ChannelFunction, const char*, const char*> fixed[] = {
      {in.controller->sticks.mode_channel, ChannelFunction::mode, "its modes", "The modes can't be switched."},
      {in.controller->sticks.unlock_channel, ChannelFunction::arm, "the motor's lock",
       "While it is locked the motor only beeps, and the stabilized modes sleep."}};
  for (const auto& [number, function, what, why] : fixed) {
    if (number == 0) continue;
    const Channel* now = find_in(in.rig.radio.channels, [n = number](const Channel& c) { return c.number == n; });
    if (now && now->function == function) continue;
    const std::string place = "channel " + std::to_string(number);
    found
        .add(Severity::fix_first, place,
             "This class listens on " + place + " for " + what + ", and the plan has " +
                 (now ? label_of(name_of(now->function)) : std::string("nothing")) + " there",
             why,
             "Put a switch on " + place + ": " + what +
                 ". If the leaflet of your unit names another channel, write it into My board.")
        .fix =
        Fix{capital(place) + " for " + what, [number = number, function = function](const Rig& rig, const Catalogue&) {
              return channel_serves(rig, number, function);
            }};
  }
}

/// Silence: the receiver says one thing, and the board listens for another.
void deaf_to_the_receiver(const Inspection& in, Findings& found) {
  if (!in.controller) return;
  for (const Lead& l : in.rig.leads) {
    const LeadEnd* far = far_end(l, "controller");
    const Part* p = far ? in.rig.part(far->part) : nullptr;
    const PartKind* k = p ? in.catalogue.part(p->kind) : nullptr;
    const Terminal *end = k ? k->terminal(far->socket) : nullptr,
                   *port = in.controller->terminal((far == &l.to ? l.from : l.to).socket);
    if (!end || !port || k->group != PartGroup::receiver) continue;
    const auto signal = says(*p, *end);
    const std::vector<Signal> can = signals_of(*end);
    // Plain leads that do not fit are said at the wiring.
    if (!signal || (can.size() < 2 && !takes(*port, *signal))) continue;
    const auto told = in.rig.radio.receiver_signal;
    const bool told_else = in.controller->way("receiver_signal") && told && *told != *signal;
    if (takes(*port, *signal) && !told_else) continue;
    const std::string who = capital(part_name(in.rig, in.catalogue, p->id));
    Snag& n = found.add(
        Severity::fix_first, p->id,
        who + " puts out " + signal_label(*signal) + ", and " +
            (told_else ? "the board listens for " + signal_label(*told) : port->label + " can't take that"),
        "Nothing is heard, whatever the sticks do.",
        told_else ? "Tell the board the signal that the receiver puts out, or choose the other in the transmitter."
                  : "Choose another output kind of this receiver in the transmitter.");
    if (told_else)
      n.fix = sets("The board listens for " + signal_label(*signal),
                   {{"radio/receiver_signal", std::string(name_of(*signal))}});
    for (const Signal other : can)
      if (!told_else && takes(*port, other)) {
        n.fix = Fix{"It is set to " + signal_label(other), [id = p->id, other](const Rig& rig, const Catalogue& c) {
                      return receiver_says(rig, c, id, other);
                    }};
        break;
      }
  }
}

}  // namespace
}  // namespace rules::sticks

const std::vector<Rule>& sticks_rules() {
  using namespace rules::sticks;
  static const std::vector<Rule> rules{{"STICKS-01", Station::sticks, transmitter_reversed, source::common},
                                       {"STICKS-02", Station::sticks, channel_missing, source::plan},
                                       {"STICKS-03", Station::sticks, transmitter_mixes, source::common},
                                       {"STICKS-04", Station::sticks, much_sub_trim, source::common},
                                       {"STICKS-05", Station::sticks, does_not_land, source::pulse},
                                       {"STICKS-06", Station::sticks, wrong_way, source::sign},
                                       {"STICKS-07", Station::sticks, reaches_its_limit, source::pulse},
                                       {"STICKS-08", Station::sticks, gesture_needs_ends, source::board},
                                       {"STICKS-09", Station::sticks, tight_position, source::common},
                                       {"STICKS-10", Station::sticks, manual_out_of_reach, source::common},
                                       {"STICKS-11", Station::sticks, hidden_loss, source::common},
                                       {"STICKS-12", Station::sticks, budget, source::plan},
                                       {"STICKS-13", Station::sticks, limited_stick, source::common},
                                       {"STICKS-14", Station::sticks, gestures, source::common},
                                       {"STICKS-15", Station::sticks, one_memory, source::common},
                                       {"STICKS-16", Station::sticks, safe_at_power_up, source::common},
                                       {"STICKS-17", Station::sticks, two_on_one_function, source::plan},
                                       {"STICKS-18", Station::sticks, poor_gimbal, source::common},
                                       {"STICKS-19", Station::sticks, fixed_channel, source::board},
                                       {"STICKS-20", Station::sticks, deaf_to_the_receiver, source::terminals}};
  return rules;
}

}  // namespace rigging
