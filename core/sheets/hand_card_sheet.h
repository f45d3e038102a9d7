#pragma once

#include "direction/hand_card.h"

/// Cards to print for what hands do.
namespace rigging {

/// One card as SVG, 148 × 105 mm, black on white, with a sketch of the place where the hand goes.
std::string hand_card_svg(const HandCard& card, const Rig& rig, const ControllerClass& controller,
                          const direction::Case& c);

}  // namespace rigging
