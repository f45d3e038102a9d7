#include "direction/search.h"

#include <algorithm>
#include <bit>

#include "direction/reason.h"

namespace rigging::direction {
namespace {

constexpr int out_of_reach = most_faults + 1;

/// What reaches the outputs where the controller works these axes the other way round.
Routing with_functions(Routing routing, unsigned turned) {
  for (Arrival& a : routing)
    if (turned >> a.axis & 1) a.sign = static_cast<std::int8_t>(-a.sign);
  return routing;
}
SensingState with_functions(SensingState sensing, unsigned turned) {
  sensing.routing = with_functions(sensing.routing, turned);
  sensing.gyro_reversed ^= turned;
  return sensing;
}

/// `functions`: axes that the controller works the wrong way round on every output, a fault that is counted elsewhere.
std::vector<LocalFaults> local_faults(const CaseOutput& output, Abilities can, unsigned functions) {
  std::vector<LocalFaults> options;
  unsigned mixed = 0;
  for (int axis = 0; axis < 3; ++axis)
    if (output.mix[at(axis)] != 0) mixed |= 1u << axis;
  const unsigned flippable = can.has(Remedy::flip_mix) && std::popcount(mixed) >= 2 ? mixed : 0;
  const unsigned sides = can.has(Remedy::move_linkage) ? 1u << output.surfaces.size() : 1u;

  for (unsigned flipped = 0; flipped < 8; ++flipped) {
    if (flipped & ~flippable) continue;
    for (int reversed = 0; reversed < (can.has(Remedy::reverse_output) ? 2 : 1); ++reversed) {
      // With the faults undone every axis must ask the same servo sign of a surface.
      unsigned negative = 0;
      bool right = true;
      for (std::size_t s = 0; s < output.surfaces.size() && right; ++s) {
        int sign = 0;
        for (int axis = 0; axis < 3 && right; ++axis) {
          if (!(mixed >> axis & 1)) continue;
          const Axis a = static_cast<Axis>(axis);
          const int wanted = ((flipped ^ functions) >> axis & 1 ? -1 : 1) * (reversed ? -1 : 1) *
                             pulse_sign(output, a) * required_direction(output.surfaces[s], a);
          right = sign == 0 || sign == wanted;
          sign = wanted;
        }
        if (sign < 0) negative |= 1u << s;
      }
      if (!right) continue;
      for (unsigned opposed = 0; opposed < sides; ++opposed) {
        const int count = reversed + std::popcount(flipped) + std::popcount(opposed);
        if (count <= most_faults) options.push_back({reversed != 0, flipped, opposed, count, negative ^ opposed});
      }
      // With nothing mixed in, either servo sign is right.
      if (mixed == 0)
        for (unsigned signs = 1; signs < 1u << output.surfaces.size(); ++signs)
          if (reversed == 0) options.push_back({false, 0, 0, 0, signs});
    }
  }
  std::stable_sort(options.begin(), options.end(), [](const auto& a, const auto& b) { return a.count < b.count; });
  return options;
}

}  // namespace

/// What the active observations allow, per surface and socket.
struct Search::Tables {
  Tables(const Search& search, const ObservationSet& active) : evidence(search.case_, active) {
    const int n = evidence.outputs(), count = evidence.surfaces();
    const auto fill = [&](auto signs) {
      std::vector<std::uint8_t> table(at(count * n));
      for (int s = 0; s < count; ++s)
        for (int socket = 0; socket < n; ++socket) table[at(s * n + socket)] = signs(s, socket);
      return table;
    };
    drive = fill([&](int s, int socket) { return evidence.drive_signs(s, socket); });
    for (const unsigned functions : search.functions_) {
      stick.emplace_back();
      tilt.emplace_back();
      if (!search.case_.mix_is_plan && functions != 0) {
        stick.back() = stick.front();
        tilt.back() = tilt.front();
        continue;
      }
      const unsigned turned = search.case_.mix_is_plan ? functions : 0;
      for (const TransmitterState& t : search.transmitters_)
        stick.back().push_back(fill([&](int s, int socket) {
          return static_cast<std::uint8_t>(evidence.stick_signs(s, socket, with_functions(t.routing, turned)) &
                                           drive[at(s * n + socket)]);
        }));
      for (const SensingState& sensing : search.classes_)
        tilt.back().push_back(fill([&, answers = with_functions(sensing, turned)](int s, int socket) {
          return evidence.tilt_signs(s, socket, answers);
        }));
    }

    for (const SensingState& s : search.sensings_) {
      if (evidence.board_planned() && s.turn != Turn{}) continue;
      class_faults.resize(search.classes_.size(), out_of_reach);
      class_faults[at(s.routing_class)] = std::min(class_faults[at(s.routing_class)], s.faults);
    }
    for (const auto& local : search.local_) {
      dead_cost.emplace_back();
      live_cost.emplace_back();
      for (int o = 0; o < n; ++o) cost_alone(search, local[at(o)], o);
    }
  }

