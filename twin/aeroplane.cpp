#include "aeroplane.h"

#include <algorithm>
#include <random>

#include "direction/from_rig.h"
#include "direction/reason.h"
#include "direction/world.h"
#include "surfaces/linkage.h"

namespace rigging::twin {

using direction::Case;
using direction::Fault;
using direction::FaultKind;

namespace {

constexpr std::array<ChannelFunction, 4> stick_functions{ChannelFunction::roll, ChannelFunction::pitch,
                                                         ChannelFunction::throttle, ChannelFunction::yaw};

/// Gimbals with which the rig's own transmitter settings make pulses that land.
std::array<Gimbal, 4> gimbals_that_land(const Rig& rig, const ControllerClass& controller) {
  std::array<Gimbal, 4> gimbals;
  for (std::size_t i = 0; i < 4; ++i) {
    Gimbal& g = gimbals[i];
    g.channel = static_cast<int>(i + 1);
    const bool falls = stick_functions[i] == ChannelFunction::throttle && controller.sticks.throttle_opens_falls;
    if (falls) g.sense = -1;
    const Channel* c = rig.channel(stick_functions[i]);
    if (!c) continue;
    g.channel = c->number;
    g.sense = c->reversed != falls ? -1 : 1;
    g.middle_us = -(c->reversed ? -1 : 1) * c->sub_trim_us;
    const double full = rig.radio.transmitter.full_us;
    const double low = 500 / (std::max(1.0, c->travel_low_percent) / 100 * full),
                 high = 500 / (std::max(1.0, c->travel_high_percent) / 100 * full);
    g.reach_low = c->reversed ? high : low;
    g.reach_high = c->reversed ? low : high;
  }
  return gimbals;
}

}  // namespace

Result<Truth> truth_of(const Rig& rig, const ControllerClass& controller, const std::vector<Fault>& faults) {
  const Case c = direction::case_from_rig(rig, controller);
  const auto world = direction::world_of(c, faults);
  if (!world)
    return failure("faults", "with these faults undone the aeroplane would still be wrong",
                   "faults that the rig's mix allows");
  Truth truth;
  for (const Output& o : rig.outputs) truth.hangs_on[o.socket];
  std::size_t index = 0;
  std::map<std::string, std::vector<Surface>> hangs_on;
  std::vector<int> lead(c.outputs.size());
  for (std::size_t i = 0; i < lead.size(); ++i) lead[i] = static_cast<int>(i);
  for (auto f = faults.rbegin(); f != faults.rend(); ++f)
    if (f->kind == FaultKind::leads_swapped)
      std::swap(lead[static_cast<std::size_t>(f->output)], lead[static_cast<std::size_t>(f->other_output)]);
  const auto socket_of = [&](std::size_t output) { return rig.output(c.outputs[output].id)->socket; };
  for (std::size_t socket = 0; socket < lead.size(); ++socket)
    truth.hangs_on[socket_of(socket)] = c.outputs[static_cast<std::size_t>(lead[socket])].surfaces;
  for (const direction::CaseOutput& o : c.outputs)
    for (const Surface s : o.surfaces) truth.servo_sign[s] = world->sign[index++];
  truth.gimbals = gimbals_that_land(rig, controller);
  truth.settings = rig.radio.channels;
  for (const Linkage& l : rig.linkages)
    if (FourBar::of(l)) truth.linkages[l.surface] = l;
  std::array<int, 3> stick_to_channel{0, 1, 2}, channel_sign{1, 1, 1};
  for (const Fault& f : faults) {
    const auto axis = static_cast<std::size_t>(index_of(f.axis));
    if (f.kind == FaultKind::output_dead) truth.dead[socket_of(static_cast<std::size_t>(f.output))] = true;
    if (f.kind == FaultKind::gyro_reversed) truth.gyro_sign[axis] *= -1;
    if (f.kind == FaultKind::transmitter_reversed) channel_sign[axis] *= -1;
    if (f.kind == FaultKind::transmitter_swapped)
      std::swap(stick_to_channel[axis], stick_to_channel[static_cast<std::size_t>(index_of(f.other_axis))]);
    if (f.kind == FaultKind::board_turned) truth.board = f.turn;
    if (f.kind == FaultKind::function_reversed) truth.turned_functions.push_back(f.axis);
  }
  // A swap acts first, a reversal belongs to the channel.
  const auto gimbals = truth.gimbals;
  for (std::size_t axis = 0; axis < 3; ++axis) {
    const auto to = static_cast<std::size_t>(stick_to_channel[axis]);
    const auto stick = [](std::size_t i) {
      return Transmitter::index(*from_name<ChannelFunction>(name_of(static_cast<Axis>(i))));
    };
    truth.gimbals[stick(axis)] = gimbals[stick(to)];
    if (channel_sign[to] < 0) truth.gimbals[stick(axis)].sense *= -1;
  }
  // The rig may know of a turned board or of reversed sensing already; faults come on top of that.
  truth.board = truth.board.inside(rig.sensing.board);
  if (controller.senses.either_face) truth.board = truth.board.face_up();
  for (const Axis axis : all_axes)
    if (rig.sensing.reversed(axis)) truth.gyro_sign[static_cast<std::size_t>(index_of(axis))] *= -1;
  return truth;
}

void set_badly(Truth& truth, const Rig& rig, unsigned seed) {
  std::mt19937 random(seed);
  const auto within = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
  std::array<int, 4> order{};
  for (std::size_t i = 0; i < 4; ++i) order[i] = truth.gimbals[i].channel;
  std::shuffle(order.begin(), order.end(), random);
  for (std::size_t i = 0; i < 4; ++i) {
    Gimbal& g = truth.gimbals[i];
    g.channel = order[i];
    const bool throttle = i == 2;
    g.middle_us = throttle ? 0 : within(-25, 25);
    g.reach_low = throttle ? 0.97 : within(0.9, 1.0);
    g.reach_high = throttle ? 0.97 : within(0.9, 1.0);
    g.noise_us = within(0.2, 1.2);
    g.sense = random() % 3 == 0 ? -1 : 1;
  }
  for (Channel& c : truth.settings) {
    if (std::find(order.begin(), order.end(), c.number) == order.end()) continue;
    const double step = rig.radio.transmitter.step_percent, sub_step = rig.radio.transmitter.sub_trim_step_us;
    c.reversed = random() % 4 == 0;
    c.sub_trim_us = sub_step * std::round(within(-30, 30) / sub_step);
    c.travel_low_percent = step * std::round(within(75, 115) / step);
    c.travel_high_percent = step * std::round(within(75, 115) / step);
  }
}

void make_cold(Truth& truth) {
  for (std::size_t i = 0; i < truth.gimbals.size(); ++i)
    if (i != Transmitter::index(ChannelFunction::throttle)) truth.gimbals[i].drift_us_s = 1.5;
}

void make_crooked(Truth& truth, const Rig& rig, const Catalogue& catalogue, unsigned seed) {
  std::mt19937 random(seed * 7919 + 1);
  const auto within = [&](double a) { return std::uniform_real_distribution<double>(-a, a)(random); };
  for (auto& [surface, linkage] : truth.linkages) {
    linkage.base_m = FourBar::of(linkage)->base_m();
    Linkage crooked = linkage;
    crooked.arm_deg += within(10);
    crooked.horn_deg += within(8);
    crooked.rod_m += within(0.0012);
    crooked.servo_travel_deg += within(4);
    if (FourBar::of(crooked)) linkage = crooked;
    Truth::Servo& servo = truth.servos[surface];
    servo.centre_us = within(15);
    for (const Part& p : rig.parts)
      if (const PartKind* kind = catalogue.part(p.kind); p.surface && *p.surface == surface && kind && kind->servo) {
        servo.dead_band_us = kind->servo->dead_band_us;
        servo.us_per_s = 60.0 / 45 * 500 / kind->servo->seconds_per_60deg;
      }
  }
}

std::vector<Fault> drawn_faults(const Rig& rig, const ControllerClass& controller, int count, unsigned seed) {
  const Case c = direction::case_from_rig(rig, controller);
  std::mt19937 random(seed);
  const auto below = [&](std::size_t n) { return static_cast<std::size_t>(random() % n); };
  std::vector<Fault> faults;
  for (int attempt = 0; attempt < 2000 && static_cast<int>(faults.size()) < count && !c.outputs.empty(); ++attempt) {
    Fault f;
    // Other classes draw as they did before functions came.
    f.kind = static_cast<FaultKind>(below(c.can.has(Remedy::reverse_function) ? 10 : 9));
    if (!c.can.has(direction::remedy_of(f.kind))) continue;
    f.output = static_cast<int>(below(c.outputs.size()));
    f.axis = static_cast<Axis>(below(3));
    const direction::CaseOutput& output = c.outputs[static_cast<std::size_t>(f.output)];
    const bool axis_served = std::any_of(c.outputs.begin(), c.outputs.end(),
                                         [&](const auto& o) { return o.mix[static_cast<std::size_t>(f.axis)] != 0; });
    switch (f.kind) {
      case FaultKind::leads_swapped:
        f.other_output = static_cast<int>(below(c.outputs.size()));
        if (f.other_output == f.output) continue;
        if (f.other_output < f.output) std::swap(f.output, f.other_output);
        break;
      case FaultKind::mix_sign_wrong: {
        const auto mixed = std::count_if(output.mix.begin(), output.mix.end(), [](double w) { return w != 0; });
        if (mixed < 2 || output.mix[static_cast<std::size_t>(f.axis)] == 0) continue;
        break;
      }
      case FaultKind::transmitter_swapped:
        f.other_axis = static_cast<Axis>(below(3));
        if (f.other_axis <= f.axis) continue;
        break;
      case FaultKind::board_turned: f.turn = all_turns()[1 + below(23)]; break;
      case FaultKind::linkage_opposed:
        f.surface = output.surfaces[below(output.surfaces.size())];
        if (f.surface.kind == SurfaceKind::motor) continue;
        break;
      case FaultKind::transmitter_reversed:
      case FaultKind::gyro_reversed:
      case FaultKind::function_reversed:
        if (!axis_served) continue;
        break;
      default: break;
    }
    const bool one_of_a_kind = f.kind == FaultKind::board_turned || f.kind == FaultKind::transmitter_swapped ||
                               f.kind == FaultKind::leads_swapped;
    if (std::any_of(faults.begin(), faults.end(), [&](const Fault& g) {
          return g.kind == f.kind && (one_of_a_kind || (g.output == f.output && g.axis == f.axis));
        }))
      continue;
    faults.push_back(f);
    if (!direction::world_of(c, faults)) faults.pop_back();
  }
  return faults;
}

Result<Fault> fault_from_text(const std::string& text, const Case& c) {
  const std::string form = "kind:place as in docs/twin.md, e.g. output_reversed:out_1";
  const auto colon = text.find(':');
  const auto kind = from_name<FaultKind>(text.substr(0, colon));
  if (!kind || colon == std::string::npos) return failure("--fault " + text, "not understood", form);
  std::vector<std::string> places;
  for (std::size_t at = colon + 1; at <= text.size();) {
    const std::size_t comma = std::min(text.find(',', at), text.size());
    places.push_back(text.substr(at, comma - at));
    at = comma + 1;
  }
  Fault f;
  f.kind = *kind;
  const auto output = [&](std::size_t i) {
    for (std::size_t k = 0; i < places.size() && k < c.outputs.size(); ++k)
      if (c.outputs[k].id == places[i]) return static_cast<int>(k);
    return -1;
  };
  const auto axis = [&](std::size_t i) { return i < places.size() ? from_name<Axis>(places[i]) : std::nullopt; };
  bool good = false;
  switch (f.kind) {
    case FaultKind::output_reversed:
    case FaultKind::output_dead: good = places.size() == 1 && (f.output = output(0)) >= 0; break;
    case FaultKind::leads_swapped:
      f.output = output(0);
      f.other_output = output(1);
      good = places.size() == 2 && f.output >= 0 && f.other_output >= 0 && f.output != f.other_output;
      if (f.other_output < f.output) std::swap(f.output, f.other_output);
      break;
    case FaultKind::mix_sign_wrong:
      f.output = output(0);
      good = places.size() == 2 && f.output >= 0 && axis(1);
      if (good) f.axis = *axis(1);
      break;
    case FaultKind::transmitter_reversed:
    case FaultKind::gyro_reversed:
    case FaultKind::function_reversed:
      good = places.size() == 1 && axis(0);
      if (good) f.axis = *axis(0);
      break;
    case FaultKind::transmitter_swapped:
      good = places.size() == 2 && axis(0) && axis(1) && *axis(0) != *axis(1);
      if (good) {
        f.axis = std::min(*axis(0), *axis(1));
        f.other_axis = std::max(*axis(0), *axis(1));
      }
      break;
    case FaultKind::board_turned: {
      const auto turn = turn_from_name(places[0]);
      good = places.size() == 1 && turn && *turn != Turn{};
      if (good) f.turn = *turn;
      break;
    }
    case FaultKind::linkage_opposed:
      if (const auto surface = surface_from_name(places[0]); places.size() == 1 && surface)
        for (std::size_t k = 0; k < c.outputs.size(); ++k)
          for (const Surface s : c.outputs[k].surfaces)
            if (s == *surface) {
              f.output = static_cast<int>(k);
              f.surface = s;
              good = true;
            }
      break;
  }
  if (!good) return failure("--fault " + text, "the place is not understood or not part of this rig", form);
  return f;
}

}  // namespace rigging::twin
