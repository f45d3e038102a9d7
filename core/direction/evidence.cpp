#include "direction/evidence.h"

#include <algorithm>
#include <bit>

#include "direction/levelling.h"

namespace rigging::direction {

int pulse_sign(const CaseOutput& output, Axis axis) {
  const double weight = output.mix[static_cast<std::size_t>(index_of(axis))];
  const int sign = weight > 0 ? 1 : weight < 0 ? -1 : 0;
  return output.reversed ? -sign : sign;
}

std::vector<TransmitterState> transmitter_states(Abilities can) {
  std::vector<TransmitterState> states;
  for (int kept = -1; kept < (can.has(Remedy::swap_transmitter) ? 3 : 0); ++kept)
    for (unsigned reversed = 0; reversed < (can.has(Remedy::reverse_transmitter) ? 8u : 1u); ++reversed) {
      TransmitterState t{kept, reversed, (kept >= 0 ? 1 : 0) + std::popcount(reversed), {}};
      for (int stick = 0; stick < 3; ++stick) {
        const int channel = kept < 0 || stick == kept ? stick : 3 - kept - stick;
        t.routing[static_cast<std::size_t>(stick)] = {static_cast<std::uint8_t>(channel),
                                                      static_cast<std::int8_t>(reversed >> channel & 1 ? -1 : 1)};
      }
      states.push_back(t);
    }
  return states;
}

std::vector<SensingState> sensing_states(const Case& c) {
  const Abilities can = c.can;
  std::vector<SensingState> states;
  std::vector<std::pair<Routing, std::optional<Turn>>> classes;
  for (const Turn& turn : all_turns()) {
    if (turn != Turn{} && !can.has(Remedy::turn_board)) continue;
    if (c.either_face && turn.face_up() != turn) continue;
    for (unsigned reversed = 0; reversed < (can.has(Remedy::flip_gyro) ? 8u : 1u); ++reversed) {
      SensingState s{turn, reversed, (turn != Turn{} ? 1 : 0) + std::popcount(reversed), {}, 0};
      for (int axis = 0; axis < 3; ++axis) {
        const SignedAxis sensed = turn.sensed(axis);
        s.routing[static_cast<std::size_t>(axis)] = {
            static_cast<std::uint8_t>(sensed.axis),
            static_cast<std::int8_t>(reversed >> sensed.axis & 1 ? -sensed.sign : sensed.sign)};
      }
      const std::pair behaves(s.routing, c.levels_by_gravity && !finds_down(turn) ? std::optional(turn) : std::nullopt);
      const auto found = std::find(classes.begin(), classes.end(), behaves);
      s.routing_class = static_cast<int>(found - classes.begin());
      if (found == classes.end()) classes.push_back(behaves);
      states.push_back(s);
    }
  }
  return states;
}

Evidence::Evidence(const Case& c, const ObservationSet& active)
    : outputs_(static_cast<int>(c.outputs.size())), levels_by_gravity_(c.levels_by_gravity) {
  std::vector<Surface> surfaces;
  for (int o = 0; o < outputs_; ++o) {
    const CaseOutput& output = c.outputs[static_cast<std::size_t>(o)];
    pulse_.push_back({direction::pulse_sign(output, Axis::roll), direction::pulse_sign(output, Axis::pitch),
                      direction::pulse_sign(output, Axis::yaw)});
    for (const Surface s : output.surfaces) {
      surfaces.push_back(s);
      home_.push_back(o);
    }
  }
  const std::size_t count = surfaces.size();
  stick_.resize(count);
  rate_.resize(count);
  level_.resize(count);
  level_seen_.resize(count);
  drive_.assign(count, std::vector<SeenBits>(static_cast<std::size_t>(outputs_), 0));
  never_moved_.assign(count, true);

  for (std::size_t i = 0; i < c.observations.size(); ++i) {
    if (!active[i]) continue;
    const Observation& o = c.observations[i];
    if (o.act == Act::inspect) {
      for (const int output : o.leads) leads_planned_ |= 1u << output;
      for (const Surface s : o.horns)
        horns_planned_ |= 1u << (std::find(surfaces.begin(), surfaces.end(), s) - surfaces.begin());
      board_planned_ = board_planned_ || o.board;
      continue;
    }
    const auto axis = static_cast<std::size_t>(index_of(o.axis));
    for (const Seen& seen : o.saw) {
      const auto s =
          static_cast<std::size_t>(std::find(surfaces.begin(), surfaces.end(), seen.surface) - surfaces.begin());
      const SeenBits bit = bit_of(seen.motion * o.sense);
      if (seen.motion != 0) never_moved_[s] = false;
      if (o.act == Act::stick) {
        stick_[s][axis] |= bit;
      } else if (o.act == Act::drive) {
        drive_[s][static_cast<std::size_t>(o.output)] |= bit;
      } else if (o.mode == Mode::manual) {
        impossible_ = impossible_ || seen.motion != 0;
      } else {
        (levels_wings(o.mode) ? level_ : rate_)[s][axis] |= bit;
        if (levels_wings(o.mode)) level_seen_[s][axis][o.sense > 0 ? 1 : 0] |= bit_of(seen.motion);
      }
    }
    for (std::size_t channel = 0; channel < 3; ++channel) {
      if (!o.channels[channel]) continue;
      if (o.act == Act::stick)
        channels_[axis][channel] |= bit_of(*o.channels[channel] * o.sense);
      else
        impossible_ = impossible_ || *o.channels[channel] != 0;
    }
  }
}

bool Evidence::channels_fit(const TransmitterState& t) const {
  for (std::size_t stick = 0; stick < 3; ++stick)
    for (std::size_t channel = 0; channel < 3; ++channel)
      if (!fits(channels_[stick][channel], t.routing[stick].axis == channel ? t.routing[stick].sign : 0)) return false;
  return true;
}

namespace {
constexpr std::uint8_t signs_fitting(SeenBits seen, int motion_if_positive) {
  return static_cast<std::uint8_t>((fits(seen, motion_if_positive) ? 1 : 0) |
                                   (fits(seen, -motion_if_positive) ? 2 : 0));
}
}  // namespace

std::uint8_t Evidence::stick_signs(int surface, int socket, const Routing& transmitter) const {
  std::uint8_t signs = 3;
  for (std::size_t stick = 0; stick < 3; ++stick)
    signs &= signs_fitting(stick_[static_cast<std::size_t>(surface)][stick],
                           transmitter[stick].sign * pulse_sign(socket, transmitter[stick].axis));
  return signs;
}

std::uint8_t Evidence::tilt_signs(int surface, int socket, const SensingState& sensing) const {
  std::uint8_t signs = 3;
  const auto s = static_cast<std::size_t>(surface);
  const bool by_rotation = !levels_by_gravity_ || finds_down(sensing.turn);
  for (std::size_t axis = 0; axis < 3; ++axis) {
    const Arrival arrival = sensing.routing[axis];
    const int answer = -arrival.sign * pulse_sign(socket, arrival.axis);
    signs &= signs_fitting(rate_[s][axis], answer);
    if (by_rotation) {
      signs &= signs_fitting(level_[s][axis], arrival.axis == index_of(Axis::yaw) ? 0 : answer);
      continue;
    }
    for (const int sense : {-1, 1}) {
      const SeenBits seen = level_seen_[s][axis][sense > 0 ? 1 : 0];
      if (seen == 0) continue;
      std::array<int, 3> pulse = pulse_[static_cast<std::size_t>(socket)];
      for (const int sign : {1, -1}) {
        const SeenBits may = level_motions(sensing.turn, sensing.gyro_reversed, static_cast<Axis>(axis), sense, pulse);
        if ((seen & ~may) != 0) signs &= static_cast<std::uint8_t>(sign > 0 ? ~1 : ~2);
        for (int& p : pulse) p = -p;
      }
    }
  }
  return signs;
}

std::uint8_t Evidence::drive_signs(int surface, int socket) const {
  std::uint8_t signs = 3;
  for (int driven = 0; driven < outputs_; ++driven)
    signs &= signs_fitting(drive_[static_cast<std::size_t>(surface)][static_cast<std::size_t>(driven)],
                           driven == socket ? 1 : 0);
  return signs;
}

}  // namespace rigging::direction