  bool allows(const Search& search, const LocalFaults& option, int o) const {
    const int first = search.first_surface_[at(o)], size = search.first_surface_[at(o + 1)] - first;
    for (int s = 0; s < size; ++s)
      if (option.linkage_opposed >> s & 1 && evidence.horn_planned(first + s)) return false;
    return true;
  }

  Evidence evidence;
  std::vector<std::uint8_t> drive;
  /// Per set of functions and state of transmitter or sensing.
  std::vector<std::vector<std::vector<std::uint8_t>>> stick, tilt;
  std::vector<int> class_faults;                                  ///< fewest faults per routing class
  std::vector<std::vector<int>> dead_cost;                        ///< per set of functions and output
  std::vector<std::vector<std::vector<std::uint8_t>>> live_cost;  ///< and by the signs that fit

 private:
  void cost_alone(const Search& search, const std::vector<LocalFaults>& options, int o) {
    const int first = search.first_surface_[at(o)], size = search.first_surface_[at(o + 1)] - first;
    bool still = true;
    for (int s = first; s < first + size; ++s) still = still && evidence.never_moved(s);
    int least = out_of_reach;
    for (const LocalFaults& option : options)
      if (allows(search, option, o)) least = std::min(least, option.count);
    dead_cost.back().push_back(still && search.case_.can.has(Remedy::check_output) ? std::min(out_of_reach, 1 + least)
                                                                                   : out_of_reach);
    // Cheapest local faults for each combination of allowed signs, two bits a surface.
    std::vector<std::uint8_t> best(at(1 << (2 * size)), out_of_reach);
    for (unsigned key = 0; key < best.size(); ++key)
      for (const LocalFaults& option : options) {
        bool fit = allows(search, option, o);
        for (int s = 0; s < size; ++s) fit = fit && (key >> (2 * s + (option.negative >> s & 1)) & 1);
        if (fit) {
          best[key] = static_cast<std::uint8_t>(option.count);
          break;
        }
      }
    live_cost.back().push_back(std::move(best));
  }
};

/// Cost of hanging each output's lead on each socket, for one state of transmitter, sensing and functions.
struct Search::Pairs {
  int n = 0;
  std::array<std::array<std::uint8_t, most_surfaces>, most_surfaces> cost;
  std::array<int, most_surfaces + 1> least_from;  ///< lower bound of the outputs from here on

  Pairs(const Search& search, const Tables& tables, std::size_t transmitter, std::size_t routing_class,
        std::size_t functions)
      : n(tables.evidence.outputs()) {
    const auto& stick = tables.stick[functions][transmitter];
    const auto& tilt = tables.tilt[functions][routing_class];
    const bool may_swap = search.case_.can.has(Remedy::swap_leads);
    least_from[at(n)] = 0;
    for (int o = n - 1; o >= 0; --o) {
      int least = out_of_reach;
      for (int socket = 0; socket < n; ++socket) {
        int best = out_of_reach;
        if (socket == o || (may_swap && !tables.evidence.lead_planned(o))) {
          const unsigned key = signs_key(search, stick, tilt, o, socket);
          best = std::min<int>(tables.live_cost[functions][at(o)][key], tables.dead_cost[functions][at(o)]);
        }
        cost[at(o)][at(socket)] = static_cast<std::uint8_t>(best);
        least = std::min(least, best);
      }
      least_from[at(o)] = std::min(out_of_reach, least + least_from[at(o + 1)]);
    }
  }

