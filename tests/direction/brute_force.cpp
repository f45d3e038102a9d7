#include "brute_force.h"

#include "base/json.h"

#include <Eigen/Dense>
#include <algorithm>
#include <map>

namespace brute {

using namespace rigging;
using namespace rigging::direction;

namespace {

Eigen::Vector3i vector_of(SignedAxis d) {
  Eigen::Vector3i v = Eigen::Vector3i::Zero();
  v[d.axis] = d.sign;
  return v;
}

/// The table of directions written out a second time, from the trade's words.
int wanted(const std::string& surface, int axis) {
  static const std::map<std::string, std::array<int, 3>> table{
      {"aileron_left", {-1, 0, 0}},  {"aileron_right", {1, 0, 0}},    {"flaperon_left", {-1, 0, 0}},
      {"flaperon_right", {1, 0, 0}}, {"elevon_left", {-1, 1, 0}},     {"elevon_right", {1, 1, 0}},
      {"taileron_left", {-1, 1, 0}}, {"taileron_right", {1, 1, 0}},   {"vtail_left", {0, 1, 1}},
      {"vtail_right", {0, 1, -1}},   {"inverted_v_left", {0, 1, -1}}, {"inverted_v_right", {0, 1, 1}},
      {"elevator", {0, 1, 0}},       {"rudder", {1, 0, 1}},           {"canard", {0, -1, 0}},
      {"motor_left", {0, 0, 1}},     {"motor_right", {0, 0, -1}}};
  return table.at(surface)[static_cast<std::size_t>(axis)];
}

struct Aircraft {
  std::vector<CaseOutput> outputs;  // as configured
  std::vector<int> lead_in;         // per socket: whose lead
  std::map<std::string, int> sign;  // per surface
  std::set<int> dead;
  std::set<std::string> opposed;
  bool board_turned = false;
  std::array<int, 3> stick_to_channel{0, 1, 2};
  std::array<int, 3> channel_sign{1, 1, 1};
  Eigen::Matrix3i sensed = Eigen::Matrix3i::Identity();
};

int sign_of(double x) { return x > 0 ? 1 : x < 0 ? -1 : 0; }

int seen(const Aircraft& a, const std::string& surface, const Observation& o) {
  int socket = -1;
  for (std::size_t k = 0; k < a.lead_in.size(); ++k)
    for (const Surface s : a.outputs[static_cast<std::size_t>(a.lead_in[k])].surfaces)
      if (s.name() == surface) socket = static_cast<int>(k);
  if (a.dead.count(socket)) return 0;
  const CaseOutput& driver = a.outputs[static_cast<std::size_t>(socket)];
  if (o.act == Act::drive) return socket == o.output ? o.sense * a.sign.at(surface) : 0;
  Eigen::Vector3i command = Eigen::Vector3i::Zero();
  if (o.act == Act::stick) {
    const int channel = a.stick_to_channel[static_cast<std::size_t>(o.axis)];
    command[channel] = o.sense * a.channel_sign[static_cast<std::size_t>(channel)];
  } else if (o.mode != Mode::manual) {
    Eigen::Vector3i turn = Eigen::Vector3i::Zero();
    turn[static_cast<int>(o.axis)] = o.sense;
    command = -(a.sensed * turn);
    if (o.mode == Mode::level) command[2] = 0;
  }
  double pulse = 0;
  for (int axis = 0; axis < 3; ++axis) pulse += driver.mix[static_cast<std::size_t>(axis)] * command[axis];
  return sign_of(pulse) * (driver.reversed ? -1 : 1) * a.sign.at(surface);
}

/// Puts the faults into a right aircraft whose configuration, with the faults in it, is the case's. `signs` are the
/// servo signs of the right aircraft. Returns false if that aircraft is not right.
bool build(const Case& c, const std::vector<Fault>& faults, const std::map<std::string, int>& signs, Aircraft& a) {
  a = {};
  a.outputs = c.outputs;
  a.sign = signs;
  std::vector<CaseOutput> right = c.outputs;
  for (std::size_t i = 0; i < c.outputs.size(); ++i) a.lead_in.push_back(static_cast<int>(i));
  std::array<int, 3> gyro{1, 1, 1};
  Turn turn;
  std::vector<Fault> swaps;
  for (const Fault& f : faults) {
    const auto o = static_cast<std::size_t>(std::max(f.output, 0));
    switch (f.kind) {
      case FaultKind::output_reversed: right[o].reversed = !right[o].reversed; break;
      case FaultKind::mix_sign_wrong: right[o].mix[static_cast<std::size_t>(f.axis)] *= -1; break;
      case FaultKind::leads_swapped: swaps.push_back(f); break;
      case FaultKind::transmitter_reversed: a.channel_sign[static_cast<std::size_t>(f.axis)] *= -1; break;
      case FaultKind::transmitter_swapped:
        std::swap(a.stick_to_channel[static_cast<std::size_t>(f.axis)],
                  a.stick_to_channel[static_cast<std::size_t>(f.other_axis)]);
        break;
      case FaultKind::gyro_reversed: gyro[static_cast<std::size_t>(f.axis)] *= -1; break;
      case FaultKind::board_turned: turn = f.turn; break;
      case FaultKind::output_dead: a.dead.insert(f.output); break;
      case FaultKind::linkage_opposed:
        a.sign[f.surface.name()] *= -1;
        a.opposed.insert(f.surface.name());
        break;
      case FaultKind::function_reversed:
        // Either the mix holds the fault, or the controller does and the mix is what it should do.
        for (CaseOutput& output : c.mix_is_plan ? a.outputs : right) output.mix[static_cast<std::size_t>(f.axis)] *= -1;
        break;
    }
  }
  for (auto f = swaps.rbegin(); f != swaps.rend(); ++f)
    std::swap(a.lead_in[static_cast<std::size_t>(f->output)], a.lead_in[static_cast<std::size_t>(f->other_output)]);
  a.board_turned = turn != Turn{};
  const Eigen::Vector3i x = vector_of(turn.arrow), z = -vector_of(turn.top), y = z.cross(x);
  a.sensed.row(0) = gyro[0] * x.transpose();
  a.sensed.row(1) = gyro[1] * y.transpose();
  a.sensed.row(2) = gyro[2] * z.transpose();

  for (const CaseOutput& output : right)
    for (const Surface s : output.surfaces)
      for (int axis = 0; axis < 3; ++axis) {
        const double weight = output.mix[static_cast<std::size_t>(axis)];
        if (weight != 0 && sign_of(weight) * (output.reversed ? -1 : 1) * signs.at(s.name()) != wanted(s.name(), axis))
          return false;
      }
  return true;
}

bool agrees(const Aircraft& a, const Case& c) {
  for (const Observation& o : c.observations) {
    for (const int i : o.leads)
      if (a.lead_in[static_cast<std::size_t>(i)] != i) return false;
    for (const Surface s : o.horns)
      if (a.opposed.count(s.name())) return false;
    if (o.board && a.board_turned) return false;
    for (const Seen& s : o.saw)
      if (seen(a, s.surface.name(), o) != s.motion) return false;
    for (int k = 0; k < 3; ++k) {
      const auto value = o.channels[static_cast<std::size_t>(k)];
      if (!value) continue;
      const int channel = a.stick_to_channel[static_cast<std::size_t>(o.axis)];
      const int shown = o.act == Act::stick && channel == k ? o.sense * a.channel_sign[static_cast<std::size_t>(k)] : 0;
      if (shown != *value) return false;
    }
  }
  return true;
}

template <class Test>
bool any_signs(const Case& c, Test&& test) {
  std::vector<std::string> names;
  for (const CaseOutput& o : c.outputs)
    for (const Surface s : o.surfaces) names.push_back(s.name());
  for (unsigned bits = 0; bits < 1u << names.size(); ++bits) {
    std::map<std::string, int> signs;
    for (std::size_t i = 0; i < names.size(); ++i) signs[names[i]] = bits >> i & 1 ? -1 : 1;
    if (test(signs)) return true;
  }
  return false;
}

bool explains(const Case& c, const std::vector<Fault>& faults) {
  return any_signs(c, [&](const auto& signs) {
    Aircraft a;
    return build(c, faults, signs, a) && agrees(a, c);
  });
}

}  // namespace

std::vector<Fault> possible_faults(const Case& c) {
  std::vector<Fault> all;
  const auto add = [&](FaultKind kind, auto&& set) {
    if (!c.can.has(remedy_of(kind))) return;
    Fault f;
    f.kind = kind;
    set(f);
    all.push_back(f);
  };
  const int n = static_cast<int>(c.outputs.size());
  for (int o = 0; o < n; ++o) {
    const CaseOutput& output = c.outputs[static_cast<std::size_t>(o)];
    add(FaultKind::output_reversed, [&](Fault& f) { f.output = o; });
    add(FaultKind::output_dead, [&](Fault& f) { f.output = o; });
    for (int p = o + 1; p < n; ++p) add(FaultKind::leads_swapped, [&](Fault& f) { f.output = o, f.other_output = p; });
    if (std::count_if(output.mix.begin(), output.mix.end(), [](double w) { return w != 0; }) >= 2)
      for (const Axis axis : all_axes)
        if (output.mix[static_cast<std::size_t>(axis)] != 0)
          add(FaultKind::mix_sign_wrong, [&](Fault& f) { f.output = o, f.axis = axis; });
    for (const Surface s : output.surfaces)
      add(FaultKind::linkage_opposed, [&](Fault& f) { f.output = o, f.surface = s; });
  }
  for (const Axis axis : all_axes) {
    add(FaultKind::transmitter_reversed, [&](Fault& f) { f.axis = axis; });
    add(FaultKind::gyro_reversed, [&](Fault& f) { f.axis = axis; });
    if (std::any_of(c.outputs.begin(), c.outputs.end(),
                    [&](const CaseOutput& o) { return o.mix[static_cast<std::size_t>(axis)] != 0; }))
      add(FaultKind::function_reversed, [&](Fault& f) { f.axis = axis; });
    for (const Axis other : all_axes)
      if (axis < other) add(FaultKind::transmitter_swapped, [&](Fault& f) { f.axis = axis, f.other_axis = other; });
  }
  for (int arrow = 0; arrow < 6; ++arrow)
    for (int top = 0; top < 6; ++top) {
      const Turn turn{{arrow % 3, arrow < 3 ? 1 : -1}, {top % 3, top < 3 ? 1 : -1}};
      if (arrow % 3 != top % 3 && turn != Turn{}) add(FaultKind::board_turned, [&](Fault& f) { f.turn = turn; });
    }
  return all;
}

Key key_of(const std::vector<Fault>& faults, const Case& c) {
  Key key;
  std::vector<int> lead;
  for (std::size_t i = 0; i < c.outputs.size(); ++i) lead.push_back(static_cast<int>(i));
  std::vector<Fault> swaps;
  for (const Fault& f : faults) {
    if (f.kind == FaultKind::leads_swapped)
      swaps.push_back(f);
    else
      key.insert(fault_to_json(f, c).dump());
  }
  for (auto f = swaps.rbegin(); f != swaps.rend(); ++f)
    std::swap(lead[static_cast<std::size_t>(f->output)], lead[static_cast<std::size_t>(f->other_output)]);
  for (std::size_t i = 0; i < lead.size(); ++i)
    if (lead[i] != static_cast<int>(i)) key.insert("lead " + std::to_string(i) + " holds " + std::to_string(lead[i]));
  return key;
}

std::set<Key> explain(const Case& c, int most) {
  const std::vector<Fault> all = possible_faults(c);
  for (int count = 0; count <= most; ++count) {
    std::set<Key> keys;
    std::vector<Fault> chosen;
    const auto choose = [&](auto& self, std::size_t from) -> void {
      if (static_cast<int>(chosen.size()) == count) {
        const auto of_kind = [&](FaultKind k) {
          return std::count_if(chosen.begin(), chosen.end(), [&](const Fault& f) { return f.kind == k; });
        };
        if (of_kind(FaultKind::board_turned) > 1 || of_kind(FaultKind::transmitter_swapped) > 1) return;
        // Exchanges that share a lead depend on their order: try all orders.
        std::vector<std::size_t> order(chosen.size());
        for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
        do {
          std::vector<Fault> ordered;
          for (const std::size_t i : order) ordered.push_back(chosen[i]);
          const Key key = key_of(ordered, c);
          if (!keys.count(key) && explains(c, ordered)) keys.insert(key);
        } while (of_kind(FaultKind::leads_swapped) > 1 && std::next_permutation(order.begin(), order.end()));
        return;
      }
      for (std::size_t i = from; i < all.size(); ++i) {
        chosen.push_back(all[i]);
        self(self, i + 1);
        chosen.pop_back();
      }
    };
    choose(choose, 0);
    if (!keys.empty()) return keys;
  }
  return {};
}

bool show(const Case& c, const std::vector<Fault>& faults, Observation& o) {
  return any_signs(c, [&](const auto& signs) {
    Aircraft a;
    if (!build(c, faults, signs, a)) return false;
    o.saw.clear();
    for (const CaseOutput& output : c.outputs)
      for (const Surface s : output.surfaces) o.saw.push_back({s, seen(a, s.name(), o)});
    o.channels = {};
    if (o.act == Act::stick) {
      const int channel = a.stick_to_channel[static_cast<std::size_t>(o.axis)];
      for (int k = 0; k < 3; ++k)
        o.channels[static_cast<std::size_t>(k)] =
            channel == k ? o.sense * a.channel_sign[static_cast<std::size_t>(k)] : 0;
    }
    return true;
  });
}

}  // namespace brute
