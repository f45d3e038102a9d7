#include "surfaces/surfaces.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "base/find.h"
#include "base/number.h"
#include "base/polygon.h"
#include "surfaces/air_loads.h"
#include "surfaces/surface_checks.h"

namespace rigging {
namespace {

constexpr double assumed_travel_deg = 25;

/// The servo's sense is right on an aircraft built right: what counts is the way the mix asks for, seen from the
/// surface.
int built_right(const Output& o, Surface s) { return o.reversed ? -rising_lifts(o, s) : rising_lifts(o, s); }

bool works_servo(const Output& o) { return o.mix.throttle == 0; }

double roll_part(const Mix& m, double roll) {
  const double part = m.roll * roll;
  return part * (part < 0 && m.roll_differential > 0   ? 1 - m.roll_differential
                 : part > 0 && m.roll_differential < 0 ? 1 + m.roll_differential
                                                       : 1);
}

double asked(const Mix& m, const Command& c) {
  return roll_part(m, c.roll) + m.pitch * c.pitch + m.yaw * c.yaw + m.throttle * c.throttle + m.flap * c.flap;
}

/// Largest k in 0…1 with |kept + k · rest| ≤ 1.
double room_for(double kept, double rest) {
  if (std::abs(kept + rest) <= 1 || rest == 0) return 1;
  return std::clamp(((kept + rest > 0 ? 1 : -1) - kept) / rest, 0.0, 1.0);
}

double share_to_pulse(const Output& o, double share) { return output_pulse_us(o, o.reversed ? -share : share); }

std::string degrees(double v) { return number_text(v, 1) + "°"; }

/// One surface's linkage, solved once for many pulses.
struct Moved {
  const Linkage* linkage = nullptr;
  std::optional<FourBar> bar;
  const Output& output;
  Surface surface;
  int sense;