  static unsigned signs_key(const Search& search, const std::vector<std::uint8_t>& stick,
                            const std::vector<std::uint8_t>& tilt, int o, int socket) {
    const int n = static_cast<int>(search.case_.outputs.size()), first = search.first_surface_[at(o)];
    unsigned key = 0;
    for (int s = first; s < search.first_surface_[at(o + 1)]; ++s)
      key |= static_cast<unsigned>(stick[at(s * n + socket)] & tilt[at(s * n + socket)]) << (2 * (s - first));
    return key;
  }

  /// Calls `leaf` for assignments whose total is at most `budget` until it returns true.
  template <class Leaf>
  bool assign(int budget, Leaf&& leaf) const {
    std::array<std::int8_t, most_surfaces> socket{};
    return place(0, 0u, budget, 0, socket, leaf);
  }

 private:
  template <class Leaf>
  bool place(int o, unsigned used, int budget, int displaced, std::array<std::int8_t, most_surfaces>& socket,
             Leaf& leaf) const {
    if (least_from[at(o)] + (displaced + 1) / 2 > budget) return false;
    if (o == n) {
      const int swaps = exchanges(socket);
      return swaps <= budget && leaf(socket, budget - swaps);
    }
    const auto try_socket = [&](int k) {
      const int c = cost[at(o)][at(k)];
      if (used >> k & 1 || c > budget) return false;
      socket[at(o)] = static_cast<std::int8_t>(k);
      return place(o + 1, used | 1u << k, budget - c, displaced + (k != o ? 1 : 0), socket, leaf);
    };
    if (try_socket(o)) return true;
    for (int k = 0; k < n; ++k)
      if (k != o && try_socket(k)) return true;
    return false;
  }

