#include "home/modes.h"

#include <algorithm>
#include <set>

#include "base/find.h"
#include "base/number.h"
#include "catalogue/sockets.h"

namespace rigging {
namespace {

constexpr std::size_t most_cases = 4096;

struct ModeMeaning {
  const char* mode;
  int weight;  ///< the heavier goes before
  bool automatic;
  const char* words;
};
constexpr ModeMeaning meanings[]{
    {"manual", 0, false, "Sticks alone: nothing corrects. The way out when a correction works the wrong way."},
    {"rate", 1, false, "Fights turning, holds no attitude."},
    {"hold", 2, false, "Holds the attitude in which the sticks were let go."},
    {"level", 3, false, "Levels the wings and holds the nose; holds no height by itself."},
    {"level_height", 4, false, "Levels, and keeps the height by barometer; throttle is still yours."},
    {"heading_height", 5, false, "Keeps heading and height while the sticks are let go; throttle is still yours."},
    {"launch", 6, true, "Climbs by itself after the throw."},
    {"circle", 7, true, "Circles where it is, by satellite: proves that it holds a place."},
    {"land", 8, true, "Comes down by itself over home."},
    {"return", 9, true, "Comes home by itself."}};

const ModeMeaning* meaning(const std::string& mode) {
  for (const ModeMeaning& m : meanings)
    if (mode == m.mode) return &m;
  return nullptr;
}

int weight_of(const std::string& mode) {
  const ModeMeaning* m = meaning(mode);
  return m ? m->weight : mode.empty() ? -1 : 6;
}

void judge_ranges(const Rig& rig, const std::string& else_mode, ModeDeck& deck) {
  const auto add = [&deck](ModeTrouble trouble, int channel, const std::string& words) {
    deck.findings.push_back({trouble, channel, words});
  };
  for (std::size_t i = 0; i < rig.modes.size(); ++i) {
    const ModeChoice& m = rig.modes[i];
    const auto line = std::find_if(deck.switches.begin(), deck.switches.end(),
                                   [&](const SwitchLine& s) { return s.channel == m.channel; });
    const bool reached = line != deck.switches.end() &&
                         std::any_of(line->positions.begin(), line->positions.end(), [&](const SwitchPosition& p) {
                           return p.pulse_us >= m.from_us && p.pulse_us <= m.to_us && p.mode == m.mode;
                         });
    if (!reached)
      add(ModeTrouble::unreachable, m.channel,
          "No position of channel " + std::to_string(m.channel) + " gives " + m.mode + ".");
    for (std::size_t k = i + 1; k < rig.modes.size(); ++k) {
      const ModeChoice& other = rig.modes[k];
      if (other.channel == m.channel && other.mode != m.mode && other.from_us < m.to_us && m.from_us < other.to_us)
        add(ModeTrouble::overlapping, m.channel,
            "The ranges of " + m.mode + " and " + other.mode + " overlap on channel " + std::to_string(m.channel) +
                ".");
    }
  }
  for (const SwitchLine& s : deck.switches)
    for (const SwitchPosition& p : s.positions) {
      const std::string at = "Channel " + std::to_string(s.channel) + " at " + number_text(p.pulse_us, 0) + " µs ";
      if (p.mode.empty() && deck.switches.size() == 1 && else_mode.empty())
        add(ModeTrouble::empty_position, s.channel, at + "chooses nothing.");
      else if (p.guard_us < least_guard_us)
        add(ModeTrouble::at_the_edge, s.channel,
            at + "is " + number_text(p.guard_us, 0) +
                " µs from the edge of its range: a little warmth, and it is another mode.");
    }
}

/// Which channel of the deck moves this one as well: its place in the deck.
std::optional<std::size_t> leader_of(const Rig& rig, const ModeDeck& deck, int channel) {
  const Channel* c = find_in(rig.radio.channels, [&](const Channel& x) { return x.number == channel; });
  if (!c || c->with_channel == 0) return std::nullopt;
  for (std::size_t i = 0; i < deck.switches.size(); ++i)
    if (deck.switches[i].channel == c->with_channel && c->with_channel != channel) return i;
  return std::nullopt;
}

/// Can one switch that moves both, mixed in the transmitter, stand so? The leader rises first, then the other.
bool mix_gives(std::size_t leader, std::size_t leaders, std::size_t follower, std::size_t followers) {
  const std::size_t stands = std::max<std::size_t>(3, std::max(leaders, followers));
  for (std::size_t k = 0; k < stands; ++k)
    if (leader == std::min(k, leaders - 1) && follower == (k + followers > stands ? k + followers - stands : 0))
      return true;
  return false;
}

/// Least switches to move until a case is as wanted; −1 where none is.
template <class Wanted>
int moves_until(const ModeCase& from, const std::vector<ModeCase>& cases, const std::vector<std::size_t>& moved_by,
                Wanted wanted) {
  int least = -1;
  for (const ModeCase& to : cases) {
    if (!wanted(to)) continue;
    // Channels of one switch move together.
    std::set<std::size_t> hands;
    for (std::size_t k = 0; k < from.positions.size(); ++k)
      if (from.positions[k] != to.positions[k]) hands.insert(moved_by[k]);
    const int moved = static_cast<int>(hands.size());
    if (least < 0 || moved < least) least = moved;
  }
  return least;
}

void judge_cases(const Rig& rig, ModeDeck& deck) {
  std::vector<std::size_t> moved_by;
  for (std::size_t k = 0; k < deck.switches.size(); ++k)
    moved_by.push_back(leader_of(rig, deck, deck.switches[k].channel).value_or(k));
  const auto manual = [](const ModeCase& c) { return c.mode == "manual"; };
  const auto by_hand = [](const ModeCase& c) { return !is_automatic(c.mode); };
  for (ModeCase& c : deck.cases) c.moves_to_manual = moves_until(c, deck.cases, moved_by, manual);
  const auto any = [&](auto&& test) { return std::any_of(deck.cases.begin(), deck.cases.end(), test); };
  const bool launches = any([](const ModeCase& c) { return c.mode == "launch"; });
  if (!any(manual))
    deck.findings.push_back({ModeTrouble::no_manual, 0,
                             launches ? "Launch stands in the place of manual: only for an aircraft whose corrections "
                                        "were flown, and levelling has to be the way out."
                                      : "No way the switches can stand gives manual."});
  else if (any([&](const ModeCase& c) { return by_hand(c) && c.moves_to_manual > 1; }))
    deck.findings.push_back(
        {ModeTrouble::far_from_manual, 0,
         "From some places manual takes two switches: it has to be one movement, without looking."});
  // All switches away from the pilot: how a transmitter is switched on.
  if (!deck.cases.empty() && is_automatic(deck.cases.front().mode))
    deck.findings.push_back({ModeTrouble::power_up, 0,
                             "With all switches at their first position it is in " + deck.cases.front().mode +
                                 " at power-up: let the first position be manual or levelling."});
}

/// The class's own positions, on the channels that carry a mode, the first for its channel 1.
Rig with_fixed_modes(const Rig& planned, const ControllerClass& c) {
  Rig rig = planned;
  rig.modes.clear();
  const std::vector<int> carries = mode_channels(rig, c);
  for (ModeChoice m : c.home.fixed_modes) {
    if (m.channel < 1 || static_cast<std::size_t>(m.channel) > carries.size()) continue;
    m.channel = carries[static_cast<std::size_t>(m.channel - 1)];
    rig.modes.push_back(std::move(m));
  }
  return rig;
}

void judge_class(const Rig& rig, const ControllerClass& c, ModeDeck& deck) {
  for (const ModeChoice& m : rig.modes) {
    const auto mode = from_name<Mode>(m.mode);
    const bool has =
        (mode && c.mode(*mode)) || std::find(c.home.flies.begin(), c.home.flies.end(), m.mode) != c.home.flies.end();
    if (!has)
      deck.findings.push_back({ModeTrouble::not_of_class, m.channel,
                               "This class has no mode " + m.mode + ": its position on channel " +
                                   std::to_string(m.channel) + " would do something else."});
  }
}

}  // namespace

std::string mode_words(const std::string& mode) {
  const ModeMeaning* m = meaning(mode);
  return m ? m->words : mode.empty() ? "Nothing is chosen: the board stays in what it was." : "A mode of this class.";
}

bool is_automatic(const std::string& mode) {
  const ModeMeaning* m = meaning(mode);
  return m && m->automatic;
}

const ModeCase* ModeDeck::at(const std::vector<std::size_t>& positions) const {
  for (const ModeCase& c : cases)
    if (c.positions == positions) return &c;
  return nullptr;
}

ModeDeck mode_deck(const Rig& planned, const Catalogue& catalogue) {
  ModeDeck deck;
  const ControllerClass* c = catalogue.controller(planned.controller.kind);
  deck.fixed = c && !c->home.fixed_modes.empty();
  Rig with_fixed;
  if (deck.fixed) with_fixed = with_fixed_modes(planned, *c);
  const Rig& rig = deck.fixed ? with_fixed : planned;
  if (rig.modes.empty()) return deck;
  for (const SwitchLine& s : analyze_sticks(rig, catalogue).switches)
    if (std::any_of(rig.modes.begin(), rig.modes.end(), [&](const ModeChoice& m) { return m.channel == s.channel; }))
      deck.switches.push_back(s);
  judge_ranges(rig, c ? c->home.else_mode : "", deck);
  std::size_t count = 1;
  for (const SwitchLine& s : deck.switches) count *= std::max<std::size_t>(1, s.positions.size());
  if (deck.switches.empty() || count > most_cases) return deck;
  for (std::size_t i = 0; i < count; ++i) {
    ModeCase one;
    std::size_t rest = i;
    for (const SwitchLine& s : deck.switches) {
      const std::size_t n = std::max<std::size_t>(1, s.positions.size());
      one.positions.push_back(rest % n);
      rest /= n;
      const std::string mode = s.positions.empty() ? "" : s.positions[one.positions.back()].mode;
      if (weight_of(mode) > weight_of(one.mode)) one.mode = mode;
    }
    if (one.mode.empty() && c) one.mode = c->home.else_mode;
    const auto size = [&](std::size_t k) { return std::max<std::size_t>(1, deck.switches[k].positions.size()); };
    bool stands = true;
    for (std::size_t k = 0; k < deck.switches.size(); ++k)
      if (const auto leader = leader_of(rig, deck, deck.switches[k].channel))
        stands = stands && mix_gives(one.positions[*leader], size(*leader), one.positions[k], size(k));
    if (!stands) continue;
    deck.cases.push_back(std::move(one));
  }
  judge_cases(rig, deck);
  if (c && !deck.fixed) judge_class(rig, *c, deck);
  const auto has = [&](const std::string& mode) {
    return std::any_of(deck.cases.begin(), deck.cases.end(), [&](const ModeCase& x) { return x.mode == mode; });
  };
  const auto can = [&](LossAction action) {
    return c && std::find(c->home.on_loss.begin(), c->home.on_loss.end(), action) != c->home.on_loss.end();
  };
  if (deck.fixed) return deck;
  if (!has("manual")) deck.missing.push_back("manual");
  if (c && c->mode(Mode::level) && !has("level")) deck.missing.push_back("level");
  if (can(LossAction::circle) && !has("circle")) deck.missing.push_back("circle");
  if (can(LossAction::come_home)) {
    const auto own =
        std::find_if(rig.modes.begin(), rig.modes.end(), [](const ModeChoice& m) { return m.mode == "return"; });
    const bool alone =
        own != rig.modes.end() && std::all_of(rig.modes.begin(), rig.modes.end(), [&](const ModeChoice& m) {
          return m.mode == "return" || m.channel != own->channel;
        });
    if (!alone) deck.missing.push_back("return on a switch of its own");
  }
  return deck;
}

}  // namespace rigging
