#include "sticks/sticks.h"

#include <algorithm>
#include <cmath>

#include "base/find.h"
#include "base/number.h"
#include "wiring/ports.h"

namespace rigging {
namespace {

using F = ChannelFunction;

constexpr double least_span_us = 50;  // less between centre and end: it was not moved

double on_grid(double value, double step) { return step > 0 ? std::round(value / step) * step : value; }

std::string signed_text(double value, int places) { return (value > 0 ? "+" : "") + number_text(value, places); }

ChannelLine line_of(const Channel& c, const ControllerClass* controller, const Transmitter& t) {
  ChannelLine line;
  line.channel = c;
  line.stick = is_stick(c.function);
  if (controller) line.wanted = wanted_reach(*controller, t, c.function);
  line.read = c.low_us && c.centre_us && c.high_us;
  line.exempt = c.function == F::gain;
  if (!line.stick) {
    line.verdict = line.exempt  ? "its travel is the gain: it need not land"
                   : c.fixed_us ? "fixed at " + number_text(*c.fixed_us, 0) + " µs"
                                : "";
    return line;
  }
  if (!line.read) {
    line.verdict = "not read yet";
    return line;
  }
  const double worst =
      std::max({std::abs(*c.low_us - line.wanted.low_us), std::abs(*c.centre_us - line.wanted.centre_us),
                std::abs(*c.high_us - line.wanted.high_us)});
  // A closed throttle is its low end: there is no centre to land on.
  const double worst_end =
      std::max(std::abs(*c.low_us - line.wanted.low_us), std::abs(*c.high_us - line.wanted.high_us));
  const double off = c.function == F::throttle ? worst_end : worst;
  const bool meant_to_fall = controller && ((controller->sticks.pitch_back_falls && c.function == F::pitch) ||
                                            (controller->sticks.throttle_opens_falls && c.function == F::throttle));
  line.wrong_way = c.inverted != meant_to_fall;
  if (line.wrong_way) {
    line.state = ChannelLine::State::off;
    line.verdict = "reads the wrong way round";
    if (const auto dial = dial_in(c, t, line.wanted, true)) line.dial = *dial;
    return line;
  }
  if (c.learned) {
    line.state = ChannelLine::State::lands;
    line.verdict = "the controller has learned these ends";
    return line;
  }
  line.state = off <= t.tolerance_us    ? ChannelLine::State::lands
               : off <= lands_usably_us ? ChannelLine::State::usable
                                        : ChannelLine::State::off;
  line.verdict = off <= t.tolerance_us
                     ? "lands"
                     : number_text(off, 1) + " µs off at worst" + (off <= lands_usably_us ? ": usable" : "");
  if (line.state != ChannelLine::State::lands)
    if (const auto dial = dial_in(c, t, line.wanted, false)) line.dial = *dial;
  return line;
}

/// `mixed`: one switch moves this channel and another, which makes it off or on.
std::vector<double> plain_positions(const Channel& c, bool mixed = false) {
  if (c.fixed_us) return {*c.fixed_us};
  if (mixed) return {1000, 2000};
  switch (c.control.value_or(Control::three_position)) {
    case Control::two_position: return {1000, 2000};
    case Control::multi_position: return {1000, 1200, 1400, 1600, 1800, 2000};
    case Control::three_position: return {1000, 1500, 2000};
    default: return {};
  }
}

std::vector<SwitchLine> switches_of(const Rig& rig) {
  std::vector<SwitchLine> all;
  for (const Channel& c : rig.radio.channels) {
    if (is_stick(c.function)) continue;
    const bool mixed =
        c.with_channel > 0 || find_in(rig.radio.channels, [&](const Channel& x) { return x.with_channel == c.number; });
    SwitchLine s{c.number, c.function, !c.positions_us.empty(), {}};
    for (const double us : s.measured ? c.positions_us : plain_positions(c, mixed)) {
      SwitchPosition p{us, {}, 1000};
      for (const ModeChoice& m : rig.modes) {
        if (m.channel != c.number) continue;
        if (us >= m.from_us && us <= m.to_us && p.mode.empty()) p.mode = m.mode;
        // The outer edges of the whole band are no boundary between two modes.
        for (const double edge : {m.from_us, m.to_us})
          if (edge > 950 && edge < 2050) p.guard_us = std::min(p.guard_us, std::abs(us - edge));
      }
      s.positions.push_back(std::move(p));
    }
    all.push_back(std::move(s));
  }
  return all;
}

bool answers(const Rig& rig, Axis axis) {
  return std::any_of(rig.outputs.begin(), rig.outputs.end(), [&](const Output& o) { return o.mix.of(axis) != 0; });
}

std::vector<BudgetLine> budget_of(const Rig& rig, const ControllerClass* controller) {
  std::vector<BudgetLine> all;
  const bool full = controller && controller->family == Family::flight_controller;
  const auto add = [&](F function, bool needed, const std::string& without) {
    BudgetLine line{function, 0, needed, without};
    if (const Channel* c = rig.channel(function)) {
      line.channel = c->number;
      line.words = c->fixed_us          ? "fixed at " + number_text(*c->fixed_us, 0) + " µs"
                   : c->control         ? label_of(name_of(*c->control))
                   : is_stick(function) ? "stick"
                                        : "";
    } else if (!needed && without.empty()) {
      return;
    }
    all.push_back(line);
  };
  const bool motor =
      std::any_of(rig.outputs.begin(), rig.outputs.end(), [](const Output& o) { return o.mix.throttle != 0; });
  for (const Axis axis : all_axes) add(*from_name<F>(name_of(axis)), answers(rig, axis), "no stick works it");
  add(F::throttle, motor, "the motor can't be worked");
  // Units with an input for each axis hear of a mode only where they have an input for it.
  const auto hears = [&](std::string_view what) {
    return std::any_of(controller->ports.begin(), controller->ports.end(),
                       [&](const Terminal& t) { return t.serves == what; });
  };
  add(F::mode, controller && controller->proof.modes.size() > 1 && (!hears("roll") || hears("mode")),
      "the mode is fixed");
  add(F::arm, full, "arming has to share another switch, or a stick gesture");
  add(F::return_home, false, full ? "return comes only with the loss of the link" : "");
  add(F::gain, false, "");
  add(F::flap, std::any_of(rig.outputs.begin(), rig.outputs.end(), [](const Output& o) { return o.mix.flap != 0; }),
      "flaps stay up");
  return all;
}

std::vector<LossLine> losses_of(const Rig& rig, const ControllerClass* controller, std::optional<Signal> signal) {
  const bool serial = signal == Signal::inverted_serial || signal == Signal::two_way_serial;
  std::vector<LossLine> all;
  for (const OnLoss b : {OnLoss::no_pulses, OnLoss::flag, OnLoss::preset, OnLoss::hold}) {
    LossLine line;
    line.behaviour = b;
    line.possible = !signal || b != OnLoss::flag || serial;
    line.noticed = line.possible && controller &&
                   std::find(controller->sticks.notices.begin(), controller->sticks.notices.end(), b) !=
                       controller->sticks.notices.end();
    line.chosen = rig.radio.on_loss == b;
    const std::string notes = line.noticed ? "The controller notices." : "The controller can't notice.";
    switch (b) {
      case OnLoss::no_pulses: line.words = "The receiver falls silent. " + notes; break;
      case OnLoss::flag:
        line.words =
            line.possible ? "The receiver says so in its frames. " + notes : "This signal has no room for a flag.";
        break;
      case OnLoss::preset:
        line.words = "The receiver gives stored positions. " + notes + " Store throttle closed and a mode that levels.";
        break;
      default: line.words = "The receiver repeats its last values: the loss stays hidden. " + notes; break;
    }
    all.push_back(std::move(line));
  }
  return all;
}

}  // namespace

bool is_stick(ChannelFunction f) { return f == F::roll || f == F::pitch || f == F::throttle || f == F::yaw; }

std::string function_label(F f) {
  switch (f) {
    case F::roll: return "roll stick";
    case F::pitch: return "pitch stick";
    case F::throttle: return "throttle stick";
    case F::yaw: return "yaw stick";
    case F::mode: return "mode switch";
    case F::arm: return "arming switch";
    case F::return_home: return "return switch";
    case F::gain: return "gain control";
    case F::flap: return "flap control";
    case F::other: return "free control";
  }
  return {};
}

Reach wanted_reach(const ControllerClass& c, const Transmitter& t, F function) {
  const bool steers = function == F::roll || function == F::pitch || function == F::yaw;
  if (c.sticks.travel_percent == 100 || !steers) return {};
  // A pulse beyond what a servo pulse can be is of no use to anyone.
  const double half = std::min(c.sticks.travel_percent / 100 * t.full_us, 625.0);
  return {1500 - half, 1500, 1500 + half};
}

double us_from_page(const ControllerClass& c, double shown) {
  return c.sticks.reads_full > 0 ? 1500 + 500 * shown / c.sticks.reads_full : shown;
}
double page_from_us(const ControllerClass& c, double us) {
  return c.sticks.reads_full > 0 ? (us - 1500) / 500 * c.sticks.reads_full : us;
}

Result<DialIn> dial_in(const Channel& c, const Transmitter& t, const Reach& wanted, bool inverted) {
  const std::string where = "channel " + std::to_string(c.number);
  if (!c.low_us || !c.centre_us || !c.high_us)
    return failure(where, "low, centre and high are not all read", "three readings");
  if (!(*c.low_us + least_span_us <= *c.centre_us && *c.centre_us + least_span_us <= *c.high_us))
    return failure(where,
                   "read " + number_text(*c.low_us, 1) + ", " + number_text(*c.centre_us, 1) + ", " +
                       number_text(*c.high_us, 1) + " µs: the stick was not moved, or the channel does not follow it",
                   "low, centre and high at least 50 µs apart");
  if (c.travel_low_percent <= 0 || c.travel_high_percent <= 0)
    return failure(where, "a travel of 0 % was set while reading", "the travels that the transmitter shows");

  // How far the hand reaches to either side, as a share of full travel; and where its own middle is.
  double reach_low = (*c.centre_us - *c.low_us) / (c.travel_low_percent / 100 * t.full_us);
  double reach_high = (*c.high_us - *c.centre_us) / (c.travel_high_percent / 100 * t.full_us);
  double middle = *c.centre_us;
  const bool throttle = c.function == F::throttle;
  if (throttle) {
    // A throttle has no middle to let go to: its gimbal is taken to reach equally far to both sides.
    reach_low = reach_high =
        (*c.high_us - *c.low_us) / ((c.travel_low_percent + c.travel_high_percent) / 100 * t.full_us);
    middle = *c.low_us + reach_low * c.travel_low_percent / 100 * t.full_us;
  }
  double own_middle = middle - 1500 - c.sub_trim_us;
  if (inverted) {
    std::swap(reach_low, reach_high);
    own_middle = -own_middle;
  }
  DialIn d;
  d.turn_round = inverted;
  // The throttle's middle is free: its sub-trim stays.
  double sub_trim = wanted.centre_us - 1500 - own_middle;
  if (throttle) sub_trim = c.sub_trim_us;
  d.sub_trim_us = std::clamp(on_grid(sub_trim, t.sub_trim_step_us), -t.most_sub_trim_us, t.most_sub_trim_us);
  d.lands.centre_us = 1500 + d.sub_trim_us + own_middle;
  const auto travel = [&](double span_us, double reach) {
    return std::clamp(on_grid(100 * span_us / (reach * t.full_us), t.step_percent), 0.0, t.most_travel_percent);
  };
  d.travel_low_percent = travel(d.lands.centre_us - wanted.low_us, reach_low);
  d.travel_high_percent = travel(wanted.high_us - d.lands.centre_us, reach_high);
  d.lands.low_us = d.lands.centre_us - reach_low * d.travel_low_percent / 100 * t.full_us;
  d.lands.high_us = d.lands.centre_us + reach_high * d.travel_high_percent / 100 * t.full_us;

  const auto miss = [&](const char* what, double lands, double aim, bool at_limit, const std::string& setting) {
    if (std::abs(lands - aim) <= t.tolerance_us) return;
    d.limits.push_back(at_limit ? std::string(what) + " stops at " + number_text(lands, 1) + " µs: " + setting +
                                      " is all that this transmitter has"
                                : std::string(what) + " lands on " + number_text(lands, 1) +
                                      " µs: the steps of this transmitter come no closer");
  };
  if (!throttle)
    miss("the centre", d.lands.centre_us, wanted.centre_us, std::abs(d.sub_trim_us) >= t.most_sub_trim_us,
         shown_sub_trim(t, d.sub_trim_us));
  miss("the low end", d.lands.low_us, wanted.low_us, d.travel_low_percent >= t.most_travel_percent,
       shown_travel(t, d.travel_low_percent));
  miss("the high end", d.lands.high_us, wanted.high_us, d.travel_high_percent >= t.most_travel_percent,
       shown_travel(t, d.travel_high_percent));
  d.changes = inverted || std::abs(d.sub_trim_us - c.sub_trim_us) > t.sub_trim_step_us / 2 ||
              std::abs(d.travel_low_percent - c.travel_low_percent) > t.step_percent / 2 ||
              std::abs(d.travel_high_percent - c.travel_high_percent) > t.step_percent / 2;
  return d;
}

Channel dialled(Channel c, const DialIn& d) {
  if (d.turn_round) c.reversed = !c.reversed;
  c.sub_trim_us = d.sub_trim_us;
  c.travel_low_percent = d.travel_low_percent;
  c.travel_high_percent = d.travel_high_percent;
  c.low_us.reset();
  c.centre_us.reset();
  c.high_us.reset();
  c.learned = false;
  if (d.turn_round) c.inverted = !c.inverted;
  return c;
}

std::string shown_sub_trim(const Transmitter& t, double us) {
  return t.counts == TravelUnit::us ? signed_text(us, 1) + " µs" : signed_text(100 * us / t.full_us, 1) + " %";
}
std::string shown_travel(const Transmitter& t, double percent) {
  return t.counts == TravelUnit::us ? number_text(percent / 100 * t.full_us, 1) + " µs"
                                    : number_text(percent, 1) + " %";
}

SticksReport analyze_sticks(const Rig& rig, const Catalogue& catalogue) {
  SticksReport r;
  const ControllerClass* controller = catalogue.controller(rig.controller.kind);
  for (const Channel& c : rig.radio.channels) r.channels.push_back(line_of(c, controller, rig.radio.transmitter));
  std::sort(r.channels.begin(), r.channels.end(),
            [](const auto& a, const auto& b) { return a.channel.number < b.channel.number; });
  r.switches = switches_of(rig);
  r.budget = budget_of(rig, controller);
  const auto used = std::count_if(rig.radio.channels.begin(), rig.radio.channels.end(),
                                  [](const Channel& c) { return c.function != F::other || c.fixed_us; });
  r.free_channels = rig.radio.transmitter.channels - static_cast<int>(used);
  r.signal = receiver_signal(rig, catalogue);
  r.losses = losses_of(rig, controller, r.signal);
  r.all_read = r.all_land = !rig.radio.channels.empty();
  for (const BudgetLine& b : r.budget) {
    if (!b.needed || !is_stick(b.function)) continue;
    const ChannelLine* line =
        find_in(r.channels, [&](const ChannelLine& l) { return l.channel.function == b.function; });
    r.all_read = r.all_read && line && line->read;
    r.all_land = r.all_land && line && (line->state == ChannelLine::State::lands);
  }
  for (const Axis axis : all_axes) {
    const Channel* c = rig.channel(*from_name<F>(name_of(axis)));
    if (!c || c->rate_percent >= 100 || !answers(rig, axis)) continue;
    r.authority.push_back(capital(std::string(name_of(axis))) + ": the stick asks for at most " +
                          number_text(c->rate_percent, 0) +
                          " % of the travel; the stabilizer still has all of it, and full stick leaves it " +
                          number_text(100 - c->rate_percent, 0) + " % on that side");
  }
  return r;
}

Rig with_even_boundaries(Rig rig, int channel) {
  const Channel* c = find_in(rig.radio.channels, [&](const Channel& x) { return x.number == channel; });
  if (!c) return rig;
  const std::vector<double> at = c->positions_us.empty() ? plain_positions(*c) : c->positions_us;
  if (at.empty()) return rig;
  std::vector<std::string> mode;
  std::string before;
  for (const double us : at) {
    for (const ModeChoice& m : rig.modes)
      if (m.channel == channel && us >= m.from_us && us <= m.to_us) {
        before = m.mode;
        break;
      }
    mode.push_back(before);
  }
  // Positions below the first range that takes one belong to that range.
  for (auto m = mode.rbegin(); m != mode.rend(); ++m) {
    if (m->empty() && m != mode.rbegin()) *m = *(m - 1);
  }
  if (mode.front().empty()) return rig;
  std::erase_if(rig.modes, [&](const ModeChoice& m) { return m.channel == channel; });
  double from = 900;
  for (std::size_t i = 0; i < at.size(); ++i) {
    const bool last = i + 1 == at.size();
    if (!last && mode[i + 1] == mode[i]) continue;
    const double to = last ? 2100 : std::round((at[i] + at[i + 1]) / 2);
    rig.modes.push_back({channel, from, to, mode[i], {}});
    from = to;
  }
  return rig;
}

}  // namespace rigging
