#pragma once

#include "catalogue/catalogue.h"
#include "direction/case.h"
#include "rig/rig.h"

/// Cards to print for what hands do: which switch, button, gesture or dial.
namespace rigging {

struct HandCard {
  std::string title;    ///< "Reverse out_2 (right flaperon)"
  std::string because;  ///< what was found
  std::vector<std::string> steps;
  std::vector<std::string> cautions;
  direction::Fault fault;
  bool over_link = false;  ///< Rigging can write it instead
};

/// The card for undoing one fault with this class. Where the class describes no steps, the general ones are given.
HandCard hand_card(const Rig& rig, const ControllerClass& controller, const direction::Fault& fault,
                   const direction::Case& c);

/// One card as SVG, 148 × 105 mm, black on white, with a sketch of the place where the hand goes.
std::string hand_card_svg(const HandCard& card, const Rig& rig, const ControllerClass& controller,
                          const direction::Case& c);

}  // namespace rigging