  int exchanges(const std::array<std::int8_t, most_surfaces>& socket) const {
    unsigned seen = 0;
    int cycles = 0;
    for (int o = 0; o < n; ++o) {
      if (seen >> o & 1) continue;
      ++cycles;
      for (int k = o; !(seen >> k & 1); k = socket[at(k)]) seen |= 1u << k;
    }
    return n - cycles;
  }
};

Search::Search(const Case& c) : case_(c), transmitters_(transmitter_states(c.can)), sensings_(sensing_states(c)) {
  std::erase_if(transmitters_, [](const auto& t) { return t.faults > most_faults; });
  std::erase_if(sensings_, [](const auto& s) { return s.faults > most_faults; });
  for (const SensingState& s : sensings_) {
    if (at(s.routing_class) >= classes_.size()) classes_.resize(at(s.routing_class + 1));
    classes_[at(s.routing_class)] = s;
  }
  unsigned mixed = 0;
  for (const CaseOutput& output : c.outputs)
    for (int axis = 0; axis < 3; ++axis)
      if (output.mix[at(axis)] != 0) mixed |= 1u << axis;
  for (unsigned reversed = 0; reversed < 8; ++reversed) {
    if (reversed & ~(c.can.has(Remedy::reverse_function) ? mixed : 0u)) continue;
    functions_.push_back(reversed);
    local_.emplace_back();
    for (const CaseOutput& output : c.outputs)
      local_.back().push_back(local_faults(output, c.can, c.mix_is_plan ? 0 : reversed));
  }
  int surfaces = 0;
  for (const CaseOutput& output : c.outputs) {
    first_surface_.push_back(surfaces);
    surfaces += static_cast<int>(output.surfaces.size());
  }
  first_surface_.push_back(surfaces);
}

int Search::fewest(const ObservationSet& active) const {
  const Tables tables(*this, active);
  if (tables.evidence.impossible()) return out_of_reach;
  struct Branch {
    int transmitter, routing_class, functions, faults, least;
  };
  std::vector<Branch> branches;
  for (std::size_t t = 0; t < transmitters_.size(); ++t) {
    if (!tables.evidence.channels_fit(transmitters_[t])) continue;
    for (std::size_t r = 0; r < classes_.size(); ++r)
      for (std::size_t f = 0; f < functions_.size(); ++f) {
        const int faults = transmitters_[t].faults + tables.class_faults[r] + std::popcount(functions_[f]);
        if (faults > most_faults) continue;
        const int least = faults + Pairs(*this, tables, t, r, f).least_from[0];
        if (least <= most_faults)
          branches.push_back({static_cast<int>(t), static_cast<int>(r), static_cast<int>(f), faults, least});
      }
  }
  int best = out_of_reach;
  std::stable_sort(branches.begin(), branches.end(),
                   [](const Branch& a, const Branch& b) { return a.least < b.least; });
  for (const Branch& b : branches) {
    if (b.least >= best) break;
    const Pairs pairs(*this, tables, at(b.transmitter), at(b.routing_class), at(b.functions));
    for (int total = b.least; total < best; ++total)
      if (pairs.assign(total - b.faults, [](const auto&, int) { return true; })) best = total;
  }
  return best;
}

void Search::enumerate(const ObservationSet& active, int count, const std::function<void(const Found&)>& each) const {
  const Tables tables(*this, active);
  Found found;
  for (std::size_t t = 0; t < transmitters_.size(); ++t) {
    if (transmitters_[t].faults > count || !tables.evidence.channels_fit(transmitters_[t])) continue;
    for (std::size_t f = 0; f < functions_.size(); ++f) {
      found.transmitter = static_cast<int>(t);
      found.functions = functions_[f];
      enumerate(tables, t, f, count - transmitters_[t].faults - std::popcount(functions_[f]), found, each);
    }
  }
}

void Search::enumerate(const Tables& tables, std::size_t t, std::size_t f, int left, Found& found,
                       const std::function<void(const Found&)>& each) const {
  const int n = tables.evidence.outputs();
  std::vector<std::optional<Pairs>> by_class(classes_.size());
  for (std::size_t s = 0; s < sensings_.size(); ++s) {
    const int budget = left - sensings_[s].faults;
    if (budget < 0 || (tables.evidence.board_planned() && sensings_[s].turn != Turn{})) continue;
    const auto r = at(sensings_[s].routing_class);
    if (!by_class[r]) by_class[r].emplace(*this, tables, t, r, f);
    const Pairs& pairs = *by_class[r];
    found.sensing = static_cast<int>(s);
    pairs.assign(budget, [&](const auto& socket, int) {
      found.socket = socket;
      // As `count` is the fewest possible, every pair must be at its own least cost: list the ways to reach it.
      const auto choose = [&](auto& self, int o) -> void {
        if (o == n) return each(found);
        const int k = socket[at(o)], least = pairs.cost[at(o)][at(k)];
        const unsigned key = Pairs::signs_key(*this, tables.stick[f][t], tables.tilt[f][r], o, k);
        const int size = first_surface_[at(o + 1)] - first_surface_[at(o)];
        const auto list = [&](int faults, bool dead) {
          for (const LocalFaults& option : local_[f][at(o)]) {
            bool fit = option.count == faults && tables.allows(*this, option, o);
            for (int i = 0; fit && !dead && i < size; ++i) fit = key >> (2 * i + (option.negative >> i & 1)) & 1;
            if (!fit) continue;
            found.local[at(o)] = &option;
            self(self, o + 1);
            // Several options without a fault differ only in a servo sign that nothing asks for.
            if (faults == 0) return;
          }
        };
        list(least, false);
        if (tables.dead_cost[f][at(o)] == least) {
          found.dead |= 1u << k;
          list(least - 1, true);
          found.dead &= ~(1u << k);
        }
      };
      choose(choose, 0);
      return false;
    });
  }
}

}  // namespace rigging::direction
