#pragma once

#include <string>
#include <vector>

#include "sticks/sticks.h"

/// What every combination of switch positions does.
namespace rigging {

/// One way that the switches can stand: the position of each switch of the deck, and what flies then.
struct ModeCase {
  std::vector<std::size_t> positions;
  std::string mode;         ///< empty: nothing that is known
  int moves_to_manual = 0;  ///< switches to move until it is manual; −1: it can't be reached
  bool operator==(const ModeCase&) const = default;
};

enum class ModeTrouble {
  unreachable,
  overlapping,
  at_the_edge,
  empty_position,
  no_manual,
  far_from_manual,
  power_up,
  not_of_class
};

struct ModeFinding {
  ModeTrouble trouble;
  int channel = 0;  ///< 0: of the deck as a whole
  std::string words;
  bool operator==(const ModeFinding&) const = default;
};

struct ModeDeck {
  std::vector<SwitchLine> switches;  ///< those that choose a mode, by channel
  std::vector<ModeCase> cases;       ///< all of them; none where there are more than 4096
  std::vector<ModeFinding> findings;
  bool fixed = false;                ///< the class has set the positions: nothing to lay out
  std::vector<std::string> missing;  ///< of the set for a first flight: manual, level, circle, return on its own switch

  const ModeCase* at(const std::vector<std::size_t>& positions) const;
};

/// Where switches disagree, what brings it home goes before what holds a place, before levelling, before rate, before
/// manual: the order of boards as a rule (common practice), to be looked at on the bench. A class with positions of its
/// own has the deck of those, on the channels that carry a mode; one that tells neither has an empty deck.
ModeDeck mode_deck(const Rig& rig, const Catalogue& catalogue);

template <>
struct Names<ModeTrouble> {
  using T = ModeTrouble;
  static constexpr std::array<std::pair<T, std::string_view>, 8> list{{{T::unreachable, "unreachable"},
                                                                       {T::overlapping, "overlapping"},
                                                                       {T::at_the_edge, "at_the_edge"},
                                                                       {T::empty_position, "empty_position"},
                                                                       {T::no_manual, "no_manual"},
                                                                       {T::far_from_manual, "far_from_manual"},
                                                                       {T::power_up, "power_up"},
                                                                       {T::not_of_class, "not_of_class"}}};
};

/// What a mode does, in a sentence: "Levels the wings; holds no height by itself."
std::string mode_words(const std::string& mode);
/// It flies by itself.
bool is_automatic(const std::string& mode);

}  // namespace rigging
