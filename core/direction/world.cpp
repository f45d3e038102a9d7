#include "direction/world.h"

#include <algorithm>
#include <numeric>

#include "direction/levelling.h"

namespace rigging::direction {

SeenBits World::motions(const Case& c, std::size_t surface, const Observation& o) const {
  const int hangs_on = socket[surface];
  if (can_tell(o) || hangs_on < 0) return bit_of(motion(c, surface, o));
  const CaseOutput& output = c.outputs[at(hangs_on)];
  std::array<int, 3> pulse{};
  for (const Axis axis : all_axes) pulse[at(index_of(axis))] = sign[surface] * pulse_sign(output, axis);
  return level_motions(misses_down->first, misses_down->second ^ turned_functions, o.axis, o.sense, pulse);
}

int World::motion(const Case& c, std::size_t surface, const Observation& o) const {
  const int hangs_on = socket[surface];
  if (hangs_on < 0) return 0;
  if (!can_tell(o)) {
    const SeenBits may = motions(c, surface, o);
    return (may & 3) == 3 ? 0 : may & 1 ? 1 : may & 2 ? -1 : 0;
  }
  int pulse = 0;
  if (o.act == Act::drive) {
    pulse = hangs_on == o.output ? 1 : 0;
  } else {
    const Routing& routing = o.act == Act::stick ? transmitter : sensing;
    const Arrival arrival = routing[at(index_of(o.axis))];
    const bool answered = o.act == Act::stick ||
                          (o.mode != Mode::manual && !(levels_wings(o.mode) && arrival.axis == index_of(Axis::yaw)));
    if (answered)
      pulse = (o.act == Act::stick ? 1 : -1) * (turned_functions >> arrival.axis & 1 ? -1 : 1) * arrival.sign *
              pulse_sign(c.outputs[at(hangs_on)], static_cast<Axis>(arrival.axis));
  }
  return pulse * sign[surface] * o.sense;
}

int World::channel(std::size_t channel, const Observation& o) const {
  if (o.act != Act::stick) return 0;
  const Arrival arrival = transmitter[at(index_of(o.axis))];
  return arrival.axis == channel ? arrival.sign * o.sense : 0;
}

World world_of(const Case& c, const Search& search, const Found& found) {
  World w{search.transmitters()[at(found.transmitter)].routing,
          search.sensings()[at(found.sensing)].routing,
          c.mix_is_plan ? found.functions : 0u,
          std::nullopt,
          {},
          {}};
  const SensingState& sensing = search.sensings()[at(found.sensing)];
  if (c.levels_by_gravity && !finds_down(sensing.turn)) w.misses_down.emplace(sensing.turn, sensing.gyro_reversed);
  for (std::size_t o = 0; o < c.outputs.size(); ++o)
    for (std::size_t s = 0; s < c.outputs[o].surfaces.size(); ++s) {
      const int socket = found.socket[o];
      w.socket.push_back(static_cast<std::int8_t>(found.dead >> socket & 1 ? -1 : socket));
      w.sign.push_back(found.local[o]->negative >> s & 1 ? -1 : 1);
    }
  return w;
}

std::optional<World> world_of(const Case& c, const std::vector<Fault>& faults) {
  std::vector<CaseOutput> good = c.outputs;
  std::vector<int> lead(c.outputs.size());  // per socket: whose lead sits there
  std::iota(lead.begin(), lead.end(), 0);
  std::vector<bool> dead(c.outputs.size(), false);
  int kept = -1;
  unsigned channel_reversed = 0, gyro_reversed = 0, turned_round = 0;
  Turn turn{};
  std::vector<Surface> opposed;
  // Undoing in order must end with every lead at home; so the faults are put in backwards.
  for (auto f = faults.rbegin(); f != faults.rend(); ++f) {
    const unsigned axis_bit = 1u << index_of(f->axis);
    switch (f->kind) {
      case FaultKind::output_reversed: good[at(f->output)].reversed = !good[at(f->output)].reversed; break;
      case FaultKind::leads_swapped: std::swap(lead[at(f->output)], lead[at(f->other_output)]); break;
      case FaultKind::mix_sign_wrong: good[at(f->output)].mix[at(index_of(f->axis))] *= -1; break;
      case FaultKind::transmitter_reversed: channel_reversed ^= axis_bit; break;
      case FaultKind::transmitter_swapped: kept = 3 - index_of(f->axis) - index_of(f->other_axis); break;
      case FaultKind::gyro_reversed: gyro_reversed ^= axis_bit; break;
      case FaultKind::board_turned: turn = c.either_face ? f->turn.face_up() : f->turn; break;
      case FaultKind::output_dead: dead[at(f->output)] = true; break;
      case FaultKind::linkage_opposed: opposed.push_back(f->surface); break;
      case FaultKind::function_reversed:
        if (c.mix_is_plan) {
          turned_round ^= axis_bit;
          break;
        }
        for (CaseOutput& o : good) o.mix[at(index_of(f->axis))] *= -1;
        break;
    }
  }
  World w;
  w.turned_functions = turned_round;
  if (c.levels_by_gravity && !finds_down(turn)) w.misses_down.emplace(turn, gyro_reversed);
  for (int i = 0; i < 3; ++i) {
    const int channel = kept < 0 || i == kept ? i : 3 - kept - i;
    w.transmitter[at(i)] = {static_cast<std::uint8_t>(channel),
                            static_cast<std::int8_t>(channel_reversed >> channel & 1 ? -1 : 1)};
    const SignedAxis sensed = turn.sensed(i);
    w.sensing[at(i)] = {static_cast<std::uint8_t>(sensed.axis),
                        static_cast<std::int8_t>(gyro_reversed >> sensed.axis & 1 ? -sensed.sign : sensed.sign)};
  }
  for (std::size_t o = 0; o < good.size(); ++o) {
    const int socket = static_cast<int>(std::find(lead.begin(), lead.end(), static_cast<int>(o)) - lead.begin());
    for (const Surface s : good[o].surfaces) {
      int sign = 0;
      for (const Axis axis : all_axes) {
        const int wanted = pulse_sign(good[o], axis) * required_direction(s, axis);
        if (wanted == 0) continue;
        if (sign == -wanted) return std::nullopt;
        sign = wanted;
      }
      if (sign == 0) sign = 1;
      if (std::find(opposed.begin(), opposed.end(), s) != opposed.end()) sign = -sign;
      w.socket.push_back(static_cast<std::int8_t>(dead[at(socket)] ? -1 : socket));
      w.sign.push_back(static_cast<std::int8_t>(sign));
    }
  }
  return w;
}

std::vector<Fault> faults_of(const Case& c, const Search& search, const Found& found) {
  std::vector<Fault> faults;
  const auto add = [&](FaultKind kind) -> Fault& {
    faults.emplace_back();
    faults.back().kind = kind;
    return faults.back();
  };
  const int n = static_cast<int>(c.outputs.size());
  std::vector<int> lead(c.outputs.size());
  for (int o = 0; o < n; ++o) lead[at(found.socket[at(o)])] = o;
  // Each exchange brings one lead home, so their number is the least possible.
  for (int socket = 0; socket < n; ++socket) {
    if (lead[at(socket)] == socket) continue;
    const int holder = static_cast<int>(std::find(lead.begin(), lead.end(), socket) - lead.begin());
    Fault& f = add(FaultKind::leads_swapped);
    f.output = std::min(socket, holder);
    f.other_output = std::max(socket, holder);
    std::swap(lead[at(socket)], lead[at(holder)]);
  }
  for (int o = 0; o < n; ++o) {
    const LocalFaults& local = *found.local[at(o)];
    if (local.reversed) add(FaultKind::output_reversed).output = o;
    for (const Axis axis : all_axes)
      if (local.mix_flipped >> index_of(axis) & 1) {
        Fault& f = add(FaultKind::mix_sign_wrong);
        f.output = o;
        f.axis = axis;
      }
    if (found.dead >> o & 1) add(FaultKind::output_dead).output = o;
    for (std::size_t s = 0; s < c.outputs[at(o)].surfaces.size(); ++s)
      if (local.linkage_opposed >> s & 1) {
        Fault& f = add(FaultKind::linkage_opposed);
        f.output = o;
        f.surface = c.outputs[at(o)].surfaces[s];
      }
  }
  for (const Axis axis : all_axes)
    if (found.functions >> index_of(axis) & 1) add(FaultKind::function_reversed).axis = axis;
  const TransmitterState& t = search.transmitters()[at(found.transmitter)];
  for (const Axis axis : all_axes)
    if (t.reversed >> index_of(axis) & 1) add(FaultKind::transmitter_reversed).axis = axis;
  if (t.kept >= 0) {
    Fault& f = add(FaultKind::transmitter_swapped);
    f.axis = t.kept == 0 ? Axis::pitch : Axis::roll;
    f.other_axis = t.kept == 2 ? Axis::pitch : Axis::yaw;
  }
  const SensingState& s = search.sensings()[at(found.sensing)];
  for (const Axis axis : all_axes)
    if (s.gyro_reversed >> index_of(axis) & 1) add(FaultKind::gyro_reversed).axis = axis;
  if (s.turn != Turn{}) add(FaultKind::board_turned).turn = s.turn;
  return faults;
}

}  // namespace rigging::direction