  Moved(const Rig& rig, const Output& o, Surface s)
      : linkage(rig.linkage(s)), output(o), surface(s), sense(rising_lifts(o, s)) {
    if (!linkage) return;
    if (auto built = FourBar::of(*linkage)) bar = *built;
  }
  double at(double share) const {
    const double kept = std::clamp(share, -1.0, 1.0);
    if (surface.kind == SurfaceKind::motor) return built_right(output, surface) * kept;
    if (!bar) return built_right(output, surface) * kept * assumed_travel_deg;
    // Where the linkage stops, the surface stops.
    for (double part = kept;; part *= 0.9) {
      if (const auto pose = bar->pose(arm_at(*linkage, share_to_pulse(output, part), sense))) return pose->up_deg;
      if (std::abs(part) < 0.01) return 0;
    }
  }
};

std::vector<std::string> mix_words(const Rig& rig, const std::vector<SurfaceAnswer>& answers) {
  std::vector<std::string> words;
  const auto answer = [&](SurfaceKind kind, Side side) {
    return find_in(answers, [&](const SurfaceAnswer& a) { return a.surface == Surface{kind, side}; });
  };
  const auto roll = [](const SurfaceAnswer& a) {
    return std::max(std::abs(a.positive_deg[0]), std::abs(a.negative_deg[0]));
  };
  for (const auto& [kind, name] : {std::pair{SurfaceKind::elevon, "Elevons"},
                                   {SurfaceKind::taileron, "Tail halves"},
                                   {SurfaceKind::vtail, "V-tail"},
                                   {SurfaceKind::inverted_v, "Inverted V-tail"}}) {
    const SurfaceAnswer* a = answer(kind, Side::left);
    if (!a) continue;
    const bool tail = kind == SurfaceKind::vtail || kind == SurfaceKind::inverted_v;
    const auto second = [&](const SurfaceAnswer& x) { return tail ? std::abs(x.positive_deg[2]) : roll(x); };
    const double pitch = std::abs(a->positive_deg[1]), other = second(*a);
    std::string s = std::string(name) + ": " + degrees(pitch) + " for full pitch, " + degrees(other) + " for full " +
                    (tail ? "yaw" : "roll");
    if (pitch > 0 && other > 0) s += ", a ratio of 1 to " + number_text(other / pitch, 2);
    s += "; their travel allows " + degrees(std::min(a->most_up_deg, a->most_down_deg));
    if (const SurfaceAnswer* b = answer(kind, Side::right)) {
      const double its_pitch = std::abs(b->positive_deg[1]);
      if (std::abs(its_pitch - pitch) > alike_deg || std::abs(second(*b) - other) > alike_deg)
        s += ". So the left one; the right one " + degrees(its_pitch) + " and " + degrees(second(*b)) +
             ": they are not alike";
    }
    if (kind == SurfaceKind::taileron && a->share[1] != 0)
      s += ". Roll gets " + number_text(100 * std::abs(a->share[0] / a->share[1]), 0) + " % of what pitch gets";
    words.push_back(s);
  }
  for (const SurfaceKind kind : {SurfaceKind::aileron, SurfaceKind::flaperon}) {
    const SurfaceAnswer* a = answer(kind, Side::right);
    if (!a) continue;
    const double up = std::abs(a->positive_deg[0]), down = std::abs(a->negative_deg[0]);
    std::string s = std::string(kind == SurfaceKind::aileron ? "Ailerons: " : "Flaperons: ") + degrees(up) +
                    " up and " + degrees(down) + " down for full roll";
    if (const SurfaceAnswer* left = answer(kind, Side::left)) {
      const double its_up = std::abs(left->negative_deg[0]), its_down = std::abs(left->positive_deg[0]);
      if (std::abs(its_up - up) > alike_deg || std::abs(its_down - down) > alike_deg)
        s += " on the right, " + degrees(its_up) + " up and " + degrees(its_down) +
             " down on the left: they are not alike";
    }
    if (down > 0.5 && up / down > 1.05) s += ", a differential of " + number_text(up / down, 2) + " to 1";
    if (down > 0.5 && up / down < 0.95) s += ": more down than up, which yaws the wrong way";
    const Output* o = rig.output(a->output);
    if (o && o->mix.flap != 0) {
      const double droop = deflection_deg(rig, *o, a->surface, o->mix.flap) - deflection_deg(rig, *o, a->surface, 0);
      s += ". Full flap: " + degrees(std::abs(droop)) + (droop < 0 ? " down" : " up");
    }
    words.push_back(s);
  }
  for (const SurfaceKind kind : {SurfaceKind::elevator, SurfaceKind::canard, SurfaceKind::rudder})
    for (const Side side : {Side::single, Side::left}) {
      const SurfaceAnswer* a = answer(kind, side);
      if (!a) continue;
      const std::size_t axis = kind == SurfaceKind::rudder ? 2 : 1;
      std::string s = capital(a->surface.label()) + (kind == SurfaceKind::canard ? ", on its own output: " : ": ");
      s += kind == SurfaceKind::rudder
               ? degrees(std::abs(a->positive_deg[axis])) + " to each side for full yaw"
               : degrees(std::abs(a->positive_deg[axis])) + (a->positive_deg[axis] >= 0 ? " up" : " down") +
                     " for full nose up, " + degrees(std::abs(a->negative_deg[axis])) +
                     (a->negative_deg[axis] > 0 ? " up" : " down") + " for full nose down";
      if (kind == SurfaceKind::rudder && a->share[0] != 0)
        s += ", " + degrees(std::abs(a->positive_deg[0])) + " for full roll";
      words.push_back(s);
    }
  if (const SurfaceAnswer* left = answer(SurfaceKind::motor, Side::left); left && left->share[2] != 0)
    words.push_back("Motors: full yaw takes " + number_text(100 * std::abs(left->share[2]), 0) +
                    " % of the throttle from one and gives it to the other");
  std::string assumed;
  bool all = true;
  for (const SurfaceAnswer& a : answers) {
    if (a.surface.kind == SurfaceKind::motor) continue;
    all = all && !a.in_degrees;
    if (!a.in_degrees) assumed += (assumed.empty() ? " for the " : ", ") + a.surface.label();
  }
  if (!assumed.empty())
    words.push_back(number_text(assumed_travel_deg, 0) + "° of travel is assumed" + (all ? "" : assumed) +
                    ": no linkage is measured");
  return words;
}

}  // namespace

double output_pulse_us(const Output& o, double level) {
  return o.centre_us + level * (level > 0 ? o.high_us - o.centre_us : o.centre_us - o.low_us);
}

OutputState mixed(const Output& o, const Command& c) {
  OutputState state{o.id, asked(o.mix, c), 0, false};
  const bool thrust = o.mix.throttle != 0;
  const double kept = std::clamp(state.asked, thrust ? 0.0 : -1.0, 1.0);
  state.saturated = std::abs(kept - state.asked) > 1e-9;
  if (thrust)
    state.pulse_us = o.reversed ? o.high_us - kept * (o.high_us - o.low_us) : o.low_us + kept * (o.high_us - o.low_us);
  else
    state.pulse_us = share_to_pulse(o, kept);
  return state;
}

Command shared(const std::vector<Output>& outputs, const Command& c, Saturation sharing) {
  if (sharing == Saturation::each_stops) return c;
  double k = 1;
  for (const Output& o : outputs) {
    if (!works_servo(o)) continue;
    const double fixed = o.mix.flap * c.flap;
    const double roll = roll_part(o.mix, c.roll), pitch = o.mix.pitch * c.pitch, yaw = o.mix.yaw * c.yaw;
    if (sharing == Saturation::all_shrink) k = std::min(k, room_for(fixed, roll + pitch + yaw));
    if (sharing == Saturation::roll_first) k = std::min(k, room_for(fixed + roll, pitch + yaw));
    if (sharing == Saturation::pitch_first) k = std::min(k, room_for(fixed + pitch, roll + yaw));
  }
  Command s = c;
  if (sharing != Saturation::roll_first) s.roll *= k;
  if (sharing != Saturation::pitch_first) s.pitch *= k;
  s.yaw *= k;
  return s;
}

double stick_reach(const Output& o) {
  return std::min(1.0, std::abs(o.mix.roll) + std::abs(o.mix.pitch) + std::abs(o.mix.yaw));
}

Result<Command> sticks_for(const Rig& rig, const Output& o, double level) {
  if (!works_servo(o)) return failure("output " + o.id, "a motor", "an output that works a servo");
  const double wanted = o.reversed ? -level : level;
  std::array<Axis, 3> by_say = all_axes;
  std::stable_sort(by_say.begin(), by_say.end(),
                   [&](Axis a, Axis b) { return std::abs(o.mix.of(a)) > std::abs(o.mix.of(b)); });
  Command c;
  const auto stick = [&](Axis a) -> double& { return a == Axis::roll ? c.roll : a == Axis::pitch ? c.pitch : c.yaw; };
  for (const Axis a : by_say) {
    const double left = wanted - asked(o.mix, c);
    if (o.mix.of(a) == 0 || std::abs(left) < 1e-9) continue;
    const double way = left * o.mix.of(a) > 0 ? 1 : -1;
    stick(a) = way;
    const double full = wanted - left;
    const double gives = asked(o.mix, c) - full;  // differential makes the sides unequal
    stick(a) = gives == 0 ? 0 : way * std::min(1.0, left / gives);
  }
  const double reached = mixed(o, shared(rig.outputs, c, rig.saturation)).pulse_us, aim = output_pulse_us(o, level);
  if (std::abs(reached - aim) > 1)
    return failure("output " + o.id,
                   number_text(aim, 0) + " µs can't be reached with the sticks: full sticks give " +
                       number_text(reached, 0) + " µs",
                   "weights that use the whole travel, or a reading at the pulse that is reached");
  return c;
}

std::string sticks_label(const Command& c) {
  std::vector<std::string> holds;
  const auto add = [&](double at, const char* stick, const char* positive, const char* negative) {
    if (std::abs(at) < 0.005) return;
    const double percent = 100 * std::abs(at);
    holds.push_back(std::string("the ") + stick + " stick " +
                    (percent > 99.5 ? "full" : number_text(percent, 0) + " %") + " " + (at > 0 ? positive : negative));
  };
  add(c.roll, "roll", "right", "left");
  add(c.pitch, "pitch", "back", "forward");
  add(c.yaw, "yaw", "right", "left");
  if (holds.empty()) return "Let go of the sticks";
  std::string s = "Hold " + holds.front();
  for (std::size_t i = 1; i < holds.size(); ++i) s += (i + 1 == holds.size() ? " and " : ", ") + holds[i];
  return s;
}

OutputSettings settable(const ControllerClass* c) {
  if (!c) return {};
  return {c->way("centre_us") != nullptr, c->way("low_us") && c->way("high_us"),
          c->steps_for(Remedy::reverse_output) || !c->steps_for(Remedy::reverse_function)};
}

double deflection_deg(const Rig& rig, const Output& o, Surface s, double share) { return Moved(rig, o, s).at(share); }

ControlMargin control_margin(const Rig& rig, const Command& held) {
  ControlMargin room;
  for (int p = 0; p <= ControlMargin::steps; ++p)
    for (int r = 0; r <= ControlMargin::steps; ++r) {
      Command c;
      c.roll = 2.0 * r / ControlMargin::steps - 1;
      c.pitch = 2.0 * p / ControlMargin::steps - 1;
      c.flap = held.flap;
      double left = 1;
      for (const double side : {-1.0, 1.0}) {
        c.yaw = side * held.yaw;
        for (const Output& o : rig.outputs) {
          if (!works_servo(o)) continue;
          const double all = std::abs(o.mix.roll) + std::abs(o.mix.pitch) + std::abs(o.mix.yaw);
          if (all > 0) left = std::min(left, std::max(0.0, 1 - std::abs(asked(o.mix, c))) / all);
        }
        if (held.yaw == 0) break;
      }
      room.left[static_cast<std::size_t>(p)][static_cast<std::size_t>(r)] = std::min(left, 1.0);
    }
  return room;
}

double saturated_share(const Rig& rig, const Command& held) {
  // What an output is asked for is linear in roll and pitch on either side of the middle of roll, where a differential
  // bends it: what is left of either half when every output has cut off what it can't give.
  double free = 0;
  for (const double side : {-1.0, 1.0}) {
    std::vector<Flat> left{
        {std::min(0.0, side), -1}, {std::max(0.0, side), -1}, {std::max(0.0, side), 1}, {std::min(0.0, side), 1}};
    for (const Output& o : rig.outputs) {
      if (!works_servo(o)) continue;
      Command middle = held;
      middle.roll = middle.pitch = 0;
      const double rest = asked(o.mix, middle), roll = side * roll_part(o.mix, side), pitch = o.mix.pitch;
      left = cut_by_line(left, roll, pitch, 1 - rest);
      left = cut_by_line(left, -roll, -pitch, 1 + rest);
    }
    free += flat_area(left);
  }
  return std::clamp(1 - free / 4, 0.0, 1.0);
}

const SurfaceAnswer* SurfacesReport::answer(Surface surface) const {
  return find_in(answers, [&](const SurfaceAnswer& a) { return a.surface == surface; });
}

SurfacesReport analyze_surfaces(const Rig& rig) {
  SurfacesReport report;
  for (const Output& o : rig.outputs)
    for (const Surface s : o.surfaces) {
      SurfaceAnswer a;
      a.surface = s;
      a.output = o.id;
      const int sense = built_right(o, s);
      const Moved moved(rig, o, s);
      a.in_degrees = moved.bar.has_value();
      if (s.kind != SurfaceKind::motor) {
        const auto curve = trace(linkage_of(rig, s), o);
        if (!curve) a.linkage_error = curve.error().text();
        if (curve) {
          const double chord = chord_of(rig, s);
          a.travel = Travel{curve->most_up_deg,
                            curve->most_down_deg,
                            throw_m(chord, curve->most_up_deg),
                            throw_m(chord, curve->most_down_deg),
                            curve->neutral_deg,
                            curve->differential,
                            curve->deg_per_us,
                            rig.linkage(s) != nullptr};
          if (moved.linkage) a.problems = curve->problems;
        }
        for (const auto& [command, name] : Names<MixCommand>::list)
          if (o.mix.*weight_of(command) != 0)
            a.throw_deg[static_cast<std::size_t>(command)] = throw_for(rig, o, s, command);
      }
      const double rest = moved.at(0);
      for (const Axis axis : all_axes) {
        const auto i = static_cast<std::size_t>(index_of(axis));
        a.share[i] = sense * o.mix.of(axis);
        Command full;
        for (const int way : {1, -1}) {
          (axis == Axis::roll ? full.roll : axis == Axis::pitch ? full.pitch : full.yaw) = way;
          (way > 0 ? a.positive_deg : a.negative_deg)[i] =
              o.mix.of(axis) == 0 ? 0 : moved.at(asked(o.mix, full)) - rest;
        }
        a.worst_sum += std::abs(o.mix.of(axis));
      }
      a.worst_sum += std::abs(o.mix.flap);
      const double one = moved.at(1), other = moved.at(-1);
      a.most_up_deg = std::max({one, other, 0.0});
      a.most_down_deg = std::max({-one, -other, 0.0});
      report.answers.push_back(a);
    }
  report.saturated_share = saturated_share(rig);
  report.mix = mix_words(rig, report.answers);
  return report;
}

std::vector<std::pair<Surface, double>> intended_deflections(const Rig& rig, const Command& command) {
  const Command kept = shared(rig.outputs, command, rig.saturation);
  std::vector<std::pair<Surface, double>> all;
  for (const Output& o : rig.outputs)
    for (const Surface s : o.surfaces) {
      const double share = asked(o.mix, kept) - (s.kind == SurfaceKind::motor ? o.mix.throttle * command.throttle : 0);
      all.emplace_back(s, deflection_deg(rig, o, s, share));
    }
  return all;
}

Rig with_differential(Rig rig, double less_down) {
  for (Output& o : rig.outputs)
    if (o.surfaces.size() == 1 && o.mix.roll != 0 && required_direction(o.surfaces[0], Axis::roll) != 0 &&
        o.surfaces[0].kind != SurfaceKind::rudder)
      o.mix.roll_differential = less_down == 0 ? 0 : built_right(o, o.surfaces[0]) * less_down;
  return rig;
}

double differential_of(const Rig& rig) {
  double most = 0;
  for (const Output& o : rig.outputs) most = std::max(most, std::abs(o.mix.roll_differential));
  return most;
}

}  // namespace rigging
