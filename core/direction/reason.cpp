#include "direction/reason.h"

#include <algorithm>
#include <unordered_map>

#include "direction/conflict.h"
#include "direction/world.h"

namespace rigging::direction {
namespace {

/// Of a function that is turned round on both outputs of a pair; before their leads.
constexpr double function_cost = 1.15;

/// All that one question would show, packed: two bits a surface, then two bits a channel.
std::uint64_t signature(const Case& c, const World& w, const Question& q, bool surfaces, bool channels) {
  std::uint64_t bits = 0;
  if (surfaces)
    for (std::size_t s = 0; s < w.socket.size(); ++s)
      bits = bits << 2 | static_cast<std::uint64_t>(w.motion(c, s, q.observation) + 1);
  if (channels)
    for (std::size_t k = 0; k < 3; ++k) bits = bits << 2 | static_cast<std::uint64_t>(w.channel(k, q.observation) + 1);
  return bits;
}

std::size_t largest_group(const Case& c, const std::vector<World>& worlds, const Question& q, bool surfaces,
                          bool channels) {
  std::unordered_map<std::uint64_t, std::size_t> groups;
  std::size_t largest = 0;
  for (const World& w : worlds) largest = std::max(largest, ++groups[signature(c, w, q, surfaces, channels)]);
  return largest;
}

std::optional<Question> best_question(const Case& c, const std::vector<World>& worlds) {
  const std::vector<Question> questions = c.may_ask ? *c.may_ask : c.all_questions();
  std::optional<Question> best;
  std::size_t least = worlds.size();
  for (Question q : questions) {
    // A look that can go either way tells nothing for certain.
    if (std::any_of(worlds.begin(), worlds.end(), [&](const World& w) { return !w.can_tell(q.observation); })) continue;
    const std::size_t both = largest_group(c, worlds, q, q.surfaces, q.channels);
    if (both >= least) continue;
    least = both;
    // Ask for one kind of look where the other adds nothing.
    if (q.surfaces && q.channels) {
      if (largest_group(c, worlds, q, true, false) == both)
        q.channels = false;
      else if (largest_group(c, worlds, q, false, true) == both)
        q.surfaces = false;
    }
    best = q;
  }
  return best;
}

bool accounts_for_all(const Case& c, const std::vector<Fault>& faults) {
  return std::all_of(c.observations.begin(), c.observations.end(), [&](const Observation& o) {
    if (o.act == Act::inspect) return true;  // it speaks of leads, horns and the board alone
    const auto shows = predict(c, faults, o);
    if (!shows) return false;
    for (std::size_t k = 0; k < 3; ++k)
      if (o.channels[k] && *o.channels[k] != shows->channels[k]) return false;
    return std::all_of(o.saw.begin(), o.saw.end(), [&](const Seen& seen) {
      for (std::size_t i = 0; i < shows->saw.size(); ++i)
        if (shows->saw[i].surface == seen.surface) return (shows->may_show[i] & bit_of(seen.motion)) != 0;
      return false;
    });
  });
}

/// A pair that sits on both sides and answers from an output each.
bool are_pair(const CaseOutput& a, const CaseOutput& b) {
  return a.surfaces.size() == 1 && b.surfaces.size() == 1 && a.surfaces[0].kind == b.surfaces[0].kind &&
         a.surfaces[0].side != b.surfaces[0].side;
}

/// The function turned round on both outputs of a pair looks like their leads exchanged. Builders agree on it first
/// (common practice): leads are suspected when one output driven alone, or eyes along the leads, say so.
std::vector<Explanation> functions_instead_of_leads(const Case& c, const Explanation& e) {
  std::vector<Explanation> all;
  for (std::size_t i = 0; i < e.faults.size(); ++i) {
    const Fault& f = e.faults[i];
    if (f.kind != FaultKind::leads_swapped || f.output < 0 || f.other_output < 0) continue;
    const CaseOutput &a = c.outputs[at(f.output)], &b = c.outputs[at(f.other_output)];
    if (!are_pair(a, b)) continue;
    // Where more is wrong with one of the two, they do not answer alike.
    const bool alone = std::none_of(e.faults.begin(), e.faults.end(), [&](const Fault& x) {
      return !(x == f) && (x.output == f.output || x.output == f.other_output || x.other_output == f.output ||
                           x.other_output == f.other_output);
    });
    if (!alone) continue;
    if (!c.can.has(Remedy::reverse_output)) continue;
    Explanation other = e;
    other.faults.erase(other.faults.begin() + static_cast<std::ptrdiff_t>(i));
    for (const int output : {f.output, f.other_output}) {
      Fault one;
      one.kind = FaultKind::output_reversed, one.output = output;
      other.faults.push_back(one);
    }
    other.cost += function_cost - prior_cost(FaultKind::leads_swapped);
    if (static_cast<int>(other.faults.size()) <= most_faults && accounts_for_all(c, other.faults))
      all.push_back(std::move(other));
  }
  return all;
}

}  // namespace

double prior_cost(FaultKind kind) {
  switch (kind) {
    case FaultKind::output_reversed: return 1.0;
    case FaultKind::transmitter_reversed: return 1.1;
    case FaultKind::leads_swapped: return 1.2;
    case FaultKind::gyro_reversed: return 1.3;
    case FaultKind::mix_sign_wrong: return 1.4;
    case FaultKind::board_turned: return 1.5;
    case FaultKind::transmitter_swapped: return 1.6;
    case FaultKind::linkage_opposed: return 1.8;
    case FaultKind::output_dead: return 2.0;
    case FaultKind::function_reversed: return 1.0;
  }
  return 0;
}

Diagnosis reason(const Case& c) {
  Diagnosis answer;
  if (c.outputs.size() > most_outputs) {
    answer.too_many = true;
    return answer;
  }
  const Search search(c);
  ObservationSet all;
  for (std::size_t i = 0; i < c.observations.size(); ++i) all.set(i);
  const int count = search.fewest(all);
  if (count > most_faults) {
    answer.contradictions = smallest_conflict(static_cast<int>(c.observations.size()), [&](const ObservationSet& some) {
      return search.fewest(some) <= most_faults;
    });
    return answer;
  }

  std::vector<World> worlds;
  search.enumerate(all, count, [&](const Found& found) {
    Explanation e{faults_of(c, search, found), 0};
    for (const Fault& f : e.faults) e.cost += prior_cost(f.kind);
    answer.explanations.push_back(std::move(e));
    worlds.push_back(world_of(c, search, found));
  });
  const std::vector<Explanation> simplest = answer.explanations;
  for (const Explanation& e : simplest)
    for (Explanation& other : functions_instead_of_leads(c, e))
      if (const auto world = world_of(c, other.faults)) {
        worlds.push_back(*world);
        answer.explanations.push_back(std::move(other));
      }
  std::stable_sort(answer.explanations.begin(), answer.explanations.end(),
                   [](const Explanation& a, const Explanation& b) { return a.cost < b.cost; });
  if (answer.explanations.size() > 1) {
    answer.next = best_question(c, worlds);
    answer.equivalent = !answer.next;
  }
  answer.settled = !answer.next;
  return answer;
}

std::optional<Outcome> predict(const Case& c, const std::vector<Fault>& faults, const Observation& o) {
  const auto world = world_of(c, faults);
  if (!world) return std::nullopt;
  Outcome outcome;
  std::size_t s = 0;
  for (const CaseOutput& output : c.outputs)
    for (const Surface surface : output.surfaces) {
      outcome.saw.push_back({surface, world->motion(c, s, o)});
      outcome.may_show.push_back(world->motions(c, s++, o));
    }
  for (std::size_t k = 0; k < 3; ++k) outcome.channels[k] = world->channel(k, o);
  return outcome;
}

}  // namespace rigging::direction
