#pragma once

#include "catalogue/catalogue.h"
#include "direction/case.h"
#include "rig/rig.h"

/// What hands do about a fault: which switch, button, gesture or dial, step by step.
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

/// The output of the rig that the case counts under this number, or null; and what is printed at its socket.
const Output* output_in(const Rig& rig, const direction::Case& c, int index);
std::string socket_label(const Rig& rig, const ControllerClass& controller, const direction::Case& c, int index);

}  // namespace rigging
